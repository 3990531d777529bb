"""The ledge in a narrow window: what finds no room folds, and is still reached."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QWidget

from larch.desk.window import Window

LEFT = Qt.MouseButton.LeftButton


def all_of(window: Window) -> list[QWidget]:
    ledge = window.ledge
    small = [ledge.back, ledge.number, ledge.onwards, ledge.undo, ledge.redo, ledge.bin, ledge.again, ledge.shelf]
    return [*small, *[b for b in (*ledge.buttons.values(), ledge.fold, ledge.desk) if b.parent() is ledge and b.isVisible()]]


@pytest.mark.parametrize("edge", ["bottom", "top", "left", "right", "float"])
@pytest.mark.parametrize("board", [False, True])
@pytest.mark.parametrize("size", [(952, 500), (1024, 560), (1272, 760), (1920, 1040)])
def test_nothing_lies_off_the_ledge_or_on_something_else(window: Window, qtbot, size, board, edge) -> None:  # type: ignore[no-untyped-def]
    window.resize(*size)
    window.set_ledge(edge)
    window.ledge.set_large(board)
    if edge == "float":
        window.ledge.float_to(window.ledge.pos())
    qtbot.waitUntil(lambda: window.size().width() == size[0])
    qtbot.wait(1)
    seen = all_of(window)
    rects = [widget.geometry() for widget in seen]
    for widget, rect in zip(seen, rects, strict=True):
        corner = widget.mapTo(window.ledge, QPoint(0, 0))
        assert window.ledge.rect().contains(rect.translated(corner - widget.pos())), widget.accessibleName()
    for k, a in enumerate(rects):
        for b in rects[k + 1 :]:
            assert not a.intersects(b)
    assert window.width() == size[0]
    hidden = [name for name, button in window.ledge.buttons.items() if button.parent() is not window.ledge]
    assert bool(hidden) == window.ledge.fold.isVisible()


def test_a_folded_tool_is_taken_from_the_card_and_seen_to_be_in_hand(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    window.resize(900, 560)
    window.ledge.set_large(True)
    ledge = window.ledge
    assert ledge.fold.isVisible()
    hidden = [name for name, button in ledge.buttons.items() if button.parent() is not ledge]
    assert "move page" in hidden
    QTest.mouseClick(ledge.fold, LEFT)
    assert ledge.buttons["move page"].isVisible()
    QTest.mouseClick(ledge.buttons["move page"], LEFT)
    assert ledge.current.name == "move page"
    assert not ledge.buttons["move page"].isVisible()
    assert ledge.fold.isChecked()
    assert ledge.fold.text() == ledge.current.label()
    ledge.take("pen")
    assert not ledge.fold.isChecked()
    window.resize(1920, 1000)
    assert all(button.isVisible() for button in ledge.buttons.values())


def test_the_way_back_from_the_board_is_held_not_brushed(window: Window, qtbot, said: list[str]) -> None:  # type: ignore[no-untyped-def]
    window.go_to_board()
    button = window.ledge.desk
    assert button.isVisible()
    QTest.mouseClick(button, LEFT)
    assert window.at_board
    assert "Hold" in said[-1]
    QTest.mousePress(button, LEFT)
    qtbot.waitUntil(lambda: not window.at_board, timeout=5000)
    QTest.mouseRelease(button, LEFT)
    assert not button.isVisible()


def test_leaving_the_board_gives_back_the_window_as_it_was(window: Window) -> None:
    window.showMaximized()
    window.go_to_board()
    assert window.isFullScreen()
    window.go_to_board()  # once more changes nothing
    window.go_to_desk()
    assert window.isMaximized()
    window.showNormal()
    window.go_to_board()
    window.go_to_desk()
    assert not window.isMaximized()
    assert not window.isFullScreen()
