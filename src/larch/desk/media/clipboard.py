"""Things on the clipboard: for other lessons as they are, for other programs as a picture and as text."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING

import msgspec
from msgspec import Raw
from PyQt6.QtCore import QByteArray, QMimeData
from PyQt6.QtGui import QGuiApplication, QImage

from larch.board.paint import page_image, page_svg
from larch.board.views import view_of
from larch.core.actions.arrange.arrange import brought, taken_along
from larch.core.base.shape import Placement, Point, union
from larch.core.base.words import _
from larch.core.files.codec import CodecError, thing_from_json, thing_to_json
from larch.core.files.rich_html import read_html
from larch.core.model.action import put
from larch.core.model.capabilities import HasWords
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.words.rich import LONGEST
from larch.core.things.words.text import Text

if TYPE_CHECKING:
    from larch.desk.context import Context

OWN = "application/x-larch-things+json"
LARGEST = 64 * 2**20  # bytes taken from a clipboard
SHIFT = 24.0


def copy_things(page: Page, things: Sequence[Thing]) -> None:
    if not things:
        return
    data = QMimeData()
    data.setData(OWN, QByteArray(msgspec.json.encode([Raw(thing_to_json(thing)) for thing in taken_along(things)])))
    area = union(view_of(thing).reach(thing, page) for thing in things)
    alone = page.replace(things=tuple(things), paper=page.paper.__class__())
    data.setImageData(page_image(alone, max(16, min(4000, round(area.width * 2))), area))
    data.setData("image/svg+xml", QByteArray(page_svg(alone)))
    texts = [words for thing in things if isinstance(thing, HasWords) and (words := thing.plain_text())]
    if texts:
        data.setText("\n".join(texts))
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    clipboard.setMimeData(data)


def bring_picture(context: Context) -> bool:
    """Pastes the picture of another program, or files from the file manager; False if there is none."""
    clipboard = QGuiApplication.clipboard()
    data = clipboard.mimeData() if clipboard is not None else None
    if data is None or data.hasFormat(OWN):
        return False
    paths = [Path(url.toLocalFile()) for url in data.urls() if url.isLocalFile()]
    if paths:
        context.part("bringing").files(paths)
    elif data.hasFormat("image/svg+xml"):
        context.part("bringing").svg(bytes(data.data("image/svg+xml").data()))
    elif data.hasImage() and not data.hasText():
        context.part("bringing").image(QImage(data.imageData()))
    else:
        return False
    return True


def paste_edit(page: Page, centre: Point) -> Edit | None:
    """What pasting does: things a little aside of where they were, or text in the middle of the view."""
    clipboard = QGuiApplication.clipboard()
    data = clipboard.mimeData() if clipboard is not None else None
    if data is None:
        return None
    if data.hasFormat(OWN):
        made = brought(page, _things(bytes(data.data(OWN).data())), SHIFT, SHIFT)
        return put(page, made, _("Paste")) if made else None
    text = _text(data)
    if text is None:
        return None
    box = text.extent()
    placed = text.replace(placement=Placement(centre[0] - box.width / 2, centre[1] - box.height / 2))
    return put(page, [placed], _("Paste"))


def _text(data: QMimeData) -> Text | None:
    """Words from another program, without what made them look foreign."""
    if data.hasHtml():
        words, runs, paragraphs = read_html(data.html())
    else:
        words, runs, paragraphs = data.text().strip()[:LONGEST] if data.hasText() else "", (), ()
    if not words:
        return None
    width = 900.0 if max(map(len, words.split("\n"))) > 40 else 0.0
    return Text(text=words, runs=runs, paragraphs=paragraphs, width=width)


def _things(raw: bytes) -> list[Thing]:
    if len(raw) > LARGEST:
        return []
    try:
        return [thing_from_json(bytes(one)) for one in msgspec.json.decode(raw, type=list[Raw])]
    except (msgspec.MsgspecError, CodecError):
        return []
