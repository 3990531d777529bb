"""What units make of a value: what it measures, and the unit it is said in."""

from __future__ import annotations

from fractions import Fraction

from larch.core.base.words import _
from larch.core.maths.expression.exactly import Undefined
from larch.core.maths.expression.tree import Binary, Call, Negative, Node, Number, Relation, Unit, children
from larch.core.maths.expression.words import UNITS

Dimension = tuple[Fraction, ...]
NONE: Dimension = (Fraction(0),) * 5


def has_units(node: Node) -> bool:
    return isinstance(node, Unit) or any(map(has_units, children(node)))


def dimension(node: Node) -> Dimension:
    """Powers of length, mass, time, money and temperature. Raises Undefined where unlike quantities are added."""
    match node:
        case Unit(name):
            return tuple(map(Fraction, UNITS[name][0]))
        case Negative(of):
            return dimension(of)
        case Binary("*" | "/" as op, left, right):
            sign = 1 if op == "*" else -1
            return tuple(a + sign * b for a, b in zip(dimension(left), dimension(right), strict=True))
        case Binary("^", left, Number(value, _)):
            return tuple(value * a for a in dimension(left))
        case Binary("+" | "-", left, right) | Relation(_, left, right):
            a, b = dimension(left), dimension(right)
            if a != b:
                raise Undefined(_("Only quantities of the same kind can be added or compared."))
            return a
        case Call("sqrt", (of,)):
            return tuple(a / 2 for a in dimension(of))
        case Call("abs" | "min" | "max" | "round", arguments):
            return dimension(arguments[0])
    return NONE


def said_in(node: Node) -> tuple[str, Fraction] | None:
    """The unit that a quantity is said in, with its size: the first that stands in it and measures the same."""
    wanted = dimension(node)
    if wanted == NONE:
        return None
    for unit in _units(node):
        if tuple(map(Fraction, UNITS[unit][0])) == wanted:
            return unit, UNITS[unit][1]
    for unit in _units(node):
        own = tuple(map(Fraction, UNITS[unit][0]))
        for power, sign in ((2, "²"), (3, "³")):
            if tuple(power * a for a in own) == wanted:
                return unit + sign, UNITS[unit][1] ** power
    for unit, (powers, size) in UNITS.items():
        if tuple(map(Fraction, powers)) == wanted and size == 1:
            return unit, size
    return None


def _units(node: Node) -> list[str]:
    return [node.name] if isinstance(node, Unit) else [name for child in children(node) for name in _units(child)]
