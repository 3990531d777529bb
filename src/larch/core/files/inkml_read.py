"""Strokes out of W3C InkML (2011), as this and other programs write it: channels in any order, differences, groups."""

from __future__ import annotations

import math
import re
from collections.abc import Iterator
from typing import NamedTuple
from xml.etree import ElementTree

from larch.core.base.words import _

LARGEST = 32 * 2**20  # bytes
MOST_POINTS = 1_000_000
DEEPEST = 40  # groups in groups
NUMBER = r"[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?|[-+]?(?:nan|inf(?:inity)?)"
VALUE = re.compile(rf"""\s*(['"!]?)\s*(\*|\?|[TF](?![a-z])|\#[0-9a-f]+|{NUMBER})""", re.IGNORECASE)


class Unreadable(ValueError):
    """The message says why in one sentence."""


class Channel(NamedTuple):
    name: str
    turned: bool  # counted the other way


class Trace(NamedTuple):
    """points: x and y in the units of the file, y downwards; colour: "#rrggbb" or ""."""

    points: tuple[tuple[float, float], ...]
    colour: str = ""


PLAIN = (Channel("X", False), Channel("Y", False))


def traces_of(data: bytes) -> list[Trace]:
    """All strokes, in the order in which they stand; empty ones stay, so that their numbers do. Raises Unreadable."""
    if len(data) > LARGEST:
        raise Unreadable(_("The file is too large for ink."))
    if b"<!DOCTYPE" in data[:4096].upper() or b"<!ENTITY" in data[:4096].upper():
        raise Unreadable(_("The file defines words of its own, which ink does not need."))
    try:
        root = ElementTree.fromstring(data)
    except (ElementTree.ParseError, ValueError, LookupError) as error:
        raise Unreadable(_("The file is not InkML: it can't be read as XML.")) from error
    if _name(root) != "ink":
        raise Unreadable(_("The file is not InkML: it holds something else."))
    return _Reader(root).all()


def _name(element: ElementTree.Element) -> str:
    return element.tag.rpartition("}")[2] if isinstance(element.tag, str) else ""


def _id(element: ElementTree.Element) -> str:
    return element.get("{http://www.w3.org/XML/1998/namespace}id") or element.get("id") or ""


class _Reader:
    def __init__(self, root: ElementTree.Element) -> None:
        self.root = root
        self.formats: dict[str, tuple[Channel, ...]] = {}
        self.contexts: dict[str, ElementTree.Element] = {}
        self.colours: dict[str, str] = {}
        self.count = 0
        for element in root.iter():
            match _name(element):
                case "traceFormat":
                    self.formats[_id(element)] = _channels(element)
                case "context":
                    self.contexts[_id(element)] = element
                case "brush":
                    self.colours[_id(element)] = _colour(element)
        self.usual = next(iter(self.formats.values()), PLAIN) if "" in self.formats or len(self.formats) == 1 else PLAIN

    def all(self) -> list[Trace]:
        found = [self._trace(*one) for one in self._traces(self.root, "", "", 0)]
        if not found:
            raise Unreadable(_("There is no ink in the file."))
        return found

    def _traces(
        self, element: ElementTree.Element, context: str, brush: str, deep: int
    ) -> Iterator[tuple[ElementTree.Element, str, str]]:
        if deep > DEEPEST:
            raise Unreadable(_("The groups of strokes are too deep."))
        for child in element:
            name = _name(child)
            if name == "context" and _id(child):
                context = f"#{_id(child)}"  # holds from here on
            own, looks = child.get("contextRef", context), child.get("brushRef", brush)
            if name == "traceGroup":
                yield from self._traces(child, own, looks, deep + 1)
            elif name == "trace" and child.get("type", "penDown") != "penUp":
                yield child, own, looks

    def _format(self, context: str) -> tuple[Channel, ...]:
        element = self.contexts.get(context.lstrip("#"))
        seen = 0
        while element is not None and seen < DEEPEST:
            inner = next((part for part in element if _name(part) == "traceFormat"), None)
            if inner is not None:
                return _channels(inner)
            ref = element.get("traceFormatRef", "").lstrip("#")
            if ref in self.formats:
                return self.formats[ref]
            element, seen = self.contexts.get(element.get("contextRef", "").lstrip("#")), seen + 1
        return self.usual

    def _brush(self, context: str, brush: str) -> str:
        element = self.contexts.get(context.lstrip("#"))
        return brush or (element.get("brushRef", "") if element is not None else "")

    def _trace(self, element: ElementTree.Element, context: str, brush: str) -> Trace:
        channels = self._format(context)
        names = [channel.name for channel in channels]
        if "X" not in names or "Y" not in names:
            raise Unreadable(_("The ink has no channels X and Y."))
        x, y = names.index("X"), names.index("Y")
        signs = [-1.0 if channels[k].turned else 1.0 for k in (x, y)]
        made: list[tuple[float, float]] = []
        for values in _points(element.text or "", len(channels)):
            self.count += 1
            if self.count > MOST_POINTS:
                raise Unreadable(_("The file has too many points for ink."))
            if math.isfinite(values[x]) and math.isfinite(values[y]):
                made.append((signs[0] * values[x], signs[1] * values[y]))
        return Trace(tuple(made), self.colours.get(self._brush(context, brush).lstrip("#"), ""))


def _channels(element: ElementTree.Element) -> tuple[Channel, ...]:
    found = tuple(
        Channel(part.get("name", ""), part.get("orientation", "+ve") == "-ve")
        for part in element
        if _name(part) == "channel"
    )
    return found or PLAIN


def _colour(element: ElementTree.Element) -> str:
    for part in element.iter():
        if _name(part) == "brushProperty" and part.get("name") == "color":
            value = part.get("value", "").strip()
            if re.fullmatch(r"#[0-9A-Fa-f]{6}", value):
                return value.lower()
    return ""


def _points(text: str, count: int) -> Iterator[list[float]]:
    """Values of all channels point by point. "'" before a value: a difference; '"': a difference of differences; "*": as
    before; "?": none."""
    modes, last, speed = ["!"] * count, [math.nan] * count, [0.0] * count
    for point in text.split(","):
        if not point.strip():
            continue
        at, values = 0, list(last)
        for k in range(count):
            found = VALUE.match(point, at)
            if found is None:
                if k == 0 or point[at:].strip():
                    raise Unreadable(_("“{points}” are no points of ink.").format(points=" ".join(point.split())[:40]))
                break
            at = found.end()
            modes[k] = found[1] or modes[k]
            values[k], speed[k] = _value(found[2], modes[k], last[k], speed[k])
        last = values
        yield values


def _value(text: str, mode: str, last: float, speed: float) -> tuple[float, float]:
    if text == "*":
        return last + (speed if mode in "'\"" and last == last else 0.0), speed
    if text == "?":
        return math.nan, speed
    if text.upper() in "TF":
        return float(text.upper() == "T"), 0.0
    number = float.fromhex(text[1:8] if len(text) < 9 else "inf") if text.startswith("#") else float(text)
    if mode == "!":
        return number, number - last if last == last else 0.0
    if mode == '"':
        number += speed
    return (0.0 if last != last else last) + number, number
