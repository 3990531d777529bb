"""Writing, rubbing out, painting."""
