"""Pages as PDF 1.7: drawings as paths, and over them, unseen and in reading order, the words as they are written.

Words are painted as outlines, so every script and every sign looks as on the page; they are read, searched and copied from a
layer of empty glyphs (a Type 3 font) whose ToUnicode map is exact. Each thing's words are a tagged paragraph (ISO 32000-1,
14.8).
"""

from __future__ import annotations

import unicodedata
import zlib
from collections.abc import Sequence
from typing import BinaryIO

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QColor, QImage, QTransform

from larch.board.vector.engine import Command, Matrix, State, Stroke, Words

CAPS = {Qt.PenCapStyle.FlatCap: 0, Qt.PenCapStyle.RoundCap: 1, Qt.PenCapStyle.SquareCap: 2}
JOINS = {Qt.PenJoinStyle.RoundJoin: 1, Qt.PenJoinStyle.BevelJoin: 2}
OPS = {"M": "m", "L": "l", "C": "c", "Z": "h"}
WIDE = 0.5  # of an empty glyph, in ems
MOST_CODES = 250  # of one font of empty glyphs


def number(value: float) -> str:
    text = f"{value:.4f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def numbers(*values: float) -> str:
    return " ".join(map(number, values))


def operators(commands: Sequence[Command]) -> str:
    return " ".join(f"{numbers(*values)} {OPS[name]}".strip() for name, *values in commands)


def string(text: str) -> str:
    """A text string, as UTF-16 in hexadecimal."""
    return f"<FEFF{text.encode('utf-16-be').hex().upper()}>"


class PdfFile:
    """Objects written one after the other; the table of where they lie at the end."""

    def __init__(self, out: BinaryIO) -> None:
        self.out = out
        self.places: dict[int, int] = {}
        self.count = 0
        self._at = 0
        self._write(b"%PDF-1.7\n%\xe2\xe3\xcf\xd3\n")

    def _write(self, data: bytes) -> None:
        self.out.write(data)
        self._at += len(data)

    def reserve(self) -> int:
        self.count += 1
        return self.count

    def put(self, body: str | bytes, at: int = 0) -> int:
        """An object, with a number reserved before or a fresh one."""
        at = at or self.reserve()
        self.places[at] = self._at
        data = body.encode("latin-1") if isinstance(body, str) else body
        self._write(b"%d 0 obj\n%s\nendobj\n" % (at, data))
        return at

    def stream(self, data: bytes, entries: str = "", at: int = 0) -> int:
        packed = zlib.compress(data, 6)
        head = f"<< {entries} /Filter /FlateDecode /Length {len(packed)} >>\nstream\n".encode("latin-1")
        return self.put(head + packed + b"\nendstream", at)

    def finish(self, catalog: int, info: int) -> None:
        start = self._at
        rows = [b"0000000000 65535 f \n"]
        rows += [b"%010d 00000 n \n" % self.places[k] for k in range(1, self.count + 1)]
        self._write(b"xref\n0 %d\n" % (self.count + 1) + b"".join(rows))
        trailer = f"trailer\n<< /Size {self.count + 1} /Root {catalog} 0 R /Info {info} 0 R >>\nstartxref\n{start}\n%%EOF\n"
        self._write(trailer.encode())


class Glyphs:
    """Codes of empty glyphs for characters, in as many fonts as are needed; shared by all pages."""

    def __init__(self, file: PdfFile) -> None:
        self.file = file
        self._codes: dict[str, tuple[int, int]] = {}
        self.fonts: list[int] = []

    def runs(self, text: str) -> list[tuple[int, str]]:
        """The text as (font, codes in hexadecimal)."""
        found: list[tuple[int, str]] = []
        for character in text:
            if character not in self._codes:
                count = len(self._codes)
                if count % MOST_CODES == 0:
                    self.fonts.append(self.file.reserve())
                self._codes[character] = (len(self.fonts) - 1, count % MOST_CODES + 1)
            font, code = self._codes[character]
            if found and found[-1][0] == font:
                found[-1] = (font, found[-1][1] + f"{code:02X}")
            else:
                found.append((font, f"{code:02X}"))
        return found

    def write(self) -> None:
        empty = self.file.stream(b"500 0 0 -200 500 800 d1")  # with a box, or some readers take it for nothing
        for k, at in enumerate(self.fonts):
            own = {code: c for c, (font, code) in self._codes.items() if font == k}
            last = max(own)
            names = " ".join(f"/g{code}" for code in range(1, last + 1))
            maps = "\n".join(f"<{code:02X}> <{c.encode('utf-16-be').hex().upper()}>" for code, c in sorted(own.items()))
            blocks = [maps.split("\n")[i : i + 100] for i in range(0, len(own), 100)]
            ranges = "\n".join(f"{len(block)} beginbfchar\n" + "\n".join(block) + "\nendbfchar" for block in blocks)
            cmap = (
                "/CIDInit /ProcSet findresource begin 12 dict begin begincmap /CIDSystemInfo << /Registry (Adobe) /Ordering "
                "(UCS) /Supplement 0 >> def /CMapName /Larch def /CMapType 2 def 1 begincodespacerange <00> <FF> "
                f"endcodespacerange\n{ranges}\nendcmap CMapName currentdict /CMap defineresource pop end end"
            )
            unicode = self.file.stream(cmap.encode())
            procs = " ".join(f"/g{code} {empty} 0 R" for code in range(1, last + 1))
            widths = " ".join(["500"] * last)
            self.file.put(
                f"<< /Type /Font /Subtype /Type3 /FontBBox [0 0 500 1000] /FontMatrix [0.001 0 0 0.001 0 0]"
                f" /CharProcs << {procs} >>"
                f" /Encoding << /Type /Encoding /Differences [1 {names}] >> /FirstChar 1 /LastChar {last} /Widths [{widths}]"
                f" /Resources << >> /ToUnicode {unicode} 0 R >>",
                at,
            )


class PdfSink:
    """The content of one page. scale: points to a unit of the device; height: of the sheet in points."""

    outlined = True

    def __init__(self, file: PdfFile, glyphs: Glyphs, scale: float, height: float) -> None:
        self.file, self.glyphs = file, glyphs
        self._base: Matrix = (scale, 0.0, 0.0, -scale, 0.0, height)
        self._stack: list[list[str]] = [[]]
        self._layers: list[State] = []
        self._looks: dict[tuple[float, float, str], str] = {}
        self._objects: dict[str, int] = {}
        self._images: dict[int, str] = {}
        self._open: State | None = None

    @property
    def _out(self) -> list[str]:
        return self._stack[-1]

    def _enter(self, state: State) -> None:
        if state == self._open:
            return
        self._leave()
        self._out.append("q")
        if state.clip is not None:
            self._out.append(f"{operators(state.clip) or '0 0 m h'} {'W*' if state.clip_even_odd else 'W'} n")
        self._out.append(f"{numbers(*state.matrix)} cm")
        self._open = state

    def _leave(self) -> None:
        if self._open is not None:
            self._out.append("Q")
            self._open = None

    def _look(self, fill: float, stroke: float, blend: str) -> str:
        key = (round(fill, 4), round(stroke, 4), blend)
        return self._looks.setdefault(key, f"G{len(self._looks) + 1}")

    def path(
        self, state: State, commands: Sequence[Command], even_odd: bool, fill: QColor | None, stroke: Stroke | None
    ) -> None:
        self._enter(state)
        opaque = [c.alphaF() * state.opacity if c is not None else 1.0 for c in (fill, stroke.colour if stroke else None)]
        parts = [f"/{self._look(opaque[0], opaque[1], state.blend)} gs"]
        if fill is not None:
            parts.append(f"{_rgb(fill)} rg")
        if stroke is not None:
            parts.append(self._pen(stroke, state))
        parts.append(operators(commands))
        star = "*" if even_odd else ""
        parts.append(f"B{star}" if fill is not None and stroke is not None else f"f{star}" if fill is not None else "S")
        self._out.append(" ".join(parts))

    def _pen(self, stroke: Stroke, state: State) -> str:
        grown = abs(state.matrix[0] * state.matrix[3] - state.matrix[1] * state.matrix[2]) ** 0.5 or 1.0
        k = 1 / grown if stroke.fixed else 1.0
        dashes = " ".join(number(part * k) for part in stroke.dashes)
        return (
            f"{_rgb(stroke.colour)} RG {number(stroke.width * k)} w {CAPS.get(stroke.cap, 2)} J "
            f"{JOINS.get(stroke.join, 0)} j {number(max(1.0, stroke.miter * 2))} M [{dashes}] {number(stroke.offset * k)} d"
        )

    def image(self, state: State, rect: QRectF, image: QImage) -> None:
        self._enter(state)
        key = image.cacheKey()
        if key not in self._images:
            self._images[key] = f"I{len(self._images) + 1}"
            self._objects[self._images[key]] = _image_object(self.file, image)
        place = numbers(rect.width(), 0, 0, -rect.height(), rect.x(), rect.y() + rect.height())
        self._out.append(f"q /{self._look(state.opacity, 1.0, state.blend)} gs {place} cm /{self._images[key]} Do Q")

    def words(self, state: State, words: Words) -> None:
        """Painted as outlines; read from the layer over them."""

    def open_layer(self, state: State) -> None:
        self._leave()
        self._layers.append(state)
        self._stack.append([])

    def close_layer(self) -> None:
        self._leave()
        content, state = self._stack.pop(), self._layers.pop()
        name = f"X{len(self._objects) + 1}"
        big = "-100000 -100000 100000 100000"
        entries = f"/Type /XObject /Subtype /Form /BBox [{big}] /Group << /S /Transparency /I true >> {self._resources()}"
        self._objects[name] = self.file.stream("\n".join(content).encode("latin-1"), entries)
        clip = ""
        if state.clip is not None:
            clip = f"{operators(state.clip) or '0 0 m h'} {'W*' if state.clip_even_odd else 'W'} n "
        self._out.append(f"q {clip}/{self._look(state.opacity, state.opacity, state.blend)} gs /{name} Do Q")

    def _resources(self) -> str:
        looks = " ".join(
            f"/{name} << /Type /ExtGState /ca {number(fill)} /CA {number(line)} /BM /{blend.capitalize() or 'Normal'} >>"
            for (fill, line, blend), name in self._looks.items()
        )
        objects = " ".join(f"/{name} {at} 0 R" for name, at in self._objects.items())
        fonts = " ".join(f"/F{k} {at} 0 R" for k, at in enumerate(self.glyphs.fonts))
        return f"/Resources << /ExtGState << {looks} >> /XObject << {objects} >> /Font << {fonts} >> >>"

    def written(self, read: Sequence[Sequence[Words]]) -> tuple[int, str]:
        """The content as an object, and the resources it needs. read: the words of each paragraph, in reading order."""
        self._leave()
        body = "\n".join(self._stack[0])
        layer = []
        for mark, paragraph in enumerate(read):
            layer.append(f"/P << /MCID {mark} >> BDC BT 3 Tr")
            layer += [self._read(words) for words in paragraph]
            layer.append("ET EMC")
        base = numbers(*self._base)
        content = f"/Artifact BMC q {base} cm\n{body}\nQ EMC\nq\n" + "\n".join(layer) + "\nQ\n"
        return self.file.stream(content.encode("latin-1")), self._resources()

    def _read(self, words: Words) -> str:
        """Empty glyphs as wide together as the words are."""
        text = "".join(unicodedata.normalize("NFKC", c) if "\U0001d400" <= c <= "\U0001d7ff" else c for c in words.text)
        count = len(text)
        squeeze = 100 * words.width / (WIDE * words.size * count) if words.width > 0 else 100.0
        onto = QTransform(1, 0, 0, -1, words.x, words.y) * QTransform(*words.matrix) * QTransform(*self._base)
        place = numbers(onto.m11(), onto.m12(), onto.m21(), onto.m22(), onto.dx(), onto.dy())
        shown = [f"{place} Tm {number(max(1.0, squeeze))} Tz"]
        shown += [f"/F{font} {number(words.size)} Tf <{codes}> Tj" for font, codes in self.glyphs.runs(text)]
        return " ".join(shown)


def _rgb(colour: QColor) -> str:
    return numbers(colour.redF(), colour.greenF(), colour.blueF())


def _image_object(file: PdfFile, image: QImage) -> int:
    """Colours, and how much is seen through them."""
    w, h = image.width(), image.height()
    mask = ""
    if image.hasAlphaChannel():
        alpha = image.convertToFormat(QImage.Format.Format_Alpha8)
        grey = file.stream(_rows(alpha, w), f"/Type /XObject /Subtype /Image /Width {w} /Height {h} /ColorSpace /DeviceGray"
                           " /BitsPerComponent 8")  # fmt: skip
        mask = f" /SMask {grey} 0 R"
    flat = image.convertToFormat(QImage.Format.Format_RGBA8888 if image.hasAlphaChannel() else QImage.Format.Format_RGB888)
    flat = flat.convertToFormat(QImage.Format.Format_RGB888)
    entries = f"/Type /XObject /Subtype /Image /Width {w} /Height {h} /ColorSpace /DeviceRGB /BitsPerComponent 8{mask}"
    return file.stream(_rows(flat, 3 * w), entries)


def _rows(image: QImage, length: int) -> bytes:
    """The pixels without what pads each row."""
    bits = image.constBits()
    assert bits is not None
    data = bytes(bits.asarray(image.sizeInBytes()))
    step = image.bytesPerLine()
    if step == length:
        return data
    return b"".join(data[k * step : k * step + length] for k in range(image.height()))
