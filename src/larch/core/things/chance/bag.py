"""A bag: things of several sorts in it, drawn one by one, with or without putting back."""

from __future__ import annotations

from collections.abc import Iterator
from typing import TYPE_CHECKING, ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, set_all, toggle
from larch.core.model.capabilities import Tappable
from larch.core.model.chance import chance, drawn
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_names, read_numbers
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

if TYPE_CHECKING:
    from numpy.random import Generator

WIDE, HIGH = 200.0, 232.0
FOOT = 96.0
MOST_SORTS, MOST = 8, 200
SHOWN = 12  # of the last drawn


class Bag(Tappable, Thing, frozen=True, kw_only=True, tag="bag"):
    """counts: how many of each sort were put in, names: of the sorts. drawn: the sorts drawn so far, in order. back: each is
    put back before the next is drawn. open: one sees into it. Raises ValueError where these don't fit."""

    counts: tuple[int, ...] = (3, 2, 1)
    names: tuple[str, ...] = ()
    drawn: tuple[int, ...] = ()
    back: bool = True
    open: bool = True

    icon: ClassVar[str] = "package"
    order: ClassVar[int] = 23
    help: ClassVar[str] = N_(
        "Tap to draw one. Choose whether it is put back, and whether one sees into the bag. Type what is in "
        "it, such as 3 2 1."
    )

    def __post_init__(self) -> None:
        if not 1 <= len(self.counts) <= MOST_SORTS or not all(0 <= n <= MOST for n in self.counts) or not sum(self.counts):
            raise ValueError("a bag has something in it")
        if not all(0 <= sort < len(self.counts) for sort in self.drawn) or len(self.names) > len(self.counts):
            raise ValueError("only what was in it is drawn")
        if not self.back and any(left < 0 for left in self.left()):
            raise ValueError("no more is drawn than was in it")

    @classmethod
    def title(cls) -> str:
        return _("bag")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("bag draw counters replace without chance probability pick")
        yield ShelfItem("bag", _("bag"), N_("Chance"), cls, words)

    def label(self, page: Page) -> str:
        return self.name or _("bag with {n}, {drawn} drawn").format(n=sum(self.left()), drawn=len(self.drawn))

    def extent(self) -> Box:
        return Box(0, 0, WIDE, HIGH + FOOT)

    def sort_name(self, sort: int) -> str:
        return (self.names[sort] if sort < len(self.names) else "") or str(sort + 1)

    def left(self) -> tuple[int, ...]:
        """What is in it now, by sort."""
        if self.back:
            return self.counts
        return tuple(n - self.drawn.count(sort) for sort, n in enumerate(self.counts))

    def facts(self, page: Page) -> Iterator[Fact]:
        text = " ".join(map(str, self.counts))
        yield Fact("contents", text, text=text, label=_("in it at first"), set=self._set_contents)
        names = "; ".join(self.sort_name(sort) for sort in range(len(self.counts)))
        yield Fact("names", names, text=names, label=_("names"), set=self._set_names)
        last = self.sort_name(self.drawn[-1]) if self.drawn else "—"
        yield Fact("value", last if self.drawn else None, text=last, label=_("drawn last"))
        yield Fact("drawn", len(self.drawn), text=str(len(self.drawn)), label=_("drawn"))
        yield Fact("left", sum(self.left()), text=str(sum(self.left())), label=_("in it now"))
        for sort in range(len(self.counts)):
            count = self.drawn.count(sort)
            label = _("came up {face}").format(face=self.sort_name(sort))
            yield Fact(f"came up {sort + 1}", count, text=str(count), label=label)
        whole = sum(self.left())
        for sort, n in enumerate(self.left()):
            chance_text = f"{n}/{whole}" if whole else "—"
            label = _("chance of {name}").format(name=self.sort_name(sort))
            yield Fact(f"chance {sort + 1}", chance_text, text=chance_text, label=label)
        ways = (("back", _("put back")), ("out", _("left out")))
        value = "back" if self.back else "out"
        yield Fact("then", value, "", dict(ways)[value], _("what is drawn is"), "", self._set_back, ways)

    def _set_contents(self, typed: str) -> Thing:
        counts = read_numbers(typed)
        if not 1 <= len(counts) <= MOST_SORTS or any(n != int(n) or not 0 <= n <= MOST for n in counts) or not sum(counts):
            raise ValueError(_("Write how many of each, such as 3 2 1."))
        return self.replace(counts=tuple(map(int, counts)), drawn=(), names=self.names[: len(counts)])  # type: ignore[no-any-return]

    def _set_names(self, typed: str) -> Thing:
        return self.replace(names=read_names(typed)[: len(self.counts)])  # type: ignore[no-any-return]

    def _set_back(self, typed: str) -> Thing:
        return self.replace(back=typed == "back", drawn=())  # type: ignore[no-any-return]

    def after_draw(self, rng: Generator) -> Bag:
        """Raises ValueError if it is empty."""
        left = self.left()
        if not sum(left):
            raise ValueError(_("The bag is empty."))
        k = int(rng.integers(0, sum(left)))
        sort = next(sort for sort in range(len(left)) if k < sum(left[: sort + 1]))
        return self.replace(drawn=(*self.drawn, sort)[-100_000:])  # type: ignore[no-any-return]

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS

    def tap_action(self, at: Point) -> str:
        return "draw"


def draw(page: Page, things: Things) -> Edit:
    rng = chance(page)
    after = {bag.id: bag.after_draw(rng) for bag in things if isinstance(bag, Bag)}
    return Edit(_("Draw"), page, drawn(page).with_things(after))


def clear(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Put all back"), drawn=())


ACTIONS = (
    Action("draw", lambda p, ts: _("draw"), "hand", draw, only(Bag), shortcut="R", rank=5, board=True,
           words=N_("pick take random")),
    Action("refill", lambda p, ts: _("put all back"), "brush-cleaning", clear,
           lambda p, ts: only(Bag)(p, ts) and any(getattr(t, "drawn", ()) for t in ts), rank=6, board=True,
           words=N_("reset")),
    Action("look in", lambda p, ts: _("close it") if all(getattr(t, "open", False) for t in ts) else _("look in"), "eye",
           lambda p, ts: toggle(p, ts, "open", _("Look in"), _("Close it")), only(Bag), rank=7,
           words=N_("show hide contents")),
)  # fmt: skip
