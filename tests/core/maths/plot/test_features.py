"""Features of functions with known answers, and branches that never run where there is no graph."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.algebra.answers import Unread
from larch.core.maths.plot.answer import plot_answer, plot_marks, plot_meetings
from larch.core.maths.plot.picture import plot_svg

PI = math.pi
Known = dict[str, Any]


def close(found: list[float], wanted: list[float]) -> bool:
    return len(found) == len(wanted) and all(abs(a - b) <= 1e-9 * max(1, abs(b)) for a, b in zip(found, wanted, strict=True))


def told(expr: str, low: float = -5, high: float = 5) -> Known:
    made: Known = plot_answer(expr, low, high)["features"]
    return made


@given(st.lists(st.integers(-8, 8), min_size=1, max_size=5, unique=True), st.integers(1, 4), st.sampled_from([1, -1, 2]))
def test_zeros_of_products_are_where_they_were_put(zeros: list[int], power: int, lead: int) -> None:
    expr = f"{lead}*" + "*".join(f"(x - ({zero}))^{power}" for zero in zeros)
    found = told(expr, -10, 10)
    assert close(found["roots"], sorted(map(float, zeros)))
    assert found["y_intercept"] == pytest.approx(lead * math.prod((-zero) ** power for zero in zeros))


@given(st.integers(-6, 6), st.integers(-6, 6), st.sampled_from([0.5, 1, 2, -1, -3]))
def test_a_parabola_turns_at_its_vertex(h: int, k: int, a: float) -> None:
    found = told(f"{a}(x - ({h}))^2 + ({k})", -9.5, 9.5)
    assert [(one["x"], one["y"]) for one in found["extrema"]] == [(h, k)]
    assert found["extrema"][0]["kind"] == ("minimum" if a > 0 else "maximum")
    assert not found["inflections"] and not found["poles"]


@given(st.lists(st.integers(-7, 7), min_size=1, max_size=3, unique=True), st.integers(1, 3), st.integers(1, 9))
def test_poles_are_found_and_never_crossed(poles: list[int], power: int, above: int) -> None:
    expr = f"{above}/(" + "*".join(f"(x - ({pole}))^{power}" for pole in poles) + ")"
    made = plot_answer(expr, -9.3, 9.7)
    assert close(made["features"]["poles"], sorted(map(float, poles)))
    for branch in made["branches"]:
        assert not any(branch[0][0] < pole < branch[-1][0] for pole in poles)
        assert all(a[0] < b[0] for a, b in pairwise(branch))


@given(st.integers(-5, 5), st.integers(-9, 9))
def test_holes_are_no_poles(at: int, c: int) -> None:
    found = told(f"(x - ({at}))*(x + ({c}))/(x - ({at}))", -6.5, 6.5)
    assert found["poles"] == [] and [hole[0] for hole in found["holes"]] == [at]
    assert found["holes"][0][1] == pytest.approx(at + c, abs=1e-9)


@given(st.integers(1, 5), st.integers(-3, 3))
def test_waves_of_any_length(k: int, shift: int) -> None:
    found = told(f"sin({k}x + ({shift}))", -3, 3)
    wanted = sorted(x for n in range(-9, 10) if -3 <= (x := (n * PI - shift) / k) <= 3)
    assert close(found["roots"], wanted)
    tops = sorted(x for n in range(-9, 10) if -3 < (x := ((n + 0.5) * PI - shift) / k) < 3)
    assert close([one["x"] for one in found["extrema"]], tops)


TABLE: list[tuple[str, Known]] = [
    ("x^3-3x", {"roots": [-math.sqrt(3), 0, math.sqrt(3)], "extrema": [(-1, 2, "maximum"),
    (1, -2, "minimum")], "inflections": [0]}),
    ("|x-1|-2", {"roots": [-1, 3], "extrema": [(1, -2, "minimum")], "poles": [], "jumps": []}),
    ("tan x", {"roots": [-PI, 0, PI], "poles": [-1.5 * PI, -0.5 * PI, 0.5 * PI, 1.5 * PI], "extrema": []}),
    ("floor(x) + 0.1 x", {"jumps": [-5, -4, -3, -2, -1, 0, 1, 2, 3, 4, 5], "poles": [], "roots": [0]}),
    ("ln x", {"roots": [1], "poles": [0], "y_intercept": None, "domain": "x > 0"}),
    ("sqrt(x-1)", {"roots": [1], "domain": "x ≥ 1", "y_intercept": None, "extrema": []}),
    ("sqrt(4-x^2)", {"roots": [-2, 2], "domain": "-2 ≤ x ≤ 2", "extrema": [(0, 2, "maximum")]}),
    ("sin(x)/x", {"roots": [-PI, PI], "holes": [(0, 1)], "y_intercept": None}),
    ("(1-cos x)/x^2", {"holes": [(0, 0.5)], "poles": []}),
    ("(x - sin x)/x^3", {"holes": [(0, 1 / 6)], "poles": []}),
    ("e^(-x^2)", {"roots": [], "extrema": [(0, 1, "maximum")], "inflections": [-math.sqrt(0.5), math.sqrt(0.5)]}),
    ("x e^x", {"roots": [0], "extrema": [(-1, -1 / math.e, "minimum")], "inflections": [-2]}),
    ("x^2 + 0.0001 - 1/(x-2)^2", {"poles": [2]}),
    ("cases(x^2, x<1, 3-x, x≥1)", {"roots": [0, 3], "jumps": [1], "extrema": [(0, 0, "minimum")]}),
    ("cbrt(x)", {"roots": [0], "jumps": [], "holes": [], "poles": []}),
    ("root(x,3)", {"roots": [0], "jumps": []}),
    ("x^(2/3)", {"roots": [0], "extrema": [(0, 0, "minimum")]}),
    ("x^x", {"domain": "x > 0", "extrema": [(1 / math.e, math.e ** (-1 / math.e), "minimum")]}),
    ("sqrt(x^4-2x^2+1)", {"roots": [-1, 1], "extrema": [(-1, 0, "minimum"), (0, 1, "maximum"), (1, 0, "minimum")]}),
    ("x floor(x)", {"jumps": [-5, -4, -3, -2, -1, 1, 2, 3, 4, 5]}),
    ("1/(1+e^(1/x))", {"jumps": [0], "poles": []}),
    ("x + 1/x", {"poles": [0], "extrema": [(-1, -2, "maximum"), (1, 2, "minimum")], "holes": []}),
    ("3/4 x - 6", {"roots": [], "extrema": [], "y_intercept": -6}),
    ("y = 2x + 1", {"roots": [-0.5]}),
    ("2^x - 8", {"roots": [3]}),
    ("log(x+3)", {"roots": [-2], "poles": [-3], "domain": "x > -3"}),
    ("x^4", {"roots": [0], "extrema": [(0, 0, "minimum")], "inflections": []}),
    ("5", {"roots": [], "extrema": [], "domain": "all real numbers", "y_intercept": 5}),
    ("sign(x)", {"jumps": [0], "roots": [0]}),
    ("|x^2-4|", {"roots": [-2, 2], "extrema": [(-2, 0, "minimum"), (0, 4, "maximum"), (2, 0, "minimum")]}),
]  # fmt: skip


@pytest.mark.parametrize(("expr", "wanted"), TABLE)
def test_known_answers(expr: str, wanted: Known) -> None:
    found = told(expr)
    for name, value in wanted.items():
        if name == "extrema":
            assert [one["kind"] for one in found["extrema"]] == [kind for _x, _y, kind in value]
            assert close([one["x"] for one in found["extrema"]], [x for x, _y, _kind in value])
            assert close([one["y"] for one in found["extrema"]], [y for _x, y, _kind in value])
        elif name == "holes":
            assert close([x for hole in found["holes"] for x in hole], [x for hole in value for x in hole])
        elif name == "inflections":
            assert [x for x, _y in found["inflections"]] == pytest.approx(value, abs=1e-6)
        elif isinstance(value, list):
            assert close(found[name], value)
        else:
            assert found[name] == value


@pytest.mark.parametrize(
    "expr", ["tan x", "1/x", "floor(x)", "ln x", "sqrt(x-1)", "sin(1/x)", "(x^2-1)/(x-1)", "|x|/x", "asin x", "x^x"]
)
def test_branches_lie_in_the_domain_and_cover_it(expr: str) -> None:
    from larch.core.maths.expression import Undefined, parse, value_at

    made = plot_answer(expr, -5, 5)
    node = parse(expr)
    for branch in made["branches"]:
        for x, y in branch[1:-1]:
            assert value_at(node, x=x) == pytest.approx(y, rel=1e-6, abs=1e-9)
    covered = [(branch[0][0], branch[-1][0]) for branch in made["branches"]]
    for k in range(1, 400):
        x = -5 + k * 0.02502
        try:
            value_at(node, x=x)
        except Undefined:
            assert not any(a + 1e-9 < x < b - 1e-9 for a, b in covered)
        else:
            assert any(a - 0.02 <= x <= b + 0.02 for a, b in covered)


@pytest.mark.parametrize("expr", ["2+", "a x", "x < 3", "x = 1 or x = 2", "sin(x"])
def test_what_is_no_function_says_so(expr: str) -> None:
    with pytest.raises(Unread, match=r"\.$"):
        plot_answer(expr, -1, 1)


def test_a_picture_shows_poles_dashed_and_holes_open() -> None:
    found = plot_answer("(x^2-1)/((x-1)(x-2))", -5, 5)
    svg = plot_svg(found, -5, 5, "a < b")
    assert "stroke-dasharray" in svg and 'fill="#FFFFFF"' in svg and "a &lt; b" in svg and svg.count("<polyline") == 3


def kinds(expr: str, **letters: str) -> list[tuple[str, str]]:
    return [(one["kind"], one["text"]) for one in plot_marks(expr, letters, -6, 6)]


def test_marks_tell_what_stands_out_from_left_to_right() -> None:
    assert kinds("y = x^2 - 4") == [("zero", "(−2; 0)"), ("minimum", "(0; −4)"), ("axis", "(0; −4)"), ("zero", "(2; 0)")]
    assert ("pole", "2") in kinds("y = 1/(x - 2)")
    assert ("zero", "(4/3; 0)") in kinds("y = 3/4 x - 1")
    assert ("zero", "(−1.414; 0)") in kinds("y = a x^3 - x", a="1/2")


def test_ends_are_open_or_closed_as_the_value_says() -> None:
    assert kinds("(x^2 - 1)/(x - 1)").count(("open", "(1; 2)")) >= 1
    assert {("open", "(1; 1)"), ("closed", "(1; 5)")} <= set(kinds("cases(x, x<1, 5)"))
    assert {("open", "(2; 1)"), ("closed", "(2; 2)")} <= set(kinds("floor(x)"))
    with pytest.raises(Unread):
        plot_marks("y = b x", {}, -6, 6)


def test_meetings_are_where_both_have_the_same_value() -> None:
    found = plot_meetings(("y = 24 - 2x", {}), ("y = a - x", {"a": "18"}), 0, 18)
    assert found == [{"kind": "meeting", "at": 6.0, "height": 12.0, "text": "(6; 12)"}]
    assert [one["text"] for one in plot_meetings(("y = x", {}), ("y = 1/(x-2)", {}), -6, 6)] == [
        "(−0.414; −0.414)", "(2.414; 2.414)"]  # fmt: skip
    assert plot_meetings(("y = x + 1", {}), ("y = x", {}), -6, 6) == []
    with pytest.raises(Unread):
        plot_meetings(("y = x", {}), ("x = y^2", {}), -6, 6)


def test_y_may_have_a_letter_before_it_and_a_limit_may_be_hard_to_come_near() -> None:
    assert told("x y = 1")["poles"] == [0] and told("x^2 y + y = 1")["extrema"] == [{"x": 0.0, "y": 1.0, "kind": "maximum"}]
    assert told("x sin(1/x)")["holes"] == [[0, 0]]
    for refused in ("0y = 1", "x^2 + y^2 < 9", "x y = a"):
        with pytest.raises(Unread):
            told(refused)
