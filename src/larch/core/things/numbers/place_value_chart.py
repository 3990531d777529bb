"""A place-value chart: a column for each place; what lies in it is counted, exchanged, and said in figures and words."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from decimal import Decimal, InvalidOperation
from functools import partial
from typing import ClassVar

from larch.core.base.memo import once_a_page
from larch.core.base.number_words import PLACES, decimal_in_words
from larch.core.base.shape import Box, Placement
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import HasLabels, HoldsOthers, LooksAt, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_whole
from larch.core.model.holders import inside
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.core.model.written_on import TakesNumbers, WrittenSign
from larch.core.things.numbers.block import Block
from larch.core.things.numbers.counter import Counter

HEAD, BODY = 44.0, 234.0
WIDE = 150.0  # of a column
FOOT = 190.0  # below: digits, expanded form, figures and words
HIGHEST, LOWEST = 6, -3
LONGEST_HEAD = 24


class PlaceValueChart(
    HasLabels, HoldsOthers, LooksAt, TakesNumbers, WorksLocked, Thing, frozen=True, kw_only=True, tag="place value chart"
):
    """high, low: the powers of ten of its first and last column. digits: of a number written in it, one for each column, or
    "" for what lies in it. heads: own names of its columns, or none.
    shows: which of digits, expanded form and words stand below. Raises ValueError."""

    high: int = 2
    low: int = 0
    digits: str = ""
    heads: tuple[str, ...] = ()
    shows: tuple[str, ...] = ("digits", "expanded", "words")

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "columns-3"
    order: ClassVar[int] = 10
    help: ClassVar[str] = N_(
        "Lay blocks or counters into its columns: it says the number in figures, words and expanded form. A counter counts "
        "for its column. Ten of a place are exchanged by “as few as possible”. A number can be typed, too."
    )

    def __post_init__(self) -> None:
        if not LOWEST <= self.low <= 0 <= self.high <= HIGHEST:
            raise ValueError("a chart has columns from millions to thousandths")
        if self.digits and (len(self.digits) != self.count() or not self.digits.isdecimal()):
            raise ValueError("each column has one digit")
        if self.heads and (len(self.heads) != self.count() or max(map(len, self.heads)) > LONGEST_HEAD):
            raise ValueError("each column has one name")

    @classmethod
    def title(cls) -> str:
        return _("place-value chart")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("place value chart hundreds tens ones columns digits expanded form")
        yield ShelfItem("place-value chart", _("place-value chart"), N_("Numbers"), cls, words)
        yield ShelfItem("place-value chart to millions", _("place-value chart to millions"), N_("Numbers"),
                        partial(cls, high=6), words)  # fmt: skip
        yield ShelfItem("place-value chart, decimals", _("place-value chart with decimals"), N_("Numbers"),
                        partial(cls, high=1, low=-3), words)  # fmt: skip

    def count(self) -> int:
        return self.high - self.low + 1

    def label(self, page: Page) -> str:
        return self.name or _("place-value chart that shows {n}").format(n=self.text(page))

    def body(self) -> Box:
        return Box(0, 0, WIDE * self.count(), HEAD + BODY)

    def extent(self) -> Box:
        body = self.body()
        return body._replace(y1=body.y1 + (FOOT if self.shows else 0.0))

    def head(self, power: int) -> str:
        """What a column is called."""
        return self.heads[self.high - power] if self.heads else _(PLACES[power])

    def column(self, power: int) -> Box:
        """The room below the head of a column."""
        left = (self.high - power) * WIDE
        return Box(left, HEAD, left + WIDE, HEAD + BODY)

    def uses(self, page: Page) -> tuple[Thing, ...]:
        return tuple(inside(page, self))

    @once_a_page
    def counted(self, page: Page) -> dict[int, int]:
        """How many of each place there are: blocks by what they are worth, counters by the column they lie in."""
        found = dict.fromkeys(range(self.high, self.low - 1, -1), 0)
        if self.digits:
            return dict(zip(found, map(int, self.digits), strict=True))
        for thing in inside(page, self):
            if thing.supply or thing.hidden:
                continue
            x, y = self.placement.to_local(*thing.box().centre)
            if y > HEAD + BODY:
                continue
            if isinstance(thing, Counter):
                power = self.high - min(max(int(x // WIDE), 0), self.count() - 1)
                found[power] += 1
            elif isinstance(thing, Block) and thing.base != 10:
                found[0] += int(thing.worth())  # of another base: so many ones
            elif isinstance(thing, Block) and thing.power() in found:
                found[thing.power()] += 1
            elif isinstance(thing, Block) and thing.power() > self.high:
                found[self.high] += 10 ** (thing.power() - self.high)
        return found

    def value(self, page: Page) -> Decimal:
        return sum((Decimal(n).scaleb(power) for power, n in self.counted(page).items()), Decimal(0))

    def text(self, page: Page) -> str:
        value = self.value(page)
        return f"{value:f}" if value == value.to_integral() else f"{value.normalize():f}"

    def expanded(self, page: Page) -> str:
        parts = [Decimal(n).scaleb(power) for power, n in self.counted(page).items() if n]
        return " + ".join(f"{part:f}" if part == part.to_integral() else f"{part.normalize():f}" for part in parts) or "0"

    def words(self, page: Page) -> str:
        whole, _point, digits = self.text(page).partition(".")
        return decimal_in_words(int(whole), digits)

    def facts(self, page: Page) -> Iterator[Fact]:
        value, text = self.value(page), self.text(page)
        number = int(value) if value == value.to_integral() else float(value)
        yield Fact("value", number, text=text, label=_("number"), set=partial(self._filled, page))
        yield Fact("words", self.words(page), text=self.words(page), label=_("in words"))
        yield Fact("expanded", self.expanded(page), text=self.expanded(page), label=_("expanded form"))
        for power, n in self.counted(page).items():
            yield Fact(PLACES[power], n, text=str(n), label=_(PLACES[power]))
        full = [self.head(power) for power, n in self.counted(page).items() if n > 9]
        yield Fact("full", ", ".join(full), text=", ".join(full) or _("none"), label=_("columns with ten or more"))
        yield Fact("digits", self.digits, text=self.digits, label=_("written in it"), set=self._set_digits,
                   hint=_("such as 352"), part="doing")  # fmt: skip
        names = tuple((str(power), _(PLACES[power])) for power in range(HIGHEST, -1, -1))
        yield Fact("first column", str(self.high), text=_(PLACES[self.high]), label=_("first column"), options=names,
                   set=lambda typed: self.replace(high=read_whole(typed, 0, HIGHEST), digits="", heads=()))  # fmt: skip
        below = tuple((str(power), _(PLACES[power])) for power in range(0, LOWEST - 1, -1))
        yield Fact("last column", str(self.low), text=_(PLACES[self.low]), label=_("last column"), options=below,
                   set=lambda typed: self.replace(low=read_whole(typed, LOWEST, 0), digits="", heads=()))  # fmt: skip

        heads = ", ".join(self.heads)
        yield Fact("column names", heads, text=heads, label=_("columns are called"), set=self._set_heads,
                   hint=_("such as H, T, O"), part="doing")  # fmt: skip

    def _set_heads(self, typed: str) -> Thing:
        names = tuple(part.strip() for part in typed.replace(";", ",").split(",")) if typed.strip() else ()
        if names and (len(names) != self.count() or max(map(len, names)) > LONGEST_HEAD):
            raise ValueError(_("Write {n} short names, parted by commas.").format(n=self.count()))
        return self.replace(heads=names)  # type: ignore[no-any-return]

    def read(self, typed: str) -> Decimal:
        """Raises ValueError for what its columns can't hold."""
        try:
            value = Decimal(typed.strip().replace(" ", "").replace("\u2009", "").replace(",", "."))
        except InvalidOperation:
            value = Decimal(-1)
        if not value.is_finite() or not 0 <= value < Decimal(10) ** (self.high + 1) or value != round(value, -self.low):
            top = Decimal(10) ** (self.high + 1) - Decimal(10) ** self.low
            raise ValueError(_("These columns hold numbers from 0 to {most}.").format(most=f"{top:f}"))
        return value

    def _digits_of(self, value: Decimal) -> str:
        return str(int(value.scaleb(-self.low))).zfill(self.count())

    def _set_digits(self, typed: str) -> Thing:
        if not typed.strip():
            return self.replace(digits="")  # type: ignore[no-any-return]
        return self.replace(digits=self._digits_of(self.read(typed)))  # type: ignore[no-any-return]

    def _filled(self, page: Page, typed: str) -> Page:
        """The page with just so many blocks, or counters where there are no blocks for a place, in its columns."""
        value = self.read(typed)
        if self.digits:
            return page.with_things({self.id: self.replace(digits=self._digits_of(value))})
        gone = [thing.id for thing in inside(page, self) if isinstance(thing, Block | Counter) and not thing.supply]
        return page.without(gone).put(*self.laid_out(value))

    def number_written(self, page: Page, text: str, signs: Sequence[WrittenSign], hue: str) -> Page:
        """Digits each in a column of its own count there; else it is the whole number. Blocks that lie in it follow."""
        powers = [self._power_at(sign.box) for sign in signs]
        before = self.value(page)
        single = all(sign.text.isdecimal() and len(sign.text) == 1 for sign in signs) and None not in powers
        if single and len(set(powers)) == len(powers) and before < Decimal(10) ** (self.high + 1):
            digits = list(self._digits_of(before))
            for power, sign in zip(powers, signs, strict=True):
                digits[self.high - (power or 0)] = sign.text
            text = f"{Decimal(''.join(digits)).scaleb(self.low):f}"
        if self.digits or not before:
            return page.with_things({self.id: self.replace(digits=self._digits_of(self.read(text)))})
        return self._filled(page, text)

    def _power_at(self, box: Box) -> int | None:
        """The column in which the middle of something on the page lies, as its power of ten."""
        x, _y = self.placement.to_local(*box.centre)
        return next((p for p in range(self.high, self.low - 1, -1) if self.column(p).x0 <= x < self.column(p).x1), None)

    def laid_out(self, value: Decimal) -> list[Thing]:
        """As few blocks or counters as make a number, in their columns."""
        made: list[Thing] = []
        for power, digit in zip(range(self.high, self.low - 1, -1), self._digits_of(value), strict=True):
            for k in range(int(digit)):
                x, y = self._spot(power, k, int(digit))
                px, py = self.placement.to_page(x, y)
                place = Placement(px, py, 0.0, self.placement.scale)
                if 0 <= power <= 2 and self.high <= 2 and self.low == 0:
                    made.append(Block(value=10**power, placement=place))
                else:
                    made.append(Counter(placement=Placement(px, py, 0.0, 0.6 * self.placement.scale)))
        return made

    def _spot(self, power: int, k: int, count: int) -> tuple[float, float]:
        """Where the k-th of so many in a column lies, within it."""
        box = self.column(power)
        if power == 2 and self.high <= 2 and self.low == 0:
            return (box.x0 + 4 + 1.6 * k, box.y0 + 8 + min(26.0, 88.0 / max(1, count - 1)) * k)
        if power == 1 and self.high <= 2 and self.low == 0:
            return (box.x0 + 10 + 15.4 * k, box.y0 + 50)
        if power == 0 and self.high <= 2 and self.low == 0:
            return (box.x0 + 30 + 30 * (k % 3), box.y0 + 50 + 30 * (k // 3))
        return (box.x0 + 16 + 42 * (k % 3), box.y0 + 40 + 44 * (k // 3))

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def fewest(page: Page, things: Things) -> Edit:
    """Ten of a place become one of the next, as often as that can be done; all lie in their columns then."""
    after = page
    for chart in things:
        if isinstance(chart, PlaceValueChart):
            value = chart.value(after)
            if value >= Decimal(10) ** (chart.high + 1):
                raise ValueError(_("This chart has no column for the next place."))
            after = chart._filled(after, f"{value:f}")
    return Edit(_("As few as possible"), page, after)


def empty(page: Page, things: Things) -> Edit:
    after = page
    for chart in things:
        if isinstance(chart, PlaceValueChart):
            after = chart.replace(digits="")._filled(after.with_things({chart.id: chart.replace(digits="")}), "0")
    return Edit(_("Empty"), page, after)


ACTIONS = (
    Action("as few as possible", lambda p, ts: _("as few as possible"), "combine", fewest,
           lambda p, ts: only(PlaceValueChart)(p, ts), rank=5, board=True, words=N_("exchange regroup ten carry tidy")),
    Action("empty chart", lambda p, ts: _("empty it"), "brush-cleaning", empty, only(PlaceValueChart), rank=6, board=True,
           words=N_("clear zero reset")),
)  # fmt: skip
