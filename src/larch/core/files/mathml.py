"""Equations as presentation MathML, so that other programs can read what is on a page."""

from __future__ import annotations

from larch.core.maths.expression import ExpressionError, Node
from larch.core.maths.layout.from_tree import row_of
from larch.core.maths.layout.mathml import escape as escape
from larch.core.maths.layout.mathml import mathml_of_row
from larch.core.maths.layout.reading import look, meaning
from larch.core.model.page import Page
from larch.core.things.graphs.equation import Equation


def page_mathml(page: Page) -> list[tuple[str, bytes]]:
    """(id, document) of every equation that can be read."""
    found = []
    for thing in page.things:
        if isinstance(thing, Equation):
            try:
                meaning(thing.source)
            except ExpressionError:
                continue
            found.append((thing.id, mathml_of_row(look(thing.source)).encode()))
    return found


def mathml(node: Node) -> str:
    """A tree as a document."""
    return mathml_of_row(row_of(node))
