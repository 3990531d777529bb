"""Equipment for numbers."""
