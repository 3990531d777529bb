"""How much a lesson may hold: stated here once, looked at when it is made, written and read, and said."""

from __future__ import annotations

MOST_PAGES = 5_000
MOST_THINGS = 20_000  # on a page
MOST_TOLD = 200  # pairs of braces in a text that are worked out
MANY = 500  # things: what is done to more of them may take long, and is done where it can be stopped
MOST_ENTRIES = 60_000  # of a lesson file: at most four for each page, its equations, and media
MOST_MATHML = 20_000  # equations that are written for other programs too
