"""The graph of an equation moved on its axes: the page with the equation, or the letters that it hangs on, changed."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from fractions import Fraction
from typing import TYPE_CHECKING, Protocol, runtime_checkable

from larch.core.base.shape import Box, Point
from larch.core.base.words import _
from larch.core.maths.expression import ExpressionError, Node, Undefined, names_in, value_at
from larch.core.maths.expression.tree import Name, Relation
from larch.core.maths.hand.moving import Moved, Place, dragged, moved, places
from larch.core.maths.layout.from_tree import row_of
from larch.core.maths.layout.reading import meaning
from larch.core.maths.layout.terms import source_of
from larch.core.maths.plane.forms import NotThere, Spot
from larch.core.model.capabilities import Defines, Geometric, Steered
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.plane import Plane
from larch.core.things.graphs.ticks import step_of
from larch.core.things.words.letters import letters

if TYPE_CHECKING:
    from larch.core.things.graphs.equation import Equation

NEAR = 100.0  # page units from one place of a graph to the next, as far as its family leaves that open
FALLS = 10.0  # page units from which a graph falls onto a crossing of the grid, or a point
FINE = 20  # parts of a mark to which its numbers are rounded otherwise
APART = 44.0


@runtime_checkable
class Window(Plane, Protocol):
    """Axes, as far as moving a graph on them needs to know."""

    @property
    def width(self) -> float: ...
    @property
    def height(self) -> float: ...
    def extent(self) -> Box: ...
    def plane_of(self, at: Point) -> Point: ...


def window_for(equation: Equation, page: Page) -> Window | None:
    """The axes on which it is drawn, if they are of both dimensions."""
    axes = equation.axes_on(page)
    return axes if isinstance(axes, Window) else None


Steps = tuple[Fraction | None, Fraction | None]


def known_letters(equation: Equation, page: Page) -> dict[str, float]:
    told = {name for name, _value in equation.told if name and not name.startswith("{")}
    return {name: float(value) for name, value in letters(page).values.items() if name in told}


def reach_of(axes: Window) -> tuple[float, float]:
    """How far the places of a graph lie apart, in units: the distance of marks that is nearest to `NEAR`."""
    steps = _mark_steps(axes)
    units = axes.units()
    return (steps[0] * max(1, round(NEAR / (steps[0] * units[0]))), steps[1] * max(1, round(NEAR / (steps[1] * units[1]))))


def _mark_steps(axes: Window) -> tuple[float, float]:
    return (step_of(axes.x_min, axes.x_max, axes.width / APART), step_of(axes.y_min, axes.y_max, axes.height / APART))


def _marks_at(axes: Window, at: tuple[float, float] | None) -> tuple[list[float], list[float]]:
    """How far marks lie apart, and how long a unit is, in both directions; on a logarithmic axis as it is at that place."""
    steps, units = list(_mark_steps(axes)), list(axes.units())
    for k, is_log in enumerate(axes.logarithmic()):
        if is_log and at is not None and at[k] > 0:
            steps[k] = 10.0 ** math.floor(math.log10(at[k]) + 1e-9)
            further = (at[0] + steps[0], at[1]) if k == 0 else (at[0], at[1] + steps[1])
            units[k] = math.dist(axes.page_of(at), axes.page_of(further)) / steps[k] / axes.placement.scale
    return steps, units


def places_on(equation: Equation, axes: Window, page: Page) -> list[Place]:
    """The places by which its graph is taken hold of, in coordinates, as far as they lie on the axes."""
    try:
        found = places(meaning(equation.source), known_letters(equation, page), reach_of(axes))
    except ExpressionError:
        return []
    return [one for one in found if axes.x_min <= one.x <= axes.x_max and axes.y_min <= one.y <= axes.y_max]


def pushed(equation: Equation, axes: Window, page: Page, start: Point, to: Point, freely: bool = False) -> Steered:
    """Its graph dragged as a whole, from one place of the page to another. freely: it falls onto nothing.

    Raises NotThere where it can't be moved.
    """
    a, b = axes.plane_of(start), axes.plane_of(to)
    by = (b[0] - a[0], b[1] - a[1])
    node, known = meaning(equation.source), known_letters(equation, page)
    if not freely:
        through = _through(equation, axes, page, to)
        if through is not None:
            name, (x, y) = through
            exact = _shifted_onto(node, by, known, (x, y))
            if exact is not None:
                return Steered(_changes(equation, page, exact), _through_words(name), axes.page_of((x, y)))
    main = next((one for one in places(node, known, reach_of(axes)) if one.main), None)
    steps, why, at = _steps(axes, (main.x + by[0], main.y + by[1]) if main is not None else None, freely)
    crosses = _crossing(node, known, by)
    if crosses is not None:
        steps, why, at = _steps(axes, crosses, freely)
    return Steered(_changes(equation, page, moved(node, by, known, steps)), why, axes.page_of(at) if at else to)


def _through_words(name: str) -> str:
    return _("through {name}").format(name=name) if name else _("through the point")


def _crossing(node: Node, known: Mapping[str, float], by: tuple[float, float]) -> tuple[float, float] | None:
    """Where a line that is pushed comes to cross the axis by which it counts; None of other graphs."""
    found = {one.label: one for one in places(node, known, (1.0, 1.0))}
    second = found.get("gradient")
    if second is None:
        return None
    if (start := found.get("y-intercept")) is not None:
        return 0.0, start.y + by[1] - (second.y - start.y) / (second.x - start.x) * by[0]
    if (start := found.get("x-intercept")) is not None:
        return start.x + by[0] - (second.x - start.x) / (second.y - start.y) * by[1], 0.0
    return None


def taken(equation: Equation, axes: Window, page: Page, name: str, to: Point, freely: bool = False) -> Steered:
    """Its graph when one of its places was taken to a place of the page. Raises NotThere where it can't be there."""
    at = axes.plane_of(to)
    node, known = meaning(equation.source), known_letters(equation, page)
    through = None if freely else _through(equation, axes, page, to)
    if through is not None:
        after = dragged(node, name, through[1], known, reach_of(axes))
        return Steered(_changes(equation, page, after), _through_words(through[0]), axes.page_of(through[1]))
    steps, why, onto = _steps(axes, at, freely)
    after = dragged(node, name, at, known, reach_of(axes), steps)
    return Steered(_changes(equation, page, after), why, axes.page_of(onto) if onto else to)


def _steps(axes: Window, at: tuple[float, float] | None, freely: bool) -> tuple[Steps, str, tuple[float, float] | None]:
    """To what the numbers of a graph are rounded whose place comes to lie at `at`; why, and where that is."""
    found: list[Fraction | None] = []
    onto: list[float] = []
    falls = 0
    for k, (mark, unit) in enumerate(zip(*_marks_at(axes, at), strict=True)):
        exact = Fraction(str(mark)).limit_denominator(10**6)
        fine = exact / FINE
        value = at[k] if at is not None else 0.0
        crossing = round(value / mark) * mark
        if not freely and at is not None and abs(value - crossing) * unit * axes.placement.scale <= FALLS:
            falls += 1
            found.append(exact)
            onto.append(crossing)
        else:
            found.append(fine)
            onto.append(float(round(value / float(fine)) * fine))
    why = _("on the grid") if falls == 2 else ""
    return (found[0], found[1]), why, ((onto[0], onto[1]) if why else None)


def _through(equation: Equation, axes: Window, page: Page, to: Point) -> tuple[str, tuple[float, float]] | None:
    """The point on the axes that a hand has come near to: its name and coordinates."""
    best: tuple[float, str, Point] | None = None
    for thing in page.things:
        if not isinstance(thing, Geometric) or thing.id == equation.id or thing.hidden:
            continue
        form = thing.form_on(page)
        if isinstance(form, Spot) and axes.extent().holds(*axes.placement.to_local(form.x, form.y)):
            away = math.dist((form.x, form.y), to)
            if away <= 1.6 * FALLS and (best is None or away < best[0]):
                best = (away, thing.name, (form.x, form.y))
    if best is None:
        return None
    x, y = axes.plane_of(best[2])
    return best[1], (round(x, 6) + 0.0, round(y, 6) + 0.0)


def _shifted_onto(node: Node, by: tuple[float, float], known: Mapping[str, float], at: tuple[float, float]) -> Moved | None:
    """Pushed as the hand has it, and then up or down so that it goes through a point just so."""
    pushed_on = moved(node, by, known)
    side = pushed_on.node
    if isinstance(side, Relation):
        of_x = [rest for alone, rest in ((side.left, side.right), (side.right, side.left))
                if isinstance(alone, Name) and (alone.name == "y" or alone.name.endswith("(x)"))]  # fmt: skip
        if not of_x or "y" in names_in(of_x[0]):
            return None
        side = of_x[0]
    names = {**known, **{name: float(value) for name, value in pushed_on.letters.items()}}
    try:
        height = float(value_at(side, x=at[0], **names))
    except (Undefined, OverflowError, TypeError):
        return None
    if not math.isfinite(height):
        return None
    after = moved(node, (by[0], by[1] + at[1] - height), known)
    return after


def pushed_onto(equation: Equation, page: Page, at: tuple[float, float]) -> dict[str, Thing] | None:
    """Its graph pushed up or down so that it goes through coordinates; None where it can't be."""
    try:
        after = _shifted_onto(meaning(equation.source), (0.0, 0.0), known_letters(equation, page), at)
        return None if after is None else _changes(equation, page, after)
    except (NotThere, ExpressionError):
        return None


def _changes(equation: Equation, page: Page, after: Moved) -> dict[str, Thing]:
    """The equation written anew; letters that stand for its numbers are changed where they are defined."""
    changed: dict[str, Thing] = {}
    for letter, value in after.letters.items():
        thing = next(
            (t for t in page.things if isinstance(t, Defines) and (d := t.definition(page)) and d[0] == letter), None
        )
        made = thing.defined_as(value) if thing is not None else None
        if made is None or (thing is not None and thing.locked):
            raise NotThere(_("{letter} follows from others; change those.").format(letter=letter))
        changed[made.id] = made
    if after.node != meaning(equation.source):
        changed[equation.id] = equation.replace(source=source_of(row_of(after.node)), told=())
    return changed


def place_setter(equation: Equation, axes: Window, page: Page, place: Place) -> Callable[[str], object]:
    """For a fact: takes a place of its graph to typed coordinates."""
    from larch.core.things.geometry.point import read_pair

    def set_place(typed: str) -> object:
        try:
            after = dragged(
                meaning(equation.source), place.name, read_pair(typed), known_letters(equation, page), reach_of(axes)
            )
            return page.with_things(_changes(equation, page, after))
        except NotThere as reason:
            raise ValueError(_(str(reason))) from reason

    return set_place
