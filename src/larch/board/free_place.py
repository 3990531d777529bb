"""Finds a place for what hangs over the page where it covers the least. No Qt."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

from larch.core.base.shape import Box

BUSY = 0.02  # of its own area that a place may cover and still counts as free


def overlap(a: Box, b: Box) -> float:
    """The area that two boxes have in common."""
    wide = min(a.x1, b.x1) - max(a.x0, b.x0)
    high = min(a.y1, b.y1) - max(a.y0, b.y0)
    return wide * high if wide > 0 and high > 0 else 0.0


def freest(places: Sequence[Box], taken: Iterable[tuple[Box, float]], room: Box) -> Box | None:
    """The first of the places within `room` that is free, else the one that covers least; None if none fits.

    taken: boxes with how much it matters to cover them.
    """
    listed = list(taken)
    best, least = None, float("inf")
    for place in places:
        if not room.covers(place):
            continue
        covered = 0.0
        for box, weight in listed:
            covered += overlap(place, box) * weight
            if covered >= least:
                break  # on a crowded page most places are out after a few things
        if covered <= BUSY * place.width * place.height:
            return place
        if covered < least:
            best, least = place, covered
    return best
