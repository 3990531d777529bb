"""How a lesson writes its mathematics: the sign of decimals, of times and of division, and the name of the tangent.

As with the language of the interface, one way is in use at a time: a session takes that of its lesson into use. It decides
how things look, not what they are: what was typed stays as it was typed, and is read in all of these ways.
"""

from __future__ import annotations

import re
from typing import Any

import msgspec
from msgspec import Struct

ALLOWED = {
    "decimal": ("", ".", ","), "times": ("", "⋅", "×"), "divide": ("", "÷", ":"), "tangent": ("", "tan", "tg"),
    "keys": ("", "numbers", "letters", "functions"),
}  # fmt: skip
TANGENTS = {"tan": "tg", "cot": "ctg", "arctan": "arctg", "tanh": "tgh"}
POINT = re.compile(r"(?<=\d)\.(?=\d)")


class Signs(Struct, frozen=True, omit_defaults=True, gc=False):
    """ "" is always: as it was written. keys: the set of keys that a tray shows at first.

    Raises ValueError for other signs.
    """

    decimal: str = ""
    times: str = ""
    divide: str = ""
    tangent: str = ""
    keys: str = ""

    def __post_init__(self) -> None:
        if any(getattr(self, name) not in allowed for name, allowed in ALLOWED.items()):
            raise ValueError("mathematics is written with other signs")

    def replace(self, **changes: Any) -> Signs:
        return msgspec.structs.replace(self, **changes)

    def number(self, text: str) -> str:
        """A number, or words with numbers in them, that was written with a point."""
        return POINT.sub(",", text) if self.decimal == "," else text

    def seen(self, text: str, before: str, after: str) -> str:
        """How a sign is written between two others."""
        if text == "." and self.decimal == "," and before.isdigit() and after.isdigit():
            return ","
        if text == "," and self.decimal == "," and not (before.isdigit() and after.isdigit()):
            return ";"  # what parts numbers that have commas
        if text in "⋅·×":
            return self.times or text
        if text in "÷:":
            return ":" if self.divide == ":" else text
        if self.tangent == "tg":
            return TANGENTS.get(text, text)
        if self.tangent == "tan":
            return next((name for name, short in TANGENTS.items() if short == text), text)
        return text


AS_WRITTEN = Signs()

_now = AS_WRITTEN


def signs_in_use() -> Signs:
    return _now


def use_signs(signs: Signs) -> None:
    """Takes a way of writing into use. What was worked out before by another way must be worked out again."""
    global _now
    _now = signs
