"""Mathematics within a line of words: set in type, standing on the line's own baseline, one character to the document."""

from __future__ import annotations

from PyQt6.QtCore import QObject, QPointF, QRectF, QSizeF
from PyQt6.QtGui import QFontMetrics, QPainter, QTextCharFormat, QTextDocument, QTextFormat, QTextObjectInterface

from larch.board.typeset.boxes import Setting, paint_setting
from larch.board.typeset.mathset import set_row
from larch.core.base.memo import cache_in_thread
from larch.core.base.signs import Signs, signs_in_use
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.rows import Sign

OBJECT = "\ufffc"  # stands for mathematics in a document
MATHS = QTextFormat.ObjectTypes.UserObject.value + 1
SOURCE = 0x100004  # user properties of a character format: what was written, pixels to the em, and how much shorter the
EM = 0x100005  # lines are than the font asks for
SHORTENED = 0x100006
AIR = 0.08  # em at each side
LEAD = 0.07  # em above and below
GROWN = 1.06  # STIX beside Andika: its small letters are smaller


def as_maths(look: QTextCharFormat, source: str, size: float, shortened: float) -> QTextCharFormat:
    """The format of words of a size, as that of mathematics among them. shortened: of the lines' own height, in parts."""
    made = QTextCharFormat(look)
    made.setObjectType(MATHS)
    made.setProperty(SOURCE, source)
    made.setProperty(EM, size * GROWN)
    made.setProperty(SHORTENED, shortened)
    made.setVerticalAlignment(QTextCharFormat.VerticalAlignment.AlignMiddle)
    return made


def is_maths(look: QTextFormat) -> bool:
    return look.objectType() == MATHS


def source_in(look: QTextFormat) -> str:
    return str(look.property(SOURCE) or "")


def _setting(source: str) -> Setting:
    return _set(source, signs_in_use())


@cache_in_thread
def _set(source: str, _signs: Signs) -> Setting:
    row = look(source)
    return set_row(row or (Sign(" "),))


class _Maths(QObject, QTextObjectInterface):
    """Qt makes room for an object as if its middle stood a quarter of the letters' height above the baseline, so what it
    is told of reaches as far below that as above it; it is painted in the middle of the line."""

    def intrinsicSize(self, document: QTextDocument | None, position: int, look: QTextFormat) -> QSizeF:
        made = _setting(source_in(look))
        em, shortened = _sizes(look)
        middle = _middle(look)
        half = max(max(made.above, 0.7) * em - middle, max(made.below, 0.1) * em + middle) + LEAD * em
        return QSizeF((made.width + 2 * AIR) * em, 2 * half / min(1.0, shortened))

    def drawObject(
        self, painter: QPainter | None, rect: QRectF, document: QTextDocument | None, position: int, look: QTextFormat
    ) -> None:
        if painter is None or document is None:
            return
        em, _shortened = _sizes(look)
        block = document.findBlock(position)
        layout = block.layout()
        line = layout.lineForTextPosition(position - block.position()) if layout is not None else None
        lower = (line.ascent() - line.descent()) / 2 if line is not None and line.isValid() else _middle(look)
        baseline = rect.center().y() + lower
        colour = look.toCharFormat().foreground().color()
        paint_setting(painter, _setting(source_in(look)), QPointF(rect.x() + AIR * em, baseline), em, colour)


def _sizes(look: QTextFormat) -> tuple[float, float]:
    return float(look.property(EM) or 40.0), float(look.property(SHORTENED) or 1.0)


def _middle(look: QTextFormat) -> float:
    return QFontMetrics(look.toCharFormat().font()).xHeight() / 4


def knows_maths(document: QTextDocument) -> None:
    """Has a document show mathematics."""
    layout = document.documentLayout()
    if layout is not None:
        layout.registerHandler(MATHS, _Maths(document))
