"""Qt's mouse, touch and tablet events as neutral pointer samples."""

from __future__ import annotations

import time
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import Qt
from PyQt6.QtGui import (
    QEventPoint,
    QInputEvent,
    QMouseEvent,
    QPointingDevice,
    QTabletEvent,
    QTouchEvent,
)

from larch.board.pointer import Sample
from larch.core.base.shape import Point

ToPage = Callable[[float, float], Point]
BUTTONS = {
    Qt.MouseButton.LeftButton: "left",
    Qt.MouseButton.MiddleButton: "middle",
    Qt.MouseButton.RightButton: "right",
}


def _time(event: QInputEvent) -> float:
    return float(event.timestamp()) or time.monotonic() * 1000


def _keys(event: QInputEvent) -> dict[str, Any]:
    held = event.modifiers()
    return {
        "shift": bool(held & Qt.KeyboardModifier.ShiftModifier),
        "control": bool(held & Qt.KeyboardModifier.ControlModifier),
        "alt": bool(held & Qt.KeyboardModifier.AltModifier),
    }


def from_mouse(event: QMouseEvent, to_page: ToPage, clicks: int = 1) -> Sample:
    at = event.position()
    button = BUTTONS.get(event.button(), "left")
    return Sample(
        "mouse", "mouse", (at.x(), at.y()), to_page(at.x(), at.y()), _time(event), clicks=clicks, button=button,
        **_keys(event),
    )  # fmt: skip


def from_tablet(event: QTabletEvent, to_page: ToPage) -> Sample:
    at = event.position()
    kind = "eraser" if event.pointerType() == QPointingDevice.PointerType.Eraser else "pen"
    device = event.pointingDevice()
    tip = device.uniqueId().numericId() if device is not None else 0
    return Sample(
        f"{kind} {tip:x}", kind, (at.x(), at.y()), to_page(at.x(), at.y()), _time(event), pressure=event.pressure(),
        senses_pressure=True, **_keys(event),
    )  # fmt: skip


def from_touch(event: QTouchEvent, point: QEventPoint, to_page: ToPage) -> Sample:
    """A touch point. Its pressure is not used for width: most boards report none or a constant one."""
    at = point.position()
    size = point.ellipseDiameters()
    return Sample(
        f"touch {point.id()}", "touch", (at.x(), at.y()), to_page(at.x(), at.y()), _time(event),
        contact=max(size.width(), size.height()), **_keys(event),
    )  # fmt: skip
