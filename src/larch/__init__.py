"""Larch: mathematics lessons that know their own numbers."""

__version__ = "0.1.0"
