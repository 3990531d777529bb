"""What the pages of the demo lesson are made with."""

from __future__ import annotations

from larch.core.base.shape import Placement
from larch.core.model.page import Page, Paper
from larch.core.model.paper import writing_line
from larch.core.things.words.rich import BASE
from larch.core.things.words.text import Text

SEED = 20261123
READABLE = 40.0  # type size read from the back of the room; nothing on these pages is smaller


def fresh_page(title: str, squared: bool = False, paper: Paper | None = None) -> Page:
    """A page with its title on it."""
    paper = paper or (Paper("squared") if squared else Paper())
    left = paper.margin + 16 if paper.margin else 56.0  # beside the margin, not across it
    line = writing_line(paper, 26 + BASE * 46)
    near = line is not None and abs(line - 26 - BASE * 46) < 40  # on ruled paper it stands on a line, else above the first
    top = line - BASE * 46 if line is not None and near else 26.0
    heading = Text(text=title, size=46, bold=True, placement=Placement(left, top), locked=True)
    return Page(id="", title=title, paper=paper, seed=SEED).put(heading)


def lettering(text: str, x: float, y: float, size: float = READABLE, hue: str = "needle", width: float = 0) -> Text:
    """Locked text, so that pupils don't drag it away."""
    return Text(text=text, size=size, hue=hue, width=width, placement=Placement(x, y), locked=True)
