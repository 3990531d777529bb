"""A brace along something, with what it means at its tip: a whole over a bar model, a side of a shape, a group of words."""

from __future__ import annotations

import math
from collections.abc import Iterator
from functools import partial
from typing import ClassVar

from larch.core.base.shape import Box, Placement
from larch.core.base.words import N_, _
from larch.core.model.capabilities import HasWords
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.scale import length_fact, read_length
from larch.core.model.thing import Handle, ShelfItem, Thing

LEAST, MOST = 24.0, 6000.0
SHALLOW, DEEP = 8.0, 400.0
SIZE, GAP = 34.0, 10.0  # of the words, and between them and the tip
LETTER = 0.56  # width of a letter, of its size
LONGEST = 60


class Brace(HasWords, Thing, frozen=True, kw_only=True, tag="brace"):
    """long: from end to end; deep: from there to its tip, which points downwards in its own coordinates. text: at the tip.
    Raises ValueError for what can't be seen."""

    long: float = 400.0
    deep: float = 44.0
    text: str = ""
    hue: str = "needle"

    icon: ClassVar[str] = "brace"
    order: ClassVar[int] = 58
    help: ClassVar[str] = N_(
        "Lay a brace along a bar, a side or a row of words and write what it means at its tip. Drag its ends to make it as "
        "long as what it spans."
    )

    def __post_init__(self) -> None:
        if not LEAST <= self.long <= MOST or not SHALLOW <= self.deep <= DEEP:
            raise ValueError("a brace must have a length and a depth")
        if len(self.text) > LONGEST:
            raise ValueError("a brace has a few words")

    @classmethod
    def title(cls) -> str:
        return _("brace")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("curly bracket span whole part bar model group label")
        yield ShelfItem("brace", _("brace"), N_("Organisers"), partial(cls, text="24"), words)

    def label(self, page: Page) -> str:
        return self.name or (_("brace: {words}").format(words=self.text) if self.text else _("brace"))

    def plain_text(self) -> str:
        return self.text

    def words_box(self) -> Box:
        """Where the words stand, in its own coordinates: upright on the page however it is turned."""
        if not self.text:
            return Box(self.long / 2, self.deep, self.long / 2, self.deep)
        turn = math.radians(self.placement.turn)
        half_wide, half_high = 0.5 * LETTER * SIZE * len(self.text), 0.6 * SIZE
        wide = abs(half_wide * math.cos(turn)) + abs(half_high * math.sin(turn))
        high = abs(half_wide * math.sin(turn)) + abs(half_high * math.cos(turn))
        x, y = self.long / 2, self.deep + GAP + high
        return Box(x - wide, y - high, x + wide, y + high)

    def extent(self) -> Box:
        words = self.words_box()
        return Box(min(0.0, words.x0), 0.0, max(self.long, words.x1), max(self.deep, words.y1))

    def touches(self, x: float, y: float, slack: float) -> bool:
        return Box(0, 0, self.long, self.deep).grown(slack).holds(x, y) or self.words_box().grown(slack).holds(x, y)

    def stretched(self, across: float, down: float) -> Thing | None:
        long = min(max(self.long * across, LEAST), MOST)
        return self.replace(long=long, deep=min(max(self.deep * down, SHALLOW), DEEP))  # type: ignore[no-any-return]

    def facts(self, page: Page) -> Iterator[Fact]:
        yield length_fact(
            page, "length", self.long * self.placement.scale, _("length"), "length", set=partial(self._set, page)
        )
        yield Fact("words", self.text, text=self.text, label=_("at its tip"), set=self._set_words, hint=_("such as 24"))

    def _set(self, page: Page, typed: str) -> Thing:
        long = read_length(typed, page) / self.placement.scale
        if not LEAST <= long <= MOST:
            raise ValueError(_("A brace must have a length that can be seen."))
        return self.replace(long=long)  # type: ignore[no-any-return]

    def _set_words(self, typed: str) -> Thing:
        if len(typed.strip()) > LONGEST:
            raise ValueError(_("That is too long for a brace."))
        return self.replace(text=typed.strip())  # type: ignore[no-any-return]

    def handles(self) -> tuple[Handle, ...]:
        return (
            Handle("start", 0.0, 0.0, _("end")),
            Handle("end", self.long, 0.0, _("end")),
            Handle("tip", self.long / 2, self.deep, _("tip")),
        )

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        """An end is dragged along it and about the other; the tip makes it deeper."""
        if name == "tip":
            return self.replace(deep=min(max(y, SHALLOW), DEEP))  # type: ignore[no-any-return]
        fixed, moved = ((self.long, 0.0), (x, y)) if name == "start" else ((0.0, 0.0), (x, y))
        start, end = (moved, fixed) if name == "start" else (fixed, moved)
        long = min(max(math.dist(start, end), LEAST), MOST)
        turn = math.degrees(math.atan2(-(end[1] - start[1]), end[0] - start[0]))
        place = self.placement
        bent = self.replace(long=long, placement=Placement(place.x, place.y, place.turn + turn, place.scale))
        held = place.to_page(*fixed)
        now = bent.placement.to_page(*((long, 0.0) if name == "start" else (0.0, 0.0)))
        return bent.replace(placement=bent.placement.moved(held[0] - now[0], held[1] - now[1]))  # type: ignore[no-any-return]
