"""Expressions as a mathematician types them: read into a tree of our own, never evaluated as code."""

from larch.core.maths.expression.evaluate import value_at, values
from larch.core.maths.expression.exactly import Undefined, exact_at
from larch.core.maths.expression.parse import parse
from larch.core.maths.expression.plain import reading
from larch.core.maths.expression.tree import ExpressionError, Node, names_in

__all__ = ["ExpressionError", "Node", "Undefined", "exact_at", "names_in", "parse", "reading", "value_at", "values"]
