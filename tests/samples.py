"""One catalogue of samples and one set of hypothesis strategies for all tests."""

from __future__ import annotations

import math

from hypothesis import strategies as st

from larch.core.base.shape import Placement
from larch.core.figures.figure import Figure
from larch.core.media import picture_set
from larch.core.model.kinds import kinds, shelf_items
from larch.core.model.nibs import NIBS, Pen
from larch.core.model.page import Page
from larch.core.model.thing import Thing, Unknown
from larch.core.things.geometry.locus import Locus
from larch.core.things.graphs.graph_area import GraphArea
from larch.core.things.graphs.staircase import Staircase
from larch.core.things.ink.ink import Ink, ink_from, line_from
from larch.core.things.organisers.connector import Connector
from larch.core.things.organisers.ready_made import KINDS
from larch.core.things.papers.sheet import Sheet
from larch.core.things.pictures.painted import Painted
from larch.core.things.pictures.picture import Picture

finite = st.floats(-1e4, 1e4, allow_nan=False)
points = st.tuples(finite, finite)
placements = st.builds(
    Placement, x=finite, y=finite, turn=st.floats(-720, 720), scale=st.floats(0.01, 50)
)  # fmt: skip


def stroke(y: float = 100.0, hue: str = "needle", start: float = 50.0) -> Ink:
    """A wavy stroke across the page."""
    return ink_from([(start + 6 * i, y + (i % 5), 0.5, 8.0 * i) for i in range(40)], 5.0, hue)


def sheet(x: float, y: float, w: float = 80, h: float = 60, **fields: object) -> Sheet:
    """A sheet of paper at a place."""
    return Sheet(placement=Placement(x, y), width=w, height=h, **fields)  # type: ignore[arg-type]


def ring(cx: float, cy: float, radius: float, gap: float = 0.0, count: int = 90) -> Ink:
    """A circle of ink, open on the right by `gap` radians to each side."""
    turns = [gap + (2 * math.pi - 2 * gap) * k / count for k in range(count + 1)]
    return ink_from([(cx + radius * math.cos(t), cy + radius * math.sin(t), 0.5, 0.0) for t in turns])


def special_ink() -> list[Ink]:
    """A stroke of every nib, a curve with arrows, a dashed line."""
    wave = [(50.0 + 6 * i, 300.0 + 3 * (i % 7), 0.5, 8.0 * i) for i in range(40)]
    nibs = [ink_from(wave, pen=Pen(nib, width=nib_of.widths[1], hue="lake")) for nib, nib_of in NIBS.items()]
    curve = line_from([(100, 100), (200, 40), (300, 120)], Pen("broad", "curve", 12, "berry", ends="both"))
    line = line_from([(100, 400), (400, 300)], Pen("pen", "line", 5, "moss", "dash", "end"))
    return [*nibs, curve, line]


def organised() -> list[Thing]:
    """Parts of organisers, without what follows from others."""
    return [thing for _name, _label, build, _words in KINDS[:3] for thing in build() if not isinstance(thing, Figure)]


def sample_things() -> list[Thing]:
    """At least one of every kind that can be put on a page."""
    things: list[Thing] = [item.make().moved(40 * i, 30 * i) for i, item in enumerate(shelf_items())]
    things += [stroke(), *special_ink(), Painted(), Locus(lines=(((0.0, 0.0), (60.0, 40.0), (90.0, 10.0)),))]
    drawing = picture_set.search("lantern", 1)[0]
    things += [Picture(media=f"{drawing.hash}.svg", name=drawing.label, trim=(0.1, 0.0, 0.0, 0.2)), Connector()]
    things += [
        GraphArea(low=-1.0, high=2.0, placement=Placement(900, 60)),
        Staircase(start=2.0, placement=Placement(900, 240)),
    ]
    things += [thing.replace(id="", placement=Placement(60, 900)) for thing in organised()]
    missing = set(kinds().values()) - {type(thing) for thing in things} - {Unknown}
    assert not missing, f"kinds without a sample: {missing}"
    return things


def page_with(*things: Thing, **fields: object) -> Page:
    return Page(id="p1", seed=7, **fields).put(*things)  # type: ignore[arg-type]
