"""The names of places, and numbers in words as they are read aloud: "three hundred and fifty-two"."""

from __future__ import annotations

from fractions import Fraction

from larch.core.base.words import N_

PLACES = {
    6: N_("millions"), 5: N_("hundred thousands"), 4: N_("ten thousands"), 3: N_("thousands"), 2: N_("hundreds"),
    1: N_("tens"), 0: N_("ones"), -1: N_("tenths"), -2: N_("hundredths"), -3: N_("thousandths"),
}  # fmt: skip
SMALL = (
    "zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve", "thirteen",
    "fourteen", "fifteen", "sixteen", "seventeen", "eighteen", "nineteen",
)  # fmt: skip
TENS = ("", "", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety")
GREAT = ((10**9, "billion"), (10**6, "million"), (10**3, "thousand"))
MOST = 10**12


def in_words(number: int) -> str:
    """Of a whole number below a billion in size. Raises ValueError beyond that."""
    if abs(number) >= MOST:
        raise ValueError("too large to be read")
    if number < 0:
        return f"minus {in_words(-number)}"
    if number < 20:
        return SMALL[number]
    if number < 100:
        return TENS[number // 10] + (f"-{SMALL[number % 10]}" if number % 10 else "")
    if number < 1000:
        rest = number % 100
        return f"{SMALL[number // 100]} hundred" + (f" and {in_words(rest)}" if rest else "")
    size, name = next((size, name) for size, name in GREAT if number >= size)
    rest = number % size
    tail = "" if not rest else f" and {in_words(rest)}" if rest < 100 else f" {in_words(rest)}"
    return f"{in_words(number // size)} {name}{tail}"


def decimal_in_words(whole: int, digits: str) -> str:
    """With digits after the point, read one by one."""
    digits = digits.rstrip("0")
    return in_words(whole) + (" point " + " ".join(SMALL[int(digit)] for digit in digits) if digits else "")


def time_in_words(minutes: int) -> str:
    """Of minutes since midnight: "half past seven", "twenty-five to three"."""
    hour, minute = minutes // 60 % 12, minutes % 60
    this, following = SMALL[hour or 12], SMALL[(hour + 1) % 12 or 12]
    if minute == 0:
        return f"{this} o’clock"
    if minute in (15, 45):
        return f"quarter past {this}" if minute == 15 else f"quarter to {following}"
    if minute == 30:
        return f"half past {this}"
    past = minute < 30
    away = minute if past else 60 - minute
    unit = "" if away % 5 == 0 else " minute" if away == 1 else " minutes"
    return f"{in_words(away)}{unit} {'past' if past else 'to'} {this if past else following}"


def decimal_text(value: Fraction) -> str:
    """Exactly, the recurring digits in brackets: 0.(3), 0.1(6)."""
    whole, rest = divmod(abs(value.numerator), value.denominator)
    digits: list[str] = []
    seen: dict[int, int] = {}
    while rest and rest not in seen:
        seen[rest] = len(digits)
        digit, rest = divmod(rest * 10, value.denominator)
        digits.append(str(digit))
    if rest:
        digits.insert(seen[rest], "(")
        digits.append(")")
    sign = "−" if value < 0 else ""
    return f"{sign}{whole}" + (f".{''.join(digits)}" if digits else "")
