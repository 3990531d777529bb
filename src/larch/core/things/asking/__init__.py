"""Tasks: what is asked of a class."""
