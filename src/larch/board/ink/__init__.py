"""Strokes as they are painted, at rest and while they are drawn."""
