"""Boxes with words in them, from which a web of thoughts, a story or a plan is made."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from typing import ClassVar, Self

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Fold, Things, only
from larch.core.model.capabilities import Joinable
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure
from larch.core.model.page import Page
from larch.core.model.thing import Handle, ShelfItem, Thing
from larch.core.things.organisers.connector import Connector
from larch.core.things.words.rich import Lettered, Paragraph

SHAPES = (N_("box"), N_("round"), N_("oval"), N_("diamond"), N_("bare"))
INSETS = {"box": 16.0, "round": 22.0, "oval": 34.0, "diamond": 46.0, "bare": 6.0}
LEAST = 48.0
MOST_WIDE = 0.78  # share of the width of an oval or a diamond that words are reckoned to take
WORDS_APART = 8.0  # from its outline
GAP = 96.0  # between a box and the neighbour that it grows
REACH = 40.0  # from a box to the marks that grow one
SIDES = {"right": (1, 0), "left": (-1, 0), "down": (0, 1), "up": (0, -1)}


class WordBox(Joinable, Lettered, frozen=True, kw_only=True, tag="box"):
    """width and height: at least; it grows with its words. shape: one of SHAPES. filled: tinted with its colour."""

    size: float = 34.0
    width: float = 220.0
    height: float = 96.0
    shape: str = "round"
    filled: bool = True
    hue: str = "lake"
    paragraphs: tuple[Paragraph, ...] = (Paragraph(align="centre"),)

    icon: ClassVar[str] = "message-square"
    order: ClassVar[int] = 56
    help: ClassVar[str] = N_(
        "Press a mark beside a box and a neighbour grows there, joined to it; drag the mark to another thing to join the "
        "two. Lines stay attached and go round other boxes."
    )

    def __post_init__(self) -> None:
        super().__post_init__()
        if self.shape not in SHAPES:
            raise ValueError("a box has one of the known shapes")
        if not (1 <= self.width <= 1e5 and 1 <= self.height <= 1e5):
            raise ValueError("a box must have a size")

    @classmethod
    def title(cls) -> str:
        return _("box")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("bubble idea concept map node frame")
        yield ShelfItem("box", _("box"), N_("Organisers"), lambda: cls(text=_("lantern")), words)

    def seen_as_high(self, height: float) -> Self:
        """Joined lines end where it is seen to end."""
        return self.replace(height=max(self.height, height))  # type: ignore[no-any-return]

    def letter_hue(self) -> str:
        return "needle"

    def inset(self) -> float:
        return INSETS[self.shape]

    def words_top(self, height: float) -> float:
        return max(0.0, (self.extent().height - height) / 2)

    def extent(self) -> Box:
        if not self.text:
            return Box(0, 0, self.width, self.height)
        inner: Lettered = self.replace(width=max(24.0, self.width - 2 * self.inset()))
        longest = max(len(line) for line in self.text.split("\n")) * self.largest() * 0.5
        return Box(0, 0, self.width, self.height_for(min(longest, inner.width), inner.estimate()[1]))

    def height_for(self, wide: float, tall: float) -> float:
        """How high it must be for words that are so wide and so tall to stand inside its outline."""
        share = min(MOST_WIDE, (wide + WORDS_APART) / self.width)
        if self.shape == "diamond":
            needed = tall / (1 - share)
        elif self.shape == "oval":
            needed = tall / math.sqrt(1 - share * share)
        else:
            needed = tall + 2 * min(self.inset(), 24.0)
        return max(self.height, needed)

    def stretched(self, across: float, down: float) -> Thing | None:
        width, height = min(1e5, max(LEAST, self.width * across)), min(1e5, max(LEAST / 2, self.height * down))
        changed: Thing = self.replace(width=width, height=height)
        return changed

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.extent().corners(), True

    def handles(self) -> tuple[Handle, ...]:
        box = self.extent()
        away = REACH / self.placement.scale
        places = (
            (box.x1 + away, box.centre[1]),
            (-away, box.centre[1]),
            (box.centre[0], box.y1 + away),
            (box.centre[0], -away),
        )
        return tuple(Handle(f"grow {side}", x, y, _("joined box")) for side, (x, y) in zip(SIDES, places, strict=True))

    def facts(self, page: Page) -> Iterator[Fact]:
        yield from super().facts(page)
        options = tuple((name, _(name)) for name in SHAPES)
        yield Fact("shape", self.shape, text=_(self.shape), label=_("shape"), set=self._shaped, options=options)
        joined = sum(isinstance(t, Connector) and self.id in t.ends_at() for t in page.things)
        yield measure("joined", joined, "", _("lines to others"), 0)

    def _shaped(self, name: str) -> Thing:
        if name not in SHAPES:
            raise ValueError(_("A box has no such shape."))
        changed: Thing = self.replace(shape=name)
        return changed

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def like(box: Thing) -> WordBox:
    """An empty box of the same sort."""
    if not isinstance(box, WordBox):
        return WordBox(hue=box.hue)
    fields = ("size", "width", "height", "shape", "filled", "hue", "font", "bold", "paragraphs")
    size = box.placement.scale
    return WordBox(**{name: getattr(box, name) for name in fields}, placement=Placement(scale=size))


SHAPE = Fold("shape", N_("shape"), "shapes")


def _shape_action(shape: str, picture: str) -> Action:
    labels = {"box": lambda: _("square corners"), "round": lambda: _("round corners"), "oval": lambda: _("oval"),
              "diamond": lambda: _("diamond, a question"), "bare": lambda: _("words without a frame")}  # fmt: skip

    def run(page: Page, things: Things) -> Edit:
        return Edit(_("Shape"), page, page.with_things({t.id: t.replace(shape=shape) for t in things}))

    return Action(
        f"shape {shape}",
        lambda p, ts: labels[shape](),
        picture,
        run,
        only(WordBox),
        rank=57,
        fold=SHAPE,
        words=N_("shape frame"),
    )


def _fill(page: Page, things: Things) -> Edit:
    value = not all(getattr(thing, "filled", True) for thing in things)
    return Edit(_("Tint"), page, page.with_things({t.id: t.replace(filled=value) for t in things}))


ACTIONS: tuple[Action, ...] = (
    *(_shape_action(shape, picture) for shape, picture in zip(
        SHAPES, ("square", "square-round-corner", "egg", "diamond", "type"), strict=True)),
    Action("box tint", lambda p, ts: _("tinted or clear"), "paint-bucket", _fill, only(WordBox), rank=66, words=N_("fill")),
)  # fmt: skip
