"""The ink on the page of the demo that shows what is read: written by the stroke generator.

python demo_ink.py GLYPHS.pkl OUT.json
"""

from __future__ import annotations

import json
import pickle
import random
import sys
from pathlib import Path

import numpy as np
from freeze import F, plain
from outlines import outline
from writing import Hand, write


def words(text: str, hand: Hand, size: float) -> list[np.ndarray]:
    x, strokes = 0.0, []
    for c in text:
        glyph = hand.glyph(c) if c != " " else []
        if not glyph:
            x += 0.7
            continue
        points = np.concatenate(glyph)
        strokes += [(hand.shaken(run) - (points[:, 0].min() - x, 0)) * size for run in glyph]
        x += float(np.ptp(points[:, 0])) + 0.14
    return strokes


def main() -> None:
    hands = pickle.loads(Path(sys.argv[1]).read_bytes())
    r = random.Random(7)
    hand = Hand(hands, ["patrick-hand", "delius"], r, 0.5)
    rule = write(["y", "=", F("3", "4"), *"x-6"], hand)
    assert rule is not None
    square = outline("square", random.Random(12), 1.1, [])
    arrow = outline("arrow", random.Random(5), 1.0, [])
    made = {
        "rule": plain(rule.strokes),
        "words": plain(words("How many lanterns", hand, 44.0)),
        "square": plain(square.strokes),
        "arrow": plain(arrow.strokes),
    }
    Path(sys.argv[2]).write_text(json.dumps(made))


if __name__ == "__main__":
    main()
