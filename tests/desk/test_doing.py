"""What a teacher does with things on a page: laying down, copying, words on lines and in cells, typing measures."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.board.views.measure_labels import laid_out
from larch.core.actions.arrange.arrange import duplicate, risen
from larch.core.actions.arrange.cells import cell_of, more, without
from larch.core.actions.geometry.parting import share
from larch.core.actions.geometry.picks import Pick, built
from larch.core.actions.geometry.solve_triangle import work_out
from larch.core.base.shape import Placement
from larch.core.model.holders import fitted_in
from larch.core.model.page import Page, Paper
from larch.core.model.paper import writing_line
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.point import Point
from larch.core.things.geometry.polygon import polygon_on
from larch.core.things.instruments.ruler import Ruler
from larch.core.things.numbers.block import Block
from larch.core.things.organisers.table import Table
from larch.core.things.papers.sheet import Sheet
from larch.core.things.pictures.frost import Frost
from larch.core.things.pictures.picture import Picture
from larch.core.things.words.text import Text
from larch.demo import demo_lesson
from larch.desk.editors.measure import MeasureField
from larch.desk.window import Window
from tests.board.test_tools import Hand
from tests.samples import page_with

KEYS, CONTROL, ALT = Qt.Key, Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.AltModifier


def test_what_came_from_a_supply_is_copied_beside_itself_and_on_the_page() -> None:
    page = page_with(Block(value=10, supply=True, placement=Placement(60, 500)))
    page = page.put(Block(value=10, copy_of="t1", placement=Placement(900, 120)))
    after = duplicate(page, page.some(["t2"])).after
    made = after.things[-1].box()  # type: ignore[union-attr]
    assert page.printed().covers(made)
    assert abs(made.x0 - 900) < 100
    corner = page_with(Block(value=100, placement=Placement(1140, 580)))
    assert corner.printed().covers(duplicate(corner, corner.things).after.things[-1].box())  # type: ignore[union-attr]


def test_what_is_dropped_rises_above_what_it_lies_on_but_not_above_frost() -> None:
    sheet, block, frost = Sheet(width=400, height=300), Block(value=10, placement=Placement(100, 100)), Frost()
    page = page_with(block, sheet, frost)
    assert [t.kind() for t in risen(page, ["t1"]).things] == ["sheet", "block", "frost"]
    assert risen(page, ["t2"]) is page  # a sheet does not rise above a block that lies on it
    assert risen(page, []) is page


def test_a_block_dragged_onto_a_sheet_is_seen(hand: Hand) -> None:
    block, sheet = hand.put(
        Block(value=10, placement=Placement(100, 100)), Sheet(placement=Placement(500, 200), width=400, height=300)
    )
    hand.drag((106, 150), (700, 350))
    assert [thing.id for thing in hand.canvas.page.things] == [sheet, block]
    hand.window.undo()
    assert [thing.id for thing in hand.canvas.page.things] == [block, sheet]


def table_with_words() -> Page:
    table = Table(placement=Placement(100, 100))
    page = page_with(table)
    for row in range(len(table.rows)):
        for column in range(len(table.columns)):
            page = page.put(page.things[0].new_words(row, column).replace(text=f"{row}{column}"))  # type: ignore[attr-defined]
    return page


@pytest.mark.parametrize("field", ["rows", "columns"])
@pytest.mark.parametrize("after", [True, False])
def test_rows_and_columns_come_and_go_beside_the_words_of_a_cell(field: str, after: bool) -> None:
    page = table_with_words()
    words = next(t for t in page.things if getattr(t, "text", "") == "11")
    grown = more(page, words, field, after).after
    table = grown.things[0]
    axis = 0 if field == "rows" else 1
    assert len(getattr(table, field)) == len(getattr(page.things[0], field)) + 1
    for thing in grown.things[1:]:
        old = [int(c) for c in thing.text]
        moves = old[axis] > 1 or (old[axis] == 1 and not after)
        old[axis] += moves
        assert cell_of(table, thing) == tuple(old)
    shrunk = without(page, words, field).after
    assert all(thing.text[axis] != "1" for thing in shrunk.things[1:])
    for thing in shrunk.things[1:]:
        old = [int(c) for c in thing.text]
        old[axis] -= old[axis] > 1
        assert cell_of(shrunk.things[0], thing) == tuple(old)


def test_a_table_is_got_at_and_dragged_by_its_words(hand: Hand) -> None:
    page = table_with_words()
    hand.put(*page.things)
    words = next(t for t in hand.canvas.page.things if getattr(t, "text", "") == "11")
    middle = words.box().centre
    hand.tap(*middle)
    assert hand.canvas.selection == (words.id,)
    assert {"row below", "column right", "whole table"} <= {action.name for action in hand.window.tag.actions_now[:6]}
    hand.canvas.select(())
    table = hand.canvas.page.things[0]
    hand.drag(middle, (middle[0] + 200, middle[1] + 100))
    moved = hand.canvas.page.things[0]
    assert moved.placement.x == pytest.approx(table.placement.x + 200, abs=14)
    assert cell_of(moved, hand.thing(words.id)) == (1, 1)
    at = hand.thing(words.id).box().centre
    hand.drag(at, (at[0] + 20, at[1] + 300), CONTROL)  # on purpose
    assert hand.canvas.page.things[0].placement == moved.placement


def test_a_picture_dropped_on_a_cell_fits_into_it() -> None:
    page = table_with_words().put(Picture(media=f"{'0' * 64}.png", width=600, height=200, placement=Placement(150, 60)))
    id = page.things[-1].id
    table = page.things[0]
    after = fitted_in(page, [id])
    picture = after.thing(id)
    assert picture is not None
    cell = table.cell(*table.cell_at(*table.placement.to_local(*picture.box().centre)))  # type: ignore[attr-defined]
    at = table.placement.to_page(cell.x0, cell.y0)
    box = picture.box()
    assert box.x0 >= at[0] and box.y0 >= at[1] and box.width <= cell.width and box.height <= cell.height
    assert box.width / box.height == pytest.approx(3)


@pytest.mark.parametrize("pattern", ["ruled", "handwriting"])
def test_words_fall_onto_the_lines_of_the_paper(hand: Hand, pattern: str) -> None:
    hand.put()
    paper = Paper(pattern, 96.0, top=40.0)
    hand.canvas.commit(__import__("larch.core.model.page_facts", fromlist=["dress"]).dress(hand.canvas.page, paper))
    hand.window.ledge.take("text")
    for held in (Qt.KeyboardModifier.NoModifier, ALT):
        hand.tap(300 if held != ALT else 700, 330, held)
        QTest.keyClicks(hand.window.focusWidget(), "moss")
        QTest.keyClick(hand.window.focusWidget(), KEYS.Key_Escape)
        text = hand.canvas.page.things[-1]
        assert isinstance(text, Text)
        stands = text.placement.y + text.base()
        line = writing_line(paper, stands)
        assert line is not None
        assert (abs(line - stands) < 0.01) == (held != ALT)
        hand.canvas.select(())
    snap = Text(text="x", placement=Placement(100, 101.0)).snap(Page(id="p", paper=paper), [], 60.0)
    assert snap is not None and snap.reason and snap.line is not None
    assert Text(text="x").snap(Page(id="p"), [], 60.0) is None


def test_the_words_of_the_demos_ruled_pages_stand_on_their_lines() -> None:
    page = demo_lesson().pages[0]
    texts = [thing for thing in page.things if isinstance(thing, Text)]
    assert len(texts) > 5
    for text in texts:
        stands = text.placement.y + text.base()
        assert writing_line(page.paper, stands) == pytest.approx(stands, abs=0.01)


def test_a_text_begun_near_an_edge_stays_on_the_page(hand: Hand) -> None:
    hand.put()
    hand.window.ledge.take("text")
    for at in ((1180, 300), (700, 690), (1250, 700)):
        hand.tap(*at)
        QTest.keyClicks(hand.window.focusWidget(), "a long line of words about the lanterns on the river tonight")
        QTest.keyClick(hand.window.focusWidget(), KEYS.Key_Escape)
        from larch.board.views import view_of

        text = hand.canvas.page.things[-1]
        assert hand.canvas.page.printed().grown(1).covers(view_of(text).box(text)), at


def test_a_measure_is_typed_where_it_stands(hand: Hand) -> None:
    corners = [(200.0, 500.0), (520.0, 500.0), (360.0, 300.0)]
    (id,) = hand.put(polygon_on(hand.canvas.page, corners, shown=("AB", "angle C")))
    at = next(laid.at for laid in laid_out(hand.canvas.page)[id] if laid.slip.name == "AB")
    QTest.mouseDClick(hand.canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, hand.at(*at))
    QTest.mouseRelease(hand.canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, hand.at(*at))
    field = hand.window.focusWidget()
    assert isinstance(field, MeasureField)
    assert field.text() == "10 cm"
    QTest.keyClicks(field, "8")
    QTest.keyClick(field, KEYS.Key_Return)
    facts = {fact.name: fact.text for fact in hand.thing(id).facts(hand.canvas.page)}
    assert facts["AB"] == "8 cm"
    assert hand.canvas.hasFocus()
    assert not hand.window.shows("facts")


def test_a_measure_that_can_not_be_says_why_and_leaves_all_as_it_was(hand: Hand, said: list[str]) -> None:
    corners = [(200.0, 500.0), (520.0, 500.0), (360.0, 300.0)]
    (id,) = hand.put(polygon_on(hand.canvas.page, corners, shown=("AB",)))
    before = hand.thing(id)
    for typed, key in (("900", KEYS.Key_Return), ("3", KEYS.Key_Escape)):
        hand.canvas.measure_wanted.emit(id, "AB")
        field = hand.window.focusWidget()
        QTest.keyClicks(field, typed)
        QTest.keyClick(field, key)
        assert hand.thing(id) == before
    assert "can't close" in said[-1]


def test_working_stays_on_the_page_and_its_name_has_no_braces() -> None:
    for corners in ([(700.0, 650.0), (1240.0, 650.0), (900.0, 200.0)], [(40.0, 700.0), (1240.0, 700.0), (640.0, 30.0)]):
        page = page_with()
        page = page.put(polygon_on(page, corners, shown=("AB", "BC", "CA")))
        after = work_out(page, page.things).after
        text = after.things[-1]  # type: ignore[union-attr]
        assert page.printed().covers(text.box()), text.box()
        assert "{" not in text.label(after)  # type: ignore[arg-type]


def test_parts_keep_the_colour_of_the_whole() -> None:
    page = page_with(Circle(hue="berry"))
    assert {thing.hue for thing in share(page, page.things, 5).after.things} == {"berry"}  # type: ignore[union-attr]


def test_a_second_image_has_a_letter_of_its_own() -> None:
    page = page_with(
        Point(name="A", placement=Placement(100, 100)), Line(placement=Placement(300, 0), dx=0.0, dy=400.0)
        if "dx" in Line.__struct_fields__ else Line(placement=Placement(300, 0)),
    )  # fmt: skip
    for _k in range(3):
        page = built(page, "mirror", [Pick("t1", (100, 100)), Pick("t2", (300, 50))], ()).page
    names = [thing.name for thing in page.things if thing.kind() == "point"]
    assert names == ["A", "A′", "A″", "A‴"] or len(set(names)) == len(names) == 4


def test_an_instrument_is_put_away_at_the_board(hand: Hand) -> None:
    (id,) = hand.put(Ruler(placement=Placement(200, 200)))
    hand.window.go_to_board()
    hand.canvas.select([id])
    action = next(action for action in hand.window.tag.actions_now if action.name == "put away")
    hand.canvas.do(action)
    assert hand.canvas.page.things == ()


def test_a_hundred_finds_room_in_its_column(window: Window) -> None:
    from larch.core.model.kinds import shelf_items

    sheet = next(item for item in shelf_items() if item.name == "paper place value").make()
    assert isinstance(sheet, Sheet)
    assert sheet.width / sheet.paper.columns > Block(value=100).extent().width
