"""A table of values written in by keys and by the tray, filled by an equation, filling it, dragged as points."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.core.base.shape import Placement
from larch.core.maths.layout.reading import meaning
from larch.core.model.action import actions_for
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.value_table import ValueTable
from larch.desk.editors.value_table import CellEditor
from tests.board.test_tools import Hand

KEYS = Qt.Key
AXES = Axes(x_min=-6, x_max=6, y_min=-5, y_max=5, width=480, height=400, placement=Placement(60, 120))
BESIDE = Placement(640, 60)
TABLE = Placement(640, 180)


def editor(hand: Hand) -> CellEditor:
    found = hand.window.editors.open
    assert isinstance(found, CellEditor)
    return found


def tap_cell(hand: Hand, id: str, row: int, column: int) -> None:
    table = hand.thing(id)
    hand.tap(*table.placement.to_page(*table.cell_box(row, column).centre))


def rows(hand: Hand, id: str) -> list[tuple[str, str]]:
    return [(row.x, row.y) for row in hand.thing(id).rows(hand.canvas.page)]


def do(hand: Hand, name: str) -> None:
    things = hand.canvas.things()
    hand.canvas.do(next(a for a in actions_for(hand.canvas.page, things) if a.name == name))


def test_own_values_are_typed_from_cell_to_cell_and_become_points(hand: Hand) -> None:
    _axes, id = hand.put(AXES, ValueTable(xs=("", "", ""), placement=TABLE))
    hand.window.go_to_board()
    tap_cell(hand, id, 0, 0)
    for text in ("1", "2", "2", "1/2", "-1.5", "sqrt(2)"):
        QTest.keyClicks(editor(hand), text)
        QTest.keyClick(editor(hand), KEYS.Key_Tab)
    hand.window.editors.finish()
    assert [x for x, _y in rows(hand, id)] == ["1", "2", "−1.5"]
    points = hand.thing(id).points_on(hand.canvas.page)
    assert [(x, y) for _row, x, y in points] == [(1, 2), (2, 0.5), (-1.5, pytest.approx(2**0.5))]
    hand.window.undo()
    assert len(hand.thing(id).points_on(hand.canvas.page)) == 2


def test_what_is_no_number_is_said_and_stays_to_be_mended(hand: Hand, said: list[str]) -> None:
    (id,) = hand.put(ValueTable(xs=("", "", ""), placement=TABLE))
    hand.window.editors.edit(hand.thing(id))
    QTest.keyClicks(editor(hand), "2+")
    QTest.keyClick(editor(hand), KEYS.Key_Return)
    assert "number" in said[-1]
    assert editor(hand).cell == (0, 0)
    QTest.keyClicks(editor(hand), "3")
    QTest.keyClick(editor(hand), KEYS.Key_Return)
    assert editor(hand).cell == (1, 0)
    hand.window.editors.finish()
    assert hand.thing(id).points_on(hand.canvas.page) == []
    assert hand.thing(id).xs[0].replace(" ", "") == "2+3"


def test_an_equation_fills_it_exactly_and_follows_when_either_changes(hand: Hand) -> None:
    ids = hand.put(AXES, Equation(source="y = x/3 + 1", axes="t1", placement=BESIDE))
    hand.canvas.select([ids[1]])
    do(hand, "value table")
    table = hand.canvas.page.things[-1]
    assert isinstance(table, ValueTable) and table.equation == ids[1]
    assert dict(rows(hand, table.id))["2"] == "5/3"
    hand.window.editors.edit(hand.thing(table.id))
    tap_cell(hand, table.id, 0, 0)
    QTest.keyClick(editor(hand), KEYS.Key_A, Qt.KeyboardModifier.ControlModifier)
    QTest.keyClicks(editor(hand), "6")
    hand.window.editors.finish()
    assert rows(hand, table.id)[0] == ("6", "3")
    page = hand.canvas.page
    from larch.core.model.edit import Edit

    hand.canvas.commit(Edit("", page, page.changing([ids[1]], lambda t: t.replace(source="y = x^2"))))
    assert rows(hand, table.id)[0] == ("6", "36")


def test_another_value_typed_takes_the_graph_there(hand: Hand) -> None:
    _axes, line, id = hand.put(
        AXES, Equation(source="y = 2x + 1", axes="t1", placement=BESIDE), ValueTable(equation="t2", placement=TABLE)
    )
    hand.window.go_to_board()
    tap_cell(hand, id, 3, 1)
    QTest.keyClicks(editor(hand), "5")
    QTest.keyClick(editor(hand), KEYS.Key_Return)
    hand.window.editors.finish()
    assert meaning(hand.thing(line).source) == meaning("y = 2x + 3")
    assert rows(hand, id)[3] == ("1", "5")


def test_left_to_the_class_it_is_empty_and_says_what_is_right(hand: Hand) -> None:
    _axes, _line, id = hand.put(
        AXES, Equation(source="y = 2x + 1", axes="t1", placement=BESIDE), ValueTable(equation="t2", placement=TABLE)
    )
    hand.canvas.select([id])
    do(hand, "ask values")
    assert {y for _x, y in rows(hand, id)} == {""}
    assert hand.thing(id).points_on(hand.canvas.page) == []
    hand.window.go_to_board()
    tap_cell(hand, id, 3, 1)
    for text in ("3", "7"):
        QTest.keyClicks(editor(hand), text)
        QTest.keyClick(editor(hand), KEYS.Key_Return)
    hand.window.editors.finish()
    found = hand.thing(id).rows(hand.canvas.page)
    assert [row.right for row in found] == [None, None, None, True, False]
    assert {f.name: f.text for f in hand.thing(id).facts(hand.canvas.page)}["right"] == "1 of 2"
    assert hand.thing("t2").source == "y = 2x + 1"


def test_a_point_dragged_on_the_axes_changes_its_row(hand: Hand) -> None:
    _axes, id = hand.put(AXES, ValueTable(xs=("1", "2"), ys=("2", "3"), placement=TABLE))
    hand.window.go_to_board()
    hand.drag(AXES.page_of((2, 3)), AXES.page_of((4.03, -0.98)))
    assert rows(hand, id) == [("1", "2"), ("4", "-1")]
    hand.window.undo()
    assert rows(hand, id) == [("1", "2"), ("2", "3")]


def test_the_line_of_best_fit_is_put_on_the_axes_and_says_how_well(hand: Hand) -> None:
    said: list[str] = []
    hand.canvas.said.connect(said.append)
    _axes, id = hand.put(AXES, ValueTable(xs=("0", "1", "2"), ys=("1", "3", "5.1"), placement=TABLE))
    hand.canvas.select([id])
    do(hand, "fit line")
    made = hand.canvas.page.things[-1]
    assert isinstance(made, Equation) and made.axes == "t1"
    assert made.source == "y = 2.05x + 0.9833"
    assert said == ["r = 1"]


def test_a_division_by_zero_and_a_gap_have_no_value(hand: Hand) -> None:
    _axes, _e, id = hand.put(
        AXES, Equation(source="y = 1/x", axes="t1", placement=BESIDE),
        ValueTable(xs=("-1", "0", ""), equation="t2", placement=TABLE),
    )  # fmt: skip
    assert rows(hand, id) == [("-1", "−1"), ("0", "—"), ("", "")]
    assert hand.canvas.grab().width() > 0


def test_residuals_are_shown_with_their_sum_of_squares(hand: Hand) -> None:
    _axes, id = hand.put(AXES, ValueTable(xs=("0", "1", "2"), ys=("1", "3", "4"), placement=TABLE))
    hand.canvas.select([id])
    do(hand, "fit line")
    hand.canvas.select([id])
    before = hand.canvas.grab().toImage()
    do(hand, "residuals")
    assert hand.canvas.grab().toImage() != before
    apart = hand.thing(id).residuals(hand.canvas.page)
    assert sum(y - height for _x, y, height in apart) == pytest.approx(0, abs=1e-3)
    facts = {fact.name: fact.value for fact in hand.thing(id).facts(hand.canvas.page)}
    assert facts["squares"] == pytest.approx(1 / 6, abs=1e-3)


def test_a_slope_field_is_painted_on_the_axes(hand: Hand) -> None:
    hand.put(AXES, Equation(source="dy/dx = x/y", axes="t1", placement=BESIDE))
    before = hand.canvas.grab().toImage()
    hand.put(AXES, Equation(source="dy/dx = -x/y", axes="t1", placement=BESIDE))
    assert hand.canvas.grab().toImage() != before
