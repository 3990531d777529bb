"""What a gesture is given and what it must offer."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
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


RUB = "rub"  # the part of a thing that an eraser asks for
Change = Callable[[Page], Mapping[str, Thing]]


def nothing(page: Page) -> Mapping[str, Thing]:
    """The change that changes nothing, where only new things are shown."""
    return {}


def each(ids: Iterable[str], change: Callable[[Any], Thing | None]) -> Change:
    """The change of some things, each as it is when the change is made."""
    chosen = tuple(ids)

    def changed(page: Page) -> Mapping[str, Thing]:
        return {t.id: after for t in page.some(chosen) if (after := change(t)) is not None and after is not t}

    return changed


class Stage(Protocol):
    """What the canvas lends to gestures. Previews belong to a gesture and vanish with it.

    What a gesture makes of things is a function of the page as it is at the time, never a value kept since the press: so
    several hands at one thing lose nothing of each other's.
    """

    camera: Camera
    selection: tuple[str, ...]
    at_board: bool

    def may(self, what: str) -> bool: ...

    opened: str
    edit_at: Point | None
    let_go: Any
    said: Any
    measure_wanted: Any

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
    def preview(self, owner: object, change: Change, new: Sequence[Thing] = ()) -> None: ...
    def finish(
        self, owner: object, label: str, change: Change, then: Callable[[Page, Sequence[str]], Page] | None = None
    ) -> None: ...
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
    def tap(self, thing: Thing, at: Point) -> bool: ...
    def part_at(self, thing: Thing, sample: Sample) -> str: ...
    def held_corner_at(self, sample: Sample, under: Thing | None) -> tuple[str, str] | None: ...
    def gesture_for(self, sample: Sample, thing: Thing, part: str) -> Gesture | None: ...
    def pen_gesture(self, sample: Sample, pen: Pen) -> Gesture | None: ...


class Gesture:
    """One pointer, from press to release. `pinches`: a second finger turns it into a pinch. `carried`: the ids of what it
    moves as a whole, which a second finger can take hold of too."""

    pinches: ClassVar[bool] = False
    carried: tuple[str, ...] = ()
    pressed: Sample | None = None  # where it began, of those

    def move(self, sample: Sample) -> None:
        """The pointer moved."""

    def release(self, sample: Sample) -> None:
        """The pointer was lifted: commit."""

    def cancel(self) -> None:
        """The gesture came to nothing: leave no trace."""
