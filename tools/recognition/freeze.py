"""Freezes a small set of ink by hands that training never saw, for the tests: tests/data/ink.json.gz.

python freeze.py GLYPHS.pkl OUT.json.gz
"""

from __future__ import annotations

import gzip
import json
import random
import sys
from pathlib import Path

import numpy as np
from measure import row_meant
from outlines import KINDS, outline
from writing import Hand, write

from larch.core.maths.layout.latex import latex
from samples import hands_for

F, U = (lambda a, b: ("frac", list(a), list(b))), (lambda a: ("up", list(a)))
TEXTS = [
    [*"63"],
    [*"7+5=12"],
    ["y", "=", F("3", "4"), *"x-6"],
    [*"2x+5=15"],
    ["x", U("2"), *"-4=0"],
    [F("3", "4"), "+", F("1", "8")],
    [("root", [*"16"]), *"=4"],
    [*"(2,3)"],
    [*"A(4,-1)"],
    [*"0.75"],
    [*"sinx"],
    [*"5cm"],
    [*"120°"],
    [*"2(x+3)=14"],
    [*"48÷6=8"],
    [*"3×17=51"],
    [*"100-37"],
    ["a", U("2"), "+", "b", U("2"), "=", "c", U("2")],
    [*"x<5"],
    [*"25%"],
    ["2", F("1", "3")],
    [*"4.5+0.8"],
    ["y", "=", "x", U("2"), *"+1"],
    [*"7x-3=2x+12"],
    ["π", "r", U("2")],
    [*"-8"],
    [*"1024"],
    [*"f(x)=2x"],
    [F("x+1", "2"), *"=5"],
    [*"90+45=135"],
]
WORDS = [
    "how many lanterns",
    "the bridge is long",
    "fold the paper",
    "Count the boats",
    "a red candle",
    "seven stalls",
    "draw the sail",
    "the river at night",
    "who won",
    "half of them",
]


def plain(strokes: list[np.ndarray]) -> list[list[list[float]]]:
    return [np.round(stroke, 1).tolist() for stroke in strokes]


def main() -> None:
    hands, names = hands_for(Path(sys.argv[1]), True)
    r = random.Random(20261126)
    maths, words, shapes = [], [], []
    for text in TEXTS * 2:
        made = None
        while made is None:
            made = write(text, Hand(hands, names, r, 0.7))
        maths.append({"latex": latex(row_meant(text)), "strokes": plain(made.strokes)})
    for text in WORDS:
        hand, x, strokes = Hand(hands, names, r, 0.6), 0.0, []
        for c in text:
            glyph = hand.glyph(c) if c != " " else []
            if glyph:
                points = np.concatenate(glyph)
                strokes += [(hand.shaken(run) - (points[:, 0].min() - x, 0)) * 30 for run in glyph]
                x += float(np.ptp(points[:, 0])) + 0.12
            else:
                x += 0.75
        words.append({"text": text, "strokes": plain(strokes)})
    glyphs = [glyph for own in hands["kalam"].values() for glyph in own]
    for kind in KINDS:
        for _ in range(12 if kind == "none" else 4):
            drawn = outline(kind, r, r.uniform(0.6, 1.3), glyphs)
            shapes.append({"kind": kind, "strokes": plain(drawn.strokes)})
    data = json.dumps({"maths": maths, "words": words, "shapes": shapes}, ensure_ascii=False)
    Path(sys.argv[2]).write_bytes(gzip.compress(data.encode(), 9, mtime=0))


if __name__ == "__main__":
    main()
