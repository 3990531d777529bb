"""The drawer of things to put out, and what is kept there."""
