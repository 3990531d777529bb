"""Dots: as many as said, on their card, none on another."""

from __future__ import annotations

import math

from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.numbers.dots import ACTIONS, FORMS, MOST, SIDE, Dots


@given(st.integers(1, MOST), st.sampled_from([name for name, _words in FORMS]), st.integers(0, 2**32 - 1))
def test_dots_lie_apart_on_their_card(number: int, form: str, throw: int) -> None:
    places = Dots(number=number, form=form, throw=throw).places()
    assert len(places) == number
    assert all(6 <= x <= SIDE - 6 and 6 <= y <= SIDE - 6 for x, y in places)
    assert all(math.dist(a, b) > 11 for k, a in enumerate(places) for b in places[:k])


@given(st.integers(1, MOST), st.integers(0, 10**6))
def test_another_number_is_another_and_comes_from_the_seed(number: int, seed: int) -> None:
    page = Page(id="p1", seed=seed).put(Dots(number=number, closed=True))
    after = ACTIONS[1].run(page, page.things).after
    assert isinstance(after, Page)
    dots = after.things[0]
    assert isinstance(dots, Dots)
    assert dots.number != number and not dots.closed
    assert ACTIONS[1].run(page, page.things).after == after
