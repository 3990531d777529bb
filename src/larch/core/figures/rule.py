"""What a rule says by which a figure follows from others."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from larch.core.base.shape import Point
from larch.core.figures.rule_makers import Forms, Maker, Values


class Rule(NamedTuple):
    """takes: what it follows from, in order: "point", "line", "circle" (round), "curve" (anything with a line), "figure"
    (anything), "axes"; "point…" for three or more points. makes: the kind of thing, "" for that of the first.
    words: the sentence of a step. values: name and unit of each number, with those it begins with in `starts`.
    slides: where its values go when it is dragged to a place."""

    takes: tuple[str, ...]
    makes: str
    make: Maker
    label: str
    words: str
    icon: str
    family: str
    values: tuple[tuple[str, str], ...] = ()
    starts: tuple[float, ...] = ()
    slides: Callable[[Forms, Values, Point], Values] | None = None
    search: str = ""


PT, LN, CI, CU, FI = "point", "line", "circle", "curve", "figure"
