"""Sticky notes: typed or written on, folded to a tab with their first words until they are wanted."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _, many
from larch.core.model.action import Action, Things, ids_of, only
from larch.core.model.capabilities import Joinable, TakesInk, Tappable
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.core.things.ink.ink import Ink
from larch.core.things.words.rich import Lettered

INSET = 20.0
TAB_HEIGHT = 58.0
TAB_WORDS = 18  # characters
TAB_SIZE = 26.0  # of the type on a tab
LEAST = 80.0


class Note(Joinable, TakesInk, Tappable, Lettered, frozen=True, kw_only=True, tag="note"):
    """width and height: of the sheet, which grows with its words; hue: of the paper. strokes: the ink on it, in its own
    coordinates. folded: only its tab is seen."""

    size: float = 34.0
    width: float = 360.0
    height: float = 240.0
    folded: bool = False
    strokes: tuple[Ink, ...] = ()
    hue: str = "straw"

    taps: ClassVar[int] = 2
    icon: ClassVar[str] = "sticky-note"
    order: ClassVar[int] = 61
    help: ClassVar[str] = N_(
        "Type on a sticky note or write on it with the pen; fold it to a tab and open it again by a double tap. "
        "What is written on it goes with it."
    )

    def __post_init__(self) -> None:
        super().__post_init__()
        if not (LEAST <= self.width <= 1e5 and LEAST <= self.height <= 1e5):
            raise ValueError("a note must have a size")

    @classmethod
    def title(cls) -> str:
        return _("sticky note")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("sticky note memo directions hint answer fold")
        yield ShelfItem("note", _("sticky note"), N_("Words"), lambda: cls(text=_("Fold first,\nthen cut.")), words)

    def label(self, page: Page) -> str:
        return self.name or _("sticky note: {words}").format(words=self.first_words() or _("no words"))

    def letter_hue(self) -> str:
        return "needle"

    def inset(self) -> float:
        return INSET

    def tab_words(self) -> str:
        """What its tab says while it is folded."""
        return self.first_words(TAB_WORDS) or (_("written") if self.strokes else _("empty"))

    def extent(self) -> Box:
        if self.folded:
            return Box(0, 0, max(LEAST, len(self.tab_words()) * TAB_SIZE * 0.56 + 2 * INSET), TAB_HEIGHT)
        inner: Lettered = self.replace(width=self.width - 2 * INSET) if self.width > 3 * INSET else self
        return Box(0, 0, self.width, max(self.height, inner.estimate()[1] + 2 * INSET))

    def stretched(self, across: float, down: float) -> Thing | None:
        if self.folded:
            return None
        width, height = min(1e5, max(LEAST, self.width * across)), min(1e5, max(LEAST, self.height * down))
        changed: Thing = self.replace(width=width, height=height)
        return changed

    def with_ink(self, ink: Ink) -> Thing | None:
        if self.folded or self.locked:
            return None
        own = ink.replace(placement=ink.placement.within(self.placement))
        changed: Thing = self.replace(strokes=(*self.strokes, own))
        return changed

    def rubbed(self, change: Callable[[Ink], Sequence[Thing] | None]) -> Sequence[Thing] | None:
        if self.folded:
            return None
        kept: list[Ink] = []
        some = False
        for stroke in self.strokes:
            left = change(stroke.replace(placement=stroke.placement.on(self.placement)))
            some = some or left is not None
            if left is None:
                kept.append(stroke)
            else:
                kept += [p.replace(placement=p.placement.within(self.placement)) for p in left if isinstance(p, Ink)]
        return (self.replace(strokes=tuple(kept)),) if some else None

    def edges(self) -> Iterator[tuple[Sequence[tuple[float, float]], bool]]:
        yield self.extent().corners(), True

    def tap_action(self, at: Point) -> str:
        return "fold" if self.folded else ""

    def facts(self, page: Page) -> Iterator[Fact]:
        state = _("folded") if self.folded else _("open")
        yield Fact("state", state, text=state, label=_("it is"))
        yield from super().facts(page)
        count = many("1 stroke", "{n} strokes", len(self.strokes))
        yield Fact("written", len(self.strokes), text=count, label=_("written on it"))

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def fold(page: Page, things: Things) -> Edit:
    """Folds notes to their tabs, or opens them if all are folded."""
    shut = not all(isinstance(thing, Note) and thing.folded for thing in things)
    label = _("Fold the note") if shut else _("Open the note")
    return Edit(label, page, page.changing(ids_of(things), lambda thing: thing.replace(folded=shut)))


def _fold_label(page: Page, things: Things) -> str:
    return _("open") if all(isinstance(thing, Note) and thing.folded for thing in things) else _("fold")


ACTIONS = (
    Action(
        "fold", _fold_label, "fold-vertical", fold, only(Note), rank=10, board=True, words=N_("tab close hide open unfold")
    ),
)
