"""Pictures from elsewhere: a file, a drop, the clipboard. They are read off the interface's thread."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QMimeData, QPoint
from PyQt6.QtGui import QImage

from larch.core.actions.ink.brought import brought_ink
from larch.core.base.disk import read_bounded
from larch.core.base.shape import Box, Point
from larch.core.base.words import _, many
from larch.core.model.action import put
from larch.core.model.holders import in_cells
from larch.core.things.pictures.picture import Picture
from larch.desk.jobs import in_background

if TYPE_CHECKING:
    from larch.board.media.pictures import Brought
    from larch.core.files.inkml_read import Trace
    from larch.desk.context import Context

MOST_AT_ONCE = 60
INK = ".inkml"


class Bringing:
    """What becomes of files and pictures that are given to the window."""

    def __init__(self, context: Context) -> None:
        self.context = context
        self.busy = 0

    def ask(self) -> None:
        """Asks for files and puts out the pictures in them."""
        from PyQt6.QtWidgets import QFileDialog

        kinds = _("Pictures and ink") + " (*.png *.jpg *.jpeg *.webp *.svg *.gif *.inkml)"
        names, _kind = QFileDialog.getOpenFileNames(self.context.top, _("Pictures to put out"), "", kinds)
        self.files([Path(name) for name in names])

    @staticmethod
    def takes(data: QMimeData | None) -> bool:
        """Whether something that is dragged over the window holds pictures."""
        from larch.board.media.pictures import ENDINGS

        if data is None:
            return False
        return data.hasImage() or any(url.toLocalFile().lower().endswith((*ENDINGS, INK)) for url in data.urls())

    def dropped(self, data: QMimeData, at: QPoint) -> None:
        """`at`: a place of the canvas, pixels."""
        place = self.context.canvas.camera.to_page(at.x(), at.y())
        paths = [Path(url.toLocalFile()) for url in data.urls() if url.isLocalFile()]
        if paths:
            self.files(paths, place)
        elif data.hasImage():
            self.image(QImage(data.imageData()), place)

    def files(self, paths: Sequence[Path], at: Point | None = None) -> None:
        if len(paths) > MOST_AT_ONCE:
            self.context.say(_("That is too many at once: the first {n} are put out.").format(n=MOST_AT_ONCE))
        chosen = [path for path in paths[:MOST_AT_ONCE] if path.suffix.lower() != INK]
        for path in paths[:MOST_AT_ONCE]:
            if path.suffix.lower() == INK:
                self.ink(path, at)
        if chosen:
            self._bring(lambda: _read(chosen), at)

    def ink(self, path: Path, at: Point | None = None) -> None:
        """Strokes of an InkML file, on the page that is shown."""
        canvas, page_id = self.context.canvas, self.context.canvas.page_id

        def done(traces: list[Trace]) -> None:
            page = canvas.session.lesson.page(page_id)
            if page is not None and canvas.page_id == page_id:
                self.context.take_tool("select")
                canvas.commit(brought_ink(page, traces, at))

        def failed(error: Exception) -> None:
            words = str(error) if isinstance(error, ValueError) else _("{name} can't be read.").format(name=path.name)
            self.context.say(words)

        in_background(canvas, lambda _job: _ink_in(path), done, failed)

    def image(self, image: QImage, at: Point | None = None) -> None:
        from larch.board.media.pictures import picture_from_image

        self._bring(lambda: ([picture_from_image(image)], []), at)

    def svg(self, raw: bytes, at: Point | None = None) -> None:
        from larch.board.media.pictures import picture_from_bytes

        self._bring(lambda: ([picture_from_bytes(raw, "")], []), at)

    def _bring(self, work: Callable[[], tuple[list[Brought], list[str]]], at: Point | None) -> None:
        canvas, page_id = self.context.canvas, self.context.canvas.page_id
        self.busy += 1

        def done(result: tuple[list[Brought], list[str]]) -> None:
            self.busy -= 1
            brought, trouble = result
            for sentence in [*trouble, *(one.said for one in brought if one.said)][:4]:
                self.context.say(sentence)
            page = canvas.session.lesson.page(page_id)
            if brought and page is not None:
                placed = self._laid([one.picture for one in brought], at)
                label = many("Put out a picture", "Put out {n} pictures", len(placed))
                edit = in_cells(put(page, placed, label))
                if canvas.page_id == page_id:
                    self.context.take_tool("select")
                    canvas.commit(edit)
                else:
                    canvas.session.commit(edit)

        def failed(error: Exception) -> None:
            self.busy -= 1
            words = str(error) if isinstance(error, ValueError) else _("The picture could not be kept: the disk refuses it.")
            self.context.say(words)

        in_background(canvas, lambda _job: work(), done, failed)

    def _laid(self, pictures: list[Picture], at: Point | None) -> list[Picture]:
        """Side by side in rows round a place; with none given, where nothing lies."""
        canvas = self.context.canvas
        across = min(len(pictures), 5)
        cell = max(max(p.width, p.height) for p in pictures) + 24
        rows = -(-len(pictures) // across)
        if at is None:
            x, y = canvas.camera.to_page(*canvas.free().centre)
            wide, high = across * cell / 2 - 12, rows * cell / 2 - 12
            dx, dy = self.context.part("putting").free_spot(Box(x - wide, y - high, x + wide, y + high))
            at = (x + dx, y + dy)
        placed = []
        for k, one in enumerate(pictures):
            x = at[0] + (k % across - (across - 1) / 2) * cell - one.width / 2
            y = at[1] + (k // across - (rows - 1) / 2) * cell - one.height / 2
            placed.append(one.moved(x, y))
        return placed


def _ink_in(path: Path) -> list[Trace]:
    from larch.core.files.inkml_read import LARGEST, Unreadable, traces_of

    traces = traces_of(read_bounded(path, LARGEST))
    if not any(trace.points for trace in traces):
        raise Unreadable(_("There is no ink in the file."))
    return traces


def _read(paths: Sequence[Path]) -> tuple[list[Brought], list[str]]:
    from larch.board.media.pictures import NoPicture, picture_from_file

    good: list[Brought] = []
    trouble: list[str] = []
    for path in paths:
        try:
            good.append(picture_from_file(path))
        except NoPicture as error:
            trouble.append(str(error))
        except OSError:
            trouble.append(_("{name} could not be kept: the disk refuses it.").format(name=path.name))
    return good, trouble
