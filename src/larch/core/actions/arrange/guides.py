"""Where a dragged thing falls into line with others: edges, middles, equal gaps, and the lines of the paper."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from itertools import pairwise
from typing import NamedTuple

from larch.core.base.shape import Box
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.paper import FINEST
from larch.core.model.thing import Snap

MOST = 60  # others that are looked at
SQUARED = ("squared", "dotted", "graph")


class _Fit(NamedTuple):
    """How far off, the shift that mends it, the word for it, and between which lines across it is shown."""

    off: float
    shift: float
    reason: str
    at: float
    ends: tuple[float, float]


def guide(page: Page, box: Box, others: Sequence[Box], reach: float) -> Snap | None:
    """The shift by which a box falls into line, across and down by themselves; None if nothing is near."""
    near = sorted(others, key=lambda o: abs(o.centre[0] - box.centre[0]) + abs(o.centre[1] - box.centre[1]))[:MOST]
    across = _best(page, box, near, reach, True)
    down = _best(page, box, near, reach, False)
    if across is None and down is None:
        return None
    dx, dy = across.shift if across else 0.0, down.shift if down else 0.0
    reasons = dict.fromkeys(fit.reason for fit in (across, down) if fit is not None)
    shown = across or down
    assert shown is not None
    if shown is across:
        low, high = min(shown.ends[0], box.y0 + dy), max(shown.ends[1], box.y1 + dy)
        line = ((shown.at, low), (shown.at, high))
    else:
        low, high = min(shown.ends[0], box.x0 + dx), max(shown.ends[1], box.x1 + dx)
        line = ((low, shown.at), (high, shown.at))
    return Snap(dx, dy, " · ".join(reasons), line)


def _best(page: Page, box: Box, others: Sequence[Box], reach: float, across: bool) -> _Fit | None:
    return min(_fits(page, box, others, reach, across), default=None, key=lambda fit: fit.off)


def _span(box: Box, across: bool) -> tuple[float, float]:
    return (box.x0, box.x1) if across else (box.y0, box.y1)


def _fits(page: Page, box: Box, others: Sequence[Box], reach: float, across: bool) -> list[_Fit]:
    """Everything within reach that the box could fall into line with. This is asked at every move of a drag."""
    low, high = _span(box, across)
    middle = (low + high) / 2
    found: list[_Fit] = []
    for other in others:
        a, b = _span(other, across)
        by = (a + b) / 2 - middle
        if -reach <= by <= reach:
            found.append(_Fit(abs(by), by, _("middle"), (a + b) / 2, _span(other, not across)))
        for mine, theirs in ((low, a), (high, b), (low, b), (high, a)):
            by = theirs - mine
            if -reach <= by <= reach:
                # Slightly behind middles, so that things of one size are not held by three reasons at once.
                found.append(_Fit(abs(by) + 1e-6, by, _("edge"), theirs, _span(other, not across)))
    found += [fit for fit in _gaps(box, others, across) if fit.off <= reach]
    found += [fit for fit in _paper(page, box, across) if fit.off <= reach]
    return found


def _paper(page: Page, box: Box, across: bool) -> Iterable[_Fit]:
    """The lines of the page's paper."""
    low, high = _span(box, across)
    step = page.paper.step
    if step < FINEST:
        return
    if page.paper.pattern in SQUARED:
        for mine in (low, high):
            line = round(mine / step) * step
            if abs(line - mine) <= step / 4:
                yield _Fit(abs(line - mine) + 2e-6, line - mine, _("on the paper"), line, _span(box, not across))
    elif page.paper.pattern in ("ruled", "handwriting") and not across:
        top = page.paper.top
        line = top + round((high - top) / step) * step
        if abs(line - high) <= step / 4:
            yield _Fit(abs(line - high) + 2e-6, line - high, _("on the line"), line, _span(box, True))


def _gaps(box: Box, others: Sequence[Box], across: bool) -> Iterable[_Fit]:
    """As far from its neighbour as that is from the next, or just as far from both sides."""
    low, high = _span(box, across)
    row = [o for o in others if _overlap(_span(o, not across), _span(box, not across))]
    spans = sorted((_span(o, across) for o in row), key=lambda s: s[0])
    words = _("equal gaps")
    ends = _span(box, not across)
    for (a0, a1), (b0, b1) in pairwise(spans):
        gap = b0 - a1
        if gap <= 0:
            continue
        yield _Fit(abs(b1 + gap - low) + 1e-6, b1 + gap - low, words, b1 + gap, ends)
        yield _Fit(abs(a0 - gap - high) + 1e-6, a0 - gap - high, words, a0 - gap, ends)
        if a1 <= (low + high) / 2 <= b0:
            centre = (a1 + b0) / 2
            yield _Fit(abs(centre - (low + high) / 2) + 5e-7, centre - (low + high) / 2, words, centre, ends)


def _overlap(a: tuple[float, float], b: tuple[float, float]) -> bool:
    return min(a[1], b[1]) - max(a[0], b[0]) > 0
