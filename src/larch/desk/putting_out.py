"""Putting things out: by a tap on the shelf, a drag from it, or the Finder."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QPoint

from larch.core.arrange import put
from larch.core.shape import Box
from larch.core.thing import ShelfItem, Thing, shelf_items
from larch.core.words import _

if TYPE_CHECKING:
    from larch.desk.window import Window

SNAP_REACH = 11.0  # pixels


class PuttingOut:
    """What the shelf's signals lead to."""

    def __init__(self, window: Window) -> None:
        self.window = window

    def put_out(self, item: ShelfItem) -> None:
        """Puts a thing in the middle of what is seen, a little aside of the one before."""
        canvas = self.window.canvas
        thing = item.make()
        instead = thing.put_out(canvas.page)
        if instead is not None:
            canvas.commit(instead)
            return
        seen_below = canvas.height() - canvas.covered_below
        centre = canvas.camera.to_page(canvas.width() / 2, seen_below / 2)
        box = canvas.box_of([thing])
        placed = thing.moved(centre[0] - box.centre[0], centre[1] - box.centre[1])
        while any(other.placement == placed.placement for other in canvas.page.things):
            placed = placed.moved(24, 24)
        self._put(placed)

    def put_out_named(self, name: str) -> None:
        """Puts out an entry of the shelf by its name."""
        self.put_out(next(item for item in shelf_items() if item.name == name))

    def _put(self, thing: Thing) -> None:
        if self.window.canvas.tool_writes():
            self.window.ledge.take("select")
        self.window.canvas.commit(put(self.window.canvas.page, [thing], _("Put out {thing}").format(thing=thing.title())))

    def drag(self, item: ShelfItem, at: QPoint) -> None:
        thing = self._under(item, at)
        self.window.canvas.preview(self.window.shelf, {}, [thing] if thing is not None else [])

    def drop(self, item: ShelfItem, at: QPoint) -> None:
        thing = self._under(item, at)
        if thing is not None:
            self._put(thing)
        self.window.canvas.end_preview(self.window.shelf)

    def _under(self, item: ShelfItem, at: QPoint) -> Thing | None:
        """The entry's thing under a global position, or None while that is still over the drawer."""
        if self.window.shelf.rect().contains(self.window.shelf.mapFromGlobal(at)):
            return None
        local = self.window.canvas.mapFromGlobal(at)
        if not self.window.canvas.rect().contains(local):
            return None
        thing = item.make()
        x, y = self.window.canvas.camera.to_page(local.x(), local.y())
        box: Box = self.window.canvas.box_of([thing])
        moved: Thing = thing.moved(x - box.centre[0], y - box.centre[1])
        near = [t for t in self.window.canvas.things_in(moved.box().grown(12)) if t.id]
        snap = moved.snap(self.window.canvas.page, near, SNAP_REACH / self.window.canvas.camera.scale)
        return moved.moved(snap.dx, snap.dy) if snap is not None else moved
