"""Two fingers at one thing lose nothing of each other's: by real touch."""

from __future__ import annotations

import math
from collections.abc import Iterable

import pytest

from larch.core.base.shape import Placement
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.numbers.abacus import Abacus
from larch.core.things.numbers.block import Block
from larch.core.things.time.clock import RADIUS, Clock
from larch.core.things.words.note import Note
from tests.board.test_tools import Hand
from tests.board.touch import State, send_touch, touch_device

Place = tuple[float, float]


class Fingers:
    """Fingers on the board, each with a path in page units."""

    def __init__(self, hand: Hand) -> None:
        self.hand = hand
        self.device = touch_device()
        self.down: dict[int, Place] = {}

    def _send(self, changed: int, state: State) -> None:
        points = []
        for id, place in self.down.items():
            x, y = self.hand.canvas.camera.to_view(*place)
            points.append((id, state if id == changed else State.Stationary, x, y))
        send_touch(self.hand.canvas, self.device, points)

    def press(self, id: int, at: Place) -> None:
        self.down[id] = at
        self._send(id, State.Pressed)

    def move(self, id: int, to: Place, steps: int = 6) -> None:
        start = self.down[id]
        for k in range(1, steps + 1):
            self.down[id] = tuple(a + (b - a) * k / steps for a, b in zip(start, to, strict=True))  # type: ignore[assignment]
            self._send(id, State.Updated)

    def lift(self, id: int) -> None:
        self._send(id, State.Released)
        del self.down[id]

    def tap(self, at: Place) -> None:
        self.press(9, at)
        self.lift(9)


@pytest.fixture
def fingers(hand: Hand) -> Fingers:
    hand.window.ledge.take("select")
    return Fingers(hand)


def at_board(hand: Hand, *things: object) -> list[str]:
    ids = hand.put(*things)
    hand.canvas.at_board = True
    return ids


TRIANGLE = Polygon(vertices=((0.0, 300.0), (400.0, 300.0), (200.0, 0.0)), placement=Placement(300, 200))


def corners(hand: Hand, id: str) -> list[Place]:
    thing = hand.thing(id)
    return [thing.placement.to_page(*corner) for corner in thing.vertices]


def close(found: Iterable[float], wanted: Iterable[float]) -> bool:
    return all(abs(a - b) < 2.5 for a, b in zip(found, wanted, strict=True))


@pytest.mark.parametrize("selected", [True, False])
def test_two_corners_at_once_both_stay_where_they_were_let_go(hand: Hand, fingers: Fingers, selected: bool) -> None:
    (id,) = at_board(hand, TRIANGLE)
    if selected:
        hand.canvas.select((id,))
    fingers.press(1, (300, 500))
    fingers.press(2, (700, 500))
    fingers.move(1, (240, 560))
    fingers.move(2, (800, 560))
    fingers.move(1, (230, 580))
    shown = hand.canvas.preview_page().thing(id)
    fingers.lift(1)
    fingers.move(2, (810, 570))
    fingers.lift(2)
    first, second, third = corners(hand, id)
    assert close(first, (230, 580)) and close(second, (810, 570)) and close(third, (500, 200))
    assert close(shown.placement.to_page(*shown.vertices[1]), (800, 560))
    hand.window.undo()
    assert close(corners(hand, id)[0], (230, 580)) and close(corners(hand, id)[1], (700, 500))


def test_a_corner_and_the_whole_shape_at_once(hand: Hand, fingers: Fingers) -> None:
    (id,) = at_board(hand, TRIANGLE)
    fingers.press(1, (500, 420))  # inside: moves it
    fingers.move(1, (560, 420))
    fingers.press(2, (560, 200))  # the top, where it is by now
    fingers.move(2, (560, 120))
    fingers.lift(1)
    fingers.lift(2)
    first, _second, third = corners(hand, id)
    assert close(first, (360, 500)) and third[1] < 140


def test_an_edit_made_meanwhile_is_not_lost(hand: Hand, fingers: Fingers) -> None:
    (id,) = at_board(hand, TRIANGLE)
    fingers.press(1, (500, 420))
    fingers.move(1, (560, 440))
    page = hand.canvas.page
    hand.canvas.commit(__import__("larch.core.actions.arrange.arrange", fromlist=["x"]).recolour(page, page.things, "plum"))
    fingers.lift(1)
    assert hand.thing(id).hue == "plum" and close(corners(hand, id)[0], (360, 520))


def test_two_fingers_move_and_turn_what_they_hold(hand: Hand, fingers: Fingers) -> None:
    (id,) = at_board(hand, Block(value=100, placement=Placement(400, 300)))
    fingers.press(1, (420, 360))
    fingers.press(2, (510, 360))
    for k in range(1, 10):
        angle = math.radians(10 * k)
        fingers.move(2, (420 + 90 * math.cos(angle), 360 - 90 * math.sin(angle)), 1)
    fingers.lift(2)
    fingers.lift(1)
    assert hand.thing(id).placement.turn == pytest.approx(90)
    hand.window.undo()
    assert hand.thing(id).placement == Placement(400, 300)


def test_two_fingers_carry_a_group_no_farther_than_they_go(hand: Hand, fingers: Fingers) -> None:
    ids = at_board(
        hand,
        *(Block(value=10, groups=("g",), placement=Placement(300 + 60 * k, 300)) for k in range(2)),
    )
    fingers.press(1, (306, 360))
    fingers.press(2, (366, 360))
    for k in range(1, 8):
        fingers.move(1, (306 + 10 * k, 360), 1)
        fingers.move(2, (366 + 10 * k, 360), 1)
    fingers.lift(1)
    fingers.lift(2)
    assert [round(hand.thing(id).placement.x) for id in ids] == [370, 430]


def test_turning_and_sizing_while_another_hand_drags_a_corner(hand: Hand, fingers: Fingers) -> None:
    from larch.board.gestures.part import DragHandle
    from larch.board.gestures.turn import SizeThings, TurnThings

    (id,) = hand.put(TRIANGLE)
    hand.canvas.select((id,))
    pointers = hand.canvas.pointers

    def finger(name: str, x: float, y: float):  # type: ignore[no-untyped-def]
        from larch.board.pointer import Sample

        return Sample(name, "touch", hand.canvas.camera.to_view(x, y), (x, y), 0.0)

    for make in (lambda s: TurnThings(hand.canvas, s), lambda s: SizeThings(hand.canvas, s, "size-br")):
        before = hand.thing(id)
        box = hand.canvas.box_of([before])
        whole = make(finger("a", box.x1, box.y1))
        corner = DragHandle(hand.canvas, finger("b", *corners(hand, id)[2]), id, "2")
        whole.move(finger("a", box.x1 + 40, box.y1 - 60))
        corner.move(finger("b", 520, 60))
        both = hand.canvas.preview_page().thing(id)
        corner.release(finger("b", 520, 60))
        whole.release(finger("a", box.x1 + 40, box.y1 - 60))
        after = hand.thing(id)
        assert after.placement != before.placement and after.vertices != before.vertices
        assert both.placement == after.placement
    assert not pointers.busy


def test_two_pens_on_one_note_leave_both_strokes_on_it(hand: Hand, fingers: Fingers) -> None:
    (id,) = at_board(hand, Note(placement=Placement(300, 200), width=400, height=300))
    hand.window.ledge.take("pen")
    fingers.press(1, (330, 300))
    fingers.press(2, (330, 400))
    for k in range(1, 9):
        fingers.move(1, (330 + 20 * k, 300), 1)
        fingers.move(2, (330 + 20 * k, 400), 1)
    fingers.lift(1)
    fingers.lift(2)
    assert len(hand.thing(id).strokes) == 2 and len(hand.canvas.page.things) == 1


def test_beads_follow_two_fingers_and_a_pen_and_answer_a_tap(hand: Hand, fingers: Fingers) -> None:
    (id,) = at_board(hand, Abacus(placement=Placement(300, 100), locked=True, shown=("value",)))

    def bead(rod: int, k: int) -> Place:
        abacus = hand.thing(id)
        return abacus.placement.to_page(abacus.rod_x(rod), abacus.bead_y(k, abacus.beads(rod)[k]))

    one, ten = bead(2, 7), bead(1, 8)
    fingers.press(1, one)
    fingers.press(2, ten)
    fingers.move(1, (one[0], one[1] - 60))
    fingers.move(2, (ten[0], ten[1] - 60))
    live = hand.canvas.preview_page().thing(id)
    assert live.worth() == 23 and hand.thing(id).worth() == 0  # the value is live, and nothing is selected
    assert not hand.canvas.selection
    fingers.lift(1)
    assert hand.thing(id).worth() == 3
    fingers.lift(2)
    assert hand.thing(id).worth() == 23 and hand.thing(id).slide == ()
    fingers.tap(bead(0, 9))
    assert hand.thing(id).worth() == 123
    hand.window.ledge.take("pen")
    start = bead(2, 6)
    fingers.press(3, start)
    fingers.move(3, (start[0], start[1] - 70))
    fingers.lift(3)
    assert hand.thing(id).worth() == 124 and len(hand.canvas.page.things) == 1  # it slid, and nothing was written
    fingers.press(4, (320, 640))
    fingers.move(4, (420, 640))
    fingers.lift(4)
    assert len(hand.canvas.page.things) == 2  # beside it the pen writes


def test_the_minute_hand_counts_turns_under_a_finger(hand: Hand, fingers: Fingers) -> None:
    (id,) = at_board(hand, Clock(minutes=600.0, placement=Placement(300, 100)))

    def rim(degrees: float) -> Place:
        angle = math.radians(degrees)
        return (300 + RADIUS + 100 * math.sin(angle), 100 + RADIUS - 100 * math.cos(angle))

    fingers.press(1, rim(0))
    for k in range(1, 79):
        fingers.move(1, rim(10 * k), 1)
    fingers.lift(1)
    assert hand.thing(id).minutes == pytest.approx(600 + 130, abs=0.5)  # two turns and a sixth
    assert hand.thing(id).placement == Placement(300, 100)
    hand.window.undo()
    assert hand.thing(id).minutes == 600


def test_at_the_desk_an_unselected_abacus_is_moved_and_a_selected_one_worked(hand: Hand) -> None:
    (id,) = hand.put(Abacus(placement=Placement(300, 100)))
    abacus = hand.thing(id)
    x, y = abacus.placement.to_page(abacus.rod_x(2), abacus.bead_y(9, abacus.beads(2)[9]))
    hand.drag((x, y), (x + 40, y + 30))
    assert hand.thing(id).placement.x == pytest.approx(340, abs=2) and hand.thing(id).worth() == 0
    hand.canvas.select((id,))
    hand.tap(x + 40, y + 30)
    assert hand.thing(id).worth() == 1
