"""Views of numbers."""
