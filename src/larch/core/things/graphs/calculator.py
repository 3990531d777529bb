"""A calculator whose whole tape stays visible: what was asked, what it is exactly, and as a decimal."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from functools import lru_cache
from typing import ClassVar, NamedTuple, Self

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.maths.expression import ExpressionError, Undefined
from larch.core.maths.expression.precise import Budget, as_float, precise
from larch.core.maths.expression.tree import states
from larch.core.maths.layout.reading import meaning
from larch.core.model.action import Action, Things, only, toggle
from larch.core.model.capabilities import HasParts, HasWords, WorksLocked
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, plain_number
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.core.things.graphs.equation import Equation, fraction_text

WIDE, HEAD, ROW, LINE = 300.0, 44.0, 92.0, 84.0
LONGEST, MOST_ROWS, SHOWN = 300, 500, 5
EFFORT = 6000
# A line that begins with one of these goes on with the newest result; "−" begins a negative number.
SIGNS = ("+", "×", "÷", "*", "/", r"\times", r"\div", r"\cdot", "⋅")


class Outcome(NamedTuple):
    """exact: a fraction or root, "" where there is none that is short. decimal: as it is written; rounded: whether it is
    only nearly that. why: in a sentence, where there is no value."""

    exact: str
    decimal: str
    rounded: bool
    why: str = ""


class Calculator(HasParts, HasWords, WorksLocked, Thing, frozen=True, kw_only=True, tag="calculator"):
    """tape: what was asked, the newest last. line: what is being written. chosen: the row that is put out, from the end.
    decimals: results are shown as decimals. Raises ValueError for what is too long."""

    tape: tuple[str, ...] = ()
    line: str = ""
    chosen: int = 0
    decimals: bool = False
    hue: str = "needle"

    turnable: ClassVar[bool] = False
    editor: ClassVar[str] = "calculator"
    icon: ClassVar[str] = "hash"
    order: ClassVar[int] = 43
    help: ClassVar[str] = N_(
        "Tap its gold line and write with keys or the tray; Enter works it out. Results are exact, with the decimal below. "
        "Drag a row out, or only its result; or tap a row and put it on the page."
    )

    def __post_init__(self) -> None:
        if (
            max(map(len, (self.line, *self.tape))) > LONGEST
            or len(self.tape) > MOST_ROWS
            or not 0 <= self.chosen < MOST_ROWS
        ):
            raise ValueError("a calculator's tape is of this length")

    @classmethod
    def title(cls) -> str:
        return _("calculator")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("calculator compute tape exact fraction scientific work out")
        yield ShelfItem("calculator", _("calculator"), N_("Numbers"), cls, words)

    def label(self, page: Page) -> str:
        return self.name or (_("calculator: {result}").format(result=self.result()) if self.tape else self.title())

    def rows(self) -> tuple[str, ...]:
        """Those that are shown: the newest."""
        return self.tape[-SHOWN:]

    def extent(self) -> Box:
        return Box(0, 0, WIDE, HEAD + ROW * len(self.rows()) + LINE + 12)

    def line_place(self) -> Point:
        """The left end of the line that is written, its baseline."""
        return (20.0, HEAD + ROW * len(self.rows()) + 52.0)

    def row_box(self, k: int) -> Box:
        """Of the k-th shown row."""
        return Box(8, HEAD + ROW * k, WIDE - 8, HEAD + ROW * (k + 1))

    def result(self) -> str:
        """Of the newest row."""
        if not self.tape:
            return ""
        found = outcome(self.tape[-1])
        return found.why or found.exact or found.decimal

    def plain_text(self) -> str:
        return "\n".join(f"{row} = {outcome(row).exact or outcome(row).decimal}" for row in self.tape)

    def facts(self, page: Page) -> Iterator[Fact]:
        if self.tape:
            found = outcome(self.tape[-1])
            yield Fact("result", self.result(), text=self.result(), label=_("result"))
            if found.decimal:
                yield Fact("decimal", found.decimal, text=found.decimal, label=_("as a decimal"))
        yield Fact("ask", "", text="", label=_("work out"), hint=_("such as 3/4 + 2/3"),
                   set=lambda typed: self.asked(typed) if typed.strip() else self)  # fmt: skip

    def asked(self, source: str) -> Self:
        """With a row more on the tape; one that begins with a sign goes on with the newest result. Raises ValueError."""
        text = source.strip()[:LONGEST]
        if self.tape and text.startswith(SIGNS):
            before = outcome(self.tape[-1]).exact
            text = f"({before}) {text}" if before else text
        try:
            node = meaning(text)
        except ExpressionError as error:
            raise ValueError(error.message) from error
        if states(node):
            raise ValueError(_("A calculator works out expressions; write an equation beside it."))
        return self.replace(tape=(*self.tape, text)[-MOST_ROWS:], line="", chosen=0)  # type: ignore[no-any-return]

    # Hands

    def parts(self) -> tuple[str, ...]:
        return tuple(f"row {k}" for k in range(len(self.rows())))

    def part_place(self, part: str) -> Point:
        return self.row_box(int(part.split()[1])).centre

    def part_at(self, x: float, y: float, slack: float) -> str:
        for k in range(len(self.rows())):
            if self.row_box(k).holds(x, y):
                return f"row {k}"
        return "line" if 8 <= x <= WIDE - 8 and self.row_box(len(self.rows())).y0 <= y <= self.extent().y1 + slack else ""

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        return self

    def tap_part(self, part: str, at: Point) -> Self | None:
        if part == "line":
            return None
        return self.replace(chosen=len(self.rows()) - 1 - int(part.split()[1]))  # type: ignore[no-any-return]

    def part_label(self, part: str) -> str:
        return _("Choose a row")

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


@lru_cache(maxsize=2000)
def outcome(source: str) -> Outcome:
    """What a row comes to. Never fails."""
    try:
        value = precise(meaning(source), {}, Budget(EFFORT))
        number = as_float(value)
    except (ExpressionError, Undefined) as error:
        return Outcome("", "", False, str(error))
    decimal = plain_number(number, 9)
    if isinstance(value, Fraction):
        short = Fraction(decimal.replace("−", "-")) == value if "e" not in decimal else False
        return Outcome(fraction_text(value), decimal if short else plain_number(number, 6), not short)
    from larch.core.maths.surd import recognised

    root = recognised(number)
    return Outcome(root.text() if root is not None else "", plain_number(number, 6), True)


def put_out(calculator: Calculator, row: str, result: bool = False) -> Equation:
    """A row of the tape as an equation: all of it, or only what it comes to."""
    found = outcome(row)
    decimal = calculator.decimals or not found.exact
    answer = found.decimal if decimal else found.exact
    if result and answer:
        return Equation(source=answer, hue="needle")
    exactly = answer and not (found.rounded and decimal)
    return Equation(source=f"{row} = {answer}" if exactly else row, hue="needle")


def _to_page(page: Page, things: Things) -> Edit:
    """The row that was tapped, or the newest, as an equation beside the calculator."""
    made: list[Thing] = []
    for thing in things:
        if isinstance(thing, Calculator) and thing.tape:
            row = thing.tape[-1 - min(thing.chosen, len(thing.tape) - 1)]
            x, y = thing.placement.to_page(WIDE + 24, HEAD + 20 * len(page.things) % 200)
            made.append(put_out(thing, row).replace(placement=Placement(x, y)))
    after = page.put(*made)
    return Edit(_("To the page"), page, after, select=tuple(thing.id for thing in after.things[len(page.things) :]))


def _has_rows(page: Page, things: Things) -> bool:
    return only(Calculator)(page, things) and any(isinstance(t, Calculator) and t.tape for t in things)


def _clear(page: Page, things: Things) -> Edit:
    changed: dict[str, Thing] = {t.id: t.replace(tape=(), line="", chosen=0) for t in things if isinstance(t, Calculator)}
    return Edit(_("Clear the tape"), page, page.with_things(changed))


def _decimals_label(page: Page, things: Things) -> str:
    return _("as fractions") if all(getattr(thing, "decimals", False) for thing in things) else _("as decimals")


ACTIONS = (
    Action("to page", lambda p, ts: _("to the page"), "circle-arrow-out-up-right", _to_page, _has_rows, rank=5, board=True,
           words=N_("put out equation result number")),
    Action("decimals", _decimals_label, "hash",
           lambda p, ts: toggle(p, ts, "decimals", _("As decimals"), _("As fractions")), only(Calculator), rank=6,
           board=True, words=N_("decimal fraction exact rounded")),
    Action("clear tape", lambda p, ts: _("clear the tape"), "brush-cleaning", _clear, _has_rows, rank=7, board=True,
           words=N_("empty reset")),
)  # fmt: skip
