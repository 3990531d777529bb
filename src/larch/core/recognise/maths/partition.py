"""Which groups of strokes the ink falls into: the likeliest covers of all strokes, each exactly once."""

from __future__ import annotations

from collections.abc import Sequence

WIDE = 90  # covers kept while they grow
MOST = 8


def partitions(
    count: int, groups: Sequence[tuple[int, ...]], scores: Sequence[float], order: Sequence[int]
) -> list[tuple[float, tuple[int, ...]]]:
    """Each as its score and the numbers of its groups. order: strokes from left to right; scores: of each group, to be
    added up."""
    holding: list[list[int]] = [[] for _ in range(count)]
    masks = []
    for k, group in enumerate(groups):
        mask = 0
        for stroke in group:
            mask |= 1 << stroke
            holding[stroke].append(k)
        masks.append(mask)
    states: dict[int, list[tuple[float, tuple[int, ...]]]] = {0: [(0.0, ())]}
    for stroke in order:
        bit = 1 << stroke
        fresh: dict[int, list[tuple[float, tuple[int, ...]]]] = {}
        for covered, ways in states.items():
            if covered & bit:
                fresh.setdefault(covered, []).extend(ways)
                continue
            for k in holding[stroke]:
                if masks[k] & covered:
                    continue
                made = fresh.setdefault(covered | masks[k], [])
                made.extend((score + scores[k], (*way, k)) for score, way in ways)
        for ways in fresh.values():
            ways.sort(key=lambda one: -one[0])
            del ways[MOST:]
        if len(fresh) > WIDE:
            best = sorted(fresh, key=lambda covered: -fresh[covered][0][0])[:WIDE]
            fresh = {covered: fresh[covered] for covered in best}
        states = fresh
    found = states.get((1 << count) - 1, [])
    return sorted(found, key=lambda one: -one[0])[:MOST]
