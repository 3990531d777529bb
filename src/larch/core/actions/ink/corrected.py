"""An equation of the page, changed by what is written on it by hand."""

from __future__ import annotations

from collections.abc import Sequence

from larch.core.base.words import _
from larch.core.maths.layout import terms
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.rows import Row
from larch.core.maths.layout.writing import Path, row_at, with_row
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.graphs.equation import LONGEST, Equation
from larch.core.things.ink.ink import Ink


def corrected(page: Page, equation: Equation, path: Path, start: int, end: int, made: Row, inks: Sequence[Ink] = ()) -> Edit:
    """Parts from `start` to before `end` of the row at `path` exchanged for others. inks: with which it was written; they
    go behind the equation. Raises ValueError where it becomes too long."""
    row = look(equation.source) if equation.source.strip() else ()
    here = row_at(row, path)
    changed = with_row(row, path, (*here[:start], *made, *here[end:]))
    source = terms.source_of(changed)
    if len(source) > LONGEST:
        raise ValueError(_("An equation holds {n} characters; the rest was left out.").format(n=LONGEST))
    own = tuple(ink.replace(placement=ink.placement.within(equation.placement)) for ink in inks)
    thing = equation.typed(source).replace(written=(*equation.written, *own))
    bare = page.without([ink.id for ink in inks])
    label = _("Correct by hand") if made else _("Strike out")
    return Edit(label, page, bare.with_things({equation.id: thing}) if changed else bare.without([equation.id]))
