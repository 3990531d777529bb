"""Clocks and what measures time."""
