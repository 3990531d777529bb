"""At the Board, with one finger: a shape by a pen that reads, ink trued up from its tag, what it was taken for changed."""

from __future__ import annotations

import itertools
import math

from PyQt6.QtCore import QPointF
from PyQt6.QtWidgets import QWidget
from pytestqt.qtbot import QtBot

from larch.core.base.shape import Placement
from larch.core.model.edit import Edit
from larch.core.model.nibs import Pen
from larch.core.things.asking.task import Task
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.ellipse import Ellipse
from larch.core.things.graphs.equation import Equation
from larch.core.things.ink.ink import Ink, ink_from
from larch.core.things.numbers.abacus import Abacus
from larch.core.things.numbers.number_flag import NumberFlag
from larch.core.things.numbers.number_line import NumberLine
from larch.core.things.words.text import Text
from tests.board.test_tools import Hand
from tests.board.touch import State
from tests.core.recognise.drawn import row
from tests.desk.flows.finger import Finger, at_the_board

WAIT = 20_000  # ms: the first reading loads what it needs
RING = [(400 + 90 * math.cos(k / 8), 300 + 90 * math.sin(k / 8)) for k in range(51)]


def through(finger: Finger, places: list[tuple[float, float]]) -> None:
    """A stroke by the finger through places of the page."""
    canvas = finger.hand.canvas
    write(finger, canvas, [[canvas.camera.to_view(*place) for place in places]])


def test_a_circle_is_trued_up_while_drawing_and_can_be_an_ellipse_after_all(hand: Hand, qtbot: QtBot) -> None:
    finger = at_the_board(hand)
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="shapes", hue="moss"))
    through(finger, RING)
    qtbot.waitUntil(lambda: any(isinstance(t, Circle) for t in hand.canvas.page.things), timeout=WAIT)
    card = hand.window.readings.card
    assert card is not None
    finger.tap(next(one for one in card.choices if one.accessibleName() == "ellipse?"))
    assert [type(thing) for thing in hand.canvas.page.things] == [Ellipse]
    assert hand.window.readings.card is None


def test_ink_is_trued_up_from_its_tag_and_stays_ink_when_that_is_tapped(hand: Hand, qtbot: QtBot) -> None:
    finger = at_the_board(hand)
    hand.put(ink_from([(x, y, 0.7, 0.0) for x, y in RING], hue="clay"))
    hand.window.ledge.take("select")
    for choice, kind in ((-1, Ink), (0, Circle)):
        finger.tap_page(490, 300)
        tag = hand.window.tag
        button = next(b for b in tag.findChildren(QWidget) if b.accessibleName() == "true up" and b.isVisible())
        finger.tap(button)
        qtbot.waitUntil(lambda: hand.window.readings.card is not None, timeout=WAIT)
        shown = hand.window.readings.card
        assert shown is not None
        finger.tap(shown.choices[choice])
        assert [type(thing) for thing in hand.canvas.page.things] == [kind]
        hand.canvas.select(())


def write(finger: Finger, widget: QWidget, strokes: list[list[tuple[float, float]]]) -> None:
    """Strokes by the finger on a widget, in its own coordinates."""
    for run in strokes:
        at = [QPointF(widget.mapTo(finger.hand.window, QPointF(x, y))) for x, y in run]
        finger._send(State.Pressed, at[0])
        for point in at[1:]:
            finger._send(State.Updated, point)
        finger._send(State.Released, at[-1])


def test_a_digit_is_corrected_on_an_equation_and_a_sign_on_the_card(hand: Hand, qtbot: QtBot) -> None:
    finger = at_the_board(hand)
    hand.window.keep_setting(pause=600)
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="maths", hue="moss"))
    canvas = hand.canvas
    on_page = [[canvas.camera.to_view(x + 200, y + 300) for x, y in run] for run in row("x=46", size=44.0)]
    write(finger, canvas, on_page)
    qtbot.waitUntil(lambda: hand.window.readings.card is not None, timeout=WAIT)
    shown = hand.window.readings.card
    assert shown is not None and shown.signs is not None and shown.choices[0].accessibleName() == "x=46"
    finger.tap(shown.signs.keys[-1])
    other = shown.signs.others[0]
    finger.tap(other)
    qtbot.waitUntil(lambda: hand.window.readings.card not in (None, shown), timeout=WAIT)
    card = hand.window.readings.card
    assert card is not None and card.choices[0].accessibleName() == f"x=4{other.sign}"
    finger.tap(card.choices[0])
    (made,) = [thing for thing in hand.canvas.page.things if isinstance(thing, Equation)]
    assert made.source == f"x=4{other.sign}" and hand.canvas.selection == (made.id,)


def test_a_number_becomes_a_flag_and_is_dragged_to_its_place(hand: Hand, qtbot: QtBot) -> None:
    finger = at_the_board(hand)
    hand.window.keep_setting(pause=600)
    hand.put(NumberLine(last=100.0, step=10.0))
    line = hand.canvas.page.things[0]
    assert isinstance(line, NumberLine)
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="maths", hue="lake"))
    canvas = hand.canvas
    x, y = line.place_of(30)
    strokes = [[canvas.camera.to_view(px + x - 30, py + y - 40) for px, py in run] for run in row("63")]
    write(finger, canvas, strokes)
    qtbot.waitUntil(lambda: any(isinstance(t, NumberFlag) for t in canvas.page.things), timeout=WAIT)
    flag = next(thing for thing in canvas.page.things if isinstance(thing, NumberFlag))
    assert flag.stands_right(canvas.page) is False
    hand.window.ledge.take("select")
    at = flag.placement.to_page(*flag.cloth().centre)
    goal = line.place_of(63)
    start = QPointF(*canvas.camera.to_view(*at))
    end = QPointF(*canvas.camera.to_view(at[0] + goal[0] - flag.foot()[0], at[1] + 9))
    finger.drag(canvas, start, end)
    moved = canvas.page.thing(flag.id)
    assert isinstance(moved, NumberFlag) and moved.stands_right(canvas.page) is True
    assert moved.foot()[1] == line.place_of(63)[1]  # its foot fell onto the line


def test_a_card_that_asks_for_a_number_is_answered_by_finger(hand: Hand, qtbot: QtBot) -> None:
    finger = at_the_board(hand)
    canvas = hand.canvas
    card = Task(of="a", fact="value", wanted="63", by="number", placement=Placement(520, 160))
    _abacus, task = hand.put(Abacus(id="a", counts=(0, 6, 3), placement=Placement(60, 160)), card)
    abacus, card = canvas.page.things
    canvas.commit(Edit("asked", canvas.page, canvas.page.with_things({task: card.replace(of=abacus.id)})))
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="maths"))
    hand.window.keep_setting(pause=600)
    for text, state in (("36", "not yet"), ("63", "right")):
        found = canvas.page.thing(task)
        assert isinstance(found, Task)
        place = found.place()
        x, y = found.placement.to_page(place.x0 + 60, place.y1 - 24)
        write(finger, canvas, [[canvas.camera.to_view(*at) for at in run] for run in row(text, x, y, 52)])
        qtbot.waitUntil(lambda state=state: getattr(canvas.page.thing(task), "state", "") == state, timeout=WAIT)
    assert canvas.page.things[0] == abacus
    assert not any(isinstance(thing, Ink) for thing in canvas.page.things)


def test_words_below_each_other_are_not_written_on_the_card_of_the_one_before(hand: Hand, qtbot: QtBot) -> None:
    """What else it could be is offered above, so that the next line and the next word have room."""
    finger = at_the_board(hand)
    hand.window.keep_setting(pause=300)
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="words"))
    canvas = hand.canvas
    for count, y in enumerate((300, 390), 1):
        write(finger, canvas, [[canvas.camera.to_view(*at) for at in run] for run in row("xxx", 300, y)])
        qtbot.waitUntil(lambda c=count: sum(isinstance(t, Text) for t in canvas.page.things) == c, timeout=WAIT)
    assert not any(isinstance(thing, Ink) for thing in canvas.page.things)
    card = hand.window.readings.card
    assert card is not None and card.geometry().bottom() <= canvas.camera.to_view(300, 390)[1]


def in_turn(finger: Finger, *texts: tuple[str, float, float]) -> None:
    """Several hands that each write one stroke and wait for the others."""
    camera = finger.hand.canvas.camera
    written = [[[camera.to_view(*at) for at in run] for run in row(text, x, y)] for text, x, y in texts]
    for strokes in itertools.zip_longest(*written, fillvalue=None):
        write(finger, finger.hand.canvas, [stroke for stroke in strokes if stroke is not None])


def test_two_who_write_at_once_are_read_one_after_the_other(hand: Hand, qtbot: QtBot) -> None:
    finger = at_the_board(hand)
    hand.window.keep_setting(pause=600)
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="maths"))
    in_turn(finger, ("7+5=12", 100, 300), ("4+4=9", 700, 420))
    made: list[str] = []
    for count in (1, 2):
        qtbot.waitUntil(lambda: hand.window.readings.card is not None, timeout=WAIT)
        card = hand.window.readings.card
        assert card is not None
        finger.tap(card.choices[0])
        made = sorted(thing.source for thing in hand.canvas.page.things if isinstance(thing, Equation))
        assert len(made) == count
    assert [source.replace(" ", "") for source in made] == ["4+4=9", "7+5=12"]
    assert not any(isinstance(thing, Ink) for thing in hand.canvas.page.things)
    assert hand.window.readings.card is None


def test_a_tap_with_the_pen_for_mathematics_is_no_1(hand: Hand, qtbot: QtBot) -> None:
    """It stays as the dot that it is, and nothing is offered; with what is written beside it, it is read."""
    finger = at_the_board(hand)
    hand.window.keep_setting(pause=300)
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="maths"))
    readings = hand.window.readings
    through(finger, [(300, 296), (301, 297)])
    qtbot.waitUntil(lambda: not readings._pause.isActive(), timeout=WAIT)
    assert not readings.waiting and readings.card is None and isinstance(hand.canvas.page.things[0], Ink)
    write(finger, hand.canvas, [[hand.canvas.camera.to_view(*at) for at in run] for run in row("5", 315, 300)])
    qtbot.waitUntil(lambda: readings.card is not None, timeout=WAIT)
    assert readings.card is not None and len(readings.line.here()) > 1


def test_two_numbers_that_are_written_on_two_lines_at_once(hand: Hand, qtbot: QtBot) -> None:
    """Nobody has to tap anything: each becomes a flag on its own line."""
    finger = at_the_board(hand)
    hand.window.keep_setting(pause=600)
    canvas = hand.canvas
    hand.put(*(NumberLine(last=100.0, step=10.0, placement=Placement(100, y)) for y in (250, 550)))
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="maths"))
    places = [thing.place_of(at) for thing, at in zip(canvas.page.things, (70, 20), strict=True)]  # type: ignore[attr-defined]
    (x, y), (u, v) = places
    in_turn(finger, ("34", x - 30, y - 40), ("85", u - 30, v - 40))
    qtbot.waitUntil(lambda: sum(isinstance(t, NumberFlag) for t in canvas.page.things) == 2, timeout=WAIT)
    assert sorted(float(t.text) for t in canvas.page.things if isinstance(t, NumberFlag)) == [34, 85]
    assert not any(isinstance(thing, Ink) for thing in canvas.page.things)


def test_mathematics_is_written_on_the_tray_by_finger(hand: Hand, qtbot: QtBot) -> None:
    finger = at_the_board(hand)
    hand.window.keep_setting(pause=600)
    hand.window.editors.edit(Equation(source="", size=60.0))
    tray = finger.editor.tray
    assert tray is not None
    finger.tap(next(chooser for chooser in tray._sets if chooser.name == "hand"))
    assert tray.pad is not None
    write(finger, tray.pad, row("7+5", 60, 150, 44))
    qtbot.waitUntil(lambda: bool(finger.editor.writing.row), timeout=WAIT)
    assert finger.editor.current().source.replace(" ", "") == "7+5"
    finger.keys("rub out")
    assert finger.editor.current().source.replace(" ", "") == "7+"
