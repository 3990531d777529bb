"""Marks on an axis: round numbers, multiples of π, or degrees; and how they are written."""

from __future__ import annotations

import math
from fractions import Fraction

from larch.core.base.words import N_
from larch.core.model.fact import MINUS, number_text

KINDS = {"": N_("numbers"), "fractions": N_("fractions"), "π": N_("multiples of π"), "°": N_("degrees"),
         "log": N_("logarithmic")}  # fmt: skip
MOST = 200
PARTS = (Fraction(1, 12), Fraction(1, 6), Fraction(1, 4), Fraction(1, 2), Fraction(1), Fraction(2), Fraction(4))
TURNS = (1, 2, 5, 10, 15, 30, 45, 90, 180, 360, 720)  # degrees
CUTS = tuple(Fraction(1, n) for n in (12, 10, 8, 6, 5, 4, 3, 2, 1))


def step_of(low: float, high: float, most: float, kind: str = "") -> float:
    """The distance of marks, of which at most about `most` fit between low and high."""
    rough = (high - low) / max(1.0, most) * 0.999
    if kind == "π" and rough <= 4 * math.pi:
        return next(float(part) * math.pi for part in PARTS if float(part) * math.pi >= rough)
    if kind == "°" and rough <= math.radians(TURNS[-1]) and rough > math.radians(0.5):
        return next(math.radians(turn) for turn in TURNS if math.radians(turn) >= rough)
    if kind == "fractions" and float(CUTS[0]) * 0.5 < rough <= 1:
        return next(float(cut) for cut in CUTS if float(cut) >= rough)
    unit = {"π": math.pi, "°": math.radians(1)}.get(kind, 1.0)
    power: float = 10 ** math.floor(math.log10(rough / unit))
    return unit * next(power * k for k in (1, 2, 5, 10) if power * k >= rough / unit)


def marks_between(low: float, high: float, most: float, kind: str = "") -> list[float]:
    """Multiples of the step between low and high; of a logarithmic axis powers of ten, and what lies between where there is
    room."""
    if kind == "log":
        return _powers(low, high, most)
    step = step_of(low, high, most, kind)
    first, last = math.ceil(low / step - 1e-9), math.floor(high / step + 1e-9)
    return [k * step for k in range(first, last + 1)][:MOST]


def _powers(low: float, high: float, most: float) -> list[float]:
    first, last = math.floor(math.log10(low)), math.ceil(math.log10(high))
    for shares in (range(1, 10), (1, 2, 5), (1,)):
        found = [
            k * 10.0**n
            for n in range(first, last + 1)
            for k in shares
            if low <= k * 10.0**n * (1 + 1e-9) <= high * (1 + 2e-9)
        ]
        if len(found) <= most:
            return found
    every = max(1, math.ceil((last - first) / max(1.0, most)))
    return [10.0**n for n in range(first, last + 1, every) if low <= 10.0**n * (1 + 1e-9) <= high * (1 + 2e-9)]


def mark_text(value: float, step: float, kind: str = "") -> str:
    """How a mark is written: plain text, which is mathematics for fractions and multiples of π."""
    if kind == "π":
        return _times_pi(value / math.pi)
    if kind == "log":
        return number_text(value, 9) if 1e-4 <= value < 1e6 else f"10^{round(math.log10(value))}"
    if kind == "°":
        return f"{tick_text(math.degrees(value), math.degrees(step))}°"
    if kind == "fractions":
        near = Fraction(value).limit_denominator(60)
        if near.denominator > 1 and abs(near - Fraction(value)) < 1e-9:
            return f"{MINUS if near < 0 else ''}{abs(near.numerator)}/{near.denominator}"
    return tick_text(value, step)


def _times_pi(parts: float) -> str:
    near = Fraction(parts).limit_denominator(60)
    if abs(near - parts) > 1e-9 or not near:
        return number_text(parts, 3) + ("π" if near else "")
    top = "π" if abs(near.numerator) == 1 else f"{abs(near.numerator)}π"
    return (MINUS if near < 0 else "") + (top if near.denominator == 1 else f"{top}/{near.denominator}")


def tick_text(value: float, step: float) -> str:
    places = max(0, -math.floor(math.log10(step) + 1e-9)) if step > 0 else 0
    return number_text(value, min(places, 9))
