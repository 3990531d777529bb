"""Which part of the endless page is seen, and how large. No Qt."""

from __future__ import annotations

from larch.core.base.shape import Box, Point

SMALLEST, LARGEST = 0.05, 40.0


class Camera:
    """view = page · scale + offset. Immutable in use: every change makes a new one."""

    __slots__ = ("dx", "dy", "scale")

    def __init__(self, scale: float = 1.0, dx: float = 0.0, dy: float = 0.0) -> None:
        self.scale = min(LARGEST, max(SMALLEST, scale))
        self.dx = dx
        self.dy = dy

    def to_view(self, x: float, y: float) -> Point:
        return (x * self.scale + self.dx, y * self.scale + self.dy)

    def to_page(self, x: float, y: float) -> Point:
        return ((x - self.dx) / self.scale, (y - self.dy) / self.scale)

    def box_to_view(self, box: Box) -> Box:
        return Box(*self.to_view(box.x0, box.y0), *self.to_view(box.x1, box.y1))

    def box_to_page(self, box: Box) -> Box:
        return Box(*self.to_page(box.x0, box.y0), *self.to_page(box.x1, box.y1))

    def panned(self, dx: float, dy: float) -> Camera:
        return Camera(self.scale, self.dx + dx, self.dy + dy)

    def zoomed(self, factor: float, x: float, y: float) -> Camera:
        """Magnified about a point of the view, which stays where it is."""
        scale = min(LARGEST, max(SMALLEST, self.scale * factor))
        page = self.to_page(x, y)
        return Camera(scale, x - page[0] * scale, y - page[1] * scale)


def fitting(box: Box, width: float, height: float, margin: float = 0.0) -> Camera:
    """The camera that shows all of a box in the middle of a view."""
    w, h = max(1.0, box.width), max(1.0, box.height)
    scale = min((width - 2 * margin) / w, (height - 2 * margin) / h)
    scale = min(LARGEST, max(SMALLEST, scale))
    x, y = box.centre
    return Camera(scale, round(width / 2 - x * scale), round(height / 2 - y * scale))


def shown_beside(camera: Camera, box: Box, free: Box) -> Camera:
    """The camera moved as little as is needed to show a box of the view in a free part of it; as it is where it can't."""
    if box.width > free.width or box.height > free.height:
        return camera
    dx = max(0.0, free.x0 - box.x0) - max(0.0, box.x1 - free.x1)
    dy = max(0.0, free.y0 - box.y0) - max(0.0, box.y1 - free.y1)
    return camera.panned(round(dx), round(dy)) if dx or dy else camera
