"""Measures the reading of words and phrases on hands that training never saw.

python measure_words.py GLYPHS.pkl --phrases 60
"""

from __future__ import annotations

import argparse
import random
import time
from pathlib import Path

import numpy as np
from writing import Hand

from larch.core.recognise.words import read_words
from samples import hands_for

TEXT = """the lanterns float down the river at night. we fold paper boats and count them. how many candles burn after an
hour every child brings one lantern to the bridge. measure the length of the boat. the tide rises twice a day.
which stall sold more tickets on friday evening? a third of the lanterns are red, half are yellow. draw the
arch of the bridge. write your answer below solve the equation and check it. our class made forty paper
lanterns. the area of the sail is larger. who guessed the right number"""


def phrase(r: random.Random) -> list[str]:
    words = TEXT.split()
    k = r.randrange(len(words) - 6)
    made = words[k : k + r.randint(1, 6)]
    made[0] = made[0].capitalize() if r.random() < 0.4 else made[0]
    return made


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("glyphs", type=Path)
    parser.add_argument("--phrases", type=int, default=60)
    parser.add_argument("--seed", type=int, default=5)
    args = parser.parse_args()
    hands, names = hands_for(args.glyphs, True)
    r = random.Random(args.seed)
    right = words = whole = 0
    times = []
    for _ in range(args.phrases):
        text = phrase(r)
        hand = Hand(hands, names, r, 0.8)
        strokes, x = [], 0.0
        gap = r.uniform(0.06, 0.16)
        for word in text:
            for c in word:
                glyph = hand.glyph(c) or []
                if not glyph:
                    continue
                points = np.concatenate(glyph)
                for run in glyph:
                    strokes.append((hand.shaken(run) - (points[:, 0].min() - x, 0)) * 30)
                x += float(np.ptp(points[:, 0])) + gap
            x += r.uniform(0.6, 0.9)
        begun = time.perf_counter()
        found = [word.text for word in read_words(strokes)]
        times.append(time.perf_counter() - begun)
        ok = sum(a.lower() == b.lower() for a, b in zip(text, found, strict=False)) if len(text) == len(found) else 0
        right, words, whole = right + ok, words + len(text), whole + (ok == len(text))
        if ok != len(text):
            print("  ", hand.font, " ".join(text), "→", " ".join(found))
    print(
        f"words {right / words:.3f}  phrases {whole / args.phrases:.3f}  p50 {sorted(times)[len(times) // 2] * 1000:.0f} ms"
    )


if __name__ == "__main__":
    main()
