"""What is told of handwritten mathematics: a line, several lines, or a sum in columns, as plain values."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from itertools import pairwise
from typing import TYPE_CHECKING, Any

from larch.core.maths.layout.latex import latex
from larch.core.maths.layout.rows import Row, Sign
from larch.core.recognise.ink import MOST_STROKES, boxes_of, clean, height_of
from larch.core.recognise.maths.lines import Column, column_of, lines_of
from larch.core.recognise.maths.reading import Fixed, MathsReading, Told, read_maths

if TYPE_CHECKING:
    from numpy.typing import NDArray

    Array = NDArray[Any]

NEXT = r" \\ "  # between lines
COLUMN_SIGNS = {"+": "+", "-": "−", "×": "×", "x": "×"}


def maths_answer(strokes: Sequence[Any], fixed: Fixed = (), leaning: Mapping[str, float] | None = None) -> dict[str, Any]:
    """{"latex", "text", "alternatives", "symbols": [{"token", "strokes", "confidence", "others"}]}, as plain values. Of
    several lines besides "lines", each as {"latex", "text", "alternatives", "strokes"}; of a sum in columns "column"."""
    cleaned = clean(strokes)
    numbers = [k for k, stroke in enumerate(cleaned) if len(stroke)]
    kept = [cleaned[k] for k in numbers]
    if not 1 < len(kept) <= MOST_STROKES:
        return _answer(read_maths(strokes, fixed, leaning))
    boxes = boxes_of(kept)
    height = height_of(kept, boxes)

    def part(members: Sequence[int]) -> tuple[list[int], MathsReading]:
        own = {numbers[k] for k in members}
        return sorted(own), read_maths([s if k in own else () for k, s in enumerate(strokes)], fixed, leaning)

    column = column_of(boxes, height)
    told = _column(column, part, {n: boxes[k] for k, n in enumerate(numbers)}) if column is not None else None
    if told is not None:
        return told
    lines = lines_of(boxes, height)
    if len(lines) == 1:
        return _answer(read_maths(strokes, fixed, leaning))
    read = [part(line) for line in lines]
    answers = [_answer(reading) for _own, reading in read]
    latexes = [answer["latex"] for answer in answers]
    others = [
        [*latexes[:k], other, *latexes[k + 1 :]] for k, answer in enumerate(answers) for other in answer["alternatives"][:2]
    ]
    return {
        "latex": NEXT.join(latexes),
        "text": "\n".join(answer["text"] for answer in answers),
        "alternatives": [NEXT.join(other) for other in others],
        "symbols": [symbol for answer in answers for symbol in answer["symbols"]],
        "lines": [
            {"latex": answer["latex"], "text": answer["text"], "alternatives": answer["alternatives"], "strokes": own}
            for answer, (own, _reading) in zip(answers, read, strict=True)
        ],
    }


def _column(
    column: Column,
    part: Callable[[Sequence[int]], tuple[list[int], MathsReading]],
    boxes: Mapping[int, Array],
) -> dict[str, Any] | None:
    """None where what stands there is no sum of whole numbers."""
    rows = [part(row)[1] for row in column.rows]
    result = part(column.result)[1] if column.result else None
    texts = ["".join(one.token for one in row.symbols) for row in rows]
    below = "".join(one.token for one in result.symbols) if result is not None else ""
    op = next((text[0] for text in texts[1:] if text[:1] in COLUMN_SIGNS), "")
    numbers = [text.lstrip("".join(COLUMN_SIGNS)) for text in texts]
    if not op or not all(number.isdecimal() for number in numbers) or (below and not below.isdecimal()):
        return None
    sign = COLUMN_SIGNS[op]
    said = f" {sign} ".join(numbers) + (f" = {below}" if below else "")
    return {
        "latex": said.replace("×", "\\times").replace("−", "-"),
        "text": said,
        "alternatives": [],
        "symbols": _answer_symbols([one for row in (*rows, *([result] if result else [])) for one in row.symbols]),
        "column": {"op": sign, "numbers": numbers, "result": below, "said": said, "pitch": _pitch(rows, boxes)},
    }


def _pitch(rows: Sequence[MathsReading], boxes: Mapping[int, Array]) -> float:
    """How far digits stand apart."""

    def middle(one: Told) -> float:
        return float(min(boxes[k][0] for k in one.strokes) + max(boxes[k][2] for k in one.strokes)) / 2

    apart = sorted(
        middle(b) - middle(a)
        for row in rows for a, b in pairwise(row.symbols) if a.token.isdigit() and b.token.isdigit()
    )  # fmt: skip
    return apart[len(apart) // 2] if apart else float(max(box[3] - box[1] for box in boxes.values()))


def _answer(found: MathsReading) -> dict[str, Any]:
    others = sorted(found.rows[1:], key=lambda row: not has_meaning(row))  # what says something sooner than what does not
    return {
        "latex": latex(found.row),
        "text": plain(found.row),
        "alternatives": [latex(row) for row in others],
        "symbols": _answer_symbols(found.symbols),
    }


def _answer_symbols(symbols: Sequence[Told]) -> list[dict[str, Any]]:
    return [
        {
            "token": one.token,
            "strokes": list(one.strokes),
            "confidence": round(one.confidence, 4),
            "others": list(one.others),
        }
        for one in symbols
    ]


def has_meaning(row: Row) -> bool:
    """Whether it can be read as mathematics."""
    from larch.core.maths.expression.tree import ExpressionError
    from larch.core.maths.layout.to_tree import read_row

    try:
        read_row(row)
    except (ExpressionError, RecursionError):
        return False
    return True


def plain(row: Row) -> str:
    """In one line: read and written out, or sign by sign where it can't be read."""
    from larch.core.maths.expression.plain import reading
    from larch.core.maths.expression.tree import ExpressionError
    from larch.core.maths.layout.to_tree import read_row

    if all(isinstance(item, Sign) for item in row):
        return "".join(item.text for item in row if isinstance(item, Sign))
    try:
        return reading(read_row(row).node)
    except (ExpressionError, RecursionError):
        return latex(row)
