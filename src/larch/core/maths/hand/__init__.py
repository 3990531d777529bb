"""Equations that are changed by moving their graphs: what family they are of, in which form they are written, what can be
dragged, and the same form with other numbers. No page."""
