"""Pictures that are read in a thread tell here when they have come, so that what shows them is painted anew."""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal


class Arrivals(QObject):
    """arrived: the name of a medium that can be painted now."""

    arrived = pyqtSignal(str)


arrivals = Arrivals()
