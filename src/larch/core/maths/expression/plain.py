"""How an expression is written in one line of plain text, so that reading it again gives the same tree."""

from __future__ import annotations

from larch.core.maths.expression.tree import (
    STRENGTH,
    Binary,
    Call,
    Joined,
    Name,
    Negative,
    Node,
    Number,
    Relation,
    Unit,
    strength,
)

SIGNS = {"+": " + ", "-": " − ", "*": " · ", "/": "/"}
AFTER = {"factorial": "!", "degrees": "°", "percent": "%", "permille": "‰"}
BESIDE = ("sqrt", "sin", "cos", "tan")
ROUND = {"abs": "||", "floor": "⌊⌋", "ceil": "⌈⌉"}


def reading(node: Node) -> str:
    """One line that says unmistakably how the expression was understood."""
    match node:
        case Number(_, text):
            return text
        case Name(name) | Unit(name):
            return f"{name[:2]}({name[2:]})" if name[1:2] == "_" and not name[2:].isalnum() else name
        case Negative(of):
            return "−" + _bracketed(of, 3)
        case Relation(op, left, right):
            return f"{reading(left)} {op} {reading(right)}"
        case Joined(op, parts, chain):
            return _joined(op, parts, chain)
        case Call(function, arguments):
            return _call(function, arguments)
        case Binary("^", left, right):
            return f"{_bracketed(left, 5)}^{_bracketed(right, 4)}"
        case Binary("*", left, right) if node.implied and is_unit(right):
            return f"{_bracketed(left, 2)} {reading(right)}"
        case Binary(op, left, right):
            own = STRENGTH[op]
            sign = "·" if op == "*" and node.implied else SIGNS[op]
            return _bracketed(left, own) + sign + _bracketed(right, own + 1)
    raise TypeError(node)


def is_unit(node: Node) -> bool:
    """Whether it is made of units alone: cm, cm^2, km/h."""
    match node:
        case Unit():
            return True
        case Binary("^", left, Number()):
            return is_unit(left)
        case Binary("/", left, right):
            return is_unit(left) and is_unit(right)
    return False


def _joined(op: str, parts: tuple[Node, ...], chain: bool) -> str:
    if chain and all(isinstance(part, Relation) for part in parts):
        relations = [part for part in parts if isinstance(part, Relation)]
        return reading(relations[0].left) + "".join(f" {part.op} {reading(part.right)}" for part in relations)
    inner = [f"({reading(part)})" if isinstance(part, Joined) and not part.chain else reading(part) for part in parts]
    return f" {op} ".join(inner)


def _call(function: str, arguments: tuple[Node, ...]) -> str:
    first = arguments[0] if arguments else None
    if function in AFTER and first is not None:
        return _bracketed(first, 5) + AFTER[function]
    if function in ROUND and first is not None:
        left, right = ROUND[function][0], ROUND[function][1]
        return f"{left}{reading(first)}{right}"
    if function == "±" and first is not None:
        if len(arguments) == 1:
            return "±" + _bracketed(first, 3)
        return f"{_bracketed(first, 1)} ± {_bracketed(arguments[1], 2)}"
    if function == "point":
        return f"({', '.join(map(reading, arguments))})"
    if function == "row":
        return f"[{', '.join(map(reading, arguments))}]"
    if function == "cases" and isinstance(last := arguments[-1], Call) and last.function == "otherwise":
        arguments = arguments[:-1]
    if function == "matrix":
        return f"[{', '.join(map(reading, arguments))}]"
    return f"{function}({', '.join(map(reading, arguments))})"


def _bracketed(node: Node, needed: int) -> str:
    text = reading(node)
    return text if strength(node) >= needed else f"({text})"


def compact(node: Node) -> str:
    """As it is written in class, in one line: 2x + 5 = 15. Only signs of every keyboard; read again it means the same."""
    return _compact(node).replace("−", "-")


def _compact(node: Node) -> str:
    match node:
        case Negative(of):
            return "-" + (_compact(of) if isinstance(of, Binary) and of.op in "*/" else _held_compactly(of, 3))
        case Relation(op, left, right):
            return f"{_compact(left)} {op} {_compact(right)}"
        case Joined(op, parts, False):
            return f" {op} ".join(
                f"({_compact(p)})" if isinstance(p, Joined) and not p.chain else _compact(p) for p in parts
            )
        case Joined(_, parts):
            relations = [part for part in parts if isinstance(part, Relation)]
            return _compact(relations[0].left) + "".join(f" {part.op} {_compact(part.right)}" for part in relations)
        case Call(function, arguments) if function not in ROUND and function not in AFTER and function not in ("±", "point"):
            if function in ("matrix", "row"):
                return reading(node)
            return f"{function}({', '.join(map(_compact, arguments))})"
        case Call("±", (one, other)):
            return f"{_held_compactly(one, 1)} ± {_held_compactly(other, 2)}"
        case Call("±", (one,)):
            return f"±{_held_compactly(one, 3)}"
        case Call(function, (of,)) if function in AFTER:
            return _held_compactly(of, 5) + AFTER[function]
        case Binary("^", left, right):
            return f"{_held_compactly(left, 5)}^{_held_compactly(right, 4)}"
        case Binary("*", left, right) if _side_by_side(left, right):
            return _held_compactly(left, 2) + _held_compactly(right, 3)
        case Binary(op, left, right):
            sign = {"+": " + ", "-": " - ", "*": "*", "/": "/"}[op]
            return _held_compactly(left, STRENGTH[op]) + sign + _held_compactly(right, STRENGTH[op] + 1)
    return reading(node)


def _held_compactly(node: Node, needed: int) -> str:
    text = _compact(node)
    return text if strength(node) >= needed else f"({text})"


def _side_by_side(left: Node, right: Node) -> bool:
    """Whether a product needs no sign: 2x, xy, 2(x + 1), (x − 2)(x − 3), 3x^2."""
    first = right
    while isinstance(first, Binary) and first.op in "*^" and strength(first) >= 3:
        first = first.left
    in_brackets = strength(right) < 3 and not isinstance(right, Number)
    begins = isinstance(first, Name) or in_brackets or (isinstance(first, Call) and first.function in BESIDE)
    last = left
    while isinstance(last, Binary) and last.op == "*":
        last = last.right
    if isinstance(last, Name) and (in_brackets or isinstance(first, Call)):
        return False  # f(x) would be a function
    number = isinstance(last, Number) and "/" not in last.text
    power = isinstance(last, Binary) and last.op == "^" and isinstance(last.right, Number)
    return begins and (number or power or isinstance(last, Name) or (strength(last) < 2 and in_brackets))
