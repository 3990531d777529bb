"""The signs that are told apart, and where each stands on its line when it is written."""

from __future__ import annotations

from functools import cache
from importlib import resources
from typing import NamedTuple

# In the order of the network's answers; behind the last one stands "none of these".
ALPHABET = (
    "0123456789abcdefghijklmnopqrstuvwxyz" "ABCDEFGHKLMNPQRSTVWXYZ" "+-=<>()[]{}/|%!.,:°×÷·±'πθαβλμΔ∞√≤≥≠→" "U≈€?γ;"
)  # fmt: skip
NONE = len(ALPHABET)
FLAT = frozenset("-=.,:;°·'÷→<>+×≈")  # of no height that says how large it is written


class Stand(NamedTuple):
    """Top and bottom of a sign in units of the height of an x, the baseline at 0, y downwards."""

    top: float
    bottom: float


@cache
def stands() -> dict[str, Stand]:
    """Measured on the hands of the training (tools/recognition/language.py)."""
    import msgspec

    data = msgspec.json.decode(resources.files("larch").joinpath("assets/recognise/layout.json").read_bytes())
    return {sign: Stand(*pair) for sign, pair in data["stands"].items()}


@cache
def relations() -> dict[str, tuple[float, ...]]:
    """Of "same", "up" and "down": how often, and mean and covariance of how far the baseline is shifted and how the size
    changes."""
    import msgspec

    data = msgspec.json.decode(resources.files("larch").joinpath("assets/recognise/layout.json").read_bytes())
    return {way: tuple(values) for way, values in data["relations"].items()}
