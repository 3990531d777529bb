"""Measuring and picturing the program. A bench prints; it does not fail."""
