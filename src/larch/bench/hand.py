"""Measured under the hand: the pen, views, a corner, curves."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from typing import Any

from larch.bench.measure import bench, canvas_of, line, mouse, moved, p, stepped, timed


@bench("pen: event to painted line")
def pen(app: Any) -> None:
    """A stroke of 300 moves across a page with 2,000 strokes: from the event to the end of the paint."""
    from PyQt6.QtCore import QEvent, QPointF, Qt
    from PyQt6.QtGui import QColor, QPainter, QPen, QPixmap

    from larch.bench.material import full_page
    from larch.board.tools.draw import PenTool

    canvas = canvas_of(full_page())
    canvas.pointers.tool = PenTool()
    kind = QEvent.Type
    times = []
    mouse(canvas, kind.MouseButtonPress, 100, 100)
    for i in range(300):

        def step(i: int = i) -> None:
            mouse(canvas, kind.MouseMove, 100 + 3 * i, 100 + 1.5 * i + 20 * (i % 2))
            app.processEvents()

        times.append(timed(step))
    lifted = timed(lambda: moved(app, canvas, kind.MouseButtonRelease, 1000, 550))
    picture = QPixmap(1280, 720)
    screen = QPixmap(1280, 720)
    bare = []
    for i in range(300):

        def floor(i: int = i) -> None:
            painter = QPainter(picture)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(QPen(QColor("black"), 4, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            painter.drawLine(QPointF(100 + 3 * i, 100 + 1.5 * i), QPointF(103 + 3 * i, 120 + 1.5 * i))
            painter.end()
            painter = QPainter(screen)
            painter.drawPixmap(100 + 3 * i, 100, picture, 100 + 3 * i, 100, 30, 40)
            painter.end()

        bare.append(timed(floor))
    measured = f"p50 {p(times, 0.5):.2f}  p99 {p(times, 0.99):.2f}"
    line("pen: event to paint, 2,000 strokes", measured, f"p50 {p(bare, 0.5):.2f}  p99 {p(bare, 0.99):.2f}", "p99 <= 8")
    line("pen: lifting it (commit and paint at rest)", f"{lifted:.1f}", "", "a frame, 16")
    canvas.close_session()


@bench("pan, zoom and drag of many things")
def views(app: Any) -> None:
    """Pan, zoom and a drag of 200 selected among 5,000 things; every frame painted."""
    from PyQt6.QtCore import QEvent
    from PyQt6.QtGui import QPainter, QPixmap

    from larch.bench.material import crowded_page

    canvas = canvas_of(crowded_page())
    screen, base = QPixmap(1280, 720), QPixmap(1280, 720)

    def blit() -> None:
        painter = QPainter(screen)
        painter.drawPixmap(0, 0, base)
        painter.end()

    floor = f"blit {p([timed(blit) for _ in range(60)], 0.95):.2f}"

    def frames(steps: int, step: Callable[[int], None]) -> str:
        times = [timed(partial(stepped, app, step, i)) for i in range(steps)]
        return f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}  max {max(times):.1f}"

    line("pan: a frame, 5,000 things", frames(100, lambda i: canvas.pan_by(-16, -6)), floor, "p95 <= 16")
    canvas.whole_page()
    canvas.surface.sharpen(1e6)
    zoomed = frames(60, lambda i: canvas.zoom_by(1.03 if i < 30 else 1 / 1.03, (640, 360)))
    line("zoom: a frame, 5,000 things", zoomed, floor, "p95 <= 16")
    canvas.true_size()
    canvas.surface.sharpen(1e6)
    chosen = [
        t.id
        for t in canvas.page.things
        if t.kind() != "ink" and canvas.box_of([t]).x1 < 1500 and canvas.box_of([t]).y1 < 1000
    ]
    canvas.select(chosen[:200])
    middles = [canvas.box_of([thing]).centre for thing in canvas.things()]
    on_top = next(at for at in middles if (hit := canvas.thing_at(at, 0)) is not None and hit.id in canvas.selection)
    x, y = canvas.camera.to_view(*on_top)
    kind = QEvent.Type
    mouse(canvas, kind.MouseButtonPress, x, y)
    dragged = frames(80, lambda i: mouse(canvas, kind.MouseMove, x + 8 + 3 * i, y + 2 * i))
    line(f"drag {len(canvas.selection)} of 5,000: a frame", dragged, floor, "p95 <= 16")
    mouse(canvas, kind.MouseButtonRelease, x + 250, y + 160)
    canvas.close_session()


@bench("corner dragged with measures shown")
def vertex(app: Any) -> None:
    """A corner of a quadrilateral with all measures shown, and what its facts alone cost."""
    from PyQt6.QtCore import QEvent

    from larch.core.base.shape import Placement
    from larch.core.maths.geometry import area, interior_angles, perimeter, sides
    from larch.core.model.page import Page
    from larch.core.things.geometry.polygon import Polygon

    shape = ((0.0, 0.0), (300.0, 0.0), (260.0, 220.0), (30.0, 240.0))
    page = Page(id="").put(Polygon(vertices=shape, shown=("sides", "angles", "area"), placement=Placement(300, 200)))
    canvas = canvas_of(page)
    canvas.select(["t1"])
    corner = canvas.camera.to_view(*canvas.page.things[0].placement.to_page(*shape[2]))
    kind = QEvent.Type
    mouse(canvas, kind.MouseButtonPress, *corner)
    times = []
    for i in range(100):
        work = partial(moved, app, canvas, kind.MouseMove, corner[0] + i, corner[1] + 20 * (i % 3))
        times.append(timed(work))
    thing = canvas.preview_page().things[0]
    facts = [timed(lambda: list(thing.facts(page))) for _ in range(100)]
    bare = [timed(lambda: (sides(shape), interior_angles(shape), perimeter(shape), area(shape))) for _ in range(100)]
    line(
        "drag a corner: event to painted measures",
        f"p50 {p(times, 0.5):.2f}  p95 {p(times, 0.95):.2f}",
        "",
        "the same frame",
    )
    line("   its facts alone", f"p50 {p(facts, 0.5):.3f}", f"bare geometry {p(bare, 0.5):.3f}", "<= 4")
    canvas.close_session()


@bench("five curves")
def curves() -> None:
    """Five graphs computed and painted, against NumPy and a bare polyline."""
    import numpy as np
    from PyQt6.QtGui import QImage, QPainter, QPen

    from larch.board.ink.strokes import polygon_of
    from larch.board.paint import HINTS
    from larch.board.views.graphs.axes import paint_curve, ribbons
    from larch.board.views.graphs.curve_lines import branches_round, polylines, runs
    from larch.board.views.graphs.swinging import bands
    from larch.core.things.graphs.axes import Axes
    from larch.core.things.graphs.equation import Equation

    axes = Axes(width=600, height=500)
    image = QImage(640, 540, QImage.Format.Format_ARGB32_Premultiplied)
    made = [Equation(source=s) for s in ("y=3/4 x-2", "y=x^2/4", "y=3sin(x)", "y=1/x", "y=sqrt(x+4)")]
    at = np.linspace(-6, 6, 513)
    formulas: list[Callable[[Any], Any]] = [
        lambda x: 0.75 * x - 2,
        lambda x: x * x / 4,
        lambda x: 3 * np.sin(x),
        lambda x: 1 / x,
        lambda x: np.sqrt(x + 4),
    ]

    def ours() -> None:
        painter = QPainter(image)
        painter.setRenderHints(HINTS)
        for remembered in (branches_round, polylines, runs, ribbons, bands):
            remembered.cache_clear()
        for equation in made:
            paint_curve(painter, axes, equation, equation.curve())  # type: ignore[arg-type]
        painter.end()

    def bare() -> None:
        painter = QPainter(image)
        painter.setRenderHints(HINTS)
        painter.setPen(QPen(painter.pen().color(), 3.4))
        with np.errstate(all="ignore"):
            for formula in formulas:
                y = np.nan_to_num(np.clip(formula(at), -9, 9))
                whole = np.column_stack([(at + 6) * 50, (5 - y) * 50])
                for start in range(0, 513, 48):
                    painter.drawPolyline(polygon_of(whole[start : start + 49]))
        painter.end()

    mine, floor = (p([timed(work) for _ in range(40)], 0.5) for work in (ours, bare))
    line("five curves computed and painted", f"p50 {mine:.1f}", f"{floor:.1f}  (ratio {mine / floor:.1f})", "<= 8, <= 3x")
