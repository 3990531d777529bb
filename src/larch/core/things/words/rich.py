"""Styled words: runs of characters and paragraphs, as plain values. What a text and a sticky note have in common."""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator, Sequence
from itertools import groupby
from typing import Any, ClassVar, Self

import msgspec
from msgspec import Struct

from larch.core.base.words import _
from larch.core.model.capabilities import Derives, HasWords, Tells
from larch.core.model.fact import Fact, measure, read_number
from larch.core.model.page import Page
from larch.core.model.thing import Thing

IN_BRACES = re.compile(r"\{[^{}\n]*\}")
LINE = 1.35  # line height over type size
BASE = 1.09  # of the type size from the top of a text to the line on which its first letters stand
SMALLEST, LARGEST = 8.0, 400.0
LONGEST = 20_000  # characters
OWN_FONT = "Andika"
DISTANCES = {3: 24.0, 6: 40.0, 9: 56.0}  # metres, and the type size that is read from there
TITLE = 80.0
STEP = 1.25  # from one size to the next larger
ALIGNS = ("", "centre", "right")
LISTS = ("", "dots", "numbers")

# A letter is read from two hundred times the height of a capital, which is 0.7 of the type size. A page of 1280 units
# fills a board 1.5 m wide; the sizes above allow for a little less than good sight.
BOARD_WIDTH, PAGE_WIDTH, CAPITAL, SIGHT = 1.5, 1280.0, 0.7, 200.0


class Run(Struct, frozen=True, omit_defaults=True, gc=False):
    """How `count` characters differ from the text as a whole. size 0, hue "" and font "" mean: as the whole. maths: they
    are mathematics, plain or LaTeX, that is set in type."""

    count: int
    bold: bool = False
    italic: bool = False
    underline: bool = False
    hue: str = ""
    size: float = 0.0
    rise: str = ""  # "super" or "sub"
    font: str = ""
    maths: bool = False

    def replace(self, **changes: Any) -> Run:
        return msgspec.structs.replace(self, **changes)

    def is_plain(self) -> bool:
        return self == Run(self.count)


class Paragraph(Struct, frozen=True, omit_defaults=True, gc=False):
    """align: one of ALIGNS; list: one of LISTS."""

    align: str = ""
    list: str = ""


def tidy_runs(runs: Iterable[Run], length: int) -> tuple[Run, ...]:
    """Covering exactly `length` characters, neighbours that look alike joined; none at all if all of it is plain."""
    joined: list[Run] = []
    left = length
    for run in runs:
        count = min(run.count, left)
        if count <= 0:
            continue
        left -= count
        if joined and joined[-1].replace(count=0) == run.replace(count=0):
            joined[-1] = run.replace(count=joined[-1].count + count)
        else:
            joined.append(run.replace(count=count))
    while joined and joined[-1].is_plain():
        joined.pop()
    return tuple(joined)


def restyled(runs: Sequence[Run], length: int, start: int, end: int, **changes: Any) -> tuple[Run, ...]:
    """The runs with some characters looking otherwise."""
    single = spread(runs, length)
    changed = [run.replace(**changes) if start <= i < end else run for i, run in enumerate(single)]
    grouped = ((run, sum(1 for _same in same)) for run, same in groupby(changed))
    return tidy_runs((run.replace(count=count) for run, count in grouped), length)


def spread(runs: Sequence[Run], length: int) -> list[Run]:
    """One run of count 1 for each character."""
    single: list[Run] = []
    for run in runs:
        single += [run.replace(count=1)] * min(run.count, length - len(single))
    return single + [Run(1)] * (length - len(single))


def tidy_paragraphs(paragraphs: Iterable[Paragraph], count: int) -> tuple[Paragraph, ...]:
    kept = list(paragraphs)[:count]
    while kept and kept[-1] == Paragraph():
        kept.pop()
    return tuple(kept)


def reads_from(size: float) -> float:
    """Metres from which type of a size in page units is read (see DISTANCES)."""
    return size * BOARD_WIDTH / PAGE_WIDTH * CAPITAL * SIGHT


class Lettered(HasWords, Tells, Derives, Thing, frozen=True, kw_only=True, tag="_lettered"):
    """A thing with words in it. text; size: of the type in page units; width: where lines wrap, 0 for only where they
    are broken; font: a family, "" for Larch's own. told: what stands in the place of each pair of braces (see
    `core.telling`); derived. Raises ValueError for what can't be read."""

    text: str = ""
    size: float = 40.0
    width: float = 0.0
    bold: bool = False
    font: str = ""
    runs: tuple[Run, ...] = ()
    paragraphs: tuple[Paragraph, ...] = ()
    told: tuple[str, ...] = ()

    editor: ClassVar[str] = "words"

    def __post_init__(self) -> None:
        if len(self.text) > LONGEST:
            raise ValueError(f"a text holds at most {LONGEST} characters")
        if not (1 <= self.size <= 2000 and 0 <= self.width <= 1e6):
            raise ValueError("a text must have a size that can be read")
        if any(run.count < 1 or not 0 <= run.size <= 2000 for run in self.runs):
            raise ValueError("a run of text must have a length and a size that can be read")

    def bare(self) -> Thing:
        return self.replace(told=()) if self.told else self

    def tells(self) -> bool:
        return "{" in self.text

    def told_on(self, page: Page) -> Self:
        from larch.core.things.words.telling import answers

        found = answers(page, self.text)
        return self if found == self.told else self.replace(told=found)

    def seen_as_high(self, height: float) -> Self:
        """Itself after typing, measured by the fonts themselves; for what others end at."""
        return self

    def letter_hue(self) -> str:
        return self.hue

    def inset(self) -> float:
        """How far the words stand in from its edge."""
        return 0.0

    def words_top(self, height: float) -> float:
        """How far below its upper edge words of a height begin."""
        return self.inset()

    def label(self, page: Page) -> str:
        return self.name or self.first_words() or self.title()

    def read_text(self) -> str:
        """The words as they are read: with what the braces tell, not with the braces."""
        told = iter(self.told)
        return IN_BRACES.sub(lambda match: next(told, match[0][1:-1]), self.text) if "{" in self.text else self.text

    def first_words(self, most: int = 40) -> str:
        first = next((line.strip() for line in self.read_text().split("\n") if line.strip()), "")
        return first[:most].rstrip() + "…" if len(first) > most else first

    def plain_text(self) -> str:
        return self.text

    def largest(self) -> float:
        return max([run.size for run in self.runs if run.size] + [self.size])

    def estimate(self) -> tuple[float, float]:
        """Its size by the number of characters; the board measures with the font itself."""
        lines = self.text.split("\n") or [""]
        wide = self.largest() * 0.55
        if self.width:
            wrapped = sum(max(1, -(-len(line) * wide // self.width)) for line in lines)
            return (self.width, wrapped * self.largest() * LINE)
        return (max(max(map(len, lines)) * wide, self.size * 0.5), len(lines) * self.largest() * LINE)

    def sized(self, size: float) -> Lettered:
        """In another type size; parts with a size of their own keep their proportion."""
        size = min(LARGEST, max(SMALLEST, size))
        runs = tuple(run.replace(size=run.size * size / self.size) if run.size else run for run in self.runs)
        changed: Lettered = self.replace(size=size, runs=runs)
        return changed

    def styled(self, **changes: Any) -> Lettered:
        """With all of its words looking otherwise."""
        runs = restyled(self.runs, len(self.text), 0, len(self.text), **changes)
        changed: Lettered = self.replace(runs=runs)
        return changed

    def arranged(self, **changes: str) -> Lettered:
        """With all of its paragraphs aligned or listed otherwise."""
        count = self.text.count("\n") + 1
        now = [*self.paragraphs, *[Paragraph()] * (count - len(self.paragraphs))]
        changed: Lettered = self.replace(
            paragraphs=tidy_paragraphs((msgspec.structs.replace(p, **changes) for p in now), count)
        )
        return changed

    def facts(self, page: Page) -> Iterator[Fact]:
        def set_size(typed: str) -> Thing:
            size = read_number(typed) / self.placement.scale
            if not SMALLEST <= size <= LARGEST:
                limits = _("Type sizes go from {small} to {large}.")
                raise ValueError(limits.format(small=f"{SMALLEST:g}", large=f"{LARGEST:g}"))
            return self.sized(size)

        def set_text(typed: str) -> Thing:
            kept = typed[:LONGEST]
            changed: Thing = self.replace(text=kept, runs=tidy_runs(self.runs, len(kept)))
            return changed

        shown = self.size * self.placement.scale
        yield measure("size", shown, "", _("type size"), 0, set=set_size)
        metres = _("about {m} m").format(m=f"{reads_from(shown):.0f}")
        yield Fact("reads from", round(reads_from(shown), 1), "m", metres, _("reads from"))
        yield Fact("text", self.text, text=self.text, label=_("words"), set=set_text)
        align = self.paragraphs[0].align if self.paragraphs else ""
        aligns = (("", _("left")), ("centre", _("centre")), ("right", _("right")))
        word = dict(aligns).get(align, align)
        yield Fact("align", align, "", word, _("lines"), "", lambda typed: self.arranged(align=_one(typed, ALIGNS)), aligns)
        listed = self.paragraphs[0].list if self.paragraphs else ""
        lists = (("", _("no list")), ("dots", _("dots")), ("numbers", _("numbers")))
        word = dict(lists).get(listed, listed)
        yield Fact("list", listed, "", word, _("list"), "", lambda typed: self.arranged(list=_one(typed, LISTS)), lists)
        yield Fact("font", self.font, "", self.font or OWN_FONT, _("font"), "", self._set_font, fonts(self.font))

    def _set_font(self, typed: str) -> Thing:
        changed: Thing = self.replace(font=typed.strip()[:80])
        return changed

    def stretched(self, across: float, down: float) -> Thing | None:
        """Its right edge moves; the type keeps its size."""
        now = self.width or self.extent().width
        changed: Thing = self.replace(width=min(1e6, max(self.size, now * across)))
        return changed


def fonts(chosen: str = "") -> tuple[tuple[str, str], ...]:
    """Families that are shipped, and the one that is chosen."""
    shipped = (("", OWN_FONT), ("Atkinson Hyperlegible Next", "Atkinson Hyperlegible"), ("STIX Two Math", "STIX Two"))
    return shipped if chosen in dict(shipped) else (*shipped, (chosen, chosen))


def _one(typed: str, allowed: Sequence[str]) -> str:
    if typed not in allowed:
        raise ValueError(_("“{typed}” is none of the choices.").format(typed=typed[:40]))
    return typed
