"""Axes, on which equations are drawn."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator, Sequence
from typing import Any, ClassVar, Self

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.figures.figure import free_letters
from larch.core.figures.settle import settle
from larch.core.maths.graph import Curve
from larch.core.maths.plane.forms import Form, Graph, NotThere, Path, Spot
from larch.core.model.capabilities import HasParts, LooksAt, Plots, Shades, Tabulates, Zooms
from larch.core.model.fact import Fact, measure, number_text, read_number
from larch.core.model.page import Page
from larch.core.model.thing import Handle, ShelfItem, Thing
from larch.core.things.geometry.point import Point as PointThing
from larch.core.things.geometry.point import read_pair
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.graph_form import graph_on, place_of
from larch.core.things.graphs.ticks import KINDS, marks_between, step_of

SMALLEST_SIDE = 40.0
MOST_PLOTTED = 100
LOG = "log"
DECADES, BEYOND = 1000.0, 10.0  # of a range that becomes logarithmic; lengths of the axis, to what it can't have
APART = 44.0  # page units from mark to mark, at least
END, LINE, BESIDE = 26.0, 9.0, 21.0  # page units: a finger at an end, at an axis, at the numbers beside it
NEARLY = 40.0  # page units by which two fingers are apart along an axis that they scale
FINE = 14.0  # page units between the crossings onto which points fall


class Axes(HasParts, Zooms, Plots, LooksAt, Thing, frozen=True, kw_only=True, tag="axes"):
    """A window onto the plane: ranges in mathematical units, size in page units, y upwards. x_marks, y_marks: how each
    axis is numbered, of `ticks.KINDS`. equal: whether one unit is as long on both axes, and stays so.
    grid: whether there is one; rings: whether it is one of rings and rays about the origin.

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
    x_marks: str = ""
    y_marks: str = ""
    equal: bool = False
    grid: bool = True
    rings: bool = False
    hue: str = "needle"

    turnable: ClassVar[bool] = False
    pen_moves_parts: ClassVar[bool] = False
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
        if (self.x_marks == LOG and self.x_min <= 0) or (self.y_marks == LOG and self.y_min <= 0):
            raise ValueError("a logarithmic axis has no zero")
        if self.x_marks not in KINDS or self.y_marks not in KINDS or max(len(self.x_name), len(self.y_name)) > 60:
            raise ValueError("axes are numbered in other ways")

    @classmethod
    def title(cls) -> str:
        return _("axes")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("coordinates graph plane grid function plot number line")
        yield ShelfItem("axes", _("axes"), N_("Graphs"), lambda: cls(width=528, height=440), words)
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
        """From the plane to its own coordinates. What a logarithmic axis can't have lies far beyond its lower end."""
        across = _share(x, self.x_min, self.x_max, self.x_marks == LOG)
        return (across * self.width, (1.0 - _share(y, self.y_min, self.y_max, self.y_marks == LOG)) * self.height)

    def to_plane(self, x: float, y: float) -> Point:
        return (
            _value(x / self.width, self.x_min, self.x_max, self.x_marks == LOG),
            _value(1.0 - y / self.height, self.y_min, self.y_max, self.y_marks == LOG),
        )

    def has_log(self) -> bool:
        """Whether one of its axes is logarithmic."""
        return any(self.logarithmic())

    def logarithmic(self) -> tuple[bool, bool]:
        """Which of its axes are, across and up."""
        return self.x_marks == LOG, self.y_marks == LOG

    def _linear(self) -> Self:
        """The same frame with the exponents along its logarithmic axes, for what hands do."""
        made = {f"{axis}_{end}": math.log10(getattr(self, f"{axis}_{end}")) for axis in "xy" for end in ("min", "max")
                if getattr(self, f"{axis}_marks") == LOG}  # fmt: skip
        marks = {f"{axis}_marks": "" for axis in "xy" if getattr(self, f"{axis}_marks") == LOG}
        return self.replace(**made, **marks, equal=False)  # type: ignore[no-any-return]

    def _as_linear(self, other: Axes) -> Self:
        """Itself with the frame and range of its linear likeness."""
        made: dict[str, Any] = {"width": other.width, "height": other.height, "placement": other.placement}
        for axis in "xy":
            log = getattr(self, f"{axis}_marks") == LOG
            for end in ("min", "max"):
                value = getattr(other, f"{axis}_{end}")
                made[f"{axis}_{end}"] = float(f"{10 ** min(max(value, -11.0), 11.9):.4g}") if log else value
        return self._windowed(**made)

    def plane_of(self, at: Point) -> Point:
        """Coordinates of a place of the page; free of the noise of the last digits."""
        x, y = self.to_plane(*self.placement.to_local(*at))
        if self.has_log():
            return (float(f"{x:.9g}"), float(f"{y:.9g}"))
        return (_clean(x, self.x_max - self.x_min), _clean(y, self.y_max - self.y_min))

    def page_of(self, at: Point) -> Point:
        """The place of the page that has these coordinates."""
        return self.placement.to_page(*self.to_local(*at))

    def units(self) -> tuple[float, float]:
        """Its own units to one unit of each axis."""
        return (self.width / (self.x_max - self.x_min), self.height / (self.y_max - self.y_min))

    def grid_point(self, at: Point) -> Point:
        """The nearest crossing of a grid of round numbers, about 14 page units wide; a place of the page."""
        across = marks_between(self.x_min, self.x_max, self.width / FINE, self.x_marks)
        down = marks_between(self.y_min, self.y_max, self.height / FINE, self.y_marks)
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
        return (*self.curves(page), *self.tables(page), *self.areas(page))

    def areas(self, page: Page) -> tuple[Shades, ...]:
        """What is shaded on it."""
        return tuple(t for t in page.things if isinstance(t, Shades) and (on := t.axes_on(page)) and on.id == self.id)

    def tables(self, page: Page) -> tuple[Tabulates, ...]:
        """What has points on it."""
        return tuple(t for t in page.things if isinstance(t, Tabulates) and (on := t.axes_on(page)) and on.id == self.id)

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
        for axis in ("x", "y"):
            yield from self._axis_facts(axis)
        grids = {"squares": _("squares"), "rings": _("rings and rays"), "none": _("none")}
        now = "none" if not self.grid else "rings" if self.rings else "squares"
        yield Fact("grid", now, text=grids[now], label=_("grid"), options=tuple(grids.items()),
                   set=lambda typed: self.replace(grid=typed != "none", rings=typed == "rings"))  # fmt: skip
        ways = (("no", _("each its own")), ("yes", _("equal")))
        yield Fact("equal", "yes" if self.equal else "no", text=dict(ways)["yes" if self.equal else "no"],
                   label=_("units"), options=ways, set=lambda typed: self.with_equal(typed == "yes"))  # fmt: skip
        for equation in self.curves(page):
            yield Fact(f"curve {equation.id}", equation.source, text=equation.source, label=_("drawn"))

    def _axis_facts(self, axis: str) -> Iterator[Fact]:
        name, marks = getattr(self, f"{axis}_name"), getattr(self, f"{axis}_marks")
        label = _("name of {axis}").format(axis=axis)
        yield Fact(f"{axis}_name", name, text=name, label=label, hint=_("such as t in h"), part="looks",
                   set=lambda typed: self.replace(**{f"{axis}_name": typed.strip()[:60]}))  # fmt: skip
        kinds = tuple((kind, _(words)) for kind, words in KINDS.items())
        label = _("numbers on {axis}").format(axis=axis)
        yield Fact(f"{axis}_marks", marks, text=_(KINDS[marks]), label=label, options=kinds,
                   set=lambda typed: self._marked(axis, typed if typed in KINDS else marks))  # fmt: skip

    def _marked(self, axis: str, kind: str) -> Thing:
        """With an axis numbered in another way; one that becomes logarithmic is given a range that has a logarithm."""
        low, high = getattr(self, f"{axis}_min"), getattr(self, f"{axis}_max")
        ends = {}
        if kind == LOG and low <= 0:
            high = high if high > 0 else 1000.0
            ends = {f"{axis}_min": high / DECADES, f"{axis}_max": high}
        return self.replace(**ends, **{f"{axis}_marks": kind})  # type: ignore[no-any-return]

    def _range_setter(self, name: str) -> Callable[[str], Thing]:
        def set_range(typed: str) -> Thing:
            try:
                changed: Thing = self.replace(**{name: read_number(typed)}).kept_equal(name[0])
            except ValueError as error:
                if "logarithmic" in str(error):
                    raise ValueError(_("A logarithmic axis goes through numbers that are more than nothing.")) from error
                if "axis" in str(error):
                    raise ValueError(_("An axis must run from a smaller to a larger number.")) from error
                raise
            return changed

        return set_range

    # Hands: the window onto the plane is shifted, stretched and scaled by its own axes

    def handles(self) -> tuple[Handle, ...]:
        return (Handle("corner", self.width, self.height, _("size")),)

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        changed: Thing = self.replace(width=max(SMALLEST_SIDE, x), height=max(SMALLEST_SIDE, y)).kept_equal("y")
        return changed

    def stretched(self, across: float, down: float) -> Thing | None:
        size = {"width": max(SMALLEST_SIDE, self.width * across), "height": max(SMALLEST_SIDE, self.height * down)}
        changed: Thing = self.replace(**size).kept_equal("y")
        return changed

    def origin(self) -> Point:
        """Where the axes cross, or the nearest edge, in its own coordinates."""
        x, y = self.to_local(0, 0)
        return (min(max(x, 0.0), self.width), min(max(y, 0.0), self.height))

    def parts(self) -> tuple[str, ...]:
        return ("x axis", "y axis", "x end", "y end", "x start", "y start", "x numbers", "y numbers")

    def part_place(self, part: str) -> Point:
        x, y = self.origin()
        return {
            "x axis": (0.75 * self.width, y), "y axis": (x, 0.25 * self.height), "x end": (self.width + 12, y),
            "y end": (x, -12), "x start": (-12, y), "y start": (x, self.height + 12),
            "x numbers": (0.75 * self.width, y + BESIDE), "y numbers": (x - BESIDE, 0.25 * self.height),
        }[part]  # fmt: skip

    def part_at(self, x: float, y: float, slack: float) -> str:
        """An end, an axis, or the numbers along it."""
        ox, oy = self.origin()
        ends = ((math.dist(self.part_place(part), (x, y)), part) for part in ("x end", "y end", "x start", "y start"))
        near, end = min(ends)
        if near <= (END if "end" in end else 0.7 * END) + slack:
            return end
        along, up = 0 <= x <= self.width, 0 <= y <= self.height
        if along and abs(y - oy) <= LINE + slack / 2:
            return "x axis"
        if up and abs(x - ox) <= LINE + slack / 2:
            return "y axis"
        if along and 0 < y - oy <= 1.7 * BESIDE:
            return "x numbers"
        if up and 0 < ox - x <= 1.9 * BESIDE:
            return "y numbers"
        return ""

    def touches(self, x: float, y: float, slack: float) -> bool:
        return super().touches(x, y, slack) or self.part_at(x, y, slack) != ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        if self.has_log():
            return self._as_linear(self._linear().drag_part(part, before, to))
        across, down = self.units()
        dx, dy = to[0] - before[0], to[1] - before[1]
        if part.endswith("axis"):
            return self._shifted(dx / across, dy / down)
        low = {"x": self.x_min, "y": self.y_min}[part[0]]
        high = {"x": self.x_max, "y": self.y_max}[part[0]]
        if part.endswith("numbers"):
            return self._scaled(part[0], before, to)
        unit, moved = (across, dx) if part[0] == "x" else (down, -dy)
        low, high = (low, high + moved / unit) if part.endswith("end") else (low + moved / unit, high)
        if (high - low) * unit < SMALLEST_SIDE:
            return self
        size = (high - low) * unit
        if part[0] == "x":
            shift = moved if part.endswith("start") else 0.0
            made = self._windowed(x_min=low, x_max=high, width=size)
        else:
            shift = -moved if part.endswith("end") else 0.0
            made = self._windowed(y_min=low, y_max=high, height=size)
        if made is self:
            return self
        at = (shift, 0.0) if part[0] == "x" else (0.0, shift)
        x, y = self.placement.to_page(*at)
        return made.replace(placement=self.placement.moved(x - self.placement.x, y - self.placement.y))  # type: ignore[no-any-return]

    def part_let_go(self, part: str) -> Self:
        """Ranges end at a tenth of a mark, which is no page unit away."""
        if self.has_log():
            return self
        across, down = (step_of(self.x_min, self.x_max, self.width / APART, self.x_marks),
                        step_of(self.y_min, self.y_max, self.height / APART, self.y_marks))  # fmt: skip
        ends = {name: _rounded(getattr(self, name), step / 50) for name, step in (
            ("x_min", across), ("x_max", across), ("y_min", down), ("y_max", down))}  # fmt: skip
        return self._windowed(**ends)

    def part_label(self, part: str) -> str:
        return _("Move the axes") if part.endswith("axis") else _("Scale the axes") if "num" in part else _("Range")

    def _windowed(self, **changes: float) -> Self:
        """Itself with another window; as it is where there would be none."""
        try:
            return self.replace(**changes)  # type: ignore[no-any-return]
        except ValueError:
            return self

    def _shifted(self, x: float, y: float) -> Self:
        """With the plane pushed so far, in its units; y downwards."""
        return self._windowed(x_min=self.x_min - x, x_max=self.x_max - x, y_min=self.y_min + y, y_max=self.y_max + y)

    def _scaled(self, axis: str, before: Point, to: Point) -> Self:
        """With the number under a finger where the finger has come to; zero, or the far end, stays where it is."""
        ox, oy = self.origin()
        k = 0 if axis == "x" else 1
        still = (ox, oy)[k]
        side = (self.width, self.height)[k]
        if abs(before[k] - still) < 0.1 * side:  # too near to what stays
            still = 0.0 if before[k] > side / 2 else side
        share = (to[k] - still) / (before[k] - still) if before[k] != still else 1.0
        share = min(max(share, 0.05), 20.0)
        return self._zoomed_about((ox if k else still, still if k else oy), *((share, 1.0) if k == 0 else (1.0, share)))

    def _zoomed_about(self, still: Point, across: float, down: float) -> Self:
        if self.equal:
            across = down = across if across != 1.0 else down
        x, y = self.to_plane(*still)
        return self._windowed(
            x_min=x - (x - self.x_min) / across, x_max=x + (self.x_max - x) / across,
            y_min=y - (y - self.y_min) / down, y_max=y + (self.y_max - y) / down,
        )  # fmt: skip

    def zoomed(self, before: tuple[Point, Point], now: tuple[Point, Point]) -> Self:
        """Two fingers hold two places of the plane: along the axis on which they are apart, or along both."""
        if self.has_log():
            return self._as_linear(self._linear().zoomed(before, now))
        (a, b), (c, d) = before, now
        shares = []
        for k in (0, 1):
            apart = abs(b[k] - a[k])
            shares.append(min(max(abs(d[k] - c[k]) / apart, 0.02), 50.0) if apart > NEARLY else 1.0)
        if self.equal:
            shares = [min(max(math.dist(c, d) / max(1.0, math.dist(a, b)), 0.02), 50.0)] * 2
        middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        made = self._zoomed_about(middle, shares[0], shares[1])
        across, down = made.units()
        dx, dy = (c[0] + d[0]) / 2 - middle[0], (c[1] + d[1]) / 2 - middle[1]
        return made._shifted(dx / across, dy / down).part_let_go("")

    def with_equal(self, on: bool) -> Thing:
        """With units of equal length, or no longer bound to it."""
        return self.replace(equal=on).kept_equal("y")  # type: ignore[no-any-return]

    def kept_equal(self, changed: str) -> Self:
        """Where units are to be equal: those of the axis that did not change follow, about its middle."""
        across, down = self.units()
        if not self.equal or self.has_log() or math.isclose(across, down, rel_tol=1e-9):
            return self
        if changed == "x":  # x was typed: y follows
            middle, half = (self.y_min + self.y_max) / 2, self.height / across / 2
            return self._windowed(y_min=middle - half, y_max=middle + half)
        middle, half = (self.x_min + self.x_max) / 2, self.width / down / 2
        return self._windowed(x_min=middle - half, x_max=middle + half)

    def ticks(self) -> tuple[list[float], list[float]]:
        """Round numbers to mark on each axis, about one every 44 page units."""
        return (
            marks_between(self.x_min, self.x_max, self.width / APART, self.x_marks),
            marks_between(self.y_min, self.y_max, self.height / APART, self.y_marks),
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


def _share(value: float, low: float, high: float, log: bool) -> float:
    """How far along an axis a number lies, 0 to 1 within its range."""
    if not log:
        return (value - low) / (high - low)
    return math.log10(value / low) / math.log10(high / low) if value > 0 else -BEYOND


def _value(share: float, low: float, high: float, log: bool) -> float:
    if not log:
        return low + share * (high - low)
    times: float = 10.0 ** (min(max(share, -BEYOND), BEYOND) * math.log10(high / low))
    return low * times


def _rounded(value: float, step: float) -> float:
    """To a power of ten below a step."""
    return round(value, max(0, math.ceil(-math.log10(step)))) + 0.0


def _nearest(value: float, marks: Sequence[float]) -> float:
    return min(marks, key=lambda mark: abs(mark - value), default=value)


def axes_at(x: float, y: float, **fields: float) -> Axes:
    """Axes whose top left corner lies at a place on the page."""
    return Axes(placement=Placement(x, y), **fields)  # type: ignore[arg-type]
