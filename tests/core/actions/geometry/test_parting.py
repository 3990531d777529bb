"""Parts are equal, fit exactly, and make the whole again; areas of joined shapes are those of Shapely."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.actions.geometry.cutting import equal_strips, fan, grid, split_regular
from larch.core.actions.geometry.parting import combine, cut, read_share, share, together, whole_again
from larch.core.base.shape import Placement
from larch.core.maths import geometry
from larch.core.maths.special import regular_corners, star_corners
from larch.core.model.action import actions_for
from larch.core.model.nibs import Pen
from larch.core.model.page import Page
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.ink.ink import line_from

coordinate = st.floats(-200, 200, allow_nan=False).map(lambda v: round(v, 1))
place = st.tuples(coordinate, coordinate)


def areas(pieces: list) -> list[float]:
    return [geometry.area(ring) - sum(map(geometry.area, holes)) for ring, holes in pieces]


@given(place, place, place, st.integers(2, 9))
def test_parallel_cuts_leave_equal_areas(a: tuple, b: tuple, c: tuple, n: int) -> None:
    ring = (a, b, c)
    assume(geometry.area(ring) > 300)
    pieces = equal_strips(ring, (), n)
    assert areas(pieces) == pytest.approx([geometry.area(ring) / n] * n, rel=1e-8)
    union = shapely.union_all([shapely.Polygon(piece) for piece, _holes in pieces])
    assert union.area == pytest.approx(geometry.area(ring), rel=1e-8)


@given(st.integers(3, 12), st.integers(2, 16))
def test_a_regular_polygon_is_shared_from_its_middle(corners: int, n: int) -> None:
    ring = regular_corners(corners)
    pieces = split_regular(ring, n)
    assert areas(pieces) == pytest.approx([geometry.area(ring) / n] * n, rel=1e-9)


@given(st.integers(0, 4), st.integers(2, 7))
def test_cuts_from_a_corner(corner: int, n: int) -> None:
    ring = ((0.0, 0.0), (100.0, 0.0), (140.0, 60.0), (80.0, 120.0), (-20.0, 70.0))
    assert areas(fan(ring, corner, n)) == pytest.approx([geometry.area(ring) / n] * n, rel=1e-9)


def test_a_corner_that_does_not_see_everything_says_so() -> None:
    dented = ((0.0, 0.0), (100.0, 0.0), (100.0, 100.0), (50.0, 20.0), (0.0, 100.0))
    with pytest.raises(ValueError, match="seen from that corner"):
        fan(dented, 2, 3)


def test_a_star_is_cut_in_a_direction_that_keeps_parts_whole_or_says_why() -> None:
    try:
        pieces = equal_strips(star_corners(5), (), 2)
    except ValueError as error:
        assert "lines of your own" in str(error)
    else:
        assert len(pieces) == 2


def test_neighbours_share_the_points_of_their_cut_exactly() -> None:
    for pieces in (
        grid(((0.0, 0.0), (97.3, 11.1), (108.4, 71.7), (11.1, 60.6)), 3, 2),
        split_regular(regular_corners(7), 5),
    ):
        points = [point for ring, _holes in pieces for point in ring]
        rounded = {(round(x, 6), round(y, 6)) for x, y in points}
        assert len(set(points)) == len(rounded)  # what lies together is the very same numbers


def page_of(*things: object) -> Page:
    return Page(id="p1").put(*things)  # type: ignore[arg-type]


SHEET = Polygon(vertices=((0.0, 0.0), (160.0, 0.0), (160.0, 96.0), (0.0, 96.0)), keeps="rectangle")


@pytest.mark.parametrize("thing", [SHEET, Polygon(vertices=regular_corners(6)), Circle(radius=80), Polygon()])
@pytest.mark.parametrize("n", [2, 3, 5])
def test_shared_taken_apart_and_made_whole_it_is_the_very_same(thing: Polygon, n: int) -> None:
    page = page_of(thing.replace(placement=Placement(200, 100, 30, 1.5)))
    edit = share(page, page.things, n)
    assert isinstance(edit.after, Page)
    parts = edit.after.some(edit.select or ())
    assert len(parts) == n
    facts = [{fact.name: fact for fact in part.facts(edit.after)} for part in parts]
    assert {known["share"].text for known in facts} == {f"1/{n}"}
    assert [known["area"].value for known in facts] == pytest.approx([facts[0]["area"].value] * n)
    scattered = edit.after.with_things({part.id: part.moved(31.7 * k, 12.9 * k) for k, part in enumerate(parts)})
    back = together(scattered, scattered.some(edit.select or ())).after
    assert back.some(edit.select or ()) == parts
    whole = whole_again(back, back.some(edit.select or ())).after
    assert len(whole.things) == 1
    assert whole.things[0].form() == page.things[0].form()
    assert getattr(whole.things[0], "keeps", "") == getattr(thing, "keeps", "")
    with pytest.raises(ValueError, match="not selected"):
        whole_again(back, back.some(edit.select or ())[:-1])


HOW = [("5", (5, 1, "")), ("3 x 4", (3, 4, "")), ("4 × 2", (4, 2, "")), ("4 from A", (4, 1, "A"))]


@pytest.mark.parametrize(("typed", "read"), HOW)
def test_how_to_share_is_typed(typed: str, read: tuple) -> None:
    assert read_share(typed) == read


@pytest.mark.parametrize("typed", ["1", "0", "2.5", "1000", "lantern"])
def test_what_cannot_be_shared_is_one_sentence(typed: str) -> None:
    page = page_of(Polygon())
    fact = next(fact for fact in page.things[0].facts(page) if fact.name == "share into")
    with pytest.raises(ValueError, match=r"\.$"):
        fact.set(typed)


def test_a_line_cuts_and_the_parts_make_the_whole_again() -> None:
    square = Polygon(
        vertices=((0.0, 0.0), (128.0, 0.0), (128.0, 128.0), (0.0, 128.0)), keeps="square", placement=Placement(100, 100)
    )
    page = page_of(square, Line(ends=((90.0, 120.0), (240.0, 200.0))))
    edit = cut(page, page.things)
    parts = edit.after.some(edit.select or ())
    assert len(parts) == 2
    assert math.fsum(geometry.area(part.vertices) for part in parts) == pytest.approx(128 * 128, rel=1e-12)
    shared = set(parts[0].vertices) & set(parts[1].vertices)
    assert len(shared) == 2  # the ends of the cut, exactly
    again = whole_again(edit.after, parts).after
    assert again.thing("t1").form() == page.thing("t1").form()
    assert again.thing("t1").keeps == "square"


def test_a_drawn_stroke_cuts_and_one_that_ends_inside_does_not() -> None:
    square = Polygon(vertices=((0.0, 0.0), (128.0, 0.0), (128.0, 128.0), (0.0, 128.0)))
    across = page_of(square, line_from([(64.0, -20.0), (60.0, 60.0), (70.0, 150.0)], Pen(form="curve")))
    assert len(cut(across, across.things).select or ()) == 2
    short = page_of(square, line_from([(64.0, -20.0), (60.0, 60.0)], Pen(form="line")))
    with pytest.raises(ValueError, match="right across"):
        cut(short, short.things)


def test_joined_overlapped_and_taken_away() -> None:
    one = Polygon(vertices=((0.0, 0.0), (96.0, 0.0), (96.0, 96.0), (0.0, 96.0)))
    other = one.replace(placement=Placement(48, 48))
    page = page_of(one, other)
    for how, squares in (("join", 18 - 2.25), ("overlap", 2.25), ("subtract", 9 - 2.25)):
        made = combine(page, page.things, how)
        (shape,) = made.after.some(made.select or ())
        known = {fact.name: fact for fact in shape.facts(made.after)}
        assert known["area"].value == pytest.approx(squares)
    apart = page_of(one, one.replace(placement=Placement(500, 0)))
    with pytest.raises(ValueError, match="do not overlap"):
        combine(apart, apart.things, "overlap")
    with pytest.raises(ValueError, match="Nothing is left"):
        combine(page_of(one, one), page_of(one, one).things, "subtract")


def test_a_hole_is_a_hole_and_a_circle_keeps_its_area() -> None:
    plate = Polygon(vertices=((0.0, 0.0), (320.0, 0.0), (320.0, 320.0), (0.0, 320.0)))
    page = page_of(plate, Circle(radius=96, placement=Placement(160, 160)))
    made = combine(page, page.things, "subtract")
    (shape,) = made.after.some(made.select or ())
    assert len(shape.holes) == 1
    area = next(fact for fact in shape.facts(made.after) if fact.name == "area")
    assert area.value == pytest.approx(100 - 9 * math.pi, rel=1e-9)
    assert area.text.startswith("≈")
    assert not shape.touches(160, 160, 1)  # a finger goes through the hole


def test_the_actions_are_offered_where_they_fit() -> None:
    page = page_of(Polygon(), Polygon(placement=Placement(40, 0)), Line())
    names = {action.name for action in actions_for(page, page.things[:1])}
    assert {"share 2", "share 12", "tessellate"} <= names
    assert "cut" not in names
    assert "cut" in {action.name for action in actions_for(page, page.some(["t1", "t3"]))}
    assert {"shapes join", "compare"} <= {action.name for action in actions_for(page, page.things[:2])}
