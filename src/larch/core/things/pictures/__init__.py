"""Pictures, painted areas, frost."""
