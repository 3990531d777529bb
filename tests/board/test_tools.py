"""Tools gesture by gesture, through real mouse events on the canvas."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QWidget

from larch.board import chrome
from larch.core.base.shape import Placement
from larch.core.things.chance.die import Die
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.numbers.block import UNIT, Block
from larch.core.things.words.text import Text
from tests.samples import stroke

LEFT = Qt.MouseButton.LeftButton
NONE = Qt.KeyboardModifier.NoModifier


class Hand:
    """A mouse over the canvas that thinks in page units."""

    def __init__(self, window) -> None:  # type: ignore[no-untyped-def]
        self.window = window
        self.canvas = window.canvas

    def put(self, *things: object) -> list[str]:
        """A fresh page with these things; returns their ids."""
        self.window.pages.new()
        page = self.canvas.page
        from larch.core.model.action import put

        self.canvas.commit(put(page, things, "put"))  # type: ignore[arg-type]
        self.canvas.select(())
        return [thing.id for thing in self.canvas.page.things]

    def at(self, x: float, y: float) -> QPoint:
        vx, vy = self.canvas.camera.to_view(x, y)
        return QPoint(round(vx), round(vy))

    def tap(self, x: float, y: float, keys: Qt.KeyboardModifier = NONE) -> None:
        QTest.mouseClick(self.canvas, LEFT, keys, self.at(x, y))

    def drag(self, start: tuple[float, float], end: tuple[float, float], keys: Qt.KeyboardModifier = NONE) -> None:
        QTest.mousePress(self.canvas, LEFT, keys, self.at(*start))
        for k in range(1, 6):
            spot = self.at(*(a + (b - a) * k / 5 for a, b in zip(start, end, strict=True)))
            move(self.canvas, spot, keys)
        QTest.mouseRelease(self.canvas, LEFT, keys, self.at(*end))

    def thing(self, id: str):  # type: ignore[no-untyped-def]
        return self.canvas.page.thing(id)


def place(hand: Hand, id: str) -> tuple[float, float]:
    """Where a thing lies, without the last digits of sums."""
    at = hand.thing(id).placement
    return (round(at.x, 3), round(at.y, 3))


def click(button: QWidget) -> None:
    QTest.mouseClick(button, LEFT, NONE, QPoint(button.width() // 2, button.height() // 2))


def move(canvas, spot: QPoint, keys: Qt.KeyboardModifier = NONE) -> None:  # type: ignore[no-untyped-def]
    """A move with the button held; QTest.mouseMove forgets both button and keys."""
    from PyQt6.QtCore import QEvent, QPointF
    from PyQt6.QtGui import QMouseEvent
    from PyQt6.QtWidgets import QApplication

    at = QPointF(spot)
    event = QMouseEvent(QEvent.Type.MouseMove, at, canvas.mapToGlobal(at), Qt.MouseButton.NoButton, LEFT, keys)
    QApplication.sendEvent(canvas, event)


def test_a_tap_selects_and_empty_page_clears(hand: Hand) -> None:
    (block,) = hand.put(Block(value=100, placement=Placement(200, 200)))
    hand.tap(250, 250)
    assert hand.canvas.selection == (block,)
    hand.tap(800, 600)
    assert hand.canvas.selection == ()


def test_a_drag_moves_in_one_step_and_shows_live(hand: Hand) -> None:
    (block,) = hand.put(Block(value=100, placement=Placement(200, 200)))
    steps = len(hand.window.session.history.done)
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(250, 250))
    move(hand.canvas, hand.at(350, 300))
    assert hand.thing(block).placement == Placement(200, 200)
    assert hand.canvas.preview_page().thing(block).placement.x == pytest.approx(300, abs=2)
    assert block in hand.canvas.surface.hidden
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(350, 300))
    assert hand.thing(block).placement.x == pytest.approx(300, abs=2)
    assert hand.canvas.surface.hidden == set()
    assert len(hand.window.session.history.done) == steps + 1


def test_shift_adds_and_a_box_gathers_what_is_inside(hand: Hand) -> None:
    ids = hand.put(*(Block(value=10, placement=Placement(200 + 100 * i, 200)) for i in range(4)))
    hand.tap(205, 250)
    hand.tap(305, 250, Qt.KeyboardModifier.ShiftModifier)
    assert hand.canvas.selection == tuple(ids[:2])
    hand.drag((150, 150), (420, 400))
    assert hand.canvas.selection == tuple(ids[:3])


def test_a_supply_hands_out_copies_and_never_runs_out(hand: Hand) -> None:
    (supply,) = hand.put(Block(value=10, supply=True, placement=Placement(200, 200)))
    for k in range(40):
        hand.drag((205, 260), (300 + 20 * k, 400))
    things = hand.canvas.page.things
    assert len(things) == 41
    assert hand.thing(supply).placement == Placement(200, 200)
    assert all(not thing.supply for thing in things[1:])
    hand.window.undo()
    assert len(hand.canvas.page.things) == 40


def test_blocks_fall_into_place_unless_alt_is_held(hand: Hand) -> None:
    _left, right = hand.put(Block(value=10, placement=Placement(300, 200)), Block(value=10, placement=Placement(500, 230)))
    hand.drag((505, 250), (505 - 200 + UNIT + 3, 250 - 27))
    assert hand.thing(right).placement == Placement(300 + UNIT, 200)
    hand.drag((300 + UNIT + 5, 250), (300 + UNIT + 5 + 4, 254), Qt.KeyboardModifier.AltModifier)
    assert hand.thing(right).placement != Placement(300 + UNIT, 200)


def test_dragging_a_corner_updates_the_measures_in_the_same_frame(hand: Hand) -> None:
    (shape,) = hand.put(Polygon(vertices=((0, 96), (128, 96), (128, 0)), shown=("sides",), placement=Placement(300, 200)))
    hand.tap(400, 280)
    hand.window.facts.want(True)
    corner = hand.at(428, 296)
    QTest.mousePress(hand.canvas, LEFT, NONE, corner)
    target = hand.at(428 + 64, 296)
    move(hand.canvas, target)
    assert hand.canvas.preview_page().thing(shape).vertices[1][0] == pytest.approx(192, abs=1.5)
    shown = {row.name: row.value.text() for row in hand.window.facts._rows}
    assert shown["AB"] == "6 cm"
    QTest.mouseRelease(hand.canvas, LEFT, NONE, target)
    assert hand.thing(shape).vertices[1][0] == pytest.approx(192, abs=1.5)


def test_the_corner_brackets_enlarge_and_the_ring_turns(hand: Hand) -> None:
    (shape,) = hand.put(Polygon(vertices=((0, 0), (100, 0), (100, 100), (0, 100)), placement=Placement(300, 200)))
    hand.tap(350, 250)
    places = {name: place for _id, name, place in chrome.frame_handles(hand.canvas.things(), hand.canvas.camera, False)}
    start = hand.canvas.camera.to_page(*places["size-br"])
    hand.drag(start, (start[0] + 120, start[1] + 120))
    assert hand.thing(shape).placement.scale > 1.6
    hand.window.undo()
    places = {name: place for _id, name, place in chrome.frame_handles(hand.canvas.things(), hand.canvas.camera, False)}
    ring = hand.canvas.camera.to_page(*places["turn"])
    centre = hand.canvas.box_of(hand.canvas.things()).centre
    hand.drag(ring, (2 * centre[0] - ring[0], ring[1]))
    assert hand.thing(shape).placement.turn == 90


def test_locked_things_stay_and_at_the_board_cannot_be_touched(hand: Hand) -> None:
    (block,) = hand.put(Block(value=100, locked=True, placement=Placement(200, 200)))
    hand.drag((250, 250), (400, 400))
    assert hand.thing(block).placement == Placement(200, 200)
    hand.tap(250, 250)
    assert hand.canvas.selection == (block,)
    hand.canvas.at_board = True
    hand.canvas.select(())
    hand.tap(250, 250)
    assert hand.canvas.selection == ()


def test_a_double_click_rolls_at_the_desk_and_a_tap_at_the_board(hand: Hand) -> None:
    (die,) = hand.put(Die(placement=Placement(300, 300)))
    hand.tap(340, 340)
    QTest.mouseDClick(hand.canvas, LEFT, NONE, hand.at(340, 340))
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(340, 340))
    assert sum(hand.thing(die).counts()) == 1
    hand.canvas.at_board = True
    hand.tap(340, 340)
    assert sum(hand.thing(die).counts()) == 2


def test_a_settling_die_is_moving_for_a_moment(hand: Hand, qtbot) -> None:  # type: ignore[no-untyped-def]
    (die,) = hand.put(Die(placement=Placement(300, 300)))
    hand.canvas.still = False
    hand.canvas.at_board = True
    hand.tap(340, 340)
    assert die in hand.canvas._motions
    qtbot.waitUntil(lambda: not hand.canvas._motions, timeout=2000)
    assert hand.canvas.surface.hidden == set()


def test_the_eraser_takes_ink_and_only_ink(hand: Hand) -> None:
    ids = hand.put(Text(text="Count the lanterns", placement=Placement(100, 180)), stroke(200), stroke(400))
    hand.window.hand.set_eraser("strokes")
    hand.drag((150, 150), (150, 260))
    assert [thing.id for thing in hand.canvas.page.things] == [ids[0], ids[2]]
    hand.window.undo()
    assert [thing.id for thing in hand.canvas.page.things] == ids


def test_text_is_typed_on_the_page_and_opened_again(hand: Hand) -> None:
    hand.put()
    hand.window.ledge.take("text")
    hand.tap(200, 200)
    QTest.keyClicks(hand.window.editors.open, "12 lanterns")
    QTest.keyClick(hand.window.editors.open, Qt.Key.Key_Escape)
    (text,) = hand.canvas.page.things
    assert (text.text, text.size) == ("12 lanterns", 40)
    hand.tap(220, 200)
    QTest.keyClick(hand.window.editors.open, Qt.Key.Key_End)
    QTest.keyClicks(hand.window.editors.open, "!")
    hand.tap(900, 600)
    QTest.keyClick(hand.window.editors.open, Qt.Key.Key_Escape)
    assert [thing.text for thing in hand.canvas.page.things] == ["12 lanterns!"]


def test_an_equation_draws_while_it_is_typed(hand: Hand) -> None:
    hand.put(Axes(placement=Placement(300, 200)))
    hand.window.ledge.take("equation")
    hand.tap(420, 300)
    editor = hand.window.editors.open
    QTest.keyClicks(editor, "y = 1/")
    assert "empty" in editor.says.text()
    QTest.keyClicks(editor, "x")
    assert "reads: y = 1/x" in editor.says.text()
    page = hand.canvas.preview_page()
    assert [e.plain_text() for e in page.things[0].curves(page)] == ["y = 1/x"]
    QTest.keyClick(editor, Qt.Key.Key_Return)
    axes, equation = hand.canvas.page.things
    assert equation.plain_text() == "y = 1/x"
    assert [e.id for e in axes.curves(hand.canvas.page)] == [equation.id]


def test_editing_an_equation_repaints_the_axes(hand: Hand) -> None:
    axes, equation = hand.put(Axes(placement=Placement(300, 200)), Equation(source="y = x", axes="t1"))
    hand.canvas.surface.sharpen(1000)
    before = hand.canvas.grab().toImage()
    page = hand.canvas.page
    from larch.core.model.edit import Edit

    changed = hand.thing(equation).replace(source="y = -x")
    hand.canvas.commit(Edit("edit", page, page.with_things({equation: changed})))
    hand.canvas.surface.sharpen(1000)
    spot = hand.at(300 + 96, 200 + 64)  # on the new line, not on the old one
    around = [QPoint(dx, dy) for dx in range(-3, 4) for dy in range(-3, 4)]
    after = hand.canvas.grab().toImage()
    assert any(before.pixel(spot + d) != after.pixel(spot + d) for d in around)
    assert axes


def test_an_equation_dragged_off_the_axes_leaves_them_standing(hand: Hand) -> None:
    axes, equation = hand.put(Axes(placement=Placement(300, 200)), Equation(source="y = 2", placement=Placement(420, 300)))
    hand.canvas.surface.sharpen(1000)
    frame = hand.at(300 + 192, 200 + 10)  # on the upright axis
    axis_colour = hand.canvas.grab().toImage().pixelColor(frame).name()
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(440, 320))
    move(hand.canvas, hand.at(700, 560))
    move(hand.canvas, hand.at(900, 600))
    page = hand.canvas.preview_page()
    assert page.thing(axes).curves(page) == ()
    assert hand.canvas.grab().toImage().pixelColor(frame).name() == axis_colour
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(900, 600))
    hand.canvas.surface.sharpen(1000)
    assert hand.canvas.grab().toImage().pixelColor(frame).name() == axis_colour
    assert equation


def test_fifty_dragged_things_are_carried_as_one_picture(hand: Hand) -> None:
    ids = hand.put(*(Block(placement=Placement(200 + 20 * (i % 10), 200 + 20 * (i // 10))) for i in range(50)))
    hand.canvas.select(ids)
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(206, 206))
    move(hand.canvas, hand.at(306, 256))
    (lift,) = hand.canvas._lifts.values()
    assert lift.picture is not None
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(306, 256))
    moved = {(t.placement.x - 200) % 20 for t in hand.canvas.page.things}
    assert len(moved) == 1
    assert hand.canvas._lifts == {}


def test_the_middle_button_and_the_wheel_move_the_page(hand: Hand) -> None:
    hand.put()
    before = hand.canvas.camera.dx
    QTest.mousePress(hand.canvas, Qt.MouseButton.MiddleButton, NONE, QPoint(300, 300))
    move(hand.canvas, QPoint(360, 300))
    QTest.mouseRelease(hand.canvas, Qt.MouseButton.MiddleButton, NONE, QPoint(360, 300))
    assert hand.canvas.camera.dx == before + 60
    hand.window.run("zoom in")
    assert hand.canvas.camera.scale == pytest.approx(1.25 * 1.0, rel=0.5)
    hand.window.run("true size")
    assert hand.canvas.camera.scale == 1
    hand.window.run("whole page")
    assert hand.canvas.camera.box_to_view(hand.canvas.page.printed()).x0 >= 0
