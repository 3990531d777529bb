"""Views of pictures."""
