"""Moving a graph changes numbers of its equation, never its form; and the graph is where the hand took it."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.expression import Node, Undefined, reading, value_at
from larch.core.maths.expression.tree import Relation
from larch.core.maths.hand.moving import Moved, circle_of, dragged, moved, places
from larch.core.maths.layout.reading import meaning
from larch.core.maths.plane.forms import NotThere

STEPS = (Fraction(1, 2), Fraction(1, 2))

FORMS = [
    ("y = 3/4 x - 6", (0, 2), "y = 3/4 x - 4"),
    ("y = -0.5x + 2", (2, 0), "y = -0.5x + 3"),
    ("y = 2x", (0, -1), "y = 2x - 1"),
    ("y = 4", (3, 1), "y = 5"),
    ("y = 2(x - 1) + 3", (1, 1), "y = 2(x - 2) + 4"),
    ("y = 2(x-3)^2+1", (-1, 2), "y = 2(x - 2)^2 + 3"),
    ("y = x^2 - 3", (2, 2), "y = (x - 2)^2 - 1"),
    ("y = -x^2", (-1, 0), "y = -(x + 1)^2"),
    ("y = x^2/4", (2, 0), "y = 1/4 (x - 2)^2"),
    ("y = x^2 - 4x + 1", (1, 1), "y = x^2 - 6x + 7"),
    ("y = 2x^2 - 8", (0, 3), "y = 2x^2 - 5"),
    ("y = (x - 1)(x + 3)", (1, 0), "y = (x - 2)(x + 2)"),
    ("y = x^3 - 3x", (1, 0), "y = x^3 - 3x^2 + 2"),
    ("f(x) = 2^(x-1)", (1, 1), "f(x) = 2^(x - 2) + 1"),
    ("y = 1/(x-2) + 3", (1, -3), "y = 1/(x - 3)"),
    ("y = -3/x", (1, 0), "y = -3/(x - 1)"),
    ("y = |x - 2|", (-3, 1), "y = |x + 1| + 1"),
    ("y = sin(x)", (1, 1), "y = sin(x - 1) + 1"),
    ("y = 3sin(2x + 1)", (1, 0), "y = 3sin(2x - 1)"),
    ("y = sqrt(x + 4) - 1", (4, 0), "y = sqrt(x) - 1"),
    ("y = ln(x)", (0, 2), "y = ln(x) + 2"),
    ("y = x sin(x)", (1, 2), "y = (x - 1)sin(x - 1) + 2"),
    ("y = (x-1)sin(x-1) + 2", (1, 0), "y = (x - 2)sin(x - 2) + 2"),
    ("x = 3", (2, 7), "x = 5"),
    ("x = y^2", (1, 2), "x = (y - 2)^2 + 1"),
    ("x^2 + y^2 = 9", (1, 2), "(x - 1)^2 + (y - 2)^2 = 9"),
    ("(x-1)^2 + (y+2)^2 = 9", (-1, 2), "x^2 + y^2 = 9"),
    ("2x + 3y = 6", (1, 0), "2x + 3y = 8"),
    ("y > x + 1", (0, 1), "y > x + 2"),
    ("x^2", (0, 1), "x^2 + 1"),
    ("x y = 4", (1, 0), "(x - 1) y = 4"),
    ("(2, 3)", (1, -1), "(3, 2)"),
    ("A = (2, 3)", (1, 0.5), "A = (3, 3.5)"),
]  # fmt: skip


@pytest.mark.parametrize(("source", "by", "expected"), FORMS)
def test_the_form_is_kept(source: str, by: tuple[float, float], expected: str) -> None:
    assert reading(moved(meaning(source), by, {}, STEPS).node) == reading(meaning(expected))


def height(node: Node, x: float) -> float | None:
    node = node.right if isinstance(node, Relation) else node
    try:
        value = value_at(node, x=x)
    except Undefined:
        return None
    return float(value) if isinstance(value, int | float) else None


SOLVED = [s for s, _by, _e in FORMS if s.startswith(("y =", "f(x)", "x^2")) and "+ y" not in s]
quarters = st.integers(-20, 20).map(lambda n: n / 4)


@given(st.sampled_from(SOLVED), quarters, quarters, quarters)
def test_the_graph_is_the_same_one_pushed(source: str, dx: float, dy: float, x: float) -> None:
    before = meaning(source)
    after = moved(before, (dx, dy), {}).node
    there, here = height(before, x), height(after, x + dx)
    if there is None or here is None:
        assert (there is None) == (here is None) or abs(x) < 1e-9
    else:
        assert here == pytest.approx(there + dy, abs=1e-4 * (1 + abs(there)))


@given(st.sampled_from(SOLVED), quarters, quarters)
def test_there_and_back_is_the_same_equation(source: str, dx: float, dy: float) -> None:
    before = meaning(source)
    back = moved(moved(before, (dx, dy), {}).node, (-dx, -dy), {}).node
    for x in (-2.3, 0.7, 3.1):
        a, b = height(before, x), height(back, x)
        assert (a is None) == (b is None)
        assert a is None or b == pytest.approx(a, abs=1e-4 * (1 + abs(a)))


NEAR = (1.0, 1.0)


@pytest.mark.parametrize(
    ("source", "place", "to", "expected"),
    [
        ("y = 3/4 x - 6", "gradient", (1, -5), "y = x - 6"),
        ("y = 3/4 x - 6", "gradient", (3, -5), "y = 1/3 x - 6"),
        ("y = 3/4 x - 6", "start", (0, -4), "y = 3/4 x - 4"),
        ("y = (x-3)^2+1", "vertex", (2, -1), "y = (x - 2)^2 - 1"),
        ("y = (x-3)^2+1", "size", (4, 4), "y = 3(x - 3)^2 + 1"),
        ("y = x^2 - 4x + 1", "vertex", (1, -3), "y = x^2 - 2x - 2"),
        ("y = x^2 - 4x + 1", "size", (3, -1), "y = 2x^2 - 8x + 5"),
        ("y = (x-1)(x+3)", "zero 0", (2, 0), "y = (x - 2)(x + 3)"),
        ("y = sin(x)", "size", (1.57, 3), "y = 3sin(x)"),
        ("y = 2^x", "base", (1, 3), "y = 3^x"),
        ("y = 2^x + 1", "level", (-1, 3), "y = 2^x + 3"),
        ("y = 5*2^x", "size", (0, 3), "y = 3*2^x"),
        ("y = 1/(x-2)+3", "vertex", (0, 0), "y = 1/x"),
        ("y = 1/(x-2)+3", "size", (3, 5), "y = 2/(x - 2) + 3"),
        ("y = |x - 2|", "size", (3, 2), "y = 2|x - 2|"),
        ("x^2 + y^2 = 9", "centre", (1, 0), "(x - 1)^2 + y^2 = 9"),
        ("x^2 + y^2 = 9", "radius", (4, 0), "x^2 + y^2 = 16"),
        ("x^2 + y^2 = 3^2", "radius", (0, 5), "x^2 + y^2 = 5^2"),
    ],
)  # fmt: skip
def test_a_place_is_taken_elsewhere(source: str, place: str, to: tuple[float, float], expected: str) -> None:
    after = dragged(meaning(source), place, to, {}, NEAR, (Fraction(1, 100), Fraction(1, 100)))
    assert after.node.__class__ is meaning(expected).__class__
    for x in (-1.3, 0.4, 2.6):
        if "y^2" in expected:
            assert circle_of(after.node, {}) == circle_of(meaning(expected), {})
        else:
            assert height(after.node, x) == pytest.approx(height(meaning(expected), x), abs=1e-6)


@given(st.sampled_from([s for s in SOLVED if places(meaning(s), {}, NEAR)]), st.integers(0, 3), quarters, quarters)
def test_a_graph_goes_through_where_its_place_was_taken(source: str, which: int, x: float, y: float) -> None:
    node = meaning(source)
    found = places(node, {}, NEAR)
    place = found[which % len(found)]
    to = (x, y)
    if place.name in ("period", "level") or place.label == "its middle line" or (place.name == "vertex" and "/x" in source):
        return
    if place.name in ("size", "base") and ("sin" in source or "^(x" in source):
        to = (place.x, y)
    if place.name.startswith("zero"):
        to = (x, 0.0)
    try:
        after = dragged(node, place.name, to, {}, NEAR).node
    except NotThere:
        return
    there = height(after, to[0])
    if there is not None and not (place.main and "/" in source and "(x" in source):
        assert there == pytest.approx(to[1], abs=0.02 + 0.02 * abs(x) ** 2 + 0.02 * abs(y))


def test_a_period_is_a_multiple_of_pi_where_it_was_one() -> None:
    node = meaning("y = 2sin(2π/12 x) + 3")
    after = dragged(node, "period", (6.0, 3.0), {}, (3, 3))
    assert after.node == meaning("y = 2sin(π/3 x) + 3")
    plain = dragged(meaning("y = sin(2x)"), "period", (2 * math.pi, 0), {}, NEAR)
    assert height(plain.node, 1.0) == pytest.approx(math.sin(1.0), abs=1e-6)


def test_letters_of_the_page_change_instead_of_numbers() -> None:
    letters = {"a": 2.0, "h": 3.0, "k": 1.0}
    node = meaning("y = a(x - h)^2 + k")
    after = moved(node, (1, -2), letters, STEPS)
    assert after == Moved(node, {"h": Fraction(4), "k": Fraction(-1)})
    wider = dragged(node, "size", (4, 4), letters, NEAR)
    assert (wider.node, wider.letters) == (node, {"a": Fraction(3)})
    line = moved(meaning("y = m x + c"), (0, 2), {"m": 1.0, "c": 3.0})
    assert line.letters == {"c": Fraction(5)}


@pytest.mark.parametrize("source", ["y = x + a b", "y = sin(x) - a"])
def test_what_hangs_on_letters_that_are_worked_out_stays_and_says_why(source: str) -> None:
    with pytest.raises(NotThere, match="letters"):
        moved(meaning(source), (1, 1), {"a": 1.0, "b": 2.0})


def test_round_numbers_are_come_to() -> None:
    after = moved(meaning("y = (x - 3)^2 + 1"), (0.613, -0.27), {}, STEPS)
    assert after.node == meaning("y = (x - 3.5)^2 + 0.5")
    standard = moved(meaning("y = x^2 - 4x + 1"), (0.9, 0.1), {}, (Fraction(1), Fraction(1)))
    assert standard.node == meaning("y = x^2 - 6x + 6")


@pytest.mark.parametrize("place", ["size", "gradient", "radius", "nothing"])
def test_what_can_not_be_is_said(place: str) -> None:
    source = {"size": "y = (x-3)^2+1", "gradient": "y = x^2", "radius": "x^2 + y^2 = 9", "nothing": "y = x"}[place]
    with pytest.raises(NotThere):
        dragged(meaning(source), place, (3, 1) if place == "size" else (0, 0), {}, NEAR)
