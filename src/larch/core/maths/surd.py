"""Exact values of school geometry: a fraction times a square root, times a power of π."""

from __future__ import annotations

import math
from fractions import Fraction
from functools import lru_cache
from typing import NamedTuple

LARGEST_ROOT = 10**7  # under the root, before it is simplified
SHORT = 9999


class Surd(NamedTuple):
    """share · √root · π^power; root is free of squares."""

    share: Fraction
    root: int = 1
    power: int = 0

    def times(self, by: Fraction) -> Surd:
        return self._replace(share=self.share * by)

    def times_pi(self) -> Surd:
        return self._replace(power=self.power + 1)

    def squared(self) -> Surd:
        return Surd(self.share**2 * self.root, 1, 2 * self.power)

    def __float__(self) -> float:
        return float(self.share) * math.sqrt(self.root) * math.pi**self.power

    def is_short(self) -> bool:
        """Whether it is simple enough to be read as such."""
        return abs(self.share.numerator) <= SHORT and self.share.denominator <= 999 and self.root <= 9999

    def text(self) -> str:
        """As it is written: 3√2, √5/2, 5π/3, 1/3, 2.5."""
        above = abs(self.share.numerator)
        signs = ("√" + str(self.root) if self.root > 1 else "") + {0: "", 1: "π", 2: "π²"}.get(self.power, f"π^{self.power}")
        minus = "−" if self.share < 0 else ""
        if not signs and self._terminates():
            return minus + f"{float(abs(self.share)):.10g}"
        head = (signs if above == 1 else f"{above}{signs}") if signs else str(above)
        return f"{minus}{head}" + (f"/{self.share.denominator}" if self.share.denominator != 1 else "")

    def _terminates(self) -> bool:
        """Whether it is a decimal of at most two places."""
        return 100 % self.share.denominator == 0


def root_of(squared: Fraction) -> Surd | None:
    """The root of a fraction that is not below nothing; None if it is too long to be written."""
    if squared < 0:
        return None
    if squared == 0:
        return Surd(Fraction(0))
    under = squared.numerator * squared.denominator  # √(p/q) = √(pq)/q
    if under > LARGEST_ROOT * LARGEST_ROOT:
        return None
    exact = math.isqrt(under)
    if exact * exact == under:
        return Surd(Fraction(exact, squared.denominator))
    if under > LARGEST_ROOT:
        return None
    outside, inside = _simplified(under)
    return Surd(Fraction(outside, squared.denominator), inside)


@lru_cache(4096)
def _simplified(number: int) -> tuple[int, int]:
    """number = outside² · inside, inside free of squares. By trial division; the number is at most LARGEST_ROOT."""
    outside, inside, factor = 1, 1, 2
    while factor * factor <= number:
        count = 0
        while number % factor == 0:
            number //= factor
            count += 1
        outside *= factor ** (count // 2)
        inside *= factor ** (count % 2)
        factor += 1
    return outside, inside * number


CLOSE = 1e-11  # relative; a measured number that near to an exact one was meant to be it
LARGEST_SHARE = 360


def recognised(value: float) -> Surd | None:
    """The simple exact number that a measured one is: a fraction or the root of one. None if it is none.

    Of random numbers about one in a million would be taken for exact.
    """
    if not math.isfinite(value) or abs(value) > 1e6:
        return None
    plain = _near(value, LARGEST_SHARE)
    if plain is not None:
        return Surd(plain)
    square = _near(value * value, LARGEST_SHARE)
    found = root_of(square) if square is not None else None
    if found is None or not found.is_short():
        return None
    return found.times(Fraction(-1)) if value < 0 else found


def _near(value: float, largest: int) -> Fraction | None:
    near = Fraction(value).limit_denominator(largest)
    return near if abs(float(near) - value) <= CLOSE * max(abs(value), 1e-3) else None
