"""Timers of Qt in one line."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject, QTimer


def timer(parent: QObject, run: Callable[[], object], every: int = 0, once: bool = False) -> QTimer:
    """A timer that is not started yet. every: ms."""
    made = QTimer(parent)
    made.setInterval(every)
    made.setSingleShot(once)
    made.timeout.connect(run)
    return made
