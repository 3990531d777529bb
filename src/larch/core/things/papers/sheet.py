"""A sheet: a piece of paper of any pattern, laid on the page or taken as the paper of the page itself."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure
from larch.core.model.page import Page
from larch.core.model.page_facts import dress
from larch.core.model.paper import PATTERNS, Paper, fresh_paper, paper_facts
from larch.core.model.thing import ShelfItem, Thing

WIDTH, HEIGHT = 320.0, 224.0

COLUMN = 176.0  # of a place-value sheet: a hundred finds room in it


class Sheet(Thing, frozen=True, kw_only=True, tag="sheet"):
    """paper: what is printed on it; width and height in its own units. Raises ValueError if it has no size."""

    paper: Paper = Paper("squared")
    width: float = WIDTH
    height: float = HEIGHT

    icon: ClassVar[str] = "file"
    order: ClassVar[int] = 70
    help: ClassVar[str] = N_(
        "Tap a paper on the shelf to lay it under the whole page; drag it to lay out a piece. "
        "Ctrl+I with nothing selected changes the page's own paper."
    )

    def __post_init__(self) -> None:
        if not (1 <= self.width <= 1e5 and 1 <= self.height <= 1e5):
            raise ValueError("a sheet must have a size")

    @classmethod
    def title(cls) -> str:
        return _("sheet of paper")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        for name, pattern in PATTERNS.items():
            yield ShelfItem(
                f"paper {name}", pattern.label(), N_("Papers"), _maker(name), pattern.words(), None, _dresser(name)
            )

    def label(self, page: Page) -> str:
        known = PATTERNS.get(self.paper.pattern)
        return self.name or _("sheet, {paper}").format(paper=known.label() if known else self.paper.pattern)

    def extent(self) -> Box:
        return Box(0, 0, self.width, self.height)

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.extent().corners(), True

    def facts(self, page: Page) -> Iterator[Fact]:
        yield from paper_facts(self.paper, page.unit / self.placement.scale, lambda paper: self.replace(paper=paper))
        cm = self.placement.scale / page.unit
        yield measure("width", self.width * cm, "cm", _("width"))
        yield measure("height", self.height * cm, "cm", _("height"))

    def stretched(self, across: float, down: float) -> Thing | None:
        width, height = min(1e5, max(20.0, self.width * across)), min(1e5, max(20.0, self.height * down))
        changed: Thing = self.replace(width=width, height=height)
        return changed

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _dresser(name: str) -> Callable[[Page], Edit]:
    return lambda page: dress(page, _paper(name))


def _maker(name: str) -> Callable[[], Thing]:
    def make() -> Thing:
        paper = _paper(name)
        wide = paper.columns * COLUMN if name == "place value" else WIDTH
        return Sheet(paper=paper, width=wide)

    return make


def _paper(name: str) -> Paper:
    paper = fresh_paper(name)
    if name == "place value":
        paper = paper.replace(top=0.0, columns=3)
    return paper.replace(margin=64.0, step=56.0) if name == "ruled" else paper


def _under_page(page: Page, things: Things) -> Edit:
    """Its paper becomes that of the page; the sheet itself goes."""
    first = next(thing for thing in things if isinstance(thing, Sheet))
    return Edit(_("Paper"), page, page.without([first.id]).replace(paper=first.paper), select=())


ACTIONS = (
    Action("under page", lambda p, ts: _("lay under the page"), "file-down", _under_page,
           lambda p, ts: len(ts) == 1 and only(Sheet)(p, ts), rank=20, words=N_("paper background whole")),
)  # fmt: skip
