"""What is remembered of the hand that writes: which signs and words were put right by its owner."""

from __future__ import annotations

from msgspec import Struct

MOST_WORDS, MOST_CHANGES = 400, 60
EACH, LARGEST = 0.9, 2.7  # what a sign gains each time it was put in the place of another, and at most


class KnownHand(Struct, frozen=True, omit_defaults=True):
    """signs: how often one was put in the place of another, as {"1>7": 2}. words: that were chosen instead of others, the
    newest first."""

    signs: dict[str, int] = {}
    words: tuple[str, ...] = ()

    def changed(self, was: str, now: str) -> KnownHand:
        """A sign was put in the place of another: the way back counts less from now on."""
        if was == now:
            return self
        counts = dict(self.signs)
        back = f"{now}>{was}"
        if counts.get(back, 0) > 0:
            counts[back] -= 1
        else:
            one = f"{was}>{now}"
            counts[one] = min(counts.pop(one, 0) + 1, round(LARGEST / EACH))
        kept = {change: count for change, count in counts.items() if count > 0}
        return KnownHand(dict(list(kept.items())[-MOST_CHANGES:]), self.words)

    def chose(self, word: str) -> KnownHand:
        """A word was chosen instead of what was read."""
        bare = word.strip(".,!?:;()\"'’").lower()
        if len(bare) < 2 or any(c.isdigit() for c in bare):
            return self
        return KnownHand(self.signs, tuple(dict.fromkeys((bare, *self.words)))[:MOST_WORDS])

    def leaning(self) -> dict[str, float]:
        """By how much likelier a sign is where another is read, as logarithms."""
        return {change: min(LARGEST, EACH * count) for change, count in self.signs.items()}
