"""Handwritten mathematics, read as rows that can be edited."""
