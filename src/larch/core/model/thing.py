"""What every thing on a page has in common. What only some can do is in `capabilities`; `kinds` finds the kinds."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import TYPE_CHECKING, Any, ClassVar

import msgspec
from msgspec import Struct

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import _
from larch.core.media.store import NAME
from larch.core.model.capabilities import HasMedia
from larch.core.model.fact import Fact
from larch.core.model.guarded import ANSWERS, guard

if TYPE_CHECKING:
    from larch.core.model.action import Action
    from larch.core.model.edit import Edit
    from larch.core.model.page import Page


class Handle(Struct, frozen=True):
    """A place on a thing that can be dragged. Position in the thing's own coordinates. `roomy`: offered only where the
    thing is shown large enough to be dragged beside it. `held`: a corner that a hand at the Board takes hold of without
    selecting the thing first."""

    name: str
    x: float
    y: float
    label: str = ""
    roomy: bool = False
    held: bool = False


class Snap(Struct, frozen=True):
    """A shift that brings a moving thing into place, and the word that says why."""

    dx: float
    dy: float
    reason: str
    line: tuple[Point, Point] | None = None


class ShelfItem(Struct, frozen=True):
    """An entry on the shelf: what it is called, where it lies, what else it is called, and how it is made. `several`:
    of an entry that puts out more than one thing; `make` then gives the one that stands for them. `instead`: what a tap on
    it does instead of laying it on the page."""

    name: str
    label: str
    tray: str
    make: Callable[[], Thing]
    words: str = ""
    several: Callable[[], Sequence[Thing]] | None = None
    instead: Callable[[Page], Edit] | None = None

    def things(self) -> list[Thing]:
        """All that it puts out; what follows from others refers to t1, t2 … of these."""
        return list(self.several()) if self.several is not None else [self.make()]


_GUARDED: set[type[Any]] = set()  # classes whose hooks are held


class Thing(
    Struct,
    frozen=True,
    kw_only=True,
    tag_field="kind",
    omit_defaults=True,
    weakref=True,
    forbid_unknown_fields=True,
):
    """A value on a page. Its kinds are the modules of `larch.core.things`.

    `groups` lists the groups it belongs to, outermost first. `shown` names the facts shown beside it.
    `link`: where a tap on it leads (see `core.links`). `hold`: how it may be moved, if not freely (see `core.holds`).
    `limit`: how many a supply gives, 0 for no end. `hidden`: not shown at all. `copy_of`: the id of what it is
    a copy of, on the same page.
    """

    id: str = ""
    placement: Placement = Placement()
    name: str = ""
    hue: str = "lake"
    locked: bool = False
    supply: bool = False
    groups: tuple[str, ...] = ()
    shown: tuple[str, ...] = ()
    link: str = ""
    hold: str = ""
    limit: int = 0
    hidden: bool = False
    copy_of: str = ""
    extra: tuple[tuple[str, bytes], ...] = ()

    def __init_subclass__(cls, **given: object) -> None:
        """What a kind, or one of its bases, gets wrong is held to the thing concerned."""
        super().__init_subclass__()
        for base in cls.__mro__[:-1]:
            if base not in _GUARDED:
                _GUARDED.add(base)
                guard(base, ANSWERS)

    resizable: ClassVar[bool] = True
    turnable: ClassVar[bool] = True
    editor: ClassVar[str] = ""  # which editor opens it (see `desk.editors`), or none
    icon: ClassVar[str] = "square"
    help: ClassVar[str] = ""
    refers: ClassVar[tuple[str, ...]] = ()  # its fields that hold the id of another thing of the page
    order: ClassVar[int] = 50  # where its entries stand on the shelf

    # What a kind says of itself; the defaults suit a plain box.

    @classmethod
    def title(cls) -> str:
        """The kind's everyday word."""
        raise TypeError(f"{cls.__name__} has no title")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        """Its entries on the shelf."""
        return iter(())

    def label(self, page: Page) -> str:
        """What a screen reader and the facts card call it."""
        return self.name or self.title()

    def extent(self) -> Box:
        """The box round it in its own coordinates. Text is measured by its view instead."""
        return Box(0, 0, 0, 0)

    def touches(self, x: float, y: float, slack: float) -> bool:
        """Whether a point of its own coordinates lies on it, within `slack`."""
        return self.extent().grown(slack).holds(x, y)

    def facts(self, page: Page) -> Iterator[Fact]:
        """Its numbers, the most asked-for first."""
        return iter(())

    def actions(self) -> tuple[Action, ...]:
        """What can be done with it beyond what can be done with anything."""
        return ()

    def handles(self) -> tuple[Handle, ...]:
        return ()

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        """The thing with one handle dragged to a place in its own coordinates."""
        return self

    def stretched(self, across: float, down: float) -> Thing | None:
        """Stretched by two factors in its own coordinates, or None if it keeps its proportions."""
        return None

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        """Lines that hold paint back, in its own coordinates, each with whether it closes."""
        return iter(())

    # Shared helpers.

    def replace(self, **changes: Any) -> Any:
        """A changed copy of the same kind."""
        return msgspec.structs.replace(self, **changes)

    def moved(self, dx: float, dy: float) -> Any:
        return self.replace(placement=self.placement.moved(dx, dy))

    def turned(self, degrees: float, centre: Point) -> Any:
        """Turned about a place of the page, counter-clockwise as seen."""
        return self.replace(placement=self.placement.turned(degrees, centre))

    def enlarged(self, factor: float, centre: Point) -> Any:
        return self.replace(placement=self.placement.enlarged(factor, centre))

    def box(self) -> Box:
        """The box round it on the page."""
        return self.placement.box_on_page(self.extent())

    def kind(self) -> str:
        return str(self.__struct_config__.tag)


class Unknown(HasMedia, Thing, frozen=True, kw_only=True, tag="unknown"):
    """A thing of a kind, or with values, that this version cannot read. Kept as it came."""

    raw: bytes = b""
    was: str = ""

    resizable: ClassVar[bool] = False
    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "circle-help"

    @classmethod
    def title(cls) -> str:
        return _("something newer")

    def label(self, page: Page) -> str:
        return _("{kind} (from a newer Larch)").format(kind=self.was or _("thing"))

    def extent(self) -> Box:
        return Box(0, 0, 260, 72)

    def media_names(self) -> tuple[str, ...]:
        """Whatever a newer version may mean by them, what looks like the name of a medium is carried along."""
        text = self.raw.decode("utf-8", "replace")
        return tuple(dict.fromkeys(match[0] for match in NAME.finditer(text)))

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("kind", self.was, text=self.was, label=_("kind"))


def media_of(thing: Thing) -> tuple[str, ...]:
    """The names of what it shows or plays from the store of media, the sound it leads to among them."""
    sound = (thing.link[6:],) if thing.link.startswith("sound:") else ()
    return (*sound, *thing.media_names()) if isinstance(thing, HasMedia) else sound
