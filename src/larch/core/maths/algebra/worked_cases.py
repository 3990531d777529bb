"""Equations with sizes, roots, powers and logarithms, and inequalities by trying between the places where they change."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from fractions import Fraction

from larch.core.base.words import _
from larch.core.maths.algebra.bridge import difference_of, from_package, package
from larch.core.maths.algebra.critical import critical_points, is_periodic, samples
from larch.core.maths.algebra.polynomials import as_fraction, ratio_of
from larch.core.maths.algebra.statements import letters, relations_of, sum_of_terms, terms_of, written_out
from larch.core.maths.algebra.steps import Done, Step, Unsolved, both_sides, everything, in_order, nothing, solutions, tried
from larch.core.maths.algebra.worked_equations import factored, polynomial_relation, product_of, rational_equation
from larch.core.maths.algebra.write import polynomial, whole
from larch.core.maths.expression.exactly import NotRational, Undefined
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.precise import Value, decimal, holds, mp, precise
from larch.core.maths.expression.tree import Binary, Call, Joined, Name, Negative, Node, Number, Relation, names_in

DEEPEST = 4
MOST_FOUND, NEAR_END = 6, 15


def by_cases(node: Node, name: str, depth: int = 0) -> Done | None:
    """Equations in which one part holds the letter in a size, root, power or logarithm."""
    if not isinstance(node, Relation) or node.op != "=" or len(letters([node])) > 1 or depth > DEEPEST:
        return None
    steps: list[Step] = []
    alone = _isolated(node, name, steps)
    if alone is None:
        return None
    for way in (_size, _root, _exponential, _logarithm):
        found = way(node, alone, name, steps, depth)
        if found is not None:
            return found
    return None


def solve(node: Node, name: str, depth: int) -> Done | None:
    for way in (polynomial_relation, rational_equation):
        found = way(node, name)
        if found is not None:
            return found
    return by_cases(node, name, depth + 1)


def _special(node: Node, name: str) -> bool:
    """A part of a kind that is undone by itself: |A|, √A, b^A, log A."""
    match node:
        case Call("abs" | "sqrt" | "cbrt" | "ln" | "log" | "exp", arguments):
            return name in names_in(arguments[0])
        case Binary("^", base, exponent):
            return name in names_in(exponent) and name not in names_in(base)
    return False


def _isolated(node: Relation, name: str, steps: list[Step]) -> Relation | None:
    """The special part alone on the left: 2√x + 1 = 7 as √x = 3."""
    if _special(node.left, name):
        return node
    if _special(node.right, name) and not _special(node.left, name):
        return Relation("=", node.right, node.left)
    terms = [
        *((sign, term, True) for sign, term in terms_of(node.left)),
        *((sign, term, False) for sign, term in terms_of(node.right)),
    ]
    special = [one for one in terms if _coefficient(one[1], name) is not None]
    if len(special) != 1:
        return None
    sign, term, on_left = special[0]
    factor, part = _coefficient(term, name) or (Fraction(1), term)
    factor *= sign if on_left else -sign
    rest = [(-s if left else s, other) for s, other, left in terms if (s, other, left) != special[0]]
    other_side = _tidy(sum_of_terms([(s, t) for s, t in rest if t != whole(0)]), name)
    if len(terms) > 2 or not on_left:
        steps.append(Step(Relation("=", _scaled(factor, part), other_side), _("leave it alone on one side")))
    if factor != 1:
        other_side = _tidy(Binary("/", other_side, whole(factor)), name)
        steps.append(Step(Relation("=", part, other_side), both_sides("÷", whole(factor))))
    return Relation("=", part, other_side)


def _scaled(factor: Fraction, part: Node) -> Node:
    from larch.core.maths.algebra.write import times

    return times(factor, part)


def _coefficient(term: Node, name: str) -> tuple[Fraction, Node] | None:
    if _special(term, name):
        return Fraction(1), term
    match term:
        case Binary("*", Number(value, _), part) if _special(part, name):
            return value, part
        case Binary("/", part, Number(value, _)) if _special(part, name) and value:
            return 1 / value, part
        case Binary("/", Binary("*", Number(above, _), part), Number(below, _)) if _special(part, name) and below:
            return above / below, part
    return None


def _tidy(node: Node, name: str) -> Node:
    from larch.core.maths.algebra.manifold import many_of, written

    try:
        return written(many_of(node))
    except NotRational:
        return node


def _after(given: Relation, line: Node, reason: str, name: str, steps: list[Step], depth: int) -> Done | None:
    """A line that follows, solved, and its values tried in what was given."""
    steps.append(Step(line, reason))
    inner = solve(line, name, depth)
    if inner is None:
        return None
    values = [one.right for one in inner.answer if isinstance(one, Relation) and one.op == "="]
    if not values:
        return Done((*steps, *inner.steps), inner.answer)
    kept = tried(given, name, values)
    made = [*steps, *inner.steps]
    if not kept:
        return Done(tuple(made), (_("no solution"),))
    reason = _("tried in the line that was given: the others are left out") if len(kept) < len(values) else ""
    return solutions(name, in_order(kept), made, reason)


def _size(given: Relation, alone: Relation, name: str, steps: list[Step], depth: int) -> Done | None:
    if not (isinstance(alone.left, Call) and alone.left.function == "abs"):
        return None
    inside = alone.left.arguments[0]
    cases = (Relation("=", inside, alone.right), Relation("=", inside, _negative(alone.right)))
    steps.append(Step(Joined("or", cases), _("a size has two numbers that have it")))
    values: list[Node] = []
    for case in cases:
        inner = solve(case, name, depth)
        if inner is None:
            return None
        values += [one.right for one in inner.answer if isinstance(one, Relation)]
    kept = in_order(tried(given, name, values))
    if not kept:
        return nothing(steps)
    return solutions(name, kept, steps, _("solve both"))


def _negative(node: Node) -> Node:
    if isinstance(node, Negative):
        return node.of
    return node if node == whole(0) else Negative(node)


def _root(given: Relation, alone: Relation, name: str, steps: list[Step], depth: int) -> Done | None:
    match alone.left:
        case Call("sqrt" | "cbrt" as function, (inside,)):
            power = whole(2 if function == "sqrt" else 3)
            squared = _tidy(Binary("^", alone.right, power), name)
            reason = _("square both sides") if function == "sqrt" else _("both sides to the third power")
            return _after(given, Relation("=", inside, squared), reason, name, steps, depth)
    return None


def _exponential(given: Relation, alone: Relation, name: str, steps: list[Step], depth: int) -> Done | None:
    match alone.left:
        case Binary("^", base, exponent):
            pass
        case Call("exp", (exponent,)):
            base = Name("e")
        case _:
            return None
    if isinstance(alone.right, Binary) and alone.right.op == "^" and alone.right.left == base:
        return _after(given, Relation("=", exponent, alone.right.right), _("equal powers of one base"), name, steps, depth)
    if name in names_in(alone.right):
        return None
    try:
        value = precise(alone.right, {})
        if value <= 0:
            return nothing(steps)
        raised = precise(Call("log", (alone.right, base)), {})
    except Undefined:
        return None
    if isinstance(raised, Fraction):
        log: Node = whole(raised)
        reason = _("{value} is a power of {base}").format(value=compact(alone.right), base=compact(base))
    else:
        near = as_fraction(raised, 50)
        if near is not None:
            log = whole(near)
        elif base == Name("e"):
            log = Call("ln", (alone.right,))
        else:
            log = Call("log", (alone.right,)) if base == whole(10) else Call("log", (alone.right, base))
        reason = _("the logarithm of both sides")
    return _after_general(given, Relation("=", exponent, log), reason, name, steps, depth)


def _after_general(given: Relation, line: Relation, reason: str, name: str, steps: list[Step], depth: int) -> Done | None:
    """The same where the other side is no fraction: a linear left side is undone as it stands."""
    try:
        ratio = ratio_of(line.right, name, {})
        if len(ratio.above) < 2:
            return _after(given, line, reason, name, steps, depth)
    except (NotRational, ZeroDivisionError, Undefined):
        pass
    steps.append(Step(line, reason))
    if line.left == Name(name):
        return Done(tuple(steps), (line,))
    try:
        left = ratio_of(line.left, name, {})
    except (NotRational, ZeroDivisionError, Undefined):
        return None
    if len(left.below) > 1 or len(left.above) != 2:
        return None
    b, a = (term / left.below[0] for term in left.above)
    value: Node = line.right
    if b:
        value = Binary("-" if b > 0 else "+", value, whole(abs(b)))
    if a != 1:
        value = Binary("/", value, whole(a))
    return solutions(name, [value], steps, _("solve for {name}").format(name=name))


def _logarithm(given: Relation, alone: Relation, name: str, steps: list[Step], depth: int) -> Done | None:
    match alone.left:
        case Call("ln", (inside,)):
            base: Node = Name("e")
        case Call("log", (inside,)):
            base = whole(10)
        case Call("log", (inside, base)) if not names_in(base):
            pass
        case _:
            return None
    if (
        isinstance(alone.right, Call)
        and alone.right.function == alone.left.function
        and len(alone.right.arguments) == len(alone.left.arguments)
    ):
        return _after(given, Relation("=", inside, alone.right.arguments[0]), _("equal logarithms"), name, steps, depth)
    if name in names_in(alone.right):
        return None
    raised = _tidy(Binary("^", base, alone.right), name)
    return _after_general(given, Relation("=", inside, raised), _("as a power of the base"), name, steps, depth)


# Inequalities, and all that can be told from samples


def by_sign_chart(node: Node, name: str) -> Done | None:
    """Where a statement in one letter holds: between neighbouring places where it can change, once and for all."""
    if len(letters([node])) > 1 or is_periodic(node):
        return None
    if isinstance(node, Relation) and node.op == "=":
        exact = by_package(node, name)
        if exact is not None:
            return exact
    node_out = written_out(node)
    points = critical_points([node_out], name, {})
    return _chart(node_out, name, points)


def _chart(node: Node, name: str, points: Sequence[Value]) -> Done:
    truths = [(place, exact, holds(node, {name: place})) for place, exact in samples(points, False)]
    cells: list[tuple[str, Value | None, bool]] = []
    for place, exact, true in truths:
        if exact:
            cells.append(("point", place, true))
        elif cells and cells[-1][0] == "gap":
            continue
        else:
            cells.append(("gap", None, true))
    if not any(true for _kind, _place, true in cells):
        return nothing(_steps(name, node))
    if all(true for _kind, _place, true in cells):
        return everything(name, _steps(name, node))
    known = _exact_nodes(node, name)
    parts = parts_of(cells, name, lambda value: node_of(value, known))
    last: Node = parts[0] if len(parts) == 1 else Joined("or", tuple(parts))
    where = ", ".join(compact(node_of(point, known)) for point in points)
    reason = _("try a number in each part of the line: it can change at {places}").format(places=where)
    steps = [*_steps(name, node), Step(last, reason)]
    equations = all(isinstance(part, Relation) and part.op == "=" for part in parts)
    return Done(tuple(steps), tuple(parts) if equations else (last,))


def _steps(name: str, node: Node) -> list[Step]:
    """Of an inequality of polynomials: brought to zero and factorised."""
    if not isinstance(node, Relation):
        return []
    try:
        ratio = ratio_of(Binary("-", node.left, node.right), name, {})
    except (NotRational, ZeroDivisionError, Undefined):
        return []
    if len(ratio.below) > 1 or len(ratio.above) < 3:
        return []
    steps = []
    terms = tuple(term / ratio.below[0] for term in ratio.above)
    if node.right != whole(0):
        steps.append(Step(Relation(node.op, polynomial(terms, name), whole(0)), both_sides("-", node.right)))
    factors = factored(terms)
    if len(factors) > 1 or (factors and factors[0][1] > 1):
        steps.append(Step(Relation(node.op, product_of(factors, terms, name), whole(0)), _("factorise")))
    return steps


def parts_of(cells: Sequence[tuple[str, Value | None, bool]], name: str, node_of: Callable[[Value], Node]) -> list[Node]:
    """Stretches of the line on which it holds, as inequalities."""
    apart = [place for kind, place, true in cells if kind == "point" and not true]
    if all(true for kind, _place, true in cells if kind == "gap"):
        return [_all([Relation("≠", Name(name), node_of(place)) for place in apart if place is not None])]
    parts: list[Node] = []
    k = 0
    while k < len(cells):
        if not cells[k][2]:
            k += 1
            continue
        end = k
        while end + 1 < len(cells) and cells[end + 1][2]:
            end += 1
        parts.append(_stretch(cells, k, end, name, node_of))
        k = end + 1
    return parts


def _all(parts: list[Relation]) -> Node:
    return parts[0] if len(parts) == 1 else Joined("and", tuple(parts))


def _stretch(
    cells: Sequence[tuple[str, Value | None, bool]], start: int, end: int, name: str, node_of: Callable[[Value], Node]
) -> Node:
    letter = Name(name)
    low = cells[start][1] if cells[start][0] == "point" else cells[start - 1][1] if start else None
    high = cells[end][1] if cells[end][0] == "point" else cells[end + 1][1] if end + 1 < len(cells) else None
    if start == end and cells[start][0] == "point" and low is not None:
        return Relation("=", letter, node_of(low))
    below = "≤" if cells[start][0] == "point" else "<"
    above = "≤" if cells[end][0] == "point" else "<"
    if low is None and high is not None:
        return Relation(above, letter, node_of(high))
    if high is None and low is not None:
        return Relation("≥" if below == "≤" else ">", letter, node_of(low))
    assert low is not None and high is not None
    return Joined("and", (Relation(below, node_of(low), letter), Relation(above, letter, node_of(high))), chain=True)


def _exact_nodes(node: Node, name: str) -> list[tuple[Value, Node]]:
    """Exact ways to write zeros of the polynomials in a statement."""
    from larch.core.maths.algebra.worked_equations import _zeros_of

    found: list[tuple[Value, Node]] = []
    for line in relations_of(node):
        for side in (Binary("-", line.left, line.right), line.left, line.right):
            try:
                ratio = ratio_of(side, name, {})
            except (NotRational, ZeroDivisionError, Undefined):
                continue
            for terms in (ratio.above, ratio.below):
                for factor, _count in factored(terms) if len(terms) > 1 else []:
                    found += [(precise(zero, {}), zero) for zero in _zeros_of(factor, name, [], False)]
    return found


def node_of(value: Value, known: Sequence[tuple[Value, Node]]) -> Node:
    if isinstance(value, Fraction):
        return whole(value)
    for number, node in known:
        if abs(decimal(number) - value) < mp().mpf(10) ** -30:
            return node
    text = str(mp().nstr(abs(value), 10))
    if "e" in text:
        text = f"{float(abs(value)):.12f}".rstrip("0")
    number_node = Number(Fraction(text.rstrip(".")), text.rstrip("."))
    return Negative(number_node) if value < 0 else number_node


def by_package(node: Node, name: str) -> Done | None:
    """With the algebra package, where it knows all the solutions."""
    if not isinstance(node, Relation) or node.op != "=":
        return None
    sympy = package()
    symbol = sympy.Symbol(name, real=True)
    try:
        whole_set = difference_of(node)
        several = len(letters([node])) > 1
        found = sympy.solve(whole_set, symbol) if several else sympy.solveset(whole_set, symbol, sympy.S.Reals)
    except (NotImplementedError, ValueError, TypeError, Unsolved, AttributeError):
        return None
    if several:
        values = [from_package(sympy.simplify(value)) for value in found]
        return solutions(name, values, (), _("solve for {name}").format(name=name)) if values else nothing()
    if found is sympy.S.EmptySet:
        return nothing()
    if found == sympy.S.Reals:
        return everything(name)
    if isinstance(found, sympy.FiniteSet):
        values = tried(node, name, [from_package(sympy.simplify(value)) for value in found])
        return solutions(name, in_order(values), (), _("solve for {name}").format(name=name)) if values else nothing()
    return _periodic(found, name)


def _periodic(found: object, name: str) -> Done | None:
    """Families of solutions: x = π/6 + 2πk for every whole k."""
    sympy = package()
    sets = found.args if isinstance(found, sympy.Union) else (found,)
    lines: list[Node] = []
    for one in sets:
        if isinstance(one, sympy.FiniteSet):
            lines += [Relation("=", Name(name), from_package(value)) for value in one]
            continue
        if not isinstance(one, sympy.ImageSet) or len(one.lamda.variables) != 1:
            return None
        k = sympy.Symbol("k", real=True)
        value = sympy.expand(one.lamda.expr.subs(one.lamda.variables[0], k))
        lines.append(Relation("=", Name(name), from_package(value)))
    if not lines:
        return None
    last: Node = lines[0] if len(lines) == 1 else Joined("or", tuple(lines))
    return Done((Step(last, _("for every whole number k")),), tuple(lines))


def by_looking(node: Node, name: str) -> Done | None:
    """The last way: the zeros that are found on the line, to ten places, where they are few and far from its ends."""
    if not isinstance(node, Relation) or node.op != "=" or len(letters([node])) > 1:
        return None
    points = critical_points([node], name, {})
    found = [point for point in points if holds(node, {name: point})]
    if not found or len(found) > MOST_FOUND or any(abs(point) > NEAR_END for point in found):
        return None
    return solutions(name, [node_of(point, []) for point in found], (), _("found by trying, closer and closer"))
