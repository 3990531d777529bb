"""Timers of Qt in one line."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6 import sip
from PyQt6.QtCore import QObject, QThread, QTimer
from PyQt6.QtWidgets import QDialog, QScrollArea, QWidget


def timer(parent: QObject, run: Callable[[], object], every: int = 0, once: bool = False) -> QTimer:
    """A timer that is not started yet. every: ms."""
    made = QTimer(parent)
    made.setInterval(every)
    made.setSingleShot(once)
    made.timeout.connect(run)
    return made


_retired: list[QWidget] = []


def retire(widget: QWidget) -> None:
    """Takes a widget away that may be handling an event of its own right now.

    `deleteLater` is not enough for that: a handler that opens a dialog or a menu starts a loop within the loop, which
    deletes what was given up within it, while the handler's widget is still on the stack. So it waits for the outermost
    loop.
    """
    widget.hide()
    _retired.append(widget)
    if len(_retired) == 1:
        QTimer.singleShot(0, _let_go)


def _let_go() -> None:
    thread = QThread.currentThread()
    if thread is not None and thread.loopLevel() > 1:
        QTimer.singleShot(100, _let_go)
        return
    while _retired:
        widget = _retired.pop()
        if not sip.isdeleted(widget):
            widget.deleteLater()


def show_within(area: QScrollArea, widget: QWidget) -> None:
    """Shows another widget in a scroll area. `setWidget` alone destroys the one before at once, though it may be a press on
    that one which asks for it."""
    old = area.takeWidget()
    area.setWidget(widget)
    if old is not None:
        old.setParent(area)
        retire(old)


def asked(dialog: QDialog) -> bool:
    """Shows a dialog and waits; whether it was accepted. What was entered can be read until the caller returns.

    PyQt makes a dialog that has been executed Python's own. Then the collector of garbage would take the functions that its
    fields call before it takes the fields, and a key that still reaches them would call what is gone.
    """
    try:
        return bool(dialog.exec())
    finally:
        sip.transferto(dialog, dialog.parent())  # type: ignore[arg-type]  # its stubs forget that it may be None
        retire(dialog)
