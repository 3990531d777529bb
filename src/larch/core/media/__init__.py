"""Bytes kept by their hash, and the drawings that come along."""
