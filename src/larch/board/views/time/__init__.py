"""Views of time."""
