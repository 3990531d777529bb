"""Axes shifted, stretched and scaled by their own parts: what stays where, whatever the window."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.shape import Placement
from larch.core.figures.settle import settle
from larch.core.model.page import Page
from larch.core.things.graphs.axes import Axes, axes_at
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.ticks import KINDS, mark_text, marks_between, step_of

PAGE = Page(id="p1")


def window(axes: Axes) -> tuple[float, ...]:
    return (axes.x_min, axes.x_max, axes.y_min, axes.y_max)


small = st.floats(-150, 150)
starts = st.builds(
    lambda x, y, w, h: Axes(x_min=x, x_max=x + w, y_min=y, y_max=y + h, width=500, height=400, placement=Placement(100, 80)),
    st.floats(-20, 5), st.floats(-20, 5), st.floats(1, 40), st.floats(1, 40),
)  # fmt: skip


@given(starts, small, small)
def test_an_axis_takes_the_plane_with_it(axes: Axes, dx: float, dy: float) -> None:
    after = axes.drag_part("x axis", (100, 100), (100 + dx, 100 + dy))
    assert after.units() == pytest.approx(axes.units())
    x, y = axes.to_plane(100, 100)
    assert after.to_local(x, y) == pytest.approx((100 + dx, 100 + dy), abs=1e-6)
    assert after.extent() == axes.extent()


@given(starts, st.sampled_from(["x end", "x start", "y end", "y start"]), small)
def test_an_end_changes_the_range_and_leaves_every_number_where_it_was(axes: Axes, part: str, by: float) -> None:
    before = axes.part_place(part)
    to = (before[0] + by, before[1]) if part[0] == "x" else (before[0], before[1] + by)
    after = axes.drag_part(part, before, to)
    assert after.units() == pytest.approx(axes.units(), rel=1e-6)
    middle = ((axes.x_min + axes.x_max) / 2, (axes.y_min + axes.y_max) / 2)
    assert after.page_of(middle) == pytest.approx(axes.page_of(middle), abs=1e-4)
    assert after.width >= 40 and after.height >= 40


@given(starts, st.floats(0.2, 0.95), st.floats(0.6, 1.5))
def test_a_number_follows_the_finger_and_zero_stays(axes: Axes, at: float, share: float) -> None:
    ox, _oy = axes.origin()
    x = at * axes.width
    if abs(x - ox) < 0.15 * axes.width:
        return
    to = ox + (x - ox) * share
    number = axes.to_plane(x, 0)[0]
    after = axes.drag_part("x numbers", (x, 300), (to, 300))
    assert after.to_local(number, 0)[0] == pytest.approx(to, abs=1e-3)
    zero = axes.to_plane(ox, 0)[0]
    assert after.to_local(zero, 0)[0] == pytest.approx(ox, abs=1e-3)
    assert after.units()[1] == pytest.approx(axes.units()[1])


@given(starts, st.tuples(*[st.floats(50, 350)] * 8))
def test_two_fingers_keep_what_they_hold_when_they_are_apart_both_ways(axes: Axes, at: tuple[float, ...]) -> None:
    a, b, c, d = (at[0], at[1]), (at[2], at[3]), (at[4], at[5]), (at[6], at[7])
    if min(abs(p[k] - q[k]) for p, q in ((a, b), (c, d)) for k in (0, 1)) < 50:
        return
    if any((b[k] - a[k]) * (d[k] - c[k]) < 0 for k in (0, 1)):
        return  # fingers that changed sides
    after = axes.zoomed((a, b), (c, d))
    for held, now in ((a, c), (b, d)):
        assert after.to_local(*axes.to_plane(*held)) == pytest.approx(now, abs=3.0)  # ranges end at round numbers


def test_fingers_apart_along_one_axis_scale_that_alone() -> None:
    axes = axes_at(0, 0)
    after = axes.zoomed(((100, 150), (250, 155)), ((50, 150), (350, 155)))
    assert after.units()[0] == pytest.approx(2 * axes.units()[0], rel=0.01)
    assert after.units()[1] == pytest.approx(axes.units()[1], rel=0.01)


@given(starts, small, st.sampled_from(["x numbers", "y numbers", "corner", "zoom", "typed"]))
def test_equal_units_stay_equal_whatever_is_done(axes: Axes, by: float, how: str) -> None:
    equal = axes.with_equal(True)
    assert isinstance(equal, Axes)
    if how == "zoom":
        after = equal.zoomed(((100, 100), (300, 200)), ((80, 100), (320 + by / 2, 230)))
    elif how == "corner":
        after = equal.with_handle("corner", 500 + by, 300)
    elif how == "typed":
        facts = {fact.name: fact for fact in equal.facts(PAGE)}
        after = facts["x_max"].set(str(equal.x_max + abs(by)))  # type: ignore[misc]
    else:
        after = equal.drag_part(how, (300, 300), (300 + by / 2, 300 + by / 2))
    across, down = after.units()
    assert across == pytest.approx(down, rel=0.02)


def test_what_would_have_no_window_is_left_as_it_is() -> None:
    axes = axes_at(0, 0)
    assert axes.drag_part("x end", (384, 100), (-900, 100)) is axes
    assert axes.drag_part("x axis", (0, 0), (1e300, 0)) == axes
    assert window(axes.drag_part("x numbers", (300, 200), (1e9, 200)))[1] > 0


def test_every_part_is_found_at_its_own_place() -> None:
    for axes in (axes_at(50, 60), Axes(x_min=0, x_max=10, y_min=0, y_max=8, width=600, height=500)):
        for part in axes.parts():
            x, y = axes.part_place(part)
            assert axes.part_at(x, y, 2) == part, part
            assert axes.touches(x, y, 2)
    assert axes_at(0, 0).part_at(300, 60, 4) == ""


@pytest.mark.parametrize(
    ("kind", "value", "step", "text"),
    [
        ("π", 0.0, 1.0, "0"), ("π", math.pi / 2, math.pi / 2, "π/2"), ("π", -math.pi, math.pi, "−π"),
        ("π", 1.5 * math.pi, math.pi / 2, "3π/2"), ("π", 40 * math.pi, 20 * math.pi, "40π"),
        ("°", math.pi / 2, math.pi / 6, "90°"), ("°", -math.pi / 12, math.pi / 12, "−15°"),
        ("fractions", 0.75, 0.25, "3/4"), ("fractions", -1 / 3, 1 / 3, "−1/3"), ("fractions", 2.0, 0.5, "2"),
        ("", 0.5, 0.5, "0.5"),
    ],
)  # fmt: skip
def test_marks_are_written_as_their_axis_counts(kind: str, value: float, step: float, text: str) -> None:
    assert mark_text(value, step, kind) == text


@given(st.sampled_from(sorted(KINDS.keys() - {"log"})), st.floats(-50, 50), st.floats(1e-3, 1e5), st.integers(2, 40))
def test_marks_are_evenly_apart_within_the_range_and_not_too_many(kind: str, low: float, width: float, most: int) -> None:
    marks = marks_between(low, low + width, most, kind)
    step = step_of(low, low + width, most, kind)
    assert len(marks) <= 1.01 * most + 2
    assert all(low - 1e-6 * width <= mark <= low + width + 1e-6 * width for mark in marks)
    assert all(b - a == pytest.approx(step) for a, b in pairwise(marks))
    if kind in ("π", "°") and 1 < width < 100:
        words = [mark_text(mark, step, kind) for mark in marks]
        assert len(set(words)) == len(words)


def test_the_looks_of_axes_are_facts_that_can_be_chosen() -> None:
    facts = {fact.name: fact for fact in axes_at(0, 0).facts(PAGE)}
    assert facts["grid"].set("rings").rings  # type: ignore[misc]
    assert not facts["grid"].set("none").grid  # type: ignore[misc]
    assert facts["x_name"].set(" t in h ").x_name == "t in h"  # type: ignore[misc]
    assert facts["x_marks"].set("π").x_marks == "π"  # type: ignore[misc]
    assert facts["x_marks"].set("nonsense").x_marks == ""  # type: ignore[misc]
    with pytest.raises(ValueError, match="larger"):
        facts["x_max"].set("-9")  # type: ignore[misc]
    with pytest.raises(ValueError, match="numbered"):
        Axes(x_marks="roman")


LOGS = Axes(x_min=0.1, x_max=1000, y_min=-2, y_max=3, x_marks="log", width=400, height=300)


@given(st.floats(0.1, 1000), st.floats(-2, 3))
def test_a_logarithmic_axis_goes_there_and_back(x: float, y: float) -> None:
    assert LOGS.to_plane(*LOGS.to_local(x, y)) == (pytest.approx(x), pytest.approx(y, abs=1e-9))
    assert LOGS.to_local(10 * x, y)[0] - LOGS.to_local(x, y)[0] == pytest.approx(100)


@given(small, st.sampled_from(["x axis", "x end", "x start", "x numbers", "y axis", "y end"]))
def test_hands_at_logarithmic_axes_keep_their_decades_and_leave_something_to_see(by: float, part: str) -> None:
    at = LOGS.part_place(part)
    after = LOGS.drag_part(part, at, (at[0] + by / 2, at[1] + by / 2)).part_let_go(part)
    assert after.x_min > 0 and after.x_marks == "log"
    if part in ("x axis", "x end", "x start"):
        decade = after.width / math.log10(after.x_max / after.x_min)
        assert decade == pytest.approx(100, rel=0.01)


def test_what_becomes_logarithmic_gets_a_range_that_has_a_logarithm() -> None:
    facts = {fact.name: fact for fact in axes_at(0, 0).facts(PAGE)}
    after = facts["y_marks"].set("log")  # type: ignore[misc]
    assert 0 < after.y_min < after.y_max == 5
    with pytest.raises(ValueError, match="more than nothing"):
        {fact.name: fact for fact in after.facts(PAGE)}["y_min"].set("-1")  # type: ignore[misc]
    with pytest.raises(ValueError, match="zero"):
        Axes(x_marks="log")


def test_marks_of_a_logarithmic_axis() -> None:
    assert marks_between(0.1, 1000, 6, "log") == pytest.approx([0.1, 1, 10, 100, 1000])
    assert marks_between(1, 100, 8, "log") == pytest.approx([1, 2, 5, 10, 20, 50, 100])
    assert len(marks_between(1e-9, 1e9, 5, "log")) <= 6
    assert [mark_text(v, 1, "log") for v in (0.01, 1, 1000, 1e8)] == ["0.01", "1", "1000", "10^8"]


@pytest.mark.parametrize(("start", "to", "lands"), [(30.0, 51.3, 50.0), (30.0, 398.0, 400.0), (300.0, 7.06, 7.0)])
def test_a_graph_pushed_on_a_logarithmic_axis_falls_onto_its_marks(start: float, to: float, lands: float) -> None:
    axes = Axes(x_min=-5, x_max=5, y_min=1, y_max=1000, y_marks="log", width=400, height=600)
    page = settle(Page(id="p1").put(axes).put(Equation(source=f"y={start:g}", axes="t1")))
    line = page.things[1]
    assert isinstance(line, Equation)
    made = line.steered(page, "", axes.page_of((1, start)), axes.page_of((1, to)), False)
    (changed,) = made.changed.values()
    assert changed.source.replace(" ", "") == f"y={lands:g}"  # type: ignore[attr-defined]
