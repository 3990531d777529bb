"""Boxes and placements, colours, words, what is remembered: what all else stands on."""
