"""Equipment at the Board by real touch: taps, drags of parts, several fingers, supplies that fall into cells, tasks."""

from __future__ import annotations

import math

import pytest

from larch.core.actions.asking import asked
from larch.core.base.shape import Placement
from larch.core.model.page import Page
from larch.core.things.asking.task import Task
from larch.core.things.chance.spinner import Spinner
from larch.core.things.fractions.fraction_bar import FractionBar
from larch.core.things.numbers.block import Block
from larch.core.things.numbers.column_dials import ColumnDials
from larch.core.things.numbers.counter import Counter
from larch.core.things.numbers.counting_line import CountingLine
from larch.core.things.numbers.number_line import NumberLine
from larch.core.things.numbers.ten_frame import TenFrame
from larch.core.things.numbers.value_card import ValueCard
from larch.core.things.time.clock import Clock
from larch.services.speech import Mute
from tests.board.gestures.test_several_hands import Fingers, at_board, fingers  # noqa: F401
from tests.board.test_tools import Hand


def place_of(thing, part: str) -> tuple[float, float]:  # type: ignore[no-untyped-def]
    return thing.placement.to_page(*thing.part_place(part))  # type: ignore[no-any-return]


def test_a_tap_lays_a_counter_and_a_supply_fills_a_cell(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    frame = TenFrame(placement=Placement(200, 200))
    frame_id, supply = at_board(hand, frame, Counter(supply=True, placement=Placement(700, 220)))
    fingers.tap(place_of(frame, "0"))
    fingers.press(1, (730, 250))
    x, y = place_of(frame, "3")
    fingers.move(1, (x + 14, y + 10))
    fingers.lift(1)
    page = hand.canvas.page
    known = {fact.name: fact.value for fact in page.things[0].facts(page)}
    assert known["value"] == 2
    counter = page.things[-1]
    assert counter.copy_of == supply and counter.box().centre == pytest.approx((x, y), abs=0.01)
    fingers.tap((x, y))
    assert {f.name: f.value for f in hand.thing(frame_id).facts(hand.canvas.page)}["second"] == 1
    hand.window.undo()
    hand.window.undo()
    assert len(hand.canvas.page.things) == 2


def test_two_children_turn_two_dials_at_once(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    dials = ColumnDials(number=222, placement=Placement(200, 150))
    (id,) = at_board(hand, dials)
    for finger, part in ((1, "ones"), (2, "hundreds")):
        fingers.press(finger, place_of(dials, part))
    for finger, place, digit in ((1, 0, 5), (2, 2, 4)):
        x, y = dials.placement.to_page(*dials.middle(place))
        for k in range(1, 13):
            angle = math.tau * (2 + (digit - 2) * k / 12) / 10
            fingers.move(finger, (x + 66 * math.sin(angle), y - 66 * math.cos(angle)), steps=1)
    for finger in (1, 2):
        fingers.lift(finger)
    assert hand.thing(id).number == 425


def test_parts_of_a_bar_are_taken_by_taps_and_drags(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    bar = FractionBar(parts_count=8, placement=Placement(150, 300))
    (id,) = at_board(hand, bar)
    fingers.tap(place_of(bar, "7"))
    fingers.press(1, place_of(bar, "0"))
    fingers.move(1, place_of(bar, "2"), steps=12)
    fingers.lift(1)
    assert hand.thing(id).filled == (0, 1, 2, 7)
    hand.window.undo()
    assert hand.thing(id).filled == (7,)


def test_a_jump_is_dragged_and_a_tap_marks_the_line(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    line = NumberLine(jumps=(3.0,), jumps_from=2.0, placement=Placement(100, 300))
    (id,) = at_board(hand, line)
    fingers.press(1, place_of(line, "jump 1"))
    fingers.move(1, line.placement.to_page(line.x_of(9), 96))
    fingers.lift(1)
    fingers.tap(line.placement.to_page(line.x_of(15), 96))
    assert (hand.thing(id).jumps, hand.thing(id).marks) == ((7.0,), (15.0,))


def test_a_tap_spins_and_the_page_keeps_count(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    (id,) = at_board(hand, Spinner(placement=Placement(300, 200)))
    fingers.tap(hand.thing(id).placement.to_page(142, 142))
    assert sum(hand.thing(id).counts()) == 1
    hand.window.undo()
    assert sum(hand.thing(id).counts()) == 0


def test_cards_slide_over_each_other(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    cards = [
        ValueCard(digit=9, power=2, placement=Placement(300, 200)),
        ValueCard(digit=2, power=1, placement=Placement(700, 300)),
    ]
    _nine, twenty = at_board(hand, *cards)
    fingers.press(1, (740, 340))
    fingers.move(1, (740 - 400 + 60 + 5, 340 - 100 - 4), steps=12)
    fingers.lift(1)
    page = hand.canvas.page
    assert {fact.name: fact.value for fact in hand.thing(twenty).facts(page)}["number"] == 920


def test_a_task_is_checked_by_a_tap_and_tried_again(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    clock = Clock(minutes=540, placement=Placement(100, 100))
    (clock_id,) = at_board(hand, clock)
    page: Page = hand.canvas.page
    hand.canvas.commit(asked(page, page.things[0], "time", {"wanted": "9:30"}))
    task_id = hand.canvas.page.things[-1].id

    def button() -> tuple[float, float]:
        task = hand.thing(task_id)
        assert isinstance(task, Task)
        return task.placement.to_page(*task.button().centre)

    fingers.tap(button())
    assert hand.thing(task_id).state == "not yet"
    fingers.tap(button())
    assert hand.thing(task_id).state == "asked"
    fingers.press(1, place_of(clock, "minute"))
    cx, cy = clock.placement.to_page(176, 176)
    for k in range(1, 13):
        angle = math.pi * k / 12
        fingers.move(1, (cx + 110 * math.sin(angle), cy - 110 * math.cos(angle)), steps=1)
    fingers.lift(1)
    assert hand.thing(clock_id).minutes == 570
    fingers.tap(button())
    assert hand.thing(task_id).state == "right"
    said = list(hand.window.speaker.asked)
    assert said[0].startswith("Not yet.") and said[-1] == "Right"


def test_what_is_dragged_over_the_line_is_counted_aloud(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    at_board(
        hand,
        CountingLine(placement=Placement(400, 100)),
        *(Counter(placement=Placement(100, 150 + 90 * k)) for k in range(3)),
    )
    for k in range(3):
        fingers.press(1, (130, 180 + 90 * k))
        fingers.move(1, (560 + 80 * k, 200), steps=10)
        fingers.lift(1)
    speaker = hand.window.speaker
    assert isinstance(speaker, Mute)
    assert list(speaker.asked) == ["one", "two", "three"]


def test_ten_ones_dragged_together_are_a_ten(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    row = [Block(placement=Placement(300 + 13 * k, 300)) for k in range(9)]
    *_nine, last = at_board(hand, *row, Block(placement=Placement(600, 450)))
    fingers.press(1, (606, 456))
    fingers.move(1, (300 + 13 * 9 + 6 + 3, 308), steps=10)
    fingers.lift(1)
    (ten,) = hand.canvas.page.things
    assert isinstance(ten, Block) and ten.value == 10
    hand.window.undo()
    assert len(hand.canvas.page.things) == 10 and hand.thing(last).placement.x == 600
    hand.canvas.at_board = False  # a teacher lays them as wanted
    hand.drag((606, 456), (300 + 13 * 9 + 6, 306))
    assert len(hand.canvas.page.things) == 10


def test_hands_are_drawn_with_the_pen(hand: Hand) -> None:
    (id,) = hand.put(Clock(minutes=130, placement=Placement(200, 120)))
    hand.window.ledge.take("pen")
    cx, cy = 200 + 176, 120 + 176

    def draw(degrees: float, length: float) -> None:
        angle = math.radians(degrees)
        hand.drag((cx, cy), (cx + length * math.sin(angle), cy - length * math.cos(angle)))

    draw(152, 120)  # near to 25 minutes
    assert hand.thing(id).minutes == 145
    draw(222, 70)  # the short one, near to half past seven
    assert hand.thing(id).minutes == 7 * 60 + 25
    assert [thing.kind() for thing in hand.canvas.page.things] == ["clock"]
    hand.window.undo()
    assert hand.thing(id).minutes == 145
    hand.drag((cx + 100, cy + 20), (cx + 140, cy + 60))  # beside the middle the pen writes, as ever
    assert [thing.kind() for thing in hand.canvas.page.things] == ["clock", "ink"]
