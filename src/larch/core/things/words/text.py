"""Text in type large enough for a room."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.model.capabilities import Joinable, Snaps
from larch.core.model.page import Page
from larch.core.model.paper import Paper, writing_line
from larch.core.model.thing import ShelfItem, Snap, Thing
from larch.core.things.ink.ink import Ink
from larch.core.things.words.rich import BASE, TITLE, Lettered, Paragraph

NEAR = 0.16  # of the line height within which words are drawn to a line


class Text(Snaps, Joinable, Lettered, frozen=True, kw_only=True, tag="text"):
    """Words on the page; see `Lettered`. written: the ink that they were read from, in their own coordinates."""

    written: tuple[Ink, ...] = ()
    hue: str = "needle"

    solid: ClassVar[bool] = False
    icon: ClassVar[str] = "type"
    order: ClassVar[int] = 60
    help: ClassVar[str] = N_(
        "Click with the text tool and type; double-click a text to change it. Its right edge wraps the lines, "
        "its corners scale it."
    )

    @classmethod
    def title(cls) -> str:
        return _("text")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        tray = "Words"
        yield ShelfItem("text", _("text"), tray, lambda: cls(text=_("Lanterns")), _("write type words"))
        heading = _("heading large")
        yield ShelfItem(
            "title", _("title"), tray, lambda: cls(text=_("River Lantern Night"), size=TITLE, bold=True), heading
        )
        steps = _("Take one sheet of paper.\nFold it.\nCount.")
        numbers = (Paragraph(list="numbers"),) * 3
        yield ShelfItem(
            "directions", _("directions"), tray, lambda: cls(text=steps, size=48, paragraphs=numbers),
            _("instructions steps task list"),
        )  # fmt: skip

    def extent(self) -> Box:
        return Box(0, 0, *self.estimate())

    def base(self) -> float:
        """How far below its top the letters of its first line stand, page units."""
        first = next((run.size for run in self.runs if run.size), self.size)
        return BASE * first * self.placement.scale

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """Its letters stand on the lines of the page's paper."""
        if self.placement.turn:
            return None
        found = self._line(page.paper, reach)
        if found is None:
            return None
        y = self.placement.y + self.base() + found
        return Snap(0.0, found, _("on the line"), ((self.placement.x, y), (self.placement.x + self.extent().width, y)))

    def _line(self, paper: Paper, reach: float) -> float | None:
        stands = self.placement.y + self.base()
        line = writing_line(paper, stands)
        return None if line is None or abs(line - stands) > max(reach, paper.step * NEAR) else line - stands
