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


class Unit(Struct, frozen=True, weakref=True):
    """A unit that a number stands before: cm, kg, min."""

    name: str


class Joined(Struct, frozen=True, weakref=True):
    """Statements that hold all at once ("and"), or of which one holds ("or"). `chain`: written in one, as in 1 < x < 3."""

    op: str
    parts: tuple[Node, ...]
    chain: bool = False


Node = Number | Name | Negative | Binary | Call | Relation | Unit | Joined

CONSTANTS = {"π": "π", "pi": "π", "e": "e", "τ": "τ", "tau": "τ", "∞": "∞"}
VALUED = frozenset(CONSTANTS.values())


def children(node: Node) -> tuple[Node, ...]:
    match node:
        case Negative(of):
            return (of,)
        case Binary(_, left, right) | Relation(_, left, right):
            return (left, right)
        case Call(_, arguments):
            return arguments
        case Joined(_, parts):
            return parts
    return ()


BINDING = ("sum", "product", "integral", "derivative", "limit")


def states(node: Node) -> bool:
    """Whether it says something that is true or false."""
    return isinstance(node, Relation | Joined)


def names_in(node: Node) -> frozenset[str]:
    """The variables that occur, without the constants."""
    if isinstance(node, Name):
        return frozenset() if node.name in VALUED else frozenset([node.name])
    if isinstance(node, Call) and node.function in BINDING and len(node.arguments) > 1:
        bound = names_in(node.arguments[1])
        outer = frozenset().union(*(names_in(child) for child in node.arguments[2:]))
        inner = names_in(node.arguments[0])
        free = node.function == "derivative" or (node.function == "integral" and len(node.arguments) == 2)
        return outer | (inner if free else inner - bound)
    return frozenset().union(*(names_in(child) for child in children(node)))


STRENGTH = {"+": 1, "-": 1, "*": 2, "/": 2, "^": 4}


def strength(node: Node) -> int:
    """How tightly a node holds together: a looser one inside a tighter one needs brackets."""
    if isinstance(node, Binary):
        return STRENGTH[node.op]
    if isinstance(node, Negative):
        return 3
    if isinstance(node, Relation | Joined):
        return 0
    if isinstance(node, Call) and node.function == "±":
        return 1
    if isinstance(node, Number) and "/" in node.text:
        return 2
    return 5
