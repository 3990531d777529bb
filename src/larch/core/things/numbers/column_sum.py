"""Column arithmetic as it is laid out on squared paper: sums, differences, products, and long division."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from functools import partial
from typing import ClassVar, NamedTuple, Self

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, toggle
from larch.core.model.capabilities import HasParts, HasWords, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.core.model.written_on import TakesNumbers, WrittenSign

CELL, LINE, SMALL = 46.0, 58.0, 34.0  # width and height of a cell; height of a row of small digits
MOST_DIGITS, MOST_NUMBERS = 9, 6
SIGNS = ("+", "−", "×", "÷")
PLAIN = {"+": "+", "-": "−", "−": "−", "*": "×", "·": "×", "×": "×", "/": "÷", ":": "÷", "÷": "÷"}
Cell = tuple[int, int]  # row and column


class Line(NamedTuple):
    """A row: what is printed in it by column, what belongs into its other cells, whether its digits are small, and whether a
    line is ruled above it, from which column to which."""

    printed: Mapping[int, str]
    wanted: Mapping[int, str]
    small: bool = False
    ruled: tuple[int, int] | None = None


class ColumnSum(HasParts, HasWords, TakesNumbers, WorksLocked, Thing, frozen=True, kw_only=True, tag="column sum"):
    """op: one of SIGNS. numbers: whole numbers as digits; two, or up to six of a sum. written: digits in cells, as (row,
    column, digit). check: what is written is checked. Raises ValueError for what can't be laid out."""

    op: str = "+"
    numbers: tuple[str, ...] = ("275", "148")
    written: tuple[tuple[int, int, str], ...] = ()
    check: bool = False
    hue: str = "lake"

    turnable: ClassVar[bool] = False
    editor: ClassVar[str] = "column_sum"
    icon: ClassVar[str] = "table"
    order: ClassVar[int] = 18
    help: ClassVar[str] = N_(
        "Tap a cell and write digits with keys or the tray: from right to left, in a division from left to right. “Check "
        "the digits” tells which of them stand right. Type another one as 275 + 148, 84 ÷ 4."
    )

    def __post_init__(self) -> None:
        if self.op not in SIGNS or not 2 <= len(self.numbers) <= (MOST_NUMBERS if self.op == "+" else 2):
            raise ValueError("column arithmetic has a sign and its numbers")
        if not all(number.isdecimal() and len(number) <= MOST_DIGITS for number in self.numbers):
            raise ValueError("column arithmetic is done with whole numbers")
        first, second = int(self.numbers[0]), int(self.numbers[1])
        if (self.op == "−" and second > first) or (self.op == "÷" and second == 0):
            raise ValueError("this can't be worked out in columns")
        if any(not (0 <= row < 99 and 0 <= column < 99 and len(digit) == 1) for row, column, digit in self.written):
            raise ValueError("a cell holds one digit")

    @classmethod
    def title(cls) -> str:
        return _("column arithmetic")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("column written addition subtraction multiplication algorithm carry squared paper")
        yield ShelfItem("column sum", _("column sum"), N_("Numbers"), cls, words)
        product = partial(cls, op="×", numbers=("46", "23"))
        yield ShelfItem("column product", _("column product"), N_("Numbers"), product, words)
        division = partial(cls, op="÷", numbers=("952", "7"))
        words = _("long division written remainder bring down")
        yield ShelfItem("long division", _("long division"), N_("Numbers"), division, words)

    def label(self, page: Page) -> str:
        return self.name or self.task()

    def task(self) -> str:
        return f" {self.op} ".join(self.numbers)

    def plain_text(self) -> str:
        return self.task()

    def result(self) -> str:
        """What comes out; of a division with its remainder."""
        values = [int(number) for number in self.numbers]
        if self.op == "÷":
            whole, rest = divmod(values[0], values[1])
            return _("{whole} remainder {rest}").format(whole=whole, rest=rest) if rest else str(whole)
        total = sum(values) if self.op == "+" else values[0] - values[1] if self.op == "−" else values[0] * values[1]
        return str(total)

    # Layout

    def lines(self) -> tuple[Line, ...]:
        """All rows, from the top down."""
        return _division(self) if self.op == "÷" else _product(self) if self.op == "×" else _sum(self)

    def width(self) -> int:
        """In columns."""
        return 1 + max((column for line in self.lines() for column in (*line.printed, *line.wanted)), default=0)

    def row_top(self, row: int) -> float:
        return sum(SMALL if line.small else LINE for line in self.lines()[:row])

    def extent(self) -> Box:
        return Box(0, 0, CELL * self.width(), self.row_top(len(self.lines())))

    def cell_box(self, row: int, column: int) -> Box:
        top = self.row_top(row)
        return Box(CELL * column, top, CELL * (column + 1), top + (SMALL if self.lines()[row].small else LINE))

    def cell_at(self, x: float, y: float) -> Cell | None:
        """The cell that can be written in at a place of its own coordinates."""
        for row, line in enumerate(self.lines()):
            for column in range(self.width()):
                if self.cell_box(row, column).holds(x, y):
                    return (row, column) if column not in line.printed and (line.wanted or line.small) else None
        return None

    def digits(self) -> dict[Cell, str]:
        return {(row, column): digit for row, column, digit in self.written}

    def with_digit(self, cell: Cell, digit: str) -> Self:
        """With a digit written in a cell, or nothing."""
        kept = {place: one for place, one in self.digits().items() if place != cell}
        if digit:
            kept[cell] = digit
        return self.replace(written=tuple((r, c, d) for (r, c), d in sorted(kept.items())))  # type: ignore[no-any-return]

    def answered(self, result: str) -> Self:
        """With digits written in the row of the result, right or wrong. Raises ValueError where they don't fit there."""
        row, last = (0, self.width() - 1) if self.op == "÷" else (len(self.lines()) - 1, self.width() - 1)
        if len(result) > last + 1 or not (result.isdecimal() or not result):
            raise ValueError("the result has its cells")
        made = self
        for column, digit in _placed(result, last).items():
            made = made.with_digit((row, column), digit)
        return made

    def number_written(self, page: Page, text: str, signs: Sequence[WrittenSign], hue: str) -> Page:
        """Each digit in the cell in which it stands."""
        made = self
        for sign in signs:
            cell = self.cell_at(*self.placement.to_local(*sign.box.centre))
            if cell is None or len(sign.text) != 1 or not sign.text.isdecimal():
                raise ValueError(_("Write one digit in a cell."))
            made = made.with_digit(cell, sign.text)
        return page.with_things({self.id: made})

    def wanted(self) -> dict[Cell, str]:
        """What belongs into cells, but for small digits, of which each class has its own way."""
        return {(row, c): d for row, line in enumerate(self.lines()) if not line.small for c, d in line.wanted.items()}

    def wrong(self) -> tuple[Cell, ...]:
        """Cells that hold another digit than belongs there; a zero before a number does no harm."""
        wanted, lines = self.wanted(), self.lines()
        return tuple(
            cell for cell, digit in self.digits().items()
            if not lines[cell[0]].small and digit != wanted.get(cell, "0" if self._before_all(cell) else "")
        )  # fmt: skip

    def _before_all(self, cell: Cell) -> bool:
        return all(cell[1] < column for column in self.lines()[cell[0]].wanted)

    def is_done(self) -> bool:
        """Whether all that belongs there is written."""
        written = self.digits()
        return all(written.get(cell) == digit for cell, digit in self.wanted().items())

    def facts(self, page: Page) -> Iterator[Fact]:
        yield Fact("task", self.task(), text=self.task(), label=_("to be worked out"), set=self._set_task, hint="275 + 148")
        done = self.is_done()
        yield Fact("done", done, text=_("yes") if done else _("not yet"), label=_("worked out"))
        yield Fact("written", self.answer(), text=self.answer() or _("nothing"), label=_("written as the result"))

    def answer(self) -> str:
        """What is written in the row of the result."""
        row = 0 if self.op == "÷" else len(self.lines()) - 1
        return "".join(digit for (r, _c), digit in sorted(self.digits().items()) if r == row)

    def _set_task(self, typed: str) -> Thing:
        signs = {PLAIN[c] for c in typed if c in PLAIN}
        op = signs.pop() if len(signs) == 1 else ""
        numbers = typed
        for sign in PLAIN:
            numbers = numbers.replace(sign, " ")
        try:
            return self.replace(op=op, numbers=tuple(numbers.split()), written=())  # type: ignore[no-any-return]
        except ValueError as error:
            raise ValueError(_("Write whole numbers with one sign, such as 275 + 148 or 84 ÷ 4.")) from error

    # Hands: its cells

    def parts(self) -> tuple[str, ...]:
        return tuple(f"{row},{column}" for row, column in self.wanted())

    def part_place(self, part: str) -> Point:
        row, column = map(int, part.split(","))
        return self.cell_box(row, column).centre

    def part_at(self, x: float, y: float, slack: float) -> str:
        cell = self.cell_at(x, y)
        return f"{cell[0]},{cell[1]}" if cell is not None else ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        return self

    def tap_part(self, part: str, at: Point) -> Self | None:
        return None

    def part_label(self, part: str) -> str:
        return _("Write a digit")

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _placed(number: str, last: int) -> dict[int, str]:
    """Digits of a number that ends in a column."""
    return {last - len(number) + 1 + k: digit for k, digit in enumerate(number)}


def _sum(thing: ColumnSum) -> tuple[Line, ...]:
    longest = max(len(number) for number in (*thing.numbers, thing.result()))
    last = longest  # column 0 is for the sign
    rows = [Line({}, {}, small=True)]
    for k, number in enumerate(thing.numbers):
        sign = {0: thing.op} if k == len(thing.numbers) - 1 else {}
        rows.append(Line({**sign, **_placed(number, last)}, {}))
    rows.append(Line({}, _placed(thing.result(), last), ruled=(0, last)))
    return tuple(rows)


def _product(thing: ColumnSum) -> tuple[Line, ...]:
    first, second = thing.numbers
    last = max(len(thing.result()), len(first), len(second))
    rows = [Line({}, {}, small=True), Line(_placed(first, last), {}), Line({0: "×", **_placed(second, last)}, {})]
    if len(second) > 1:
        for k, digit in enumerate(reversed(second)):
            part = str(int(first) * int(digit)) + "0" * k
            rows.append(Line({}, _placed(part, last), ruled=(0, last) if k == 0 else None))
    rows.append(Line({}, _placed(thing.result(), last), ruled=(0, last)))
    return tuple(rows)


def _division(thing: ColumnSum) -> tuple[Line, ...]:
    """The quotient above, then for each digit of it the product and what is left, with the next digit brought down."""
    dividend, divisor = thing.numbers
    start = len(divisor) + 1  # the column of the dividend's first digit
    over: dict[int, str] = {}
    below: list[Line] = []
    rest = 0
    for k, digit in enumerate(dividend):
        rest = rest * 10 + int(digit)
        column, following = start + k, dividend[k + 1 : k + 2]
        times = rest // int(divisor)
        if not times and not over:
            continue
        over[column] = str(times)
        ruled = below[-1].ruled if below else None
        if times:
            product = str(times * int(divisor))
            below.append(Line({}, _placed(product, column)))
            rest -= int(product)
            ruled = (column - len(product) + 1, column + len(following))
        else:  # nothing is taken away: the next digit is brought down beside the last
            below.pop()
        left = (str(rest) + following).lstrip("0") or "0"
        below.append(Line({}, _placed(left, column + len(following)), ruled=ruled))
    if not over:
        over[start + len(dividend) - 1] = "0"
    head = Line(
        {**_placed(divisor, len(divisor) - 1), len(divisor): ")", **_placed(dividend, start + len(dividend) - 1)}, {}
    )
    return (Line({}, over), head, *below)


def _solved(page: Page, things: Things) -> Edit:
    """All digits written as they belong."""
    changed: dict[str, Thing] = {}
    for thing in things:
        if isinstance(thing, ColumnSum):
            cells = tuple((row, column, digit) for (row, column), digit in sorted(thing.wanted().items()))
            changed[thing.id] = thing.replace(written=cells)
    return Edit(_("Show the solution"), page, page.with_things(changed))


def _emptied(page: Page, things: Things) -> Edit:
    changed: dict[str, Thing] = {thing.id: thing.replace(written=()) for thing in things if isinstance(thing, ColumnSum)}
    return Edit(_("Empty the cells"), page, page.with_things(changed))


def _check_label(page: Page, things: Things) -> str:
    return _("check no longer") if all(getattr(thing, "check", False) for thing in things) else _("check the digits")


ACTIONS = (
    Action("check digits", _check_label, "list-checks",
           lambda p, ts: toggle(p, ts, "check", _("Check the digits"), _("Check no longer")), only(ColumnSum), rank=5,
           board=True, words=N_("right wrong correct")),
    Action("show solution", lambda p, ts: _("show the solution"), "eye", _solved, only(ColumnSum), rank=6,
           words=N_("answer result work out")),
    Action("empty cells", lambda p, ts: _("empty the cells"), "brush-cleaning", _emptied, only(ColumnSum), rank=7,
           board=True, words=N_("clear again reset")),
)  # fmt: skip
