"""What stands out on graphs comes by itself from the worker and is painted where it lies."""

from __future__ import annotations

from PyQt6.QtGui import QColor, QImage
from pytestqt.qtbot import QtBot

from larch.board.look import PAPER
from larch.board.marks import marks
from larch.core.base.shape import Placement
from larch.core.model.action import actions_for
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import STANDS_OUT, Equation
from tests.board.test_tools import Hand

AXES = Axes(placement=Placement(100, 100), width=480, height=400)


def drawn(hand: Hand, source: str, *shown: str) -> Axes:
    letter = Equation(source="a = 2", placement=Placement(700, 400))
    ids = hand.put(AXES, letter, Equation(source=source, axes="t1", shown=shown, placement=Placement(700, 120)))
    made = hand.canvas.page.thing(ids[0])
    assert isinstance(made, Axes)
    return made


def seen(hand: Hand, axes: Axes, at: tuple[float, float]) -> QColor:
    image: QImage = hand.canvas.grab().toImage()
    x, y = hand.canvas.camera.to_view(*axes.page_of(at))
    ratio = image.devicePixelRatio()
    return image.pixelColor(round(x * ratio), round(y * ratio))


def test_a_hole_becomes_an_open_circle_without_being_asked(hand: Hand, qtbot: QtBot) -> None:
    axes = drawn(hand, "y = (x^2 - 1)/(x - 1)")
    qtbot.waitUntil(lambda: seen(hand, axes, (1, 2)) == PAPER, timeout=8000)
    assert seen(hand, axes, (2, 3)) != PAPER


def test_marks_come_when_they_are_wanted_and_go_again(hand: Hand, qtbot: QtBot) -> None:
    axes = drawn(hand, "y = x^2 - 4")
    equation = hand.canvas.page.things[-1]
    hand.canvas.select([equation.id])
    page, things = hand.canvas.page, hand.canvas.things()
    mark = next(action for action in actions_for(page, things) if action.name == "mark graph")
    hand.canvas.commit(mark.run(page, things))
    qtbot.waitUntil(lambda: len(marks.of("y = x^2 - 4", (), -6.0, 6.0)) == 4, timeout=8000)
    assert [mark.kind for mark in marks.of("y = x^2 - 4", (), -6.0, 6.0)] == ["zero", "minimum", "axis", "zero"]
    assert STANDS_OUT in hand.canvas.page.things[-1].shown
    hand.canvas.select([])
    within = (2.05, 0.2025)  # on the curve, and inside the ring that stands at its zero
    qtbot.waitUntil(lambda: seen(hand, axes, within) == PAPER, timeout=8000)
    hand.window.run("undo")
    qtbot.waitUntil(lambda: seen(hand, axes, within) != PAPER, timeout=8000)


def test_a_graph_of_letters_is_asked_for_only_where_it_is_marked(hand: Hand, qtbot: QtBot) -> None:
    drawn(hand, "y = floor(a x)")
    hand.canvas.grab()
    told = hand.canvas.page.things[-1]
    assert isinstance(told, Equation) and told.told
    assert (told.source, told.told, -6.0, 6.0) not in marks.asked()
