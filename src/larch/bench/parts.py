"""Measured with parts in the hand: a bead, ten beads under ten fingers, a clock's hand."""

from __future__ import annotations

import time
from typing import Any

from larch.bench.measure import bench, canvas_of, line, p, timed
from larch.board.pointer import Sample
from larch.core.base.shape import Placement
from larch.core.model.page import Page
from larch.core.things.numbers.abacus import Abacus
from larch.core.things.time.clock import RADIUS, Clock

STEPS = 60


def _finger(canvas: Any, pointer: int, x: float, y: float) -> Sample:
    return Sample(f"touch {pointer}", "touch", canvas.camera.to_view(x, y), (x, y), time.monotonic() * 1000)


def _dragged(app: Any, canvas: Any, starts: list[tuple[float, float]], step: float) -> list[float]:
    """Each finger goes up and down; the time of a frame in which all of them have moved, ms."""
    canvas.at_board = True
    for k, (x, y) in enumerate(starts):
        canvas.pointers.press(_finger(canvas, k, x, y))
    app.processEvents()
    times = []

    def frame(i: int) -> None:
        for k, (x, y) in enumerate(starts):
            canvas.pointers.move(_finger(canvas, k, x, y - step * (i % 12)))
        app.processEvents()

    for i in range(1, STEPS):
        times.append(timed(lambda i=i: frame(i)))  # type: ignore[misc]
    canvas.pointers.cancel()
    canvas.close_session()
    canvas.hide()  # else it would be painted in the time of the next one
    app.processEvents()
    return times


@bench("parts: bead, ten beads, clock hand")
def parts(app: Any) -> None:
    one = Abacus(counts=(0,) * 5, shown=("value",), placement=Placement(100, 60))
    canvas = canvas_of(Page(id="p1").put(one))
    times = _dragged(app, canvas, [(100 + one.rod_x(2), 60 + one.bead_y(8, 8))], 5)
    line("bead dragged: event to painted value", f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}", "", "p95 <= 8")
    two = one.replace(placement=Placement(660, 60))
    canvas = canvas_of(Page(id="p1").put(one, two))
    starts = [(a.placement.x + a.rod_x(rod), 60 + a.bead_y(8, 8)) for a in (one, two) for rod in range(5)]
    times = _dragged(app, canvas, starts, 5)
    line("ten fingers on ten beads of two", f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}", "", "p95 <= 16")
    clock = Clock(shown=("time", "angle"), placement=Placement(300, 60))
    canvas = canvas_of(Page(id="p1").put(clock))
    x, y = clock.tip("minute")
    times = _dragged(app, canvas, [(300 + x * 0.9 + RADIUS * 0.1, 60 + y * 0.9 + RADIUS * 0.1)], 4)
    line("clock hand dragged, time shown", f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}", "", "p95 <= 8")
