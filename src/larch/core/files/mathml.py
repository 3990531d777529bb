"""Equations as presentation MathML, so that other programs can read what is on a page."""

from __future__ import annotations

from larch.core.maths.expression import ExpressionError, parse
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, Relation, strength
from larch.core.model.page import Page
from larch.core.things.graphs.equation import Equation

SIGNS = {"+": "+", "-": "−", "*": "×"}
POWERED = ("sin", "cos", "tan", "ln", "log")
FENCES = {"abs": ("|", "|"), "floor": ("⌊", "⌋"), "ceil": ("⌈", "⌉")}


def escape(text: str) -> str:
    """For use between tags."""
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


def page_mathml(page: Page) -> list[tuple[str, bytes]]:
    """(id, document) of every equation that can be read."""
    found = []
    for thing in page.things:
        if isinstance(thing, Equation):
            try:
                found.append((thing.id, mathml(parse(thing.source)).encode()))
            except ExpressionError:
                continue
    return found


def mathml(node: Node) -> str:
    return f'<math xmlns="http://www.w3.org/1998/Math/MathML" display="block">{_row(node)}</math>\n'


def _sign(text: str) -> str:
    return f"<mo>{escape(text)}</mo>"


def _fenced(inner: str, left: str = "(", right: str = ")") -> str:
    return f"<mrow>{_sign(left)}{inner}{_sign(right)}</mrow>"


def _held(node: Node, needed: int) -> str:
    drawn = _row(node)
    fraction = isinstance(node, Binary) and node.op == "/"
    return drawn if (4 if fraction else strength(node)) >= needed else _fenced(drawn)


def _row(node: Node) -> str:
    match node:
        case Number(_, text):
            return _number(text)
        case Name(name):
            return f"<mi>{escape(name)}</mi>"
        case Negative(of):
            return f"<mrow>{_sign('−')}{_held(of, 3)}</mrow>"
        case Relation(op, left, right):
            return f"<mrow>{_row(left)}{_sign(op)}{_row(right)}</mrow>"
        case Binary("/", left, right):
            return f"<mfrac>{_row(left)}{_row(right)}</mfrac>"
        case Binary("^", Call(function, arguments), right) if function in POWERED:
            name = f"<msup><mi>{function}</mi>{_row(right)}</msup>"  # cos²x: the power stands at the function's name
            return _applied(name, [_row(argument) for argument in arguments])
        case Binary("^", left, right):
            return f"<msup>{_held(left, 5)}{_row(right)}</msup>"
        case Binary("*", left, right):
            sign = "\u2062" if node.implied else "×"
            return f"<mrow>{_held(left, 2)}{_sign(sign)}{_held(right, 3)}</mrow>"
        case Binary(op, left, right):
            return f"<mrow>{_row(left)}{_sign(SIGNS[op])}{_held(right, 2)}</mrow>"
        case Call(function, arguments):
            return _call(function, arguments)
    raise TypeError(node)


def _call(function: str, arguments: tuple[Node, ...]) -> str:
    inner = [_row(argument) for argument in arguments]
    if function in FENCES:
        return _fenced(inner[0], *FENCES[function])
    if function == "sqrt":
        return f"<msqrt>{inner[0]}</msqrt>"
    if function in ("cbrt", "root"):
        return f"<mroot>{inner[0]}{inner[1] if len(inner) > 1 else '<mn>3</mn>'}</mroot>"
    if function in ("factorial", "degrees"):
        return f"<mrow>{_held(arguments[0], 5)}{_sign('!' if function == 'factorial' else '°')}</mrow>"
    return _applied(f"<mi>{function}</mi>", inner)


def _applied(name: str, inner: list[str]) -> str:
    return f"<mrow>{name}{_sign(chr(0x2061))}{_fenced(_sign(',').join(inner))}</mrow>"


def _number(text: str) -> str:
    """A mixed number as its whole and its fraction, with an invisible plus between them."""
    whole, gap, share = text.partition(" ")
    above, slash, below = share.partition("/")
    if not (gap and slash):
        return f"<mn>{escape(text)}</mn>"
    return f"<mrow><mn>{whole}</mn>{_sign(chr(0x2064))}<mfrac><mn>{above}</mn><mn>{below}</mn></mfrac></mrow>"
