"""A widget that is destroyed within an event of its own is noticed; and the places where that happened are mended."""

from __future__ import annotations

from collections.abc import Callable, Iterator

import pytest
from PyQt6 import sip
from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QComboBox, QPushButton, QScrollArea, QWidget

from larch.attack.watching import Watching
from larch.board.timers import show_within
from larch.core.things.numbers.number_line import NumberLine
from tests.board.test_tools import Hand

LEFT = Qt.MouseButton.LeftButton


@pytest.fixture
def faults(qapp: Watching) -> Iterator[list[str]]:
    qapp.faults.clear()
    yield qapp.faults
    qapp.faults.clear()


class Sensor(QObject):
    """Handles a key by doing something with itself; a bare object, since Qt would go on to use a widget that is gone."""

    def __init__(self, does: Callable[[Sensor], object]) -> None:
        super().__init__(QApplication.instance())
        self.does = does

    def event(self, event: QEvent | None) -> bool:
        if event is not None and event.type() == QEvent.Type.KeyPress:
            self.does(self)
        return True


@pytest.mark.parametrize("does", [sip.delete, lambda sensor: sensor.setParent(None)], ids=["deleted", "orphaned"])
def test_what_goes_while_it_handles_a_key_is_noticed(does: Callable[..., object], faults: list[str]) -> None:
    key = QKeyEvent(QEvent.Type.KeyPress, Qt.Key.Key_A, Qt.KeyboardModifier.NoModifier)
    QApplication.postEvent(Sensor(does), key)
    QApplication.processEvents()
    assert len(faults) == 1 and "Sensor was destroyed within an event of its own" in faults[0]


def test_so_is_what_nobody_refers_to_any_more(faults: list[str], qapp: Watching) -> None:
    kept = [QWidget()]
    button = QPushButton("go", kept[0])
    button.pressed.connect(kept.clear)
    kept[0].show()
    QTest.mousePress(button, LEFT)
    assert faults and all("destroyed" in fault for fault in faults)


def test_what_is_given_up_and_goes_later_is_no_fault(faults: list[str], qapp: Watching) -> None:
    area = QScrollArea()
    first = QWidget()
    button = QPushButton("go", first)
    area.setWidget(first)
    button.pressed.connect(lambda: show_within(area, QWidget()))
    area.show()
    QTest.mouseClick(button, LEFT)
    assert not faults and not sip.isdeleted(button) and not button.isVisible()
    for _k in range(5):
        QApplication.processEvents()
        QApplication.sendPostedEvents(None, 52)  # QEvent.Type.DeferredDelete
    assert sip.isdeleted(first) and not faults


def test_a_choice_in_the_facts_that_builds_them_anew(hand: Hand, faults: list[str]) -> None:
    hand.put(NumberLine())
    hand.window.facts.want(True)
    hand.canvas.select([hand.canvas.page.things[0].id])
    lists = [one for one in hand.window.facts.findChildren(QComboBox) if one.isVisible() and one.count() > 1]
    assert lists
    for _round in range(3):
        for one in [one for one in hand.window.facts.findChildren(QComboBox) if one.isVisible()]:
            QTest.keyClick(one, Qt.Key.Key_Down)
            QApplication.processEvents()
    assert not faults
