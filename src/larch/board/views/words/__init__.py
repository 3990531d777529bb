"""Views of words."""
