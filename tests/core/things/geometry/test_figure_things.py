"""Circles, angles, lines and ellipses: their facts against calculus and Shapely, and what can be typed about them."""

from __future__ import annotations

import math

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.shape import Placement
from larch.core.figures.figure import free_letters, split_letters, used_letters
from larch.core.figures.settle import settle
from larch.core.maths.plane.forms import outline
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.things.geometry.angle import Angle, angle_word
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.ellipse import Ellipse
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.point import Point
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.geometry.polyline import Polyline

PAGE = Page(id="p", unit=32.0)
span = st.floats(5, 355, allow_nan=False)
radius = st.floats(8, 400, allow_nan=False)


def facts(thing: object, page: Page = PAGE) -> dict[str, Fact]:
    placed = page.put(thing)  # type: ignore[arg-type]
    return {fact.name: fact for fact in placed.things[-1].facts(placed)}


@given(radius, span, st.floats(0, 360))
def test_a_sector_and_a_segment_have_the_area_of_their_outline(r: float, opening: float, start: float) -> None:
    for piece in ("sector", "cap"):
        part = Circle(radius=r, piece=piece, start=start, span=opening)
        area = facts(part)["area"].value
        fine = shapely.Polygon(outline(part.local(), 0.05)).buffer(0).area / 32**2
        assert area == pytest.approx(fine, rel=2e-4, abs=1e-6)


@given(radius, span)
def test_parts_of_a_circle_agree_with_each_other(r: float, opening: float) -> None:
    known = {name: fact.value for name, fact in facts(Circle(radius=r, piece="sector", span=opening)).items()}
    assert known["arc length"] == pytest.approx(2 * math.pi * known["radius"] * opening / 360)
    assert known["area"] == pytest.approx(known["arc length"] * known["radius"] / 2)
    assert known["perimeter"] == pytest.approx(known["arc length"] + 2 * known["radius"])
    cap = {name: fact.value for name, fact in facts(Circle(radius=r, piece="cap", span=opening)).items()}
    assert cap["chord"] == pytest.approx(2 * known["radius"] * math.sin(math.radians(opening / 2)))


@pytest.mark.parametrize(
    ("name", "typed", "wanted"),
    [
        ("radius", "3", 96), ("diameter", "8 cm", 128), ("circumference", "20", 320 / math.pi),
        ("area", "50", 32 * math.sqrt(50 / math.pi)),
    ],
)  # fmt: skip
def test_any_measure_of_a_circle_can_be_typed(name: str, typed: str, wanted: float) -> None:
    fact = facts(Circle(placement=Placement(100, 100)))[name]
    assert fact.set is not None
    changed = fact.set(typed)
    assert changed.radius == pytest.approx(wanted)
    assert changed.placement == Placement(100, 100)
    for nonsense in ("0", "-3", "lantern", "1e999"):
        with pytest.raises(ValueError, match=r"\.$"):
            fact.set(nonsense)


def test_a_circle_by_rule_is_sized_by_its_number() -> None:
    page = settle(PAGE.put(Point(name="A"), Circle(rule="circle with radius", of=("t1",), values=(64.0,))))
    known = {fact.name: fact for fact in page.thing("t2").facts(page)}
    assert known["area"].set("50").values[0] == pytest.approx(32 * math.sqrt(50 / math.pi))
    assert known["by radius"].set("5").values == (160,)
    assert page.thing("t2").with_handle("rim", 0.0, 80.0).values == (80,)


@given(st.floats(1, 359))
def test_an_angle_is_typed_and_named(size: float) -> None:
    angle = facts(Angle())["angle"]
    assert angle.set is not None
    opened = angle.set(f"{size:.6f}")
    assert opened.size() == pytest.approx(round(size, 6), abs=1e-9)
    assert angle_word(size).endswith("angle")


WORDS = [
    (0, "no angle"), (30, "acute angle"), (90, "right angle"), (120, "obtuse angle"), (180, "straight angle"),
    (270, "reflex angle"), (360, "full angle"),
]  # fmt: skip


@pytest.mark.parametrize(("size", "word"), WORDS)
def test_sorts_of_angles(size: float, word: str) -> None:
    assert angle_word(size) == word


def test_an_angle_without_arms_says_so() -> None:
    assert facts(Angle(arms=((0.0, 0.0), (1.0, 1.0))))["angle"].value is None
    points = [Point(placement=Placement(x, y)) for x, y in ((0, 0), (100, 0), (0, -100))]
    known = settle(PAGE.put(*points, Angle(rule="angle", of=("t2", "t1", "t3"), values=(0.0,))))
    which = {fact.name: fact for fact in known.thing("t4").facts(known)}["which"]
    outer = settle(known.with_things({"t4": which.set("1")}))
    assert outer.thing("t4").size() == pytest.approx(270)


def test_lines_and_polylines() -> None:
    known = facts(Line(ends=((0.0, 0.0), (96.0, -128.0))))
    assert known["length"].value == 5
    assert known["lean"].value == pytest.approx(math.degrees(math.atan2(4, 3)))
    longer = known["length"].set("10 cm")
    assert longer.ends == ((0, 0), (192, -256))
    assert "length" not in facts(Line(reach="line"))
    way = facts(Polyline(vertices=((0.0, 0.0), (32.0, 0.0), (32.0, 64.0))))
    assert [way[name].value for name in ("length", "piece 1", "piece 2")] == [3, 1, 2]


def test_an_ellipse_against_its_focal_property() -> None:
    known = facts(Ellipse(rx=160, ry=96))
    assert (known["half axis"].value, known["other half axis"].value, known["between foci"].value) == (5, 3, 8)
    assert known["area"].value == pytest.approx(15 * math.pi)
    assert facts(Ellipse(rx=160, ry=96))["half axis"].set("7").rx == 224


def test_letters_follow_on_each_other_and_have_primes_and_numbers() -> None:
    page = PAGE.put(Polygon(), Point(name="D"))
    assert used_letters(page) == set("ABCD")
    assert free_letters(page, 2) == ["E", "F"]
    assert Polygon().christened(page).corner_names() == ["E", "F", "G"]
    assert Point().christened(page).name == "E"
    full = PAGE.put(*(Point(name=letter) for letter in "ABCDEFGHIJKLMNOPQRSTUVWXYZ"))
    assert free_letters(full, 2) == ["A₁", "B₁"]
    assert split_letters("A′B′C₁₂D") == ["A′", "B′", "C₁₂", "D"]


def test_corners_are_renamed_by_hand() -> None:
    fact = facts(Polygon())["letters"]
    assert fact.text == "ABC"
    assert fact.set("P, Q, R").corner_names() == ["P", "Q", "R"]
    assert fact.set("X′ Y′ Z′").corner_names() == ["X′", "Y′", "Z′"]
    with pytest.raises(ValueError, match="one letter for each"):
        fact.set("PQ")


def test_exterior_and_reflex_angles() -> None:
    known = facts(Polygon(vertices=((0.0, 0.0), (100.0, 0.0), (25.0, 25.0), (0.0, 100.0))))
    assert known["angle C"].value > 180
    assert known["exterior angle C"].value == pytest.approx(180 - known["angle C"].value)
    assert "reflex angle C" not in known
    assert known["reflex angle A"].value == pytest.approx(270)
    around = math.fsum(known[f"exterior angle {name}"].value for name in "ABCD")
    assert around == pytest.approx(360)
