"""Several equations at once: linear ones by putting one into the others, the rest with the algebra package."""

from __future__ import annotations

from collections.abc import Sequence
from fractions import Fraction

from larch.core.base.words import _
from larch.core.maths.algebra.bridge import difference_of, from_package, package
from larch.core.maths.algebra.statements import letters, linear_row, relations_of, sum_of_terms
from larch.core.maths.algebra.steps import Done, Step, Unsolved
from larch.core.maths.algebra.write import times, whole
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.precise import holds, precise
from larch.core.maths.expression.tree import Binary, Joined, Name, Node, Relation

Row = list[Fraction]


def system(node: Joined) -> Done:
    """Raises Unsolved."""
    lines = relations_of(node)
    if any(line.op != "=" for line in lines):
        raise Unsolved(_("Several inequalities in several letters have a region as their solution."))
    names = letters([node])
    rows = [linear_row(Binary("-", line.left, line.right), names) for line in lines]
    if all(row is not None for row in rows):
        return _linear([row for row in rows if row is not None], names)
    return _by_package(node, lines, names)


def _written(row: Row, names: Sequence[str]) -> Relation:
    terms: list[tuple[int, Node]] = [
        (1 if row[k] > 0 else -1, times(abs(row[k]), Name(name))) for k, name in enumerate(names) if row[k]
    ]
    return Relation("=", sum_of_terms(terms), whole(-row[-1]))


def _alone(row: Row, k: int, names: Sequence[str]) -> Relation:
    """Solved for the k-th letter."""
    terms: list[tuple[int, Node]] = []
    for i, name in enumerate(names):
        if i != k and row[i]:
            factor = -row[i] / row[k]
            terms.append((1 if factor > 0 else -1, times(abs(factor), Name(name))))
    constant = -row[-1] / row[k]
    if constant or not terms:
        terms.append((1 if constant >= 0 else -1, whole(abs(constant))))
    return Relation("=", Name(names[k]), sum_of_terms(terms))


def _linear(rows: list[Row], names: Sequence[str]) -> Done:
    steps: list[Step] = []
    waiting = [list(row) for row in rows]
    solved: list[tuple[int, Row]] = []
    while waiting:
        row = waiting.pop(0)
        pivot = _easiest(row)
        if pivot < 0:
            if row[-1]:
                return Done(
                    (*steps, Step(Relation("=", whole(0), whole(-row[-1])), _("this is never true"))), (_("no solution"),)
                )
            continue
        solved.append((pivot, row))
        steps.append(Step(_together(solved, waiting, names), _("solve for {name}").format(name=names[pivot])))
        waiting = [_without(other, row, pivot) for other in waiting]
        if any(any(other[:-1]) for other in waiting):
            steps.append(Step(_together(solved, waiting, names), _("put it into the others")))
    for k in range(len(solved) - 1, -1, -1):
        pivot, row = solved[k]
        for i in range(k):
            solved[i] = (solved[i][0], _without(solved[i][1], row, pivot))
    answers = [_alone(row, pivot, names) for pivot, row in sorted(solved)]
    last: Node = answers[0] if len(answers) == 1 else Joined("and", tuple(answers))
    steps.append(Step(last, _("put back")))
    return Done(tuple(steps), tuple(answers))


def _together(solved: Sequence[tuple[int, Row]], waiting: Sequence[Row], names: Sequence[str]) -> Node:
    """All that is known, as one line."""
    parts: list[Node] = [_alone(row, pivot, names) for pivot, row in solved]
    parts += [_written(row, names) for row in waiting if any(row)]
    return parts[0] if len(parts) == 1 else Joined("and", tuple(parts))


def _easiest(row: Row) -> int:
    """The letter that stands with 1 or −1, else the first there is."""
    found = [k for k in range(len(row) - 1) if row[k]]
    return min(found, key=lambda k: (abs(row[k]) != 1, -k if abs(row[k]) == 1 else k)) if found else -1


def _without(row: Row, known: Row, pivot: int) -> Row:
    factor = row[pivot] / known[pivot]
    return [a - factor * b for a, b in zip(row, known, strict=True)]


def _by_package(node: Joined, lines: Sequence[Relation], names: Sequence[str]) -> Done:
    sympy = package()
    symbols = [sympy.Symbol(name, real=True) for name in names]
    try:
        found = sympy.solve([difference_of(line) for line in lines], symbols, dict=True)
    except (NotImplementedError, ValueError, TypeError) as gone:
        raise Unsolved(_("No way to solve this is known.")) from gone
    parts: list[Node] = []
    for one in found:
        values = {str(symbol): from_package(sympy.simplify(value)) for symbol, value in one.items()}
        if len(values) == len(names) and not holds(node, {name: precise(value, {}) for name, value in values.items()}):
            continue
        each: list[Node] = [Relation("=", Name(name), values[name]) for name in names if name in values]
        parts.append(each[0] if len(each) == 1 else Joined("and", tuple(each)))
    if not parts:
        return Done((), (_("no solution"),))
    last: Node = parts[0] if len(parts) == 1 else Joined("or", tuple(parts))
    return Done((Step(last, _("solve one for a letter and put it into the other")),), tuple(compact(part) for part in parts))
