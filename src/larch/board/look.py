"""Fonts, colours and icons for painting."""

from __future__ import annotations

from functools import cache
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QByteArray, QPoint, QRect, QRectF, QSize, Qt
from PyQt6.QtGui import QColor, QFont, QFontDatabase, QIcon, QIconEngine, QPainter, QPixmap

from larch.core.base import hues
from larch.core.base.memo import cache_in_thread

if TYPE_CHECKING:
    from PyQt6.QtSvg import QSvgRenderer

ASSETS = Path(__file__).parent.parent / "assets"
PAPER = QColor(hues.PAPER)
STONE = QColor(hues.STONE)
NEEDLE = QColor(hues.NEEDLE)
SOFT = QColor(hues.NEEDLE_SOFT)
GOLD = QColor(hues.GOLD)
GOLD_TEXT = QColor(hues.GOLD_TEXT)
WRONG = QColor(hues.WRONG)
RIGHT = QColor(hues.RIGHT)
HAIRLINE = QColor("#D9D5C8")
RULING = QColor("#E7E4DA")


@cache
def load_fonts() -> bool:
    """Makes the shipped fonts known to Qt; once."""
    for name in ("Andika-Regular", "Andika-Bold", "AtkinsonHyperlegibleNext-Regular",
                 "AtkinsonHyperlegibleNext-SemiBold", "AtkinsonHyperlegibleNext-Bold",
                 "STIXTwoMath-Regular"):  # fmt: skip
        QFontDatabase.addApplicationFont(str(ASSETS / "fonts" / f"{name}.ttf"))
    return True


@cache_in_thread
def page_font(size: float, bold: bool = False) -> QFont:
    """Andika, for text on the page; size in page units."""
    load_fonts()
    font = QFont("Andika")
    font.setPixelSize(max(1, round(size)))
    font.setBold(bold)
    font.setFeature(QFont.Tag("liga"), 0)  # a ligature would come out of a PDF as no letter at all
    font.setHintingPreference(QFont.HintingPreference.PreferNoHinting)
    return font


def interface_font(size: int = 15, bold: bool = False) -> QFont:
    """Atkinson Hyperlegible Next, for the interface; size in pixels."""
    load_fonts()
    font = QFont("Atkinson Hyperlegible Next")
    font.setPixelSize(size)
    if bold:
        font.setWeight(QFont.Weight.DemiBold)
    return font


@cache
def colour(hue: str) -> QColor:
    return QColor(hues.hex_of(hue))


@cache
def text_colour(hue: str) -> QColor:
    """The colour of words of a hue: deep enough to be read on paper (WCAG 2.2, 4.5 : 1), where the hue itself is pale."""
    return QColor(hues.readable(hue))


@cache
def tint(hue: str, strength: float) -> QColor:
    """The hue over paper, from 0 (paper) to 1 (the hue), opaque."""
    a, b = colour(hue), PAPER
    mixed = (round(y + (x - y) * strength) for x, y in zip(a.getRgb()[:3], b.getRgb()[:3], strict=True))
    return QColor(*mixed)


class _LineIcon(QIconEngine):
    """A shipped line icon, drawn when and at the size it is needed: most of a program's icons are never seen."""

    def __init__(self, name: str, shade: str, faded: str) -> None:
        super().__init__()
        self.name, self.shade, self.faded = name, shade, faded

    def paint(self, painter: QPainter | None, rect: QRect, mode: QIcon.Mode, state: QIcon.State) -> None:
        assert painter is not None
        shade = self.faded or ink["faded"] if mode == QIcon.Mode.Disabled else self.shade or ink["shade"]
        _drawing(self.name, shade).render(painter, QRectF(rect))

    def pixmap(self, size: QSize, mode: QIcon.Mode, state: QIcon.State) -> QPixmap:
        made = QPixmap(size)
        made.fill(Qt.GlobalColor.transparent)
        painter = QPainter(made)
        self.paint(painter, QRect(QPoint(0, 0), size), mode, state)
        painter.end()
        return made

    def clone(self) -> QIconEngine:
        return _LineIcon(self.name, self.shade, self.faded)


@cache
def _drawing(name: str, shade: str) -> QSvgRenderer:
    from PyQt6.QtSvg import QSvgRenderer

    source = (ASSETS / "icons" / f"{name}.svg").read_text().replace("currentColor", shade)
    return QSvgRenderer(QByteArray(source.encode()))


ink = {"shade": hues.NEEDLE, "faded": "#8A948E"}  # of icons that are given none of their own; a theme changes it


@cache
def icon(name: str, shade: str = "", faded: str = "") -> QIcon:
    """One of the shipped line icons, in one colour or that of the interface; faded where disabled. "hue lake" is a round of
    that colour."""
    if name.startswith("hue "):
        return hue_icon(name.removeprefix("hue "))
    return QIcon(_LineIcon(name, shade, faded))


@cache
def hue_icon(hue: str) -> QIcon:
    """A round of a colour, for menus and lists that name it as well."""
    picture = QPixmap(22, 22)
    picture.fill(Qt.GlobalColor.transparent)
    painter = QPainter(picture)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.setPen(Qt.PenStyle.NoPen)
    painter.setBrush(colour(hue))
    painter.drawEllipse(2, 2, 18, 18)
    painter.end()
    return QIcon(picture)
