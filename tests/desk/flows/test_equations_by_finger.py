"""At the Board, with fingers alone: equations by the keys of the tray, a solution with a slip in it, a term changed."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, QPointF
from PyQt6.QtWidgets import QWidget
from pytestqt.qtbot import QtBot

from larch.board.checks import checks
from larch.core.maths.layout.reading import meaning
from larch.core.things.graphs.equation import CHECK, Equation
from tests.board.test_tools import Hand
from tests.board.touch import State, send_touch
from tests.desk.flows.finger import Finger, at_the_board


@pytest.fixture
def finger(hand: Hand) -> Finger:
    found = at_the_board(hand)
    hand.window.ledge.take("equation")
    return found


def lines(hand: Hand) -> list[Equation]:
    return [thing for thing in hand.canvas.page.things if isinstance(thing, Equation)]


def test_a_solution_line_by_line_with_a_slip_that_is_told(hand: Hand, finger: Finger, qtbot: QtBot) -> None:
    finger.tap_page(200, 150)
    finger.keys("2", "x", "plus", "5", "equals", "1", "5", "next line", "2", "x", "equals", "2", "0", "next line",
                "x", "equals", "1", "0")  # fmt: skip
    hand.window.editors.finish()
    found = lines(hand)
    assert [line.source for line in found] == ["2x + 5 = 15", "2x = 20", "x = 10"]
    assert len({line.hue for line in found}) == 3
    hand.window.ledge.take("select")
    hand.canvas.select([line.id for line in found])
    check = next(action for action in hand.window.tag.actions_now if action.name == "check lines")
    button = next(
        b for b in hand.window.tag.findChildren(QWidget) if b.accessibleName() == "check the lines" and b.isVisible()
    )
    assert check.board
    finger.tap(button)
    assert all(CHECK in line.shown for line in lines(hand))
    hand.canvas.grab()
    qtbot.waitUntil(lambda: checks.verdict("2x + 5 = 15", "2x = 20") is not None, timeout=8000)
    verdict = checks.verdict("2x + 5 = 15", "2x = 20")
    assert verdict is not None and (verdict.follows, verdict.mistake) == ("no", "moved")
    hand.canvas.grab()
    qtbot.waitUntil(lambda: checks.verdict("2x = 20", "x = 10") is not None, timeout=8000)
    after = checks.verdict("2x = 20", "x = 10")
    assert after is not None and after.follows == "yes"


@pytest.mark.parametrize(
    ("keys", "means"),
    [
        (("fraction", "3", "to the right", "4", "to the right", "x", "minus", "6"), "3/4 x - 6"),
        (("square root", "fraction", "1", "to the right", "2"), "sqrt(1/2)"),
        (("sin", "squared", "open bracket", "2", "x"), "sin^2(2x)"),
        (("size", "x", "minus", "3", "to the right", "at most", "2"), "|x - 3| <= 2"),
        (("f of x", "x", "power", "2", "to the right", "minus", "1"), "f(x) = x^2 - 1"),
    ],
)
def test_what_is_tapped_is_what_it_means(hand: Hand, finger: Finger, keys: tuple[str, ...], means: str) -> None:
    finger.tap_page(200, 150)
    finger.keys(*keys)
    hand.window.editors.finish()
    (equation,) = lines(hand)
    assert meaning(equation.source) == meaning(means)


@pytest.mark.parametrize(("key", "places", "means"), [("matrix", 4, ""), ("cases", 4, "")])
def test_the_places_of_a_grid_are_filled_by_tapping_each(
    hand: Hand, finger: Finger, key: str, places: int, means: str
) -> None:
    finger.tap_page(200, 150)
    finger.keys(key)
    editor = finger.editor
    from larch.board.typeset.boxes import Place
    from larch.board.typeset.mathset import set_row

    for k in range(places):
        made = set_row(editor.writing.row)
        empty = [mark for mark in made.marks if isinstance(mark, Place)]
        assert len(empty) == places - k
        first, scale = empty[0], editor._scale()
        at = editor._origin + QPointF((first.x + first.width / 2) * scale, (first.y + first.height / 2) * scale)
        finger.tap(editor, at)
        finger.keys(str(k + 1))
    hand.window.editors.finish()
    (equation,) = lines(hand)
    assert all(str(k + 1) in equation.source for k in range(places))
    assert not [mark for mark in set_row(editor.writing.row).marks if isinstance(mark, Place)]


def test_one_term_in_the_middle_is_changed(hand: Hand, finger: Finger) -> None:
    (id,) = hand.put(Equation(source="2x + 5 = 15"))
    hand.window.editors.edit(hand.thing(id))
    editor = finger.editor
    from larch.board.typeset.mathset import set_row

    stop = next(s for s in set_row(editor.writing.row).stops if (s.path, s.part) == ((), 4))  # behind the 5
    finger.tap(editor, editor._origin + QPointF(stop.x, -0.3) * editor._scale())
    finger.keys("rub out", "7")
    hand.window.editors.finish()
    assert lines(hand)[0].source == "2x + 7 = 15"


def test_the_tray_stays_off_the_line_wherever_it_is_written(hand: Hand, finger: Finger) -> None:
    for y in (100, 400, 650):
        finger.tap_page(200, y)
        finger.keys("x")
        editor, tray = finger.editor, finger.editor.tray
        assert tray is not None
        assert editor.mapTo(hand.window, QPoint(0, editor.height())).y() <= tray.mapTo(hand.window, QPoint(0, 0)).y() + 44
        hand.window.editors.finish()
        hand.window.ledge.take("equation")


def test_a_finger_between_the_keys_leaves_the_line_open_and_the_page_alone(hand: Hand, finger: Finger) -> None:
    finger.tap_page(200, 150)
    finger.keys("x")
    editor, tray = finger.editor, finger.editor.tray
    assert tray is not None
    before = hand.canvas.page
    boxes = sorted((b.geometry() for _place, b in tray._keys), key=lambda box: (box.y(), box.x()))
    gap = QPointF((boxes[0].right() + boxes[1].left()) / 2, boxes[0].center().y())
    finger.tap(tray, gap)
    assert hand.window.editors.open is editor
    assert hand.canvas.page is before


def test_keys_answer_while_another_finger_draws_on_the_page(hand: Hand, finger: Finger) -> None:
    """Two children: one writes, the other presses what lies on the page."""
    hand.window.ledge.take("pen")
    (id,) = hand.put(Equation(source="2x + 5 = 15"))
    hand.window.editors.edit(hand.thing(id))
    tray = finger.editor.tray
    assert tray is not None
    key = finger._key(tray, "7")[0]
    at = [QPointF(key.mapTo(hand.window, key.rect().center())), QPointF(hand.canvas.mapTo(hand.window, QPoint(600, 200)))]

    def send(key_state: State, pen_state: State, moved: float = 0.0) -> None:
        pen = at[1] + QPointF(moved, 0)
        points = [(1, pen_state, pen.x(), pen.y())]
        if key_state != State.Unknown:
            points.append((2, key_state, at[0].x(), at[0].y()))
        send_touch(hand.window, finger.device, points)

    send(State.Unknown, State.Pressed)
    still = hand.window.editors.open is not None  # a press on the page ends the line
    if not still:
        hand.window.editors.edit(hand.thing(id))
        tray = finger.editor.tray
        key = finger._key(tray, "7")[0]  # type: ignore[arg-type]
        at[0] = QPointF(key.mapTo(hand.window, key.rect().center()))
    send(State.Pressed, State.Updated, 10)
    send(State.Released, State.Updated, 40)
    send(State.Unknown, State.Updated, 80)
    send(State.Unknown, State.Released, 80)
    hand.window.editors.finish()
    assert lines(hand)[0].source == "2x + 5 = 157"
    assert len(hand.canvas.page.things) == 2  # and the stroke


def test_the_page_goes_back_down_when_the_finger_that_ended_the_line_is_lifted(hand: Hand, finger: Finger) -> None:
    camera = hand.canvas.camera
    finger.tap_page(300, 640)
    finger.keys("x")
    assert hand.canvas.camera != camera
    hand.window.ledge.take("select")
    point = QPointF(hand.canvas.mapTo(hand.window, QPoint(700, 120)))
    lifted = hand.canvas.camera
    finger._send(State.Pressed, point)
    assert hand.window.editors.open is None
    assert hand.canvas.camera == lifted  # nothing moves under the finger
    finger._send(State.Released, point)
    seen = hand.canvas.camera
    assert (seen.dx, seen.dy, seen.scale) == (camera.dx, camera.dy, camera.scale)
