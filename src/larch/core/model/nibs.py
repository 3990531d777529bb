"""What can be written with: nibs and the pens made of them. How a nib looks is the board's affair."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import msgspec
from msgspec import Struct

from larch.core.base.words import _


class Nib(NamedTuple):
    """least: width without pressure over the full width. widths: offered, page units; the second is the usual one."""

    label: Callable[[], str]
    icon: str
    least: float
    widths: tuple[float, float, float, float]


NIBS: dict[str, Nib] = {
    "fine": Nib(lambda: _("fine"), "pen-line", 1.0, (1.5, 2.5, 3.5, 5.0)),
    "pen": Nib(lambda: _("pen"), "pencil", 0.4, (3.0, 5.0, 9.0, 16.0)),
    "broad": Nib(lambda: _("broad"), "brush", 0.8, (8.0, 12.0, 18.0, 28.0)),
    "crayon": Nib(lambda: _("crayon"), "paintbrush", 0.75, (9.0, 14.0, 22.0, 36.0)),
    "highlighter": Nib(lambda: _("highlighter"), "highlighter", 1.0, (18.0, 30.0, 44.0, 64.0)),
}
FORMS: dict[str, tuple[Callable[[], str], str]] = {
    "free": (lambda: _("by hand"), "signature"),
    "line": (lambda: _("straight line"), "slash"),
    "curve": (lambda: _("curve through three points"), "spline"),
    "shapes": (lambda: _("shapes, trued up"), "shapes"),
    "maths": (lambda: _("mathematics, read"), "square-function"),
    "words": (lambda: _("words, read"), "type"),
}
READ = ("shapes", "maths", "words")  # forms in which what is written by hand is read after a pause
DASHES: dict[str, tuple[Callable[[], str], str]] = {
    "": (lambda: _("unbroken"), "minus"),
    "dash": (lambda: _("dashes"), "ellipsis"),
    "dots": (lambda: _("dots"), "grip-horizontal"),
}
ENDS: dict[str, tuple[Callable[[], str], str]] = {
    "": (lambda: _("no arrow"), "minus"),
    "end": (lambda: _("arrow at the end"), "move-right"),
    "both": (lambda: _("arrows at both ends"), "move-horizontal"),
}


class Pen(Struct, frozen=True, omit_defaults=True):
    """A nib with its colour and width (page units), the form of its lines, their dashes and ends."""

    nib: str = "pen"
    form: str = "free"
    width: float = 5.0
    hue: str = "needle"
    dash: str = ""
    ends: str = ""

    def replace(self, **changes: object) -> Pen:
        return msgspec.structs.replace(self, **changes)

    def with_nib(self, nib: str) -> Pen:
        """With another nib, at the width that is usual for it."""
        return self.replace(nib=nib, width=NIBS[nib].widths[1]) if nib != self.nib else self

    def label(self) -> str:
        """In words, for a screen reader and a tooltip."""
        words = [NIBS[self.nib].label() if self.nib in NIBS else self.nib, _(self.hue)]
        words += [FORMS[self.form][0]()] if self.form in FORMS and self.form != "free" else []
        words += [DASHES[self.dash][0]() if self.dash in DASHES else self.dash] if self.dash else []
        words += [ENDS[self.ends][0]() if self.ends in ENDS else self.ends] if self.ends else []
        return ", ".join(words)


def sound_pen(pen: Pen) -> Pen:
    """A pen from a file of settings, with whatever is not known there replaced by the usual."""
    nib = pen.nib if pen.nib in NIBS else "pen"
    width = pen.width if 0.5 <= pen.width <= 200 else NIBS[nib].widths[1]
    return Pen(
        nib, pen.form if pen.form in FORMS else "free", width, pen.hue[:20],
        pen.dash if pen.dash in DASHES else "", pen.ends if pen.ends in ENDS else "",
    )  # fmt: skip


KEPT_PENS = (
    Pen(),
    Pen("fine", width=2.5, hue="lake"),
    Pen("broad", width=12.0, hue="berry"),
    Pen("crayon", width=14.0, hue="moss"),
    Pen("highlighter", width=30.0, hue="straw"),
    Pen("pen", "line", 5.0, "plum", ends="end"),
)


def breadth(nib: str, pressure: float) -> float:
    """Line width over the nominal width, by pressure."""
    least = NIBS[nib].least if nib in NIBS else NIBS["pen"].least
    return least + (1 - least) * min(1.0, max(0.0, pressure))
