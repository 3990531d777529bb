"""From the meaning to the look: brackets only where they are needed, fractions with a bar, roots with a roof."""

from __future__ import annotations

import re

from larch.core.maths.expression.plain import is_unit
from larch.core.maths.expression.tree import Binary, Call, Joined, Name, Negative, Node, Number, Relation, Unit, strength
from larch.core.maths.layout.rows import Fence, Fraction, Grid, Limits, Lowered, Over, Raised, Root, Row, Sign, signs

FENCES = {"abs": ("|", "|"), "floor": ("⌊", "⌋"), "ceil": ("⌈", "⌉")}
AFTER = {"factorial": "!", "degrees": "°", "percent": "%", "permille": "‰"}
RAISED_NAMES = frozenset({"sin", "cos", "tan", "cot", "sec", "csc", "sinh", "cosh", "tanh", "ln"})
BARE = frozenset({*RAISED_NAMES, "log", "asin", "acos", "atan"})
NAMED = frozenset({"f", "g", "h"})
RECURRING = re.compile(r"([\d.]+)\((\d+)\)")


def row_of(node: Node) -> Row:
    """The row that shows a tree; read again it gives the same meaning."""
    return _row(node, False)


def _row(node: Node, closed: bool) -> Row:
    """closed: something follows that a function without brackets would take in."""
    match node:
        case Number(_, text):
            return _number(text)
        case Name(name):
            return _name(name)
        case Unit(name):
            return (Sign(name),)
        case Negative(of):
            return (Sign("−"), *_held(of, 3, closed))
        case Relation(op, left, right):
            return (*_row(left, False), Sign(op), *_row(right, False))
        case Joined(op, parts, chain):
            return _joined(op, parts, chain)
        case Call(function, arguments):
            return _call(function, arguments, closed)
        case Binary("/", left, right):
            if is_unit(node):
                return (*_row(left, True), Sign("/"), *_row(right, True))
            return (Fraction(_row(left, False), _row(right, False)),)
        case Binary("^", left, right):
            return _power(left, right, closed)
        case Binary("*", left, right):
            return _product(node, left, right, closed)
        case Binary(op, left, right):
            return (*_row(left, False), Sign("−" if op == "-" else "+"), *_held(right, 4 if _signed(right) else 2, closed))
    raise TypeError(node)


def _joined(op: str, parts: tuple[Node, ...], chain: bool) -> Row:
    found: list[Row] = []
    if chain and all(isinstance(part, Relation) for part in parts):
        row: Row = ()
        for k, part in enumerate(parts):
            assert isinstance(part, Relation)
            row = (*row, *(() if k else _row(part.left, False)), Sign(part.op), *_row(part.right, False))
        return row
    for part in parts:
        inner = _row(part, False)
        bracketed = isinstance(part, Joined) and not part.chain
        found.append((Fence("(", inner, ")"),) if bracketed else inner)
    row = found[0]
    for other in found[1:]:
        row = (*row, Sign(op), *other)
    return row


def _held(node: Node, needed: int, closed: bool) -> Row:
    """In brackets where it is looser than what holds it. A fraction's bar holds it together by itself."""
    holds = 4 if isinstance(node, Binary) and node.op == "/" and not is_unit(node) else strength(node)
    if isinstance(node, Number) and "/" in node.text:
        holds = 4
    signed = needed == 4 and _signed(node)
    return _row(node, closed) if holds >= needed and not signed else (Fence("(", _row(node, False), ")"),)


def _signed(node: Node) -> bool:
    """Whether it begins with a sign: after another it stands in brackets."""
    while isinstance(node, Binary) and node.op in "*^":
        node = node.left
    return isinstance(node, Negative) or (
        isinstance(node, Call) and node.function in ("±", "∓") and len(node.arguments) == 1
    )


def _number(text: str) -> Row:
    whole, _gap, fraction = text.rpartition(" ")
    above, slash, below = fraction.partition("/")
    if slash:
        return (*signs(whole), Fraction(signs(above), signs(below)))
    if recurring := RECURRING.fullmatch(text):
        return (*signs(recurring[1]), Over("bar", signs(recurring[2])))
    if "E" in text:
        base, _e, power = text.partition("E")
        return (*signs(base), Sign("×"), *signs("10"), Raised(signs(power.replace("-", "−").lstrip("+"))))
    return signs(text)


def _name(name: str) -> Row:
    letter, under, index = name.partition("_")
    if under:
        return (Sign(letter), Lowered(signs(index.replace("-", "−"))))
    if name.endswith(")") and len(name) > 3:
        return (Sign(name[0]), Fence("(", signs(name[2:-1]), ")"))
    return (Sign(name),)


def _product(node: Binary, left: Node, right: Node, closed: bool) -> Row:
    if node.implied and is_unit(right):
        return (*_held(left, 2, True), *_row(right, closed))
    first, second = _held(left, 2, True), _held(right, 4 if _signed(right) else 3, closed)
    return (*first, *_between(node, first, second), *second)


def _between(node: Binary, first: Row, second: Row) -> Row:
    """The sign of a product, where it has one or needs one."""
    last, following = first[-1], second[0]
    if isinstance(following, Sign) and following.text[:1].isdigit():
        return (Sign("×"),)
    if isinstance(last, Sign) and last.text[-1:].isdigit() and isinstance(following, Fraction):
        return (Sign("×"),)
    if not node.implied:
        return (Sign("⋅"),)
    if isinstance(last, Sign) and last.text in NAMED and isinstance(following, Fence):
        return (Sign("⋅"),)
    if isinstance(last, Sign) and isinstance(following, Fence | Grid) and (len(last.text) > 1 or last.text == "C"):
        return (Sign("⋅"),)
    if isinstance(last, Fence) and last.left == "|" and isinstance(following, Fence) and following.left == "|":
        return (Sign("⋅"),)
    if isinstance(last, Sign) and last.text == "d":
        return (Sign("⋅"),)
    return ()


def _power(left: Node, right: Node, closed: bool) -> Row:
    raised = Raised(_row(right, False))
    if isinstance(left, Call) and left.function in RAISED_NAMES and isinstance(right, Number) and right.value > 0:
        return (Sign(left.function), raised, *_argument(left.arguments, True))
    base = _held(left, 5, True)
    if isinstance(left, Number) and len(base) != sum(isinstance(item, Sign) for item in base):
        base = (Fence("(", base, ")"),)
    if isinstance(left, Call) and left.function in BARE:
        base = (Fence("(", _row(left, False), ")"),)
    return (*base, raised)


def _argument(arguments: tuple[Node, ...], closed: bool) -> Row:
    if len(arguments) == 1 and not closed and _is_simple(arguments[0]):
        return _row(arguments[0], True)
    inner: Row = ()
    for k, argument in enumerate(arguments):
        inner = (*inner, *((Sign(","),) if k else ()), *_row(argument, False))
    return (Fence("(", inner, ")"),)


def _is_simple(node: Node) -> bool:
    match node:
        case Name(name):
            return "(" not in name
        case Number(_, text):
            return "/" not in text and "(" not in text and "E" not in text
        case Call("degrees", (Number(),)):
            return True
        case Binary("*", Number(_, text), Name()):
            return node.implied and "/" not in text
    return False


def _call(function: str, arguments: tuple[Node, ...], closed: bool) -> Row:
    first = arguments[0]
    if function in FENCES:
        left, right = FENCES[function]
        return (Fence(left, _row(first, False), right),)
    if function in AFTER:
        return (*_held(first, 5, True), Sign(AFTER[function]))
    match function:
        case "sqrt":
            return (Root(_row(first, False)),)
        case "cbrt":
            return (Root(_row(first, False), signs("3")),)
        case "root":
            return (Root(_row(first, False), _row(arguments[1], False)),)
        case "±" | "∓":
            if len(arguments) == 1:
                return (Sign(function), *_held(first, 3, closed))
            return (*_held(first, 1, False), Sign(function), *_held(arguments[1], 2, closed))
        case "log" if len(arguments) == 2:
            return (Sign("log"), Lowered(_row(arguments[1], False)), *_argument(arguments[:1], True))
        case "binomial":
            return (Grid(((_row(first, False),), (_row(arguments[1], False),)), "(", ")", "choose"),)
        case "point":
            return _argument(arguments, True)
        case "matrix" | "cases" | "sum" | "product" | "integral" | "limit" | "derivative":
            return _large(function, arguments, closed)
    return (Sign(function), *_argument(arguments, closed or function not in BARE))


def _large(function: str, arguments: tuple[Node, ...], closed: bool) -> Row:
    if function == "matrix":
        lines = [row.arguments if isinstance(row, Call) else (row,) for row in arguments]
        return (Grid(tuple(tuple(_row(cell, False) for cell in line) for line in lines)),)
    if function == "cases":
        pairs = zip(arguments[::2], arguments[1::2], strict=True)
        return (Grid(tuple((_row(value, False), _condition(when)) for value, when in pairs), "{", ""),)
    body, letter = arguments[0], _row(arguments[1], False)
    if function == "derivative":
        return (Fraction((Sign("d"),), (Sign("d"), *letter)), Fence("(", _row(body, False), ")"))
    if function == "integral":
        low, high = (_row(arguments[2], False), _row(arguments[3], False)) if len(arguments) == 4 else ((), ())
        return (Limits("∫", low, high), *_held(body, 2, True), Sign("d"), *letter)
    if function == "limit":
        inner: Row = (Sign("lim"), Lowered((*letter, Sign("→"), *_row(arguments[2], False))))
        return (Limits("lim", (*letter, Sign("→"), *_row(arguments[2], False)), ()), *_held(body, 3, True)) if inner else ()
    sign = "∑" if function == "sum" else "∏"
    low = (*letter, Sign("="), *_row(arguments[2], False))
    made: Row = (Limits(sign, low, _row(arguments[3], False)), *_held(body, 3, True))
    return (Fence("(", made, ")"),) if closed else made


def _condition(node: Node) -> Row:
    return (Sign("otherwise"),) if isinstance(node, Call) and node.function == "otherwise" else _row(node, False)
