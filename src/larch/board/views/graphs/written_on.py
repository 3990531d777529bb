"""Where something is written by hand on an equation: over parts of it, in an empty place, or behind its end."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import NamedTuple

from larch.board.typeset.boxes import Place, Setting, Stop
from larch.board.views.graphs.equation import PAD, read
from larch.core.actions.ink.corrected import corrected
from larch.core.base.shape import Box, union
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.rows import Row
from larch.core.maths.layout.writing import Path
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.graphs.equation import HIDDEN, Equation
from larch.core.things.ink.ink import Ink

MET = 0.4  # of a part's width that is covered, for it to be meant
TALLER = 1.9  # times as tall as the row, at most, is what is written in it
AFTER = 1.0  # em behind the end within which it goes on


def equation_under(page: Page, box: Box) -> str:
    """The id of the topmost equation that something is written on, or ""."""
    for thing in reversed(page.things):
        if isinstance(thing, Equation) and not thing.locked and not thing.hidden and spot_under(thing, box) is not None:
            return thing.id
    return ""


def changes(page: Page, id: str, inks: Sequence[Ink], sources: Sequence[str]) -> list[tuple[str, Row, Edit]]:
    """What an equation becomes when one of these is what ink on it says: that source, the equation as it is then, and the
    edit. None where the ink lies beside it."""
    equation = page.thing(id)
    spot = spot_under(equation, union(ink.box() for ink in inks)) if isinstance(equation, Equation) else None
    if spot is None or not isinstance(equation, Equation):
        return []
    found = []
    for source in sources:
        try:
            edit = corrected(page, equation, *spot, look(source), inks)
        except ValueError:
            continue
        assert isinstance(edit.after, Page)
        after = edit.after.some([id])
        found.append((source, look(after[0].source) if after and isinstance(after[0], Equation) else (), edit))
    return found


def struck_out(page: Page, box: Box) -> Edit | None:
    """Without the parts of the topmost equation that a stroke to and fro in `box` covers; None where it covers none."""
    for thing in reversed(page.things):
        if isinstance(thing, Equation) and not thing.locked and not thing.hidden:
            spot = spot_under(thing, box)
            if spot is not None and spot.end > spot.start:
                return corrected(page, thing, *spot, ())
    return None


class Spot(NamedTuple):
    """Parts of the row at `path`, from start to before end; none between them where it is put in."""

    path: Path
    start: int
    end: int


def spot_under(equation: Equation, box: Box) -> Spot | None:
    """box: of what is written, on the page. The innermost row that it fits counts."""
    if HIDDEN in equation.shown or equation.outcome() or equation.seen_source() != equation.source:
        return None  # what is seen is not what is written in it
    made, _error = read(equation)
    own = _in_em(equation, made, box)
    for mark in made.marks:
        if isinstance(mark, Place) and Box(mark.x, mark.y, mark.x + mark.width, mark.y + mark.height).grown(0.2).holds(
            *own.centre
        ):
            return Spot(mark.path, 0, 0)
    found: list[Spot] = []
    for path, stops in _rows(made).items():
        spot = _in_row(path, stops, own)
        if spot is not None:
            found.append(spot)
    return max(found, key=lambda spot: len(spot.path), default=None)


def _in_em(equation: Equation, made: Setting, box: Box) -> Box:
    """In heights of its type, from where it begins on its baseline."""
    size, place = equation.size, equation.placement
    (x0, y0), (x1, y1) = place.to_local(box.x0, box.y0), place.to_local(box.x1, box.y1)
    left, base = PAD * size, (max(made.above, 0.7) + PAD) * size
    return Box((x0 - left) / size, (y0 - base) / size, (x1 - left) / size, (y1 - base) / size)


def _rows(made: Setting) -> dict[Path, list[Stop]]:
    rows: dict[Path, list[Stop]] = {}
    for stop in made.stops:
        rows.setdefault(stop.path, []).append(stop)
    return {path: sorted(stops, key=lambda stop: stop.part) for path, stops in rows.items()}


def _in_row(path: Path, stops: list[Stop], own: Box) -> Spot | None:
    top, bottom = min(stop.top for stop in stops), max(stop.bottom for stop in stops)
    middle = own.centre
    if not top <= middle[1] <= bottom or own.height > TALLER * (bottom - top):
        return None
    met = []
    for one, following in pairwise(stops):
        wide = max(following.x - one.x, 1e-6)
        across = min(own.x1, following.x) - max(own.x0, one.x)
        if across >= MET * min(wide, max(own.width, 1e-6)) and (across >= 0.25 * wide or one.x <= middle[0] <= following.x):
            met.append(one.part)
    if met:
        return Spot(path, met[0], met[-1] + 1)
    if not path and stops[-1].x <= middle[0] <= stops[-1].x + AFTER + own.width / 2:
        return Spot(path, stops[-1].part, stops[-1].part)
    return None
