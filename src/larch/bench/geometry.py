"""Measured in geometry: a construction of 300 steps behind a dragged point, a locus, badges, tiles."""

from __future__ import annotations

import time
from functools import partial
from typing import Any

from larch.bench.measure import bench, canvas_of, line, mouse, p, timed

STEPS = 300


def construction(steps: int = STEPS) -> Any:
    """A page with two free points and so many things that follow, each from those just before it: a circle, where two
    meet, a midpoint, a foot, a perpendicular, a segment."""
    from larch.core.base.shape import Placement
    from larch.core.figures.settle import settle
    from larch.core.model.page import Page
    from larch.core.things.geometry.circle import Circle
    from larch.core.things.geometry.line import Line
    from larch.core.things.geometry.point import Point

    page = Page(id="p1")
    things: list[Any] = [Point(name="A", placement=Placement(300, 400)), Point(name="B", placement=Placement(420, 380))]
    a, b, k = "t1", "t2", 3
    while len(things) - 2 < steps:
        c, d, m, n, s = (f"t{k + i}" for i in range(5))
        things += [
            Circle(rule="circle", of=(a, b)), Circle(rule="circle", of=(b, a)),
            Point(rule="meet", of=(c, d), values=(float(k % 2),)), Point(rule="midpoint", of=(a, m)),
            Line(rule="segment", of=(b, n)), Point(rule="foot", of=(m, s)),
        ]  # fmt: skip
        a, b, k = b, m, k + 6
    return settle(page.put(*things[: steps + 2]))


def bare(steps: int, ax: float) -> Any:
    """The same points, each step with NumPy and nothing else."""
    import numpy as np

    a, b = np.array([ax, 400.0]), np.array([420.0, 380.0])
    for k in range(steps // 6):
        way = b - a
        apart = np.hypot(*way)
        middle, up = (a + b) / 2, np.array([way[1], -way[0]]) / apart
        half = np.sqrt(apart * apart * 0.75)
        m = middle + up * half * (1 if (3 + 6 * k) % 2 == 0 else -1)
        n = (a + m) / 2
        along = n - b
        g = b + along * np.dot(m - b, along) / np.dot(along, along)
        a, b = b, m
    return a, b, n, g


@bench("300 that follow a point")
def dragging(app: Any) -> None:
    """From the event to the end of the paint, with 300 things that follow; and the computing alone."""
    from PyQt6.QtCore import QEvent

    from larch.core.figures.settle import carried

    page = construction()
    ours = [timed(partial(lambda i: carried(page, ["t1"], 0.4 * i, 0.0), i)) for i in range(120)]
    floor = [timed(partial(lambda i: bare(STEPS, 300 + 0.4 * i), i)) for i in range(120)]
    ratio = p(ours, 0.5) / p(floor, 0.5)
    measured = f"p50 {p(ours, 0.5):.2f}  p95 {p(ours, 0.95):.2f}  {ratio:.1f}x"
    line("300 things that follow, computing", measured, f"NumPy {p(floor, 0.5):.2f}", "")
    canvas = canvas_of(page)
    x, y = canvas.camera.to_view(300, 400)
    mouse(canvas, QEvent.Type.MouseButtonPress, x, y)
    times = []
    for i in range(150):

        def work(i: int = i) -> None:
            mouse(canvas, QEvent.Type.MouseMove, x + 8 + 0.6 * i, y + 0.2 * i)
            app.processEvents()

        times.append(timed(work))
    mouse(canvas, QEvent.Type.MouseButtonRelease, x + 90, y + 30)
    app.processEvents()
    line("dragging a point, 300 things follow", f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}", "", "p95 <= 16")
    canvas.close_session()


@bench("locus")
def tracing() -> None:
    from larch.core.base.shape import Placement
    from larch.core.figures.settle import carried, settle
    from larch.core.model.page import Page
    from larch.core.things.geometry.circle import Circle
    from larch.core.things.geometry.locus import Locus
    from larch.core.things.geometry.point import Point

    page = settle(Page(id="p").put(
        Point(placement=Placement(300, 300)), Circle(rule="circle with radius", of=("t1",), values=(120.0,)),
        Point(rule="on", of=("t2",), values=(20.0,)), Point(placement=Placement(700, 350)),
        Point(rule="midpoint", of=("t3", "t4")), Locus(rule="locus", of=("t5", "t3")),
    ))  # fmt: skip
    times = [timed(partial(lambda i: carried(page, ["t4"], 0.5 * i, 0.0), i)) for i in range(60)]
    line("locus through 180 places, dragged", f"p50 {p(times, 0.5):.2f}  p95 {p(times, 0.95):.2f}", "", "")


@bench("tiles")
def tiling() -> None:
    from larch.core.things.geometry.tiles import Tiles, tiles_of

    for name in ("3.6.3.6", "4.6.12", "square"):
        start = time.perf_counter()
        count = len(tiles_of(Tiles(pattern=name, side=40.0, width=1200, height=640)))
        line(f"tiles {name} over a page", f"{(time.perf_counter() - start) * 1000:.0f}", f"{count} tiles", "")
