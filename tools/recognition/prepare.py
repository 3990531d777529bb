"""Glyphs as strokes, from openly licensed handwriting fonts, Hershey's stroke fonts and packaged real digits.

    python prepare.py FOLDER   (with the unpacked packages; see README.md) → FOLDER/glyphs.pkl

A glyph is a list of strokes in units of the x-height or digit height of its hand, the baseline at 0, y downwards.
"""

from __future__ import annotations

import io
import json
import pickle
import sys
from collections import defaultdict
from pathlib import Path
from typing import Any

import numpy as np
from fontTools.ttLib import TTFont
from PIL import Image, ImageDraw, ImageFont
from strokes_of import drawn, strokes_of

Array = np.ndarray[Any, Any]
Glyph = list[Array]
SIZE = 110  # pixels
LETTERS = "0123456789abcdefghijklmnopqrstuvwxyzABCDEFGHIJKLMNOPQRSTUVWXYZ"
SIGNS = "+-=<>()[]{}/|%!?,.:;°×÷·±€'" + "πθαβλμΔ∞√≤≥≠→"


def of_font(path: Path) -> dict[str, list[Glyph]]:
    font = TTFont(path)
    known = set(font.getBestCmap())
    font.flavor = None
    plain = io.BytesIO()
    font.save(plain)
    plain.seek(0)
    pen = ImageFont.truetype(plain, SIZE)
    ascent = pen.getmetrics()[0]
    height = _height(pen, "x", ascent)
    found: dict[str, list[Glyph]] = {}
    for sign in LETTERS + SIGNS:
        if ord(sign) not in known:
            continue
        picture = Image.new("L", (3 * SIZE, 3 * SIZE))
        ImageDraw.Draw(picture).text((SIZE, SIZE), sign, font=pen, fill=255)
        black = np.asarray(picture) > 110
        if not black.any():
            continue
        made = [(run - (SIZE, SIZE + ascent)) / height for run in drawn(strokes_of(black))]
        if made:
            found[sign] = [made]
    return found


def _height(pen: Any, sign: str, ascent: int) -> float:
    box = pen.getbbox(sign)
    return float(ascent - box[1])


def of_hershey(name: str) -> dict[str, list[Glyph]]:
    from HersheyFonts import HersheyFonts

    font = HersheyFonts()
    font.load_default_font(name)
    found: dict[str, list[Glyph]] = {}

    def strokes(text: str) -> Glyph:
        return [np.array(run, dtype=float) for run in font.strokes_for_text(text) if len(run) > 1]

    tall = strokes("x")
    if not tall:
        return found
    box = np.concatenate(tall)
    top, bottom = box[:, 1].min(), box[:, 1].max()
    height = (bottom - top) or 1.0
    greek = dict(zip("abglmpqhD", "αβγλμπθθΔ", strict=True)) if name.startswith("greek") else {}
    for sign in greek or LETTERS + SIGNS:
        if ord(sign) > 126:
            continue
        made = strokes(sign)
        if made:
            found[greek.get(sign, sign)] = [[_even((run - (0, bottom)) / height) for run in made]]
    return found


def _even(run: Array) -> Array:
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(run, axis=0).T))])
    at = np.linspace(0, along[-1], max(2, int(along[-1] / 0.07) + 1))
    return np.column_stack([np.interp(at, along, run[:, k]) for k in (0, 1)])


def digits_of(pictures: list[tuple[str, Array]], least: int) -> dict[str, list[Glyph]]:
    """Real digits, enlarged and thinned."""
    found: dict[str, list[Glyph]] = defaultdict(list)
    for sign, grey in pictures:
        large = np.asarray(
            Image.fromarray(grey.astype(np.uint8)).resize((grey.shape[1] * 4, grey.shape[0] * 4), Image.Resampling.BICUBIC)
        )
        black = large > least
        if not black.any():
            continue
        made = list(drawn(strokes_of(black)))
        if not made:
            continue
        box = np.concatenate(made)
        low, high = box.min(axis=0), box.max(axis=0)
        size = max(high[1] - low[1], 1.0)
        found[sign].append([(run - (low[0], high[1])) / size * 1.45 for run in made])
    return found


def main(folder: Path) -> None:
    hands: dict[str, dict[str, list[Glyph]]] = {}
    for package in sorted((folder / "f").iterdir()):
        made: dict[str, list[Glyph]] = {}
        for part in ("greek", "latin-ext", "latin"):
            for file in package.glob(f"files/*-{part}-400-normal.woff2"):
                made |= of_font(file)
        hands[package.name] = made
        print(package.name, len(made), flush=True)
    for name in ("futural", "futuram", "rowmans", "rowmand", "cursive", "scripts", "timesi", "greek", "greeks", "greekc"):
        hands[f"hershey-{name}"] = of_hershey(name)
        print(name, len(hands[f"hershey-{name}"]), flush=True)
    sheet = np.asarray(Image.open(next(folder.glob("ocv/**/data/digits.png"))).convert("L"))
    for writer in range(10):  # ten columns of digits each
        cells = [
            (str(row // 5), sheet[row * 20 : row * 20 + 20, c * 20 : c * 20 + 20])
            for row in range(50)
            for c in range(writer * 10, writer * 10 + 10)
        ]
        hands[f"sheet-{writer}"] = digits_of(cells, 110)
    for part in range(15):
        cells = []
        for digit in range(10):
            data = json.loads((folder / f"mn/src/digits/{digit}.json").read_text())["data"]
            for k in range(part * 50, part * 50 + 50):  # entries 0 to 749 only
                cells.append((str(digit), (np.array(data[784 * k : 784 * k + 784]).reshape(28, 28) * 255)))
        hands[f"mnist-{part}"] = digits_of(cells, 110)
    (folder / "glyphs.pkl").write_bytes(pickle.dumps(hands))


if __name__ == "__main__":
    main(Path(sys.argv[1]))
