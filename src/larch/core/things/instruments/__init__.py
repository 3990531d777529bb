"""Ruler, set squares, protractor, compasses."""
