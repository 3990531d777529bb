"""Rich text from other programs, cleaned: words, bold, italic, underlined, raised, lists. Everything else is left behind."""

from __future__ import annotations

from html.parser import HTMLParser

from larch.core.things.words.rich import LONGEST, Paragraph, Run, tidy_paragraphs, tidy_runs

LONGEST_SOURCE = 2_000_000  # characters that are looked at
BLOCKS = {"p", "div", "li", "h1", "h2", "h3", "h4", "h5", "h6", "tr", "ul", "ol", "table", "blockquote", "section", "pre"}
SILENT = {"script", "style", "head", "title", "template", "noscript"}
STYLES: dict[str, dict[str, object]] = {
    "b": {"bold": True}, "strong": {"bold": True}, "h1": {"bold": True}, "h2": {"bold": True}, "h3": {"bold": True},
    "i": {"italic": True}, "em": {"italic": True}, "u": {"underline": True}, "sup": {"rise": "super"},
    "sub": {"rise": "sub"},
}  # fmt: skip


class _Reader(HTMLParser):
    def __init__(self) -> None:
        super().__init__(convert_charrefs=True)
        self.text: list[str] = []
        self.length = 0
        self.runs: list[Run] = []
        self.paragraphs: list[Paragraph] = []
        self._open: list[tuple[str, dict[str, object]]] = []
        self._lists: list[str] = []
        self._silent = 0
        self._here = Paragraph()
        self._begun = False

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        if tag in SILENT:
            self._silent += 1
        elif tag == "br":
            self._say("\n")
        elif tag in BLOCKS:
            self._end_paragraph()
            if tag in ("ul", "ol"):
                self._lists.append("dots" if tag == "ul" else "numbers")
            if tag == "li":
                self._here = Paragraph(list=self._lists[-1] if self._lists else "dots")
        if tag in STYLES or tag == "span":
            self._open.append((tag, STYLES.get(tag, {}) | _from_style(dict(attrs).get("style") or "")))
            del self._open[:-200]

    def handle_endtag(self, tag: str) -> None:
        if tag in SILENT:
            self._silent = max(0, self._silent - 1)
        if tag in BLOCKS:
            self._end_paragraph()
            if tag in ("ul", "ol") and self._lists:
                self._lists.pop()
            self._here = Paragraph()
        for i in range(len(self._open) - 1, -1, -1):
            if self._open[i][0] == tag:
                del self._open[i]
                break

    def handle_data(self, data: str) -> None:
        if self._silent:
            return
        words = " ".join(data.split())
        if not words:
            words = " " if data and self._begun else ""
        else:
            words = (" " if data[0].isspace() and self._begun else "") + words + (" " if data[-1].isspace() else "")
        if words:
            self._say(words)

    def _say(self, words: str) -> None:
        words = words[: LONGEST - self.length]
        if not words:
            return
        style: dict[str, object] = {}
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
    reader.feed(source[:LONGEST_SOURCE])
    reader.close()
    reader.paragraphs.append(reader._here)
    text = "".join(reader.text)
    kept = text.rstrip()
    return kept, tidy_runs(reader.runs, len(kept)), tidy_paragraphs(reader.paragraphs, kept.count("\n") + 1)
