"""Meetings lie on both forms, agree with SymPy and Shapely, and every case without one says why."""

from __future__ import annotations

import math

import pytest
import shapely
import sympy
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.maths.plane import Angle, Circle, Ellipse, Line, NotThere, Path, Spot
from larch.core.maths.plane.construct import common_tangents
from larch.core.maths.plane.meet import meetings
from larch.core.maths.plane.near import distance

small = st.integers(-60, 60)
points = st.tuples(small, small)
floats = st.floats(-500, 500, allow_nan=False).map(lambda v: round(v, 3))
places = st.tuples(floats, floats)


@given(points, points, points, points)
def test_two_lines_meet_where_sympy_says(a: tuple, b: tuple, c: tuple, d: tuple) -> None:
    assume(a != b and c != d)
    exact = sympy.Line(a, b).intersection(sympy.Line(c, d))
    try:
        found = meetings(Line(a, b, "line"), Line(c, d, "line"))
    except NotThere as reason:
        lies_on = exact and isinstance(exact[0], sympy.Line)
        assert str(reason) == ("They lie on each other." if lies_on else "They are parallel.")
        return
    assert found[0] == pytest.approx((float(exact[0].x), float(exact[0].y)), rel=1e-9, abs=1e-9)


@given(points, points, points, st.integers(1, 50))
def test_a_line_and_a_circle_meet_where_sympy_says(a: tuple, b: tuple, centre: tuple, radius: int) -> None:
    assume(a != b)
    exact = sympy.Circle(sympy.Point(*centre), radius).intersection(sympy.Line(a, b))
    try:
        found = meetings(Line(a, b, "line"), Circle(centre, float(radius)))
    except NotThere as reason:
        assert not exact
        assert str(reason) == "The line passes the circle by."
        return
    theirs = sorted((float(p.x), float(p.y)) for p in exact)
    assert len(found) == len(theirs)
    for mine, other in zip(
        sorted((round(x, 9), y) for x, y in found), sorted((round(x, 9), y) for x, y in theirs), strict=True
    ):
        assert mine == pytest.approx(other, rel=1e-9, abs=1e-7)
    along = [(p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1]) for p in found]
    assert along == sorted(along)  # in the order in which the line is run through


@given(points, st.integers(1, 40), points, st.integers(1, 40))
def test_two_circles_meet_as_often_as_their_centres_allow(a: tuple, r: int, b: tuple, s: int) -> None:
    apart = (a[0] - b[0]) ** 2 + (a[1] - b[1]) ** 2
    expected = (
        0
        if apart == 0 or apart > (r + s) ** 2 or apart < (r - s) ** 2
        else 1
        if apart in ((r + s) ** 2, (r - s) ** 2)
        else 2
    )
    try:
        found = meetings(Circle(a, float(r)), Circle(b, float(s)))
    except NotThere:
        found = []
    assert len(found) == expected
    for p in found:
        assert math.dist(p, a) == pytest.approx(r, rel=1e-9)
        assert math.dist(p, b) == pytest.approx(s, rel=1e-9)


def test_the_first_meeting_of_two_circles_stays_on_its_side() -> None:
    for x in range(10, 190, 10):
        first, second = meetings(Circle((0.0, 0.0), 100.0), Circle((float(x), 3.0), 100.0))
        assert first[1] < second[1]  # y points down: the first lies to the left of the way from centre to centre


@given(places, places, places, places)
def test_segments_meet_as_shapely_says(a: tuple, b: tuple, c: tuple, d: tuple) -> None:
    one, other = shapely.LineString([a, b]), shapely.LineString([c, d])
    assume(one.length > 1 and other.length > 1)
    cross = (b[0] - a[0]) * (d[1] - c[1]) - (b[1] - a[1]) * (d[0] - c[0])
    assume(abs(cross) > 1e-3 * one.length * other.length)
    try:
        found = meetings(Line(a, b), Line(c, d))
    except NotThere as reason:
        assert str(reason) == "They end before they meet."
        assert shapely.distance(one, other) > 0 or shapely.intersection(one, other).length == 0
        return
    assert shapely.distance(one, shapely.Point(found[0])) < 1e-6
    assert shapely.distance(other, shapely.Point(found[0])) < 1e-6


@given(places, st.floats(5, 200), st.floats(5, 200), st.floats(0, 180), places, places)
def test_a_line_meets_an_ellipse_on_both(centre: tuple, rx: float, ry: float, turn: float, a: tuple, b: tuple) -> None:
    assume(math.dist(a, b) > 1)
    ellipse = Ellipse(centre, rx, ry, turn)
    try:
        found = meetings(Line(a, b, "line"), ellipse)
    except NotThere:
        return
    for p in found:
        assert distance(ellipse, p) < 1e-6 * max(rx, ry, 1)
        assert distance(Line(a, b, "line"), p) < 1e-6 * (1 + math.dist(p, a))


def test_ellipses_meet_in_up_to_four_points_and_touch_in_one() -> None:
    one, other = Ellipse((0.0, 0.0), 100.0, 40.0), Ellipse((0.0, 0.0), 40.0, 100.0)
    assert len(meetings(one, other)) == 4
    touching = meetings(Ellipse((0.0, 0.0), 100.0, 40.0), Circle((150.0, 0.0), 50.0))
    assert touching[0] == pytest.approx((100, 0), abs=1e-3)
    with pytest.raises(NotThere, match="do not meet"):
        meetings(one, Circle((500.0, 0.0), 10.0))
    with pytest.raises(NotThere, match="lie on each other"):
        meetings(one, one)


@pytest.mark.parametrize(
    ("one", "other", "why"),
    [
        (Line((0, 0), (1, 0), "line"), Line((0, 1), (5, 1), "line"), "parallel"),
        (Line((0, 0), (1, 1), "line"), Line((2, 2), (3, 3), "line"), "on each other"),
        (Line((0, 0), (0, 0), "line"), Line((2, 2), (3, 3), "line"), "coincide"),
        (Line((0, 0), (1, 0)), Line((5, -1), (5, 1)), "end before"),
        (Line((0, 0), (1, 0), "ray"), Line((-5, -1), (-5, 1)), "end before"),
        (Circle((0, 0), 5), Circle((0, 0), 5), "same circle"),
        (Circle((0, 0), 5), Circle((0, 0), 6), "same centre"),
        (Circle((0, 0), 5), Circle((20, 0), 5), "apart"),
        (Circle((0, 0), 50), Circle((2, 0), 5), "inside"),
        (Circle((0, 0), 0), Line((0, 0), (1, 0), "line"), "no size"),
        (Circle((0, 0), 5, "arc", 0, 90), Line((0, 1), (0, -1), "ray"), ""),
        (Circle((0, 0), 5, "arc", 10, 60), Line((-9, 0), (9, 0), "line"), "arc ends"),
        (Spot(0, 0), Spot(1, 1), "does not meet"),
        (Spot(0, 0), Circle((0, 0), 5), "does not meet"),
    ],
)  # fmt: skip
def test_what_does_not_meet_says_why(one: object, other: object, why: str) -> None:
    if not why:
        assert meetings(one, other) == [pytest.approx((0, -5))]  # type: ignore[arg-type]
        return
    with pytest.raises(NotThere, match=why):
        meetings(one, other)  # type: ignore[arg-type]


def test_paths_and_angles_meet_side_by_side() -> None:
    square = Path(((0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0)))
    assert sorted(meetings(Line((5, -5), (5, 15), "line"), square)) == [pytest.approx((5, 0)), pytest.approx((5, 10))]
    assert len(meetings(square, Circle((5, 5), 6))) == 8
    assert len(meetings(square, Line((-1, -1), (11, 11)))) == 2  # through corners, each counted once
    arms = Angle((0.0, 0.0), (10.0, 0.0), (0.0, -10.0))
    assert sorted(meetings(arms, Circle((0, 0), 4))) == [pytest.approx((0, -4)), pytest.approx((4, 0))]


@pytest.mark.parametrize("far", [1e-6, 1.0, 1e6])
def test_meetings_keep_their_digits_far_away_and_when_tiny(far: float) -> None:
    (x, y), *_rest = meetings(Line((0, 0), (3 * far, 4 * far), "line"), Line((0, 4 * far), (3 * far, 0), "line"))
    assert (x, y) == pytest.approx((1.5 * far, 2 * far), rel=1e-12)


@given(st.floats(0.01, 300), st.floats(0.01, 300), st.floats(0, 360))
def test_touching_circles_have_three_or_one_common_tangent(r: float, s: float, turn: float) -> None:
    assume(abs(r - s) > 1e-3 * (r + s))
    one = Circle((3.0, -7.0), r)
    for apart, count in ((r + s, 3), (abs(r - s), 1)):
        away = math.radians(turn)
        other = Circle((3 + apart * math.cos(away), -7 + apart * math.sin(away)), s)
        found = common_tangents(one, other)
        assert len(found) == count
        for line in found:
            for circle in (one, other):
                assert distance(line._replace(form="line"), circle.centre) == pytest.approx(circle.radius, rel=1e-5)


@given(places, st.floats(1, 200), st.floats(0.05, 0.95), st.floats(0, 360))
def test_an_ellipse_and_the_circle_round_it_meet_twice(centre: tuple, rx: float, share: float, turn: float) -> None:
    found = meetings(Ellipse(centre, rx, rx * share, turn), Circle(centre, rx))
    assert len(found) == 2
    for point in found:
        assert math.dist(point, centre) == pytest.approx(rx, rel=1e-6)
    assert math.dist(*found) == pytest.approx(2 * rx, rel=1e-5)


@given(points, points, small, small, small, small)
def test_segments_on_one_line_meet_only_where_one_ends_and_the_other_begins(a, way, s, t, u, v) -> None:  # type: ignore[no-untyped-def]
    assume(way != (0, 0) and s != t and u != v)

    def at(k: int) -> tuple[int, int]:
        return (a[0] + k * way[0], a[1] + k * way[1])

    (low, high), (first, last) = sorted((s, t)), sorted((u, v))
    one, other = Line(at(s), at(t)), Line(at(u), at(v))
    if last == low or high == first:
        (found,) = meetings(one, other)
        assert math.dist(found, at(low if last == low else high)) < 1e-6
        return
    with pytest.raises(NotThere, match="apart" if last < low or high < first else "on each other"):
        meetings(one, other)


@given(st.floats(5, 170), st.floats(10, 100), st.floats(0.1, 0.9))
def test_a_line_meets_the_straight_edge_of_a_sector(span: float, radius: float, share: float) -> None:
    sector = Circle((0.0, 0.0), radius, "sector", 20.0, span)
    edge = sector.at(20.0)
    on = (edge[0] * share, edge[1] * share)
    found = meetings(Line(on, (on[0] + 1, on[1] + 7), "line"), sector)
    assert min(math.dist(on, point) for point in found) < 1e-6 * radius
    cap = sector._replace(form="cap")
    middle = tuple((p + q) / 2 for p, q in zip(edge, sector.at(20.0 + span), strict=True))
    assert any(math.dist(middle, p) < 1e-6 * radius for p in meetings(Line((0.0, 0.0), middle, "line"), cap))
