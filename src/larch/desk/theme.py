"""The three looks of the interface: Paper, Night, High contrast. The page itself is paper in all of them, as it is printed.

The colours are values that change in place, so that whatever paints with them follows at the next paint.
"""

from __future__ import annotations

from PyQt6.QtGui import QColor

from larch.board import look
from larch.core.base import hues
from larch.core.base.words import N_

LABELS = {"paper": N_("Paper"), "night": N_("Night"), "contrast": N_("High contrast")}
# paper: cards; stone: window and ledge; drawer: shelf; needle: words and icons; soft: quieter words; gold: what is in hand;
# focus: the ring round what has the keys; hair: hairlines; edge: of what can be filled in; handle: of a scroll bar;
# strong: the button that is meant, and what is chosen; strong text: the words on it; wrong: trouble; faded: what can't be
# done just now.
THEMES: dict[str, dict[str, str]] = {
    "paper": {
        "paper": hues.PAPER, "stone": hues.STONE, "drawer": "#F5F3ED", "needle": hues.NEEDLE, "soft": hues.NEEDLE_SOFT,
        "gold": hues.GOLD, "focus": hues.GOLD_TEXT, "hair": "#D9D5C8", "edge": "#6F7A74", "handle": "#7D7768",
        "strong": hues.NEEDLE, "strong text": hues.PAPER, "wrong": hues.WRONG, "faded": "#8A948E",
    },
    "night": {
        "paper": "#1B2E29", "stone": "#12211D", "drawer": "#172823", "needle": "#F3F0E6", "soft": "#B4C5BF",
        "gold": "#E8B04A", "focus": "#F2C46B", "hair": "#39504A", "edge": "#8FA39C", "handle": "#7E938C",
        "strong": "#3E7264", "strong text": "#FCFBF7", "wrong": "#F2A093", "faded": "#71847E",
    },
    "contrast": {
        "paper": "#FFFFFF", "stone": "#FFFFFF", "drawer": "#FFFFFF", "needle": "#000000", "soft": "#000000",
        "gold": "#7A3E00", "focus": "#0033A0", "hair": "#000000", "edge": "#000000", "handle": "#000000",
        "strong": "#000000", "strong text": "#FFFFFF", "wrong": "#8B0000", "faded": "#595959",
    },
}  # fmt: skip

PAPER, STONE, NEEDLE, SOFT, GOLD, FOCUS, HAIRLINE = (QColor() for _colour in range(7))
_NAMED = {"paper": PAPER, "stone": STONE, "needle": NEEDLE, "soft": SOFT, "gold": GOLD, "focus": FOCUS, "hair": HAIRLINE}
_worn = ["paper"]


def wear(name: str) -> str:
    """Puts on a theme; an unknown one is Paper. Returns its name."""
    name = name if name in THEMES else "paper"
    _worn[0] = name
    tones = THEMES[name]
    for tone, colour in _NAMED.items():
        colour.setRgb(QColor(tones[tone]).rgb())
    look.ink.update(shade=tones["needle"], faded=tones["faded"])
    return name


def worn() -> str:
    return _worn[0]


def tone(name: str) -> str:
    """A colour of the theme that is worn, as #rrggbb."""
    return THEMES[_worn[0]][name]


wear("paper")
