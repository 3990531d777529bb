"""Slips: the measures shown on figures, laid so that they keep out of each other's way."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import NamedTuple

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QColor, QPainter

from larch.board.look import text_colour
from larch.board.views import view_of
from larch.board.views.base import Slip, View, badge, box_at, words
from larch.core.base.memo import remember_in_thread
from larch.core.base.shape import Box, Point
from larch.core.model.page import Page
from larch.core.model.thing import Thing

MOST = 400  # slips that are laid with regard to each other
MOST_EFFORT = 400_000  # comparisons of boxes; where there is more, a page is so full that nothing could keep clear
GAP = 3.0
FURTHEST = 150.0  # page units by which a slip may be moved aside
STRAY = 3.0  # page units by which a slip must have moved for its place to be painted anew


AROUND = sorted(
    ((70.0 * i, 38.0 * j) for i in range(-2, 3) for j in range(-3, 4) if i or j), key=lambda shift: math.hypot(*shift)
)


class Laid(NamedTuple):
    """A slip, and where its middle was laid."""

    slip: Slip
    at: Point


def _free(box: Box, taken: Sequence[Box]) -> bool:
    return not any(box.meets(other) for other in taken)


def _overlap(box: Box, taken: Sequence[Box]) -> float:
    """The area that others have already."""
    total = 0.0
    for other in taken:
        width = min(box.x1, other.x1) - max(box.x0, other.x0)
        height = min(box.y1, other.y1) - max(box.y0, other.y0)
        total += max(0.0, width) * max(0.0, height)
    return total


def lay(slips: Sequence[Slip], taken: list[Box], foreign: Sequence[Box] = ()) -> list[Laid]:
    """Lays each slip at the first of its spots that is free, or beside them, though not in other figures (`foreign`), where
    it would be taken for theirs; else where it covers least. Adds what they take."""
    laid = []
    for slip in slips:
        boxes = [box_at(slip, spot).grown(GAP) for spot in slip.spots]
        best = boxes[0] if slip.fixed else next((box for box in boxes if _free(box, taken)), None)
        if best is None and not slip.bare:  # an angle's size belongs into its corner
            aside = (boxes[0].moved(*shift) for shift in AROUND)
            best = next((box for box in aside if _free(box, taken) and _free(box.grown(-8), foreign)), None)
        if best is None:
            best = min(boxes, key=lambda box: _overlap(box, taken))
        taken.append(best.grown(-GAP))
        laid.append(Laid(slip, best.centre))
    return laid


@remember_in_thread
def laid_out(page: Page) -> dict[str, list[Laid]]:
    """Where the slips of all figures of a page lie."""
    shown: list[tuple[Thing, View]] = []
    taken: list[Box] = []
    for thing in page.things:
        if not thing.shown:
            continue
        view = view_of(thing)
        shown.append((thing, view))
        taken += view.kept_free(thing)
    bodies = [(thing.id, view.box(thing)) for thing, view in shown]
    wanted = [(thing.id, slip) for thing, view in shown for slip in view.slips(thing, page)]
    found: dict[str, list[Laid]] = {thing.id: [] for thing, _view in shown}
    effort = 0
    for bare in (True, False):  # the sizes of angles have the fewest places to go to, so they come first
        for count, (id, slip) in enumerate(wanted):
            if slip.bare == bare:
                others = [box for other, box in bodies if other != id]
                spots = len(slip.spots) + len(AROUND)
                effort += spots * len(taken) + len(others)
                found[id] += lay([slip], taken if count <= MOST and effort < MOST_EFFORT else [], others)
    return found


def slips_of(thing: Thing, view: View, page: Page) -> list[Laid]:
    """The slips of one figure where they lie; one that is not on the page yet lays its own."""
    if not thing.shown:
        return []
    on_page = page.thing(thing.id) if thing.id else None
    if on_page is thing:
        return laid_out(page).get(thing.id, [])
    return lay(list(view.slips(thing, page)), list(view.kept_free(thing)))


def slip_at(page: Page, at: Point) -> tuple[str, Laid] | None:
    """The measure that is shown at a place: the id of its thing, and where it lies."""
    for id, listed in reversed(list(laid_out(page).items())):
        for laid in listed:
            if laid.slip.name and box_at(laid.slip, laid.at).grown(GAP).holds(*at):
                return id, laid
    return None


def slips_moved(before: Page, after: Page, changed: set[str]) -> Iterator[Box]:
    """Where slips of unchanged figures lay and lie, if those of changed ones pushed them."""
    shows = any((t := page.thing(id)) is not None and t.shown for page in (before, after) for id in changed)
    if not shows:
        return
    old, new = laid_out(before), laid_out(after)
    for id, laid in new.items():
        if id in changed or id not in old:
            continue
        for was, now in zip(old[id], laid, strict=False):
            if abs(was.at[0] - now.at[0]) + abs(was.at[1] - now.at[1]) > STRAY or was.slip.text != now.slip.text:
                yield box_at(was.slip, was.at).grown(GAP)
                yield box_at(now.slip, now.at).grown(GAP)


def paint_slips(painter: QPainter, laid: Sequence[Laid]) -> None:
    for slip, at in laid:
        shade: QColor = text_colour(slip.shade)
        if slip.bare:
            words(painter, QPointF(*at), slip.text, shade, slip.size, bold=True)
        else:
            badge(painter, at, slip.text, shade, slip.size)
