"""What a person is asked for, one by one, while a construction is pointed out."""

from __future__ import annotations

from larch.core.base.words import N_
from larch.core.figures.rules import RULES

ASKS: dict[str, tuple[str, ...]] = {
    "circle": (N_("the centre"), N_("a point on the rim")),
    "circle with radius": (N_("the centre"),),
    "carried circle": (N_("where the length begins"), N_("where it ends"), N_("the new centre")),
    "circle on diameter": (N_("one end"), N_("the other end")),
    "arc": (N_("the centre"), N_("where it begins"), N_("where it ends")),
    "sector": (N_("the centre"), N_("where it begins"), N_("where it ends")),
    "cap": (N_("the centre"), N_("where it begins"), N_("where it ends")),
    "arc through three": (N_("where it begins"), N_("a point on the way"), N_("where it ends")),
    "ellipse": (N_("a focus"), N_("the other focus"), N_("a point on it")),
    "angle": (N_("a point on one arm"), N_("the vertex"), N_("a point on the other arm")),
    "angle bisector": (N_("a point on one arm"), N_("the vertex"), N_("a point on the other arm")),
    "regular": (N_("one end of a side"), N_("the other end")),
    "segment": (N_("one end"), N_("the other end")),
    "ray": (N_("where it begins"), N_("a point on it")),
    "vector": (N_("its foot"), N_("its tip")),
    "line": (N_("a point on it"), N_("another point on it")),
    "mirror": (N_("what is reflected"), N_("the mirror line")),
    "point mirror": (N_("what is reflected"), N_("the point")),
    "rotate": (N_("what is rotated"), N_("the centre")),
    "translate": (N_("what is moved"), N_("where the vector begins"), N_("where it ends")),
    "enlarge": (N_("what is enlarged"), N_("the centre")),
    "meet": (N_("a line or a circle"), N_("another one")),
    "on": (N_("a line or a circle"),),
    "tangent": (N_("a point"), N_("a circle")),
    "centre": (N_("a circle or a shape"),),
    "midpoint": (N_("a point"), N_("another point")),
    "bisector": (N_("a point"), N_("another point")),
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
