"""Arranging with the hand: real presses and drags on the canvas."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.model.edit import Edit
from larch.core.things.numbers.block import Block
from larch.core.things.organisers.box import WordBox
from larch.core.things.organisers.connector import Connector
from larch.core.things.organisers.table import Table
from larch.core.things.papers.sheet import Sheet
from larch.core.things.pictures.frost import Frost
from larch.core.things.pictures.picture import Picture
from larch.core.things.words.text import Text
from larch.desk.window import Window
from tests.board.test_tools import LEFT, NONE, Hand, move


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    window.ledge.take("select")
    return made


def sheet(x: float, y: float, w: float = 80, h: float = 60, **fields: object) -> Sheet:
    return Sheet(placement=Placement(x, y), width=w, height=h, **fields)  # type: ignore[arg-type]


def plain(hand: Hand) -> None:
    hand.window.run("paper plain")


def place(hand: Hand, id: str) -> tuple[float, float]:
    at = hand.thing(id).placement
    return (round(at.x, 3), round(at.y, 3))


def test_a_dragged_thing_falls_into_line_and_says_why_unless_alt_is_held(hand: Hand) -> None:
    other, mine = hand.put(sheet(300, 200), sheet(600, 400))
    plain(hand)
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(640, 430))
    for k in range(1, 6):
        move(hand.canvas, hand.at(640 + k, 430 - 39.6 * k), NONE)
    snap = next(iter(hand.canvas._snaps.values()))
    assert "middle" in snap.reason and snap.line is not None
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(645, 232))
    assert place(hand, mine)[1] == place(hand, other)[1]
    hand.drag((645, 230), (645, 228), Qt.KeyboardModifier.AltModifier)
    hand.drag((645, 230), (665, 233), Qt.KeyboardModifier.AltModifier)
    assert place(hand, mine)[1] != place(hand, other)[1]


@pytest.mark.parametrize(
    ("how", "to"), [("along 0", (700, 200)), ("along 90", (600, 300)), ("turn", (600, 200)), ("", (700, 300))]
)
def test_things_move_only_as_they_are_held(hand: Hand, how: str, to: tuple[float, float]) -> None:
    (mine,) = hand.put(sheet(600, 200, hold=how))
    plain(hand)
    if how == "turn":
        hand.canvas.select([mine])
    hand.drag((640, 230), (740, 330), Qt.KeyboardModifier.AltModifier)
    box = hand.thing(mine).box()
    assert (box.centre[0], box.centre[1]) == pytest.approx((to[0] + 40, to[1] + 30), abs=2)
    assert bool(hand.thing(mine).placement.turn) == (how == "turn")


def test_not_at_the_board_means_a_hand_goes_through_it(hand: Hand) -> None:
    under, over = hand.put(Block(placement=Placement(500, 300)), sheet(460, 260, 200, 200, hold="board"))
    hand.canvas.at_board = True
    centre = hand.thing(under).box().centre
    hand.drag(centre, (centre[0] + 200, centre[1]), Qt.KeyboardModifier.AltModifier)
    assert place(hand, over) == (460, 260)
    assert hand.thing(under).placement.x == pytest.approx(700, abs=2)


def test_a_ring_selects_what_has_its_middle_inside(hand: Hand) -> None:
    a, b, c = hand.put(sheet(300, 200), sheet(500, 300), sheet(800, 500))
    hand.window.run("ring select")
    corners = [(250, 150), (700, 150), (650, 420), (260, 420), (250, 160)]
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(*corners[0]))
    for corner in corners[1:]:
        move(hand.canvas, hand.at(*corner), NONE)
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(*corners[-1]))
    assert set(hand.canvas.selection) == {a, b} and c not in hand.canvas.selection
    assert not hand.canvas.overlay.marks


def test_a_double_press_opens_a_group_and_a_press_elsewhere_closes_it(hand: Hand) -> None:
    a, b, c = hand.put(sheet(300, 200), sheet(500, 200), sheet(300, 400))
    hand.canvas.select([a, b])
    hand.window.run("group")
    hand.tap(340, 230)
    assert set(hand.canvas.selection) == {a, b}
    QTest.mouseDClick(hand.canvas, LEFT, NONE, hand.at(340, 230))
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(340, 230))
    assert hand.canvas.selection == (a,) and hand.canvas.opened
    hand.drag((340, 230), (340, 300), Qt.KeyboardModifier.AltModifier)
    assert place(hand, b) == (500, 200) and place(hand, a)[1] == pytest.approx(270, abs=2)
    hand.tap(340, 430)
    assert hand.canvas.selection == (c,) and not hand.canvas.opened
    hand.tap(540, 230)
    assert set(hand.canvas.selection) == {a, b}


def test_a_limited_supply_gives_so_many_and_then_says_so(hand: Hand, qtbot: object) -> None:
    (supply,) = hand.put(Block(placement=Placement(200, 200), supply=True, limit=2))
    heard: list[str] = []
    hand.canvas.said.connect(heard.append)
    start = hand.thing(supply).box().centre
    for k in range(3):
        hand.drag(start, (500, 200 + 150 * k), Qt.KeyboardModifier.AltModifier)
    taken = [t for t in hand.canvas.page.things if t.copy_of == supply]
    assert len(taken) == 2 and heard == ["It gives only 2."]
    hand.canvas.select([taken[0].id])
    hand.window.run("delete")
    hand.drag(start, (500, 500), Qt.KeyboardModifier.AltModifier)
    assert sum(t.copy_of == supply for t in hand.canvas.page.things) == 2


def test_things_dragged_to_the_bin_go_and_come_back(hand: Hand) -> None:
    a, b = hand.put(sheet(300, 200), sheet(500, 200))
    hand.canvas.select([a, b])
    centre = hand.window.ledge.bin.mapTo(hand.window.room, hand.window.ledge.bin.rect().center())
    target = hand.canvas.mapFrom(hand.window.room, centre)
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(340, 230))
    move(hand.canvas, hand.at(400, 300), NONE)
    move(hand.canvas, target, NONE)
    assert hand.window.ledge.bin.isDown()
    QTest.mouseRelease(hand.canvas, LEFT, NONE, target)
    assert not hand.canvas.page.things and not hand.window.ledge.bin.isDown()
    hand.window.undo()
    assert [place(hand, id) for id in (a, b)] == [(300, 200), (500, 200)]


def test_frost_is_rubbed_off_at_the_board_and_by_the_eraser_at_the_desk(hand: Hand) -> None:
    answer, frost = hand.put(Text(text="42", placement=Placement(420, 320)), Frost(placement=Placement(400, 300)))
    hand.drag((420, 320), (470, 320), Qt.KeyboardModifier.AltModifier)
    assert place(hand, frost)[0] == pytest.approx(450, abs=2)  # at the Desk it is dragged
    hand.window.ledge.take("rub out")
    hand.drag((480, 400), (700, 400))
    assert 0.1 < hand.thing(frost).cleared() < 0.9
    hand.window.undo()
    assert hand.thing(frost).cleared() == 0
    hand.window.ledge.take("select")
    hand.canvas.at_board = True
    hand.drag((460, 340), (760, 340))
    assert place(hand, frost)[0] == pytest.approx(450, abs=2) and hand.thing(frost).cleared() > 0.1
    assert hand.canvas.page.thing(answer) is not None


def test_a_press_beside_a_box_grows_a_joined_neighbour_and_a_drag_joins_another(hand: Hand) -> None:
    box, other = hand.put(WordBox(text="lantern", placement=Placement(300, 200)), sheet(300, 500))
    hand.canvas.select([box])
    own = hand.thing(box).box()
    right = (own.x1 + 40, own.centre[1])
    hand.tap(*right)
    grown = [t for t in hand.canvas.page.things if isinstance(t, WordBox) and t.id != box]
    lines = [t for t in hand.canvas.page.things if isinstance(t, Connector)]
    assert len(grown) == 1 and lines[0].of == (box, grown[0].id)
    assert hand.window.editors.open is not None  # its words are typed at once
    hand.window.editors.finish()
    hand.canvas.select([box])
    hand.drag((own.centre[0], own.y1 + 40), (340, 530))
    assert [t.of for t in hand.canvas.page.things if isinstance(t, Connector)][-1] == (box, other)
    hand.canvas.select([box])
    hand.drag((own.x0 - 40, own.centre[1]), (150, 600))
    assert sum(isinstance(t, WordBox) for t in hand.canvas.page.things) == 3


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


def test_words_are_typed_into_cells_and_tab_goes_on(hand: Hand) -> None:
    (table,) = hand.put(Table(placement=Placement(200, 150)))
    cell = hand.thing(table).cell(1, 0).centre
    spot = hand.at(200 + cell[0], 150 + cell[1])
    QTest.mouseClick(hand.canvas, LEFT, NONE, spot)
    QTest.mouseDClick(hand.canvas, LEFT, NONE, spot)
    QTest.mouseRelease(hand.canvas, LEFT, NONE, spot)
    editor = hand.window.editors.open
    assert editor is not None
    QTest.keyClicks(editor, "kite")
    QTest.keyClick(editor, Qt.Key.Key_Tab)
    QTest.keyClicks(hand.window.editors.open, "12")
    hand.window.editors.finish()
    now = hand.thing(table)
    words = [now.words_in(hand.canvas.page, 1, k) for k in range(3)]
    assert [w.text if w else "" for w in words] == ["kite", "12", ""]


def test_hidden_things_are_neither_seen_nor_touched_and_can_be_shown_again(hand: Hand) -> None:
    under, over = hand.put(sheet(300, 200, 200, 200), sheet(320, 220, 100, 100))
    hand.canvas.select([over])
    hide = next(a for a in hand.window.tag.actions_now if a.name == "hide")
    hand.canvas.do(hide)
    hand.tap(360, 260)
    assert hand.canvas.selection == (under,)
    hand.window.run("show hidden")
    hand.tap(360, 260)
    assert hand.canvas.selection == (over,)


def test_a_link_is_followed_at_the_board_even_on_a_locked_thing(hand: Hand) -> None:
    hand.put(sheet(300, 200, link="#p1", locked=True), sheet(600, 200, link="#p999"))
    page = hand.canvas.page_id
    hand.canvas.at_board = True
    hand.tap(640, 230)
    assert hand.canvas.page_id == page  # it is said that the page is gone
    hand.tap(340, 230)
    assert hand.canvas.page_id == "p1"


def test_outside_links_are_asked_before_they_are_opened(hand: Hand, monkeypatch: pytest.MonkeyPatch) -> None:
    opened: list[str] = []
    monkeypatch.setattr("larch.desk.media.following.Following.open_outside", staticmethod(opened.append))
    hand.put(sheet(300, 200, link="https://larch.example/"))
    hand.canvas.at_board = True
    hand.tap(340, 230)
    assert not opened
    hand.canvas.withdraw(accepted=True)
    assert opened == ["https://larch.example/"]
    assert isinstance(hand.canvas.mapToGlobal(QPoint(0, 0)), QPoint)


def test_layers_follow_a_change_of_depth(hand: Hand) -> None:
    a, b = hand.put(sheet(300, 200, 200, 200), sheet(320, 220, 100, 100))
    page = hand.canvas.page
    hand.canvas.commit(Edit("order", page, page.replace(things=tuple(reversed(page.things)))))
    hand.tap(360, 260)
    assert hand.canvas.selection == (a,) and b


def test_arrow_keys_keep_to_how_a_thing_is_held(hand: Hand) -> None:
    level, free, turning = hand.put(sheet(300, 200, hold="along 0"), sheet(500, 200), sheet(700, 200, hold="turn"))
    hand.canvas.select([level, free, turning])
    hand.canvas.setFocus()
    for key in (Qt.Key.Key_Right, Qt.Key.Key_Down):
        QTest.keyClick(hand.canvas, key)
    assert (place(hand, level), place(hand, free), place(hand, turning)) == ((302, 200), (502, 202), (700, 200))
    hand.window.undo()


def test_escape_closes_an_opened_group_and_selects_it_whole(hand: Hand) -> None:
    a, b = hand.put(sheet(300, 200), sheet(500, 200))
    hand.canvas.select([a, b])
    hand.window.run("group")
    QTest.mouseDClick(hand.canvas, LEFT, NONE, hand.at(340, 230))
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(340, 230))
    assert hand.canvas.opened and hand.canvas.selection == (a,)
    hand.canvas.grab()  # its frame can be painted
    QTest.keyClick(hand.canvas, Qt.Key.Key_Escape)
    assert not hand.canvas.opened and set(hand.canvas.selection) == {a, b}


def test_frost_that_was_rubbed_step_by_step_looks_as_if_rubbed_at_once(hand: Hand) -> None:
    from PyQt6.QtGui import QImage

    from larch.board.paint import painting
    from larch.board.views import view_of
    from larch.board.views.pictures import frost as frost_view

    def painted(frost: Frost) -> QImage:
        image = QImage(330, 210, QImage.Format.Format_ARGB32_Premultiplied)
        image.fill(Qt.GlobalColor.white)
        with painting(image) as painter:
            view_of(frost).paint(painter, frost, hand.canvas.page)
        return image

    path = [(20.0 + 9 * k, 40.0 + 30 * (k % 5)) for k in range(30)]
    start = Frost(id="f").with_rub([(10, 180), (300, 190)])
    for k in range(1, len(path) + 1):
        stepwise = painted(start.with_rub(path[:k]))
    other = painted(start.with_rub([(20.0, 40.0), (20.0, 160.0)]))  # begins alike, goes elsewhere
    frost_view._layers.clear()
    frost_view._live.clear()
    at_once = painted(start.with_rub(path))
    far = [
        (x, y) for x in range(0, 330, 3) for y in range(0, 210, 3)
        if abs(stepwise.pixelColor(x, y).lightness() - at_once.pixelColor(x, y).lightness()) > 12
    ]  # fmt: skip
    assert len(far) < 8  # the edges of pieces that were drawn one by one
    assert other != at_once and other != stepwise


def test_a_row_grows_with_the_words_in_it_and_takes_the_rows_below_along(hand: Hand) -> None:
    (table,) = hand.put(Table(placement=Placement(200, 100)))
    now = hand.thing(table)
    below = now.new_words(2, 1).replace(text="below")
    page = hand.canvas.page
    hand.canvas.commit(Edit("below", page, page.put(below)))
    below_id = hand.canvas.page.things[-1].id
    before = hand.thing(below_id).placement.y
    hand.window.editors.edit(hand.thing(table).new_words(1, 1))
    QTest.keyClicks(hand.window.editors.open, "many more kites than anyone had made before")
    hand.window.editors.finish()
    grown = hand.thing(table)
    assert grown.rows[1] > 120 and grown.rows[2] == 72
    assert hand.thing(below_id).placement.y - before == pytest.approx(grown.rows[1] - 72, abs=1)
    words = grown.words_in(hand.canvas.page, 1, 1)
    assert words is not None and words.text.startswith("many")
    assert grown.words_in(hand.canvas.page, 2, 1).text == "below"
    hand.window.undo()  # one step
    assert hand.thing(table).rows[1] == 72 and hand.thing(below_id).placement.y == before


@pytest.mark.parametrize("shape", ["oval", "diamond", "round"])
def test_words_stand_inside_the_outline_of_their_box(hand: Hand, shape: str) -> None:
    from larch.board.views import view_of
    from larch.board.views.organisers.box import laid_out

    box = WordBox(text="is it straight?", shape=shape, width=260, height=60)
    outline = view_of(box).extent(box)
    words = laid_out(box)
    u, v = words.idealWidth() / outline.width, words.size().height() / outline.height
    assert {"diamond": u + v, "oval": (u * u + v * v) ** 0.5, "round": max(u, v)}[shape] <= 1.02
