"""Mathematics among words while they are typed: made of words and made words again, and what is copied of both."""

from __future__ import annotations

from html import escape

from PyQt6.QtCore import QMimeData
from PyQt6.QtGui import QTextCursor

from larch.board.typeset.inline_maths import OBJECT, source_in
from larch.board.typeset.rich_text import char_format, maths_format, run_of
from larch.core.maths.expression import ExpressionError
from larch.core.maths.layout.mathml import mathml_of_row
from larch.core.maths.layout.reading import look
from larch.core.things.words.rich import Lettered

BREAKS = "\u2029\u2028"
FROM_TO = QTextCursor.MoveMode.KeepAnchor


def turned(cursor: QTextCursor, thing: Lettered) -> QTextCursor | None:
    """A cursor after mathematics was made of what is selected or stands before it, or words of mathematics; None where
    there is nothing to make it of."""
    part = QTextCursor(cursor)
    if not part.hasSelection():
        _select_before(part)
    if not part.hasSelection() or not part.selectedText().strip():
        return None
    start, words = part.selectionStart(), part.selectedText()
    first = QTextCursor(part)
    first.setPosition(start + 1)
    run = run_of(first.charFormat(), thing, 1).replace(maths=False)
    part.beginEditBlock()
    if OBJECT in words:
        text = "".join(_sources(part))
        part.insertText(text.replace("\u2029", "\n"), char_format(thing, run))
    else:
        lead = words[: len(words) - len(words.lstrip())]
        tail = words[len(words.rstrip()) :]
        part.insertText(lead, char_format(thing, run))
        for k, line in enumerate(words.strip().replace("\u2028", "\u2029").split("\u2029")):
            if k:
                part.insertBlock()
            if line.strip():
                part.insertText(OBJECT, maths_format(thing, run, line.strip()))
        part.insertText(tail, char_format(thing, run))
    part.endEditBlock()
    part.setCharFormat(char_format(thing, run))
    return part


def _select_before(cursor: QTextCursor) -> None:
    """The mathematics just before a cursor, or the characters back to a space."""
    block = cursor.block()
    end = cursor.position()
    if block.text()[: end - block.position()].endswith(OBJECT):
        cursor.setPosition(end - 1)
        cursor.setPosition(end, FROM_TO)
        return
    before = block.text()[: end - block.position()]
    word = before[max(before.rfind(" "), before.rfind(OBJECT), before.rfind("\u2028"), before.rfind("\u00a0")) + 1 :]
    cursor.setPosition(end - len(word))
    cursor.setPosition(end, FROM_TO)


def _sources(cursor: QTextCursor) -> list[str]:
    """The characters of a selection, mathematics as it was written."""
    found = []
    for position in range(cursor.selectionStart(), cursor.selectionEnd()):
        one = QTextCursor(cursor)
        one.setPosition(position)
        one.setPosition(position + 1, FROM_TO)
        found.append(source_in(one.charFormat()) if one.selectedText() == OBJECT else one.selectedText())
    return found


def copied(cursor: QTextCursor) -> QMimeData:
    """What is selected, for the clipboard: words, and where there is mathematics among them, MathML for whoever reads it."""
    data = QMimeData()
    words = cursor.selectedText()
    if OBJECT not in words:
        data.setText(words.replace("\u2029", "\n").replace("\u2028", "\n"))
        return data
    text, html = "", "<p>"
    for character, source in zip(words, _sources(cursor), strict=True):
        if character == OBJECT:
            text += source
            html += _mathml(source)
        elif character in BREAKS:
            text, html = text + "\n", html + "</p><p>"
        else:
            text, html = text + character, html + escape(character)
    data.setText(text)
    data.setHtml(html + "</p>")
    return data


def _mathml(source: str) -> str:
    try:
        return mathml_of_row(look(source))
    except ExpressionError:
        return escape(source)
