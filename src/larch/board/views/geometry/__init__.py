"""Views of geometry."""
