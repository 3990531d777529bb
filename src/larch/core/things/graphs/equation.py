"""Equations, as they were typed."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping
from fractions import Fraction
from typing import ClassVar, Self

from larch.core.base.memo import remember
from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.maths.expression import ExpressionError, Node, Undefined, exact_at, names_in, reading
from larch.core.maths.expression.precise import as_float, precise
from larch.core.maths.expression.tree import Joined, Name, Relation
from larch.core.maths.graph import Curve, NotDrawn, curve_of, linear_parts, readable
from larch.core.maths.layout.latex import looks_like_latex
from larch.core.maths.layout.mathml import looks_like_mathml
from larch.core.maths.layout.reading import meaning
from larch.core.maths.plane.forms import Form, NotThere
from larch.core.maths.recursion import exact_members, first_names, members, rule_of
from larch.core.model.action import Action, Things, ids_of, wished
from larch.core.model.capabilities import Defines, Derives, Geometric, HasWords, LooksAt, Plots, Steered, Steers, Tells
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, plain_number, read_number
from larch.core.model.page import Page
from larch.core.model.thing import Handle, ShelfItem, Thing
from larch.core.things.graphs.course import PATIENCE, course
from larch.core.things.ink.ink import Ink
from larch.core.things.words.letters import letter_text, letters
from larch.core.things.words.telling import BRACES, answers, value_of

LONGEST = 1000
FIRST_MEMBERS = 6  # of a sequence, that are told
TURN, FARTHEST = 2 * math.pi, 1000.0
PLANE = frozenset({"x", "y"})  # letters of the plane, which no page gives a value
TOLD_AT = "told "  # begins, among what is shown, what stands for a single zero, turning point … that is told
STANDS_OUT = "stands out"  # among what is shown: zeros, turning points and the rest, marked on its graph
HIDDEN = "hidden"  # among what is shown: what it says is left to be found from its graph
FAMILY = "family"  # among what is shown: faint graphs for other values of the first slider that it hangs on
CHECK = "check"  # among what is shown: whether it follows from the line above


class Equation(
    Steers, Defines, Tells, Derives, Geometric, HasWords, LooksAt, Thing, frozen=True, kw_only=True, tag="equation"
):
    """source: plain text, LaTeX or MathML; axes: id of the axes it is linked to, or "" for those it lies on. above: id of
    the line that it is to follow from; reason: why it does, in the words of the class. span: through which t or θ runs.
    base, derived: the id of the equation that its graph comes from, and how ("derivative", "integral", "inverse"). told:
    letters of the page that it uses, with their values, and under "" what it comes to; derived. written: the ink that it
    was read from, in its own coordinates."""

    source: str = "y = x"
    size: float = 40.0
    axes: str = ""
    above: str = ""
    reason: str = ""
    told: tuple[tuple[str, str], ...] = ()
    span: tuple[float, float] = (0.0, TURN)
    base: str = ""
    derived: str = ""
    written: tuple[Ink, ...] = ()
    hue: str = "plum"

    editor: ClassVar[str] = "equation"
    icon: ClassVar[str] = "square-function"
    order: ClassVar[int] = 41
    refers: ClassVar[tuple[str, ...]] = ("axes", "above", "base")
    help: ClassVar[str] = N_(
        "Write as it looks: / makes a fraction of what stands before it, ^ a power, sqrt a root; a space goes out of it. "
        "Shift and Enter begin the next line of a solution, which can be checked. Put it on axes to see its graph."
    )

    def __post_init__(self) -> None:
        if max(len(self.source), len(self.reason)) > LONGEST:
            raise ValueError("an equation is too long")
        if not 1 <= self.size <= 2000:
            raise ValueError("an equation must have a size that can be read")
        if not -FARTHEST <= self.span[0] < self.span[1] <= FARTHEST:
            raise ValueError("a letter runs from a smaller to a larger number")

    @classmethod
    def title(cls) -> str:
        return _("equation")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("formula function line graph algebra")
        yield ShelfItem("line", _("straight line"), N_("Graphs"), lambda: cls(source="y = 2x + 1"), words)
        yield ShelfItem("parabola", _("parabola"), N_("Graphs"), lambda: cls(source="y = x^2 - 3", hue="clay"), words)

    def label(self, page: Page) -> str:
        return self.name or self.plain_text()

    def plain_text(self) -> str:
        return plain_of(self)

    def extent(self) -> Box:
        """An estimate; the board measures what it has set in type."""
        tall = 1.9 if "/" in self.source else 1.35
        return Box(0, 0, max(1.0, len(self.source) * 0.5) * self.size, tall * self.size)

    def curve(self) -> Curve | None:
        try:
            found = curve_of(self.source, tuple(pair for pair in self.told if pair[0]))
        except (ExpressionError, NotDrawn):
            return None
        runs = found.along in ("t", "polar") and self.span != found.span
        return found if not runs else Curve(found.formula, found.along, found.op, self.span)

    def axes_on(self, page: Page) -> Plots | None:
        """The axes on which it is drawn: those it is linked to, or the topmost on which it lies."""
        return next((t for t in reversed(page.things) if isinstance(t, Plots) and t.draws(self)), None)

    def uses(self, page: Page) -> tuple[Thing, ...]:
        found = (page.thing(id) for id in (self.above, self.base) if id)
        return tuple(thing for thing in found if thing is not None)

    def rests_on(self, page: Page) -> tuple[str, ...]:
        axes = self.axes_on(page)
        return (axes.id,) if axes is not None else ()

    def form_on(self, page: Page) -> Form | None:
        curve, axes = self.curve(), self.axes_on(page)
        if curve is None or axes is None:
            return None
        try:
            return axes.graph(curve)
        except NotThere:
            return None

    # Letters of the page

    def definition(self, page: Page) -> tuple[str, Node] | None:
        """a = 3, written anywhere but within a solution, and not the equation of a graph."""
        found = _defined(self)
        if found is None or self.above or any(getattr(thing, "above", "") == self.id for thing in page.things):
            return None
        return found

    def defined_as(self, value: Fraction) -> Thing | None:
        found = _defined(self)
        if found is None or names_in(found[1]):
            return None
        text = value_text(value)
        return self.replace(source=f"{found[0]} = {text}")  # type: ignore[no-any-return]

    # Its graph, moved by hand

    def grips_on(self, page: Page) -> tuple[Handle, ...]:
        from larch.core.things.graphs.steering import places_on, window_for

        axes = window_for(self, page)
        if axes is None or self.locked or self.follows(page):
            return ()

        found = []
        for place in places_on(self, axes, page):
            x, y = axes.page_of((place.x, place.y))
            found.append(Handle(place.name, x, y, _(place.label), held=place.main))
        return tuple(found)

    def follows(self, page: Page) -> bool:
        """Whether its graph comes from that of another."""
        return bool(self.base) and page.thing(self.base) is not None

    def steered(self, page: Page, name: str, start: Point, to: Point, freely: bool) -> Steered:
        from larch.core.things.graphs.steering import pushed, taken, window_for

        axes = window_for(self, page)
        if axes is None:
            raise NotThere(N_("It is drawn on no axes."))
        if self.follows(page):
            raise NotThere(N_("It follows from another graph; move that one."))
        if name:
            return taken(self, axes, page, name, to, freely)
        return pushed(self, axes, page, start, to, freely)

    def bare(self) -> Thing:
        return self.replace(told=()) if self.told else self

    def tells(self) -> bool:
        return bool(_wanted(self)) or bool(self.base)

    def typed(self, source: str) -> Self:
        """Saying something else: it then follows no other."""
        return self if source == self.source else self.replace(source=source, base="", derived="")

    def told_on(self, page: Page) -> Self:
        """As it follows from another; with the values of the letters that it uses, and what it comes to where it ends in an
        equals sign."""
        if self.base:
            from larch.core.things.graphs.following import followed_source

            try:
                source = followed_source(self, page)
            except NotThere:
                source = self.source
            if source != self.source:
                changed: Self = self.replace(source=source)
                return changed.told_on(page)
        known = letters(page)
        told: list[tuple[str, str]] = []
        if in_braces(self.source):
            found = [match[0] for match in BRACES.finditer(self.source)]
            told += zip(found, answers(page, self.source), strict=True)
        for name in _wanted(self):
            if name in known.values:
                told.append((name, letter_text(known.values[name])))
        if self.source.rstrip().endswith("="):
            told.append(("", self._comes_to(page, known.values)))
        made = tuple(told)
        return self if made == self.told else self.replace(told=made)

    def _comes_to(self, page: Page, known: Mapping[str, Fraction | float]) -> str:
        if in_braces(self.source):
            number = value_of(page, self.source.rstrip().rstrip("="))
            return "?" if number is None else plain_number(number, 6)
        try:
            value = precise(meaning(self.source), known)
            return value_text(value)
        except (ExpressionError, Undefined):
            return "?"

    def seen_source(self) -> str:
        """What stands on the page: with the facts in the place of what tells them."""
        if not in_braces(self.source):
            return self.source
        told = dict(self.told)
        return BRACES.sub(lambda match: told.get(match[0], match[0][1:-1]), self.source)

    def outcome(self) -> str:
        """What stands behind the equals sign that it ends in; "" for nothing."""
        return dict(self.told).get("", "")

    def facts(self, page: Page) -> Iterator[Fact]:
        def set_source(typed: str) -> Thing:
            try:
                meaning(typed)
            except ExpressionError as error:
                raise ValueError(error.message) from error
            return self.typed(typed.strip())

        written = self.plain_text()
        yield Fact("equation", written, text=written, label=_("typed"), set=set_source)
        try:
            node = meaning(self.source)
        except ExpressionError as error:
            yield Fact("reading", None, text=error.message, label=_("read as"))
            return
        yield Fact("reading", reading(node), text=reading(node), label=_("read as"))
        if why := readable(self.source, tuple(pair for pair in self.told if pair[0])):
            yield Fact("graph", None, text=why, label=_("graph"))
        if self.outcome():
            yield Fact("value", self.outcome(), text=self.outcome(), label=_("comes to"))
        if (found := self.definition(page)) is not None and found[0] in letters(page).why:
            why = letters(page).why[found[0]]
            yield Fact("letter", None, text=why, label=found[0])
        if isinstance(_node(self), Relation):
            yield Fact("both sides", "", text="", label=_("do to both sides"), hint=_("such as − 5"),
                       set=lambda typed: both_sides(page, self, typed) if typed.strip() else self)  # fmt: skip
        yield Fact("reason", self.reason, text=self.reason, label=_("reason"), hint=_("such as − 5 on both sides"),
                   set=lambda typed: self.replace(reason=typed.strip()[:LONGEST]))  # fmt: skip
        yield from self._span_facts()
        yield from self._member_facts()
        yield from self._line_facts()
        yield from self._place_facts(page)

    def _span_facts(self) -> Iterator[Fact]:
        """From where to where the letter of a curve runs."""
        curve = self.curve()
        if curve is None or curve.along not in ("t", "polar"):
            return
        letter = "t" if curve.along == "t" else "θ"
        for k, label in ((0, _("{letter} from")), (1, _("{letter} to"))):
            text = value_text(self.span[k])
            yield Fact(f"span {k}", self.span[k], text=text, label=label.format(letter=letter), set=self._span_setter(k))

    def _member_facts(self) -> Iterator[Fact]:
        """The first members of a sequence by a rule, and what becomes of it."""
        curve = self.curve()
        if curve is None or curve.along != "rule":
            return
        first = int(curve.span[0])
        told = exact_members(curve.formula, curve.firsts, first, FIRST_MEMBERS)
        text = "; ".join(map(value_text, told))
        yield Fact("members", text, text=text + " …", label=_("members from {n}").format(n=first), part="measures")
        goes = course(members(curve.formula, curve.firsts, first, PATIENCE + 1))
        yield Fact("course", goes, text=goes, label=_("goes on"), part="measures")

    def _span_setter(self, k: int) -> Callable[[str], Thing]:
        def set_end(typed: str) -> Thing:
            value = read_number(typed)
            span = (value, self.span[1]) if k == 0 else (self.span[0], value)
            if not -FARTHEST <= span[0] < span[1] <= FARTHEST:
                raise ValueError(_("It runs from a smaller to a larger number."))
            return self.replace(span=span)  # type: ignore[no-any-return]

        return set_end

    def _place_facts(self, page: Page) -> Iterator[Fact]:
        """Where the places of its graph lie, which can be typed."""
        from larch.core.things.graphs.steering import place_setter, places_on, window_for

        axes = window_for(self, page)
        if axes is None:
            return

        for place in places_on(self, axes, page):
            text = f"({plain_number(place.x, 3)}; {plain_number(place.y, 3)})"
            yield Fact(f"at {place.name}", text, text=text, label=_(place.label), set=place_setter(self, axes, page, place))

    def _line_facts(self) -> Iterator[Fact]:
        curve = self.curve()
        if curve is None or curve.along != "x":
            return
        parts = linear_parts(curve.formula, "x")
        if parts is None or names_in(parts[0]) or names_in(parts[1]):
            return
        for name, label, node in (("gradient", _("gradient"), parts[0]), ("intercept", _("y-intercept"), parts[1])):
            try:
                exact = exact_at(node)
            except Undefined:
                return
            if exact is not None:
                yield Fact(name, float(exact), text=fraction_text(exact), label=label)

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


@remember
def plain_of(equation: Equation) -> str:
    """An equation in one line of plain text: as it was typed, or as it is read."""
    if not (looks_like_latex(equation.source) or looks_like_mathml(equation.source)):
        return equation.source
    try:
        return reading(meaning(equation.source))
    except ExpressionError:
        return equation.source


def in_braces(source: str) -> bool:
    """Whether it tells facts, as words do: {AB} · 2."""
    return "{" in source and not looks_like_latex(source) and not looks_like_mathml(source)


def both_sides(page: Page, line: Equation, typed: str) -> Page:
    """A line below in which the same was done to both sides: "− 5", "÷ 2". Raises ValueError with one sentence."""
    return wished("both sides", page, line, typed)  # type: ignore[no-any-return]


@remember
def _node(equation: Equation) -> Node | None:
    try:
        return meaning(equation.source)
    except ExpressionError:
        return None


@remember
def _defined(equation: Equation) -> tuple[str, Node] | None:
    match None if in_braces(equation.source) else _node(equation):
        case Relation("=", Name(name), right):
            own = (len(name) == 1 or "_" in name) and not _is_run_through(name, right)
            return (name, right) if own and name not in PLANE and not names_in(right) & PLANE else None
    return None


def _is_run_through(name: str, right: Node) -> bool:
    """r = f(θ) and a_n = f(n) are curves and sequences, and give no letter a value."""
    return (
        (name == "r" and "θ" in names_in(right))
        or (name.endswith("_n") and "n" in names_in(right))
        or (rule_of(Relation("=", Name(name), right)) is not None)
    )


@remember
def _wanted(equation: Equation) -> tuple[str, ...]:
    """The letters that it would know; under "" that it wants to know what it comes to, or facts."""
    if in_braces(equation.source):
        return ("",)
    node = _node(equation)
    if node is None:
        return ()
    defined = _defined(equation)
    rules = [rule for part in (node.parts if isinstance(node, Joined) else (node,))
             if isinstance(part, Relation) and (rule := rule_of(part)) is not None]  # fmt: skip
    if rules:
        return (*sorted(names_in(rules[0].formula) - {"n"}), *first_names(rules[0]))
    names = sorted(names_in(node) - PLANE - ({defined[0]} if defined is not None else set()))
    return (*names, "") if equation.source.rstrip().endswith("=") else tuple(names)


def value_text(value: Fraction | object) -> str:
    """Exactly where it is short, else rounded to six places."""
    if isinstance(value, float):
        return plain_number(value, 6)
    if isinstance(value, Fraction):
        decimal = plain_number(float(value), 6)
        short = value.denominator in (1, 2, 4, 5, 8, 10, 20, 25, 100)
        return decimal if short else fraction_text(value)
    return plain_number(as_float(value), 6)


def fraction_text(value: Fraction) -> str:
    if value.denominator == 1:
        return plain_number(float(value), 0) if abs(value) < 10**15 else str(value)
    return ("−" if value < 0 else "") + f"{abs(value.numerator)}/{value.denominator}"


def _unlink(page: Page, things: Things) -> Edit:
    ids = ids_of([thing for thing in things if isinstance(thing, Equation)])
    return Edit(_("Unlink from axes"), page, page.changing(ids, lambda thing: thing.replace(axes="")))


ACTIONS = (
    Action("unlink from axes", lambda p, ts: _("unlink from axes"), "unlink", _unlink,
           lambda p, ts: bool(ts) and all(isinstance(t, Equation) and t.axes for t in ts), rank=12),
)  # fmt: skip
