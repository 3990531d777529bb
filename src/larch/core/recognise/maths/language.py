"""How likely signs follow each other in mathematics of school: a 4-gram in which the digits 1 to 9 are one sign.

Learnt from a grammar of its own (tools/recognition/grammar.py), so that it knows what is written at school and no answers:
it must not correct what a pupil has worked out.
"""

from __future__ import annotations

import math
from functools import cache
from importlib import resources

OVER, UNDER, OPEN_UP, OPEN_DOWN, ROOT, CLOSE = "⟨", "⁄", "↑", "↓", "√", "⟩"
START, END = "^", "$"
DIGITS = frozenset("123456789")
BACK = 0.35  # of what is known of shorter runs, where a longer one was never met
LEAST = 1e-5


def folded(sign: str) -> str:
    return "5" if sign in DIGITS else sign


class Language:
    def __init__(self, counts: dict[str, int]) -> None:
        self.counts = counts
        self.total = sum(count for run, count in counts.items() if len(run) == 1)
        self._known: dict[tuple[str, str], float] = {}

    def log(self, before: str, sign: str) -> float:
        """Of a sign after up to three others, folded."""
        key = (before, sign)
        found = self._known.get(key)
        if found is None:
            found = self._known[key] = math.log(self._share(before, sign))
        return found

    def _share(self, before: str, sign: str) -> float:
        share = max(LEAST, self.counts.get(sign, 0) / self.total)
        for size in range(1, len(before) + 1):
            context = before[-size:]
            seen = self.counts.get(context, 0)
            if not seen:
                share *= BACK
                continue
            sure = seen / (seen + 4.0)  # of runs met seldom, less (Witten and Bell 1991, simplified)
            share = sure * self.counts.get(context + sign, 0) / seen + (1 - sure) * share
        return max(share, LEAST * 0.1)


@cache
def language() -> Language:
    import gzip

    import msgspec

    data = resources.files("larch").joinpath("assets/recognise/language.json.gz").read_bytes()
    return Language(msgspec.json.decode(gzip.decompress(data), type=dict[str, int]))
