"""Views of organisers."""
