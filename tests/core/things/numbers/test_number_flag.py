"""Number flags on number lines, and numbers that are written on equipment."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.shape import Box, Placement
from larch.core.model.page import Page
from larch.core.model.written_on import WrittenSign
from larch.core.things.graphs.value_table import ValueTable
from larch.core.things.numbers.abacus import Abacus
from larch.core.things.numbers.column_sum import ColumnSum
from larch.core.things.numbers.number_flag import NumberFlag
from larch.core.things.numbers.number_line import NumberLine
from larch.core.things.numbers.place_value_chart import PlaceValueChart
from larch.core.things.time.clock import Clock

PAGE = Page(id="p1")


def written(text: str, *places: tuple[float, float]) -> list[WrittenSign]:
    signs = text if len(places) == len(text) else [text]
    return [WrittenSign(c, Box(x - 10, y - 15, x + 10, y + 15)) for c, (x, y) in zip(signs, places, strict=True)]


@given(st.integers(0, 95), st.floats(0.3, 3), st.floats(-300, 300))
def test_a_flag_stands_right_just_where_its_number_is(value: int, scale: float, shift: float) -> None:
    page = PAGE.put(NumberLine(last=100.0, step=10.0, placement=Placement(shift, 40, 0, scale)))
    line = page.things[0]
    assert isinstance(line, NumberLine)
    flag = NumberFlag(text=str(value), placement=Placement(*line.place_of(value), 0, scale))
    on = page.put(flag)
    assert flag.stands_right(on) is True and flag.stands_at(on) == pytest.approx(value, abs=1e-6)
    off = flag.replace(placement=flag.placement.moved(14 * scale, 0))
    assert off.stands_right(page.put(off)) is False
    away = flag.replace(placement=flag.placement.moved(0, 200))
    assert away.stands_right(page.put(away)) is None and away.stands_at(page.put(away)) is None


def test_its_foot_falls_onto_the_line_but_not_onto_its_place() -> None:
    page = PAGE.put(NumberLine(last=100.0, step=10.0))
    line = page.things[0]
    assert isinstance(line, NumberLine)
    x, y = line.place_of(40)
    flag = NumberFlag(text="63", placement=Placement(x, y - 20))
    snap = flag.snap(page.put(flag), [line], 12)
    assert snap is not None and (snap.dx, snap.dy) == pytest.approx((0, 20))
    assert flag.snap(page, [], 12) is None
    below = flag.replace(placement=flag.placement.moved(0, 65))  # let go among the numbers
    fallen = below.snap(page.put(below), [line], 12)
    assert fallen is not None and (fallen.dx, fallen.dy) == pytest.approx((0, -45))
    far = flag.replace(placement=flag.placement.moved(0, 90))
    assert far.snap(page.put(far), [line], 12) is None


def test_what_it_shows_is_a_number() -> None:
    flag = NumberFlag(text="−4")
    setter = next(fact.set for fact in flag.facts(PAGE) if fact.name == "value")
    assert setter is not None and setter("3/4").worth() == 0.75  # type: ignore[attr-defined]
    for wrong in ("", "boats", "1" * 40):
        with pytest.raises(ValueError):
            setter(wrong)


def test_a_number_written_on_a_line_is_a_flag_below_where_it_was_written() -> None:
    page = PAGE.put(NumberLine(last=100.0, step=10.0))
    line = page.things[0]
    assert isinstance(line, NumberLine)
    x, y = line.place_of(25)
    flag = line.number_written(page, "63", written("63", (x - 12, y - 60), (x + 12, y - 60)), "berry").things[-1]
    assert isinstance(flag, NumberFlag) and flag.stands_at(page.put(flag)) == pytest.approx(25) and flag.hue == "berry"


@pytest.mark.parametrize(("text", "minutes"), [("7:25", 445), ("725", 445), ("07.25", 445), ("1200", 720)])
def test_a_time_on_a_clock(text: str, minutes: int) -> None:
    for clock in (Clock(), Clock(free=True)):
        page = PAGE.put(clock)
        made = page.things[0].number_written(page, text, [], "lake").things[0]  # type: ignore[attr-defined]
        assert made.minutes == minutes and made.agrees()


@pytest.mark.parametrize("text", ["7", "12", "99:99", "x"])
def test_a_numeral_on_a_clock_is_no_time(text: str) -> None:
    page = PAGE.put(Clock())
    with pytest.raises(ValueError):
        page.things[0].number_written(page, text, [], "lake")  # type: ignore[attr-defined]


def test_a_digit_at_a_rod_counts_there_and_a_number_in_one_place_is_the_number() -> None:
    page = PAGE.put(Abacus(counts=(1, 2, 3)))
    abacus = page.things[0]
    assert isinstance(abacus, Abacus)
    tens = (abacus.rod_x(1), 50.0)
    assert abacus.number_written(page, "7", written("7", tens), "lake").things[0].worth() == 173  # type: ignore[attr-defined]
    close = [(tens[0] - 4, 50.0), (tens[0] + 4, 50.0)]
    assert abacus.number_written(page, "45", written("45", *close), "lake").things[0].worth() == 45  # type: ignore[attr-defined]
    with pytest.raises(ValueError):
        abacus.number_written(page, "4.5", written("4.5", tens), "lake")


def test_digits_in_their_columns_of_a_chart() -> None:
    page = PAGE.put(PlaceValueChart())
    chart = page.things[0]
    assert isinstance(chart, PlaceValueChart)
    tens, ones = chart.column(1).centre, chart.column(0).centre
    first = chart.number_written(page, "6", written("6", tens), "lake")
    assert int(first.things[0].value(first)) == 60  # type: ignore[attr-defined]
    both = first.things[0].number_written(first, "3", written("3", ones), "lake")  # type: ignore[attr-defined]
    assert both.things[0].digits == "063"
    whole = chart.number_written(page, "407", written("407", tens), "lake")
    assert whole.things[0].digits == "407"  # type: ignore[attr-defined]
    with pytest.raises(ValueError):
        chart.number_written(page, "99999", written("99999", tens), "lake")


def test_a_number_in_a_cell_of_a_table_of_values() -> None:
    page = PAGE.put(ValueTable(xs=("1", "2"), ys=("3", "")))
    table = page.things[0]
    assert isinstance(table, ValueTable)
    place = table.cell_box(1, 1).centre
    made = table.number_written(page, "4.5", written("4.5", place), "lake").things[0]
    assert made.ys == ("3", "4.5")  # type: ignore[attr-defined]
    with pytest.raises(ValueError):
        table.number_written(page, "4.5", written("4.5", (-300.0, 0.0)), "lake")
    with pytest.raises(ValueError):
        table.number_written(page, "boats", written("boats", place), "lake")


def test_digits_in_the_cells_of_column_arithmetic() -> None:
    page = PAGE.put(ColumnSum(numbers=("47", "35")))
    sum_ = page.things[0]
    assert isinstance(sum_, ColumnSum)
    cells = sorted(cell for cell in sum_.wanted())
    places = [sum_.cell_box(*cell).centre for cell in cells]
    made = sum_.number_written(page, "82", written("82", *places), "lake").things[0]
    assert made.answer() == "82" and made.is_done()  # type: ignore[attr-defined]
    with pytest.raises(ValueError):
        sum_.number_written(page, "8", written("8", (-500.0, -500.0)), "lake")
    with pytest.raises(ValueError):
        sum_.answered("12345")
