"""Figures on axes: coordinates, gradients, equations of lines and circles."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING

from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.maths.plane.forms import Circle, Form, Line, Path, Spot
from larch.core.maths.surd import recognised
from larch.core.model.capabilities import Plots
from larch.core.model.fact import Fact, number_text

if TYPE_CHECKING:
    from larch.core.model.page import Page

MOST_LISTED = 12  # corners whose coordinates are stated


def axes_under(page: Page, points: Sequence[Point]) -> Plots | None:
    """The topmost axes in whose window all the points lie."""
    for thing in reversed(page.things):
        if isinstance(thing, Plots):
            window = thing.window().grown(1e-6)
            if all(window.holds(*thing.placement.to_local(*point)) for point in points):
                return thing
    return None


def number(page: Page, value: float) -> str:
    """A coordinate or a gradient, as it is written on this page: at least two decimals, or exactly."""
    if page.scale.exact:
        exact = recognised(value)
        if exact is not None:
            return exact.text()
    near = round(value, 9)
    return number_text(near + 0.0, max(2, page.scale.places))


def pair(page: Page, at: Point) -> str:
    return f"({number(page, at[0])}; {number(page, at[1])})"


def coordinate_facts(page: Page, form: Form, names: Sequence[str]) -> Iterator[Fact]:
    """What a figure knows about itself on the axes under it."""
    match form:
        case Spot():
            points: Sequence[Point] = [form]
        case Line(a, b):
            points = [a, b]
        case Path(corners):
            points = corners
        case Circle(centre):
            points = [centre]
        case _:
            return
    axes = axes_under(page, points)
    if axes is None:
        return
    plane = [axes.plane_of(point) for point in points]
    for name, at in list(zip(names, plane, strict=False))[:MOST_LISTED]:
        label = _("{point} lies at").format(point=name) if name else _("lies at")
        text = pair(page, at)
        yield Fact(f"at {name}" if name else "at", text, text=text, label=label, badge=f"at {name}" if name else "at")
    if isinstance(form, Line):
        yield from _line_facts(page, form, *plane)
    if isinstance(form, Circle):
        yield from _circle_facts(page, axes, form, plane[0])


def _line_facts(page: Page, form: Line, a: Point, b: Point) -> Iterator[Fact]:
    run, rise = b[0] - a[0], b[1] - a[1]
    if form.form in ("segment", "vector"):
        length = (run * run + rise * rise) ** 0.5
        yield Fact("distance", length, text=number(page, length), label=_("distance"), badge="distance")
    if form.form == "vector":
        text = pair(page, (run, rise))
        yield Fact("components", text, text=text, label=_("components"), badge="components")
    upright = abs(run) <= 1e-12 * max(1.0, abs(rise))
    if upright:
        text = _("it is upright, so it has none")
        yield Fact("gradient", None, text=text, label=_("gradient"))
        equation = f"x = {number(page, a[0])}"
    else:
        gradient = rise / run
        yield Fact("gradient", gradient, text=number(page, gradient), label=_("gradient"), badge="gradient")
        equation = line_equation(page, gradient, a[1] - gradient * a[0])
    yield Fact("equation", equation, text=equation, label=_("equation"), badge="equation")


def line_equation(page: Page, gradient: float, shift: float) -> str:
    """y = mx + c, as it is written by hand."""
    m, c = number(page, gradient), number(page, shift)
    if m == "0":
        return f"y = {c}"
    if "/" in m:
        m = f"({m})"
    slope = {"1": "x", "−1": "−x"}.get(m, f"{m}x")
    if c == "0":
        return f"y = {slope}"
    return f"y = {slope} − {c[1:]}" if c.startswith("−") else f"y = {slope} + {c}"


def _circle_facts(page: Page, axes: Plots, form: Circle, centre: Point) -> Iterator[Fact]:
    across, up = axes.units()
    if abs(across - up) > 1e-9 * up or form.form != "circle":
        return  # where the axes differ in scale it is no circle to them
    radius = form.radius / (across * axes.placement.scale)

    def term(name: str, value: float) -> str:
        text = number(page, abs(value))
        return f"{name}²" if text == "0" else f"({name} {'−' if value > 0 else '+'} {text})²"

    equation = f"{term('x', centre[0])} + {term('y', centre[1])} = {number(page, radius * radius)}"
    yield Fact("equation", equation, text=equation, label=_("equation"), badge="equation")
