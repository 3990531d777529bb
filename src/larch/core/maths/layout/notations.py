"""One piece of mathematics in all notations of text."""

from __future__ import annotations

from larch.core.maths.expression.plain import reading
from larch.core.maths.expression.tree import ExpressionError
from larch.core.maths.layout.from_tree import row_of
from larch.core.maths.layout.latex import latex
from larch.core.maths.layout.mathml import mathml_of_row
from larch.core.maths.layout.reading import look, read_any
from larch.core.maths.layout.spoken import spoken


def notations(source: str) -> dict[str, str] | None:
    """LaTeX "tex", MathML "mml", plain text "txt" and words "spoken"; None for what can't be read."""
    try:
        node = read_any(source).node
    except ExpressionError:
        return None
    row = look(source) or row_of(node)
    return {"tex": latex(row), "mml": mathml_of_row(row), "txt": reading(node), "spoken": spoken(node)}
