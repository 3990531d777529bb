"""Sheets of paper on the page."""
