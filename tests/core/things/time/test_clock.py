"""Clocks: hands that go together, turns that add up, running."""

from __future__ import annotations

import math
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

import larch
from larch.core.actions.arrange.arrange import brought
from larch.core.model.action import actions_for
from larch.core.model.page import Page
from larch.core.things.time.clock import ACTIONS, DAY, RADIUS, Clock, read_time, time_text
from tests.samples import page_with

times = st.floats(0, DAY, exclude_max=True)


def at(degrees: float, share: float = 0.6) -> tuple[float, float]:
    angle = math.radians(degrees)
    return (RADIUS + RADIUS * share * math.sin(angle), RADIUS - RADIUS * share * math.cos(angle))


@given(times)
def test_the_hour_hand_always_belongs_to_the_minute_hand(minutes: float) -> None:
    clock = Clock(minutes=minutes)
    assert clock.agrees()
    assert clock.hour_hand() == pytest.approx((minutes / 720 * 360) % 360)


@given(times, st.integers(-4000, 4000))
def test_turns_of_the_minute_hand_add_up_to_hours(minutes: float, degrees: int) -> None:
    clock = Clock(minutes=minutes)
    start = clock.minute_hand()
    step = math.copysign(7.0, degrees)
    done = 0.0
    while abs(done) < abs(degrees):
        clock = clock.drag_part("minute", at(start + done), at(start + done + step))
        done += step
    passed = done / 6
    assert (clock.minutes - minutes - passed + DAY / 2) % DAY - DAY / 2 == pytest.approx(0, abs=1e-6)


@given(times, st.floats(-170, 170))
def test_the_hour_hand_takes_the_minute_hand_along(minutes: float, turn: float) -> None:
    clock = Clock(minutes=minutes)
    after = clock.drag_part("hour", at(clock.hour_hand(), 0.3), at(clock.hour_hand() + turn, 0.3))
    assert (after.hour_hand() - clock.hour_hand() - turn + 180) % 360 - 180 == pytest.approx(0, abs=1e-6)
    assert after.agrees()


def test_free_hands_turn_by_themselves_and_say_whether_they_agree() -> None:
    clock = Clock(minutes=150.0, free=True, hour=60.0)  # 2:30 with the hour hand on the 2
    assert not clock.agrees()
    right = clock.drag_part("hour", at(60, 0.3), at(75, 0.3))
    assert right.minutes == clock.minutes and right.agrees()
    page = page_with(right)
    together = next(a for a in actions_for(page, page.things) if a.name == "free hands").run(page, page.things)
    assert time_text(together.after.things[0].minutes) == "02:30"  # type: ignore[union-attr]


@given(times)
def test_each_hand_is_found_at_its_tip(minutes: float) -> None:
    clock = Clock(minutes=minutes)
    assert clock.part_at(*clock.tip("minute"), 0) == "minute"
    assert clock.part_at(*clock.tip("hour"), 0) in ("hour", "minute")
    assert clock.part_at(RADIUS, RADIUS, 10) == ""


@pytest.mark.parametrize(
    ("typed", "minutes"),
    [("15:05", 905), ("3.05 pm", 905), ("0:00", 0), ("24:00", 0), ("12:30 am", 30), ("9 30", 570), ("7h45", 465)],
)
def test_times_are_read_as_they_are_written(typed: str, minutes: int) -> None:
    assert read_time(typed) == minutes


@pytest.mark.parametrize("typed", ["25:00", "12:60", "noon", "13:00 pm", "", "1:2:3"])
def test_what_is_no_time_is_refused_in_one_sentence(typed: str) -> None:
    with pytest.raises(ValueError, match=r"15:05\.$"):
        read_time(typed)


def test_a_clock_that_was_let_go_is_a_function_of_the_time_alone() -> None:
    page = page_with(Clock(minutes=600.0))
    action = next(a for a in actions_for(page, page.things) if a.name == "let go")
    going = action.edit(page, page.things, 1000.0).after.things[0]  # type: ignore[union-attr]
    assert isinstance(going, Clock) and going.minutes == 600.0
    assert going.as_of(1000.0 + 90 * 60).minutes == pytest.approx(690.0)
    assert going.next_change(1000.0) == 1001.0 and going.next_change(1000.4) == 1001.0
    assert Clock().next_change(1000.0) is None
    later = page.with_things({going.id: going})
    stopped = action.edit(later, later.things, 1060.0).after.things[0]  # type: ignore[union-attr]
    assert isinstance(stopped, Clock) and not stopped.going and stopped.minutes == pytest.approx(601.0)


def test_it_strikes_when_an_hour_is_full() -> None:
    clock = Clock(minutes=59.5, going=1000.0, strikes=True)
    assert clock.as_of(1060.0).sounds_since(clock.as_of(1010.0)) == ("chime",)
    assert clock.as_of(1020.0).sounds_since(clock.as_of(1010.0)) == ()


def test_every_step_of_time_has_an_icon_of_its_own() -> None:
    named = [action.icon for action in ACTIONS if action.name.startswith("time ")]
    assert len(set(named)) == len(named) == 6
    assert all((Path(larch.__file__).parent / f"assets/icons/{name}.svg").is_file() for name in named)


@given(st.integers(0, 1439), st.integers(0, 1439))
def test_what_has_passed_since_a_start_goes_over_midnight(start: int, passed: int) -> None:
    clock = Clock(minutes=float((start + passed) % 1440), since=float(start))
    assert clock.elapsed() == passed
    known = {fact.name: fact for fact in clock.facts(Page(id="p1"))}
    assert known["elapsed"].text == {
        (True, True): f"{passed // 60} h {passed % 60} min",
        (True, False): f"{passed // 60} h",
    }.get((passed >= 60, passed % 60 > 0), f"{passed} min")
    assert known["since"].set is not None
    assert known["since"].set("") == Clock(minutes=clock.minutes)
    assert Clock(minutes=clock.minutes, twelve=True).digital().endswith("am" if clock.minutes < 720 else "pm")


def test_the_time_between_two_clocks() -> None:
    page = page_with(Clock(minutes=130), Clock(minutes=155))
    between = next(action for action in ACTIONS if action.name == "between clocks")
    assert between.fits(page, page.things) and not between.fits(page, page.things[:1])
    after = between.run(page, page.things).after
    assert isinstance(after, Page)
    second = after.things[1]
    assert isinstance(second, Clock) and (second.since, second.elapsed()) == (130, 25)
    # The one is turned: what has passed follows, until the other is gone or its hands are free.
    turned = after.with_things({after.things[0].id: Clock(id=after.things[0].id, minutes=100)})
    known = {fact.name: fact.value for fact in second.facts(turned)}
    assert known["elapsed"] == 55 and second.uses(turned) == (turned.things[0],)
    alone = turned.without([turned.things[0].id])
    assert {fact.name: fact.value for fact in second.facts(alone)}["elapsed"] == 25
    copied = brought(after, after.things, 10, 10)
    assert getattr(copied[1], "after") == after.put_ids(2)[0]  # noqa: B009
    assert getattr(brought(after, [second], 10, 10)[0], "after") == ""  # noqa: B009
