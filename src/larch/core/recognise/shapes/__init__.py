"""Rough outlines read as the shapes that were meant."""
