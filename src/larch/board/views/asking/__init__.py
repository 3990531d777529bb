"""Views of tasks."""
