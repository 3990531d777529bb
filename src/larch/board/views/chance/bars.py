"""What the bars of tallies have in common."""

from __future__ import annotations

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QPainter

from larch.board.look import NEEDLE
from larch.board.views.base import words


def middle_over(top: float, dash: float, size: float) -> float:
    """Where the middle of a number lies over a bar that ends at `top`: never where the dash would strike it through."""
    middle = top - 0.56 * size
    return dash - 0.56 * size if abs(dash - middle) < 0.5 * size else middle


def number_over(painter: QPainter, x: float, top: float, dash: float, text: str, size: float) -> None:
    """A number over its bar; `dash` is the height of what is expected there."""
    words(painter, QPointF(x, middle_over(top, dash, size)), text, NEEDLE, size, bold=True)
