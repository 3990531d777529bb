"""Expressions as a mathematician types them: read into a tree of our own, never evaluated as code."""

from larch.core.expression.evaluate import Undefined, exact_at, value_at, values
from larch.core.expression.parse import parse
from larch.core.expression.tree import ExpressionError, Node, names_in, reading

__all__ = ["ExpressionError", "Node", "Undefined", "exact_at", "names_in", "parse", "reading", "value_at", "values"]
