"""Mathematics on the clipboard: as LaTeX for text and as MathML going out; LaTeX, MathML or plain text coming in."""

from __future__ import annotations

from PyQt6.QtCore import QMimeData

from larch.core.maths.expression import ExpressionError
from larch.core.maths.layout.latex import latex
from larch.core.maths.layout.mathml import mathml_of_row
from larch.core.maths.layout.reading import look, read_any
from larch.core.maths.layout.rows import Row

MARKUP = "application/mathml+xml"


def copied_row(row: Row) -> QMimeData:
    data = QMimeData()
    data.setText(latex(row))
    data.setData(MARKUP, mathml_of_row(row).encode())
    return data


def pasted_row(data: QMimeData, most: int) -> tuple[Row, str]:
    """What came in, of at most so many characters; and why it can't be read, where it claims to be mathematics."""
    text = bytes(data.data(MARKUP).data()).decode("utf-8", "replace") if data.hasFormat(MARKUP) else data.text()
    text = text.strip()[:most]
    if not text:
        return (), ""
    trouble = ""
    try:
        read_any(text)
    except ExpressionError as error:
        trouble = error.message if "\\" in text or "<" in text[:1] else ""
    return look(text), trouble
