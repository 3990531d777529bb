"""Value cards: 900, 20 and 1 slide over each other to 921; the same with decimals."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import partial
from typing import ClassVar

from larch.core.base.shape import Box, Placement
from larch.core.base.words import N_, _
from larch.core.model.capabilities import Counts, LooksAt, Snaps
from larch.core.model.fact import Fact, number_text, read_number, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Snap, Thing

DIGIT, POINT, HIGH = 60.0, 24.0, 96.0  # page units: of a digit, of the point, and of a card
HIGHEST, LOWEST = 6, -3


class ValueCard(Counts, Snaps, LooksAt, Thing, frozen=True, kw_only=True, tag="value card"):
    """digit: 1 to 9 at a place, the power of ten. Raises ValueError for others."""

    digit: int = 1
    power: int = 0
    hue: str = ""

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "layers-2"
    order: ClassVar[int] = 11
    help: ClassVar[str] = N_(
        "Slide value cards over each other: their places meet, and 900, 20 and 1 show 921. Apart they show what each digit "
        "is worth."
    )

    def __post_init__(self) -> None:
        if not 1 <= self.digit <= 9 or not LOWEST <= self.power <= HIGHEST:
            raise ValueError("a card has a digit at a place")

    @classmethod
    def title(cls) -> str:
        return _("value card")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("value card place value digit arrow expanded partition number")
        yield ShelfItem("value card", _("value card"), N_("Numbers"), partial(cls, digit=9, power=2), words)
        yield ShelfItem("value cards", _("value cards 900, 20, 1"), N_("Numbers"), partial(cls, digit=9, power=2), words,
                        several=_three)  # fmt: skip
        yield ShelfItem("value cards, decimals", _("value cards 3, 0.4, 0.05"), N_("Numbers"), partial(cls, digit=3), words,
                        several=_decimals)  # fmt: skip

    def value(self) -> float:
        return round(self.digit * 10.0**self.power, 3)

    def text(self) -> str:
        return number_text(self.value(), 3)

    def label(self, page: Page) -> str:
        return self.name or _("value card {n}").format(n=self.text())

    def before_point(self) -> int:
        """Digits before the point."""
        return max(1, self.power + 1)

    def anchor(self) -> float:
        """Where the ones end, in its own coordinates: there all cards of a number meet."""
        return self.before_point() * DIGIT

    def extent(self) -> Box:
        behind = -self.power * DIGIT + POINT if self.power < 0 else 0.0
        return Box(0, 0, self.anchor() + behind, HIGH)

    def worth(self) -> float:
        return int(self.value()) if self.power >= 0 else self.value()

    def together(self, page: Page) -> list[ValueCard]:
        """The cards of the number that it belongs to: those whose places meet with its."""
        x, y = self.placement.x + self.anchor() * self.placement.scale, self.placement.y
        return [
            card for card in page.things
            if isinstance(card, ValueCard) and not card.supply and not card.hidden and abs(card.placement.y - y) < 1.5
            and abs(card.placement.x + card.anchor() * card.placement.scale - x) < 1.5
        ]  # fmt: skip

    def uses(self, page: Page) -> tuple[Thing, ...]:
        return tuple(self.together(page))

    def facts(self, page: Page) -> Iterator[Fact]:
        value = self.value()
        number: float | int = int(value) if value == int(value) else value
        yield Fact("value", number, text=self.text(), label=_("value"), set=self._set_value)
        cards = sorted(self.together(page), key=lambda card: -card.power)
        total = round(sum(card.value() for card in cards), 3)
        whole: float | int = int(total) if total == int(total) else total
        yield Fact("number", whole, text=number_text(total, 3), label=_("all that lie together"))
        parts = " + ".join(card.text() for card in cards)
        yield Fact("expanded", parts, text=parts, label=_("expanded form"))
        yield Fact("digit", self.digit, text=str(self.digit), label=_("digit"),
                   set=lambda typed: self.replace(digit=read_whole(typed, 1, 9)))  # fmt: skip

    def _set_value(self, typed: str) -> Thing:
        value = read_number(typed)
        for power in range(LOWEST, HIGHEST + 1):
            digit = round(value / 10.0**power, 6)
            if digit in range(1, 10):
                return self.replace(digit=int(digit), power=power)  # type: ignore[no-any-return]
        raise ValueError(_("A card has one digit and noughts, such as 900 or 0.04."))

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """Over another card: the ends of their ones meet."""
        scale = self.placement.scale
        for card in others:
            if not isinstance(card, ValueCard) or card.power == self.power or abs(card.placement.scale - scale) > 1e-6:
                continue
            dx = card.placement.x + card.anchor() * scale - self.placement.x - self.anchor() * scale
            dy = card.placement.y - self.placement.y
            if abs(dx) <= 2 * reach and abs(dy) <= 2 * reach:
                x = card.placement.x + card.anchor() * scale
                return Snap(dx, dy, _("edges meet"), ((x, card.placement.y - 8), (x, card.placement.y + HIGH * scale + 8)))
        return None


def _row(cards: Sequence[tuple[int, int]]) -> Sequence[Thing]:
    made, x = [], 0.0
    for digit, power in cards:
        card = ValueCard(digit=digit, power=power, placement=Placement(x, 0))
        made.append(card)
        x += card.extent().width + 24
    return made


def _three() -> Sequence[Thing]:
    return _row([(9, 2), (2, 1), (1, 0)])


def _decimals() -> Sequence[Thing]:
    return _row([(3, 0), (4, -1), (5, -2)])
