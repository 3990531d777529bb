"""Training samples: groups of strokes out of written rows, right ones and wrong ones, as the recogniser will meet them.

python samples.py GLYPHS.pkl OUT.npz --rows 20000 --seed 1 [--held-out]
"""

from __future__ import annotations

import argparse
import pickle
import random
from pathlib import Path
from typing import Any

import numpy as np
from grammar import ALPHABET, School, shuffled
from writing import Hand, write

from larch.core.recognise.groups import MOST, candidates
from larch.core.recognise.ink import EVEN, boxes_of, evenly, height_of
from larch.core.recognise.pictures import pictures

Array = np.ndarray[Any, Any]
NONE = len(ALPHABET)  # the class of what is no sign
KEPT_APART = ("kalam", "sheet-9", "mnist-14")
DIGITS = "0123456789"
DOUBLED = ("hershey-rowmand", "hershey-timesi", "hershey-futuram", "hershey-greekc")  # no hand writes every line twice


def hands_for(glyphs: Path, held_out: bool) -> tuple[dict[str, Any], list[str]]:
    hands = pickle.loads(glyphs.read_bytes())
    names = [name for name in hands if name not in DOUBLED and (name in KEPT_APART) == held_out]
    return hands, names


def rows(count: int, seed: int, plain: float = 0.55) -> Any:
    """Rows: as they are, with a third of their characters replaced, or any characters at all; one in seven is of digits."""
    r, school = random.Random(seed), School(seed)
    for _ in range(count):
        if r.random() < 0.14:
            yield [r.choice(DIGITS) for _ in range(r.randint(1, 6))]
            continue
        row = school.text()
        kind = r.random()
        yield row if kind < plain else shuffled(row, r, 0.34 if kind < 0.88 else 1.0)


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("glyphs", type=Path)
    parser.add_argument("out", type=Path)
    parser.add_argument("--rows", type=int, default=20000)
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--held-out", action="store_true")
    args = parser.parse_args()
    hands, names = hands_for(args.glyphs, args.held_out)
    r = random.Random(args.seed)
    images, runs, facts, labels = [], [], [], []
    pairs: list[tuple[float, ...]] = []
    for row in rows(args.rows, args.seed):
        hand = Hand(hands, names, r, r.choice((0.5, 0.8, 1.0, 1.4)), learning=not args.held_out)
        if hand.learning and all(isinstance(sign, str) and sign in DIGITS for sign in row) and r.random() < 0.35:
            hand.coarse = True  # as real digits come
        made = write(row, hand)
        if made is None:
            continue
        boxes = boxes_of(made.strokes)
        height = height_of(made.strokes, boxes)
        even = [evenly(stroke, EVEN * height) for stroke in made.strokes]
        possible = candidates(even, boxes, height)
        true: dict[tuple[int, ...], int] = {}
        for k, sign in enumerate(made.symbols):
            group = tuple(i for i, owner in enumerate(made.owner) if owner == k)
            if 0 < len(group) <= MOST or group in possible:
                true[group] = ALPHABET.index(sign)
        wrong = [group for group in possible if group not in true]
        r.shuffle(wrong)
        chosen = [*true, *wrong[: max(2, int(1.1 * len(true)))]]
        points = np.concatenate(even)
        owner = np.repeat(np.arange(len(even)), [len(stroke) for stroke in even])
        a, b, c = pictures(points, owner, chosen, height)
        images.append((a * 255).astype(np.uint8))
        runs.append(b.astype(np.float16))
        facts.append(c)
        labels += [*true.values(), *[NONE] * (len(chosen) - len(true))]
        pairs += _pairs(made, boxes)
    np.savez(
        args.out,
        images=np.concatenate(images),
        runs=np.concatenate(runs),
        facts=np.concatenate(facts),
        labels=np.array(labels, dtype=np.int16),
        pairs=np.array(pairs, dtype=np.float32),
    )
    print(args.out, len(labels), len(pairs))


def _pairs(made: Any, boxes: Array) -> list[tuple[float, ...]]:
    """Signs and boxes of neighbours in a row, and how the second stands to the first (0 same, 1 up, 2 down)."""
    found = []
    whole = {}
    for k in range(len(made.symbols)):
        own = boxes[[i for i, owner in enumerate(made.owner) if owner == k]]
        if len(own):
            whole[k] = (*own[:, :2].min(axis=0), *own[:, 2:].max(axis=0))
    for one, other, way in made.pairs:
        if one in whole and other in whole:
            signs = (ALPHABET.index(made.symbols[one]), ALPHABET.index(made.symbols[other]))
            found.append((*signs, *whole[one], *whole[other], ("same", "up", "down").index(way)))
    return found


if __name__ == "__main__":
    main()
