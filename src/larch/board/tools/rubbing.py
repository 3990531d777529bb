"""Rubbing frost off with a finger, a pen or the mouse."""

from __future__ import annotations

from larch.board.pointer import Sample
from larch.board.tools.base import Gesture, Stage
from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.things.pictures.frost import RADIUS, Frost


class RubFrost(Gesture):
    """What the pointer passes is cleared at once; one press to one release is one step of undo."""

    def __init__(self, stage: Stage, sample: Sample, frost: Frost) -> None:
        self.stage = stage
        self.frost = frost
        self.path: list[Point] = [sample.page_pos]
        self._show()

    def _show(self) -> None:
        self.stage.preview(self, {self.frost.id: self.frost.with_rub(self.path, RADIUS)})

    def move(self, sample: Sample) -> None:
        self.path.append(sample.page_pos)
        self._show()

    def release(self, sample: Sample) -> None:
        page = self.stage.page
        after = self.frost.rubbed_off(self.path, RADIUS)
        if page.thing(self.frost.id) is not None:
            self.stage.commit(Edit(_("Rub off frost"), page, page.with_things({self.frost.id: after})))
        self.stage.end_preview(self)

    def cancel(self) -> None:
        self.stage.end_preview(self)


def frost_at(stage: Stage, sample: Sample) -> Frost | None:
    """The frost that lies on top of a place, where it has not been cleared yet."""
    thing = stage.thing_at(sample.page_pos, 0.0)
    return thing if isinstance(thing, Frost) and not thing.supply else None
