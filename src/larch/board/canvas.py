"""The canvas: paints the page, moves the view, and hands pointers on."""

from __future__ import annotations

import math
import sys
import time
from collections.abc import Callable

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QContextMenuEvent,
    QEventPoint,
    QMouseEvent,
    QNativeGestureEvent,
    QPainter,
    QPaintEvent,
    QResizeEvent,
    QShowEvent,
    QTabletEvent,
    QTouchEvent,
    QWheelEvent,
)
from PyQt6.QtWidgets import QWidget

from larch.board import chrome
from larch.board.above import Above
from larch.board.camera import Camera, fitting, shown_beside
from larch.board.dependents import dependents
from larch.board.in_hand import paint_in_hand
from larch.board.layers import AT_ONCE
from larch.board.media.arrivals import arrivals
from larch.board.paint import painting
from larch.board.pointer import Sample
from larch.board.qt_pointer import from_mouse, from_tablet, from_touch
from larch.board.stage import PageStage
from larch.board.timers import timer
from larch.board.views import view_of
from larch.core.base.shape import Box, Point, union
from larch.core.model.capabilities import WorksLocked
from larch.core.model.thing import media_of
from larch.core.session.session import Session
from larch.services.threads import run_in_pool

REST = 110  # ms without zooming after which the picture is made sharp
PALM_MM, LEAST_PALM = 35.0, 60.0  # contact from which a touch is a flat hand, in millimetres and at least in pixels
LEAST_DOTS, MOST_DOTS = 20.0, 600.0  # to the inch; what a screen says beyond that is not believed
TWICE, NEAR = 420.0, 26.0  # ms and pixels within which a second tap makes a double one
WHEEL_STEP = 1.0015


class Canvas(PageStage):
    """menu_wanted: a right click, with its global position, or None where a key asked for it."""

    menu_wanted = pyqtSignal(object)
    _numpy_ready = pyqtSignal()

    def __init__(self, session: Session, page_id: str, parent: QWidget | None = None) -> None:
        super().__init__(session, page_id, parent)
        self._fitted = True
        self._fetching = False
        self._last_press: Sample | None = None
        self.painted_at = 0.0  # by the monotonic clock
        self.has_keys: Callable[[], bool] = self.hasFocus
        self._rest = timer(self, self._settle, REST, once=True)
        self.setAttribute(Qt.WidgetAttribute.WA_OpaquePaintEvent)
        self.setAttribute(Qt.WidgetAttribute.WA_AcceptTouchEvents)
        self._above = Above(self)
        self._waiting: list[Callable[[], None]] = []
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setTabletTracking(True)
        self.setMinimumSize(120, 90)
        self._numpy_ready.connect(self._numpy_arrived)
        arrivals.arrived.connect(self._picture_arrived)
        arrivals.checked.connect(self._lines_checked)

    def _lines_checked(self) -> None:
        """More is known about solutions or graphs: they are painted anew. It comes from another thread, maybe late."""
        if sip.isdeleted(self):
            return
        boxes = self.surface.index.boxes
        found = [boxes[t.id] for t in self.page.things if t.id in boxes and view_of(t).awaits(t)]
        if found:
            self.surface.invalidate_each(found)
            self.surface.sharpen(AT_ONCE)
            self._refresh()

    def _picture_arrived(self, media: str) -> None:
        """A photograph has been read: what shows it is painted anew."""
        boxes = self.surface.index.boxes
        found = [boxes[t.id] for t in self.page.things if media in media_of(t) and t.id in boxes]
        if found:
            self.surface.invalidate_each(found)
            self.surface.sharpen(AT_ONCE)
            self._refresh()

    # Painting

    def paintEvent(self, event: QPaintEvent | None) -> None:
        assert event is not None
        self.painted_at = time.monotonic()
        self._warm_up()
        with painting(self) as painter:
            region = event.rect()
            base = self.surface
            if self.camera is base.camera:
                ratio = base.base.devicePixelRatio()
                source = QRectF(region.x() * ratio, region.y() * ratio, region.width() * ratio, region.height() * ratio)
                painter.drawPixmap(QRectF(region), base.base, source)
            else:
                painter.fillRect(region, QColor(self.page.paper.sheet()))
                painter.drawPixmap(base.stretched(base.camera, self.camera), base.base, QRectF(base.base.rect()))
            self._paint_live(painter)
            self._ink.paint(painter, region)
            self._paint_chrome(painter)

    def _paint_live(self, painter: QPainter) -> None:
        lifts = [*self._retiring, *self._lifts.values()]
        if lifts or self._motions:
            page = self.preview_page()
            for k, lift in enumerate(lifts):  # what several hands work at is painted once, as the last of them leaves it
                elsewhere = {id for later in lifts[k + 1 :] if later.picture is None for id in later.things}
                lift.paint(painter, page, self.camera, elsewhere if lift not in self._retiring else ())
            painter.save()
            painter.translate(self.camera.dx, self.camera.dy)
            painter.scale(self.camera.scale, self.camera.scale)
            lifted = {id for lift in lifts for id in lift.things}  # until the picture below is whole, also of those let go
            lifted |= {thing.id for thing in page.things[len(self.page.things) :]}
            users = dependents(page, lifted) | dependents(self.page, lifted) if lifted else set()
            for id in users - lifted:
                thing = page.thing(id)
                if thing is not None:
                    view_of(thing).paint(painter, thing, page)
            for motion in self._motions.values():
                view_of(motion.after).paint_motion(painter, motion.before, motion.after, page, motion.progress())
            painter.restore()

    def _paint_chrome(self, painter: QPainter) -> None:
        things = self.preview_page().some(self.selection)
        carried = next((lift.shift for lift in self._lifts.values() if any(lift.shift)), None)
        if carried is not None:
            things = tuple(thing.moved(*carried) for thing in things) if len(things) < 60 else ()
        if self.opened:
            chrome.paint_opened(painter, [t for t in self.page.things if self.opened in t.groups], self.camera)
        if len(things) == 1:
            paint_in_hand(painter, things[0], self.preview_page(), self.camera)
        chrome.paint_selection(painter, self.page, things, self.camera, self.at_board, self.handle_focus)
        for snap in self._snaps.values():
            chrome.paint_snap(painter, snap, self.camera)
        for box in self._marquees.values():
            chrome.paint_marquee(painter, box, self.camera)
        self.overlay.paint(painter, self.camera)

    def _warm_up(self) -> None:
        """NumPy is imported after the first paint, off this thread: graphs and ink wait a moment for it."""
        if not self.surface.waiting or self._fetching:
            return
        if "numpy.linalg" in sys.modules:
            self._numpy_arrived()
            return

        self._fetching = True

        def fetch() -> None:
            import numpy.linalg  # noqa: F401

            self._numpy_ready.emit()

        run_in_pool(fetch)

    def _numpy_arrived(self) -> None:
        if self.surface.waiting:
            self.surface.waiting = False
            self.surface.invalidate_all()
            self._refresh()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        size = self.size()
        self.surface.resize(size, self.devicePixelRatioF())
        self._ink.resize(size, self.devicePixelRatioF())
        if self._fitted:
            self.whole_page()
        self._refresh()

    def showEvent(self, event: QShowEvent | None) -> None:
        """A flat hand is told from a finger by its size on the board, whatever the board's pixels are."""
        super().showEvent(event)
        screen = self.screen()
        dots = screen.physicalDotsPerInch() if screen is not None else 0.0
        if LEAST_DOTS <= dots <= MOST_DOTS:
            self.pointers.palm = max(LEAST_PALM, PALM_MM / 25.4 * dots)

    def sizeHint(self) -> QSize:
        return QSize(1280, 720)

    # Camera

    def look(self, camera: Camera, fitted: bool = False) -> None:
        """Moves the view. A zoom is shown at once and made sharp when it rests."""
        self._fitted = fitted
        if camera.scale == self.surface.camera.scale:
            camera = Camera(camera.scale, round(camera.dx), round(camera.dy))
            self.camera = camera
            self.surface.look(camera)  # the strips that came into view follow in slices
        else:
            self.camera = camera
            self._rest.start()
        self._refresh()
        self.viewed.emit()

    def _settle(self) -> None:
        self.camera = Camera(self.camera.scale, round(self.camera.dx), round(self.camera.dy))
        self.surface.look(self.camera)
        self._refresh()

    def whole_page(self) -> None:
        self.look(self._fitting(self.page.printed()), fitted=True)
        self._settle_now()

    def _fitting(self, box: Box, margin: float = 0.0) -> Camera:
        free = self.free()
        return fitting(box, free.width, free.height, margin).panned(free.x0, free.y0)

    def cover(self, **edges: int) -> None:
        """Told how much of the view a drawer or card covers at an edge (left, top, right, below): the page makes room, so
        that what is being worked at stays seen."""
        covered = self.covered._replace(**edges)
        if covered == self.covered:
            return
        self.covered = covered
        if self._fitted:
            self.whole_page()
        elif self.selection:
            self.look(shown_beside(self.camera, chrome.frame(self.things(), self.camera), self.free()))

    def true_size(self) -> None:
        """100 %: one page unit to a pixel, about the middle of the view."""
        self.zoom_by(1 / self.camera.scale, self.free().centre)
        self._settle_now()

    def whole_extent(self) -> None:
        """Everything on the page, also what lies beyond its printed part."""
        boxes = [view_of(thing).box(thing) for thing in self.page.things]
        self.look(self._fitting(union([self.page.printed(), *boxes]), 20))
        self._settle_now()

    def _settle_now(self) -> None:
        self._rest.stop()
        if self.camera is not self.surface.camera:
            self._settle()
        self.surface.sharpen(AT_ONCE)
        self._refresh()

    def pan_by(self, dx: float, dy: float) -> None:
        self.look(self.camera.panned(dx, dy))

    def zoom_by(self, factor: float, view_pos: Point) -> None:
        self.look(self.camera.zoomed(factor, *view_pos))

    def _press(self, sample: Sample) -> None:
        """A pointer goes down on a sharp page: what it does is painted at the scale that is shown."""
        if self.camera is not self.surface.camera:
            self._settle_now()
        self.withdraw()
        self.pointers.press(self._counted(sample))

    def _counted(self, sample: Sample) -> Sample:
        """With the taps of fingers and pens counted, as Qt counts those of a mouse."""
        before, self._last_press = self._last_press, sample
        if sample.kind == "mouse" or before is None or before.kind != sample.kind:
            return sample
        quick = sample.time - before.time < TWICE and math.dist(sample.view_pos, before.view_pos) < NEAR
        return sample._replace(clicks=2) if quick and before.time > 0 else sample

    def mousePressEvent(self, event: QMouseEvent | None, clicks: int = 1) -> None:
        assert event is not None
        self.setFocus()
        if event.button() == Qt.MouseButton.RightButton:
            return
        self._press(from_mouse(event, self.camera.to_page, clicks))

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self.mousePressEvent(event, 2)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        self.pointers.move(from_mouse(event, self.camera.to_page))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        assert event is not None
        if event.button() != Qt.MouseButton.RightButton:
            self.pointers.release(from_mouse(event, self.camera.to_page))
            self._freed()

    def tabletEvent(self, event: QTabletEvent | None) -> None:
        assert event is not None
        if event.type() == QEvent.Type.TabletPress and self._above.at(event.globalPosition()) is not None:
            event.ignore()
            return
        sample = from_tablet(event, self.camera.to_page)
        handlers: dict[QEvent.Type, Callable[[Sample], None]] = {
            QEvent.Type.TabletPress: self._press,
            QEvent.Type.TabletMove: self.pointers.move,
            QEvent.Type.TabletRelease: self.pointers.release,
        }
        handler = handlers.get(event.type())
        if handler is not None:
            handler(sample)
            event.accept()
            self._freed()

    def event(self, event: QEvent | None) -> bool:
        assert event is not None
        kind = event.type()
        if kind in (QEvent.Type.TouchBegin, QEvent.Type.TouchUpdate, QEvent.Type.TouchEnd, QEvent.Type.TouchCancel):
            assert isinstance(event, QTouchEvent)
            if kind == QEvent.Type.TouchBegin and all(self._above.at(p.globalPosition()) for p in event.points()):
                event.ignore()  # Qt then makes a mouse of it, for what lies there
                return False
            self._touch(event)
            return True
        if kind == QEvent.Type.NativeGesture and isinstance(event, QNativeGestureEvent):
            return self._native_gesture(event)
        return super().event(event)

    def _touch(self, event: QTouchEvent) -> None:
        event.accept()
        if event.type() == QEvent.Type.TouchCancel:
            self._above.forget()
            self.pointers.cancel()
            return
        for point in event.points():
            sample = from_touch(event, point, self.camera.to_page)
            state = point.state()
            if self._above.takes(sample.pointer, point):
                continue
            if state == QEventPoint.State.Pressed:
                self._press(sample)
            elif state == QEventPoint.State.Updated:
                self.pointers.move(sample)
            elif state == QEventPoint.State.Released:
                self.pointers.release(sample)
        self._freed()

    def when_free(self, run: Callable[[], None]) -> None:
        """Does something once the next pointer is lifted and none is down: nothing may move under a finger."""
        self._waiting.append(run)

    def _freed(self) -> None:
        if self._waiting and not self.pointers.busy:
            waiting, self._waiting = self._waiting, []
            for run in waiting:
                run()

    def _native_gesture(self, event: QNativeGestureEvent) -> bool:
        if event.gestureType() != Qt.NativeGestureType.ZoomNativeGesture:
            return False
        at = event.position()
        self.zoom_by(1 + event.value(), (at.x(), at.y()))
        return True

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        """The wheel moves the page; with Ctrl it zooms about the pointer."""
        assert event is not None
        at, turn, fine = event.position(), event.angleDelta(), event.pixelDelta()
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.zoom_by(WHEEL_STEP ** turn.y(), (at.x(), at.y()))
        else:
            step = QPointF(fine) if not fine.isNull() else QPointF(turn) / 2
            if event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
                step = QPointF(step.y(), step.x())
            self.pan_by(step.x(), step.y())
        event.accept()

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        assert event is not None
        if event.reason() == QContextMenuEvent.Reason.Keyboard:
            if self.selection:
                self.menu_wanted.emit(None)
            return
        at = self.camera.to_page(event.pos().x(), event.pos().y())
        thing = self.thing_at(at, 4 / self.camera.scale)
        if thing is not None and thing.id not in self.selection:
            self.select((thing.id,))
        self.menu_wanted.emit(event.globalPos())

    def focusNextPrevChild(self, onwards: bool) -> bool:
        """Tab goes through the things of the page; after the last one it leaves the canvas. In what lies on the canvas (a
        card, the tag) it goes from one control to the next."""
        if not self.has_keys():
            return super().focusNextPrevChild(onwards)
        touchable = [
            t for t in self.page.things if not (t.hidden or (self.at_board and t.locked and not isinstance(t, WorksLocked)))
        ]
        ids = [thing.id for thing in touchable]
        where = ids.index(self.selection[-1]) if self.selection and self.selection[-1] in ids else None
        following = (0 if onwards else len(ids) - 1) if where is None else where + (1 if onwards else -1)
        if 0 <= following < len(ids):
            self.select((*(id for id in self.gathered if id != ids[following]), ids[following]))
            return True
        self.select(())
        return super().focusNextPrevChild(onwards)
