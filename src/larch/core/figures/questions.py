"""What a person is asked for, one by one, while a construction is pointed out."""

from __future__ import annotations

from larch.core.figures.rules import RULES

ASKS: dict[str, tuple[str, ...]] = {
    "circle": ("the centre", "a point on the rim"),
    "circle with radius": ("the centre",),
    "carried circle": ("where the length begins", "where it ends", "the new centre"),
    "circle on diameter": ("one end", "the other end"),
    "arc": ("the centre", "where it begins", "where it ends"),
    "sector": ("the centre", "where it begins", "where it ends"),
    "cap": ("the centre", "where it begins", "where it ends"),
    "arc through three": ("where it begins", "a point on the way", "where it ends"),
    "ellipse": ("a focus", "the other focus", "a point on it"),
    "angle": ("a point on one arm", "the vertex", "a point on the other arm"),
    "angle bisector": ("a point on one arm", "the vertex", "a point on the other arm"),
    "regular": ("one end of a side", "the other end"),
    "segment": ("one end", "the other end"),
    "ray": ("where it begins", "a point on it"),
    "vector": ("its foot", "its tip"),
    "line": ("a point on it", "another point on it"),
    "mirror": ("what is reflected", "the mirror line"),
    "point mirror": ("what is reflected", "the point"),
    "rotate": ("what is rotated", "the centre"),
    "translate": ("what is moved", "where the vector begins", "where it ends"),
    "enlarge": ("what is enlarged", "the centre"),
    "meet": ("a line or a circle", "another one"),
    "on": ("a line or a circle",),
    "tangent": ("a point", "a circle"),
    "centre": ("a circle or a shape",),
    "midpoint": ("a point", "another point"),
    "bisector": ("a point", "another point"),
}
ASKED = {
    "point": "a point", "line": "a line", "circle": "a circle", "curve": "a line or a circle", "figure": "a figure",
    "point…": "the next corner",
}  # fmt: skip


def asked(name: str, k: int) -> str:
    """What a person is asked for as the k-th thing that a rule takes."""
    own = ASKS.get(name, ())
    takes = RULES[name].takes
    return own[k] if k < len(own) else ASKED[takes[min(k, len(takes) - 1)]]
