"""Half characters. Qt counts text in UTF-16, where an emoji is a pair; cut between its halves, what is left is no text that
any file can hold."""

from __future__ import annotations

import re
from typing import Any, TypeVar

import msgspec
from msgspec import Struct

Value = TypeVar("Value")
HALVES = re.compile("[\ud800-\udfff]+")


def whole(text: str) -> str:
    """The text with halves that belong together joined, and those left alone replaced by U+FFFD."""
    return HALVES.sub(lambda found: found[0].encode("utf-16-le", "surrogatepass").decode("utf-16-le", "replace"), text)


def mended(value: Value) -> Value:
    """A value in which every text is whole; the same object where nothing is to be mended."""
    found: Any = value
    if isinstance(value, str):
        found = whole(value)
        return value if found == value else found
    if isinstance(value, tuple):
        parts = tuple(mended(part) for part in value)
        if all(a is b for a, b in zip(parts, value, strict=True)):
            return value
        found = type(value)(*parts) if hasattr(value, "_fields") else parts
    elif isinstance(value, dict):
        fields = {mended(name): mended(part) for name, part in value.items()}
        found = value if all(fields.get(name) is part for name, part in value.items()) else fields
    elif isinstance(value, Struct):
        changed = {name: part for name in value.__struct_fields__
                   if (part := mended(was := getattr(value, name))) is not was}  # fmt: skip
        found = msgspec.structs.replace(value, **changed) if changed else value
    return found  # type: ignore[no-any-return]
