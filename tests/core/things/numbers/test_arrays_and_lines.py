"""Arrays, factor pictures, number grids and number lines."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.array import ACTIONS as ARRAY_ACTIONS
from larch.core.things.numbers.array import UNIT, Array
from larch.core.things.numbers.factor_picture import FactorPicture, prime_factors
from larch.core.things.numbers.number_grid import ACTIONS as GRID_ACTIONS
from larch.core.things.numbers.number_grid import NumberGrid
from larch.core.things.numbers.number_line import NumberLine, as_fraction

PAGE = Page(id="p1")


def set_to(thing: Thing, name: str, typed: str) -> Thing:
    fact = next(fact for fact in thing.facts(PAGE) if fact.name == name)
    assert fact.set is not None
    changed = fact.set(typed)
    assert isinstance(changed, Thing)
    return changed


@given(st.integers(1, 40), st.integers(1, 40), st.data())
def test_the_parts_of_an_array_make_the_whole(rows: int, columns: int, data: st.DataObject) -> None:
    splits = (data.draw(st.integers(0, rows - 1)), data.draw(st.integers(0, columns - 1)))
    array = Array(rows=rows, columns=columns, row_split=splits[0], column_split=splits[1])
    assert sum(piece.rows * piece.columns for piece in array.pieces()) == rows * columns == array.worth()
    page = PAGE.put(array)
    swapped = ARRAY_ACTIONS[0].run(page, page.things).after
    assert isinstance(swapped, Page) and swapped.things[0].worth() == array.worth()  # type: ignore[attr-defined]


def test_the_corner_of_an_array_makes_rows_and_columns() -> None:
    array = Array(rows=3, columns=4)
    x, y = array.part_place("corner")
    grown = array.drag_part("corner", (x, y), (x + 2.2 * UNIT, y + UNIT))
    assert (grown.rows, grown.columns) == (4, 6)
    least = array.drag_part("corner", (x, y), (-500, -500))
    assert (least.rows, least.columns) == (1, 1)
    parted = array.drag_part("rows", array.part_place("rows"), (0, array.field().y0 + 2 * UNIT))
    assert parted.row_split == 2


@given(st.integers(1, 100))
def test_prime_factors_multiply_to_the_number(n: int) -> None:
    factors = prime_factors(n)
    assert math.prod(factors) == n
    assert list(factors) == sorted(factors)
    assert all(p > 1 and all(p % d for d in range(2, p)) for p in factors)
    known = {fact.name: fact.value for fact in FactorPicture(number=n).facts(PAGE)}
    assert known["prime"] == (n > 1 and known["divisors"] == f"1, {n}")


@given(st.integers(-50, 50), st.integers(1, 9), st.integers(1, 12))
def test_a_grid_marks_just_the_multiples(start: int, step: int, of: int) -> None:
    grid = NumberGrid(start=float(start), step=float(step), rows=4)
    for cell in range(grid.count()):
        number = start + cell * step
        assert grid.number(cell) == number
        assert grid.is_multiple(cell, of) == (number != 0 and number % of == 0)


def test_a_sieve_leaves_the_primes() -> None:
    page = PAGE.put(NumberGrid())
    sieve = next(action for action in GRID_ACTIONS if action.name == "sieve")
    grid = sieve.run(page, page.things).after.things[0]  # type: ignore[union-attr]
    assert isinstance(grid, NumberGrid)
    left = [round(grid.number(c)) for c in range(grid.count()) if c not in grid.covered]
    assert left[:6] == [2, 3, 5, 7, 11, 13] and len(left) == 25


def test_numbers_of_a_grid_are_marked_and_uncovered_by_touch() -> None:
    grid = NumberGrid(covered=(0, 1))
    assert grid.tap_part("0", (0, 0)).covered == (1,)
    free = NumberGrid()
    marked = free.drag_part("4", free.part_place("4"), free.part_place("5"))
    assert marked.marked == (4, 5)
    assert {f.name: f.value for f in marked.facts(PAGE)}["value"] == 11


ENDS = st.tuples(st.integers(-1000, 1000), st.integers(1, 500), st.sampled_from([0.1, 0.5, 1, 2, 5, 10])).map(
    lambda t: (float(t[0]), t[0] + t[1] * t[2], float(t[2]))
)


@given(ENDS, st.floats(0, 1))
def test_what_is_put_on_a_line_lies_there(ends: tuple[float, float, float], share: float) -> None:
    line = NumberLine(first=ends[0], last=ends[1], step=ends[2])
    x = line.x_of(line.first + share * (line.last - line.first))
    value = line.nearest(x)
    assert line.first <= value <= line.last
    assert abs(line.x_of(value) - x) <= line.long * ends[2] / (line.last - line.first) / 2 + 1e-6
    marked = line.tap_part("line", (x, 96.0))
    assert marked is not None and marked.marks == (value,)
    assert marked.tap_part("mark 1", (x, 96.0)) == line
    assert line.named_every() * line.long * ends[2] / (line.last - line.first) >= 45 - 1e-6


def test_jumps_land_and_their_ends_are_dragged() -> None:
    line = set_to(set_to(NumberLine(), "jumps from", "7"), "jumps", "+3 +5")
    assert isinstance(line, NumberLine)
    assert line.landings() == [7, 10, 15]
    assert {f.name: f.value for f in line.facts(PAGE)}["value"] == 15
    moved = line.drag_part("jump 1", line.part_place("jump 1"), (line.x_of(12), 96.0))
    assert (moved.jumps, moved.landings()[-1]) == ((5, 5), 17)
    back = set_to(line, "jumps", "-4 − 2.5")
    assert isinstance(back, NumberLine) and back.landings() == [7, 3, 0.5]
    for name, typed in (("from", "30"), ("step", "-1"), ("to", "-5"), ("jumps", "far")):
        with pytest.raises(ValueError, match=r"\.$"):
            set_to(line, name, typed)


@given(ENDS, st.floats(0, 1))
def test_a_window_stays_on_its_line_and_falls_onto_round_numbers(ends: tuple[float, float, float], share: float) -> None:
    first, last, step = ends
    line = NumberLine(first=first, last=last, step=step, window=min(step, last - first))
    x, y = line.part_place("window")
    assert line.part_at(x, y, 0) == "window"
    moved = line.drag_part("window", (x, y), (line.x_of(first + share * (last - first)), y)).part_let_go("window")
    start = moved.window_from()
    assert first <= start and start + moved.window <= last + 1e-9
    assert line.strip_x(line.window_from()) < line.strip_x(line.window_from() + line.window)


def test_a_window_is_typed() -> None:
    line = set_to(NumberLine(), "window", "3 to 4")
    assert isinstance(line, NumberLine)
    assert (line.window, line.window_at) == (1, 3)
    assert set_to(line, "window", "") == NumberLine(window_at=3.0)
    for typed in ("3", "19 to 25", "4 to 4"):
        with pytest.raises(ValueError, match=r"\.$"):
            set_to(line, "window", typed)


@given(st.integers(1, 24))
def test_ticks_are_the_fractions_that_they_are_called(parts: int) -> None:
    line = NumberLine(first=-3.0, last=3.0, step=1 / parts, named="fractions")
    for k, tick in enumerate(line.ticks()):
        whole, above, below = as_fraction(tick)
        size = Fraction(abs(whole)) + Fraction(abs(above), below)
        sign = -1 if whole < 0 or above < 0 else 1
        assert sign * size == Fraction(k, parts) - 3
