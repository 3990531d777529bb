"""Axes, and equations on them."""
