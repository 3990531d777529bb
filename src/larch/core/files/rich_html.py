"""Rich text from other programs, cleaned: words, bold, italic, underlined, raised, lists. Everything else is left behind."""

from __future__ import annotations

import re
from html import unescape

from larch.core.base.whole_text import whole
from larch.core.maths.expression import ExpressionError, reading
from larch.core.maths.layout.reading import read_any
from larch.core.things.words.rich import LONGEST, Paragraph, Run, tidy_paragraphs, tidy_runs

LONGEST_SOURCE = 2_000_000  # characters that are looked at
MOST_TAGS = 10_000
TAG = re.compile(r"(/?)([a-zA-Z][a-zA-Z0-9]{0,15})\b")
STYLE = re.compile(r"""\bstyle\s*=\s*("([^"]{0,4000})"|'([^']{0,4000})')""", re.IGNORECASE)
BLOCKS = {"p", "div", "li", "h1", "h2", "h3", "h4", "h5", "h6", "tr", "ul", "ol", "table", "blockquote", "section", "pre"}
SILENT = {"script", "style", "head", "title", "template", "noscript"}
STYLES: dict[str, dict[str, object]] = {
    "b": {"bold": True}, "strong": {"bold": True}, "h1": {"bold": True}, "h2": {"bold": True}, "h3": {"bold": True},
    "i": {"italic": True}, "em": {"italic": True}, "u": {"underline": True}, "sup": {"rise": "super"},
    "sub": {"rise": "sub"},
}  # fmt: skip


class _Reader:
    """Goes over the source once: what looks like a tag and is none is left out, whatever it is."""

    def __init__(self) -> None:
        self.text: list[str] = []
        self.length = 0
        self.runs: list[Run] = []
        self.paragraphs: list[Paragraph] = []
        self._open: list[tuple[str, dict[str, object]]] = []
        self._lists: list[str] = []
        self._here = Paragraph()
        self._begun = False

    def read(self, source: str) -> None:
        at = source.find("<")
        self._data(source if at < 0 else source[:at])
        for _n in range(MOST_TAGS):
            if at < 0 or self.length >= LONGEST:
                return
            comment = source.startswith("<!--", at)
            end = source.find("-->", at + 4) if comment else source.find(">", at + 1)
            if end < 0:  # it never ends
                return
            end = end + 2 if comment else self._tag(source, at + 1, end)
            at = source.find("<", end + 1)
            self._data(source[end + 1 :] if at < 0 else source[end + 1 : at])

    def _tag(self, source: str, at: int, end: int) -> int:
        """One tag; returns where it ends, with all that is within it where nothing of that is wanted."""
        tag = TAG.match(source, at, end)
        if tag is None:
            return end
        name = tag[2].lower()
        if tag[1]:
            self._end(name)
        elif name == "math":
            return self._maths(source, at - 1, end)
        elif name in SILENT:
            close = re.compile(f"</{name}\\b[^>]{{0,200}}>", re.IGNORECASE).search(source, end)
            return close.end() - 1 if close is not None else len(source)
        else:
            style = STYLE.search(source, tag.end(), min(end, tag.end() + 20_000))
            self._start(name, unescape(style[2] or style[3] or "") if style is not None else "")
        return end

    def _maths(self, source: str, at: int, end: int) -> int:
        """MathML becomes mathematics in the line; what can't be read, the words in it. Returns where it ends."""
        close = source.find("</math>", end)
        if close < 0:
            return end
        try:
            read = reading(read_any(source[at : close + 7]).node)
        except ExpressionError:
            return end
        self._say(read, maths=True)
        return close + 6

    def _start(self, tag: str, style: str) -> None:
        if tag == "br":
            self._say("\n")
        elif tag in BLOCKS:
            self._end_paragraph()
            if tag in ("ul", "ol"):
                self._lists.append("dots" if tag == "ul" else "numbers")
            if tag == "li":
                self._here = Paragraph(list=self._lists[-1] if self._lists else "dots")
        if tag in STYLES or tag == "span":
            self._open.append((tag, STYLES.get(tag, {}) | _from_style(style)))
            del self._open[:-200]

    def _end(self, tag: str) -> None:
        if tag in BLOCKS:
            self._end_paragraph()
            if tag in ("ul", "ol") and self._lists:
                self._lists.pop()
            self._here = Paragraph()
        for i in range(len(self._open) - 1, -1, -1):
            if self._open[i][0] == tag:
                del self._open[i]
                break

    def _data(self, source: str) -> None:
        data = unescape(source[: 8 * LONGEST])
        words = " ".join(data.split())
        if not words:
            words = " " if data and self._begun else ""
        else:
            words = (" " if data[0].isspace() and self._begun else "") + words + (" " if data[-1].isspace() else "")
        if words:
            self._say(words)

    def _say(self, words: str, maths: bool = False) -> None:
        words = words[: LONGEST - self.length]
        if not words:
            return
        style: dict[str, object] = {"maths": maths}
        for _tag, changes in self._open:
            style |= changes
        self.text.append(words)
        self.length += len(words)
        self.runs.append(Run(len(words)).replace(**style))
        if words == "\n":
            self.paragraphs.append(self._here)
        self._begun = words != "\n"

    def _end_paragraph(self) -> None:
        if self._begun:
            self._say("\n")


def _from_style(style: str) -> dict[str, object]:
    found: dict[str, object] = {}
    for part in style.lower().split(";")[:60]:
        name, _colon, value = part.partition(":")
        name, value = name.strip(), value.strip()
        if name == "font-weight":
            found["bold"] = value in ("bold", "bolder", "600", "700", "800", "900")
        elif name == "font-style":
            found["italic"] = value in ("italic", "oblique")
        elif name.startswith("text-decoration") and "underline" in value:
            found["underline"] = True
        elif name == "vertical-align" and value in ("super", "sub"):
            found["rise"] = value
    return found


def read_html(source: str) -> tuple[str, tuple[Run, ...], tuple[Paragraph, ...]]:
    """Text with its runs and paragraphs. Never fails: what can't be understood is left out."""
    reader = _Reader()
    reader.read(whole(source[:LONGEST_SOURCE]))
    reader.paragraphs.append(reader._here)
    text = "".join(reader.text)
    kept = text.rstrip()
    return kept, tidy_runs(reader.runs, len(kept)), tidy_paragraphs(reader.paragraphs, kept.count("\n") + 1)
