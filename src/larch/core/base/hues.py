"""Larch's colours: the palette of the interface and the eight hues of things and ink, as sRGB hex."""

from larch.core.base.words import N_

PAPER = "#FCFBF7"
STONE = "#EDEBE3"
NEEDLE = "#17332E"
NEEDLE_SOFT = "#4C655F"
GOLD = "#C77F12"
GOLD_TEXT = "#8A5200"
GOOD = "#2E6B3F"
RIGHT = "#2E6B3F"
WRONG = "#A13325"

HUES = {
    N_("needle"): NEEDLE,
    N_("lake"): "#1F6F8B",
    N_("berry"): "#A23B52",
    N_("moss"): "#5C7A29",
    N_("plum"): "#6B4C8A",
    N_("clay"): "#B5562B",
    N_("sky"): "#3D8FB3",
    N_("straw"): "#A8842C",
    N_("slate"): "#4A5B6B",
}


def hex_of(hue: str) -> str:
    """The colour of a hue's name, of "#rrggbb" itself, or needle for anything else."""
    if hue in HUES:
        return HUES[hue]
    return hue if is_hex(hue) else NEEDLE


def is_hex(hue: str) -> bool:
    return len(hue) == 7 and hue[0] == "#" and all(c in "0123456789abcdefABCDEF" for c in hue[1:])


def mixed(under: str, over: str, share: float) -> str:
    """One colour over another, from 0 (`under`) to 1 (`over`); both and the result #rrggbb."""
    pairs = ((int(under[i : i + 2], 16), int(over[i : i + 2], 16)) for i in (1, 3, 5))
    return "#" + "".join(f"{round(a + (b - a) * share):02x}" for a, b in pairs)


def luminance(shade: str) -> float:
    """Relative luminance of #rrggbb (WCAG 2.2)."""
    parts = [int(shade[i : i + 2], 16) / 255 for i in (1, 3, 5)]
    r, g, b = (c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in parts)
    return 0.2126 * r + 0.7152 * g + 0.0722 * b


def contrast(one: str, other: str) -> float:
    """Contrast of two colours, from 1 to 21 (WCAG 2.2)."""
    low, high = sorted((luminance(one), luminance(other)))
    return (high + 0.05) / (low + 0.05)


def readable(hue: str, on: str = PAPER) -> str:
    """A hue by its name, darkened as far as words in it need (4.5 : 1 on `on`); a mixed colour is what it is."""
    shade = hex_of(hue)
    if hue not in HUES:
        return shade
    for k in range(20):
        darker = mixed(shade, "#000000", 0.04 * k)
        if contrast(darker, on) >= 4.5:
            return darker
    return shade


BY_NUMBER = ("lake", "berry", "moss", "plum", "clay", "sky", "straw", "slate")
BY_PLACE = {-3: "slate", -2: "berry", -1: "straw", 0: "clay", 1: "lake", 2: "plum", 3: "moss"}


def hue_of_number(n: int) -> str:
    """By the rule for what is counted (rods, denominators, factors): 1 needle, 2 lake, and round again from 10."""
    return "needle" if n <= 1 else BY_NUMBER[(n - 2) % len(BY_NUMBER)]


def hue_of_place(power: int) -> str:
    """By the place of a digit: ones 0, tens 1, tenths -1."""
    return BY_PLACE.get(power, BY_PLACE[power % 4] if power > 0 else "slate")


def hue_in_order(k: int) -> str:
    """Where nothing is counted, in the order put in, from 0."""
    return BY_NUMBER[k % len(BY_NUMBER)]
