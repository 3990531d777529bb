"""Solutions in the window: lines that are checked, steps that are asked for, the calculator's tape."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from pytestqt.qtbot import QtBot

from larch.board.checks import checks
from larch.board.views import view_of
from larch.core.actions.equations.working import chain
from larch.core.base.shape import Placement
from larch.core.things.graphs.calculator import Calculator
from larch.core.things.graphs.equation import CHECK, Equation
from larch.desk.editors.calculator import CalculatorEditor
from tests.board.test_tools import Hand

KEYS = Qt.Key


def lines(hand: Hand) -> list[Equation]:
    return [thing for thing in hand.canvas.page.things if isinstance(thing, Equation)]


def test_solving_comes_as_lines_below_and_is_one_step_of_undo(hand: Hand, qtbot: QtBot) -> None:
    (id,) = hand.put(Equation(source="2x + 5 = 15", placement=Placement(100, 100)))
    hand.canvas.select([id])
    hand.window.run("equation solve")
    qtbot.waitUntil(lambda: len(lines(hand)) == 3, timeout=8000)
    found = lines(hand)
    assert [line.source for line in found] == ["2x + 5 = 15", "2x = 10", "x = 5"]
    assert [line.reason for line in found[1:]] == ["- 5 on both sides", "÷ 2 on both sides"]
    assert chain(hand.canvas.page, found[1]) == found
    hand.window.run("undo")
    assert len(lines(hand)) == 1


def test_what_can_not_be_done_is_said(hand: Hand, qtbot: QtBot) -> None:
    (id,) = hand.put(Equation(source="2x +", placement=Placement(100, 100)))
    hand.canvas.select([id])
    hand.window.run("equation solve")
    qtbot.waitUntil(lambda: hand.window.notice.isVisible(), timeout=8000)
    assert len(lines(hand)) == 1


def test_a_check_comes_by_itself_and_is_painted(hand: Hand, qtbot: QtBot) -> None:
    first = Equation(source="3x - 4 = 17", placement=Placement(100, 100))
    second = Equation(source="3x = 13", above="t1", shown=(CHECK,), placement=Placement(100, 180))
    hand.put(first, second)
    line = lines(hand)[1]
    before = hand.canvas.grab().toImage()
    qtbot.waitUntil(lambda: checks.verdict("3x - 4 = 17", "3x = 13") is not None, timeout=8000)
    verdict = checks.verdict("3x - 4 = 17", "3x = 13")
    assert verdict is not None and verdict.follows == "no" and verdict.mistake == "moved"
    qtbot.waitUntil(lambda: hand.canvas.grab().toImage() != before, timeout=3000)
    assert hand.canvas.grab().toImage() != before
    assert view_of(line).reach(line, hand.canvas.page).x1 > view_of(line).box(line).x1 + 200


def test_checks_are_off_until_they_are_asked_for(hand: Hand) -> None:
    ids = hand.put(Equation(source="2x = 10"), Equation(source="x = 5", above="t1"))
    hand.canvas.select(ids)
    names = {action.name for action in hand.canvas.offered_actions()} if hasattr(hand.canvas, "offered_actions") else set()
    from larch.core.model.action import actions_for

    found = {action.name: action for action in actions_for(hand.canvas.page, hand.canvas.things())}
    assert "check lines" in found and (not names or "check lines" in names)
    assert all(CHECK not in line.shown for line in lines(hand))
    hand.canvas.commit(found["check lines"].edit(hand.canvas.page, hand.canvas.things(), 0.0))
    assert all(CHECK in line.shown for line in lines(hand))


def test_the_calculator_keeps_its_tape(hand: Hand) -> None:
    (id,) = hand.put(Calculator(placement=Placement(200, 60)))
    hand.window.go_to_board()
    x, y = hand.thing(id).placement.to_page(150, 90)
    hand.tap(x, y)
    editor = hand.window.editors.open
    assert isinstance(editor, CalculatorEditor)
    QTest.keyClicks(editor, "3/4 +2/3")
    QTest.keyClick(editor, KEYS.Key_Return)
    QTest.keyClicks(editor, "*6")
    QTest.keyClick(editor, KEYS.Key_Return)
    QTest.keyClicks(editor, "1/0")
    QTest.keyClick(editor, KEYS.Key_Return)
    QTest.keyClick(editor, KEYS.Key_Escape)
    kept = hand.thing(id)
    assert isinstance(kept, Calculator) and len(kept.tape) == 3
    facts = {fact.name: fact.value for fact in kept.replace(tape=kept.tape[:2]).facts(hand.canvas.page)}
    assert facts["result"] == "17/2"
    assert "zero" in kept.result()


def test_a_row_of_the_tape_is_dragged_out_and_its_right_half_gives_the_result(hand: Hand) -> None:
    (id,) = hand.put(Calculator(tape=("3/4 + 2/3", "1 + 1"), placement=Placement(100, 60)))
    calculator = hand.thing(id)
    hand.window.go_to_board()
    for k, (x, source) in enumerate(((60, "3/4 + 2/3 = 17/12"), (280, "17/12"))):
        start = calculator.placement.to_page(x, calculator.row_box(0).centre[1])
        hand.drag(start, (700, 200 + 150 * k))
        made = lines(hand)[-1]
        assert made.source == source
        assert view_of(made).box(made).centre == pytest.approx((700, 200 + 150 * k), abs=2)
    assert hand.thing(id).tape == calculator.tape
    hand.window.undo()
    assert len(lines(hand)) == 1


def test_a_row_that_is_dropped_on_the_tape_again_makes_nothing_and_a_tap_chooses_it(hand: Hand) -> None:
    (id,) = hand.put(Calculator(tape=("3/4 + 2/3", "1 + 1"), placement=Placement(100, 60)))
    calculator = hand.thing(id)
    hand.window.go_to_board()
    first, second = (calculator.placement.to_page(60, calculator.row_box(k).centre[1]) for k in (0, 1))
    hand.drag(first, second)
    assert (len(lines(hand)), hand.thing(id).chosen) == (0, 0)
    hand.tap(*first)
    assert hand.thing(id).chosen == 1


def buttons(hand: Hand) -> list[str]:
    return [action.name for action in hand.window.tag.actions_now]


def test_the_tag_at_the_board_does_the_same_to_both_sides_by_the_keys(hand: Hand) -> None:
    (id,) = hand.put(Equation(source="2x + 5 = 15", placement=Placement(100, 100)))
    hand.window.go_to_board()
    hand.canvas.select([id])
    assert buttons(hand)[:3] == ["equation both sides", "equation next", "equation solve"]
    hand.canvas.do(hand.window.tag.actions_now[0])
    editor = hand.window.editors.open
    assert editor.tray is not None
    for name in ("minus", "5"):
        key = next(button for _place, button in editor.tray._keys if button.key.name == name)
        QTest.mouseClick(key, Qt.MouseButton.LeftButton)
    key = next(button for _place, button in editor.tray._keys if button.key.does == "next line")
    QTest.mouseClick(key, Qt.MouseButton.LeftButton)
    assert [line.source for line in lines(hand)] == ["2x + 5 = 15", "2x = 10"]
    assert lines(hand)[1].above == id
    assert hand.canvas.selection == (lines(hand)[1].id,)


def test_what_can_not_be_done_to_both_sides_is_said_and_changes_nothing(hand: Hand, said: list[str]) -> None:
    (id,) = hand.put(Equation(source="2x + 5 = 15", placement=Placement(100, 100)))
    hand.canvas.select([id])
    hand.window.run("equation both sides")
    QTest.keyClicks(hand.window.editors.open, "7")
    QTest.keyClick(hand.window.editors.open, KEYS.Key_Return)
    assert len(lines(hand)) == 1
    assert "− 5" in said[-1]


def test_an_expression_has_no_sides(hand: Hand) -> None:
    (id,) = hand.put(Equation(source="2x + 5", placement=Placement(100, 100)))
    hand.canvas.select([id])
    assert "equation both sides" not in buttons(hand)
    assert "equation next" in buttons(hand)


def test_next_step_comes_by_its_button_on_the_tag(hand: Hand, qtbot: QtBot) -> None:
    (id,) = hand.put(Equation(source="2x + 5 = 15", placement=Placement(100, 100)))
    hand.canvas.select([id])
    hand.canvas.do(hand.window.tag.actions_now[1])
    qtbot.waitUntil(lambda: len(lines(hand)) == 2, timeout=8000)
    assert lines(hand)[1].source == "2x = 10"
