"""Pictures."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QPainter, QPen

from larch.board.look import HAIRLINE, SOFT, colour
from larch.board.vector.engine import engine_of
from larch.board.views.base import View, words
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.pictures.picture import Picture


class PictureView(View):
    kind: ClassVar[type[Thing]] = Picture

    def paint_local(self, painter: QPainter, thing: Thing, page: Page) -> None:
        from larch.board.media.pictures import painted, renderer

        assert isinstance(thing, Picture)
        box = thing.extent()
        seen = QRectF(0, 0, box.width, box.height)
        tint = colour(thing.hue).name() if thing.tinted else ""
        left, top = thing.trim[0] * thing.width, thing.trim[1] * thing.height
        whole = QRectF(-left, -top, thing.width, thing.height)
        if thing.flipped or thing.upended:
            painter.translate(box.width if thing.flipped else 0.0, box.height if thing.upended else 0.0)
            painter.scale(-1.0 if thing.flipped else 1.0, -1.0 if thing.upended else 1.0)
        painter.setOpacity(painter.opacity() * thing.opacity)
        drawn = renderer(thing.media) if engine_of(painter) is not None and not tint else None
        if drawn is not None:
            if any(thing.trim):
                painter.setClipRect(seen, Qt.ClipOperation.IntersectClip)
            drawn.render(painter, whole)
            return
        onto = painter.deviceTransform()
        scale = (onto.m11() ** 2 + onto.m12() ** 2) ** 0.5
        if engine_of(painter) is not None:  # what is handed on is as sharp as it can be
            scale = max(scale, 2048 / max(thing.width, thing.height))
        picture = painted.soon(thing.media, tint, int(max(thing.width, thing.height) * scale))
        if picture is None:
            coming = _("picture on its way") if painted.is_coming(thing.media) else _("picture missing")
            _lost(painter, seen, painted.why_not(thing.media) or coming)
            return
        across, down = picture.width() / thing.width, picture.height() / thing.height
        source = QRectF(left * across, top * down, seen.width() * across, seen.height() * down)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.drawImage(seen, picture, source)


def _lost(painter: QPainter, seen: QRectF, text: str) -> None:
    painter.setPen(QPen(HAIRLINE, 1.5, Qt.PenStyle.DashLine))
    painter.setBrush(Qt.BrushStyle.NoBrush)
    painter.drawRect(seen)
    words(painter, seen.center(), text, SOFT, min(18.0, seen.width() / 9))
