"""Text in type large enough for a room."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.model.capabilities import Joinable
from larch.core.model.thing import ShelfItem
from larch.core.things.words.rich import TITLE, Lettered, Paragraph


class Text(Joinable, Lettered, frozen=True, kw_only=True, tag="text"):
    """Words on the page; see `Lettered`."""

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
