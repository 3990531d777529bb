"""What a tool must offer."""

from __future__ import annotations

from typing import ClassVar

from larch.board.gestures.base import Gesture, Stage
from larch.board.pointer import Sample
from larch.core.base.shape import Point
from larch.core.model.thing import Thing


class Tool:
    """name: stable; label and icon: on the ledge; cursor: a word that the canvas turns into a pointer shape."""

    name: ClassVar[str] = ""
    icon: ClassVar[str] = ""
    cursor: ClassVar[str] = "arrow"
    shortcut: ClassVar[str] = ""
    places: ClassVar[bool] = False  # a tap or Enter begins something to be typed: see `fresh`
    makes_marks: ClassVar[bool] = False  # a flat hand rubs out while it is in hand

    def label(self) -> str:
        raise TypeError(self.name)

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        return Gesture()

    def fresh(self, at: Point) -> Thing | None:
        """What is begun at a place of the page where a tap, or Enter, places something to be typed; None for most tools."""
        return None

    def taken(self, stage: Stage) -> None:
        """It was taken in hand, or chosen for."""

    def put_down(self, stage: Stage) -> None:
        """Another tool is taken, or another page: gives up what was begun."""
