"""A number as dots: as on a die, in rows of five, in a ring, in pairs, or scattered by chance."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from functools import partial
from typing import ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import Counts, Tappable
from larch.core.model.chance import chance, drawn
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

SIDE = 200.0
DOT = 13.0
MOST = 30
FORMS = (
    ("dice", N_("as on dice")), ("rows", N_("rows of five")), ("pairs", N_("pairs")), ("ring", N_("a ring")),
    ("scattered", N_("scattered")),
)  # fmt: skip
LOW, MID, HIGH = 0.22, 0.5, 0.78
FACES = {
    1: [(MID, MID)], 2: [(LOW, LOW), (HIGH, HIGH)], 3: [(LOW, LOW), (MID, MID), (HIGH, HIGH)],
    4: [(LOW, LOW), (HIGH, LOW), (LOW, HIGH), (HIGH, HIGH)],
    5: [(LOW, LOW), (HIGH, LOW), (MID, MID), (LOW, HIGH), (HIGH, HIGH)],
    6: [(LOW, LOW), (LOW, MID), (LOW, HIGH), (HIGH, LOW), (HIGH, MID), (HIGH, HIGH)],
}  # fmt: skip


class Dots(Counts, Tappable, Thing, frozen=True, kw_only=True, tag="dots"):
    """number: of dots; form: one of FORMS. throw: by what they are scattered. closed: they are covered, after a glance."""

    number: int = 7
    form: str = "dice"
    throw: int = 0
    closed: bool = False

    icon: ClassVar[str] = "grip"
    order: ClassVar[int] = 12
    help: ClassVar[str] = N_(
        "How many at a glance? Tap to cover the dots and to see them again; a new number comes by chance."
    )

    def __post_init__(self) -> None:
        if not 1 <= self.number <= MOST or self.form not in dict(FORMS) or not 0 <= self.throw < 2**32:
            raise ValueError("some dots lie in a form")

    @classmethod
    def title(cls) -> str:
        return _("dots")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("dots subitise glance pattern domino how many arrangement")
        yield ShelfItem("dots", _("dots"), N_("Blocks"), cls, words)
        yield ShelfItem("dots, scattered", _("scattered dots"), N_("Blocks"), partial(cls, form="scattered"), words)

    def label(self, page: Page) -> str:
        return self.name or (_("covered dots") if self.closed else _("{n} dots").format(n=self.number))

    def extent(self) -> Box:
        return Box(0, 0, SIDE, SIDE)

    def worth(self) -> int:
        return self.number

    def places(self) -> Sequence[Point]:
        """The middles of the dots, in its own coordinates; none lie on each other."""
        n = self.number
        if self.form == "ring":
            away = 0.38 * SIDE if n > 1 else 0.0
            return [
                (SIDE / 2 + away * math.sin(math.tau * k / n), SIDE / 2 - away * math.cos(math.tau * k / n))
                for k in range(n)
            ]
        if self.form == "dice":
            return _on_dice(n)
        if self.form == "scattered":
            return _scattered(n, self.throw)
        across = 5 if self.form == "rows" else math.ceil(n / 2)
        rows = math.ceil(n / across)
        step = min(36.0, (SIDE - 30) / max(across, rows))
        x0, y0 = SIDE / 2 - step * (across - 1) / 2, SIDE / 2 - step * (rows - 1) / 2
        if self.form == "rows":
            return [(x0 + step * (k % 5), y0 + step * (k // 5)) for k in range(n)]
        return [(x0 + step * (k // 2), y0 + step * (k % 2)) for k in range(n)]

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("value", self.number, text=str(self.number), label=_("dots"), badge="value",
                   set=lambda typed: self.replace(number=read_whole(typed, 1, MOST)))  # fmt: skip
        forms = tuple((name, _(words)) for name, words in FORMS)
        yield Fact("form", self.form, "", dict(forms)[self.form], _("they lie"), "", self._set_form, forms)

    def _set_form(self, typed: str) -> Thing:
        if typed not in dict(FORMS):
            raise ValueError(_("Choose one of the ways in which dots lie."))
        return self.replace(form=typed)  # type: ignore[no-any-return]

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS

    def tap_action(self, at: Point) -> str:
        return "cover dots"


def _on_dice(n: int) -> list[Point]:
    """As so many sixes as there are, and the rest, side by side and below each other."""
    dice = [6] * (n // 6) + ([n % 6] if n % 6 else [])
    across = math.ceil(math.sqrt(len(dice)))
    side = SIDE / across
    rows = math.ceil(len(dice) / across)
    found = []
    for k, face in enumerate(dice):
        x, y = k % across * side, k // across * side + (SIDE - rows * side) / 2
        found += [(x + px * side, y + py * side) for px, py in FACES[face]]
    return found


def _scattered(n: int, throw: int) -> list[Point]:
    """By chance that can be had again: cells of a grid drawn without one twice, each dot off its middle."""
    import random

    rnd = random.Random(throw)
    across = math.ceil(math.sqrt(1.6 * n))
    step = (SIDE - 24) / across
    off = max(0.0, step / 2 - DOT - 1)
    cells = rnd.sample(range(across * across), n)
    middles = [(12 + (cell % across + 0.5) * step, 12 + (cell // across + 0.5) * step) for cell in cells]
    return [(x + rnd.uniform(-off, off), y + rnd.uniform(-off, off)) for x, y in middles]


def _cover(page: Page, things: Things) -> Edit:
    on = not all(getattr(t, "closed", False) for t in things)
    label = _("Cover the dots") if on else _("Show the dots")
    return Edit(label, page, page.changing([t.id for t in things], lambda t: t.replace(closed=on)))


def _another(page: Page, things: Things) -> Edit:
    """Another number up to ten, or to twice what there is, by chance; it is shown."""
    rng = chance(page)
    changed: dict[str, Thing] = {}
    for dots in things:
        if isinstance(dots, Dots):
            most = 10 if dots.number <= 10 else 20 if dots.number <= 20 else MOST
            number = (dots.number + int(rng.integers(1, most)) - 1) % most + 1
            changed[dots.id] = dots.replace(number=number, throw=int(rng.integers(0, 2**32)), closed=False)
    return Edit(_("Another number"), page, drawn(page).with_things(changed))


ACTIONS = (
    Action("cover dots", lambda p, ts: _("show them") if all(getattr(t, "closed", False) for t in ts) else _("cover them"),
           "snowflake", _cover, only(Dots), rank=5, board=True, words=N_("hide reveal glance")),
    Action("other dots", lambda p, ts: _("another number"), "dices", _another, only(Dots), shortcut="R", rank=6, board=True,
           words=N_("random new")),
)  # fmt: skip
