"""Views of graphs."""
