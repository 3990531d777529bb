"""One search over everything."""
