"""Real touch and tablet events through the real window."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import QEvent, QPointF, Qt
from PyQt6.QtGui import QInputDevice, QPointingDevice, QPointingDeviceUniqueId, QTabletEvent
from PyQt6.QtWidgets import QApplication

from larch.core.model.capabilities import IsInk
from larch.core.things.ink.ink import Ink
from tests.board.touch import State, send_touch, touch_device

pytestmark = pytest.mark.usefixtures("own_folders")


def strokes(window) -> list[Ink]:  # type: ignore[no-untyped-def]
    return [thing for thing in window.canvas.page.things if isinstance(thing, Ink)]


def blank(window) -> None:  # type: ignore[no-untyped-def]
    window.pages.new()
    window.ledge.take("pen")


def test_two_touch_points_draw_two_strokes_at_the_same_time(window) -> None:  # type: ignore[no-untyped-def]
    blank(window)
    device, canvas = touch_device(), window.canvas
    send_touch(canvas, device, [(0, State.Pressed, 200, 200)])
    send_touch(canvas, device, [(0, State.Stationary, 200, 200), (7, State.Pressed, 700, 300)])
    assert len(canvas._ink.strokes) == 2
    for step in range(1, 12):
        send_touch(canvas, device, [(0, State.Updated, 200 + 9 * step, 200), (7, State.Updated, 700, 300 + 9 * step)])
    send_touch(canvas, device, [(0, State.Released, 299, 200), (7, State.Updated, 700, 410)])
    assert len(strokes(window)) == 1
    send_touch(canvas, device, [(7, State.Released, 700, 410)])
    first, second = strokes(window)
    assert first.box().width > 5 * first.box().height
    assert second.box().height > 5 * second.box().width
    assert len(window.session.history.done) == 3  # the page, and one undo a stroke
    window.undo()
    assert strokes(window) == [first]


def test_two_fingers_on_empty_page_pinch(window) -> None:  # type: ignore[no-untyped-def]
    window.pages.new()
    device, canvas = touch_device(), window.canvas
    before = canvas.camera.scale
    send_touch(canvas, device, [(0, State.Pressed, 500, 300)])
    send_touch(canvas, device, [(0, State.Stationary, 500, 300), (1, State.Pressed, 600, 300)])
    send_touch(canvas, device, [(0, State.Updated, 450, 300), (1, State.Updated, 650, 300)])
    assert canvas.camera.scale == pytest.approx(2 * before)
    page = canvas.camera.to_page(550, 300)
    send_touch(canvas, device, [(0, State.Updated, 470, 340), (1, State.Updated, 670, 340)])
    assert canvas.camera.to_view(*page) == pytest.approx((570, 340), abs=1.5)
    send_touch(canvas, device, [(0, State.Released, 470, 340), (1, State.Released, 670, 340)])
    assert not canvas.pointers.busy
    assert canvas.page.things == ()


def tablet(kind: QPointingDevice.PointerType, tip: int) -> QPointingDevice:
    able = QInputDevice.Capability
    return QPointingDevice(
        "pen", 0x101 + tip, QInputDevice.DeviceType.Stylus, kind, able.Position | able.Pressure | able.Hover, 1, 3,
        "seat0", QPointingDeviceUniqueId.fromNumericId(tip),
    )  # fmt: skip


def send_pen(canvas, device: QPointingDevice, path: list[tuple[float, float, float]]) -> None:  # type: ignore[no-untyped-def]
    kinds = [QEvent.Type.TabletPress] + [QEvent.Type.TabletMove] * (len(path) - 2) + [QEvent.Type.TabletRelease]
    none, left = Qt.MouseButton.NoButton, Qt.MouseButton.LeftButton
    for kind, (x, y, pressure) in zip(kinds, path, strict=True):
        at = QPointF(x, y)
        held = none if kind == QEvent.Type.TabletRelease else left
        event = QTabletEvent(
            kind, device, at, canvas.mapToGlobal(at), pressure, 0, 0, 0, 0, 0, Qt.KeyboardModifier.NoModifier, left, held
        )
        QApplication.sendEvent(canvas, event)


def test_pressure_gives_the_width_and_the_eraser_end_erases(window) -> None:  # type: ignore[no-untyped-def]
    blank(window)
    canvas = window.canvas
    pen = tablet(QPointingDevice.PointerType.Pen, 5)
    send_pen(canvas, pen, [(300 + 10 * i, 200, 0.1 + 0.04 * i) for i in range(20)])
    (ink,) = strokes(window)
    pressures = [sample[2] for sample in ink.samples()]
    assert pressures[0] == pytest.approx(0.1, abs=1e-6)
    assert pressures[-2] > 0.7
    printed = canvas.page.things
    eraser = tablet(QPointingDevice.PointerType.Eraser, 6)
    send_pen(canvas, eraser, [(400, 100, 0.5), (400, 190, 0.5), (400, 240, 0.5)])
    first, second = strokes(window)  # the stroke fell into two pieces, and nothing else changed
    assert first.box().x1 < canvas.camera.to_page(400, 0)[0] < second.box().x0
    assert tuple(t for t in canvas.page.things if not isinstance(t, IsInk)) == tuple(
        t for t in printed if not isinstance(t, IsInk)
    )
    window.undo()
    assert strokes(window) == [ink]


def test_a_touch_that_is_taken_away_leaves_no_trace(window) -> None:  # type: ignore[no-untyped-def]
    blank(window)
    device, canvas = touch_device(), window.canvas
    send_touch(canvas, device, [(0, State.Pressed, 200, 200)])
    send_touch(canvas, device, [(0, State.Updated, 260, 240)])
    canvas.pointers.cancel()
    assert strokes(window) == []
    assert canvas._ink.strokes == {}
    send_touch(canvas, device, [(0, State.Released, 260, 240)])
    assert strokes(window) == []
