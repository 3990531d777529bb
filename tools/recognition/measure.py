"""Measures the reader of mathematics on hands that training never saw (or on those it saw, with --seen).

python measure.py GLYPHS.pkl --rows 300 [--texts] [--seen] [--show 20]
"""

from __future__ import annotations

import argparse
import random
import time
from collections import Counter, defaultdict
from pathlib import Path

from grammar import School
from texts import TEXTS
from writing import Hand, write

from larch.core.maths.layout.latex import latex
from larch.core.maths.layout.rows import Fraction, Item, Lowered, Raised, Root, Sign
from larch.core.recognise.maths.reading import read_maths
from larch.core.recognise.maths.rows import SHOWN, _with_names
from samples import hands_for


def row_meant(text: list) -> tuple[Item, ...]:
    made: list[Item] = []
    for item in text:
        if isinstance(item, str):
            made.append(Sign(SHOWN.get(item, item)))
        elif item[0] == "frac":
            made.append(Fraction(row_meant(item[1]), row_meant(item[2])))
        elif item[0] == "root":
            made.append(Root(row_meant(item[1])))
        else:
            made.append((Raised if item[0] == "up" else Lowered)(row_meant(item[1])))
    return _with_names(tuple(made))


def alike(source: str) -> str:
    """Without differences that no hand makes."""
    return source.replace(" ", "").replace("\\cdot", "·").replace("\\times", "×")


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("glyphs", type=Path)
    parser.add_argument("--rows", type=int, default=300)
    parser.add_argument("--seen", action="store_true")
    parser.add_argument("--show", type=int, default=12)
    parser.add_argument("--seed", type=int, default=4711)
    parser.add_argument("--texts", action="store_true", help="lines of texts.py instead of the grammar's")
    args = parser.parse_args()
    hands, names = hands_for(args.glyphs, not args.seen)
    r, school = random.Random(args.seed), School(args.seed)
    exact, three, numbers, times, per = [], [], [], [], defaultdict(list)
    wrong, errors, signs_all = Counter(), 0, 0
    shown = 0
    while len(exact) < args.rows:
        text = TEXTS[len(exact) % len(TEXTS)] if args.texts else school.text()
        hand = Hand(hands, names, r, r.choice((0.6, 1.0, 1.0, 1.4)))
        made = write(text, hand)
        if made is None:
            continue
        meant = row_meant(text)
        begun = time.perf_counter()
        found = read_maths(made.strokes)
        times.append(time.perf_counter() - begun)
        right = alike(latex(found.row)) == alike(latex(meant))
        exact.append(right)
        three.append(any(alike(latex(row)) == alike(latex(meant)) for row in found.rows[:3]))
        per[hand.font].append(right)
        if all(isinstance(c, str) and (c.isdigit() or c in ".,") for c in text):
            numbers.append(right)
        by_strokes = {one.strokes: one.token for one in found.symbols}
        for k, sign in enumerate(made.symbols):
            group = tuple(sorted(i for i, owner in enumerate(made.owner) if owner == k))
            signs_all += 1
            token = by_strokes.get(group)
            if token != sign:
                errors += 1
                wrong[(sign, token or "apart")] += 1
        if not right and shown < args.show:
            shown += 1
            print(f"  {hand.font:22} {latex(meant)}   →   {latex(found.row)}")
    times.sort()
    of_numbers = f"{sum(numbers) / max(1, len(numbers)):.3f} of {len(numbers)}"
    print(
        f"exact {sum(exact) / len(exact):.3f}  in three {sum(three) / len(three):.3f}  numbers {of_numbers}  "
        f"signs wrong {errors / signs_all:.4f}  p50 {times[len(times) // 2] * 1000:.0f} ms  "
        f"p95 {times[int(len(times) * 0.95)] * 1000:.0f} ms"
    )
    print({name: f"{sum(v) / len(v):.2f} of {len(v)}" for name, v in sorted(per.items())})
    print(wrong.most_common(24))


if __name__ == "__main__":
    main()
