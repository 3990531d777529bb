"""Mathematics in words, as it is read aloud in class."""

from __future__ import annotations

from larch.core.base.words import N_, _
from larch.core.maths.expression.tree import Binary, Call, Joined, Name, Negative, Node, Number, Relation, Unit, strength

RELATIONS = {
    "=": N_("equals"), "<": N_("is less than"), ">": N_("is greater than"), "≤": N_("is at most"), "≥": N_("is at least"),
    "≠": N_("is not"),
}  # fmt: skip
SIGNS = {"+": N_("plus"), "-": N_("minus"), "*": N_("times")}
FUNCTIONS = {
    "sin": N_("the sine of"), "cos": N_("the cosine of"), "tan": N_("the tangent of"), "ln": N_("the natural logarithm of"),
    "sqrt": N_("the square root of"), "cbrt": N_("the cube root of"), "abs": N_("the size of"),
    "floor": N_("the whole part below"), "ceil": N_("the whole number above"), "asin": N_("the arc sine of"),
    "acos": N_("the arc cosine of"), "atan": N_("the arc tangent of"),
}  # fmt: skip
PARTS = {2: N_("half"), 3: N_("third"), 4: N_("quarter"), 5: N_("fifth"), 6: N_("sixth"), 8: N_("eighth"), 10: N_("tenth")}


def spoken(node: Node) -> str:
    """One sentence without signs."""
    match node:
        case Number(_, text):
            return _number(text)
        case Name(name):
            return name.replace("_", " ")
        case Unit(name):
            return name
        case Negative(of):
            return f"{_('minus')} {_held(of, 3)}"
        case Relation(op, left, right):
            return f"{spoken(left)} {_(RELATIONS[op])} {spoken(right)}"
        case Joined(op, parts):
            return f" {_('and') if op == 'and' else _('or')} ".join(map(spoken, parts))
        case Binary("/", left, right):
            return _quotient(left, right)
        case Binary("^", left, right):
            return _power(left, right)
        case Binary("*", left, right) if node.implied:
            return f"{_held(left, 2)} {_held(right, 3)}"
        case Binary(op, left, right):
            return f"{_held(left, strength(node))} {_(SIGNS[op])} {_held(right, strength(node) + 1)}"
        case Call(function, arguments):
            return _call(function, arguments)
    raise TypeError(node)


def _number(text: str) -> str:
    whole, gap, share = text.partition(" ")
    if gap:
        above, _slash, below = share.partition("/")
        return _("{whole} and {above} over {below}").format(whole=whole, above=above, below=below)
    return text.replace(".", f" {_('point')} ") if "(" not in text else _("{number} recurring").format(number=text)


def _held(node: Node, needed: int) -> str:
    text = spoken(node)
    return text if strength(node) >= needed else _("open bracket {inner} close bracket").format(inner=text)


def _quotient(left: Node, right: Node) -> str:
    part = PARTS.get(int(right.text)) if isinstance(right, Number) and right.text.isdigit() else None
    if part is not None and isinstance(left, Number) and left.text == "1":
        return _("one {part}").format(part=_(part))
    if strength(left) >= 3 and strength(right) >= 3:
        return _("{above} over {below}").format(above=spoken(left), below=spoken(right))
    return _("the fraction {above} over {below}, end of fraction").format(above=spoken(left), below=spoken(right))


def _power(left: Node, right: Node) -> str:
    base = _held(left, 5)
    if isinstance(right, Number) and right.text in ("2", "3"):
        return f"{base} {_('squared') if right.text == '2' else _('cubed')}"
    return _("{base} to the power {exponent}").format(base=base, exponent=_held(right, 4))


def _call(function: str, arguments: tuple[Node, ...]) -> str:
    inner = [spoken(argument) for argument in arguments]
    if function in FUNCTIONS:
        end = f", {_('end of root')}" if function == "sqrt" and strength(arguments[0]) < 5 else ""
        return f"{_(FUNCTIONS[function])} {inner[0]}{end}"
    if function in ("factorial", "degrees", "percent"):
        words = {"factorial": _("factorial"), "degrees": _("degrees"), "percent": _("percent")}
        return f"{_held(arguments[0], 5)} {words[function]}"
    if function == "±":
        return f" {_('plus or minus')} ".join(inner) if len(inner) > 1 else f"{_('plus or minus')} {inner[0]}"
    if function == "log":
        base = inner[1] if len(inner) > 1 else "10"
        return _("the logarithm to base {base} of {inner}").format(base=base, inner=inner[0])
    if function == "root":
        return _("root number {degree} of {inner}").format(degree=inner[1], inner=inner[0])
    return _("{function} of {inner}").format(function=function, inner=", ".join(inner))
