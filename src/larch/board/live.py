"""What is live above the page at rest: things being dragged, motions."""

from __future__ import annotations

import time
from collections.abc import Collection, Sequence

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QPainter, QPixmap

from larch.board.camera import Camera
from larch.board.gestures.base import Change
from larch.board.paint import painting
from larch.board.views import view_of
from larch.core.base.shape import Box
from larch.core.figures.settle import Followed, descendants, followers
from larch.core.model.page import Page
from larch.core.model.thing import Thing

SMOOTH_UP_TO = 9.0  # ms of painting what is dragged
FEW = 12  # so many dragged things are painted afresh each frame; more are carried as one picture


class Lift:
    """Things taken off the page at rest by one gesture, and how they look meanwhile."""

    def __init__(self) -> None:
        self.things: dict[str, Thing] = {}
        self.new: list[Thing] = []
        self.change: Change | None = None  # what the gesture makes of the page; None once it is committed
        self.hidden: set[str] = set()
        self.shift = (0.0, 0.0)
        self.picture: QPixmap | None = None
        self.corner = (0.0, 0.0)  # page position of the picture's corner
        self.scale = 1.0
        self._waiting: list[Thing] = []
        self._below: tuple[Page, frozenset[str], list[str]] | None = None
        self._hurried = False  # the last frame took too long

    def carry(self, things: Sequence[Thing], page: Page, camera: Camera, seen: Box, ratio: float) -> None:
        """Prepares to carry things: a few are painted each frame, many become one picture."""
        self.things = {thing.id: thing for thing in things}
        self.hidden = set(self.things)
        if len(things) <= FEW:
            return
        boxes = [view_of(thing).reach(thing, page) for thing in things]
        area = Box(min(b.x0 for b in boxes), min(b.y0 for b in boxes), max(b.x1 for b in boxes), max(b.y1 for b in boxes))
        near = seen.grown(max(seen.width, seen.height) / 2)
        x0, y0, x1, y1 = max(area.x0, near.x0), max(area.y0, near.y0), min(area.x1, near.x1), min(area.y1, near.y1)
        width, height = max(1, int((x1 - x0) * camera.scale) + 2), max(1, int((y1 - y0) * camera.scale) + 2)
        picture = QPixmap(round(width * ratio), round(height * ratio))
        picture.setDevicePixelRatio(ratio)
        picture.fill(Qt.GlobalColor.transparent)
        self.picture, self.corner, self.scale = picture, (x0, y0), camera.scale
        self._waiting = list(reversed(things))
        self.hidden = set()

    def made_of(self, page: Page) -> dict[str, Thing]:
        """What the gesture makes of a page, with all that follows from that; what follows but comes out the same is among
        it, so that what is lifted stays the same from frame to frame."""
        changed = self.change(page) if self.change is not None else {}
        if not changed:
            return {}
        found = changed if isinstance(changed, Followed) else followers(page, changed)
        for id in self._all_below(page, found.roots):
            if id not in found and (still := page.thing(id)) is not None:
                found[id] = still
        return found

    def _all_below(self, page: Page, roots: frozenset[str]) -> list[str]:
        """What hangs on them; the same from frame to frame, so it is kept."""
        if self._below is None or self._below[0] is not page or self._below[1] != roots:
            self._below = (page, roots, descendants(page, roots))
        return self._below[2]

    def put_down_picture(self) -> None:
        """Things that were carried as a picture are painted one by one from now on."""
        if self.picture is not None:
            self.picture, self.shift = None, (0.0, 0.0)
            self._waiting.clear()

    @property
    def gathering(self) -> bool:
        """Whether some carried things have still to be taken into the picture."""
        return bool(self._waiting)

    def advance(self, page: Page, budget: float) -> bool:
        """Takes waiting things into the picture for `budget` ms; True if any were. Till then they lie where they lay."""
        if self.picture is None or not self._waiting:
            return False
        end = time.perf_counter() + budget / 1000
        with painting(self.picture) as painter:
            painter.scale(self.scale, self.scale)
            painter.translate(-self.corner[0], -self.corner[1])
            while self._waiting and time.perf_counter() < end:
                thing = self._waiting.pop()
                view_of(thing).paint(painter, thing, page)
                self.hidden.add(thing.id)
        return True

    def paint(self, painter: QPainter, page: Page, camera: Camera, elsewhere: Collection[str] = ()) -> None:
        """`elsewhere`: the ids of what another gesture shows as it is by now."""
        if self.picture is not None:
            x, y = camera.to_view(self.corner[0] + self.shift[0], self.corner[1] + self.shift[1])
            painter.drawPixmap(QPointF(x, y), self.picture)
            return
        painter.save()
        painter.translate(camera.dx, camera.dy)
        painter.scale(camera.scale, camera.scale)
        painter.translate(*self.shift)
        # Smooth edges cost five times as much: many large curves go without them while they move.
        painter.setRenderHint(QPainter.RenderHint.Antialiasing, not self._hurried)
        began = time.perf_counter()
        for thing in [*self.things.values(), *self.new]:
            if not thing.hidden and thing.id not in elsewhere:
                view_of(thing).paint(painter, thing, page)
        if (time.perf_counter() - began) * 1000 > SMOOTH_UP_TO:
            self._hurried = True
        painter.restore()


class Motion:
    """A short motion that explains a change; what it shows was decided before it began."""

    def __init__(self, before: Thing, after: Thing, length: int) -> None:
        self.before = before
        self.after = after
        self.length = length / 1000
        self.began = time.perf_counter()

    def progress(self) -> float:
        return min(1.0, (time.perf_counter() - self.began) / self.length)
