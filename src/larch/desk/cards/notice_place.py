"""Where a notice lies: beside the page at the Desk, where the page is empty at the Board."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QPoint, QRect

from larch.board.free_place import freest
from larch.core.base.shape import Box

if TYPE_CHECKING:
    from larch.desk.context import Context


def notice_bar(w: Context) -> QRect:
    """Between the menus and the switch; at the top of the page where there is no bar. Pixels of the window."""
    if w.part("top_bar").isVisibleTo(w.top):
        left = w.part("menus").sizeHint().width() + 16
        right = w.part("switch").mapTo(w.top, QPoint(0, 0)).x() - 12
        return QRect(left, 0, max(260, right - left), w.part("top_bar").height())
    page = w.canvas.geometry()
    return QRect(page.x() + 20, page.y() + 8, page.width() - 40, 60)


def notice_place(w: Context, width: int, height: int) -> QRect | None:
    """At the Board: where the page is empty and no tag hangs. None at the Desk, where the bar is."""
    if w.part("top_bar").isVisibleTo(w.top):
        return None
    canvas = w.canvas
    free = canvas.free().grown(-10)
    known = canvas.surface.index.boxes
    seen = [known[thing.id] for thing in canvas.things_in(canvas.seen()) if thing.id in known]
    taken = [(canvas.camera.box_to_view(box), 1.0) for box in seen]
    if w.shows("tag"):
        at = w.part("tag").geometry()
        taken.append((Box(at.left(), at.top(), at.right(), at.bottom()), 4.0))
    xs = (free.centre[0] - width / 2, free.x0, free.x1 - width)
    places = [Box(x, y, x + width, y + height) for y in (free.y0, free.y1 - height, free.centre[1]) for x in xs]
    found = freest(places, taken, free)
    if found is None:
        return None
    corner = canvas.mapTo(w.top, QPoint(round(found.x0), round(found.y0)))
    return QRect(corner.x(), corner.y(), width, height)
