"""What every thing on a page has in common, and the registry that finds the kinds by itself."""

from __future__ import annotations

import importlib
import pkgutil
from collections.abc import Callable, Iterator, Mapping, Sequence
from functools import cache
from typing import TYPE_CHECKING, Any, ClassVar

import msgspec
from msgspec import Struct

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import _
from larch.core.model.fact import Fact

if TYPE_CHECKING:
    from larch.core.maths.plane.forms import Form
    from larch.core.model.action import Action
    from larch.core.model.edit import Edit
    from larch.core.model.page import Page
    from larch.core.things.ink.ink import Ink


class Handle(Struct, frozen=True):
    """A place on a thing that can be dragged. Position in the thing's own coordinates."""

    name: str
    x: float
    y: float
    label: str = ""


class Snap(Struct, frozen=True):
    """A shift that brings a moving thing into place, and the word that says why."""

    dx: float
    dy: float
    reason: str
    line: tuple[Point, Point] | None = None


class ShelfItem(Struct, frozen=True):
    """An entry on the shelf: what it is called, where it lies, what else it is called, and how it is made. `several`:
    of an entry that puts out more than one thing; `make` then gives the one that stands for them."""

    name: str
    label: str
    tray: str
    make: Callable[[], Thing]
    words: str = ""
    several: Callable[[], Sequence[Thing]] | None = None

    def things(self) -> list[Thing]:
        """All that it puts out; what follows from others refers to t1, t2 … of these."""
        return list(self.several()) if self.several is not None else [self.make()]


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

    is_ink: ClassVar[bool] = False
    resizable: ClassVar[bool] = True
    turnable: ClassVar[bool] = True
    works_locked: ClassVar[bool] = False  # a hand at the Board reaches it although it can't be moved
    solid: ClassVar[bool] = False  # lines between boxes go round it
    joins: ClassVar[bool] = False  # joining lines are offered for it; they can lead to anything
    holds_others: ClassVar[bool] = False  # what lies in it goes with it
    roomy: ClassVar[bool] = False  # its handles are offered only where it is shown large enough to be dragged beside them
    takes_ink: ClassVar[bool] = False  # what is written on it becomes part of it
    stretches_down: ClassVar[bool] = True  # its lower edge can be dragged, if it stretches at all
    editor: ClassVar[str] = ""  # which editor opens it: "words", "equation" or none
    taps: ClassVar[int] = 1  # how many taps at the Board mean its action
    icon: ClassVar[str] = "square"
    help: ClassVar[str] = ""
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

    def uses(self, page: Page) -> tuple[Thing, ...]:
        """The other things that its look depends on."""
        return ()

    def worth(self) -> int | None:
        """What it counts for in a total, if it counts."""
        return None

    def put_out(self, page: Page) -> Edit | None:
        """What a tap on its shelf entry does instead of laying it on the page; None for just that."""
        return None

    def tap_action(self) -> str:
        """The action that a tap at the Board means, or ""."""
        return ""

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """How it falls into place beside the others, within `reach` page units."""
        return None

    def rubbed(self, change: Callable[[Ink], Sequence[Thing] | None]) -> Sequence[Thing] | None:
        """What stays of it when `change` is applied to the ink in it, given in page coordinates; None if all of it does.

        `change` returns what is left of a stroke, or None where it leaves it alone. See `larch.core.actions.ink.rub`.
        """
        return None

    def with_ink(self, ink: Ink) -> Thing | None:
        """Itself with a stroke of the page in it, where it takes that."""
        return None

    def plain_text(self) -> str:
        """The words in it, for other programs."""
        return ""

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        """Lines that hold paint back, in its own coordinates, each with whether it closes."""
        return iter(())

    def form_on(self, page: Page) -> Form | None:
        """Its form for geometry, in page coordinates; None if it has none."""
        return None

    def rests_on(self, page: Page) -> tuple[str, ...]:
        """The ids of other things on which its form depends without its following from them."""
        return ()

    def media_names(self) -> tuple[str, ...]:
        """The names of what it shows or plays from the store of media."""
        return (self.link[6:],) if self.link.startswith("sound:") else ()

    def rearranged(self, page: Page, before: Thing) -> Mapping[str, Thing]:
        """The other things that change when a handle of it has been dragged."""
        return {}

    def bare(self) -> Thing:
        """As it is written into a file: without what is derived."""
        return self

    def christened(self, page: Page) -> Thing:
        """Itself with names that are still free on the page, when it is put out there."""
        return self

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


class Unknown(Thing, frozen=True, kw_only=True, tag="unknown"):
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
        from larch.core.media.store import NAME

        text = self.raw.decode("utf-8", "replace")
        return tuple(dict.fromkeys(match[0] for match in NAME.finditer(text)))

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("kind", self.was, text=self.was, label=_("kind"))


@cache
def kinds() -> dict[str, type[Thing]]:
    """Every kind by its tag, found by looking into `larch.core.things`."""
    from larch.core import things

    for module in pkgutil.walk_packages(things.__path__, f"{things.__name__}."):
        importlib.import_module(module.name)
    found: dict[str, type[Thing]] = {}
    waiting = list(Thing.__subclasses__())
    while waiting:
        kind = waiting.pop()
        waiting += kind.__subclasses__()
        tag = kind.__struct_config__.tag
        if tag and not str(tag).startswith("_"):  # what kinds share is none itself
            found[str(tag)] = kind
    return dict(sorted(found.items()))


def shelf_items() -> list[ShelfItem]:
    """All entries of the shelf, in the kinds' order."""
    ordered = sorted(kinds().values(), key=lambda kind: (kind.order, kind.__name__))
    return [item for kind in ordered for item in kind.shelf()]
