"""Loose pieces: the amount stays when they are cut and joined, and they fall onto what is equally large."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.base.shape import Placement
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.fractions.fraction_bar import FractionBar
from larch.core.things.fractions.fraction_circle import FractionCircle
from larch.core.things.fractions.fraction_piece import HIGH, LONG, RADIUS, FractionPiece, cut, join, row_of
from larch.core.things.fractions.parted import Parted, take_out

PLACES = st.builds(Placement, st.floats(-500, 500), st.floats(-500, 500), st.floats(-180, 180), st.floats(0.5, 2))
FORMS = st.sampled_from(["bar", "circle"])


def amount(things: tuple[Thing, ...]) -> Fraction:
    return sum((Fraction(1, one.parts_count) for one in things if isinstance(one, FractionPiece)), Fraction(0))


@given(st.integers(1, 24), FORMS, PLACES, st.integers(2, 4))
def test_cut_and_put_together_it_is_the_same_piece_again(n: int, form: str, at: Placement, count: int) -> None:
    page = Page(id="p1").put(FractionPiece(parts_count=n, form=form, placement=at))
    finer = cut(page, page.things, count, "").after
    assert isinstance(finer, Page) and len(finer.things) == count and amount(finer.things) == Fraction(1, n)
    again = join(finer, finer.things).after
    assert isinstance(again, Page)
    (whole,) = again.things
    assert isinstance(whole, FractionPiece) and whole.parts_count == n and whole.form == form
    if at.turn == 0 or form == "circle":
        there = page.things[0].placement
        tip = whole.tip() if form == "circle" else (0.0, 0.0)
        assert math.dist(whole.placement.to_page(*tip), there.to_page(*tip)) < 1e-6
        assert n == 1 or math.cos(math.radians(whole.placement.turn - there.turn)) == pytest.approx(1)


@given(st.integers(1, 24), st.floats(0, 0.999), st.floats(0, 359.9), FORMS)
def test_a_row_of_all_parts_covers_the_whole_once(n: int, far: float, turn: float, form: str) -> None:
    row = row_of(n, n, form, Placement())
    if form == "bar":
        x, y = far * LONG, HIGH / 2
        near = min(x % (LONG / n), LONG / n - x % (LONG / n))
    else:
        away = 0.1 * RADIUS + 0.8 * far * RADIUS
        x, y = away * math.sin(math.radians(turn)), -away * math.cos(math.radians(turn))
        near = min(turn % (360 / n), 360 / n - turn % (360 / n))
    assume(n == 1 or near > 1e-3)
    holding = [one for one in row if one.touches(*one.placement.to_local(x, y), 0)]
    assert len(holding) == 1


@pytest.mark.parametrize("kind", [FractionBar, FractionCircle])
@given(st.integers(1, 16), st.data())
def test_parts_that_are_taken_out_make_what_was_taken(kind: type[Parted], parts: int, data: st.DataObject) -> None:
    taken = data.draw(st.sets(st.integers(0, parts - 1)))
    page = Page(id="p1").put(kind(parts_count=parts, filled=tuple(sorted(taken))))
    edit = take_out(page, page.things)
    assert isinstance(edit.after, Page) and isinstance(left := edit.after.things[0], kind)
    assert left.filled == ()
    assert amount(edit.after.things) == Fraction(len(taken) or parts, parts)
    assert set(edit.select or ()) == {thing.id for thing in edit.after.things[1:]}


def test_too_many_parts_are_not_strewn_over_the_page() -> None:
    page = Page(id="p1").put(FractionBar(parts_count=100))
    with pytest.raises(ValueError, match="48"):
        take_out(page, page.things)


def test_a_piece_laid_over_a_bar_falls_onto_its_parts_and_is_counted() -> None:
    page = Page(id="p1").put(FractionBar(parts_count=8), FractionPiece(parts_count=4, placement=Placement(83, 5)))
    bar, piece = page.things
    assert isinstance(piece, FractionPiece)
    snap = piece.snap(page, [bar], 11)
    assert snap is not None and (snap.dx, snap.dy) == (-3, -5) and snap.reason
    facts = {fact.name: fact.value for fact in bar.facts(page)}
    assert facts["laid over"] == "1/4"
    assert "laid over" not in {fact.name for fact in bar.facts(page.without([piece.id]))}


def test_equal_pieces_say_that_they_are_equally_long() -> None:
    quarter = FractionPiece(parts_count=4)
    other = quarter.moved(3, HIGH + 2).replace(id="t2")
    snap = other.snap(Page(id="p1"), [quarter], 11)
    assert snap is not None and snap.reason == "equally long" and (snap.dx, snap.dy) == (-3, -2)


def test_a_piece_of_a_circle_finds_the_middle_and_turns_onto_an_edge() -> None:
    circle = FractionCircle(parts_count=4)
    middle = circle.middles()[0]
    piece = FractionPiece(parts_count=8, form="circle")
    x, y = piece.tip()
    near = piece.replace(placement=Placement(middle[0] - x + 6, middle[1] - y - 4))
    snap = near.snap(Page(id="p1"), [circle], 11)
    assert snap is not None and (snap.dx, snap.dy) == (pytest.approx(-6), pytest.approx(4))
    there = near.moved(snap.dx, snap.dy)
    turn, why = there.held_turn(Page(id="p1"), [circle], 20.0)
    assert turn == pytest.approx(22.5) and why
    assert there.held_turn(Page(id="p1"), [circle], 40.0) == (40.0, "")


@pytest.mark.parametrize("parts", [(2, 4), (3, 3)])
def test_what_makes_no_single_part_is_not_put_together(parts: tuple[int, ...]) -> None:
    page = Page(id="p1").put(*(FractionPiece(parts_count=n) for n in parts))
    with pytest.raises(ValueError):
        join(page, page.things)
