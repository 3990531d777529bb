"""Fractions: bars and circles."""
