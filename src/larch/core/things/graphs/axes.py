"""Axes, on which equations are drawn."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator, Sequence
from typing import ClassVar

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.figures.figure import free_letters
from larch.core.figures.settle import settle
from larch.core.maths.graph import Curve
from larch.core.maths.plane.forms import Form, Graph, NotThere, Path, Spot
from larch.core.model.capabilities import LooksAt, Plots
from larch.core.model.fact import Fact, measure, number_text, read_number
from larch.core.model.page import Page
from larch.core.model.thing import Handle, ShelfItem, Thing
from larch.core.things.geometry.point import Point as PointThing
from larch.core.things.geometry.point import read_pair
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.graph_form import graph_on, place_of

SMALLEST_SIDE = 40.0
MOST_PLOTTED = 100
FINE = 14.0  # page units between the crossings onto which points fall


class Axes(Plots, LooksAt, Thing, frozen=True, kw_only=True, tag="axes"):
    """A window onto the plane: ranges in mathematical units, size in page units, y upwards.

    Raises ValueError unless every range has a width and every number is finite.
    """

    x_min: float = -6.0
    x_max: float = 6.0
    y_min: float = -5.0
    y_max: float = 5.0
    width: float = 384.0
    height: float = 320.0
    x_name: str = "x"
    y_name: str = "y"
    grid: bool = True
    hue: str = "needle"

    icon: ClassVar[str] = "chart-line"
    order: ClassVar[int] = 40
    help: ClassVar[str] = N_(
        "An equation that is written beside the axes, placed on them, or linked to them is drawn there."
    )

    def __post_init__(self) -> None:
        for low, high in ((self.x_min, self.x_max), (self.y_min, self.y_max)):
            if not (-1e12 <= low < high <= 1e12 and high - low > 1e-9 * max(abs(low), abs(high))):
                raise ValueError("an axis must run from a smaller to a larger number")
        if not (1 <= self.width <= 1e6 and 1 <= self.height <= 1e6):
            raise ValueError("axes must have a size")

    @classmethod
    def title(cls) -> str:
        return _("axes")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("coordinates graph plane grid function plot number line")
        yield ShelfItem("axes", _("axes"), N_("Graphs"), cls, words)
        yield ShelfItem(
            "axes, first quadrant",
            _("axes from zero"),
            N_("Graphs"),
            lambda: cls(x_min=0, x_max=10, y_min=0, y_max=8, width=400),
            words,
        )

    def extent(self) -> Box:
        return Box(0, 0, self.width, self.height)

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.extent().corners(), True

    def to_local(self, x: float, y: float) -> Point:
        """From the plane to its own coordinates."""
        return (
            (x - self.x_min) / (self.x_max - self.x_min) * self.width,
            (self.y_max - y) / (self.y_max - self.y_min) * self.height,
        )

    def to_plane(self, x: float, y: float) -> Point:
        return (
            self.x_min + x / self.width * (self.x_max - self.x_min),
            self.y_max - y / self.height * (self.y_max - self.y_min),
        )

    def plane_of(self, at: Point) -> Point:
        """Coordinates of a place of the page; free of the noise of the last digits."""
        x, y = self.to_plane(*self.placement.to_local(*at))
        return (_clean(x, self.x_max - self.x_min), _clean(y, self.y_max - self.y_min))

    def page_of(self, at: Point) -> Point:
        """The place of the page that has these coordinates."""
        return self.placement.to_page(*self.to_local(*at))

    def units(self) -> tuple[float, float]:
        """Its own units to one unit of each axis."""
        return (self.width / (self.x_max - self.x_min), self.height / (self.y_max - self.y_min))

    def grid_point(self, at: Point) -> Point:
        """The nearest crossing of a grid of round numbers, about 14 page units wide; a place of the page."""
        across = round_steps(self.x_min, self.x_max, self.width / FINE)
        down = round_steps(self.y_min, self.y_max, self.height / FINE)
        x, y = self.plane_of(at)
        return self.page_of((_nearest(x, across), _nearest(y, down)))

    def plotted(self, x: float, y: float) -> Spot:
        """Where a plotted point lies. Raises NotThere outside the window."""
        if not (self.x_min <= x <= self.x_max and self.y_min <= y <= self.y_max):
            raise NotThere(N_("It lies beyond the axes."))
        return Spot(*self.page_of((x, y)))

    def coordinates(self, at: Point) -> tuple[float, float]:
        """Of a place that a hand dragged a point to: kept within the window."""
        x, y = self.plane_of(at)
        return (min(max(x, self.x_min), self.x_max), min(max(y, self.y_min), self.y_max))

    def plot(self, page: Page, points: Sequence[Point]) -> Page:
        """The page with points plotted on these axes. Raises ValueError with one sentence outside the window."""
        for x, y in points:
            if not (self.x_min <= x <= self.x_max and self.y_min <= y <= self.y_max):
                raise ValueError(_("({x}; {y}) lies beyond these axes.").format(x=number_text(x, 3), y=number_text(y, 3)))
        names = free_letters(page, len(points))
        made = [
            PointThing(rule="plotted", of=(self.id,), values=at, name=name) for at, name in zip(points, names, strict=True)
        ]
        return settle(page.put(*made))

    def form_on(self, page: Page) -> Form | None:
        return Path(tuple(self.placement.to_page(*corner) for corner in self.extent().corners()))

    def uses(self, page: Page) -> tuple[Thing, ...]:
        return self.curves(page)

    def curves(self, page: Page) -> tuple[Equation, ...]:
        """The equations drawn on it: those linked to it, and those that lie on it and are linked to nothing."""
        return tuple(thing for thing in page.things if isinstance(thing, Equation) and self.draws(thing))

    def draws(self, equation: Equation) -> bool:
        if equation.axes:
            return equation.axes == self.id
        return self.extent().holds(*self.placement.to_local(*equation.box().centre))

    def graph(self, curve: Curve) -> Graph | Spot:
        return self.plotted(*place_of(curve)) if curve.along == "point" else graph_on(curve, self)

    def facts(self, page: Page) -> Iterator[Fact]:
        for name in ("x_min", "x_max", "y_min", "y_max"):
            label = {"x_min": _("x from"), "x_max": _("x to"), "y_min": _("y from"), "y_max": _("y to")}[name]
            yield measure(name, getattr(self, name), "", label, 3, set=self._range_setter(name))
        yield Fact(
            "plot",
            "",
            text="",
            label=_("plot points"),
            hint=_("such as (2; 3)"),
            set=lambda typed: self.plot(page, read_points(typed)) if typed.strip() else self,
        )
        for equation in self.curves(page):
            yield Fact(f"curve {equation.id}", equation.source, text=equation.source, label=_("drawn"))

    def _range_setter(self, name: str) -> Callable[[str], Thing]:
        def set_range(typed: str) -> Thing:
            try:
                changed: Thing = self.replace(**{name: read_number(typed)})
            except ValueError as error:
                if "axis" in str(error):
                    raise ValueError(_("An axis must run from a smaller to a larger number.")) from error
                raise
            return changed

        return set_range

    def handles(self) -> tuple[Handle, ...]:
        return (Handle("corner", self.width, self.height, _("size")),)

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        changed: Thing = self.replace(width=max(SMALLEST_SIDE, x), height=max(SMALLEST_SIDE, y))
        return changed

    def stretched(self, across: float, down: float) -> Thing | None:
        size = {"width": max(SMALLEST_SIDE, self.width * across), "height": max(SMALLEST_SIDE, self.height * down)}
        changed: Thing = self.replace(**size)
        return changed

    def ticks(self) -> tuple[list[float], list[float]]:
        """Round numbers to mark on each axis, about one every 44 page units."""
        return (
            round_steps(self.x_min, self.x_max, self.width / 44),
            round_steps(self.y_min, self.y_max, self.height / 44),
        )


def read_points(typed: str) -> list[Point]:
    """ "(2; 3.5) (−1; 4)" as pairs. Raises ValueError with one sentence."""
    found = re.findall(r"\(([^()]*)\)", typed) or [typed]
    if len(found) > MOST_PLOTTED:
        raise ValueError(_("At most {n} points can be plotted at once.").format(n=MOST_PLOTTED))
    return [read_pair(pair) for pair in found]


def _clean(value: float, width: float) -> float:
    """Without the noise that the way through page units leaves."""
    near = round(value, max(0, 11 - math.ceil(math.log10(width))))
    return near + 0.0


def _nearest(value: float, marks: Sequence[float]) -> float:
    return min(marks, key=lambda mark: abs(mark - value), default=value)


def round_steps(low: float, high: float, most: float) -> list[float]:
    """Multiples of 1, 2 or 5 times a power of ten between low and high, at most about `most` of them."""
    rough = (high - low) / max(1.0, most)
    power = 10 ** math.floor(math.log10(rough))
    step = next(power * k for k in (1, 2, 5, 10) if power * k >= rough * 0.999)
    first, last = math.ceil(low / step - 1e-9), math.floor(high / step + 1e-9)
    return [k * step for k in range(first, last + 1)][:200]


def tick_text(value: float, step: float) -> str:
    places = max(0, -math.floor(math.log10(step) + 1e-9)) if step > 0 else 0
    return number_text(value, min(places, 9))


def axes_at(x: float, y: float, **fields: float) -> Axes:
    """Axes whose top left corner lies at a place on the page."""
    return Axes(placement=Placement(x, y), **fields)  # type: ignore[arg-type]
