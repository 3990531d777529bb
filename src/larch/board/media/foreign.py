"""Drawings that did not come with Larch are painted in a process of their own: it can be stopped, and it may die.

A drawing of three kilobytes can ask for years of work or all memory there is. So what is shown of it is a picture, made
within bounds of time and memory; where that can't be, there is a reason instead.
"""

from __future__ import annotations

import re
import threading
from functools import lru_cache

from PyQt6.QtGui import QImage

from larch.core.base.words import N_, _
from larch.core.media.picture_set import drawing
from larch.core.media.store import store
from larch.services.worker import Worker, WorkerError

SECONDS = 2.0
MEMORY = 900  # MB
HEAVY = re.compile(rb"<(?:\w+:)?(mask|filter|pattern|use|symbol|marker|clipPath)\b")
MOST_PLAIN = {b"<": 20_000, b"<stop": 1_000, b"opacity": 400}  # of these in a drawing that is handed on as it is
TOO_MUCH, DAMAGED = N_("this drawing is too much for Larch"), N_("this drawing is damaged")

_lock = threading.Lock()
_drawer: Worker | None = None


class NotDrawn(Exception):
    """It can't be painted; the message says why."""


def drawer() -> Worker:
    """The process that paints."""
    global _drawer
    with _lock:
        if _drawer is None:
            import atexit

            _drawer = Worker(MEMORY)
            atexit.register(_drawer.close)
        return _drawer


@lru_cache(512)
def is_foreign(media: str) -> bool:
    return media.endswith(".svg") and drawing(media[:64]) is None


def is_plain(data: bytes) -> bool:
    """Whether a drawing is nothing but shapes and a few shades: such a one can be handed on to other programs as it is."""
    return HEAVY.search(data) is None and all(data.count(part) <= most for part, most in MOST_PLAIN.items())


def painted_elsewhere(data: bytes, side: int) -> QImage:
    """The drawing, `side` pixels along its longer side. Waits for it, but no longer than is bearable off the interface's
    thread. Raises NotDrawn."""
    request = drawer().ask("larch.board.media.foreign:paint", data, side, seconds=SECONDS)
    try:
        wide, high, pixels = request.wait()
    except WorkerError as error:
        raise NotDrawn(_(DAMAGED if error.kind == "ValueError" else TOO_MUCH)) from error
    return QImage(pixels, wide, high, 4 * wide, QImage.Format.Format_ARGB32_Premultiplied).copy()


def foreign_image(media: str, side: int) -> QImage | None:
    """The same by its name; None if it is lost."""
    data = store.data(media)
    return None if data is None else painted_elsewhere(data, side)


def paint(data: bytes, side: int) -> list[object]:
    """In the process: width, height and pixels. Raises ValueError for what is no drawing."""
    import os

    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    from PyQt6.QtCore import QByteArray, QRectF, Qt
    from PyQt6.QtGui import QGuiApplication, QPainter
    from PyQt6.QtSvg import QSvgRenderer

    global _app
    if QGuiApplication.instance() is None:
        _app = QGuiApplication(["larch"])
    drawn = QSvgRenderer(QByteArray(data))
    if not drawn.isValid():
        raise ValueError("no drawing")
    size = drawn.viewBoxF().size()
    longest = max(size.width(), size.height()) or 1.0
    wide, high = (max(1, round(side * one / longest)) for one in (size.width(), size.height()))
    image = QImage(wide, high, QImage.Format.Format_ARGB32_Premultiplied)
    image.fill(Qt.GlobalColor.transparent)
    painter = QPainter(image)
    drawn.render(painter, QRectF(0, 0, wide, high))
    painter.end()
    bits = image.constBits()
    assert bits is not None
    return [wide, high, bytes(bits.asarray(image.sizeInBytes()))]


_app: object = None  # lives as long as the process
