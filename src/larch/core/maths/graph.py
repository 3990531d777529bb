"""Graphs as arrays: the unbroken branches of a function, never joined across a pole, a jump or a gap."""

from __future__ import annotations

import math
from collections.abc import Mapping
from fractions import Fraction
from functools import lru_cache
from typing import TYPE_CHECKING, Any

import msgspec
from msgspec import Struct

from larch.core.base.words import _
from larch.core.maths.expression import ExpressionError, Node, names_in, values
from larch.core.maths.expression.tree import Binary, Call, Joined, Name, Negative, Number, Relation, children
from larch.core.maths.layout.reading import meaning
from larch.core.maths.recursion import before, first_names, firsts_of, rule_of

if TYPE_CHECKING:
    from numpy.typing import NDArray

SAMPLES = 512
COARSE = 64  # stretches that are looked at first
PARTS = 8
NARROWEST = 8.0**-12  # of the stretches that are looked at first
FEW = 12  # stretches that are cut more finely at once
MOST_STRETCHES = 6000  # bounds the work for functions that break everywhere


# Functions of which core.maths.expression.interval knows bounds; told here, since that needs NumPy and this does not.
BOUNDED = frozenset({
    "sin", "cos", "tan", "cot", "sec", "csc", "asin", "acos", "atan", "sinh", "cosh", "tanh", "sqrt", "cbrt", "root", "abs",
    "exp", "ln", "log", "floor", "ceil", "round", "sign", "min", "max", "mod", "degrees", "percent", "permille", "cases",
    "otherwise",
})  # fmt: skip


MARKED = ("x", "y", "t", "polar", "xy")  # along what curves run on which something stands out


class Curve(Struct, frozen=True, weakref=True):
    """What an equation means on axes.

    along "x": y is `formula` of x; along "y": x is `formula` of y (a vertical line, say); along "xy": `formula` of both is
    nothing on it; along "point": a place, `formula` being point(x, y); along "t": point(x, y) with the letter t
    running through `span`; along "polar": the distance from the origin, `formula` of the angle θ; along "n": members of a
    sequence; along "rule": members of one that begins with `firsts`, `formula` of those before (see
    `core.maths.recursion`), numbered from span[0]; along "field": the slope at each place.
    op: "=" for a line, or the comparison that says which side is meant, seen from the line (along "xy": what the formula is
    against nothing).
    """

    formula: Node
    along: str
    op: str = "="
    span: tuple[float, float] = (0.0, 2 * math.pi)
    firsts: tuple[Fraction, ...] = ()


class NotDrawn(ValueError):
    """The equation can't be drawn; the message says why in one sentence."""


@lru_cache(maxsize=256)
def curve_of(source: str, letters: tuple[tuple[str, str], ...] = ()) -> Curve:
    """What to draw for an equation; letters: of the page, with their values as text. Raises ExpressionError where it
    can't be read, NotDrawn where not drawn."""
    if (sequence := _ruled(meaning(source), dict(letters))) is not None:
        return sequence
    node = with_values(meaning(source), dict(letters)) if letters else meaning(source)
    if (point := _point_of(node)) is not None:
        if names_in(point) == {"t"}:
            return _drawn(Curve(Call("point", point.arguments), "t")) if isinstance(point, Call) else Curve(point, "t")
        if unknown := names_in(point):
            raise NotDrawn(_("The value of {name} is not known.").format(name=sorted(unknown)[0]))
        return Curve(point, "point")
    if isinstance(node, Joined):
        raise NotDrawn(_("Only one equation or inequality is drawn at a time."))
    if not isinstance(node, Relation):
        unknown = names_in(node) - {"x"}
        if unknown:
            raise NotDrawn(_("The value of {name} is not known.").format(name=sorted(unknown)[0]))
        return _drawn(Curve(node, "x"))
    own = _with_own_letter(node)
    if own is not None:
        return _drawn(own)
    if _is_function_name(node.left):
        node = Relation(node.op, Name("y"), node.right)
    node = _once(node)
    if unknown := names_in(node) - {"x", "y"}:
        raise NotDrawn(_("The value of {name} is not known.").format(name=sorted(unknown)[0]))
    if node.op == "≠":
        raise NotDrawn(_("“≠” has no graph of its own."))
    for name, other in (("y", "x"), ("x", "y")):
        found = solved(node, name, other)
        if found is not None:
            return _drawn(found)
    formula = Binary("-", node.left, node.right)
    if not names_in(formula) or all(_says_nothing(formula, name) for name in ("x", "y")):
        raise NotDrawn(_("It says nothing about x or y."))
    return _drawn(Curve(formula, "xy", node.op))


def _ruled(node: Node, letters: Mapping[str, str]) -> Curve | None:
    """A sequence by a rule, its first members beside it or among the letters; None if there is no such rule. Raises
    NotDrawn."""
    rules = [(part, rule) for part in (node.parts if isinstance(node, Joined) and node.op == "and" else (node,))
             if isinstance(part, Relation) and (rule := rule_of(part)) is not None]  # fmt: skip
    if not rules:
        return None
    found, rule = rules[0]
    known = dict(letters)
    for part in node.parts if isinstance(node, Joined) else ():
        match part:
            case Relation("=", Name(name), right) if not names_in(right) and name in first_names(rule):
                known[name] = _exact_text(right)
            case _ if part is not found:
                raise NotDrawn(_("Only one equation or inequality is drawn at a time."))
    begun = firsts_of(rule, known)
    if begun is None:
        wanted = ", ".join(f"{rule.letter}_{k + 1} = …" for k in range(rule.order))
        raise NotDrawn(_("Write how it begins, on the page or before it: {firsts}").format(firsts=wanted))
    formula = with_values(rule.formula, {name: value for name, value in known.items() if name != "n"})
    if unknown := names_in(formula) - {"n", *(before(k + 1) for k in range(rule.order))}:
        raise NotDrawn(_("The value of {name} is not known.").format(name=sorted(unknown)[0]))
    first, firsts = begun
    return Curve(formula, "rule", span=(float(first), math.inf), firsts=firsts)


def _exact_text(node: Node) -> str:
    from larch.core.maths.expression import Undefined, exact_at, value_at

    try:
        exact = exact_at(node)
        return str(exact if exact is not None else Fraction(float(value_at(node))))
    except (Undefined, OverflowError):
        raise NotDrawn(_("The first member has no value.")) from None


def _is_slope(node: Node) -> bool:
    """dy/dx, as a fraction or typed in a line."""
    d, x, y = Name("d"), Name("x"), Name("y")
    match node:
        case Binary("/", Binary("*", a, b), Binary("*", c, e)):
            return (a, b, c, e) == (d, y, d, x)
        case Binary("*", Binary("/", Binary("*", a, b), c), e):
            return (a, b, c, e) == (d, y, d, x)
    return False


def _with_own_letter(node: Relation) -> Curve | None:
    """r = f(θ), a_n = f(n), dy/dx = f(x, y)."""
    if node.op == "=" and _is_slope(node.left) and names_in(node.right) <= {"x", "y"}:
        return Curve(node.right, "field")
    if node.op != "=" or not isinstance(node.left, Name):
        return None
    if node.left.name == "r" and names_in(node.right) == {"θ"}:
        return Curve(node.right, "polar")
    if node.left.name.endswith("_n") and names_in(node.right) <= {"n"}:
        return Curve(node.right, "n", span=(1.0, math.inf))
    return None


def _once(node: Relation) -> Relation:
    """(x + y)² = 0 as x + y = 0: it changes no sign on its curve, by which that could be found."""
    match node:
        case Relation("=", Binary("^", inner, Number(power, _)), Number(right, _)) if right == 0 and power > 0:
            return _once(Relation("=", inner, node.right))
        case Relation("=", Number(left, _), Binary("^", inner, Number(power, _))) if left == 0 and power > 0:
            return _once(Relation("=", inner, node.left))
    return node


def _point_of(node: Node) -> Node | None:
    """(2, 3), A(2, 3) or A = (2, 3)."""
    match node:
        case Relation("=", Name(), right):
            node = right
        case Binary("*", Name(), right, True):
            node = right
    return node if isinstance(node, Call) and node.function == "point" and len(node.arguments) == 2 else None


def _says_nothing(formula: Node, name: str) -> bool:
    """Whether the letter falls out: 0y = 1."""
    from larch.core.maths.expression import Undefined, value_at

    parts = linear_parts(formula, name)
    try:
        return parts is not None and not names_in(parts[0]) and value_at(parts[0]) == 0
    except Undefined:
        return True


def _drawn(curve: Curve) -> Curve:
    if unknown := undrawn(curve.formula):
        raise NotDrawn(_("The graph of “{name}” is not drawn.").format(name=unknown))
    return curve


def undrawn(node: Node) -> str:
    """The first function in an expression of which no bounds are known, so that no branch can be proved; or ""."""
    if isinstance(node, Call) and node.function not in BOUNDED and node.function != "point":
        return node.function
    return next((found for child in children(node) if (found := undrawn(child))), "")


def with_values(node: Node, letters: Mapping[str, str]) -> Node:
    """With numbers in the place of letters."""
    match node:
        case Name(name) if name in letters:
            return Number(Fraction(letters[name]), letters[name])
        case Negative(of):
            return Negative(with_values(of, letters))
        case Binary(_, left, right) | Relation(_, left, right):
            return msgspec.structs.replace(node, left=with_values(left, letters), right=with_values(right, letters))
        case Call(function, arguments):
            return Call(function, tuple(with_values(argument, letters) for argument in arguments))
    return node


def _is_function_name(node: Node) -> bool:
    """f(x) on the left."""
    return isinstance(node, Name) and node.name.endswith("(x)")


def solved(node: Relation, name: str, other: str) -> Curve | None:
    """The relation solved for `name`, which must occur in it linearly, with a constant factor."""
    if node.left == Name(name) and name not in names_in(node.right):
        return Curve(node.right, other, node.op)
    flipped = {"<": ">", ">": "<", "≤": "≥", "≥": "≤"}
    if node.right == Name(name) and name not in names_in(node.left):
        return Curve(node.left, other, flipped.get(node.op, node.op))
    difference = Binary("-", node.left, node.right)
    parts = linear_parts(difference, name)
    if parts is None or names_in(parts[0]):
        return None
    factor, rest = parts
    from larch.core.maths.expression import Undefined, value_at

    try:
        size = value_at(factor)
    except Undefined:
        return None
    if size == 0:
        return None
    op = flipped.get(node.op, node.op) if size < 0 else node.op
    return Curve(Negative(Binary("/", rest, factor)), other, op)


ZERO, ONE = Number(Fraction(0), "0"), Number(Fraction(1), "1")


def linear_parts(node: Node, name: str) -> tuple[Node, Node] | None:
    """(a, b) with node = a·name + b and neither holding the name; None if it is not of that form."""
    if name not in names_in(node):
        return ZERO, node
    if node == Name(name):
        return ONE, ZERO
    if isinstance(node, Negative):
        inner = linear_parts(node.of, name)
        return None if inner is None else (Negative(inner[0]), Negative(inner[1]))
    if isinstance(node, Binary) and node.op in "+-":
        left, right = linear_parts(node.left, name), linear_parts(node.right, name)
        if left is None or right is None:
            return None
        return Binary(node.op, left[0], right[0]), Binary(node.op, left[1], right[1])
    if isinstance(node, Binary) and node.op in "*/":
        for factor, scaled in ((node.right, node.left), (node.left, node.right)):
            if name not in names_in(factor) and (node.op == "*" or factor is node.right):
                parts = linear_parts(scaled, name)
                return None if parts is None else (Binary(node.op, parts[0], factor), Binary(node.op, parts[1], factor))
    return None


def branches(formula: Node, low: float, high: float, variable: str = "x") -> list[NDArray[Any]]:
    """The graph over [low, high] as arrays of shape (n, 2), each an unbroken branch in order.

    Stretches are proved continuous by interval arithmetic, or cut up until they are; one that still cannot be
    proved at 8⁻¹² of its width, or has an undefined end, is where branches part. Samples lie at most a
    SAMPLES-th of the range apart.
    """
    import numpy as np

    from larch.core.maths.expression.interval import unbroken

    narrow = 1.5 * NARROWEST * (high - low) / COARSE
    edges = np.linspace(low, high, COARSE + 1)
    apart = [at + by for at in foreseen(formula, variable) if low < at < high for by in (-narrow, narrow)]
    if apart:
        edges = np.unique(np.clip(np.concatenate([edges, apart]), low, high))
    starts, ends = edges[:-1], edges[1:]
    proved: list[tuple[Any, Any]] = []
    width = 1.0  # of a stretch, as a share of the first ones
    while True:
        good = unbroken(formula, variable, starts, ends)
        proved.append((starts[good], ends[good]))
        left = ~good & (ends - starts > 2.5 * narrow)
        starts, ends = starts[left], ends[left]
        parts = PARTS if len(starts) > FEW or width < 1.5 * NARROWEST * PARTS else PARTS * PARTS
        if not len(starts) or len(starts) * PARTS > MOST_STRETCHES or width < 1.5 * NARROWEST:
            break
        cuts = starts[:, None] + (ends - starts)[:, None] * (np.arange(parts + 1) / parts)
        cuts[:, -1] = ends  # to the last bit, so that neighbours still meet
        width, first = width / parts, width == 1.0
        if not first:  # nothing will be found where no cut has a value
            known = np.isfinite(values(formula, **{variable: cuts.ravel()})).reshape(cuts.shape)
            cuts = cuts[known.any(axis=1)]
        starts, ends = cuts[:, :-1].ravel(), cuts[:, 1:].ravel()
    left = np.concatenate([start for start, _end in proved])
    right = np.concatenate([end for _start, end in proved])
    order = np.argsort(left)
    return _healed(
        formula, variable, _joined(formula, variable, left[order], right[order], (high - low) / SAMPLES), high - low
    )


def foreseen(formula: Node, variable: str) -> list[float]:
    """Where a divisor or what stands under a root or in a logarithm is nothing, as far as it is linear: there is no need to
    look for that place."""
    from larch.core.maths.expression import Undefined, value_at

    found: list[float] = []
    match formula:
        case Binary("/", _, inner) | Call("sqrt" | "ln" | "log", (inner, *_)):
            parts = linear_parts(inner, variable)
            if parts is not None and variable not in names_in(parts[0]) | names_in(parts[1]):
                try:
                    factor = float(value_at(parts[0]))
                    if factor:
                        found.append(-float(value_at(parts[1])) / factor)
                except (Undefined, OverflowError, ValueError):
                    pass
    for child in children(formula):
        found += foreseen(child, variable)
    return [at for at in found if math.isfinite(at)]


def _healed(formula: Node, variable: str, found: list[NDArray[Any]], width: float) -> list[NDArray[Any]]:
    """Branches that the proof had to part, though the function goes on: joined where it has a value at the round number
    between them and comes to that value from both sides, as x·floor(x) does at 0."""
    import numpy as np

    made: list[NDArray[Any]] = []
    for branch in found:
        if made and 0 < branch[0, 0] - made[-1][-1, 0] < 1e-9 * width:
            (x0, before), (x1, after) = made[-1][-1], branch[0]
            x = round(float(x0 + x1) / 2, 8)
            (there,) = values(formula, **{variable: np.array([x])})
            near = 1e-7 * (1 + abs(there))
            if x0 <= x <= x1 and abs(there - before) < near and abs(there - after) < near:
                between = [[x, there]] if x0 < x < x1 else np.empty((0, 2))
                made[-1] = np.concatenate([made[-1], between, branch])
                continue
        made.append(branch)
    return made


def _joined(formula: Node, variable: str, left: NDArray[Any], right: NDArray[Any], step: float) -> list[NDArray[Any]]:
    """Neighbouring proved stretches joined into branches, wide ones sampled at every `step`."""
    import numpy as np

    if not len(left):
        return []
    counts = np.maximum(1, np.ceil((right - left) / step - 1e-9)).astype(int)
    within = np.arange(counts.sum()) - np.repeat(np.cumsum(counts) - counts, counts)
    fine = np.repeat(left, counts) + within * np.repeat((right - left) / counts, counts)
    starts_at = np.cumsum(counts) - counts
    parting = np.flatnonzero(left[1:] != right[:-1]) + 1
    found = []
    for piece in np.split(np.arange(len(left)), parting):
        first, last = piece[0], piece[-1]
        at = np.append(fine[starts_at[first] : starts_at[last] + counts[last]], right[last])
        height = values(formula, **{variable: at})
        known = np.isfinite(height)
        if known.sum() > 1:
            found.append(np.column_stack([at[known], height[known]]))
    return found


def readable(source: str, letters: tuple[tuple[str, str], ...] = ()) -> str:
    """Why an equation is not drawn, in one sentence, or "" if it is."""
    try:
        curve_of(source, letters)
    except (ExpressionError, NotDrawn) as error:
        return str(error)
    return ""
