"""A table of values: filled by an equation, or with numbers of one's own, which are points on the axes beside it."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from fractions import Fraction
from typing import ClassVar, NamedTuple, Self

from larch.core.base.memo import once_a_page
from larch.core.base.shape import Box, Point, union
from larch.core.base.words import N_, _
from larch.core.maths.expression import ExpressionError, Node, Undefined
from larch.core.maths.expression.precise import Budget, as_float, precise
from larch.core.maths.expression.tree import states
from larch.core.maths.graph import Curve
from larch.core.maths.layout.reading import meaning
from larch.core.maths.recursion import exact_members
from larch.core.maths.surd import recognised
from larch.core.model.capabilities import HasParts, HasWords, LooksAt, Plots, Tabulates, WorksLocked
from larch.core.model.fact import Fact, plain_number
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.core.model.written_on import TakesNumbers, WrittenSign
from larch.core.things.graphs.equation import Equation, value_text

ROW, COLUMN = 58.0, 138.0
MOST_ROWS, LONGEST = 60, 60
EFFORT = 4000
FILLING = ("x", "n", "rule")  # along what curves run that fill tables
RESIDUALS = "residuals"  # among what is shown: how far its points lie off the curve of best fit


class Row(NamedTuple):
    """A row as it is seen: what stands in it, the numbers where there are some, and of an own y beside an equation whether
    it is right."""

    x: str
    y: str
    at: float | None
    height: float | None
    right: bool | None = None


class ValueTable(
    HasParts, HasWords, Tabulates, LooksAt, TakesNumbers, WorksLocked, Thing, frozen=True, kw_only=True, tag="value table"
):
    """xs, ys: what was typed, row by row; an empty y is filled by the equation. equation: the id of the one that fills it,
    "" for none; axes: of those on which its points lie, "" for the only ones of the page. asked: nothing is filled, what is
    typed is compared. fit: the id of the curve that was laid through its points. Raises ValueError for what is too long."""

    xs: tuple[str, ...] = ("-2", "-1", "0", "1", "2")
    ys: tuple[str, ...] = ()
    equation: str = ""
    axes: str = ""
    asked: bool = False
    fit: str = ""
    x_name: str = "x"
    y_name: str = "y"
    hue: str = "lake"

    turnable: ClassVar[bool] = False
    pen_moves_parts: ClassVar[bool] = False
    editor: ClassVar[str] = "value_table"
    icon: ClassVar[str] = "table-2"
    order: ClassVar[int] = 42
    refers: ClassVar[tuple[str, ...]] = ("equation", "axes", "fit")
    help: ClassVar[str] = N_(
        "Tap a cell and write; Tab goes on. Its rows are points on the axes, which can be dragged there. An equation fills "
        "it; where it is asked, what a pupil writes is compared."
    )

    def __post_init__(self) -> None:
        if len(self.xs) > MOST_ROWS or len(self.ys) > MOST_ROWS or any(len(v) > LONGEST for v in (*self.xs, *self.ys)):
            raise ValueError("a table of values is of a size")

    @classmethod
    def title(cls) -> str:
        return _("table of values")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("table values points data x y function plot")
        own = N_("Graphs")
        yield ShelfItem("value table", _("table of values"), own, lambda: cls(xs=("", "", "")), words)

    def label(self, page: Page) -> str:
        return self.name or _("table of {n} values").format(n=len(self.xs))

    def plain_text(self) -> str:
        pairs = zip(self.xs, [*self.ys, *[""] * len(self.xs)], strict=False)
        return "\n".join(f"{x}\t{y}" for x, y in pairs)

    def extent(self) -> Box:
        return Box(0, 0, 2 * COLUMN, ROW * (self.count() + 1))

    def count(self) -> int:
        """Rows under the names; one more than are filled, as long as there is room."""
        full = bool(self.xs) and bool(self.xs[-1].strip())
        return min(MOST_ROWS, len(self.xs) + (1 if full or not self.xs else 0))

    def cell_box(self, row: int, column: int) -> Box:
        return Box(column * COLUMN, (row + 1) * ROW, (column + 1) * COLUMN, (row + 2) * ROW)

    def typed_in(self, row: int, column: int) -> str:
        cells = self.xs if column == 0 else self.ys
        return cells[row] if row < len(cells) else ""

    def uses(self, page: Page) -> tuple[Thing, ...]:
        found = (page.thing(id) for id in (self.equation, self.fit) if id)
        return tuple(thing for thing in found if thing is not None)

    def axes_on(self, page: Page) -> Plots | None:
        if self.axes:
            found = page.thing(self.axes)
            return found if isinstance(found, Plots) else None
        several = [thing for thing in page.things if isinstance(thing, Plots)]
        return several[0] if len(several) == 1 else None

    def rests_on(self, page: Page) -> tuple[str, ...]:
        axes = self.axes_on(page)
        return () if axes is None else (axes.id,)

    # Values

    def rows(self, page: Page) -> tuple[Row, ...]:
        """As they are seen on a page."""
        return _rows(self, page)

    def points_on(self, page: Page) -> list[tuple[int, float, float]]:
        return [
            (k, row.at, row.height) for k, row in enumerate(self.rows(page)) if row.at is not None and row.height is not None
        ]

    def written(self, row: int, column: int, text: str) -> Self:
        """With something else in a cell; empty rows at the end are left out. Raises ValueError with one sentence."""
        text = text.strip()[:LONGEST]
        if text and number_in(text) is None:
            raise ValueError(_("“{typed}” is not a number.").format(typed=text[:40]))
        cells = [list(self.xs), list(self.ys)]
        size = max(row + 1, len(self.xs), len(self.ys))
        for own in cells:
            own += [""] * (size - len(own))
        cells[column][row] = text
        while len(cells[0]) > 1 and not cells[0][-1] and not cells[1][-1]:
            for own in cells:
                own.pop()
        while cells[1] and not cells[1][-1]:
            cells[1].pop()
        return self.replace(xs=tuple(cells[0]), ys=tuple(cells[1]))  # type: ignore[no-any-return]

    def number_written(self, page: Page, text: str, signs: Sequence[WrittenSign], hue: str) -> Page:
        """In the cell in which the middle of it stands."""
        part = self.part_at(*self.placement.to_local(*union(sign.box for sign in signs).centre), 0.0)
        if not part:
            raise ValueError(_("Write a number in a cell."))
        return page.with_things({self.id: self.written(*cell_of(part), text)})

    def with_point(self, page: Page, row: int, x: float, y: float) -> Self:
        """With a point dragged elsewhere: along its graph where an equation fills the table."""
        made = self.written(row, 0, plain_number(x, 6).replace("−", "-"))
        filled = self.equation and not self.typed_in(row, 1)
        return made if filled else made.written(row, 1, plain_number(y, 6).replace("−", "-"))

    def residuals(self, page: Page) -> list[tuple[float, float, float]]:
        """x, y and the height of the fitted curve there, of each point over or under it."""
        thing = page.thing(self.fit) if self.fit else None
        curve = thing.curve() if isinstance(thing, Equation) else None
        if curve is None or curve.along != "x":
            return []
        found = []
        for _row, x, y in self.points_on(page):
            value = _value(curve.formula, Fraction(str(round(x, 12))))
            if value is not None:
                found.append((x, y, float(value)))
        return found

    def facts(self, page: Page) -> Iterator[Fact]:
        rows = self.rows(page)
        apart = self.residuals(page)
        if apart:
            squares = math.fsum((y - height) ** 2 for _x, y, height in apart)
            yield Fact("squares", squares, text=plain_number(squares, 4), label=_("sum of squared residuals"))
        yield Fact("rows", len(self.xs), text=str(len(self.xs)), label=_("rows"))
        known = [row for row in rows if row.right is not None]
        if known:
            count = sum(bool(row.right) for row in known)
            yield Fact("right", count, text=_("{n} of {all}").format(n=count, all=len(known)), label=_("right"))
        for axis, label in (("x_name", _("name of the first column")), ("y_name", _("name of the second column"))):
            name = getattr(self, axis)
            yield Fact(axis, name, text=name, label=label, part="looks", set=self._namer(axis))
        equations = [
            t for t in page.things if isinstance(t, Equation) and (c := t.curve()) is not None and c.along in FILLING
        ]
        options = (("", _("none")), *((t.id, t.plain_text()[:40]) for t in equations))
        text = dict(options).get(self.equation, "")
        yield Fact("equation", self.equation, text=text, label=_("filled by"), options=options,
                   set=lambda typed: self.replace(equation=typed if typed in dict(options) else ""))  # fmt: skip

    def _namer(self, axis: str):  # type: ignore[no-untyped-def]
        return lambda typed: self.replace(**{axis: typed.strip()[:LONGEST]})

    # Cells: "x 0", "y 0" …

    def parts(self) -> tuple[str, ...]:
        return tuple(f"{name} {row}" for row in range(self.count()) for name in "xy")

    def part_place(self, part: str) -> Point:
        return self.cell_box(*cell_of(part)).centre

    def part_at(self, x: float, y: float, slack: float) -> str:
        row, column = int(y // ROW) - 1, int(x // COLUMN)
        return f"{'xy'[column]} {row}" if 0 <= row < self.count() and 0 <= column <= 1 else ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        return self

    def part_label(self, part: str) -> str:
        return _("Table of values")


def cell_of(part: str) -> tuple[int, int]:
    """Row and column of a part."""
    name, row = part.split()
    return int(row), "xy".index(name)


def number_in(text: str) -> Fraction | float | None:
    """The number that a cell holds: exact where it can be; None where it holds none."""
    try:
        node = meaning(text)
        if states(node):
            return None
        value = precise(node, {}, Budget(EFFORT))
        return value if isinstance(value, Fraction) else as_float(value)
    except (ExpressionError, Undefined):
        return None


@once_a_page
def _rows(table: ValueTable, page: Page) -> tuple[Row, ...]:
    equation = page.thing(table.equation) if table.equation else None
    curve = equation.curve() if isinstance(equation, Equation) else None
    formula = curve if curve is not None and curve.along in FILLING else None
    return tuple(_row(table, k, formula) for k in range(len(table.xs)))


def _row(table: ValueTable, k: int, curve: Curve | None) -> Row:
    x, y = table.typed_in(k, 0), table.typed_in(k, 1)
    at = number_in(x) if x else None
    own = number_in(y) if y else None
    value = _filled(curve, at) if curve is not None and at is not None else None
    place = None if at is None else float(at)
    if own is not None:
        right = None if value is None else _same(own, value)
        return Row(x, y, place, float(own), right if table.asked or right is False else None)
    if table.asked or value is None:
        missing = "—" if curve is not None and at is not None and not table.asked else ""
        return Row(x, missing, place, None)
    return Row(x, _exactly(value), place, float(value))


def _filled(curve: Curve, at: Fraction | float) -> Fraction | float | None:
    """The value there; of a sequence at its numbers only."""
    if curve.along == "x":
        return _value(curve.formula, at)
    first = math.ceil(curve.span[0])
    if float(at) != int(at) or not first <= at <= first + MOST_ROWS:
        return None
    if curve.along == "n":
        return _value(curve.formula, at, "n")
    found = exact_members(curve.formula, curve.firsts, first, int(at) - first + 1)
    return found[-1] if len(found) == int(at) - first + 1 else None


def _value(formula: Node, at: Fraction | float, letter: str = "x") -> Fraction | float | None:
    try:
        value = precise(formula, {letter: at}, Budget(EFFORT))
    except Undefined:
        return None
    if isinstance(value, Fraction):
        return value
    number = as_float(value)
    return number if math.isfinite(number) else None


def _same(one: Fraction | float, other: Fraction | float) -> bool:
    if isinstance(one, Fraction) and isinstance(other, Fraction):
        return one == other
    return math.isclose(float(one), float(other), rel_tol=1e-9, abs_tol=1e-12)


def _exactly(value: Fraction | float) -> str:
    if isinstance(value, Fraction):
        return value_text(value)
    root = recognised(value)
    return root.text() if root is not None else plain_number(value, 3)
