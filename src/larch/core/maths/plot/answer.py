"""What `larch plot` answers, as plain values; called in the worker."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction
from typing import Any

from larch.core.base.words import _
from larch.core.maths.algebra.answers import Unread
from larch.core.maths.algebra.critical import critical_points, is_periodic, samples
from larch.core.maths.algebra.worked_cases import parts_of
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.precise import Value, as_float, decimal
from larch.core.maths.expression.tree import (
    Binary,
    Call,
    ExpressionError,
    Joined,
    Name,
    Negative,
    Node,
    Number,
    Relation,
    names_in,
)
from larch.core.maths.layout.reading import meaning
from larch.core.maths.plot.breaks import slowly
from larch.core.maths.plot.drawing import branches
from larch.core.maths.plot.features import Break, Features, features

MOST_MARKS = 120


def plot_answer(expr: str, low: float, high: float) -> dict[str, Any]:
    """{"kind", "branches", "features"}. Raises Unread with one sentence."""
    if not low < high:
        raise Unread(_("x goes from a smaller to a larger number."))
    try:
        node = meaning(expr)
    except ExpressionError as error:
        raise Unread(f"“{expr.strip()[:60]}”: {error.message}") from error
    try:
        kind, formula, name = function_of(node)
    except Unread:
        if isinstance(node, Relation) and node.op == "=" and names_in(node) == {"x", "y"}:
            from larch.core.maths.plot.curve import curve_answer

            return curve_answer(Binary("-", node.left, node.right), low, high)
        raise
    found = features(formula, name, low, high)
    drawn = branches(formula, name, low, high, found)
    if kind == "x of y":
        drawn = [[(y, x) for x, y in branch] for branch in drawn]
    return {
        "kind": kind,
        "branches": [[list(point) for point in branch] for branch in drawn],
        "features": _told(formula, name, found),
    }


def curve_marks(expr: str, letters: dict[str, str], along: str, *ends: float) -> list[dict[str, Any]]:
    """As `plot_marks`, of a curve along "t" or "polar" (ends: of its letter) or "xy" (ends: of the window), "at" being x
    and "height" y. Raises Unread."""
    from larch.core.maths.graph import Curve, NotDrawn, curve_of
    from larch.core.maths.plot.running import curve_places, run_places

    try:
        curve = curve_of(expr, tuple(letters.items()))
    except (ExpressionError, NotDrawn) as error:
        raise Unread(str(error)) from error
    if along == "xy":
        found = curve_places(curve.formula, (ends[0], ends[1], ends[2], ends[3]))
    else:
        found = run_places(Curve(curve.formula, along, span=(ends[0], ends[1])))
    return [
        {"kind": kind, "at": as_float(x), "height": as_float(y), "text": _pair(x, y)} for kind, x, y in found[:MOST_MARKS]
    ]


def plot_marks(expr: str, letters: dict[str, str], low: float, high: float) -> list[dict[str, Any]]:
    """What stands out on the graph of a function, from left to right: {"kind", "at", "height", "text"}, with "zero", "axis"
    (where the letter is 0), "minimum", "maximum", "inflection", "pole" (height null), and at breaks "open" and "closed" for
    ends that do not and do belong to it. text: its coordinates, exactly where that is short. Raises Unread."""
    from larch.core.maths.graph import with_values

    try:
        node = with_values(meaning(expr), letters)
    except ExpressionError as error:
        raise Unread(error.message) from error
    _kind, formula, name = function_of(node)
    found = features(formula, name, low, high)
    places: list[tuple[str, Value, Value | None]] = [("zero", x, Fraction(0)) for x in found.roots]
    places += [(kind, x, slowly(formula, name, x)) for x, kind in found.extrema]
    places += [("inflection", x, y) for x, y in found.inflections]
    if found.y_intercept is not None and low <= 0 <= high:
        places.append(("axis", Fraction(0), found.y_intercept))
    for one in found.breaks:
        places += [("pole", one.x, None)] if one.kind == "pole" else []
        places += _ends(one)
    told = sorted(places, key=lambda place: float(as_float(place[1])))
    return [
        {"kind": kind, "at": as_float(x), "height": None if y is None else as_float(y), "text": _pair(x, y)}
        for kind, x, y in told[:MOST_MARKS]
    ]


def plot_meetings(
    one: tuple[str, dict[str, str]], other: tuple[str, dict[str, str]], low: float, high: float
) -> list[dict[str, Any]]:
    """Where two functions of the same letter have the same value, as marks of the kind "meeting". Raises Unread."""
    from larch.core.maths.graph import with_values

    made = []
    for expr, letters in (one, other):
        try:
            made.append(function_of(with_values(meaning(expr), letters)))
        except ExpressionError as error:
            raise Unread(error.message) from error
    (kind, first, name), (other_kind, second, other_name) = made
    if kind != other_kind:
        raise Unread(_("They are not functions of the same letter."))
    name = name if name in names_in(first) else other_name
    found = features(Binary("-", first, second), name, low, high)
    told = [(x, slowly(first, name, x)) for x in found.roots]
    return [
        {"kind": "meeting", "at": as_float(x), "height": as_float(y), "text": _pair(x, y)}
        for x, y in told[:MOST_MARKS] if y is not None
    ]  # fmt: skip


def _ends(one: Break) -> list[tuple[str, Value, Value | None]]:
    """Where branches end at a break: open where the value there is another, closed where it is that."""
    if one.kind not in ("hole", "jump", "end"):
        return []
    limits = [side.limit for side in (one.left, one.right) if side.kind == "finite"]
    value = one.value
    made: list[tuple[str, Value, Value | None]] = []
    for limit in limits:
        if value is None or abs(decimal(limit) - decimal(value)) > 1e-6 * (1 + abs(decimal(limit))):
            near = round(as_float(limit), 9)
            made.append(("open", one.x, Fraction(near).limit_denominator(10**6) if near == round(near, 4) else limit))
    if value is not None:
        made.append(("closed", one.x, value))
    return made if one.kind != "end" or limits else []


def _pair(x: Value, y: Value | None) -> str:
    return _short(x) if y is None else f"({_short(x)}; {_short(y)})"


def _short(value: Value) -> str:
    """As a fraction if that is short, else to three places."""
    if isinstance(value, Fraction) and value.denominator in (3, 6, 7, 9, 11, 12):
        return f"{value.numerator}/{value.denominator}".replace("-", "−")
    text = f"{as_float(value):.3f}".rstrip("0").rstrip(".")
    return "0" if text == "-0" else text.replace("-", "−")


def function_of(node: Node) -> tuple[str, Node, str]:
    """What kind of graph it is, the formula and its letter. Raises Unread."""
    if isinstance(node, Relation) and node.op == "=":
        names = names_in(node.right)
        if isinstance(node.left, Name) and node.left.name not in names and (node.left.name != "x"):
            node = node.right
        elif node.left == Name("x") and names <= {"y"}:
            return "x of y", node.right, "y"
        elif isinstance(node.right, Name) and node.right.name == "y" and "y" not in names_in(node.left):
            node = node.left
        else:
            node = _solved_for_y(node)
    elif isinstance(node, Relation | Joined):
        raise Unread(_("Only functions are drawn here."))
    names = names_in(node)
    if len(names) > 1:
        raise Unread(_("The value of {name} is not known.").format(name=sorted(names - {"x"})[0]))
    return "function", node, next(iter(names), "x")


def _solved_for_y(node: Relation) -> Node:
    """Where y occurs linearly, whatever its factor: x y = 1 is y = 1/x, and has no point at 0."""
    from larch.core.maths.graph import linear_parts

    parts = linear_parts(Binary("-", node.left, node.right), "y") if "y" in names_in(node) else None
    if parts is None:
        raise Unread(_("Only equations that can be solved for y are drawn here."))
    factor, rest = parts
    number = None if names_in(factor) else slowly(factor, "x", Fraction(0))
    if number == 0 or (number is None and not names_in(factor)):
        raise Unread(_("Only equations that can be solved for y are drawn here."))
    return Negative(Binary("/", rest, factor))


def _told(node: Node, name: str, found: Features) -> dict[str, Any]:
    holes = [one for one in found.breaks if one.kind == "hole"]
    return {
        "roots": _numbers(found.roots),
        "extrema": [{"x": as_float(x), "y": _height(node, name, x), "kind": kind} for x, kind in found.extrema],
        "inflections": [[as_float(x), as_float(y)] for x, y in found.inflections],
        "poles": _numbers([one.x for one in found.breaks if one.kind == "pole"]),
        "holes": [[as_float(one.x), float(one.left.limit)] for one in holes],
        "jumps": _numbers([one.x for one in found.breaks if one.kind == "jump"]),
        "y_intercept": None if found.y_intercept is None else as_float(found.y_intercept) + 0.0,
        "domain": domain(node, name),
    }


def _numbers(values: Sequence[Value]) -> list[float]:
    return [as_float(value) + 0.0 for value in values]


def _height(node: Node, name: str, x: Value) -> float:
    value = slowly(node, name, x)
    return 0.0 if value is None else as_float(value)


def domain(node: Node, name: str) -> str:
    """Where it is defined, in the signs of school."""
    if name not in names_in(node):
        return _("all real numbers")
    points = critical_points([node], name, {})
    periodic = is_periodic(node)
    cells: list[tuple[str, Value | None, bool]] = []
    for place, exact in samples(points, periodic):
        defined = slowly(node, name, place) is not None
        if exact:
            cells.append(("point", place, defined))
        elif not (cells and cells[-1][0] == "gap"):
            cells.append(("gap", None, defined))
    if all(defined for _kind, _place, defined in cells):
        return _("all real numbers")
    if not any(defined for _kind, _place, defined in cells):
        return _("nowhere")
    apart = [place for kind, place, true in _merged(cells) if kind == "point" and not true and place is not None]
    if periodic and len(apart) > 3 and all(true for kind, _place, true in cells if kind == "gap"):
        near = sorted(apart, key=lambda place: abs(float(place)))[:2]
        first, second = sorted(near, key=float)
        gap = compact(_node(second - first if isinstance(first, type(second)) else decimal(second) - decimal(first)))
        return _("{name} ≠ {first} + k*{gap} for every whole number k").format(
            name=name, first=compact(_node(second)), gap=gap
        )
    parts = parts_of(_merged(cells), name, _node)
    if periodic and len(parts) > 4:
        return " or ".join(map(compact, parts[len(parts) // 2 - 1 : len(parts) // 2 + 2])) + " …"
    return " or ".join(map(compact, parts))


def _merged(cells: Sequence[tuple[str, Value | None, bool]]) -> list[tuple[str, Value | None, bool]]:
    """Without the points between two cells that are all alike."""
    kept = list(cells)
    k = 1
    while k < len(kept) - 1:
        if kept[k][0] == "point" and kept[k - 1][2] == kept[k][2] == kept[k + 1][2]:
            del kept[k : k + 2]
        else:
            k += 1
    return kept


def _node(value: Value) -> Node:
    from larch.core.maths.algebra.worked_cases import node_of

    if isinstance(value, Fraction):
        return node_of(value, [])
    share = float(value) / 3.141592653589793
    for below in (1, 2, 3, 4, 6):
        if abs(share * below - round(share * below)) < 1e-12 and round(share * below):
            from larch.core.maths.algebra.write import times

            return times(Fraction(round(share * below), below), Name("π"))
    root = float(value) ** 2
    if abs(root - round(root)) < 1e-9 and round(root) < 10**6:
        inner = Call("sqrt", (Number(Fraction(round(root)), str(round(root))),))
        from larch.core.maths.expression.tree import Negative

        return Negative(inner) if value < 0 else inner
    return node_of(value, [])
