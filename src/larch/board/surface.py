"""The picture of the page at rest, kept up to date in small slices so that nothing ever waits for it."""

from __future__ import annotations

import time
from collections.abc import Callable, Mapping, Sequence
from typing import NamedTuple

from PyQt6.QtCore import QPoint, QPointF, QRect, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QPainter, QPainterPath, QPainterPathStroker, QPixmap

from larch.board.camera import Camera
from larch.board.index import SceneIndex
from larch.board.paint import can_paint, painting
from larch.board.papers import paint_paper
from larch.board.views import view_of
from larch.core.base.shape import Box, Point, box_of, union
from larch.core.model.capabilities import IsInk
from larch.core.model.page import Page, positions
from larch.core.model.thing import Thing

TILE = 128  # pixels
CROWD = 40  # a tile with more things than this is painted in quarters
SMALL = 420  # a dirty rectangle up to this size is painted in one go
MANY = 120  # changed boxes that are marked one by one; more are marked as one
TOGETHER = 24  # boxes from which it is looked whether they lie over each other
MOST_KEPT = 6  # pictures of pages that were left
MOST_STALE = 400  # more marks than this are not worth keeping apart


class _Kept(NamedTuple):
    """A page as it was when it was left."""

    page: Page
    camera: Camera
    base: QPixmap
    boxes: SceneIndex


class Surface:
    """Base picture, the camera it was painted for, and what of it is out of date.

    page: gives the page to paint; hidden: ids that are painted elsewhere just now.
    """

    def __init__(self, page: Callable[[], Page]) -> None:
        self._page = page
        self.index = SceneIndex()
        self.hidden: set[str] = set()
        self.instead: Mapping[str, Sequence[Thing]] = {}  # what is painted in the place of some things just now
        self.camera = Camera()
        self.base = QPixmap(1, 1)
        self.size = QSize(1, 1)
        self.waiting = False  # something could not be painted before NumPy is there
        self._stale: list[QRect] = []
        self._kept: dict[str, _Kept] = {}

    def _sheet(self) -> QColor:
        return QColor(self._page().paper.sheet())

    def resize(self, size: QSize, ratio: float) -> None:
        fresh = QPixmap(max(1, round(size.width() * ratio)), max(1, round(size.height() * ratio)))
        fresh.setDevicePixelRatio(ratio)
        fresh.fill(self._sheet())
        painter = QPainter(fresh)
        painter.drawPixmap(0, 0, self.base)
        painter.end()
        self.base, self.size = fresh, size
        self.invalidate_all()

    def leave(self, page: Page) -> None:
        """Keeps the picture of a page that is left, so that turning back to it shows it at once."""
        if self.sharp and not self.hidden and not self.waiting and not self.instead:
            self._kept[page.id] = _Kept(page, self.camera, self.base.copy(), self.index)
            while len(self._kept) > MOST_KEPT:
                self._kept.pop(next(iter(self._kept)))

    def load(self) -> None:
        """Indexes a page anew and forgets the old picture; or takes up the kept picture of a page that is unchanged."""
        page = self._page()
        kept = self._kept.pop(page.id, None)
        if kept is not None and kept.page is page and kept.base.size() == self.base.size():
            self.camera, self.base, self.index = kept.camera, kept.base, kept.boxes
            self._stale.clear()
            return
        self.index = SceneIndex()
        for thing in page.things:
            if not thing.hidden:
                self.index.put(thing.id, view_of(thing).reach(thing, page))
        self.base.fill(self._sheet())
        self.invalidate_all()

    def load_anew(self) -> None:
        """As `load`, when every page looks different from what it did."""
        self._kept.clear()
        self.load()

    def change(self, before: Page, after: Page, ids: set[str]) -> None:
        """Follows an edit: re-indexes the things and marks where they were and are."""
        on_top = self._only_added(before, after, ids)
        changed: list[Box] = []
        for id in ids:
            old = self.index.boxes.get(id)
            thing = after.thing(id)
            if old is not None:
                changed.append(old)
            if thing is None or thing.hidden:
                self.index.drop(id)
            else:
                box = view_of(thing).reach(thing, after)
                self.index.put(id, box)
                changed.append(box)
        if len(changed) > MANY:
            changed = [union(changed)]
        if not on_top:
            self.invalidate_each(changed)
        if on_top:
            self._add_on_top(list(after.things[len(before.things) :]), after)

    def _only_added(self, before: Page, after: Page, ids: set[str]) -> bool:
        """New things on top need no repainting of what lies under them."""
        old = len(before.things)
        added = after.things[old:]
        return len(added) == len(ids) and {t.id for t in added} == ids and all(map(can_paint, added))

    def _add_on_top(self, things: list[Thing], page: Page) -> None:
        with painting(self.base) as painter:
            self._aim(painter)
            for thing in things:
                if thing.id not in self.hidden and not thing.hidden:
                    view_of(thing).paint(painter, thing, page)

    def look(self, camera: Camera) -> None:
        """Moves to another camera at rest: shifts or stretches the old picture and marks what is missing."""
        old, self.camera = self.camera, camera
        dx, dy = camera.dx - old.dx, camera.dy - old.dy
        if camera.scale == old.scale and dx == round(dx) and dy == round(dy):
            self._scroll(round(dx), round(dy))
            return
        fresh = QPixmap(self.base.size())
        fresh.setDevicePixelRatio(self.base.devicePixelRatio())
        fresh.fill(self._sheet())
        painter = QPainter(fresh)
        painter.drawPixmap(self.stretched(old, camera), self.base, QRectF(self.base.rect()))
        painter.end()
        self.base = fresh
        self.invalidate_all()

    def stretched(self, old: Camera, new: Camera) -> QRectF:
        """Where the picture made for one camera lies in the view of another."""
        k = new.scale / old.scale
        return QRectF(new.dx - old.dx * k, new.dy - old.dy * k, self.size.width() * k, self.size.height() * k)

    def _scroll(self, dx: int, dy: int) -> None:
        """Shifts the picture and what is still out of date in it, and marks the strips that came into view."""
        width, height = self.size.width(), self.size.height()
        if abs(dx) >= width or abs(dy) >= height or len(self._stale) > MOST_STALE:
            self.invalidate_all()
            return
        ratio = self.base.devicePixelRatio()
        self.base.scroll(round(dx * ratio), round(dy * ratio), self.base.rect())
        seen = QRect(0, 0, width, height)
        self._stale = [moved for rect in self._stale if not (moved := rect.translated(dx, dy).intersected(seen)).isEmpty()]
        if dx:
            self._mark(QRect(0 if dx > 0 else width + dx, 0, abs(dx), height))
        if dy:
            self._mark(QRect(0, 0 if dy > 0 else height + dy, width, abs(dy)))

    def _mark(self, rect: QRect) -> None:
        """Marks a rectangle of the view, cut into tiles so that none takes long."""
        for x in range(rect.x(), rect.x() + rect.width(), TILE):
            for y in range(rect.y(), rect.y() + rect.height(), TILE):
                self._stale.append(QRect(x, y, TILE, TILE).intersected(rect))

    def invalidate_all(self) -> None:
        self._stale.clear()
        self._mark(QRect(QPoint(0, 0), self.size))
        middle = QPoint(self.size.width() // 2, self.size.height() // 2)
        self._stale.sort(key=lambda rect: -(rect.center() - middle).manhattanLength())  # the middle is painted first

    def invalidate(self, box: Box) -> None:
        """Marks a part of the page as out of date."""
        view = self.camera.box_to_view(box)
        seen = QRect(QPoint(0, 0), self.size)
        if not (view.x1 >= 0 and view.y1 >= 0 and view.x0 <= seen.width() and view.y0 <= seen.height()):
            return
        x0, y0 = max(-2, view.x0), max(-2, view.y0)
        x1, y1 = min(seen.width() + 2, view.x1), min(seen.height() + 2, view.y1)
        rect = QRect(int(x0) - 1, int(y0) - 1, int(x1 - x0) + 4, int(y1 - y0) + 4).intersected(seen)
        if rect.width() <= SMALL and rect.height() <= SMALL and len(self._stale) < MOST_STALE:
            self._stale.append(rect)
        else:
            self._mark(rect)

    def invalidate_each(self, boxes: Sequence[Box]) -> None:
        """Marks several parts; where they are many that lie over each other, all of them at once."""
        if len(boxes) > TOGETHER:
            whole = union(boxes)
            if sum(box.width * box.height for box in boxes) > whole.width * whole.height:
                boxes = [whole]
        for box in boxes:
            self.invalidate(box)

    @property
    def sharp(self) -> bool:
        return not self._stale

    def sharpen(self, budget: float) -> list[QRect]:
        """Paints what is out of date until `budget` ms are spent; returns what was painted."""
        end = time.perf_counter() + budget / 1000
        done: list[QRect] = []
        while not self.sharp:
            rect = self._next()
            done.append(rect)
            self._paint(rect)
            if time.perf_counter() >= end:
                break
        return done

    def _next(self) -> QRect:
        """The newest mark, grown by those it overlaps while that stays small."""
        rect = self._stale.pop()
        for other in self._stale[-24:]:
            united = rect.united(other)
            if other.intersects(rect) and united.width() <= SMALL and united.height() <= SMALL:
                self._stale.remove(other)
                rect = united
        return rect

    def _paint(self, rect: QRect) -> None:
        page = self._page()
        corners = self.camera.to_page(rect.left(), rect.top()), self.camera.to_page(rect.right() + 1, rect.bottom() + 1)
        box = Box(*corners[0], *corners[1])
        found = self.index.meeting(box)
        if len(found) > CROWD and min(rect.width(), rect.height()) > 40:
            self._stale += _quarters(rect)
            return
        where = positions(page)
        depths = sorted(where[id] for id in found if id in where and id not in self.hidden)
        with painting(self.base) as painter:
            painter.setClipRect(rect)
            self._aim(painter)
            paint_paper(painter, page.paper, page.size, box.grown(1 / self.camera.scale), self.camera.scale)
            for depth in depths:
                thing = page.things[depth]
                for shown in self.instead.get(thing.id, (thing,)):
                    if can_paint(shown):
                        view_of(shown).paint(painter, shown, page)
                    else:
                        self.waiting = True

    def rub_out(self, path: Sequence[Point], radius: float) -> QRect:
        """Paints everything but ink along a path, at once; returns where. Cheaper by far than painting what is left of
        each stroke, which is the same picture."""
        page = self._page()
        box = box_of(path).grown(radius)
        where = positions(page)
        depths = sorted(where[id] for id in self.index.meeting(box) if id in where and id not in self.hidden)
        with painting(self.base) as painter:
            self._aim(painter)
            painter.setClipPath(_capsules(path, radius))
            paint_paper(painter, page.paper, page.size, box, self.camera.scale)
            for depth in depths:
                thing = page.things[depth]
                for shown in self.instead.get(thing.id, (thing,)):
                    if can_paint(shown) and not (isinstance(shown, IsInk) and thing.id in self.instead):
                        view_of(shown).paint(painter, shown, page)
        view = self.camera.box_to_view(box.grown(2 / self.camera.scale))
        return QRectF(view.x0, view.y0, view.width, view.height).toAlignedRect()

    def _aim(self, painter: QPainter) -> None:
        painter.translate(self.camera.dx, self.camera.dy)
        painter.scale(self.camera.scale, self.camera.scale)


def _capsules(path: Sequence[Point], radius: float) -> QPainterPath:
    """All that lies within a radius of a path."""
    line = QPainterPath(QPointF(*path[0]))
    for point in path[1:]:
        line.lineTo(QPointF(*point))
    if all(point == path[0] for point in path):
        dot = QPainterPath()
        dot.addEllipse(QPointF(*path[0]), radius, radius)
        return dot
    stroker = QPainterPathStroker()
    stroker.setWidth(2 * radius)
    stroker.setCapStyle(Qt.PenCapStyle.RoundCap)
    stroker.setJoinStyle(Qt.PenJoinStyle.RoundJoin)
    return stroker.createStroke(line)


def _quarters(rect: QRect) -> list[QRect]:
    w, h = rect.width() // 2, rect.height() // 2
    x, y = rect.x(), rect.y()
    return [
        QRect(x, y, w, h),
        QRect(x + w, y, rect.width() - w, h),
        QRect(x, y + h, w, rect.height() - h),
        QRect(x + w, y + h, rect.width() - w, rect.height() - h),
    ]
