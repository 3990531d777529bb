"""Views of instruments."""
