"""Numbers as they are written and read in class."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.fact import measure, number_text, read_number


@given(st.floats(-1e9, 1e9), st.integers(0, 6))
def test_a_written_number_reads_back_to_its_precision(value: float, places: int) -> None:
    assert read_number(number_text(value, places)) == pytest.approx(value, abs=0.5000001 * 10**-places)


@pytest.mark.parametrize(
    ("value", "places", "text"),
    [(0.0, 1, "0"), (-0.0, 1, "0"),
     (-0.04, 1, "0"), (2.50, 2, "2.5"), (-3, 0, "−3"), (1e20, 1, "1e+20"), (float("nan"), 1, "—"),
     (float("inf"), 1, "—"), (99.96, 1, "100"), (1234567.0, 0, "1234567")],
)  # fmt: skip
def test_numbers_are_written_as_in_class(value: float, places: int, text: str) -> None:
    assert number_text(value, places) == text


@pytest.mark.parametrize(
    ("typed", "value"), [("3", 3), (" 2,5 cm ", 2.5), ("−1", -1), ("1/2", 0.5), ("40°", 40), ("12 cm²", 12), ("√16", 4)]
)
def test_typed_numbers_are_understood(typed: str, value: float) -> None:
    assert read_number(typed) == value


def test_units_stand_where_they_are_written() -> None:
    assert measure("a", 40, "°").text == "40°"
    assert measure("s", 4.25, "cm").text == "4.3 cm" or measure("s", 4.25, "cm").text == "4.2 cm"
