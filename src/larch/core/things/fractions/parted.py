"""What bars and circles of fractions have in common: equal parts, some of them taken."""

from __future__ import annotations

import math
from collections.abc import Iterator
from fractions import Fraction
from typing import ClassVar, Self

from larch.core.base.number_words import decimal_text
from larch.core.base.shape import Placement, along
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, set_all
from larch.core.model.capabilities import HasParts, LooksAt, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, number_text, read_whole
from larch.core.model.holders import inside
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.fractions.fraction_piece import FractionPiece, row_of
from larch.core.things.fractions.whole import Whole

MOST_PARTS = 100
STRIDE = 4.0  # page units: no part is passed over by a quick finger
MOST_WHOLES = 12
MOST_LOOSE = 48
LABELS = (
    ("fraction", N_("as fractions")), ("decimal", N_("as decimals")), ("percent", N_("in percent")), ("none", N_("nothing")),
)  # fmt: skip


class Parted(HasParts, LooksAt, Whole, WorksLocked, Thing, frozen=True, kw_only=True, tag="_parted"):
    """parts_count: of a whole. filled: which parts are taken, over all wholes, from 0. wholes: how many are laid out.
    labels: one of LABELS. Raises ValueError where these don't fit."""

    parts_count: int = 4
    filled: tuple[int, ...] = ()
    wholes: int = 1
    labels: str = "fraction"
    hue: str = ""

    icon: ClassVar[str] = "chart-pie"

    def __post_init__(self) -> None:
        if not 1 <= self.parts_count <= MOST_PARTS or not 1 <= self.wholes <= MOST_WHOLES:
            raise ValueError("a fraction has parts")
        if self.labels not in dict(LABELS):
            raise ValueError("parts are named as fractions, decimals, in percent or not at all")
        room, last = self.parts_count * self.wholes, -1
        for part in self.filled:
            if not last < part < room:
                raise ValueError("parts are taken once, in their order")
            last = part

    def label(self, page: Page) -> str:
        return self.name or _("{thing} that shows {fraction}").format(thing=self.title(), fraction=self.value_text())

    def fraction(self) -> Fraction:
        return Fraction(len(self.filled), self.parts_count)

    def value_text(self) -> str:
        return f"{len(self.filled)}/{self.parts_count}"

    def part_text(self) -> str:
        """What each part is called, "" for nothing."""
        one = Fraction(1, self.parts_count)
        if self.labels == "percent":
            return f"{number_text(float(100 * one), 1)} %"
        if self.labels == "decimal":
            return number_text(float(one), 3)
        return f"1/{self.parts_count}" if self.labels == "fraction" else ""

    def part_lines(self) -> list[float]:
        return [k / self.parts_count / self.wholes for k in range(self.parts_count * self.wholes + 1)]

    def uses(self, page: Page) -> tuple[Thing, ...]:
        return tuple(inside(page, self))

    def laid_over(self, page: Page) -> Fraction:
        """What the loose pieces that lie on it make together."""
        pieces = (thing for thing in inside(page, self) if isinstance(thing, FractionPiece) and not thing.supply)
        return sum((Fraction(1, one.parts_count) for one in pieces if not one.hidden), Fraction(0))

    def row_at(self, first: int) -> Placement:
        """Where a row of loose pieces begins that is taken out of it, in its own coordinates: below its first part, or the
        middle of a circle beside it."""
        raise TypeError(self.kind())

    def facts(self, page: Page) -> Iterator[Fact]:
        taken, value = len(self.filled), self.fraction()
        yield Fact(
            "value", self.value_text(), text=self.value_text(), label=_("fraction"), badge="value", set=self._set_value
        )
        yield Fact("parts", self.parts_count, text=str(self.parts_count), label=_("parts"), set=self._set_parts)
        yield Fact("taken", taken, text=str(taken), label=_("taken"), set=self._set_taken)
        yield Fact("simplest", str(value), text=str(value), label=_("in lowest terms"))
        if value > 1 and value.denominator > 1:
            mixed = f"{value.numerator // value.denominator} {value - value.numerator // value.denominator}"
            yield Fact("mixed", mixed, text=mixed, label=_("as a mixed number"))
        decimal = decimal_text(value)
        yield Fact("decimal", decimal, text=decimal, label=_("as a decimal"), badge="decimal")
        percent = float(100 * value)
        yield Fact("percent", percent, "%", f"{decimal_text(100 * value)} %", _("in percent"), "percent")
        if over := self.laid_over(page):
            yield Fact("laid over", str(over), text=str(over), label=_("laid over it"), badge="laid over")
        named = dict(LABELS)
        options = tuple((name, _(words)) for name, words in LABELS)
        yield Fact("labels", self.labels, "", _(named[self.labels]), _("parts are named"), "", self._set_labels, options)

    def _set_value(self, typed: str) -> Thing:
        head, slash, below = typed.partition("/")
        if not slash:
            raise ValueError(_("Write a fraction, such as 3/8."))
        parts = read_whole(below, 1, MOST_PARTS)
        fresh: Self = self.replace(parts_count=parts, filled=(), wholes=1)
        return fresh._with_taken(read_whole(head, 0, parts * MOST_WHOLES))

    def _set_parts(self, typed: str) -> Thing:
        """As much of it stays taken as fits."""
        parts = read_whole(typed, 1, MOST_PARTS)
        kept = min(len(self.filled), parts * self.wholes)
        return self.replace(parts_count=parts, filled=tuple(range(kept)))  # type: ignore[no-any-return]

    def _set_taken(self, typed: str) -> Thing:
        return self._with_taken(read_whole(typed, 0, self.parts_count * MOST_WHOLES))

    def _with_taken(self, taken: int) -> Self:
        wholes = max(1, math.ceil(taken / self.parts_count))
        return self.replace(filled=tuple(range(taken)), wholes=wholes)  # type: ignore[no-any-return]

    def _set_labels(self, typed: str) -> Thing:
        if typed not in dict(LABELS):
            raise ValueError(_("Parts are named as fractions, as decimals, in percent or not at all."))
        return self.replace(labels=typed)  # type: ignore[no-any-return]

    # Parts: "0", "1" …; a tap takes one or puts it back, a drag takes all it goes over.

    def parts(self) -> tuple[str, ...]:
        return tuple(map(str, range(self.parts_count * self.wholes)))

    def with_part(self, part: int, taken: bool) -> Self:
        filled = set(self.filled) | {part} if taken else set(self.filled) - {part}
        return self if len(filled) == len(self.filled) else self.replace(filled=tuple(sorted(filled)))

    def drag_part(self, part: str, before: tuple[float, float], to: tuple[float, float]) -> Self:
        """All parts that the finger goes over are taken."""
        over = {self.part_at(*at, 0) for at in along(before, to, STRIDE)} - {""}
        filled = {*self.filled, int(part), *map(int, over)}
        return self if len(filled) == len(self.filled) else self.replace(filled=tuple(sorted(filled)))

    def tap_part(self, part: str, at: tuple[float, float]) -> Self:
        return self.with_part(int(part), int(part) not in self.filled)

    def part_label(self, part: str) -> str:
        return _("Take parts")

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _each(page: Page, things: Things, label: str, factor: int) -> Edit:
    """Each part is cut into `factor`, or so many are put together. Raises ValueError where that leaves no whole parts."""
    changed = {}
    for thing in things:
        if not isinstance(thing, Parted):
            continue
        parts, taken = thing.parts_count, len(thing.filled)
        if factor > 0:
            parts, taken = parts * factor, taken * factor
        elif parts % -factor == 0 and taken % -factor == 0:
            parts, taken = parts // -factor, taken // -factor
        else:
            raise ValueError(_("They can't be put together evenly."))
        if parts > MOST_PARTS:
            raise ValueError(_("A whole has up to {most} parts.").format(most=MOST_PARTS))
        changed[thing.id] = thing.replace(parts_count=parts, filled=tuple(range(taken)))
    return Edit(label, page, page.with_things(changed))


def _can_join(page: Page, things: Things) -> bool:
    return only(Parted)(page, things) and all(
        isinstance(t, Parted) and t.parts_count % 2 == 0 and len(t.filled) % 2 == 0 for t in things
    )


def _none(page: Page, things: Things) -> Edit:
    return set_all(page, things, _("Put all back"), filled=(), wholes=1)


def take_out(page: Page, things: Things) -> Edit:
    """The parts that are taken, or all of one whole where none is, lie beside it as loose pieces."""
    after, loose = page, 0
    for thing in things:
        if not isinstance(thing, Parted):
            continue
        count = len(thing.filled) or thing.parts_count
        if count > MOST_LOOSE:
            raise ValueError(_("Up to {most} parts can lie loose at once.").format(most=MOST_LOOSE))
        form = "circle" if thing.middles() else "bar"
        first = thing.filled[0] if thing.filled else 0
        pieces = row_of(count, thing.parts_count, form, thing.row_at(first).on(thing.placement), thing.hue, first)
        after = after.with_things({thing.id: thing.replace(filled=())}).put(*pieces)
        loose += count
    return Edit(_("Take parts out"), page, after, select=tuple(thing.id for thing in after.things[-loose:]))


ACTIONS = (
    Action("take out", lambda p, ts: _("take the parts out"), "circle-arrow-out-up-right", take_out, only(Parted), rank=5,
           board=True, words=N_("loose pieces lay over compare overlay")),
    Action("halve parts", lambda p, ts: _("cut each part in two"), "split",
           lambda p, ts: _each(p, ts, _("Cut in two"), 2), only(Parted), rank=5, board=True,
           words=N_("equal equivalent finer expand")),
    Action("join parts", lambda p, ts: _("put two parts together"), "combine",
           lambda p, ts: _each(p, ts, _("Put together"), -2), _can_join, rank=6, board=True,
           words=N_("equal equivalent simplify reduce")),
    Action("no parts", lambda p, ts: _("put all back"), "brush-cleaning", _none,
           lambda p, ts: only(Parted)(p, ts) and any(getattr(t, "filled", ()) for t in ts), rank=7, board=True,
           words=N_("clear empty reset")),
)  # fmt: skip
