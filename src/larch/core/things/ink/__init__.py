"""Ink and marks."""
