"""Equations written where they stand: by keys, by pointing, on the tray of keys, line after line."""

from __future__ import annotations

from itertools import pairwise

import pytest
from PyQt6.QtCore import QEvent, QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from larch.board.typeset.mathset import set_row
from larch.core.base.shape import Placement
from larch.core.maths.layout.terms import source_of
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.desk.editors.equation import EquationEditor
from larch.desk.editors.key_tray import KeyButton, KeyTray
from tests.board.test_tools import Hand

KEYS = Qt.Key
CONTROL, SHIFT = Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.ShiftModifier


def opened(hand: Hand, source: str = "") -> EquationEditor:
    thing = Equation(source=source, placement=Placement(200, 160))
    if source:
        (id,) = hand.put(thing)
        thing = hand.canvas.page.thing(id)  # type: ignore[assignment]
    hand.window.editors.edit(thing)
    editor = hand.window.editors.open
    assert isinstance(editor, EquationEditor)
    return editor


def press(editor: EquationEditor, *names: str) -> None:
    """Keys of the tray, by what they are called."""
    for name in names:
        assert editor.tray is not None
        keys = [key for key in editor.tray.findChildren(KeyButton) if key.accessibleName() == name and not key.isHidden()]
        assert keys, name
        QTest.mouseClick(keys[0], Qt.MouseButton.LeftButton)


def sources(hand: Hand) -> list[str]:
    return [thing.source for thing in hand.canvas.page.things if isinstance(thing, Equation)]


@pytest.mark.parametrize(
    ("typed", "kept"),
    [
        ("2x+5=15", "2x + 5 = 15"),
        ("3/4 x-6", r"\frac{3}{4}x-6"),
        ("sqrtx/2", r"\sqrt{\frac{x}{2}}"),
        ("sin^2 (2x)", r"\sin ^{2}\left(2x\right)"),
        ("x<=3", "x ≤ 3"),
        ("2^x=8", "2^{x}=8"),
    ],
)
def test_typed_as_it_looks(hand: Hand, typed: str, kept: str) -> None:
    editor = opened(hand)
    QTest.keyClicks(editor, typed)
    QTest.keyClick(editor, KEYS.Key_Return)
    assert sources(hand) == [kept]
    hand.window.run("undo")
    assert sources(hand) == []


def test_lines_of_a_solution_by_touch_alone(hand: Hand) -> None:
    editor = opened(hand)
    press(editor, "2", "x", "plus", "5", "equals", "1", "5", "next line")
    second = hand.window.editors.open
    assert isinstance(second, EquationEditor) and second is not editor
    press(second, "2", "x", "equals", "1", "0", "next line")
    third = hand.window.editors.open
    assert isinstance(third, EquationEditor)
    press(third, "x", "equals", "fraction", "1", "0", "to the right", "2")
    hand.window.editors.finish()
    assert sources(hand) == ["2x + 5 = 15", "2x = 10", r"x=\frac{10}{2}"]
    lines = [thing for thing in hand.canvas.page.things if isinstance(thing, Equation)]
    assert [line.above for line in lines] == ["", lines[0].id, lines[1].id]
    assert len({line.hue for line in lines}) == 3
    assert [line.placement.y for line in lines] == sorted(line.placement.y for line in lines)
    assert all(a.box().y1 <= b.box().y0 + 12 for a, b in pairwise(lines))


def test_a_term_in_the_middle_is_changed(hand: Hand) -> None:
    editor = opened(hand, "2x + 5 = 15")
    QTest.keyClick(editor, KEYS.Key_Home)
    for _k in range(3):
        QTest.keyClick(editor, KEYS.Key_Right)
    QTest.keyClick(editor, KEYS.Key_Delete)
    QTest.keyClicks(editor, "7")
    assert source_of(editor.writing.row) == "2x + 7 = 15"
    QTest.keyClick(editor, KEYS.Key_Z, CONTROL)
    QTest.keyClick(editor, KEYS.Key_Z, CONTROL)
    assert source_of(editor.writing.row) == "2x + 5 = 15"
    QTest.keyClick(editor, KEYS.Key_Escape)
    assert sources(hand) == ["2x + 5 = 15"]


def test_pointing_sets_the_caret_and_selects(hand: Hand) -> None:
    editor = opened(hand, r"\frac{3}{4}x-6")
    middle = QPoint(editor.width() - 20, editor.height() // 2)
    QTest.mouseClick(editor, Qt.MouseButton.LeftButton, pos=middle)
    assert editor.writing.path == () and editor.writing.at >= 3
    stop = next(s for s in set_row(editor.writing.row).stops if s.path == ((0, 0),) and s.part == 1)
    k, origin = editor._scale(), editor._origin
    QTest.mouseClick(editor, Qt.MouseButton.LeftButton, pos=QPoint(
        round(origin.x() + stop.x * k), round(origin.y() + (stop.top + stop.bottom) / 2 * k)))  # fmt: skip
    assert editor.writing.path == ((0, 0),)
    QTest.keyClick(editor, KEYS.Key_Down)
    assert editor.writing.path == ((0, 1),)
    QTest.keyClick(editor, KEYS.Key_A, CONTROL)
    assert editor.writing.selection() == editor.writing.row
    QTest.keyClicks(editor, "5")
    assert source_of(editor.writing.row) == "5"


def test_latex_goes_out_and_mathml_and_latex_come_in(hand: Hand, qapp: QApplication) -> None:
    editor = opened(hand, r"\frac{3}{4}x-6")
    QTest.keyClick(editor, KEYS.Key_A, CONTROL)
    QTest.keyClick(editor, KEYS.Key_C, CONTROL)
    clipboard = QApplication.clipboard()
    assert clipboard is not None
    data = clipboard.mimeData()
    assert data is not None and data.text() == r"\frac{3}{4}x-6" and data.hasFormat("application/mathml+xml")
    QTest.keyClick(editor, KEYS.Key_Escape)
    fresh = opened(hand)
    clipboard.setText(r"\sqrt{x^2+1}")
    QTest.keyClick(fresh, KEYS.Key_V, CONTROL)
    assert source_of(fresh.writing.row) == r"\sqrt{x^{2}+1}"
    clipboard.setText("<math><mfrac><mi>a</mi><mi>b</mi></mfrac></math>")
    QTest.keyClick(fresh, KEYS.Key_V, CONTROL)
    assert source_of(fresh.writing.row).endswith(r"\frac{a}{b}")


def test_what_can_not_be_read_is_kept_and_said(hand: Hand) -> None:
    editor = opened(hand)
    QTest.keyClicks(editor, "2x+")
    assert editor.says.isVisible() and "missing" in editor.says.text()
    QTest.keyClick(editor, KEYS.Key_Return)
    assert sources(hand) == ["2x +"]


def test_empty_places_are_stepped_through_and_the_tray_stays_off_the_line(hand: Hand) -> None:
    editor = opened(hand)
    QTest.keyClicks(editor, "1/")
    assert editor.writing.path == ((0, 1),)
    QTest.keyClicks(editor, "x")
    QTest.keyClick(editor, KEYS.Key_Tab)
    assert editor.writing.path == () and editor.writing.at == 1
    assert editor.tray is not None
    assert editor.geometry().bottom() < editor.tray.geometry().bottom() - 222
    QTest.mouseClick(editor.tray.ear, Qt.MouseButton.LeftButton)
    assert editor.tray is None and not EquationEditor.tray_wanted and editor.hasFocus()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    QApplication.processEvents()
    assert hand.window.editors.open is editor and editor.back is not None and editor.back.isVisible()
    QTest.mouseClick(editor.back, Qt.MouseButton.LeftButton)
    assert isinstance(editor.tray, KeyTray) and editor.tray.geometry().bottom() == hand.canvas.rect().bottom()
    assert EquationEditor.tray_wanted and editor.hasFocus() and hand.window.editors.open is editor


def test_a_graph_comes_with_the_equation_and_each_has_its_own_hue(hand: Hand) -> None:
    (axes,) = hand.put(Axes(placement=Placement(60, 60)))
    for k, typed in enumerate(("y=x^2", "y=2x")):
        hand.window.editors.edit(Equation(source="", placement=Placement(700, 100 + 100 * k)))
        editor = hand.window.editors.open
        QTest.keyClicks(editor, typed)  # type: ignore[arg-type]
        QTest.keyClick(editor, KEYS.Key_Escape)  # type: ignore[arg-type]
    made = [thing for thing in hand.canvas.page.things if isinstance(thing, Equation)]
    assert [thing.axes for thing in made] == [axes, axes] and made[0].hue != made[1].hue
    drawn = hand.canvas.page.thing(axes)
    assert isinstance(drawn, Axes) and len(drawn.curves(hand.canvas.page)) == 2
    hand.window.canvas.session.undo()
    assert len(drawn.curves(hand.canvas.page)) == 1


def test_the_page_goes_up_for_the_keys_and_back_when_the_line_is_ended_by_keys(hand: Hand) -> None:
    at = hand.canvas.camera.to_view(0, 0)
    low = hand.canvas.camera.to_page(0, hand.canvas.height() - 30)[1]
    hand.window.editors.edit(Equation(source="", placement=Placement(200, low)))
    editor = hand.window.editors.open
    assert isinstance(editor, EquationEditor) and editor.tray is not None
    QTest.keyClicks(editor, "y=3x")
    assert hand.canvas.camera.to_view(0, 0) != at
    assert editor.geometry().bottom() < editor.tray.y() + editor.tray.ear.height()
    QTest.keyClick(editor, KEYS.Key_Return, SHIFT)
    below = hand.window.editors.open
    assert isinstance(below, EquationEditor) and below is not editor
    QTest.keyClicks(below, "x=1")
    QTest.keyClick(below, KEYS.Key_Return)
    assert hand.window.editors.open is None and hand.canvas.camera.to_view(0, 0) == at
    assert len(sources(hand)) == 2
