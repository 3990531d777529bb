"""What the reader of mathematics knows besides the network: runs of signs, where signs stand, how neighbours are placed.

python language.py GLYPHS.pkl SAMPLES.npz OUT_FOLDER
"""

from __future__ import annotations

import gzip
import json
import pickle
import sys
from collections import Counter
from pathlib import Path

import numpy as np
from grammar import LIKELY, School, linear
from signs import SIGNS

from larch.core.recognise.maths.language import END, START, folded
from larch.core.recognise.maths.place import shift_and_size
from larch.core.recognise.maths.signs import ALPHABET, Stand
from samples import DOUBLED, KEPT_APART

TEXTS = 150_000
WAYS = ("same", "up", "down")


def runs() -> dict[str, int]:
    school, counts = School(20261126, LIKELY), Counter[str]()
    for _ in range(TEXTS):
        text = START + "".join(map(folded, linear(school.text()))) + END
        for k in range(1, len(text) + 1):
            for size in range(1, min(4, k) + 1):
                counts[text[k - size : k]] += 1
    return {run: count for run, count in counts.items() if count > 2 or len(run) < 3}


def stands(glyphs: Path) -> dict[str, tuple[float, float]]:
    hands = pickle.loads(glyphs.read_bytes())
    found: dict[str, list[tuple[float, float]]] = {}
    for name, own in hands.items():
        if name in KEPT_APART or name in DOUBLED or name.startswith(("mnist", "sheet")):
            continue
        for sign, made in own.items():
            if sign in ALPHABET:
                points = np.concatenate(made[0])
                found.setdefault(sign, []).append((points[:, 1].min(), points[:, 1].max()))
    for sign, made in SIGNS.items():
        for glyph in made:
            points = np.concatenate(glyph)
            found.setdefault(sign, []).append((points[:, 1].min(), points[:, 1].max()))
    return {sign: tuple(np.round(np.median(pairs, axis=0), 3).tolist()) for sign, pairs in found.items()}


def relations(pairs: np.ndarray, known: dict[str, tuple[float, float]]) -> dict[str, list[float]]:
    table = {sign: Stand(*pair) for sign, pair in known.items()}
    measured: dict[int, list[tuple[float, float]]] = {0: [], 1: [], 2: []}
    for row in pairs:
        one, other = ALPHABET[int(row[0])], ALPHABET[int(row[1])]
        measured[int(row[10])].append(shift_and_size(table, one, tuple(row[2:6]), other, tuple(row[6:10])))
    found = {}
    for way, values in measured.items():
        data = np.clip(np.array(values), -3, 3)
        middle = np.median(data, axis=0)
        near = data[(np.abs(data - middle) < 3 * np.median(np.abs(data - middle), axis=0) + 0.3).all(axis=1)]
        cov = np.cov(near.T) + np.diag([0.004, 0.01])
        found[WAYS[way]] = [len(data) / len(pairs), *near.mean(axis=0).tolist(), cov[0, 0], cov[0, 1], cov[1, 1]]
    return found


def main() -> None:
    glyphs, samples, out = map(Path, sys.argv[1:4])
    known = stands(glyphs)
    pairs = np.load(samples)["pairs"]
    data = {"stands": known, "relations": relations(pairs, known)}
    (out / "layout.json").write_text(json.dumps(data, ensure_ascii=False))
    print(data["relations"])
    packed = gzip.compress(json.dumps(runs(), ensure_ascii=False).encode(), 9, mtime=0)
    (out / "language.json.gz").write_bytes(packed)
    print(len(packed) // 1024, "KB of runs")


if __name__ == "__main__":
    main()
