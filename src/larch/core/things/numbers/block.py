"""Base-ten blocks: ones, tens, hundreds and thousands, exchanged ten for one."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import partial
from typing import ClassVar

from larch.core.base.hues import hue_of_place
from larch.core.base.shape import Box, Placement, Point, union
from larch.core.base.words import N_, _, many
from larch.core.model.action import Action, Things, ids_of
from larch.core.model.capabilities import Counts, Merges, Snaps
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, number_text, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Snap, Thing

UNIT = 13.0  # side of a one, page units
TOUCH = 1.0  # page units between blocks that lie edge to edge
DEPTH = 36.0  # how far the thousand's top and side lean back
SIZES = (1, 10, 100, 1000)
UNITS = ((0, N_("a one is 1")), (-1, N_("a ten is 1")), (-2, N_("a hundred is 1")), (-3, N_("a thousand is 1")))


class Block(Counts, Merges, Snaps, Thing, frozen=True, kw_only=True, tag="block"):
    """value: 1, 10, 100 or 1000 of the smallest. unit: the power of ten of the smallest, from 0 to -3: at -1 a ten is 1, and
    a one a tenth. base: how many of a kind make one of the next, 2 to 12. Raises ValueError for others."""

    value: int = 1
    unit: int = 0
    base: int = 10
    hue: str = ""

    resizable: ClassVar[bool] = False
    icon: ClassVar[str] = "blocks"
    order: ClassVar[int] = 10
    help: ClassVar[str] = N_("Slide blocks together; select ten of a kind to exchange them for one, or one for ten.")

    def __post_init__(self) -> None:
        if self.value not in SIZES or not -3 <= self.unit <= 0 or not 2 <= self.base <= 12:
            raise ValueError("a block counts 1, 10, 100 or 1000")
        if self.unit and self.base != 10:
            raise ValueError("only base ten goes on below one")

    @classmethod
    def title(cls) -> str:
        return _("block")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("base-ten place value number counting units rods flats cubes counter")
        named = (("ones", 1, _("ones")), ("tens", 10, _("tens")), ("hundreds", 100, _("hundreds")),
                 ("thousands", 1000, _("thousands")))  # fmt: skip
        for name, value, label in named:
            yield ShelfItem(name, label, N_("Blocks"), partial(cls, value=value), words)

    def label(self, page: Page) -> str:
        words = {1: _("one"), 10: _("ten"), 100: _("hundred"), 1000: _("thousand")}
        return self.name or (
            _("block of {n}").format(n=number_text(self.worth(), 3)) if self.unit or self.base != 10 else words[self.value]
        )

    def colour(self) -> str:
        return self.hue or hue_of_place(self.power())

    def power(self) -> int:
        """The power of its base that it is worth."""
        return len(str(self.value)) - 1 + self.unit

    def extent(self) -> Box:
        ten = self.base * UNIT
        size = {1: (UNIT, UNIT), 10: (UNIT, ten), 100: (ten, ten), 1000: (ten + DEPTH, ten + DEPTH)}
        return Box(0, 0, *size[self.value])

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.extent().corners(), True

    def worth(self) -> float:
        if self.unit:
            return round(self.value * 10.0**self.unit, 3)
        return self.value if self.base == 10 else self.base ** self.power()

    def facts(self, page: Page) -> Iterator[Fact]:
        worth = self.worth()
        value = int(worth) if worth == int(worth) else worth
        yield Fact("value", value, text=number_text(worth, 3), label=_("value"), badge="value")
        units = tuple((str(power), _(words)) for power, words in UNITS)
        yield Fact("unit", str(self.unit), "", dict(units)[str(self.unit)], _("counted so that"), "", self._set_unit, units)
        if self.value > 1:
            text = many("{n} of the next smaller", "{n} of the next smaller", self.base)
            yield Fact("worth", self.base, text=text, label=_("is"))
        yield Fact("base", self.base, text=str(self.base), label=_("base"), set=self._set_base)

    def _set_base(self, typed: str) -> Thing:
        return self.replace(base=read_whole(typed, 2, 12), unit=0)  # type: ignore[no-any-return]

    def _set_unit(self, typed: str) -> Thing:
        return self.replace(unit=read_whole(typed, -3, 0), base=10)  # type: ignore[no-any-return]

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """Beside another block, edge to edge, with tops or bottoms level."""
        mine = self.box()
        best: tuple[float, Snap] | None = None
        for other in others:
            if not isinstance(other, Block):
                continue
            theirs = other.box()
            if not mine.grown(reach).meets(theirs):
                continue
            for dx, dy, reason, line in _fits(mine, theirs):
                distance = max(abs(dx), abs(dy))
                if distance <= reach and (best is None or distance < best[0]):
                    best = (distance, Snap(dx, dy, reason, line))
        return best[1] if best else None

    def sort(self) -> tuple[int, int, int]:
        """What is alike in all that are exchanged with it."""
        return (self.value, self.unit, self.base)

    def merged(self, page: Page) -> Page | None:
        """As many of a kind as its base says that lie edge to edge, this one among them, are one of the next."""
        if self.value == SIZES[-1] or self.supply:
            return None
        ten = self._touching(page)[: self.base]
        after = gather(page, ten).after if len(ten) == self.base else None
        return after if isinstance(after, Page) else None

    def _touching(self, page: Page) -> list[Block]:
        """Blocks of its kind that it touches, or that touch these, the nearest first; itself among them."""
        blocks = [t for t in page.things if isinstance(t, Block) and t.sort() == self.sort()]
        same = [t for t in blocks if not (t.supply or t.locked or t.hidden)]
        found, waiting = [self], [self]
        left = {block.id: block for block in same if block.id != self.id}
        while waiting and len(found) < self.base:
            box = waiting.pop(0).box().grown(TOUCH)
            beside = [block for block in left.values() if block.box().meets(box)]
            for block in beside:
                del left[block.id]
            found += beside
            waiting += beside
        return found

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _fits(mine: Box, theirs: Box) -> list[tuple[float, float, str, tuple[tuple[float, float], tuple[float, float]]]]:
    across = [(theirs.x1 - mine.x0, theirs.x1), (theirs.x0 - mine.x1, theirs.x0)]
    level = [theirs.y0 - mine.y0, theirs.y1 - mine.y1]
    down = [(theirs.y1 - mine.y0, theirs.y1), (theirs.y0 - mine.y1, theirs.y0)]
    flush = [theirs.x0 - mine.x0, theirs.x1 - mine.x1]
    top, bottom = min(mine.y0, theirs.y0), max(mine.y1, theirs.y1)
    left, right = min(mine.x0, theirs.x0), max(mine.x1, theirs.x1)
    beside = [(dx, dy, _("side by side"), ((x, top), (x, bottom))) for dx, x in across for dy in level]
    above = [(dx, dy, _("on top of each other"), ((left, y), (right, y))) for dy, y in down for dx in flush]
    return beside + above


def full_tens(things: Things) -> list[Sequence[Block]]:
    """The selection's lots of ten blocks of one value (in another base, of as many), from the smallest value up."""
    free = [t for t in things if isinstance(t, Block) and not t.locked and not t.supply]
    lots: list[Sequence[Block]] = []
    for sort in sorted({block.sort() for block in free if block.value < SIZES[-1]}):
        same, n = [block for block in free if block.sort() == sort], sort[2]
        lots += [same[i : i + n] for i in range(0, len(same) - n + 1, n)]
    return lots


def gather(page: Page, things: Things) -> Edit:
    """Every ten of a kind become one of the next, where the ten stood."""
    lots = full_tens(things)
    gone = {block.id for lot in lots for block in lot}
    new = []
    for lot in lots:
        corner = union(block.box() for block in lot)
        new.append(
            Block(value=lot[0].value * 10, unit=lot[0].unit, base=lot[0].base, placement=Placement(corner.x0, corner.y0))
        )
    after = page.without(gone)
    ids = after.put_ids(len(new))
    kept = [id for id in ids_of(things) if id not in gone]
    return Edit(_("Exchange ten for one"), page, after.put(*new), select=tuple(kept + ids))


def break_up(page: Page, things: Things) -> Edit:
    """Each block larger than a one becomes ten of the next smaller, laid where it was."""
    breaking = [t for t in things if isinstance(t, Block) and t.value > 1 and not t.locked and not t.supply]
    new = [part for block in breaking for part in _parts(block)]
    after = page.without(ids_of(breaking))
    ids = after.put_ids(len(new))
    kept = [id for id in ids_of(things) if id not in set(ids_of(breaking))]
    return Edit(_("Exchange one for ten"), page, after.put(*new), select=tuple(kept + ids))


def _parts(block: Block) -> list[Block]:
    n = block.base
    step = {10: (0.0, UNIT), 100: (UNIT, 0.0), 1000: (DEPTH / (n - 1), -DEPTH / (n - 1))}[block.value]
    start = (0.0, DEPTH) if block.value == 1000 else (0.0, 0.0)
    order = range(n - 1, -1, -1) if block.value == 1000 else range(n)  # the hindmost hundred lies lowest
    made = []
    for k in order:
        x, y = block.placement.to_page(start[0] + k * step[0], start[1] + k * step[1])
        placement = Placement(x, y, block.placement.turn, block.placement.scale)
        made.append(Block(value=block.value // 10, unit=block.unit, base=n, placement=placement))
    return made


def _exchange(things: Things, in_tens: str, otherwise: str) -> str:
    """What the exchange is called, by the base of the blocks."""
    base = next((t.base for t in things if isinstance(t, Block)), 10)
    return in_tens if base == 10 else otherwise.format(n=base)


ACTIONS = (
    Action("gather ten", lambda p, ts: _exchange(ts, _("exchange ten for one"), _("exchange {n} for one")), "combine",
           gather, lambda p, ts: bool(full_tens(ts)), rank=5, board=True, words=N_("regroup carry trade bundle")),
    Action("break up", lambda p, ts: _exchange(ts, _("exchange one for ten"), _("exchange one for {n}")), "split", break_up,
           lambda p, ts: any(isinstance(t, Block) and t.value > 1 and not t.locked and not t.supply for t in ts),
           rank=6, board=True, words=N_("regroup borrow decompose unbundle")),
)  # fmt: skip
