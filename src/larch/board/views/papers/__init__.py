"""Views of papers."""
