"""What sorts of shapes are called in the language of the lesson. `classify` names them in plain English."""

from __future__ import annotations

from larch.core.base.words import N_, _

SORTS = (
    N_("triangle"), N_("quadrilateral"), N_("pentagon"), N_("hexagon"), N_("heptagon"), N_("octagon"), N_("nonagon"),
    N_("decagon"), N_("hendecagon"), N_("dodecagon"), N_("equilateral triangle"), N_("isosceles triangle"),
    N_("scalene triangle"), N_("acute triangle"), N_("right triangle"), N_("obtuse triangle"),
    N_("isosceles right triangle"),
    N_("square"), N_("rectangle"), N_("rhombus"), N_("parallelogram"), N_("kite"), N_("dart"), N_("concave kite"),
    N_("trapezium"), N_("isosceles trapezium"), N_("right trapezium"), N_("degenerate"), N_("polygon"),
)  # fmt: skip
BEFORE = {
    "regular": N_("regular {shape}"), "convex": N_("convex {shape}"), "concave": N_("concave {shape}"),
    "crossed": N_("crossed {shape}"), "equilateral": N_("equilateral {shape}"), "equiangular": N_("equiangular {shape}"),
    "irregular": N_("irregular {shape}"),
}  # fmt: skip
STRAIGHT = " with a straight angle"


def sort_name(sort: str) -> str:
    """The name of a sort, such as "regular hexagon" or "convex 13-gon"."""
    if sort.endswith(STRAIGHT):
        return _("{shape} with a straight angle").format(shape=sort_name(sort.removesuffix(STRAIGHT)))
    if sort in SORTS:
        return _(sort)
    before, _gap, rest = sort.partition(" ")
    if before in BEFORE and rest:
        return _(BEFORE[before]).format(shape=sort_name(rest))
    if sort.endswith("-gon"):
        return _("{n}-gon").format(n=sort.removesuffix("-gon"))
    return _(sort)
