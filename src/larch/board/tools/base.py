"""What a tool must offer."""

from __future__ import annotations

from typing import ClassVar

from larch.board.gestures.base import Gesture, Stage
from larch.board.pointer import Sample


class Tool:
    """name: stable; label and icon: on the ledge; cursor: a word that the canvas turns into a pointer shape."""

    name: ClassVar[str] = ""
    icon: ClassVar[str] = ""
    cursor: ClassVar[str] = "arrow"
    shortcut: ClassVar[str] = ""
    makes_marks: ClassVar[bool] = False  # a flat hand rubs out while it is in hand

    def label(self) -> str:
        raise TypeError(self.name)

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        return Gesture()

    def taken(self, stage: Stage) -> None:
        """It was taken in hand, or chosen for."""

    def put_down(self, stage: Stage) -> None:
        """Another tool is taken, or another page: gives up what was begun."""
