"""What a tool is given and what it must offer."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any, ClassVar, NamedTuple, Protocol

from larch.board.camera import Camera
from larch.board.pointer import Sample
from larch.core.base.shape import Box, Point
from larch.core.model.edit import Edit
from larch.core.model.nibs import Pen
from larch.core.model.page import Page
from larch.core.model.thing import Snap, Thing

TOUCH_SLACK = 12.0  # pixels by which a fingertip may miss
DRAG_START = 5.0  # pixels a pointer moves before it drags


class Ring(NamedTuple):
    """A line drawn round something, in page units."""

    points: Sequence[Point]


class Rubber(NamedTuple):
    """Where the rubber is and how far it reaches, in pixels of the view."""

    at: Point
    radius: float


class Spots(NamedTuple):
    """Places that were tapped and wait for more, in page units."""

    points: Sequence[Point]


class Caption(NamedTuple):
    """A word beside a place of the page."""

    at: Point
    text: str


class Band(NamedTuple):
    """An upright strip of the page, from one x to another, that something sweeps over."""

    x0: float
    x1: float


class Prompt(NamedTuple):
    """What is wanted next, at the head of the view."""

    text: str


OverlayMark = Ring | Rubber | Spots | Caption | Band | Prompt


class Stage(Protocol):
    """What the canvas lends to tools. Previews belong to a gesture and vanish with it."""

    camera: Camera
    selection: tuple[str, ...]
    at_board: bool
    opened: str
    edit_at: Point | None
    let_go: Any
    said: Any

    @property
    def page(self) -> Page: ...

    def seen(self) -> Box: ...

    def whole(self, ids: Sequence[str]) -> tuple[str, ...]: ...

    def open_group(self, name: str) -> None: ...

    def drag_over(self, view_pos: Point | None) -> str: ...

    def commit(self, edit: Edit) -> None: ...
    def select(self, ids: Sequence[str]) -> None: ...
    def thing_at(self, pos: Point, slack: float) -> Thing | None: ...
    def things_in(self, box: Box) -> list[Thing]: ...
    def handle_at(self, view_pos: Point) -> tuple[str, str] | None: ...
    def box_of(self, things: Sequence[Thing]) -> Box: ...
    def preview(self, owner: object, things: Mapping[str, Thing], new: Sequence[Thing] = ()) -> None: ...
    def carry(self, owner: object, ids: Sequence[str], dx: float, dy: float) -> None: ...
    def end_preview(self, owner: object) -> None: ...
    def show_snap(self, owner: object, snap: Snap | None) -> None: ...
    def show_marquee(self, owner: object, box: Box | None) -> None: ...
    def show_marks(self, owner: object, *marks: OverlayMark) -> None: ...
    def show_instead(self, owner: object, instead: Mapping[str, Sequence[Thing]], boxes: Sequence[Box]) -> None: ...
    def rub_out(
        self, owner: object, path: Sequence[Point], radius: float, instead: Mapping[str, Sequence[Thing]]
    ) -> None: ...
    def end_instead(self, owner: object, committed: bool = False) -> None: ...
    def offer(self, at: Point, text: str, icon: str, run: Callable[[], None], drop: Callable[[], None]) -> None: ...
    def ink_to(self, owner: object, samples: Sequence[Sample], pressures: Sequence[float], pen: Pen) -> None: ...
    def ink_end(self, owner: object) -> None: ...
    def fill_at(self, at: Point, hue: str, gap: float) -> None: ...
    def pan_by(self, dx: float, dy: float) -> None: ...
    def zoom_by(self, factor: float, view_pos: Point) -> None: ...
    def edit_thing(self, thing: Thing) -> None: ...
    def tap(self, thing: Thing) -> bool: ...


class Gesture:
    """One pointer, from press to release. `pinches`: a second finger turns it into a pinch."""

    pinches: ClassVar[bool] = False

    def move(self, sample: Sample) -> None:
        """The pointer moved."""

    def release(self, sample: Sample) -> None:
        """The pointer was lifted: commit."""

    def cancel(self) -> None:
        """The gesture came to nothing: leave no trace."""


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
