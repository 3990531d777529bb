"""Where a notice lies: beside the page at the Desk, where the page is empty at the Board."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QPoint, QRect

from larch.board.free_place import freest
from larch.core.base.shape import Box

if TYPE_CHECKING:
    from larch.desk.window import Window


def notice_bar(window: Window) -> QRect:
    """Between the menus and the switch; at the top of the page where there is no bar. Pixels of the window."""
    if window.top_bar.isVisibleTo(window):
        left = window.menus.sizeHint().width() + 16
        right = window.switch.mapTo(window, QPoint(0, 0)).x() - 12
        return QRect(left, 0, max(260, right - left), window.top_bar.height())
    page = window.canvas.geometry()
    return QRect(page.x() + 20, page.y() + 8, page.width() - 40, 60)


def notice_place(window: Window, width: int, height: int) -> QRect | None:
    """At the Board: where the page is empty and no tag hangs. None at the Desk, where the bar is."""
    if window.top_bar.isVisibleTo(window):
        return None
    canvas = window.canvas
    free = canvas.free().grown(-10)
    known = canvas.surface.index.boxes
    seen = [known[thing.id] for thing in canvas.things_in(canvas.seen()) if thing.id in known]
    taken = [(canvas.camera.box_to_view(box), 1.0) for box in seen]
    if window.shows("tag"):
        at = window.tag.geometry()
        taken.append((Box(at.left(), at.top(), at.right(), at.bottom()), 4.0))
    xs = (free.centre[0] - width / 2, free.x0, free.x1 - width)
    places = [Box(x, y, x + width, y + height) for y in (free.y0, free.y1 - height, free.centre[1]) for x in xs]
    found = freest(places, taken, free)
    if found is None:
        return None
    corner = canvas.mapTo(window, QPoint(round(found.x0), round(found.y0)))
    return QRect(corner.x(), corner.y(), width, height)
