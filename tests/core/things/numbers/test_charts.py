"""Place-value charts: whatever lies in the columns, the number is the sum; exchanging never changes it."""

from __future__ import annotations

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.number_words import in_words, time_in_words
from larch.core.model.page import Page
from larch.core.things.numbers.block import Block
from larch.core.things.numbers.counter import Counter
from larch.core.things.numbers.place_value_chart import PlaceValueChart, fewest


def with_value(chart: PlaceValueChart, typed: str) -> Page:
    page = Page(id="p1").put(chart)
    fact = next(fact for fact in page.things[0].facts(page) if fact.name == "value")
    assert fact.set is not None
    after = fact.set(typed)
    assert isinstance(after, Page)
    return after


@given(st.integers(0, 999))
def test_a_typed_number_lies_there_in_blocks(number: int) -> None:
    page = with_value(PlaceValueChart(), str(number))
    chart = page.things[0]
    assert isinstance(chart, PlaceValueChart)
    assert chart.value(page) == number
    assert sum(int(d) for d in str(number)) == len(page.things) - 1
    assert sum(map(int, chart.expanded(page).split(" + "))) == number
    assert chart.words(page) == in_words(number)


@given(st.integers(0, 99_999))
def test_decimals_are_counted_exactly(thousandths: int) -> None:
    value = Decimal(thousandths).scaleb(-3)
    page = with_value(PlaceValueChart(high=1, low=-3), f"{value:f}")
    chart = page.things[0]
    assert isinstance(chart, PlaceValueChart)
    assert chart.value(page) == value
    assert sum(map(Decimal, chart.expanded(page).split(" + "))) == value


@given(st.integers(0, 30), st.integers(0, 12), st.integers(0, 4))
def test_as_few_as_possible_keeps_the_number(ones: int, tens: int, hundreds: int) -> None:
    page = Page(id="p1").put(PlaceValueChart())
    chart = page.things[0]
    assert isinstance(chart, PlaceValueChart)
    for value, count in ((1, ones), (10, tens), (100, hundreds)):
        box = chart.column(len(str(value)) - 1)
        page = page.put(*(Block(value=value).moved(box.x0 + 5, box.y0 + 20) for _ in range(count)))
    number = ones + 10 * tens + 100 * hundreds
    assert chart.value(page) == number
    after = fewest(page, [chart]).after
    assert isinstance(after, Page)
    assert chart.value(after) == number
    assert all(n < 10 for n in chart.counted(after).values())
    assert fewest(after, [chart]).after.things[1:] == () or len(after.things) <= len(page.things)  # type: ignore[union-attr]


def test_a_counter_counts_for_its_column() -> None:
    page = Page(id="p1").put(PlaceValueChart(high=3))
    chart = page.things[0]
    assert isinstance(chart, PlaceValueChart)
    for power in (3, 3, 0):
        x, y = chart.column(power).centre
        page = page.put(Counter().moved(x - 30, y - 30))
    assert (chart.text(page), chart.words(page)) == ("2001", "two thousand and one")


def test_too_much_for_its_columns_is_said() -> None:
    for typed in ("1000", "-1", "0.5", "lanterns", "1e400"):
        with pytest.raises(ValueError, match=r"\.$"):
            with_value(PlaceValueChart(), typed)


@pytest.mark.parametrize(("number", "text"), [(0, "zero"), (21, "twenty-one"), (100, "one hundred"),
    (352, "three hundred and fifty-two"), (1_000_001, "one million and one"), (12_345, "twelve thousand three hundred and "
    "forty-five"), (-7, "minus seven")])  # fmt: skip
def test_numbers_in_words(number: int, text: str) -> None:
    assert in_words(number) == text


@pytest.mark.parametrize(("minutes", "text"), [
    (0, "twelve o’clock"), (155, "twenty-five to three"), (450, "half past seven"),
    (735, "quarter past twelve"), (719, "one minute to twelve"), (1425, "quarter to twelve")])  # fmt: skip
def test_times_in_words(minutes: int, text: str) -> None:
    assert time_in_words(minutes) == text
