"""The tree of an expression, and how it is read back in one line."""

from __future__ import annotations

from fractions import Fraction

from msgspec import Struct


class ExpressionError(ValueError):
    """Could not be read. `position` counts characters from 0 to where it went wrong."""

    def __init__(self, message: str, position: int) -> None:
        super().__init__(message)
        self.message = message
        self.position = position


class Number(Struct, frozen=True, weakref=True):
    value: Fraction
    text: str


class Name(Struct, frozen=True, weakref=True):
    """A variable, or one of the constants π, e and τ."""

    name: str


class Negative(Struct, frozen=True, weakref=True):
    of: Node


class Binary(Struct, frozen=True, weakref=True):
    """op is one of + - * / ^; `implied` marks a product written side by side."""

    op: str
    left: Node
    right: Node
    implied: bool = False


class Call(Struct, frozen=True, weakref=True):
    """A function of one or two arguments; "abs", "factorial" and "degrees" too."""

    function: str
    arguments: tuple[Node, ...]


class Relation(Struct, frozen=True, weakref=True):
    """op is one of = < > ≤ ≥ ≠."""

    op: str
    left: Node
    right: Node


Node = Number | Name | Negative | Binary | Call | Relation

CONSTANTS = {"π": "π", "pi": "π", "e": "e", "τ": "τ", "tau": "τ"}


def children(node: Node) -> tuple[Node, ...]:
    match node:
        case Negative(of):
            return (of,)
        case Binary(_, left, right) | Relation(_, left, right):
            return (left, right)
        case Call(_, arguments):
            return arguments
    return ()


def names_in(node: Node) -> frozenset[str]:
    """The variables that occur, without the constants."""
    if isinstance(node, Name):
        return frozenset() if node.name in CONSTANTS.values() else frozenset([node.name])
    return frozenset().union(*(names_in(child) for child in children(node)))


SIGNS = {"+": " + ", "-": " − ", "*": " · ", "/": "/"}
STRENGTH = {"+": 1, "-": 1, "*": 2, "/": 2, "^": 4}


def strength(node: Node) -> int:
    """How tightly a node holds together: a looser one inside a tighter one needs brackets."""
    if isinstance(node, Binary):
        return STRENGTH[node.op]
    if isinstance(node, Negative):
        return 3
    if isinstance(node, Relation):
        return 0
    if isinstance(node, Number) and "/" in node.text:
        return 2
    return 5


def reading(node: Node) -> str:
    """One line that says unmistakably how the expression was understood."""
    match node:
        case Number(_, text):
            return text
        case Name(name):
            return name
        case Negative(of):
            return "−" + _bracketed(of, 3)
        case Relation(op, left, right):
            return f"{reading(left)} {op} {reading(right)}"
        case Call("abs", (inner,)):
            return f"|{reading(inner)}|"
        case Call("factorial", (inner,)):
            return _bracketed(inner, 5) + "!"
        case Call("degrees", (inner,)):
            return _bracketed(inner, 5) + "°"
        case Call(function, arguments):
            return f"{function}({', '.join(reading(argument) for argument in arguments)})"
        case Binary("^", left, right):
            return f"{_bracketed(left, 5)}^{_bracketed(right, 4)}"
        case Binary(op, left, right):
            own = STRENGTH[op]
            sign = "·" if op == "*" and node.implied else SIGNS[op]
            return _bracketed(left, own) + sign + _bracketed(right, own + 1)
    raise TypeError(node)


def _bracketed(node: Node, needed: int) -> str:
    text = reading(node)
    return text if strength(node) >= needed else f"({text})"
