"""Handles that say themselves what they do."""

from __future__ import annotations

import math

import pytest
from PyQt6.QtCore import Qt

from larch.board.camera import Camera
from larch.board.gestures.part import DragPart
from larch.board.pointer import Sample
from larch.core.base.shape import Placement
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.numbers.abacus import Abacus
from larch.core.things.numbers.block import Block
from larch.core.things.organisers.table import Table
from larch.core.things.pictures.picture import Picture
from larch.core.things.time.clock import RADIUS, Clock
from tests.board.test_tools import Hand, place


def test_the_trim_marks_of_a_picture_trim_it(hand: Hand) -> None:
    (picture,) = hand.put(Picture(width=200, height=200, placement=Placement(300, 200)))
    hand.canvas.select([picture])
    hand.drag((500, 300), (400, 300))
    assert hand.thing(picture).trim == pytest.approx((0, 0, 0.5, 0), abs=0.02)
    hand.window.undo()
    assert hand.thing(picture).trim == (0, 0, 0, 0)


def test_a_table_takes_along_what_lies_in_it(hand: Hand) -> None:
    table, inside, beside = hand.put(
        Table(placement=Placement(200, 150)), Block(placement=Placement(230, 180)), Block(placement=Placement(900, 500))
    )
    edge = hand.thing(table).box()
    hand.drag((edge.x1 - 20, edge.y1 - 20), (edge.x1 + 80, edge.y1 + 30), Qt.KeyboardModifier.AltModifier)
    assert place(hand, inside)[0] == pytest.approx(330, abs=2) and place(hand, beside) == (900, 500)


def sample(x: float, y: float) -> Sample:
    return Sample("touch", "touch", (x, y), (x, y), 0.0)


class Showing:
    """A stage of one page that counts what it is asked to show."""

    def __init__(self, page: Page) -> None:
        self.page, self.camera = page, Camera(1.0, 0.0, 0.0)
        self.change: object = None

    def preview(self, owner: object, change: object) -> None:
        self.change = change

    def made(self, id: str) -> Thing:
        return self.change(self.page)[id]  # type: ignore[operator, no-any-return]


def test_a_straight_way_is_one_step_and_there_and_back_is_two() -> None:
    abacus = Abacus(id="t1")
    showing = Showing(Page(id="p1", things=(abacus,)))
    x, y = abacus.rod_x(2), abacus.bead_y(8, 8)
    drag = DragPart(showing, sample(x, y), abacus, "2:8")  # type: ignore[arg-type]
    for k in range(1, 31):
        drag.move(sample(x + 0.2 * (k % 2), y - 3 * k))
    assert len(drag.steps) == 1
    assert showing.made("t1").shown_counts()[2] == 2  # type: ignore[attr-defined]
    for k in range(30, -1, -1):
        drag.move(sample(x, y - 3 * k))
    assert len(drag.steps) <= 3
    assert showing.made("t1").slide[2][8] == pytest.approx(8, abs=0.05)  # type: ignore[attr-defined]


@pytest.mark.parametrize("turns", [-2, 1, 3])
def test_a_round_way_still_counts_its_turns(turns: int) -> None:
    clock = Clock(id="t1", minutes=360.0)
    showing = Showing(Page(id="p1", things=(clock,)))

    def at(degrees: float) -> Sample:
        angle = math.radians(degrees)
        return sample(RADIUS + 0.6 * RADIUS * math.sin(angle), RADIUS - 0.6 * RADIUS * math.cos(angle))

    drag = DragPart(showing, at(0), clock, "minute")  # type: ignore[arg-type]
    steps = 90 * abs(turns)
    for k in range(1, steps + 1):
        drag.move(at(360 * turns * k / steps))
    assert len(drag.steps) < steps  # some of them were put together
    assert showing.made("t1").minutes == pytest.approx(360 + 60 * turns, abs=0.5)  # type: ignore[attr-defined]
