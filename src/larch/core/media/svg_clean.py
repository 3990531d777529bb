"""A drawing from elsewhere made safe: no scripts, nothing that is fetched from outside, no bombs; and its size.

The drawing is read by expat and written anew from what is known to be harmless, so what is not understood is not kept.
"""

from __future__ import annotations

import base64
import re
from typing import NamedTuple
from xml.parsers import expat
from xml.sax.saxutils import escape, quoteattr

from larch.core.base.words import _
from larch.core.maths.svg_shapes import LENGTH, PIXELS

LARGEST = 8 * 2**20
DEEPEST = 120
MOST_ELEMENTS = 60_000
BANNED = {"script", "foreignobject", "iframe", "object", "embed", "audio", "video", "handler", "listener", "set", "animate",
          "animatetransform", "animatemotion", "animatecolor", "a"}  # fmt: skip
UNWRAPPED = {"a"}  # what is in it stays
OUTSIDE = re.compile(
    r"(?i)(url\s*\(\s*['\"]?\s*(?!#|['\"]?#|data:image/(png|jpe?g|gif|webp);))|@import|expression\s*\(|javascript:"
)
INLINE = re.compile(r"(?is)\s*data:image/(png|jpe?g|gif|webp);base64,([a-z0-9+/=\s]*)$")


class CleanSvg(NamedTuple):
    """data: the drawing; size: in pixels; dropped: whether anything had to be left out."""

    data: bytes
    size: tuple[float, float]
    dropped: bool


class NotASvg(ValueError):
    """It can't be taken; the message is one sentence."""


class _Cleaner:
    def __init__(self) -> None:
        self.out: list[str] = []
        self.depth = 0
        self.count = 0
        self.skipping = 0  # depth inside something banned
        self.dropped = False
        self.style = False
        self.top: dict[str, str] = {}
        self.open: list[str] = []

    def start(self, name: str, attributes: dict[str, str]) -> None:
        self.depth += 1
        self.count += 1
        if self.depth > DEEPEST or self.count > MOST_ELEMENTS:
            raise NotASvg(_("The drawing has too many parts."))
        local = name.rpartition(":")[2].lower()
        if self.depth == 1:
            if local != "svg":
                raise NotASvg(_("The file holds no drawing."))
            self.top = attributes
        if self.skipping or (local in BANNED and local not in UNWRAPPED):
            self.skipping += 1
            self.dropped = True
            self.open.append("")
            return
        if local in UNWRAPPED:
            self.dropped = True
            self.open.append("")
            return
        kept = {key: value for key, value in attributes.items() if self._harmless(local, key, value)}
        self.out.append(f"<{name}" + "".join(f" {key}={quoteattr(value)}" for key, value in kept.items()) + ">")
        self.open.append(name)
        self.style = local == "style"

    def _harmless(self, element: str, key: str, value: str) -> bool:
        low = key.lower()
        local = low.rpartition(":")[2]
        if low.startswith("on"):
            good = False
        elif local in ("href", "src"):
            good = value.strip().startswith("#") or (element == "image" and _is_picture(value))
        elif low == "style" or "url" in value.lower() or "javascript" in value.lower():
            good = not OUTSIDE.search(_unescaped(value))
        else:
            good = True
        self.dropped = self.dropped or not good
        return good

    def end(self, name: str) -> None:
        self.depth -= 1
        written = self.open.pop()
        local = name.rpartition(":")[2].lower()
        self.style = False
        if self.skipping:
            self.skipping -= 1
        elif written:
            self.out.append(f"</{written}>")
        elif local not in UNWRAPPED:
            self.dropped = True

    def text(self, data: str) -> None:
        if self.skipping:
            return
        if self.style and OUTSIDE.search(_unescaped(data)):
            self.dropped = True
            return
        self.out.append(escape(data))


def _unescaped(css: str) -> str:
    """Style sheets may hide letters behind escapes. Gaps are made short: a search would go through long ones again and
    again."""

    def letter(match: re.Match[str]) -> str:
        number = int(match[1], 16)
        return chr(number) if number < 0x110000 else ""

    return re.sub(r"\s+", " ", re.sub(r"\\([0-9a-fA-F]{1,6})\s?", letter, css))


def _is_picture(value: str) -> bool:
    match = INLINE.match(value)
    if match is None:
        return False
    try:
        base64.b64decode(match[2], validate=False)
    except ValueError:
        return False
    return True


def clean_svg(raw: bytes) -> CleanSvg:
    """Raises NotASvg, with one sentence, for what is no drawing or too large a one."""
    if len(raw) > LARGEST:
        raise NotASvg(_("The drawing is larger than 8 MB."))
    cleaner = _Cleaner()
    parser = expat.ParserCreate()
    parser.buffer_text = False
    parser.StartElementHandler = cleaner.start
    parser.EndElementHandler = cleaner.end
    parser.CharacterDataHandler = cleaner.text

    def refuse(*_ignored: object) -> None:
        raise NotASvg(_("The drawing defines entities of its own and was not read."))

    parser.EntityDeclHandler = refuse
    try:
        parser.Parse(raw, True)
    except expat.ExpatError as error:
        raise NotASvg(_("The drawing is damaged: line {line} can't be read.").format(line=error.lineno)) from error
    except (UnicodeDecodeError, LookupError, ValueError) as error:
        if isinstance(error, NotASvg):
            raise
        raise NotASvg(_("The drawing is damaged.")) from error
    size = _size(cleaner.top)
    text = "".join(cleaner.out)
    if "viewBox" not in cleaner.top:
        text = text.replace("<svg", f'<svg viewBox="0 0 {size[0]:g} {size[1]:g}"', 1)
    return CleanSvg(text.encode("utf-8", "replace"), size, cleaner.dropped)


def _size(top: dict[str, str]) -> tuple[float, float]:
    """In pixels, by its own measure or that of its viewBox."""
    try:
        view = [float(part) for part in re.split(r"[\s,]+", top.get("viewBox", "").strip())]
    except ValueError:
        view = []
    found = []
    for key, k in (("width", 2), ("height", 3)):
        match = LENGTH.match(top.get(key, ""))
        value = float(match[1]) * PIXELS.get(match[2].lower(), 0.0) if match is not None else 0.0
        if value <= 0 and len(view) == 4:
            value = view[k]
        found.append(value if 0 < value < 1e6 else 0.0)
    if not all(found):
        found = [view[2], view[3]] if len(view) == 4 and 0 < view[2] < 1e6 and 0 < view[3] < 1e6 else [300.0, 300.0]
    return (found[0], found[1])


def clean_plain(data: bytes) -> list[object]:
    """`clean_svg` in plain values, as they pass between processes: bytes, size, whether anything was left out."""
    clean = clean_svg(data)
    return [clean.data, list(clean.size), clean.dropped]
