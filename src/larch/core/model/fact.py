"""Facts: the numbers that a thing knows about itself, and how a number is written."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any, NamedTuple

from msgspec import Struct

from larch.core.base.signs import signs_in_use
from larch.core.base.words import N_

MINUS = "−"
PARTS = {
    "measures": N_("measures"), "looks": N_("looks"), "place": N_("place"), "doing": N_("doing"),
    "pupils": N_("at the Board, pupils may"),
}  # fmt: skip


class Told(NamedTuple):
    """What a `set` of a fact may return: the result, and a sentence about what it did."""

    result: Any
    said: str


class Fact(Struct, frozen=True):
    """One thing that is known.

    name: stable key, e.g. "AB" or "area"; label: what a person reads; value: a number, a text,
    a truth, or None where the fact does not exist (`text` then says why).
    unit: "" for a bare number. badge: the word in the thing's `shown` that shows it on the page, shared by facts
    that are shown together ("sides"); "" if it can't be shown.
    set: given what a person typed, the changed thing or page, or a `Told`; raises ValueError with one sentence.
    options: what can be chosen instead of typed, as (what `set` is given, what a person reads). hint: shown where nothing is
    typed yet. part: one of PARTS, where it isn't the one that follows from the rest.
    """

    name: str
    value: float | int | str | bool | None
    unit: str = ""
    text: str = ""
    label: str = ""
    badge: str = ""
    set: Callable[[str], Any] | None = None
    options: tuple[tuple[str, str], ...] = ()
    hint: str = ""
    part: str = ""

    def group(self) -> str:
        """Among what it belongs: a wish (nothing is known yet, something can be typed) to "doing", a choice to "looks"."""
        wish = self.set is not None and self.value == "" and not self.text and not self.options
        return self.part or ("doing" if wish else "looks" if self.options else "measures")

    def plain(self) -> dict[str, Any]:
        """The fact as `larch facts --json` prints it."""
        return {"name": self.name, "value": self.value, "unit": self.unit, "text": self.text}


def number_text(value: float, places: int = 1) -> str:
    """A number as it is written in class: at most `places` decimals, a true minus, no "-0", the lesson's decimal sign."""
    return signs_in_use().number(plain_number(value, places))


def plain_number(value: float, places: int = 1) -> str:
    """As `number_text`, always with a point: for what is read again."""
    if value != value or value in (float("inf"), float("-inf")):
        return "—"
    text = f"{value:.{places}f}" if abs(value) < 1e15 else f"{value:.{places + 3}g}"
    if "." in text and "e" not in text:
        text = text.rstrip("0").rstrip(".")
    if text in ("-0", ""):
        text = "0"
    return text.replace("-", MINUS)


def measure(
    name: str,
    value: float,
    unit: str = "",
    label: str = "",
    places: int = 1,
    badge: str = "",
    set: Callable[[str], Any] | None = None,
) -> Fact:
    """A measured fact; degrees stand close to their number, other units after a space."""
    gap = "" if unit in ("°", "") else " "
    text = f"{number_text(value, places)}{gap}{unit}"
    return Fact(name, value, unit, text, label or name, badge, set)


def read_number(typed: str) -> float:
    """The number a person typed ("3", "2,5", "−1", "1/2 cm"); raises ValueError with one sentence."""
    from larch.core.base.words import _
    from larch.core.maths.expression import ExpressionError, Undefined, parse, value_at

    cleaned = typed.strip().rstrip("°").strip()
    for unit in ("cm²", "cm", "°"):
        cleaned = cleaned.removesuffix(unit).strip()
    cleaned = cleaned.replace(",", ".")
    try:
        value = value_at(parse(cleaned))
    except (ExpressionError, Undefined) as error:
        raise ValueError(_("“{typed}” is not a number.").format(typed=typed[:40])) from error
    if isinstance(value, bool) or value is None:
        raise ValueError(_("“{typed}” is not a number.").format(typed=typed[:40]))
    return float(value)


def read_whole(typed: str, low: int, high: int) -> int:
    """The whole number that a person typed; raises ValueError with one sentence."""
    from larch.core.base.words import _

    value = read_number(typed)
    if value != round(value) or not low <= value <= high:
        raise ValueError(_("Write a whole number from {low} to {high}.").format(low=low, high=high))
    return round(value)


def read_numbers(typed: str) -> list[float]:
    """Numbers parted by spaces, colons, semicolons or commas, such as 3 : 1 : 2; raises ValueError with one sentence."""
    return [read_number(word) for word in re.split(r"[\s:;,]+", typed.strip()) if word]


def read_names(typed: str, longest: int = 20) -> tuple[str, ...]:
    """Names parted by semicolons, commas or lines, each cut to a length; an empty one keeps its place."""
    return tuple(name.strip()[:longest] for name in re.split(r"[;,\n]", typed))
