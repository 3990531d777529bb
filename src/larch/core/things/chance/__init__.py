"""Equipment for chance."""
