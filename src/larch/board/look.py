"""Fonts, colours and icons for painting."""

from __future__ import annotations

from functools import cache
from pathlib import Path

from PyQt6.QtCore import QByteArray, QRectF, Qt
from PyQt6.QtGui import QColor, QFont, QFontDatabase, QIcon, QImage, QPainter, QPixmap

from larch.core import hues

ASSETS = Path(__file__).parent.parent / "assets"
PAPER = QColor(hues.PAPER)
STONE = QColor(hues.STONE)
NEEDLE = QColor(hues.NEEDLE)
SOFT = QColor(hues.NEEDLE_SOFT)
GOLD = QColor(hues.GOLD)
GOLD_TEXT = QColor(hues.GOLD_TEXT)
WRONG = QColor(hues.WRONG)
HAIRLINE = QColor("#D9D5C8")
RULING = QColor("#E7E4DA")


@cache
def load_fonts() -> bool:
    """Makes the shipped fonts known to Qt; once."""
    for name in ("Andika-Regular", "Andika-Bold", "AtkinsonHyperlegibleNext-Regular",
                 "AtkinsonHyperlegibleNext-SemiBold", "AtkinsonHyperlegibleNext-Bold"):  # fmt: skip
        QFontDatabase.addApplicationFont(str(ASSETS / "fonts" / f"{name}.ttf"))
    return True


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


def tint(hue: str, strength: float) -> QColor:
    """The hue over paper, from 0 (paper) to 1 (the hue), opaque."""
    a, b = colour(hue), PAPER
    mixed = (round(y + (x - y) * strength) for x, y in zip(a.getRgb()[:3], b.getRgb()[:3], strict=True))
    return QColor(*mixed)


@cache
def icon(name: str, shade: str = hues.NEEDLE, faded: str = "#A9AFA8") -> QIcon:
    """One of the shipped line icons, in one colour; faded where disabled."""
    made = QIcon()
    for pixels in (20, 24, 28, 40, 56):
        made.addPixmap(icon_pixmap(name, pixels, shade))
        made.addPixmap(icon_pixmap(name, pixels, faded), QIcon.Mode.Disabled)
    return made


def icon_pixmap(name: str, pixels: int, shade: str) -> QPixmap:
    from PyQt6.QtSvg import QSvgRenderer

    source = (ASSETS / "icons" / f"{name}.svg").read_text().replace("currentColor", shade)
    image = QImage(pixels, pixels, QImage.Format.Format_ARGB32_Premultiplied)
    image.fill(Qt.GlobalColor.transparent)
    painter = QPainter(image)
    QSvgRenderer(QByteArray(source.encode())).render(painter, QRectF(0, 0, pixels, pixels))
    painter.end()
    return QPixmap.fromImage(image)
