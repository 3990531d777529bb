"""A page as SVG 1.1 with CSS blending: clips nested, words as outlines with their text beside them, or as text."""

from __future__ import annotations

import base64
from collections.abc import Sequence
from html import escape

from PyQt6.QtCore import QBuffer, QIODevice, QRectF, Qt
from PyQt6.QtGui import QColor, QImage

from larch.board.look import ASSETS
from larch.board.vector.engine import Command, State, Stroke, Words

CAPS = {Qt.PenCapStyle.FlatCap: "butt", Qt.PenCapStyle.RoundCap: "round", Qt.PenCapStyle.SquareCap: "square"}
JOINS = {Qt.PenJoinStyle.BevelJoin: "bevel", Qt.PenJoinStyle.RoundJoin: "round"}
FONTS = ("outlined", "embedded", "named")
SHIPPED = {
    ("Andika", False): "Andika-Regular", ("Andika", True): "Andika-Bold", ("STIX Two Math", False): "STIXTwoMath-Regular",
    ("Atkinson Hyperlegible Next", False): "AtkinsonHyperlegibleNext-Regular",
    ("Atkinson Hyperlegible Next", True): "AtkinsonHyperlegibleNext-SemiBold",
}  # fmt: skip
UNSEEN = ' fill-opacity="0"'
FALLBACK = {"STIX Two Math": "'STIX Two Math', 'Cambria Math', 'Latin Modern Math', serif"}


def number(value: float) -> str:
    text = f"{value:.3f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def data(commands: Sequence[Command]) -> str:
    return "".join(name + " ".join(map(number, numbers)) for name, *numbers in commands)


class SvgSink:
    """fonts: "outlined" (words are paths, with unseen text over them), "embedded" (text, its fonts inside the file) or
    "named" (text, by the names of fonts)."""

    def __init__(self, fonts: str = "outlined") -> None:
        self.fonts = fonts
        self.outlined = fonts == "outlined"
        self.parts: list[str] = []
        self.defs: list[str] = []
        self._clips: dict[tuple[object, ...], str] = {}
        self._used: set[tuple[str, bool]] = set()
        self._open: State | None = None

    def _enter(self, state: State) -> None:
        """Opens a group for a state, unless it is open."""
        if state == self._open:
            return
        self._leave()
        clip = f' clip-path="url(#{self._clip(state)})"' if state.clip is not None else ""
        blend = f' style="mix-blend-mode:{state.blend}"' if state.blend else ""
        faint = f' opacity="{number(state.opacity)}"' if state.opacity < 1 else ""
        matrix = " ".join(map(number6, state.matrix))
        turn = f'<g transform="matrix({matrix})">'
        self.parts.append(f"<g{clip}{blend}{faint}>{turn}")
        self._open = state

    def _leave(self) -> None:
        if self._open is not None:
            self.parts.append("</g></g>")
            self._open = None

    def _clip(self, state: State) -> str:
        key = (state.clip, state.clip_even_odd)
        if key not in self._clips:
            self._clips[key] = f"c{len(self._clips) + 1}"
            rule = ' clip-rule="evenodd"' if state.clip_even_odd else ""
            self.defs.append(f'<clipPath id="{self._clips[key]}"><path d="{data(state.clip or ())}"{rule}/></clipPath>')
        return self._clips[key]

    def path(
        self, state: State, commands: Sequence[Command], even_odd: bool, fill: QColor | None, stroke: Stroke | None
    ) -> None:
        self._enter(state)
        rule = ' fill-rule="evenodd"' if even_odd and fill is not None else ""
        self.parts.append(f'<path d="{data(commands)}"{_fill(fill)}{rule}{_stroke(stroke, state) if stroke else ""}/>')

    def image(self, state: State, rect: QRectF, image: QImage) -> None:
        self._enter(state)
        buffer = QBuffer()
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        image.save(buffer, "PNG")
        source = base64.b64encode(bytes(buffer.data().data())).decode()
        place = (
            f'x="{number(rect.x())}" y="{number(rect.y())}" width="{number(rect.width())}" height="{number(rect.height())}"'
        )
        self.parts.append(f'<image {place} preserveAspectRatio="none" href="data:image/png;base64,{source}"/>')

    def words(self, state: State, words: Words) -> None:
        self._enter(state)
        self.parts.append(self._text(words, _fill(words.colour)))

    def _text(self, words: Words, looks: str) -> str:
        font = words.font
        family = font.family() if font is not None else "Andika"
        bold = font is not None and font.weight() > 500
        self._used.add((family, bold))
        style = f' font-weight="{"bold" if bold else "normal"}"' + (' font-style="italic"' if font and font.italic() else "")
        named = FALLBACK.get(family, f"'{family}', Andika, 'Noto Sans', sans-serif")
        width = f' textLength="{number(words.width)}" lengthAdjust="spacingAndGlyphs"' if words.width > 0 else ""
        place = f'x="{number(words.x)}" y="{number(words.y)}" font-size="{number(words.size)}"{style}{width}'
        shown = escape(_sound(words.text))
        return f'<text {place} font-family="{escape(named)}"{looks} xml:space="preserve">{shown}</text>'

    def open_layer(self, state: State) -> None:
        self._leave()
        blend = f' style="mix-blend-mode:{state.blend}"' if state.blend else ""
        clip = f' clip-path="url(#{self._clip(state)})"' if state.clip is not None else ""
        faint = f' opacity="{number(state.opacity)}"' if state.opacity < 1 else ""
        self.parts.append(f"<g{clip}{blend}{faint}>")

    def close_layer(self) -> None:
        self._leave()
        self.parts.append("</g>")

    def written(self, width: float, height: float, title: str, language: str, read: Sequence[Words]) -> bytes:
        """The whole file. read: words that lie unseen over outlines."""
        self._leave()
        unseen = "".join(
            f'<g transform="matrix({" ".join(map(number6, words.matrix))})">{self._text(words, UNSEEN)}</g>'
            for words in read
        )
        faces = "".join(map(_face, sorted(self._used))) if self.fonts == "embedded" else ""
        style = f"<style>{faces}</style>" if faces else ""
        spoken = f' xml:lang="{escape(language)}"' if language else ""
        head = (
            f'<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" version="1.1"'
            f' width="{number(width)}" height="{number(height)}" viewBox="0 0 {number(width)} {number(height)}"{spoken}>'
        )
        body = "".join(self.parts).replace(" href=", " xlink:href=")
        return (
            f'<?xml version="1.0" encoding="UTF-8"?>\n{head}<title>{escape(title)}</title>'
            f"<defs>{''.join(self.defs)}{style}</defs>{body}{unseen}</svg>\n"
        ).encode()


def number6(value: float) -> str:
    text = f"{value:.6f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def _fill(colour: QColor | None) -> str:
    if colour is None:
        return ' fill="none"'
    faint = f' fill-opacity="{number(colour.alphaF())}"' if colour.alpha() < 255 else ""
    return f' fill="{colour.name()}"{faint}'


def _stroke(stroke: Stroke, state: State) -> str:
    wide = stroke.width
    found = (
        f' stroke="{stroke.colour.name()}" stroke-width="{number(wide)}" stroke-linecap="{CAPS.get(stroke.cap, "square")}"'
    )
    found += f' stroke-linejoin="{JOINS.get(stroke.join, "miter")}"'
    if stroke.join not in JOINS:
        found += f' stroke-miterlimit="{number(max(1.0, stroke.miter * 2))}"'
    if stroke.colour.alpha() < 255:
        found += f' stroke-opacity="{number(stroke.colour.alphaF())}"'
    if stroke.dashes:
        found += f' stroke-dasharray="{" ".join(map(number, stroke.dashes))}" stroke-dashoffset="{number(stroke.offset)}"'
    if stroke.fixed:
        found += ' vector-effect="non-scaling-stroke"'
    return found


def _face(font: tuple[str, bool]) -> str:
    """A shipped font inside the file; any other is only named."""
    name = SHIPPED.get(font)
    if name is None:
        return ""
    source = base64.b64encode((ASSETS / "fonts" / f"{name}.ttf").read_bytes()).decode()
    weight = "bold" if font[1] else "normal"
    return (
        f"@font-face{{font-family:'{font[0]}';font-weight:{weight};"
        f"src:url(data:font/ttf;base64,{source}) format('truetype');}}"
    )


def _sound(text: str) -> str:
    """Without what XML can't hold."""
    return "".join(c for c in text if c in "\t\n" or ord(c) >= 32)
