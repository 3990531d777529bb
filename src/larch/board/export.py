"""Pages as PDF, PNG and SVG. Written beside the target and renamed, so a failure leaves nothing half done."""

from __future__ import annotations

import contextlib
import io
import os
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import NamedTuple

from PyQt6.QtCore import QBuffer, QIODevice, QRectF
from PyQt6.QtGui import QPainter

from larch.board.paint import page_image, page_svg, paint_page, printed_area
from larch.board.vector.engine import Words
from larch.board.vector.pdf import PdfFile
from larch.board.vector.svg import FONTS
from larch.core.base.disk import PART, disk, keep_bytes, usual_mode
from larch.core.base.foreseen import Foreseen
from larch.core.base.shape import Box
from larch.core.base.words import _
from larch.core.model.capabilities import Covers
from larch.core.model.page import Page

FORMATS = ("pdf", "png", "svg")
WIDEST = 16_000  # pixels
FINE = 3.0  # units of the device to one of the page: what can only be pixels is drawn so fine

Progress = Callable[[int, int], bool]


class ExportError(Foreseen):
    """Could not be exported; the message is one sentence for a person."""


class Asked(NamedTuple):
    """What is to be exported, and how.

    title, language: of the lesson, for what a PDF and an SVG say of themselves. grow: a sheet becomes as large as what lies
    on it, instead of cutting off what lies outside its printed part. answers: what frost covers is shown and read; else
    neither. fonts: of an SVG, see `SvgSink`. width: of a PNG in pixels. progress: see `export`.
    """

    pages: Sequence[Page]
    title: str = ""
    language: str = ""
    width: int = 1920
    grow: bool = True
    answers: bool = False
    fonts: str = "outlined"
    progress: Progress | None = None

    def area(self, page: Page) -> Box:
        return printed_area(page) if self.grow else page.printed()

    def bare(self, page: Page) -> Page:
        """With answers, the page without what covers them."""
        covers = [thing.id for thing in page.things if isinstance(thing, Covers)] if self.answers else []
        return page.without(covers) if covers else page


def export(asked: Asked, target: Path) -> list[Path]:
    """Writes pages in the format of the target's ending; returns the files made.

    PDF takes all pages in one file; PNG and SVG take a file a page, numbered if there are several. `progress(done, all)` is
    called between pages; returning False stops and leaves no file behind. Raises ExportError.
    """
    pages, width = asked.pages, asked.width
    kind = target.suffix.lower().lstrip(".")
    if kind not in FORMATS:
        raise ExportError(_("Export to a file whose name ends in .pdf, .png or .svg."))
    if not 16 <= width <= WIDEST:
        raise ExportError(_("A picture can be 16 to {most} pixels wide.").format(most=WIDEST))
    targets = [target] if kind == "pdf" or len(pages) == 1 else _numbered(target, len(pages))
    parts = [path.with_name(f".{path.name}.{os.getpid()}{PART}") for path in targets]
    at = disk()
    try:
        if asked.fonts not in FONTS:
            raise ExportError(_("Fonts of an SVG are {choices}.").format(choices=", ".join(FONTS)))
        finished = _pdf(asked, parts[0]) if kind == "pdf" else _each(asked, parts, kind)
        if not finished:
            return []
        for part, path in zip(parts, targets, strict=True):
            at.set_mode(part, usual_mode(path))
            at.rename(part, path)
        at.flush_folder(target.parent)
        return targets
    except OSError as error:
        text = _("{name} can't be written there ({why}).")
        raise ExportError(text.format(name=target.name, why=error.strerror or error)) from error
    finally:
        for part in parts:
            with contextlib.suppress(OSError):
                at.remove(part)


def _numbered(target: Path, count: int) -> list[Path]:
    digits = len(str(count))
    return [target.with_name(f"{target.stem}-{n:0{digits}}{target.suffix}") for n in range(1, count + 1)]


def _pdf(asked: Asked, path: Path) -> bool:
    from larch.board.vector.engine import VectorDevice
    from larch.board.vector.pdf import Glyphs, PdfFile, PdfSink, string

    pages, progress = asked.pages, asked.progress
    written = io.BytesIO()
    with written as out:
        file = PdfFile(out)
        glyphs = Glyphs(file)
        tree, root = file.reserve(), file.reserve()
        made: list[tuple[int, str, float, float, int]] = []
        tags: list[tuple[int, int]] = []  # page and mark of each paragraph
        for number, page in enumerate(pages):
            area = asked.area(page)
            points = 72 / 2.54 / page.unit
            across, down = area.width * points, area.height * points
            sink = PdfSink(file, glyphs, points / FINE, down)
            device = VectorDevice(sink, area.width * FINE, area.height * FINE)
            painter = QPainter(device)
            painter.scale(FINE, FINE)
            painter.translate(-area.x0, -area.y0)
            paint_page(painter, asked.bare(page), area)
            painter.end()
            paragraphs = in_reading_order(device.engine.kept)
            content, resources = sink.written(paragraphs)
            made.append((content, resources, across, down, len(paragraphs)))
            tags += [(number, mark) for mark in range(len(paragraphs))]
            if progress is not None and not progress(number + 1, len(pages)):
                return False
        glyphs.write()
        leaves = [file.reserve() for _page in made]
        for k, (content, resources, across, down, _count) in enumerate(made):
            file.put(
                f"<< /Type /Page /Parent {tree} 0 R /MediaBox [0 0 {across:.3f} {down:.3f}] /Contents {content} 0 R"
                f" /StructParents {k} /Tabs /S {resources} >>",
                leaves[k],
            )
        file.put(f"<< /Type /Pages /Count {len(leaves)} /Kids [{' '.join(f'{leaf} 0 R' for leaf in leaves)}] >>", tree)
        language = f" /Lang {string(asked.language)}" if asked.language else ""
        struct = _tags(file, tags, leaves)
        file.put(
            f"<< /Type /Catalog /Pages {tree} 0 R /MarkInfo << /Marked true >> /StructTreeRoot {struct} 0 R{language}"
            f" /ViewerPreferences << /DisplayDocTitle true >> >>",
            root,
        )
        info = file.put(f"<< /Title {string(asked.title)} /Creator {string('Larch')} /Producer {string('Larch')} >>")
        file.finish(root, info)
        keep_bytes(path, out.getvalue())
    return True


def _tags(file: PdfFile, tags: Sequence[tuple[int, int]], leaves: Sequence[int]) -> int:
    """The tree that names the paragraphs in order, and the way back from each mark."""
    root, document = file.reserve(), file.reserve()
    made = [
        file.put(f"<< /Type /StructElem /S /P /P {document} 0 R /Pg {leaves[page]} 0 R /K {mark} >>") for page, mark in tags
    ]
    file.put(f"<< /Type /StructElem /S /Document /P {root} 0 R /K [{' '.join(f'{at} 0 R' for at in made)}] >>", document)
    back = []
    for k in range(len(leaves)):
        own = " ".join(f"{at} 0 R" for at, (page, _mark) in zip(made, tags, strict=True) if page == k)
        back.append(f"{k} [{own}]")
    parents = file.put(f"<< /Nums [{' '.join(back)}] >>")
    return file.put(f"<< /Type /StructTreeRoot /K {document} 0 R /ParentTree {parents} 0 R"
                    f" /ParentTreeNextKey {len(leaves)} >>", root)  # fmt: skip


def in_reading_order(kept: Sequence[Words]) -> list[list[Words]]:
    """The words of each thing, things from top to bottom and, beside each other, from left to right."""
    groups: dict[int, list[Words]] = {}
    for run in kept:
        groups.setdefault(run.group, []).append(run)
    boxed = []
    for runs in groups.values():
        boxes = [run.box() for run in runs]
        whole = boxes[0]
        for box in boxes[1:]:
            whole = whole.united(box)
        boxed.append((whole, runs))
    boxed.sort(key=lambda pair: pair[0].top())
    lines: list[list[tuple[QRectF, list[Words]]]] = []
    for box, runs in boxed:
        first = lines[-1][0][0] if lines else QRectF()
        beside = min(first.bottom(), box.bottom()) - box.top()
        if lines and beside > 0.5 * min(first.height(), box.height()):
            lines[-1].append((box, runs))
        else:
            lines.append([(box, runs)])
    return [runs for line in lines for _box, runs in sorted(line, key=lambda pair: pair[0].left())]


def _each(asked: Asked, parts: Sequence[Path], kind: str) -> bool:
    for number, (page, part) in enumerate(zip(asked.pages, parts, strict=True)):
        bare, area = asked.bare(page), asked.area(page)
        if kind == "svg":
            keep_bytes(part, page_svg(bare, area, asked.fonts, asked.language))
        else:
            buffer = QBuffer()
            buffer.open(QIODevice.OpenModeFlag.WriteOnly)
            if not page_image(bare, asked.width, area).save(buffer, "PNG"):
                raise OSError(_("the picture can't be made"))
            keep_bytes(part, buffer.data().data())
        if asked.progress is not None and not asked.progress(number + 1, len(asked.pages)):
            return False
    return True
