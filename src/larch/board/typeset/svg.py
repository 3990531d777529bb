"""An equation as an SVG picture of its own."""

from __future__ import annotations

from PyQt6.QtCore import QPointF

from larch.board.typeset.boxes import Bar, Glyph, Outline, Setting, font, index_of, outline
from larch.board.typeset.mathset import set_row
from larch.core.maths.layout.reading import look

SIZE = 40.0  # px to the em
PAD = 0.15


def equation_svg(source: str) -> str:
    """Letters as outlines, so that no font is needed."""
    return setting_svg(set_row(look(source)), source)


def setting_svg(made: Setting, title: str) -> str:
    from larch.core.files.mathml import escape

    font()
    wide, above, below = made.width + 2 * PAD, max(made.above, 0.7) + PAD, max(made.below, 0.2) + PAD
    parts = []
    for mark in made.marks:
        match mark:
            case Bar():
                parts.append(
                    f'<rect x="{mark.x:.4f}" y="{mark.y:.4f}" width="{mark.width:.4f}" height="{mark.height:.4f}"/>'
                )
            case Glyph():
                parts.append(_path(index_of(mark.character), mark.x, mark.y, mark.size))
            case Outline():
                parts.append(_path(mark.glyph, mark.x, mark.y, mark.size))
    height = above + below
    box = f'viewBox="0 0 {wide:.4f} {height:.4f}" width="{wide * SIZE:.2f}" height="{height * SIZE:.2f}"'
    body = f'<g transform="translate({PAD} {above:.4f})">{"".join(parts)}</g>'
    return f'<svg xmlns="http://www.w3.org/2000/svg" {box}><title>{escape(title)}</title>{body}</svg>\n'


def _path(index: int, x: float, y: float, size: float) -> str:
    from larch.board.typeset.boxes import EM

    shape = outline(index)
    scale = size / EM
    commands = []
    k = 0
    while k < shape.elementCount():
        element = shape.elementAt(k)
        at = QPointF(x + element.x * scale, y + element.y * scale)
        if element.isCurveTo():  # a curve: three points
            points = [shape.elementAt(k + n) for n in range(3)]
            commands.append("C" + " ".join(f"{x + p.x * scale:.4f} {y + p.y * scale:.4f}" for p in points))
            k += 3
            continue
        commands.append(f"{'M' if element.isMoveTo() else 'L'}{at.x():.4f} {at.y():.4f}")
        k += 1
    return f'<path d="{" ".join(commands)}Z"/>' if commands else ""
