"""Text and notes."""
