"""A solution put into the line that was given: true: 2 × 5 + 5 = 15."""

from __future__ import annotations

import msgspec

from larch.core.maths.algebra.write import whole
from larch.core.maths.expression.exactly import Undefined, exact_at
from larch.core.maths.expression.plain import reading
from larch.core.maths.expression.precise import holds
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Relation, names_in


def substituted(node: Node, name: str, value: Node) -> Node:
    """With a value in place of a letter; what was side by side is a product with a sign then."""
    match node:
        case Name(own):
            return value if own == name else node
        case Negative(of):
            return Negative(substituted(of, name, value))
        case Binary(op, left, right):
            a, b = substituted(left, name, value), substituted(right, name, value)
            plain = op == "*" and name in names_in(node)
            return msgspec.structs.replace(node, left=a, right=b, implied=node.implied and not plain)
        case Call(function, arguments):
            return Call(function, tuple(substituted(argument, name, value) for argument in arguments))
        case Relation(op, left, right):
            return Relation(op, substituted(left, name, value), substituted(right, name, value))
    return node


def proof(given: Node, last: Node) -> str:
    """The given equation with the solution of the last line in it, where that is one number and right; else ""."""
    match last:
        case Relation("=", Name(name), value) if not names_in(value):
            pass
        case _:
            return ""
    if not isinstance(given, Relation) or names_in(given) != {name} or given == last:
        return ""
    try:
        exact = exact_at(value)
        if exact is None or not holds(given, {name: exact}):
            return ""
    except Undefined:
        return ""
    return reading(substituted(given, name, whole(exact))).replace("·", "×")
