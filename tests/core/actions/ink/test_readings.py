"""Ink exchanged for shapes, type and equations, and ink that comes from elsewhere."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.ink.brought import brought_ink
from larch.core.actions.ink.readings import as_words, hue_of, inks_of, shaped, strokes_of
from larch.core.base.shape import Placement
from larch.core.files.inkml import page_inkml
from larch.core.files.inkml_read import Trace, traces_of
from larch.core.model.page import Page
from larch.core.model.paper import Paper, writing_line
from larch.core.recognise.shapes.reading import read_shape
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.ink.ink import Ink, ink_from
from larch.core.things.organisers.box import WordBox
from larch.core.things.organisers.connector import Connector
from larch.core.things.words.text import Text


def inked(page: Page, places: list[tuple[float, float]], hue: str = "lake") -> tuple[Page, list[Ink]]:
    after = page.put(ink_from([(x, y, 0.5, 0.0) for x, y in places], hue=hue))
    return after, inks_of(after.things[-1:])


def reading(kind: str, vertices: list[tuple[float, float]]) -> dict[str, object]:
    return {"kind": kind, "vertices": [list(v) for v in vertices]}


@given(st.floats(-5, 5), st.floats(50, 300))
def test_what_stands_almost_level_is_made_level(turn: float, size: float) -> None:
    page, inks = inked(Page(id="p"), [(0, 0), (9, 9)])
    c, s = math.cos(math.radians(turn)) * size, math.sin(math.radians(turn)) * size
    after = shaped(
        page, inks, reading("square", [(300, 300), (300 + c, 300 + s), (300 + c - s, 300 + s + c), (300 - s, 300 + c)])
    ).after
    shape = after.things[-1]  # type: ignore[union-attr]
    assert isinstance(shape, Polygon) and shape.keeps == "regular"
    assert len({round(y, 6) for _x, y in shape.vertices}) == 2
    assert not any(isinstance(thing, Ink) for thing in after.things)  # type: ignore[union-attr]


@given(st.floats(15, 75))
def test_what_is_clearly_slanted_stays_so(turn: float) -> None:
    page, inks = inked(Page(id="p"), [(0, 0), (9, 9)])
    c, s = math.cos(math.radians(turn)) * 100, math.sin(math.radians(turn)) * 100
    line = shaped(page, inks, reading("arrow", [(200, 200), (200 + c, 200 + s)])).after.things[-1]  # type: ignore[union-attr]
    assert isinstance(line, Line) and line.reach == "vector"
    (ax, ay), (bx, by) = (line.placement.to_page(*end) for end in line.ends)
    assert math.degrees(math.atan2(by - ay, bx - ax)) == pytest.approx(turn)


@given(st.floats(0, 6), st.floats(0.5, 5))
def test_an_arc_goes_through_its_three_places(start: float, sweep: float) -> None:
    at = [(400 + 80 * math.cos(start + k * sweep / 2), 300 + 80 * math.sin(start + k * sweep / 2)) for k in range(3)]
    page, inks = inked(Page(id="p"), [(0, 0), (9, 9)])
    arc = shaped(page, inks, reading("arc", at)).after.things[-1]  # type: ignore[union-attr]
    assert isinstance(arc, Circle) and arc.piece == "arc"
    assert arc.radius == pytest.approx(80, rel=1e-6) and arc.span == pytest.approx(math.degrees(sweep), abs=1e-4)
    form = arc.form()
    ends = {tuple(round(v, 3) for v in form.at(form.start)), tuple(round(v, 3) for v in form.at(form.start + form.span))}
    assert ends == {tuple(round(v, 3) for v in at[0]), tuple(round(v, 3) for v in at[2])}


def test_what_is_no_shape_is_refused() -> None:
    page, inks = inked(Page(id="p"), [(0, 0), (9, 9)])
    with pytest.raises(ValueError, match="shape"):
        shaped(page, inks, reading("none", []))


def test_a_star_has_ten_corners_and_its_tips_where_they_were() -> None:
    tips = [(300 + 90 * math.sin(2 * math.pi * k / 5), 300 - 90 * math.cos(2 * math.pi * k / 5)) for k in range(5)]
    page, inks = inked(Page(id="p"), [(0, 0), (9, 9)])
    star = shaped(page, inks, reading("star", tips)).after.things[-1]  # type: ignore[union-attr]
    corners = [star.placement.to_page(*v) for v in star.vertices]
    assert len(corners) == 10 and all(min(math.dist(tip, c) for c in corners) < 1e-6 for tip in tips)
    ring = [*corners, corners[0]]
    places = [(a[0] + (b[0] - a[0]) * k / 9, a[1] + (b[1] - a[1]) * k / 9) for a, b in pairwise(ring) for k in range(9)]
    found = read_shape([places])
    assert found.kind == "star"


@given(st.floats(-12, 12))
def test_words_stand_on_the_line_of_the_paper_that_they_were_written_on(off: float) -> None:
    page = Page(id="p", paper=Paper("ruled", step=80))
    line = writing_line(page.paper, 300)
    assert line is not None
    page, inks = inked(page, [(100, line - 30), (140, line)], "berry")
    word = {"strokes": [0], "x_height": 22.0, "baseline": line + off, "box": [100, line - 30, 140, line]}
    after = as_words(page, inks, [word], ["boat"]).after
    (text,) = after.things  # type: ignore[union-attr]
    assert isinstance(text, Text) and text.hue == "berry" and text.text == "boat"
    assert text.placement.y + text.base() == pytest.approx(line)
    assert text.size == pytest.approx(44) and text.placement.x == pytest.approx(100)
    back = text.written[0].placement.on(text.placement)
    assert (back.x, back.y) == pytest.approx((inks[0].placement.x, inks[0].placement.y))


def test_highlighters_and_locked_ink_are_not_read() -> None:
    plain = ink_from([(0, 0, 1, 0), (9, 9, 1, 0)])
    assert inks_of([plain.replace(nib="highlighter"), plain.replace(locked=True), plain.replace(points=b"")]) == []
    turned = plain.replace(placement=Placement(100, 50, 90.0, 2.0))
    assert strokes_of([turned])[0][-1] == pytest.approx((118, 32))
    long = ink_from([(k, k, 1, 0) for k in range(30)], hue="moss")
    assert hue_of([plain, long]) == "moss"


def test_ink_goes_out_as_inkml_and_comes_in_as_it_was() -> None:
    page, _inks = inked(Page(id="p"), [(100, 100), (200, 150), (300, 90)], "berry")
    traces = traces_of(page_inkml(page))
    after = brought_ink(Page(id="q"), traces).after
    (ink,) = after.things  # type: ignore[union-attr]
    assert isinstance(ink, Ink) and ink.hue == "berry"
    assert strokes_of([ink])[0] == [pytest.approx(p, abs=0.02) for p in ((100, 100), (200, 150), (300, 90))]


@given(st.floats(-1e6, 1e6), st.floats(1e-3, 1e5))
def test_ink_of_any_units_comes_to_lie_on_the_page(x: float, size: float) -> None:
    after = brought_ink(Page(id="q"), [Trace(((x, x), (x + size, x + size / 2))), Trace(())]).after
    (ink,) = after.things  # type: ignore[union-attr]
    box = ink.box()
    wide, tall = Page(id="q").size
    assert box.x0 >= -10 and box.x1 <= wide + 10 and box.y0 >= -10 and box.y1 <= tall + 10


def test_an_arrow_from_box_to_box_joins_them_and_goes_with_them() -> None:
    page = Page(id="p").put(
        WordBox(text="tide", placement=Placement(100, 100)), WordBox(text="moon", placement=Placement(600, 100))
    )
    one, other = page.things
    page, inks = inked(page, [(0, 0), (9, 9)])
    start, end = (one.box().x1 + 10, 140.0), (other.box().x0 - 10, 150.0)
    after = shaped(page, inks, reading("arrow", [start, end])).after
    line = after.things[-1]  # type: ignore[union-attr]
    assert isinstance(line, Connector) and line.ends_at() == (one.id, other.id) and line.arrows == "end"
    assert isinstance(shaped(page, inks, reading("line", [start, end])).after.things[-1], Connector)  # type: ignore[union-attr]
    alone = shaped(page, inks, reading("arrow", [start, (350.0, 400.0)])).after.things[-1]  # type: ignore[union-attr]
    assert isinstance(alone, Line)
