"""Synthetic touch points with ids, contact sizes and pressure, sent in where a platform plugin would.

PyQt6 has no QTest.touchEvent, and its QEventPoint constructor loses the low 24 bits of an id. So the private struct is
poked through ctypes at offsets that are found at run time with sentinels and verified through the public getters.
"""

from __future__ import annotations

import ctypes
import os
from functools import cache

import PyQt6
from PyQt6 import sip
from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QEventPoint, QInputDevice, QPointingDevice
from PyQt6.QtWidgets import QWidget

State = QEventPoint.State
SIZE = 0xE0
REGISTER = "_ZN22QWindowSystemInterface19registerInputDeviceEPK12QInputDevice"
HANDLE = "_Z21qt_handleTouchEventv2P7QWindowPK15QPointingDeviceRK5QListI11QEventPointE6QFlagsIN2Qt16KeyboardModifierEE"
_devices: list[QPointingDevice] = []  # registered devices must outlive the application


def _private(point: QEventPoint) -> int:
    address = ctypes.c_void_p.from_address(sip.unwrapinstance(point)).value
    assert address is not None
    return address


def _read(point: QEventPoint) -> dict[str, float]:
    size = point.ellipseDiameters()
    return {"x": point.position().x(), "y": point.position().y(), "w": size.width(), "h": size.height()}


@cache
def _offsets() -> dict[str, int]:
    found: dict[str, int] = {}

    def fresh() -> QEventPoint:
        return QEventPoint(0, State.Pressed, QPointF(11, 12), QPointF(13, 14))

    for offset in range(0x28, SIZE - 8, 8):
        point = fresh()
        before = _read(point)
        cell = ctypes.c_double.from_address(_private(point) + offset)
        old, cell.value = cell.value, 0.625
        changed = [key for key, value in _read(point).items() if value == 0.625 and before[key] != value]
        cell.value = old
        if len(changed) == 1:
            found[changed[0]] = offset
    for offset in range(0x28, SIZE - 4, 4):
        point = fresh()
        number = ctypes.c_int32.from_address(_private(point) + offset)
        kept, number.value = number.value, 77123
        if point.id() == 77123:
            found["id"] = offset
        number.value = kept
    assert {"id", "x", "y", "w", "h"} <= found.keys(), found
    return found


def _point(id: int, state: State, at: QPointF, widget: QWidget, contact: tuple[float, float]) -> QEventPoint:
    window = widget.window()
    assert window is not None
    point = QEventPoint(id << 24, state, QPointF(widget.mapTo(window, at)), widget.mapToGlobal(at))
    values = {"x": at.x(), "y": at.y(), "w": contact[0], "h": contact[1]}
    for key, value in values.items():
        ctypes.c_double.from_address(_private(point) + _offsets()[key]).value = value
    ctypes.c_int32.from_address(_private(point) + _offsets()["id"]).value = id
    assert point.id() == id
    return point


def _library() -> ctypes.CDLL:
    return ctypes.CDLL(os.path.join(os.path.dirname(PyQt6.__file__), "Qt6/lib/libQt6Gui.so.6"))


def touch_device() -> QPointingDevice:
    able = QInputDevice.Capability
    device = QPointingDevice(
        "test touch", 0x7001 + len(_devices), QInputDevice.DeviceType.TouchScreen, QPointingDevice.PointerType.Finger,
        able.Position | able.Area | able.Pressure, 40, 0,
    )  # fmt: skip
    register = _library()[REGISTER]
    register.argtypes = [ctypes.c_void_p]
    register.restype = None
    register(sip.unwrapinstance(device))
    _devices.append(device)
    return device


class _QList(ctypes.Structure):
    _fields_ = [("d", ctypes.c_void_p), ("ptr", ctypes.c_void_p), ("size", ctypes.c_ssize_t)]


def send_touch(
    widget: QWidget,
    device: QPointingDevice,
    points: list[tuple[int, State, float, float]],
    contact: tuple[float, float] = (9, 8),
) -> None:
    """points: (id, state, x, y) of all fingers now down, in the widget's pixels."""
    made = [_point(id, state, QPointF(x, y), widget, contact) for id, state, x, y in points]
    pointers = (ctypes.c_void_p * len(made))(*[_private(point) for point in made])
    listed = _QList(None, ctypes.addressof(pointers), len(made))
    handle = _library()[HANDLE]
    handle.argtypes = [ctypes.c_void_p] * 3 + [ctypes.c_int]
    handle.restype = ctypes.c_bool
    window = widget.window()
    assert window is not None
    handle(sip.unwrapinstance(window.windowHandle()), sip.unwrapinstance(device), ctypes.addressof(listed), 0)
