"""Painting a page: its paper and its things, on any device."""

from __future__ import annotations

import sys
from collections.abc import Iterable, Iterator
from contextlib import contextmanager

from PyQt6.QtCore import QRectF, QSize
from PyQt6.QtGui import QColor, QImage, QPaintDevice, QPainter

from larch.board.look import PAPER
from larch.board.papers import paint_paper
from larch.board.views import view_of
from larch.core.base.shape import Box, union
from larch.core.model.capabilities import HasMedia
from larch.core.model.page import Page
from larch.core.model.thing import Thing

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


class Care:
    """on: pictures, and what takes much to paint, are left out: Larch ended when they were last to be painted."""

    on = False


def can_paint(thing: Thing) -> bool:
    """False while the view still waits for NumPy, or while care is taken."""
    if Care.on and (isinstance(thing, HasMedia) or view_of(thing).waits(thing)):
        return False
    return "numpy.linalg" in sys.modules or not view_of(thing).waits(thing)


def paint_things(painter: QPainter, page: Page, things: Iterable[Thing]) -> None:
    from larch.board.vector.engine import engine_of

    drawing = engine_of(painter)
    for thing in things:
        if not thing.hidden:
            if drawing is not None:
                drawing.group += 1
            view_of(thing).paint(painter, thing, page)


def paint_page(painter: QPainter, page: Page, area: Box) -> None:
    """A whole page on a device whose painter already maps page coordinates; clipped to the area."""
    import numpy  # noqa: F401

    painter.setRenderHints(HINTS)
    painter.setClipRect(QRectF(area.x0, area.y0, area.width, area.height))
    paint_paper(painter, page.paper, page.size, area, painter.transform().m11())
    paint_things(painter, page, page.things)


def printed_area(page: Page) -> Box:
    """The printed part, and as much beyond it as anything reaches."""
    return union([page.printed(), *(view_of(thing).box(thing).grown(8) for thing in outside(page))])


def outside(page: Page) -> list[Thing]:
    """Things that reach beyond the printed part, though not those so far out that no sheet could hold them."""
    printed = page.printed().grown(1)
    reaches = [(thing, view_of(thing).box(thing)) for thing in page.things if not thing.hidden]
    return [thing for thing, box in reaches if not printed.covers(box) and max(map(abs, box)) < 20_000]


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


def page_svg(page: Page, area: Box | None = None, fonts: str = "outlined", language: str = "") -> bytes:
    """The page as SVG. fonts: see `SvgSink`; what is read stays text in any case."""
    from larch.board.vector.engine import VectorDevice
    from larch.board.vector.svg import SvgSink

    area = area or printed_area(page)
    sink = SvgSink(fonts)
    device = VectorDevice(sink, area.width, area.height)
    painter = QPainter(device)
    painter.translate(-area.x0, -area.y0)
    paint_page(painter, page, area)
    painter.end()
    read = device.engine.kept if sink.outlined else [run for run in device.engine.kept if run.font is None]
    return sink.written(area.width, area.height, page.title, language, read)
