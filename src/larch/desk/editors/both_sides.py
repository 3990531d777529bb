"""What is to be done to both sides of an equation, written where its next line will stand: + 4, ÷ 2."""

from __future__ import annotations

from typing import TYPE_CHECKING

from larch.board.views import view_of
from larch.core.actions.equations.working import both_sides, line_below
from larch.core.base.words import _
from larch.core.maths.layout.rows import Sign
from larch.core.maths.layout.terms import source_of
from larch.core.maths.layout.writing import Writing
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.equation import Equation
from larch.desk.editors.equation import EquationEditor
from larch.desk.style import lift

if TYPE_CHECKING:
    from larch.desk.editors.editors import Editors


class BothSidesEditor(EquationEditor):
    """Entered, it becomes the line below; what makes no sense leaves the line as it was, with one sentence."""

    def __init__(self, editors: Editors, line: Equation) -> None:
        self.line = line
        drop = view_of(line).extent(line).height + 0.35 * line.size
        editors.canvas.select([])
        super().__init__(editors, line_below(editors.canvas.page, line, drop * line.placement.scale))
        self.setAccessibleName(_("to both sides"))

    def _say(self) -> None:
        self.says.setText(_("To both sides: a sign and what goes with it, such as − 5 or ÷ 2. Enter does it."))
        lift(self.says) if self.says.graphicsEffect() is None else None
        self.says.adjustSize()
        self.says.show()
        self.says.raise_()

    def next_line(self) -> None:
        self.entered()

    def result(self) -> Edit | None:
        row, page = self.writing.row, self.editors.canvas.page
        line = page.thing(self.line.id)
        if not row or not isinstance(line, Equation):
            return None
        first = row[0].text if isinstance(row[0], Sign) else ""
        after = both_sides(page, line, first + source_of(row[1:]))
        return Edit(_("To both sides"), page, after, select=(after.things[-1].id,))

    def go_on(self, page: Page) -> None:
        """It has become the line below: that is gone on with."""
        self.writing = Writing()
        self.editors.finish()

    def keep(self) -> None:
        try:
            edit = self.result()
        except ValueError as error:
            self.drop()
            self.editors.tell(str(error))
            return
        self.drop()
        if edit is not None:
            self.editors.canvas.commit(edit)


def edit(editors: Editors, thing: Thing) -> BothSidesEditor | None:
    return BothSidesEditor(editors, thing) if isinstance(thing, Equation) else None
