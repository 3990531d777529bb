"""Trains the forest that tells shapes apart, and measures it on drawings that it has not seen, careful and rough.

python shapes.py GLYPHS.pkl OUT.npz [--each 260]
"""

from __future__ import annotations

import argparse
import pickle
import random
import time
from collections import Counter
from pathlib import Path
from typing import Any

import numpy as np
from outlines import KINDS, outline
from sklearn.ensemble import ExtraTreesClassifier

from larch.core.recognise.shapes.features import features, fits_of
from larch.core.recognise.shapes.ideal import vertices
from larch.core.recognise.shapes.path import outline_of

Array = np.ndarray[Any, Any]


def drawings(seed: int, each: int, glyphs: list[list[Array]], rough: tuple[float, float]) -> Any:
    r = random.Random(seed)
    for kind in KINDS:
        for _ in range(each * (6 if kind == "none" else 1)):
            yield outline(kind, r, r.uniform(*rough), glyphs)


def measured(drawn: list[Any]) -> tuple[Array, Array, list[Any]]:
    rows, kinds, all_fits = [], [], []
    for one in drawn:
        made = outline_of(one.strokes)
        if made is None:
            continue
        fits = fits_of(made)
        rows.append(features(fits))
        kinds.append(KINDS.index(one.kind))
        all_fits.append((one, fits))
    return np.array(rows), np.array(kinds), all_fits


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("glyphs", type=Path)
    parser.add_argument("out", type=Path)
    parser.add_argument("--each", type=int, default=260)
    args = parser.parse_args()
    hands = pickle.loads(args.glyphs.read_bytes())
    glyphs = [glyph for name in ("caveat", "delius", "schoolbell") for own in hands[name].values() for glyph in own]
    begun = time.time()
    x, y, _fits = measured(list(drawings(1, args.each, glyphs, (0.6, 2.4))))
    print(len(x), "drawings,", x.shape[1], "features,", f"{(time.time() - begun) / len(x) * 1000:.1f} ms each")
    trees = ExtraTreesClassifier(90, max_leaf_nodes=420, min_samples_leaf=2, max_features=14, n_jobs=2, random_state=1)
    trees.fit(x, y)
    save(trees, args.out)
    for name, rough, seed in (("careful", (0.5, 1.2), 901), ("rough", (1.5, 2.5), 902)):
        tx, ty, fits = measured(list(drawings(seed, 60, glyphs, rough)))
        found = trees.predict(tx)
        shapes = ty != KINDS.index("none")
        print(
            name,
            "kinds right",
            (found == ty)[shapes].mean().round(4),
            "scribbles left alone",
            (found == ty)[~shapes].mean().round(4),
        )
        wrong = Counter((KINDS[a], KINDS[b]) for a, b in zip(ty, found, strict=True) if a != b)
        print("  ", wrong.most_common(14))
        off = [places_off(one, fit) for (one, fit), a, b in zip(fits, ty, found, strict=True) if a == b and one.vertices]
        known = np.array([value for value in off if value is not None])
        print("   vertices within 2.5 %", (known < 0.025).mean().round(4), "median", np.median(known).round(4))


def places_off(one: Any, fits: Any) -> float | None:
    """The largest distance of a corner from where it was meant, as a share of the size."""
    found = vertices(one.kind, fits)
    if found is None or one.kind in ("circle", "ellipse"):
        return None
    made, true = fits.outline.back(found), np.array(one.vertices)
    if len(made) != len(true):
        return 9.0
    tries = [
        np.roll(way, k, axis=0)
        for way in (made, made[::-1])
        for k in range(len(made) if one.kind not in ("line", "arrow", "arc", "angle") else 1)
    ]
    return float(min(np.hypot(*(t - true).T).max() for t in tries) / fits.outline.size)


def save(trees: Any, out: Path) -> None:
    feature, bound, left, right, leaf, votes, roots = [], [], [], [], [], [], []
    for tree in trees.estimators_:
        t = tree.tree_
        base = len(feature)
        roots.append(base)
        for k in range(t.node_count):
            ends = t.children_left[k] < 0
            feature.append(0 if ends else t.feature[k])
            bound.append(0.0 if ends else t.threshold[k])
            left.append(-1 if ends else base + t.children_left[k])
            right.append(-1 if ends else base + t.children_right[k])
            leaf.append(len(votes) if ends else 0)
            if ends:
                counts = t.value[k][0]
                votes.append((counts / counts.sum() * 255).round())
    np.savez_compressed(
        out,
        kinds=np.array([KINDS[int(k)] for k in trees.classes_]),
        feature=np.array(feature, dtype=np.uint8),
        bound=np.array(bound, dtype=np.float32),
        left=np.array(left, dtype=np.int32),
        right=np.array(right, dtype=np.int32),
        leaf=np.array(leaf, dtype=np.int32),
        votes=np.array(votes, dtype=np.uint8),
        roots=np.array(roots, dtype=np.int32),
    )
    print(out, out.stat().st_size // 1024, "KB")


if __name__ == "__main__":
    main()
