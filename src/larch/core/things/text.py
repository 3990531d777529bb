"""Text in type large enough for a room."""

from __future__ import annotations

from collections.abc import Iterator
from typing import ClassVar

from larch.core.fact import Fact, measure, read_number
from larch.core.page import Page
from larch.core.shape import Box
from larch.core.thing import ShelfItem, Thing
from larch.core.words import _

LINE = 1.35  # line height over type size
SMALLEST, LARGEST = 8.0, 400.0
LONGEST = 20_000  # characters


class Text(Thing, frozen=True, kw_only=True, tag="text"):
    """size: of the type in page units; width: where lines wrap, 0 for only where they are broken."""

    text: str = ""
    size: float = 40.0
    width: float = 0.0
    bold: bool = False
    hue: str = "needle"

    stretches_down: ClassVar[bool] = False  # its height follows from its lines
    icon: ClassVar[str] = "type"
    order: ClassVar[int] = 60
    help: ClassVar[str] = "Click with the text tool and type; double-click a text to change it."

    def __post_init__(self) -> None:
        if len(self.text) > LONGEST:
            raise ValueError(f"a text holds at most {LONGEST} characters")
        if not (1 <= self.size <= 2000 and 0 <= self.width <= 1e6):
            raise ValueError("a text must have a size that can be read")

    @classmethod
    def title(cls) -> str:
        return _("text")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        tray = "Words"
        yield ShelfItem("text", _("text"), tray, lambda: cls(text=_("Lanterns")), _("write type words"))
        yield ShelfItem(
            "title", _("title"), tray, lambda: cls(text=_("River Lantern Night"), size=64, bold=True), _("heading")
        )
        yield ShelfItem(
            "directions",
            _("directions"),
            tray,
            lambda: cls(text=_("1  Take one sheet of paper.\n2  Fold it.\n3  Count."), size=48),
            _("instructions steps task"),
        )

    def label(self, page: Page) -> str:
        first = self.text.strip().split("\n")[0]
        return self.name or (first[:40] + "…" if len(first) > 40 else first) or self.title()

    def plain_text(self) -> str:
        return self.text

    def extent(self) -> Box:
        """An estimate by the number of characters; the board measures with the font itself."""
        lines = self.text.split("\n") or [""]
        widest = max(len(line) for line in lines) * self.size * 0.55
        if self.width:
            wrapped = sum(max(1, -(-len(line) * self.size * 0.55 // self.width)) for line in lines)
            return Box(0, 0, self.width, wrapped * self.size * LINE)
        return Box(0, 0, max(widest, self.size * 0.5), len(lines) * self.size * LINE)

    def facts(self, page: Page) -> Iterator[Fact]:
        def set_size(typed: str) -> Thing:
            size = read_number(typed)
            if not SMALLEST <= size <= LARGEST:
                limits = _("Type sizes go from {small} to {large}.")
                raise ValueError(limits.format(small=f"{SMALLEST:g}", large=f"{LARGEST:g}"))
            changed: Thing = self.replace(size=size)
            return changed

        yield measure("size", self.size * self.placement.scale, "", _("type size"), 0, set=set_size)
        yield Fact("text", self.text, text=self.text, label=_("words"), set=lambda typed: self.replace(text=typed))

    def stretched(self, across: float, down: float) -> Thing | None:
        """Its right edge moves; the type keeps its size."""
        now = self.width or self.extent().width
        changed: Thing = self.replace(width=max(self.size, now * across))
        return changed
