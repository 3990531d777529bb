"""Boxes with words in them, from which a web of thoughts, a story or a plan is made."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import ClassVar

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import _
from larch.core.model.action import Action, Things, only
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure
from larch.core.model.page import Page
from larch.core.model.thing import Handle, ShelfItem, Thing
from larch.core.things.organisers.connector import Connector
from larch.core.things.words.rich import TEXT_ACTIONS, Lettered, Paragraph

SHAPES = ("box", "round", "oval", "diamond", "bare")
INSETS = {"box": 16.0, "round": 22.0, "oval": 34.0, "diamond": 46.0, "bare": 6.0}
LEAST = 48.0
MOST_WIDE = 0.78  # share of the width of an oval or a diamond that words are reckoned to take
WORDS_APART = 8.0  # from its outline
GAP = 96.0  # between a box and the neighbour that it grows
REACH = 40.0  # from a box to the marks that grow one
SIDES = {"right": (1, 0), "left": (-1, 0), "down": (0, 1), "up": (0, -1)}


class WordBox(Lettered, frozen=True, kw_only=True, tag="box"):
    """width and height: at least; it grows with its words. shape: one of SHAPES. filled: tinted with its colour."""

    size: float = 34.0
    width: float = 220.0
    height: float = 96.0
    shape: str = "round"
    filled: bool = True
    hue: str = "lake"
    paragraphs: tuple[Paragraph, ...] = (Paragraph(align="centre"),)

    icon: ClassVar[str] = "message-square"
    solid: ClassVar[bool] = True
    joins: ClassVar[bool] = True
    order: ClassVar[int] = 41
    help: ClassVar[str] = (
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
        yield ShelfItem("box", _("box"), "Organisers", lambda: cls(text=_("lantern")), words)
        from larch.core.things.organisers.ready_made import organisers

        yield from organisers()

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
        return (*ACTIONS, *TEXT_ACTIONS)


def like(box: Thing) -> WordBox:
    """An empty box of the same sort."""
    if not isinstance(box, WordBox):
        return WordBox(hue=box.hue)
    fields = ("size", "width", "height", "shape", "filled", "hue", "font", "bold", "paragraphs")
    size = box.placement.scale
    return WordBox(**{name: getattr(box, name) for name in fields}, placement=Placement(scale=size))


def grown(page: Page, box: Thing, side: str) -> tuple[Page, str]:
    """The page with a neighbour of a box on one side, joined to it, where nothing else lies; and the neighbour's id."""
    from larch.core.figures.settle import settle

    dx, dy = SIDES[side]
    own = box.box()
    fresh = like(box)
    size = fresh.box()
    x = own.centre[0] + dx * (own.width / 2 + GAP + size.width / 2)
    y = own.centre[1] + dy * (own.height / 2 + GAP + size.height / 2)
    step = (size.height if dx else size.width) + 32.0
    others = [thing.box() for thing in page.things if not thing.is_ink and not isinstance(thing, Connector)]
    for k in range(24):
        off = (k + 1) // 2 * (1 if k % 2 else -1) * step
        at = (x + (0 if dx else off), y + (off if dx else 0))
        room = size.moved(at[0] - size.centre[0], at[1] - size.centre[1])
        if not any(room.meets(other) for other in others):
            break
    placed = fresh.moved(at[0] - size.centre[0], at[1] - size.centre[1])
    id, _line = page.put_ids(2)
    return settle(page.put(placed, Connector(rule="connect", of=(box.id, id), hue=box.hue))), id


def grow(page: Page, things: Things, side: str = "right") -> Edit:
    after, id = grown(page, things[0], side)
    return Edit(_("Joined box"), page, after, select=(id,))


def join(page: Page, things: Things) -> Edit:
    """Lines from the first of some things to all others, in the order of their depth."""
    from larch.core.figures.settle import settle

    ends = [thing for thing in things if not isinstance(thing, Connector)]
    joined = {frozenset(t.of) for t in page.things if isinstance(t, Connector)}
    made = [
        Connector(rule="connect", of=(ends[0].id, other.id), hue=getattr(ends[0], "hue", "lake"))
        for other in ends[1:]
        if frozenset((ends[0].id, other.id)) not in joined
    ]
    if not made:
        raise ValueError(_("They are joined already."))
    # Below the things they join, so that no line crosses a picture.
    low = min(page.things.index(end) for end in ends)
    return Edit(_("Join"), page, settle(page.insert(low, *made)))


def _grower(side: str) -> Callable[[Page, Things], Edit]:
    return lambda page, things: grow(page, things, side)


def _shape_action(shape: str, picture: str) -> Action:
    labels = {"box": lambda: _("square corners"), "round": lambda: _("round corners"), "oval": lambda: _("oval"),
              "diamond": lambda: _("diamond, a question"), "bare": lambda: _("words without a frame")}  # fmt: skip

    def run(page: Page, things: Things) -> Edit:
        return Edit(_("Shape"), page, page.with_things({t.id: t.replace(shape=shape) for t in things}))

    return Action(f"shape {shape}", lambda p, ts: labels[shape](), picture, run, only(WordBox), rank=57, words="shape frame")


GROWN: tuple[tuple[str, Callable[[], str], str], ...] = (
    ("right", lambda: _("grow a box to the right"), "arrow-right"),
    ("down", lambda: _("grow a box below"), "arrow-down"),
    ("left", lambda: _("grow a box to the left"), "arrow-left"),
    ("up", lambda: _("grow a box above"), "arrow-up"),
)


def _grow_action(side: str, words: Callable[[], str], picture: str) -> Action:
    search = "concept map linked neighbour node child"
    return Action(f"grow {side}", lambda p, ts: words(), picture, _grower(side), _one_box, rank=56, words=search)


def _can_join(page: Page, things: Things) -> bool:
    ends = [thing for thing in things if not isinstance(thing, Connector) and not thing.is_ink]
    return 2 <= len(ends) <= 40 and any(thing.joins for thing in ends)


def _one_box(page: Page, things: Things) -> bool:
    return len(things) == 1 and only(WordBox)(page, things)


def _fill(page: Page, things: Things) -> Edit:
    value = not all(getattr(thing, "filled", True) for thing in things)
    return Edit(_("Tint"), page, page.with_things({t.id: t.replace(filled=value) for t in things}))


ACTIONS: tuple[Action, ...] = (
    *(_grow_action(*one) for one in GROWN),
    *(_shape_action(shape, picture) for shape, picture in zip(
        SHAPES, ("square", "square-round-corner", "egg", "diamond", "type"), strict=True)),
    Action("box tint", lambda p, ts: _("tinted or clear"), "paint-bucket", _fill, only(WordBox), rank=66, words="fill"),
)  # fmt: skip
JOINING = (
    Action(
        "join", lambda p, ts: _("join with lines"), "workflow", join, _can_join, rank=58, words="connect arrow link line"
    ),
)
