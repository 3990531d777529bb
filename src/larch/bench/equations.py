"""Measured: a key in a long equation, and the check of a line."""

from __future__ import annotations

from typing import Any

from larch.bench.measure import bench, line, p, timed


@bench("equations: a key in 60 symbols")
def key(app: Any) -> None:
    """A key typed in an equation of 60 symbols with fractions, roots and powers: set and painted."""
    from PyQt6.QtCore import QPointF
    from PyQt6.QtGui import QColor, QPainter, QPixmap

    from larch.board.typeset.boxes import paint_setting
    from larch.board.typeset.mathset import set_row
    from larch.core.maths.layout.reading import look
    from larch.core.maths.layout.rows import count
    from larch.core.maths.layout.writing import Writing, typed

    source = r"\frac{-b+\sqrt{b^{2}-4ac}}{2a}+\frac{x^{2}+3x-7}{\sqrt{x+1}}-\left(\frac{2x}{3y}\right)^{2}"
    row = look(source + "+12345678=0")
    screen = QPixmap(1280, 300)
    writing = Writing(row, (), len(row))
    times = []
    for k in range(300):

        def press(k: int = k) -> None:
            made = typed(writing, "0123456789"[k % 10])
            painter = QPainter(screen)
            painter.setRenderHints(QPainter.RenderHint.Antialiasing | QPainter.RenderHint.TextAntialiasing)
            paint_setting(painter, set_row(made.row), QPointF(20, 150), 40, QColor("black"))
            painter.end()

        times.append(timed(press))
    line(
        f"a key in an equation of {count(row)} symbols",
        f"p50 {p(times, 0.5):.2f}  p99 {p(times, 0.99):.2f}",
        "",
        "p99 <= 10",
    )


@bench("equations: a working line checked")
def check(app: Any) -> None:
    """Twenty pairs of lines, each asked of the worker."""
    from larch.services.worker import worker

    pairs = [("2x + 5 = 15", "2x = 10"), ("3x - 4 = 11", "3x = 7"), ("x^2 = 9", "x = 3"), ("x^2 - 5x = -6", "x = 2"),
             ("ax = b", "x = b/a"), ("(a+b)^2", "a^2 + b^2"), ("sqrt(x+2) = x", "x + 2 = x^2"), ("-2x < 6", "x < -3"),
             ("2(x+3) = 14", "2x + 3 = 14"), ("x/2 + 1/3 = 5/6", "3x + 2 = 5")]  # fmt: skip
    call = "larch.core.maths.algebra.answers:follows_answer"
    worker().ask(call, *pairs[0], seconds=20).wait(20)
    times = []
    for pair in pairs * 3:

        def asked(pair: tuple[str, str] = pair) -> None:
            worker().ask(call, *pair, seconds=5).wait(6)

        times.append(timed(asked))
    line("a working line checked in the worker", f"p50 {p(times, 0.5):.1f}  worst {max(times):.1f}", "", "p50 <= 150")
