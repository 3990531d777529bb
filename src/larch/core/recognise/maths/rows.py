"""Labels in their places as a row of mathematics, as it is set and edited elsewhere."""

from __future__ import annotations

from collections.abc import Sequence

from larch.core.maths.layout.rows import Fraction, Grid, Item, Lowered, Raised, Root, Row, Sign
from larch.core.recognise.maths.layout import Line

NAMES = ("sin", "cos", "tan", "log", "ln", "lim", "min", "max")
SHOWN = {"-": "−", "'": "′"}


def row_of(line: Line, labels: Sequence[str]) -> Row:
    made: list[Item] = []
    for place in line:
        sign = labels[place.symbol]
        if place.kind == "fraction":
            made.append(Fraction(row_of(place.parts[0], labels), row_of(place.parts[1], labels)))
        elif place.kind == "root":
            made.append(Root(row_of(place.parts[0], labels)))
        elif place.kind == "grid":
            cells = [row_of(part, labels) for part in place.parts]
            rows = tuple(tuple(cells[k : k + place.columns]) for k in range(0, len(cells), place.columns))
            made.append(Grid(rows, sign, labels[place.closing] if place.closing >= 0 else ""))
        elif sign == "°":
            made.append(Sign("°"))
        else:
            made.append(Sign(SHOWN.get(sign, sign)))
        if place.lowered:
            made.append(Lowered(row_of(place.lowered, labels)))
        if place.raised:
            inner = row_of(place.raised, labels)
            small = len(inner) == 1 and isinstance(inner[0], Sign) and inner[0].text in ("°", "′")
            made.append(inner[0] if small else Raised(inner))
    return _with_names(tuple(made))


def _with_names(row: Row) -> Row:
    """s, i, n side by side as the one sign that they are."""
    made: list[Item] = []
    k = 0
    while k < len(row):
        found = ""
        for name in NAMES:
            part = row[k : k + len(name)]
            if len(part) == len(name) and all(
                isinstance(item, Sign) and item.text == c for item, c in zip(part, name, strict=True)
            ):
                found = name
                break
        made.append(Sign(found) if found else row[k])
        k += len(found) or 1
    return tuple(made)
