"""The Ledge: which tool stands proud, along which edge it lies, how it fits."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractButton

from larch.desk.window import Window
from tests.desk.test_window import LEFT, click, draw


def test_the_tool_in_hand_stands_proud_and_pressed_again_shows_its_choices(window: Window) -> None:
    pen = window.ledge.buttons["pen"]
    click(pen)
    assert pen.isChecked()
    assert not window.choices.isVisible()
    click(pen)
    assert window.choices.isVisible()
    hue = next(b for b in window.choices.findChildren(QAbstractButton) if b.accessibleName() == "colour: berry")
    click(hue)
    draw(window, (300, 300), (340, 320), (400, 300))
    assert window.canvas.page.things[-1].hue == "berry"


@pytest.mark.parametrize("edge", ["top", "left", "right", "bottom"])
def test_the_ledge_lies_along_any_edge_and_stays_there(window: Window, edge: str, qtbot) -> None:  # type: ignore[no-untyped-def]
    window.run(f"ledge {edge}")

    def lies() -> bool:
        room, ledge = window.room.rect(), window.ledge.geometry()
        edges = {"top": ledge.top() == 0, "left": ledge.left() == 0, "right": ledge.right() == room.right()}
        upright = ledge.height() > ledge.width()
        return edges.get(edge, ledge.bottom() == room.bottom()) and upright == (edge in ("left", "right"))

    qtbot.waitUntil(lies)
    room, ledge = window.room.rect(), window.ledge.geometry()
    assert all(room.contains(button.geometry().translated(ledge.topLeft())) for button in window.ledge.buttons.values())
    from larch.services.settings import load_settings

    assert load_settings().ledge == edge


def test_a_floating_ledge_is_dragged_and_stays_in_the_window(window: Window) -> None:
    window.run("ledge float")
    ledge = window.ledge
    start = ledge.pos()
    from tests.board.test_tools import move

    grip = QPoint(6, 6)
    QTest.mousePress(ledge, LEFT, Qt.KeyboardModifier.NoModifier, grip)
    move(ledge, grip + QPoint(-40, -200))
    assert ledge.pos() == start + QPoint(-40, -200)
    move(ledge, grip + QPoint(-5000, -5000))
    QTest.mouseRelease(ledge, LEFT, Qt.KeyboardModifier.NoModifier, grip)
    assert ledge.pos() == QPoint(0, 0)
    assert window.canvas.geometry() == window.room.rect()
    click(ledge.buttons["pen"])
    click(ledge.buttons["pen"])
    assert window.choices.geometry().top() > ledge.geometry().bottom() - 40
    window.run("ledge bottom")
    assert ledge.geometry().bottom() == window.room.rect().bottom()


@pytest.mark.parametrize("edge", ["left", "right"])
def test_an_upright_ledge_at_the_board_fits_a_small_screen(window: Window, edge: str) -> None:
    window.run(f"ledge {edge}")
    window.ledge.set_large(True)
    assert window.ledge.sizeHint().height() <= 768
