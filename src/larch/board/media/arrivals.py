"""What is worked out elsewhere tells here when it has come, so that what shows it is painted anew."""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal


class Arrivals(QObject):
    """arrived: the name of a medium that can be painted now. checked: more is known about lines of solutions."""

    arrived = pyqtSignal(str)
    checked = pyqtSignal()


arrivals = Arrivals()
