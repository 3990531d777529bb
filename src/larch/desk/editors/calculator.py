"""The calculator's line: written as an equation is; Enter works it out and begins the next."""

from __future__ import annotations

from typing import TYPE_CHECKING

from larch.core.base.words import _
from larch.core.maths.layout import terms
from larch.core.maths.layout.writing import Writing
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.calculator import Calculator
from larch.core.things.graphs.equation import Equation
from larch.desk.editors.equation import PAD, EquationEditor

if TYPE_CHECKING:
    from larch.desk.editors.editors import Editors

SIZE = 32.0


class CalculatorEditor(EquationEditor):
    """An equation's editor on the gold line of a calculator."""

    def __init__(self, editors: Editors, calculator: Calculator) -> None:
        self.calculator = calculator
        super().__init__(editors, _line_of(calculator))

    def _changed(self) -> None:
        """Nothing on the page changes before it is worked out."""
        self._say()
        self.place()
        self.update()

    def next_line(self) -> None:
        """Works the line out."""
        source = terms.source_of(self.writing.row)
        canvas = self.editors.canvas
        here = canvas.page.thing(self.calculator.id)
        if not isinstance(here, Calculator) or not source.strip():
            return
        try:
            after = here.asked(source)
        except ValueError as error:
            self.editors.tell(str(error))
            return
        page = canvas.page
        canvas.commit(Edit(_("Work out"), page, page.with_things({here.id: after})))
        self.calculator = after
        self.thing = _line_of(after)
        self.writing = Writing()
        self._before, self._after = [], []
        self._changed()

    def entered(self) -> None:
        self.next_line() if self.writing.row else self.editors.finish()

    def result(self) -> Edit | None:
        source, page = terms.source_of(self.writing.row), self.editors.canvas.page
        here = page.thing(self.calculator.id)
        if not isinstance(here, Calculator) or here.line == source:
            return None
        return Edit(_("Calculator"), page, page.with_things({here.id: here.replace(line=source)}))

    def go_on(self, page: Page) -> None:
        """The line is kept on the tape's card, and goes on."""

    def keep(self) -> None:
        edit = self.result()
        self.drop()
        if edit is not None:
            self.editors.canvas.commit(edit)


def _line_of(calculator: Calculator) -> Equation:
    """An equation where the gold line is, for the editor."""
    x, y = calculator.line_place()
    place = calculator.placement.to_page(x - PAD * SIZE, y - (0.7 + PAD) * SIZE)
    at = calculator.placement.moved(place[0] - calculator.placement.x, place[1] - calculator.placement.y)
    made: Equation = Equation(source=calculator.line, size=SIZE, hue="needle", placement=at)
    return made


def edit(editors: Editors, thing: Thing) -> CalculatorEditor | None:
    return CalculatorEditor(editors, thing) if isinstance(thing, Calculator) else None
