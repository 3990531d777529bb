"""Mathematics that comes from anywhere: typed, LaTeX or MathML, told apart by looking."""

from __future__ import annotations

from functools import lru_cache

from larch.core.maths.expression.parse import Read, read
from larch.core.maths.expression.tree import ExpressionError, Node
from larch.core.maths.layout.from_tree import row_of
from larch.core.maths.layout.latex import looks_like_latex, row_from_latex
from larch.core.maths.layout.mathml import looks_like_mathml, row_from_mathml
from larch.core.maths.layout.rows import Row, signs
from larch.core.maths.layout.to_tree import read_row

SHORT = 2000  # characters of what is remembered


def read_any(source: str) -> Read:
    """The meaning of what was written. Raises ExpressionError."""
    if looks_like_mathml(source):
        return read_row(row_from_mathml(source))
    if looks_like_latex(source):
        return read_row(row_from_latex(source))
    return read(source)


def meaning(source: str) -> Node:
    """The tree alone. Raises ExpressionError."""
    return _meaning(source) if len(source) <= SHORT else read_any(source).node


@lru_cache(1024)
def _meaning(source: str) -> Node:
    """What is asked for again and again while something is dragged."""
    return read_any(source).node


def look(source: str) -> Row:
    """How it looks: what is typed in a line is set as it is understood, and where it is not, sign by sign. Never fails."""
    return _look(source) if len(source) <= SHORT else _seen(source)


@lru_cache(1024)
def _look(source: str) -> Row:
    return _seen(source)


def _seen(source: str) -> Row:
    try:
        if looks_like_mathml(source):
            return row_from_mathml(source)
        if looks_like_latex(source):
            return row_from_latex(source)
        return row_of(read(source).node)
    except ExpressionError:
        return signs(source)
