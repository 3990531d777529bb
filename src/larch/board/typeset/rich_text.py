"""Styled words as a QTextDocument, for painting and for typing, and back again."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import (
    QFont,
    QFontDatabase,
    QFontMetricsF,
    QPainter,
    QTextBlock,
    QTextBlockFormat,
    QTextCharFormat,
    QTextCursor,
    QTextDocument,
    QTextListFormat,
)

from larch.board.look import load_fonts, page_font, text_colour
from larch.board.typeset.inline_maths import OBJECT, as_maths, is_maths, knows_maths, source_in
from larch.core.base.memo import cache_in_thread
from larch.core.things.words.rich import LINE, LONGEST, Lettered, Paragraph, Run, spread, tidy_paragraphs, tidy_runs
from larch.core.things.words.telling import BRACES

ALIGNMENTS = {
    "": Qt.AlignmentFlag.AlignLeading,
    "centre": Qt.AlignmentFlag.AlignHCenter,
    "right": Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignAbsolute,
}
LIST_STYLES = {"dots": QTextListFormat.Style.ListDisc, "numbers": QTextListFormat.Style.ListDecimal}
RISES = {
    "super": QTextCharFormat.VerticalAlignment.AlignSuperScript,
    "sub": QTextCharFormat.VerticalAlignment.AlignSubScript,
}
INDENT = 1.3  # of a list, in type sizes
HUE = 0x100001  # user properties of a character format: the hue, size and family that were chosen, if any
SIZE = 0x100002
FAMILY = 0x100003
PROPORTIONAL = 1  # QTextBlockFormat.LineHeightTypes.ProportionalHeight, which is wanted as a number


@cache_in_thread
def has_font(family: str) -> bool:
    load_fonts()
    return family in QFontDatabase.families()


@cache_in_thread
def letter_font(family: str, size: float, bold: bool, italic: bool) -> QFont:
    """A font of the page; Larch's own where the family is not on this machine."""
    font = QFont(page_font(size, bold))
    if family and has_font(family):
        font.setFamily(family)
    font.setItalic(italic)
    return font


def char_format(thing: Lettered, run: Run) -> QTextCharFormat:
    """How a run of a text looks."""
    made = QTextCharFormat()
    made.setFont(letter_font(run.font or thing.font, run.size or thing.size, thing.bold or run.bold, run.italic))
    made.setFontUnderline(run.underline)
    made.setForeground(text_colour(run.hue or thing.letter_hue()))
    if run.rise in RISES:
        made.setVerticalAlignment(RISES[run.rise])
    for key, value in ((HUE, run.hue), (SIZE, run.size), (FAMILY, run.font)):
        if value:
            made.setProperty(key, value)
    return made


def maths_format(thing: Lettered, run: Run, source: str) -> QTextCharFormat:
    """How mathematics among the words of a thing looks."""
    return as_maths(char_format(thing, run), source, run.size or thing.size, line_height(thing) / 100)


def format_like(thing: Lettered, run: Run, before: QTextCharFormat) -> QTextCharFormat:
    """How a run looks in the place of another: what was mathematics stays it."""
    return maths_format(thing, run, source_in(before)) if is_maths(before) else char_format(thing, run)


def document_of(thing: Lettered, width: float | None = None) -> QTextDocument:
    """The words of a thing, wrapped at `width` (its own if None, 0 for not at all). Page units."""
    document = QTextDocument()
    document.setUndoRedoEnabled(False)
    document.setDocumentMargin(0)
    document.setDefaultFont(letter_font(thing.font, thing.size, thing.bold, False))
    document.setIndentWidth(thing.size * INDENT)
    if any(run.maths for run in thing.runs):
        knows_maths(document)
    _fill(QTextCursor(document), _told(thing))
    set_width(document, thing.width if width is None else width)
    return document


def _told(thing: Lettered) -> Lettered:
    """With what the braces tell in their place, in the letters of the first brace."""
    found = list(BRACES.finditer(thing.text))
    if not found or len(found) != len(thing.told):
        return thing
    single = spread(thing.runs, len(thing.text))
    text, runs, at = "", [], 0
    for brace, words in zip(found, thing.told, strict=True):
        text += thing.text[at : brace.start()] + words
        runs += [*single[at : brace.start()], single[brace.start()].replace(count=len(words))]
        at = brace.end()
    text, runs = text + thing.text[at:], [*runs, *single[at:]]
    told: Lettered = thing.replace(text=text, runs=tidy_runs(runs, len(text)), told=())
    return told


def set_width(document: QTextDocument, width: float) -> None:
    """Wraps at a width; without one, the lines are as long as they are, and aligned among themselves."""
    document.setTextWidth(width if width > 0 else -1)
    if width <= 0:
        document.setTextWidth(document.idealWidth() + 0.5)


def _fill(cursor: QTextCursor, thing: Lettered) -> None:
    """Types the words of a thing at a cursor."""
    plain = char_format(thing, Run(1))
    cursor.setBlockCharFormat(plain)
    cursor.setCharFormat(plain)
    pieces = _pieces(thing)
    for number, line in enumerate(thing.text.split("\n")):
        if number:
            cursor.insertBlock()
        paragraph = thing.paragraphs[number] if number < len(thing.paragraphs) else Paragraph()
        lay_out(cursor, thing, paragraph)
        left = len(line)
        while left > 0:
            run, count = pieces[-1] if pieces else (Run(1), left)
            taken = min(left, count)
            start = len(line) - left
            part = line[start : start + taken]
            if run.maths and part.strip():
                cursor.insertText(OBJECT, maths_format(thing, run, part))
            else:
                cursor.insertText(part, char_format(thing, run))
            left -= taken
            _use(pieces, taken)
        _use(pieces, 1)  # the line break


def _pieces(thing: Lettered) -> list[tuple[Run, int]]:
    """Runs still to be used, the next one last."""
    return [(run, run.count) for run in reversed(thing.runs)]


def _use(pieces: list[tuple[Run, int]], count: int) -> None:
    while pieces and count > 0:
        run, left = pieces.pop()
        if left > count:
            pieces.append((run, left - count))
            return
        count -= left


def lay_out(cursor: QTextCursor, thing: Lettered, paragraph: Paragraph) -> None:
    """Gives the cursor's paragraph its line height, alignment and list."""
    block = QTextBlockFormat()
    block.setLineHeight(line_height(thing), PROPORTIONAL)
    block.setAlignment(ALIGNMENTS.get(paragraph.align, ALIGNMENTS[""]))
    inside = cursor.currentList()
    if inside is not None and paragraph.list not in LIST_STYLES:
        inside.remove(cursor.block())
    cursor.setBlockFormat(block)
    if paragraph.list in LIST_STYLES:
        style = LIST_STYLES[paragraph.list]
        before = cursor.block().previous().textList() if cursor.block().previous().isValid() else None
        if before is not None and before.format().style() == style:
            before.add(cursor.block())
        else:
            made = QTextListFormat()
            made.setStyle(style)
            made.setIndent(1)
            cursor.createList(made)


def line_height(thing: Lettered) -> float:
    """In percent of what the font asks for, so that lines stand LINE type sizes apart."""
    natural = QFontMetricsF(letter_font(thing.font, thing.size, thing.bold, False)).height()
    return 100.0 * LINE * thing.size / natural if natural > 0 else 100.0


def rise_of(thing: Lettered) -> float:
    """How far up the document is shifted: Qt takes what a line is shortened by from below it alone."""
    natural = QFontMetricsF(letter_font(thing.font, thing.size, thing.bold, False)).height()
    return max(0.0, (natural - LINE * thing.size) / 2)


def paint_document(painter: QPainter, document: QTextDocument, at: QPointF) -> None:
    painter.save()
    painter.translate(at)
    document.drawContents(painter)
    painter.restore()


def read_document(document: QTextDocument, thing: Lettered) -> Lettered:
    """The thing with the words and styles of a document that was made of it and typed in since."""
    lines: list[str] = []
    runs: list[Run] = []
    paragraphs: list[Paragraph] = []
    block = document.begin()
    while block.isValid():
        words, styles = _block_runs(block, thing)
        lines.append(words)
        runs += styles
        runs.append(runs[-1].replace(count=1, maths=False) if runs else Run(1))
        for _extra in range(block.text().count("\u2028") + 1):
            paragraphs.append(paragraph_of(block))
        block = block.next()
    text = "\n".join(lines)[:LONGEST].rstrip("\n")
    kept: Lettered = thing.replace(
        text=text, runs=tidy_runs(runs, len(text)), paragraphs=tidy_paragraphs(paragraphs, text.count("\n") + 1)
    )
    return kept


def _block_runs(block: QTextBlock, thing: Lettered) -> tuple[str, list[Run]]:
    """The words of a paragraph, mathematics as it was written, and how they look."""
    text = ""
    found: list[Run] = []
    walk = block.begin()
    while not walk.atEnd():
        fragment = walk.fragment()
        look = fragment.charFormat()
        words = fragment.text().replace("\u2028", "\n").replace("\u00a0", " ")
        if is_maths(look):
            for _each in words:
                if found and found[-1].maths:  # two side by side would become one
                    text += " "
                    found.append(run_of(look, thing, 1).replace(maths=False))
                text += source_in(look)
                found.append(run_of(look, thing, len(source_in(look))))
        elif fragment.isValid() and words:
            text += words
            found.append(run_of(look, thing, len(words)))
        walk += 1
    return text, found


def run_of(look: QTextCharFormat, thing: Lettered, count: int) -> Run:
    """What a character format says, as a run."""
    rise = next((name for name, value in RISES.items() if look.verticalAlignment() == value), "")
    size = float(look.property(SIZE) or 0.0)
    return Run(
        count,
        bold=look.font().bold() and not thing.bold,
        italic=look.fontItalic(),
        underline=look.fontUnderline(),
        hue=str(look.property(HUE) or ""),
        size=size if 1 <= size <= 2000 else 0.0,
        rise=rise,
        font=str(look.property(FAMILY) or ""),
        maths=is_maths(look),
    )


def paragraph_of(block: QTextBlock) -> Paragraph:
    """How a block stands, as a paragraph."""
    align = next((name for name, flag in ALIGNMENTS.items() if block.blockFormat().alignment() == flag), "")
    inside = block.textList()
    style = inside.format().style() if inside is not None else None
    return Paragraph(align, next((name for name, known in LIST_STYLES.items() if known == style), ""))
