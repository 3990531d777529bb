"""Units, scales and exact values: the same number, written as the page wants it."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.surd import Surd, recognised, root_of
from larch.core.model.page import Page, Paper
from larch.core.model.page_facts import page_facts
from larch.core.model.scale import Scale, read_length, read_scale
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.polygon import Polygon


@pytest.mark.parametrize(
    ("typed", "unit", "per"),
    [
        ("4 squares = 1 m", "m", 0.25), ("1 cm = 5 km", "km", 5.0), ("1 : 200", "cm", 200.0), ("m", "m", 1.0),
        ("2 cm = 3 paces", "paces", 1.5), ("10 mm = 1 m", "m", 1.0), ("1 square = 2,5 m", "m", 2.5),
    ],
)  # fmt: skip
def test_scales_are_read(typed: str, unit: str, per: float) -> None:
    found = read_scale(typed, Page(id="p", paper=Paper("squared")))
    assert found.unit == unit
    assert found.per == pytest.approx(per)


@pytest.mark.parametrize("typed", ["", "1 = ", "0 cm = 1 m", "4 squares", "1 cm = 1e99 m", "x : y"])
def test_what_is_no_scale_is_one_sentence(typed: str) -> None:
    with pytest.raises(ValueError, match=r"\.$"):
        read_scale(typed, Page(id="p"))


def test_lengths_are_read_in_other_units_of_the_same_sort() -> None:
    page = Page(id="p", scale=Scale("m", 2.0))  # 1 cm drawn = 2 m
    assert read_length("6 m", page) == pytest.approx(96)
    assert read_length("600 cm", page) == pytest.approx(96)
    assert read_length("6", page) == pytest.approx(96)
    with pytest.raises(ValueError, match="too far"):
        read_length("1000000000000", page)


@given(st.integers(-400, 400), st.integers(1, 360), st.integers(1, 400))
def test_exact_values_are_recognised_and_written_back(p: int, q: int, n: int) -> None:
    value = Fraction(p, q)
    found = recognised(float(value))
    assert found is not None
    assert found.share == value and found.root == 1
    root = root_of(Fraction(n, q))
    assert root is not None
    assert float(root) == pytest.approx(math.sqrt(n / q), rel=1e-12)
    assert all(root.root % (k * k) for k in range(2, 20))  # nothing is left that could come out of the root


@pytest.mark.parametrize(
    ("surd", "text"),
    [
        (Surd(Fraction(3), 2), "3√2"), (Surd(Fraction(1, 2), 5), "√5/2"), (Surd(Fraction(5, 3), 1, 1), "5π/3"),
        (Surd(Fraction(1, 3)), "1/3"), (Surd(Fraction(5, 2)), "2.5"), (Surd(Fraction(-1), 3), "−√3"),
        (Surd(Fraction(2), 1, 1), "2π"), (Surd(Fraction(0)), "0"), (Surd(Fraction(1), 1, 2), "π²"),
    ],
)  # fmt: skip
def test_exact_values_are_written_as_in_class(surd: Surd, text: str) -> None:
    assert surd.text() == text


@given(st.floats(0.01, 1000, allow_nan=False))
def test_a_measured_number_is_not_taken_for_an_exact_one(value: float) -> None:
    found = recognised(value)
    if found is not None:
        assert float(found) == pytest.approx(value, rel=1e-10)
    assert recognised(math.pi) is None
    assert recognised(math.e / 7) is None


def test_a_page_shows_exact_values_where_they_are() -> None:
    odd_one = Polygon(vertices=((0.0, 0.0), (97.3, 11.1), (5.0, 71.7)))
    half_square = Polygon(vertices=((0.0, 0.0), (96.0, 0.0), (0.0, 96.0)))
    page = Page(id="p", scale=Scale(exact=True)).put(half_square, Circle(radius=64.0), odd_one)
    triangle = {fact.name: fact.text for fact in page.things[0].facts(page)}
    assert triangle["BC"] == "3√2 cm"
    assert triangle["area"] == "4.5 cm²"
    circle = {fact.name: fact.text for fact in page.things[1].facts(page)}
    assert (circle["circumference"], circle["area"]) == ("4π cm", "4π cm²")
    odd = {fact.name: fact.text for fact in page.things[2].facts(page)}
    assert "√" not in odd["AB"]


def test_the_page_itself_is_asked() -> None:
    page = Page(id="p", paper=Paper("squared"))
    known = {fact.name: fact for fact in page_facts(page)}
    scaled = known["scale"].set("4 squares = 1 m")
    assert {f.name: f.text for f in page_facts(scaled)}["scale"] == "1 cm = 0.25 m"
    exact = {fact.name: fact for fact in page_facts(scaled)}["values"].set("exact")
    assert exact.scale == Scale("m", 0.25, 1, True)
    assert {fact.name: fact for fact in page_facts(page)}["places"].set("3").scale.places == 3
