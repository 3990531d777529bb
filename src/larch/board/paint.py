"""Painting a page: its paper and its things, on any device."""

from __future__ import annotations

import math
import sys
from collections.abc import Iterable, Iterator
from contextlib import contextmanager

from PyQt6.QtCore import QBuffer, QIODevice, QLineF, QRectF, QSize
from PyQt6.QtGui import QColor, QImage, QPaintDevice, QPainter, QPen

from larch.board.look import PAPER, RULING
from larch.board.views import view_of
from larch.core.page import Page
from larch.core.shape import Box, union
from larch.core.thing import Thing

HINTS = QPainter.RenderHint.Antialiasing | QPainter.RenderHint.TextAntialiasing


@contextmanager
def painting(device: QPaintDevice) -> Iterator[QPainter]:
    """A painter that ends whatever happens: one left open on a picture that goes away takes the program with it."""
    painter = QPainter(device)
    painter.setRenderHints(HINTS)
    try:
        yield painter
    finally:
        painter.end()


def paint_paper(painter: QPainter, page: Page, box: Box, scale: float) -> None:
    """The paper under a part of the page. Ruling too fine to be told apart is left out."""
    painter.fillRect(QRectF(box.x0, box.y0, box.width, box.height), PAPER)
    step = page.paper.step
    if page.paper.pattern != "squared" or step * scale < 5 or not 1 <= step <= 1e4:
        return
    pen = QPen(RULING, 1.0)
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing, False)
    pen.setCosmetic(True)
    painter.setPen(pen)
    first, last = math.floor(box.x0 / step), math.ceil(box.x1 / step)
    lines = [QLineF(k * step, box.y0, k * step, box.y1) for k in range(first, last + 1)]
    first, last = math.floor(box.y0 / step), math.ceil(box.y1 / step)
    lines += [QLineF(box.x0, k * step, box.x1, k * step) for k in range(first, last + 1)]
    painter.drawLines(lines)
    painter.restore()


def can_paint(thing: Thing) -> bool:
    """False while the view still waits for NumPy."""
    return "numpy.linalg" in sys.modules or not view_of(thing).needs_numpy


def paint_things(painter: QPainter, page: Page, things: Iterable[Thing]) -> None:
    for thing in things:
        view_of(thing).paint(painter, thing, page)


def paint_page(painter: QPainter, page: Page, area: Box) -> None:
    """A whole page on a device whose painter already maps page coordinates; clipped to the area."""
    import numpy  # noqa: F401

    painter.setRenderHints(HINTS)
    painter.setClipRect(QRectF(area.x0, area.y0, area.width, area.height))
    paint_paper(painter, page, area, painter.transform().m11())
    paint_things(painter, page, page.things)


def printed_area(page: Page) -> Box:
    """What is exported: the printed part, and as much beyond it as anything reaches."""
    reaches = [view_of(thing).box(thing).grown(8) for thing in page.things]
    sensible = [box for box in reaches if max(map(abs, box)) < 20_000]
    return union([page.printed(), *(box for box in sensible if not page.printed().covers(box))])


def page_image(page: Page, width: int, area: Box | None = None) -> QImage:
    """The page as a picture of a given width in pixels."""
    area = area or printed_area(page)
    height = max(1, round(width * area.height / area.width))
    image = QImage(QSize(width, height), QImage.Format.Format_RGB32)
    image.fill(QColor(PAPER))
    painter = QPainter(image)
    painter.scale(width / area.width, height / area.height)
    painter.translate(-area.x0, -area.y0)
    paint_page(painter, page, area)
    painter.end()
    return image


def page_svg(page: Page) -> bytes:
    """The page as SVG; text stays text."""
    from PyQt6.QtSvg import QSvgGenerator

    area = printed_area(page)
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    generator = QSvgGenerator()
    generator.setOutputDevice(buffer)
    generator.setResolution(96)
    generator.setSize(QSize(math.ceil(area.width), math.ceil(area.height)))
    generator.setViewBox(QRectF(0, 0, area.width, area.height))
    generator.setTitle(page.title)
    painter = QPainter(generator)
    painter.translate(-area.x0, -area.y0)
    paint_page(painter, page, area)
    painter.end()
    return bytes(buffer.data().data())
