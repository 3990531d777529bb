"""Timers tick by the clock, whatever is shown meanwhile; calendars know their months."""

from __future__ import annotations

import datetime

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.model.action import Action
from larch.core.model.page import Page
from larch.core.things.time.calendar import Calendar
from larch.core.things.time.timer import ACTIONS, Timer, duration_text

START: Action = ACTIONS[0]


def started(timer: Timer, now: float) -> Timer:
    page = Page(id="p1").put(timer)
    after = START.edit(page, page.things, now).after
    assert isinstance(after, Page) and isinstance(after.things[0], Timer)
    return after.things[0]


@given(st.integers(1, 5000), st.floats(0, 6000), st.floats(0, 100))
def test_a_timer_counts_down_and_pauses(length: int, first: float, second: float) -> None:
    assume(abs(first - length) > 1e-5)
    timer = started(Timer(length=float(length)), 1000.0)
    seen = timer.as_of(1000.0 + first)
    assert seen.left() == pytest.approx(max(0.0, length - first), abs=1e-6)
    assert (seen.next_change(1000.0 + first) is None) == (first >= length)
    if first < length:
        paused = started(timer, 1000.0 + first)
        assert not paused.going
        again = started(paused, 9000.0).as_of(9000.0 + second)
        assert again.left() == pytest.approx(max(0.0, length - first - second), abs=1e-6)


def test_the_bell_rings_once_at_the_end() -> None:
    timer = started(Timer(length=3.0), 100.0)
    assert timer.as_of(103.0).sounds_since(timer.as_of(102.9)) == ("bell",)
    assert timer.as_of(104.0).sounds_since(timer.as_of(103.0)) == ()
    assert started(timer, 110.0).left() == 3.0  # it begins anew


def test_a_stopwatch_counts_up_and_costs_nothing_at_rest() -> None:
    watch = Timer(length=0.0)
    assert watch.next_change(5.0) is None
    going = started(watch, 5.0)
    assert duration_text(going.as_of(70.5).shown_seconds()) == "1:05"
    following = going.next_change(70.5)
    assert following is not None and 71.0 <= following < 71.01


@given(st.dates(datetime.date(1900, 1, 1), datetime.date(2199, 12, 31)))
def test_every_day_lies_under_its_weekday(day: datetime.date) -> None:
    month = Calendar(year=day.year, month=day.month)
    x, y = month.part_place(str(day.day))
    assert int(x // 56) == day.weekday()
    assert month.part_at(x, y, 0) == str(day.day)
    assert month.days() == (datetime.date(day.year + day.month // 12, day.month % 12 + 1, 1) - datetime.timedelta(1)).day


def test_days_are_marked_and_months_turned() -> None:
    month = Calendar(year=2026, month=12)
    span = month.drag_part("18", (0, 0), month.part_place("7"))
    assert (span.marked[0], span.marked[-1], len(span.marked)) == (7, 18, 12)
    known = {fact.name: fact for fact in span.facts(Page(id="p1"))}
    assert known["span"].value == 11
    assert month.tap_part("5", (0, 0)).tap_part("5", (0, 0)) == month
    assert (month.turned_to(1).year, month.turned_to(1).month) == (2027, 1)
    assert known["month"].set is not None
    assert known["month"].set("feb 2028").days() == 29
    for typed in ("lantern 2026", "13 2026", "May", "May 20266"):
        with pytest.raises(ValueError, match=r"\.$"):
            known["month"].set(typed)
