"""Finding by a few typed letters: the whole word before its beginning before anything else. No Qt."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import lru_cache
from typing import TypeVar

from larch.core.base.folding import folded

T = TypeVar("T")


def score(query: str, label: str, words: str = "") -> float:
    """How well a query fits; 0 for not at all. Every typed word must be found in the label or the other words."""
    wanted = folded(query).split()
    if not wanted:
        return 1.0
    own, other = folded(label), folded(words)
    total = 0.0
    for part in wanted:
        best = max(_part_score(part, own), 0.6 * _part_score(part, other))
        if not best:
            return 0.0
        total += best
    return total / len(wanted) + 0.2 * (own == " ".join(wanted)) - 0.001 * len(own)


@lru_cache(8192)
def _words_of(text: str) -> tuple[str, ...]:
    """The same entries are searched at every key."""
    return tuple(text.split())


def _part_score(part: str, text: str) -> float:
    found = _words_of(text)
    if part in found:
        return 1.0
    if any(word.startswith(part) for word in found):
        return 0.8
    if part in text:
        return 0.5
    if len(part) > 3 and any(_nearly(part, word) for word in found):
        return 0.35
    return 0.0


def _nearly(part: str, word: str) -> bool:
    """One letter wrong, missing, too many, or two exchanged."""
    if part[0] not in word[:2] and word[:1] not in part[:2]:
        return False  # most words are told by this
    word = word[: len(part) + 1]
    if abs(len(part) - len(word)) > 1:
        return False
    i = next((k for k, (a, b) in enumerate(zip(part, word, strict=False)) if a != b), min(len(part), len(word)))
    rests = ((part[i + 1 :], word[i + 1 :]), (part[i:], word[i + 1 :]), (part[i + 1 :], word[i:]))
    swapped = part[i : i + 2] == word[i : i + 2][::-1] and word[i + 2 :].startswith(part[i + 2 :])
    return swapped or any(b.startswith(a) for a, b in rests if len(a) + 1 >= len(part) - i - 1)


NEAR = 0.36  # a score up to which something is only nearly what was typed


def ranked_apart(query: str, items: Iterable[T], describe: Callable[[T], tuple[str, str]]) -> tuple[list[T], list[T]]:
    """The items that fit, best first, and by themselves those that only nearly do: they come after what fits elsewhere."""
    fitting: list[T] = []
    near: list[T] = []
    for value, item in sorted(((score(query, *describe(item)), item) for item in items), key=lambda pair: -pair[0]):
        if value > 0:
            (fitting if value > NEAR else near).append(item)
    return fitting, near


def ranked(query: str, items: Iterable[T], describe: Callable[[T], tuple[str, str]]) -> list[T]:
    """The items that fit, best first; ties stay in their order."""
    scored = [(score(query, *describe(item)), item) for item in items]
    return [item for value, item in sorted(((s, i) for s, i in scored if s > 0), key=lambda pair: -pair[0])]
