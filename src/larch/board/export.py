"""Pages as PDF, PNG and SVG. Written beside the target and renamed, so a failure leaves nothing half done."""

from __future__ import annotations

import os
from collections.abc import Callable, Sequence
from pathlib import Path

from PyQt6.QtCore import QMarginsF, QSizeF
from PyQt6.QtGui import QPageSize, QPainter, QPdfWriter

from larch.board.paint import page_image, page_svg, paint_page, printed_area
from larch.core.base.foreseen import Foreseen
from larch.core.base.shape import Box
from larch.core.base.words import _
from larch.core.model.page import Page

FORMATS = ("pdf", "png", "svg")
WIDEST = 16_000  # pixels
MM_PER_CM = 10.0
RESOLUTION = 300

Progress = Callable[[int, int], bool]


class ExportError(Foreseen):
    """Could not be exported; the message is one sentence for a person."""


def export(
    pages: Sequence[Page], target: Path, width: int = 1920, progress: Progress | None = None, grow: bool = True
) -> list[Path]:
    """Writes pages in the format of the target's ending; returns the files made.

    grow: a sheet becomes as large as what lies on it, instead of cutting off what lies outside its printed part.

    PDF takes all pages in one file; PNG (`width` pixels wide) and SVG take a file a page, numbered if there are
    several. `progress(done, all)` is called between pages; returning False stops and leaves no file behind.
    """
    kind = target.suffix.lower().lstrip(".")
    if kind not in FORMATS:
        raise ExportError(_("Export to a file whose name ends in .pdf, .png or .svg."))
    if not 16 <= width <= WIDEST:
        raise ExportError(_("A picture can be 16 to {most} pixels wide.").format(most=WIDEST))
    targets = [target] if kind == "pdf" or len(pages) == 1 else _numbered(target, len(pages))
    parts = [path.with_name(f".{path.name}.part") for path in targets]
    try:
        if kind == "pdf":
            finished = _pdf(pages, parts[0], progress, grow)
        else:
            finished = _each(pages, parts, kind, width, progress, grow)
        if not finished:
            return []
        for part, path in zip(parts, targets, strict=True):
            os.replace(part, path)
        return targets
    except OSError as error:
        raise ExportError(_("{name} can't be written there.").format(name=target.name)) from error
    finally:
        for part in parts:
            part.unlink(missing_ok=True)


def _numbered(target: Path, count: int) -> list[Path]:
    digits = len(str(count))
    return [target.with_name(f"{target.stem}-{n:0{digits}}{target.suffix}") for n in range(1, count + 1)]


def _area(page: Page, grow: bool) -> Box:
    return printed_area(page) if grow else page.printed()


def _pdf(pages: Sequence[Page], path: Path, progress: Progress | None, grow: bool) -> bool:
    if not os.access(path.parent, os.W_OK) or not path.parent.is_dir():
        raise OSError
    writer = QPdfWriter(str(path))
    writer.setResolution(RESOLUTION)
    writer.setCreator("Larch")
    writer.setTitle(pages[0].title if pages else "")
    painter = QPainter()
    for number, page in enumerate(pages):
        area = _area(page, grow)
        across, down = (side / page.unit * MM_PER_CM for side in (area.width, area.height))
        writer.setPageSize(
            QPageSize(QSizeF(across, down), QPageSize.Unit.Millimeter, "", QPageSize.SizeMatchPolicy.ExactMatch)
        )
        writer.setPageMargins(QMarginsF(0, 0, 0, 0))
        if number == 0:
            if not painter.begin(writer):
                raise OSError
        else:
            writer.newPage()
        painter.save()
        scale = writer.width() / area.width
        painter.scale(scale, scale)
        painter.translate(-area.x0, -area.y0)
        paint_page(painter, page, area)
        painter.restore()
        if progress is not None and not progress(number + 1, len(pages)):
            painter.end()
            return False
    painter.end()
    return True


def _each(
    pages: Sequence[Page], parts: Sequence[Path], kind: str, width: int, progress: Progress | None, grow: bool
) -> bool:
    for number, (page, part) in enumerate(zip(pages, parts, strict=True)):
        if kind == "svg":
            part.write_bytes(page_svg(page, _area(page, grow)))
        elif not page_image(page, width, _area(page, grow)).save(str(part), "PNG"):
            raise OSError
        if progress is not None and not progress(number + 1, len(pages)):
            return False
    return True
