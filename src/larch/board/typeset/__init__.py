"""Words and equations set in type."""
