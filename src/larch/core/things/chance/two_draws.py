"""Two draws one after the other: as a tree with its chances, or as a table, both filled from the experiment."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from typing import TYPE_CHECKING, ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, set_all
from larch.core.model.capabilities import Tappable
from larch.core.model.chance import chance, drawn
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_names, read_numbers
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

if TYPE_CHECKING:
    from numpy.random import Generator

MOST_SORTS, MOST = 4, 50
ROW, WIDE = 64.0, 760.0  # of a leaf of the tree, and of the tree
CELL = 116.0  # of the table
FOOT = 44.0
FORMS = (("tree", N_("a tree")), ("table", N_("a table")))


class TwoDraws(Tappable, Thing, frozen=True, kw_only=True, tag="two draws"):
    """counts: how many of each sort there are; names: of the sorts. back: the first is put back before the second is
    drawn. tally: how often each pair came, the second draw quickest. form: one of FORMS. Raises ValueError where these don't
    fit."""

    counts: tuple[int, ...] = (3, 2)
    names: tuple[str, ...] = ()
    back: bool = True
    tally: tuple[int, ...] = ()
    form: str = "tree"

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "list-tree"
    order: ClassVar[int] = 24
    help: ClassVar[str] = N_(
        "Tap to draw twice. The branches carry their chances, the ends what came of it; the same as a table. Type what is "
        "in the bag, such as 3 2, and choose whether the first is put back."
    )

    def __post_init__(self) -> None:
        n = len(self.counts)
        if not 1 <= n <= MOST_SORTS or not all(1 <= count <= MOST for count in self.counts) or sum(self.counts) < 2:
            raise ValueError("two are drawn from what there is")
        if len(self.names) > n or self.form not in dict(FORMS):
            raise ValueError("sorts have names, and are seen as a tree or a table")
        if self.tally and (len(self.tally) != n * n or any(not 0 <= k <= 10**15 for k in self.tally)):
            raise ValueError("a tally counts each pair")

    @classmethod
    def title(cls) -> str:
        return _("two draws")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("tree diagram two-way table probability two stages bag conditional")
        yield ShelfItem("two draws", _("tree diagram"), N_("Chance"), cls, words)
        yield ShelfItem("two-way table", _("two-way table"), N_("Chance"), lambda: cls(form="table"), words)

    def sort_name(self, sort: int) -> str:
        return (self.names[sort] if sort < len(self.names) else "") or str(sort + 1)

    def label(self, page: Page) -> str:
        return self.name or _("two draws from {n}, {trials} times").format(n=sum(self.counts), trials=sum(self.tally))

    def sorts(self) -> range:
        return range(len(self.counts))

    def extent(self) -> Box:
        n = len(self.counts)
        if self.form == "table":
            return Box(0, 0, (n + 2) * CELL, (n + 2) * 0.6 * CELL + FOOT)
        return Box(0, 0, WIDE, n * n * ROW + FOOT)

    def times(self, first: int, second: int) -> int:
        return self.tally[first * len(self.counts) + second] if self.tally else 0

    def chance_first(self, first: int) -> Fraction:
        return Fraction(self.counts[first], sum(self.counts))

    def chance_second(self, first: int, second: int) -> Fraction:
        """Of the second draw, when the first is known."""
        if self.back:
            return Fraction(self.counts[second], sum(self.counts))
        return Fraction(self.counts[second] - (first == second), sum(self.counts) - 1)

    def chance_of(self, first: int, second: int) -> Fraction:
        return self.chance_first(first) * self.chance_second(first, second)

    def facts(self, page: Page) -> Iterator[Fact]:
        trials = sum(self.tally)
        yield Fact("trials", trials, text=str(trials), label=_("trials"))
        text = " ".join(map(str, self.counts))
        yield Fact("contents", text, text=text, label=_("there are"), set=self._set_contents)
        names = "; ".join(map(self.sort_name, self.sorts()))
        yield Fact("names", names, text=names, label=_("names"), set=self._set_names)
        for first in self.sorts():
            for second in self.sorts():
                pair = f"{first + 1} {second + 1}"
                label = _("{a}, then {b}").format(a=self.sort_name(first), b=self.sort_name(second))
                count = self.times(first, second)
                yield Fact(f"came up {pair}", count, text=str(count), label=label)
                text = str(self.chance_of(first, second))
                yield Fact(f"chance {pair}", text, text=text, label=_("chance of {name}").format(name=label))
        ways = (("back", _("put back")), ("out", _("left out")))
        value = "back" if self.back else "out"
        yield Fact("then", value, "", dict(ways)[value], _("the first is"), "", self._set_back, ways)
        forms = tuple((name, _(words)) for name, words in FORMS)
        yield Fact("form", self.form, "", dict(forms)[self.form], _("seen as"), "", self._set_form, forms)

    def _set_contents(self, typed: str) -> Thing:
        counts = read_numbers(typed)
        fits = 1 <= len(counts) <= MOST_SORTS and all(n == int(n) and 1 <= n <= MOST for n in counts)
        if not fits or sum(counts) < 2:
            raise ValueError(_("Write how many of each of up to {n} sorts, such as 3 2.").format(n=MOST_SORTS))
        return self.replace(counts=tuple(map(int, counts)), names=self.names[: len(counts)], tally=())  # type: ignore[no-any-return]

    def _set_names(self, typed: str) -> Thing:
        return self.replace(names=read_names(typed, 14)[: len(self.counts)])  # type: ignore[no-any-return]

    def _set_back(self, typed: str) -> Thing:
        return self.replace(back=typed == "back", tally=())  # type: ignore[no-any-return]

    def _set_form(self, typed: str) -> Thing:
        if typed not in dict(FORMS):
            raise ValueError(_("Choose a tree or a table."))
        return self.replace(form=typed)  # type: ignore[no-any-return]

    def tried(self, rng: Generator, times: int = 1) -> TwoDraws:
        chances = [float(self.chance_of(first, second)) for first in self.sorts() for second in self.sorts()]
        more = rng.multinomial(times, [one / sum(chances) for one in chances]).tolist()
        before = self.tally or (0,) * len(more)
        return self.replace(tally=tuple(a + b for a, b in zip(before, more, strict=True)))  # type: ignore[no-any-return]

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS

    def tap_action(self, at: Point) -> str:
        return "draw twice"


def _try(page: Page, things: Things, times: int) -> Edit:
    rng = chance(page)
    changed = {t.id: t.tried(rng, times) for t in things if isinstance(t, TwoDraws)}
    return Edit(_("Draw twice"), page, drawn(page).with_things(changed))


def _clear(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Clear the tally"), tally=())


ACTIONS = (
    Action("draw twice", lambda p, ts: _("draw twice"), "hand", lambda p, ts: _try(p, ts, 1), only(TwoDraws), shortcut="R",
           rank=5, board=True, words=N_("experiment trial random")),
    Action("draw twice often", lambda p, ts: _("a thousand times"), "refresh-cw", lambda p, ts: _try(p, ts, 1000),
           only(TwoDraws), rank=6, board=True, words=N_("many trials simulate")),
    Action("clear draws", lambda p, ts: _("clear the tally"), "brush-cleaning", _clear,
           lambda p, ts: only(TwoDraws)(p, ts) and any(getattr(t, "tally", ()) for t in ts), rank=7, words=N_("reset")),
)  # fmt: skip
