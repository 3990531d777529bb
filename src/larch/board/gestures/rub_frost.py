"""Rubbing frost off with a finger, a pen or the mouse."""

from __future__ import annotations

from larch.board.gestures.base import Gesture, Stage, each
from larch.board.pointer import Sample
from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.things.pictures.frost import RADIUS, Frost


class RubFrost(Gesture):
    """What the pointer passes is cleared at once; one press to one release is one step of undo."""

    def __init__(self, stage: Stage, sample: Sample, frost: Frost) -> None:
        self.stage = stage
        self.id = frost.id
        self.path: list[Point] = [sample.page_pos]
        self._show()

    def _show(self) -> None:
        self.stage.preview(self, each((self.id,), lambda frost: frost.with_rub(self.path, RADIUS)))

    def move(self, sample: Sample) -> None:
        self.path.append(sample.page_pos)
        self._show()

    def release(self, sample: Sample) -> None:
        self.stage.finish(self, _("Rub off frost"), each((self.id,), lambda frost: frost.rubbed_off(self.path, RADIUS)))

    def cancel(self) -> None:
        self.stage.end_preview(self)
