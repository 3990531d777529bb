"""A number as dots in rings, rings in rings: its prime factors, the smallest outermost."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import Counts, HasLabels
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

SIDE = 260.0
FOOT = 52.0
MOST = 100


def prime_factors(n: int) -> tuple[int, ...]:
    """In rising order; none of 1."""
    found, rest, p = [], n, 2
    while p * p <= rest:
        while rest % p == 0:
            found.append(p)
            rest //= p
        p += 1
    return (*found, rest) if rest > 1 else tuple(found)


class FactorPicture(Counts, HasLabels, Thing, frozen=True, kw_only=True, tag="factor picture"):
    """number: from 1 to 100; anything else raises ValueError."""

    number: int = 12

    icon: ClassVar[str] = "circle-dot-dashed"
    order: ClassVar[int] = 17
    help: ClassVar[str] = N_(
        "A number drawn as groups of groups: one ring for each prime factor. A prime is one ring of dots."
    )

    def __post_init__(self) -> None:
        if not 1 <= self.number <= MOST:
            raise ValueError("a factor picture shows 1 to 100")

    @classmethod
    def title(cls) -> str:
        return _("factor picture")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("prime factors factorisation groups dots multiply")
        yield ShelfItem("factor picture", _("factor picture"), N_("Numbers"), cls, words)

    def label(self, page: Page) -> str:
        return self.name or _("factor picture of {n}").format(n=self.number)

    def extent(self) -> Box:
        return Box(0, 0, SIDE, SIDE + FOOT)

    def worth(self) -> int:
        return self.number

    def product_text(self) -> str:
        return " × ".join(map(str, prime_factors(self.number))) or "1"

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("value", self.number, text=str(self.number), label=_("number"), set=self._set_value)
        text = self.product_text()
        yield Fact("factors", text, text=text, label=_("prime factors"))
        prime = len(prime_factors(self.number)) == 1
        yield Fact("prime", prime, text=_("yes") if prime else _("no"), label=_("prime"))
        divisors = [d for d in range(1, self.number + 1) if self.number % d == 0]
        text = ", ".join(map(str, divisors))
        yield Fact("divisors", text, text=text, label=_("divisors"))

    def _set_value(self, typed: str) -> Thing:
        return self.replace(number=read_whole(typed, 1, MOST))  # type: ignore[no-any-return]

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _step(page: Page, things: Things, by: int) -> Edit:
    changed = {
        t.id: t.replace(number=min(max(t.number + by, 1), MOST)) for t in things if isinstance(t, FactorPicture)
    }  # fmt: skip
    return Edit(_("One more") if by > 0 else _("One fewer"), page, page.with_things(changed))


ACTIONS = (
    Action("next number", lambda p, ts: _("next number"), "plus", lambda p, ts: _step(p, ts, 1), only(FactorPicture), rank=5,
           shortcut="+", board=True, words=N_("more count up")),
    Action("number before", lambda p, ts: _("number before"), "minus", lambda p, ts: _step(p, ts, -1), only(FactorPicture),
           rank=6, shortcut="-", board=True, words=N_("fewer count down")),
)  # fmt: skip
