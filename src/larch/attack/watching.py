"""The rule that a widget is never destroyed within an event of its own, made to be noticed.

A widget that goes while it, or a child of it, handles a press, a key or a touch leaves Qt with the address of what is gone:
the program ends, or not, as chance has it. So an application that watches keeps the receivers of all input that is being
handled, however deep one loop lies within another, and notes where one of them was destroyed.

It is for tests and for the monkey within the program. Every event then goes through Python, those of threads too, which now
and then ended the program at a real window; so there nothing watches, and a fault ends it as it would anyone's.
"""

from __future__ import annotations

import functools
import sys
import traceback
from typing import Any

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QObject
from PyQt6.QtGui import QDropEvent, QFocusEvent, QInputEvent, QShortcutEvent
from PyQt6.QtWidgets import QApplication

ALONE = 3  # references: the one that was given, the name here, and that of the question itself
INPUT = (QInputEvent, QFocusEvent, QShortcutEvent, QDropEvent)  # classes: asking for types would make each event dearer


_address: Any = sip.unwrapinstance  # its stubs say that it returned nothing


class Watching(QApplication):
    """faults: where a widget was destroyed within an event of its own, as text, newest last."""

    def __init__(self, arguments: list[str]) -> None:
        super().__init__(arguments)
        self.faults: list[str] = []
        self._handling: list[int] = []  # addresses of receivers, the innermost last
        self._known: set[int] = set()

    def notify(self, receiver: QObject | None, event: QEvent | None) -> bool:
        if receiver is None or event is None or not isinstance(event, INPUT):
            return super().notify(receiver, event)
        address: int = _address(receiver)
        if address not in self._known:
            self._known.add(address)
            receiver.destroyed.connect(functools.partial(self._gone, address, type(receiver).__name__))
        self._handling.append(address)
        before = len(self.faults)
        try:
            return super().notify(receiver, event)
        finally:
            self._handling.pop()
            # A reference is held here, so what Python owned is still there, though nobody else would have kept it.
            alone = sys.getrefcount(receiver) <= ALONE and not sip.isdeleted(receiver) and sip.ispyowned(receiver)
            if len(self.faults) == before and (alone or sip.isdeleted(receiver)):
                self._note(type(receiver).__name__)

    def _note(self, name: str) -> None:
        where = "".join(traceback.format_stack(limit=14))
        self.faults.append(f"a {name} was destroyed within an event of its own\n{where}")

    def _gone(self, address: int, name: str, _object: QObject | None = None) -> None:
        self._known.discard(address)
        if address in self._handling:
            self._note(name)
