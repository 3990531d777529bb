"""Putting things out: by a tap on the shelf, a drag from it, or the Finder."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QPoint

from larch.board.gestures.base import nothing
from larch.core.base.shape import Box, Point
from larch.core.base.words import _
from larch.core.model.action import put
from larch.core.model.capabilities import IsInk, snap_of
from larch.core.model.holders import in_cells
from larch.core.model.thing import ShelfItem, Thing

if TYPE_CHECKING:
    from larch.desk.context import Context

SNAP_REACH = 11.0  # pixels
BESIDE = 16.0  # page units between things put out one after the other


class PuttingOut:
    """What the shelf's signals lead to."""

    def __init__(self, context: Context) -> None:
        self.context = context
        self._fresh: tuple[Thing, ...] = ()

    def put_out(self, item: ShelfItem) -> None:
        """Puts a thing in the middle of what is seen, a little aside of the one before."""
        from larch.core.actions.arrange.arrange import laid_out
        from larch.desk.shelf import kept

        canvas = self.context.canvas
        whole = kept.page_of(item)
        if whole is not None:
            self.context.part("pages").add(whole)
            return
        made = item.things()
        if item.instead is not None:
            canvas.commit(item.instead(canvas.page))
            return
        centre = canvas.camera.to_page(*canvas.free().centre)
        box = canvas.box_of(laid_out(made).things)
        dx, dy = self.free_spot(box.moved(centre[0] - box.centre[0], centre[1] - box.centre[1]))
        self._put(item, made, dx + centre[0] - box.centre[0], dy + centre[1] - box.centre[1])

    def free_spot(self, box: Box) -> Point:
        """By how much a box must be shifted to lie on nothing that is seen: the nearest of places in rows round where it
        was to be; a little aside of what lies there if nowhere is room."""
        canvas = self.context.canvas
        seen = canvas.camera.box_to_page(canvas.free())
        taken = [canvas.box_of([t]).grown(-2) for t in canvas.things_in(seen) if not isinstance(t, IsInk) and not t.locked]
        wide, high = box.width + BESIDE, box.height + BESIDE
        steps = [(i * wide, j * high) for i in range(-8, 9) for j in range(-8, 9)]
        for dx, dy in sorted(steps, key=lambda way: (way[0] ** 2 + (1.5 * way[1]) ** 2, -way[0], -way[1])):
            room = box.moved(dx, dy)
            if ((dx, dy) == (0, 0) or seen.covers(room)) and not any(room.meets(other) for other in taken):
                return (dx, dy)
        aside = 0.0
        while any(other.centre == box.moved(aside, aside).centre for other in taken):
            aside += 24.0
        return (aside, aside)

    def put_out_named(self, name: str) -> None:
        """Puts out an entry of the shelf by its name."""
        from larch.core.model.kinds import shelf_items

        self.put_out(next(item for item in shelf_items() if item.name == name))

    def _put(self, item: ShelfItem, made: list[Thing], dx: float, dy: float) -> None:
        from larch.core.actions.arrange.arrange import brought, laid_out

        if self.context.canvas.tool_writes():
            self.context.take_tool("select")
        page = self.context.canvas.page
        label = _("Put out {thing}").format(thing=made[0].title() if len(made) == 1 else item.label)
        moved = [made[0].moved(dx, dy)] if len(made) == 1 else brought(page, list(laid_out(made).things), dx, dy)
        self.context.canvas.commit(in_cells(put(page, moved, label)))
        self._fresh = self.context.canvas.things()

    def is_fresh(self, thing: Thing) -> bool:
        """Whether it was just put out, and nothing has happened to it since."""
        return self._fresh == (thing,)

    def drag(self, item: ShelfItem, at: QPoint) -> None:
        from larch.core.actions.arrange.arrange import laid_out

        found = self._under(item, at)
        made = laid_out(item.things()).things if found is not None and item.several is not None else item.things()
        moved = [thing.moved(*found) for thing in made] if found is not None else []
        self.context.canvas.preview(self.context.part("shelf"), nothing, moved)

    def drop(self, item: ShelfItem, at: QPoint) -> None:
        found = self._under(item, at)
        if found is not None:
            self._put(item, item.things(), *found)
        self.context.canvas.end_preview(self.context.part("shelf"))

    def _onto_page(self, box: Box, dx: float, dy: float, at: Point) -> Point:
        """A shift by which a box hangs off no edge of the printed part, where the hand is on it and it finds room."""
        seen = self.context.canvas.page.printed()
        there = box.moved(dx, dy)
        if not seen.holds(*at) or box.width > seen.width or box.height > seen.height:
            return (dx, dy)
        dx += max(0.0, seen.x0 - there.x0) - max(0.0, there.x1 - seen.x1)
        dy += max(0.0, seen.y0 - there.y0) - max(0.0, there.y1 - seen.y1)
        return (dx, dy)

    def _under(self, item: ShelfItem, at: QPoint) -> Point | None:
        """By how much an entry must be shifted to lie under a global position, or None while that is over the drawer."""
        from larch.core.actions.arrange.arrange import laid_out

        if self.context.part("shelf").rect().contains(self.context.part("shelf").mapFromGlobal(at)):
            return None
        local = self.context.canvas.mapFromGlobal(at)
        if not self.context.canvas.rect().contains(local):
            return None
        made = item.things()
        x, y = self.context.canvas.camera.to_page(local.x(), local.y())
        box: Box = self.context.canvas.box_of(laid_out(made).things)
        dx, dy = self._onto_page(box, x - box.centre[0], y - box.centre[1], (x, y))
        if len(made) > 1:
            return (dx, dy)
        moved: Thing = made[0].moved(dx, dy)
        near = [t for t in self.context.canvas.things_in(moved.box().grown(12)) if t.id]
        snap = snap_of(moved, self.context.canvas.page, near, SNAP_REACH / self.context.canvas.camera.scale)
        return (dx + snap.dx, dy + snap.dy) if snap is not None else (dx, dy)
