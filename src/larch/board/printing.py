"""Pages on a printer: each as large as its sheet allows, turned the way that suits it."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING

from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QPageLayout, QPainter

from larch.board.paint import paint_page, printed_area
from larch.core.model.page import Page

if TYPE_CHECKING:
    from PyQt6.QtPrintSupport import QPrinter

Progress = Callable[[int, int], bool]


def print_pages(printer: QPrinter, pages: Sequence[Page], progress: Progress | None = None) -> int:
    """Prints pages, one to a sheet; returns how many. `progress(done, all)` returning False stops. Raises OSError where the
    printer can't be used."""
    painter = QPainter()
    printed = 0
    for page in pages:
        area = printed_area(page)
        across = area.width > area.height
        printer.setPageOrientation(QPageLayout.Orientation.Landscape if across else QPageLayout.Orientation.Portrait)
        begun = painter.begin(printer) if not printed else printer.newPage()
        if not begun:
            raise OSError("printer")
        sheet = QRectF(printer.pageLayout().paintRectPixels(printer.resolution()))
        scale = min(sheet.width() / area.width, sheet.height() / area.height)
        painter.save()
        painter.translate((sheet.width() - area.width * scale) / 2, (sheet.height() - area.height * scale) / 2)
        painter.scale(scale, scale)
        painter.translate(-area.x0, -area.y0)
        paint_page(painter, page, area)
        painter.restore()
        printed += 1
        if progress is not None and not progress(printed, len(pages)):
            printer.abort()
            break
    if painter.isActive():
        painter.end()
    return printed
