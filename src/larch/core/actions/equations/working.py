"""Solutions line by line: each line below the one that it is to follow from, in a hue of its own."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence

from larch.core.base.words import N_, _
from larch.core.maths.algebra.manifold import many_of, written
from larch.core.maths.expression import ExpressionError, Node, Undefined, exact_at, names_in
from larch.core.maths.expression.exactly import NotRational
from larch.core.maths.expression.tree import Binary, Relation, states
from larch.core.maths.layout.from_tree import row_of
from larch.core.maths.layout.reading import meaning
from larch.core.maths.layout.terms import source_of
from larch.core.model.action import Action, Things, grants, only, register, through
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.equation import CHECK, Equation

HUES = ("lake", "plum", "berry", "moss", "clay", "slate")
LONGEST_CHAIN = 200


def lines_above(page: Page, line: Equation) -> list[Equation]:
    """The lines that a line goes back to, the first of them first; itself last."""
    found = [line]
    while len(found) < LONGEST_CHAIN:
        above = page.thing(found[0].above) if found[0].above else None
        if not isinstance(above, Equation) or above in found:
            break
        found.insert(0, above)
    return found


def chain(page: Page, line: Equation) -> list[Equation]:
    """All lines of the solution that a line belongs to."""
    found = lines_above(page, line)
    while len(found) < LONGEST_CHAIN:
        below = next(
            (t for t in page.things if isinstance(t, Equation) and t.above == found[-1].id and t not in found), None
        )
        if below is None:
            break
        found.append(below)
    return found


def line_below(page: Page, line: Equation, drop: float) -> Equation:
    """An empty line so many page units below another, which it is to follow from. Its hue is that of its number."""
    above = lines_above(page, line)
    first = HUES.index(above[0].hue) if above[0].hue in HUES else 0
    shown = tuple(name for name in line.shown if name == CHECK)
    made: Equation = Equation(
        source="", size=line.size, hue=HUES[(first + len(above)) % len(HUES)], above=line.id, axes="", shown=shown,
        placement=line.placement.moved(0, drop),
    )  # fmt: skip
    return made


OPERATIONS = {"+": "+", "-": "-", "−": "-", "–": "-", "*": "*", "·": "*", "×": "*", ":": "/", "/": "/", "÷": "/"}
TURNED = {"<": ">", ">": "<", "≤": "≥", "≥": "≤", "=": "=", "≠": "≠"}


@grants("both sides")
def both_sides(page: Page, line: Equation, typed: str) -> Page:
    """The line below in which the same was done to both sides, each worked out as far as it is a polynomial.

    Raises ValueError with one sentence.
    """
    text = typed.strip()
    op = OPERATIONS.get(text[:1])
    try:
        node, by = meaning(line.source), meaning(text[1:]) if op else None
    except ExpressionError as error:
        raise ValueError(error.message) from error
    if op is None or by is None or states(by) or not isinstance(node, Relation):
        raise ValueError(_("Write a sign and what goes with it, such as − 5 or ÷ 2."))
    sign = node.op
    if op in "*/" and node.op != "=":
        try:
            value = exact_at(by)
        except Undefined as error:
            raise ValueError(str(error)) from error
        if value is None or value == 0:
            raise ValueError(_("An inequality is multiplied by a number that is not zero."))
        sign = TURNED[node.op] if value < 0 else node.op
    sides = [_tidy(Binary(op, side, by)) for side in (node.left, node.right)]
    made = line_below(page, line, 1.6 * line.size * line.placement.scale)
    source = source_of(row_of(Relation(sign, sides[0], sides[1])))
    shown = {"-": "−", "*": "×", "/": "÷"}.get(op, op)
    reason = _("{sign} {what} on both sides").format(sign=shown, what=text[1:].strip())
    return page.put(made.replace(source=source, reason=reason))


def _tidy(node: Node) -> Node:
    try:
        return written(many_of(node))
    except NotRational:
        return node


def asked_line(things: Things) -> tuple[str, str] | None:
    """Id and source of the one equation that is selected; None for anything else."""
    one = things[0] if len(things) == 1 else None
    return (one.id, one.source) if isinstance(one, Equation) else None


def with_lines(
    page: Page, id: str, source: str, lines: Sequence[Mapping[str, str]], tall: Callable[[Thing], float]
) -> Edit | None:
    """Lines that were worked out, below the one they were asked for, unless that has changed meanwhile.

    tall: how high a thing is in its own units.
    """
    above = page.thing(id)
    if not isinstance(above, Equation) or above.source != source:
        return None
    after = page
    for one in lines:
        drop = (tall(above) + 0.35 * above.size) * above.placement.scale
        after = after.put(line_below(after, above, drop).replace(source=one["line"], reason=one["reason"]))
        last = after.things[-1]
        assert isinstance(last, Equation)
        above = last
    return Edit(_("Work out"), page, after, select=(above.id,))


def _toggle(page: Page, things: Things) -> Edit:
    """Checks the solutions that the lines belong to, or no longer."""
    lines = {line.id: line for thing in things if isinstance(thing, Equation) for line in chain(page, thing)}
    on = not all(CHECK in line.shown for line in lines.values())
    changed = {}
    for id, line in lines.items():
        rest = tuple(name for name in line.shown if name != CHECK)
        changed[id] = line.replace(shown=(*rest, CHECK) if on else rest)
    return Edit(_("Check the lines") if on else _("Check no longer"), page, page.with_things(changed))


def _has_lines(page: Page, things: Things) -> bool:
    return only(Equation)(page, things) and any(isinstance(t, Equation) and len(chain(page, t)) > 1 for t in things)


def _join(page: Page, things: Things) -> Edit:
    """Equations one below the other become the lines of one solution, from the top down."""
    lines = sorted((t for t in things if isinstance(t, Equation)), key=lambda t: (t.box().y0, t.box().x0))
    changed = {}
    for k, line in enumerate(lines):
        changed[line.id] = line.replace(above=lines[k - 1].id if k else "", hue=HUES[k % len(HUES)])
    return Edit(_("Make it one solution"), page, page.with_things(changed))


def _check_label(page: Page, things: Things) -> str:
    return _("check no longer") if all(CHECK in thing.shown for thing in things) else _("check the lines")


def _undrawn(page: Page, things: Things) -> Node | None:
    """What the one selected line says, unless it is there for its graph."""
    line = things[0] if len(things) == 1 else None
    if not isinstance(line, Equation) or line.form_on(page) is not None:
        return None
    try:
        return meaning(line.source)
    except ExpressionError:
        return None


def _one(page: Page, things: Things) -> bool:
    """More than a number: with letters, or an equation."""
    node = _undrawn(page, things)
    return node is not None and (states(node) or bool(names_in(node)))


def _one_with_sides(page: Page, things: Things) -> bool:
    return isinstance(_undrawn(page, things), Relation)


register(
    (
        through("equation both sides", N_("to both sides…"), "equal", _one_with_sides, 5),
        through("equation next", N_("next step"), "step-forward", _one, 6),
        through("equation solve", N_("solve"), "list-ordered", _one, 7),
        Action("check lines", _check_label, "list-checks", _toggle, _has_lines, rank=8, board=True,
               words=N_("working solution follows right wrong steps")),
        Action("one solution", lambda p, ts: _("lines of one solution"), "list-ordered", _join,
               lambda p, ts: len(ts) > 1 and only(Equation)(p, ts), rank=9, words=N_("working steps line by line")),
    ),
    Equation,
)  # fmt: skip
