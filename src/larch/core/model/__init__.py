"""Lessons, pages, things, edits, actions and facts: the values that all else is made of."""
