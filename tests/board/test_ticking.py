"""Things that run: nothing at rest, no edits, painted when they change, heard on other pages too."""

from __future__ import annotations

import pytest

from larch.board.ticking import at_present
from larch.core.base.shape import Placement
from larch.core.model.action import actions_for
from larch.core.things.numbers.abacus import Abacus
from larch.core.things.time.clock import Clock
from larch.services.clock import clock
from tests.board.test_tools import Hand


@pytest.fixture
def time(monkeypatch: pytest.MonkeyPatch) -> list[float]:
    now = [10_000.0]
    monkeypatch.setattr(clock, "now", lambda: now[0])
    return now


def let_go(hand: Hand) -> None:
    page, things = hand.canvas.page, hand.canvas.things()
    hand.canvas.do(next(a for a in actions_for(page, things) if a.name == "let go"))


def test_a_clock_ticks_without_edits_and_rests_when_stopped(hand: Hand, time: list[float]) -> None:
    (id,) = hand.put(Clock(minutes=600.0, placement=Placement(300, 100)))
    assert hand.canvas.ticking.resting
    hand.canvas.select((id,))
    let_go(hand)
    assert not hand.canvas.ticking.resting
    steps = len(hand.window.session.history.done)
    hand.canvas.surface.sharpen(5000)
    before = hand.canvas.surface.base.toImage()
    ticked: list[object] = []
    hand.canvas.ticked.connect(ticked.append)
    time[0] += 300
    hand.canvas.ticking._tick()
    assert ticked == [{id}] and len(hand.window.session.history.done) == steps
    assert hand.thing(id).minutes == 600.0 and at_present(hand.thing(id)).minutes == pytest.approx(605)
    hand.canvas.surface.sharpen(5000)
    assert hand.canvas.surface.base.toImage() != before
    let_go(hand)
    assert hand.canvas.ticking.resting and hand.thing(id).minutes == pytest.approx(605)


def test_it_goes_on_and_strikes_while_another_page_is_shown(hand: Hand, time: list[float]) -> None:
    (id,) = hand.put(Clock(minutes=59.0, strikes=True, placement=Placement(300, 100)))
    first = hand.canvas.page_id
    hand.canvas.select((id,))
    let_go(hand)
    heard: list[str] = []
    hand.canvas.sound_wanted.connect(heard.append)
    hand.window.pages.new()
    assert hand.canvas.page_id != first and not hand.canvas.ticking.resting
    time[0] += 61
    hand.canvas.ticking._tick()
    assert heard == ["chime"] and not hand.canvas.ticking.resting
    hand.window.show_page(first)
    assert at_present(hand.thing(id)).minutes == pytest.approx(60 + 1 / 60)


def test_the_timer_itself_comes_back_each_second(hand: Hand, qtbot) -> None:  # type: ignore[no-untyped-def]
    (id,) = hand.put(Clock(placement=Placement(300, 100)))
    hand.canvas.select((id,))
    let_go(hand)
    with qtbot.waitSignal(hand.canvas.ticked, timeout=3000):
        pass
    let_go(hand)


def test_beads_are_heard_by_name(hand: Hand) -> None:
    (id,) = hand.put(Abacus(placement=Placement(300, 100)))
    heard: list[str] = []
    hand.canvas.sound_wanted.connect(heard.append)
    page = hand.canvas.page
    hand.canvas.commit(next(a for a in actions_for(page, page.things) if a.name == "one bead more").run(page, page.things))
    assert heard == ["click"] and hand.thing(id).worth() == 1
