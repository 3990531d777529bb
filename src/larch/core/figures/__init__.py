"""Figures that follow from others, and what they are asked."""
