"""Views of chance."""
