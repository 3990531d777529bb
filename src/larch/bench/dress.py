"""Measured while a page is dressed and written on: eraser, many hands, papers, Paint, turning pages."""

from __future__ import annotations

import math
import time
from typing import Any

from larch.bench.measure import bench, canvas_of, line, mouse, p, timed


@bench("eraser")
def eraser(app: Any) -> None:
    """Rubbing parts out of a page with 5,000 strokes: from the event to the end of the paint."""
    from PyQt6.QtCore import QEvent

    from larch.bench.material import full_page
    from larch.board.tools.erase import EraserTool

    for mode, name in (("part", "eraser, parts of 5,000 strokes"), ("strokes", "eraser, whole strokes of 5,000")):
        canvas = canvas_of(full_page(5000))
        canvas.pointers.tool = EraserTool(mode)
        times = []
        mouse(canvas, QEvent.Type.MouseButtonPress, 100, 100)
        for i in range(300):

            def work(i: int = i, canvas: Any = canvas) -> None:
                mouse(canvas, QEvent.Type.MouseMove, 100 + 3 * i, 100 + 1.5 * i)
                app.processEvents()

            times.append(timed(work))

        def lift(canvas: Any = canvas) -> None:
            mouse(canvas, QEvent.Type.MouseButtonRelease, 1000, 550)
            app.processEvents()

        lifted = timed(lift)
        line(name, f"p50 {p(times, 0.5):.1f}  p99 {p(times, 0.99):.1f}", f"(lifting it {lifted:.0f})", "p99 <= 8")
        canvas.close_session()


@bench("ten hands write")
def hands(app: Any) -> None:
    """Ten strokes at once on a page with 2,000: all ten move, then one paint."""
    from PyQt6.QtCore import QPointF, Qt
    from PyQt6.QtGui import QColor, QPainter, QPen, QPixmap

    from larch.bench.material import full_page
    from larch.board.pointer import Sample
    from larch.board.tools.draw import PenTool
    from larch.core.model.nibs import Pen

    picture, screen = QPixmap(1280, 720), QPixmap(1280, 720)

    def bare(i: int) -> None:
        painter = QPainter(picture)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(QColor("black"), 4, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
        for k in range(10):
            painter.drawLine(QPointF(100 + 3 * i, 60 + 60 * k), QPointF(103 + 3 * i, 64 + 60 * k))
        painter.end()
        painter = QPainter(screen)
        for k in range(10):
            painter.drawPixmap(100 + 3 * i, 50 + 60 * k, picture, 100 + 3 * i, 50 + 60 * k, 30, 40)
        painter.end()

    floor = [timed(lambda i=i: bare(i)) for i in range(200)]  # type: ignore[misc]
    for nib in ("pen", "crayon", "highlighter"):
        canvas = canvas_of(full_page())
        canvas.pointers.tool = PenTool()
        canvas.pointers.tool.choose(Pen(nib, width=14.0))
        times = []

        def sample(k: int, i: int, canvas: Any = canvas) -> Sample:
            at = (100 + 3.0 * i, 60 + 60.0 * k + 12 * math.sin(i / 4 + k))
            return Sample(f"touch {k}", "touch", at, canvas.camera.to_page(*at), 8.0 * i)

        for k in range(10):
            canvas.pointers.press(sample(k, 0))
        for i in range(1, 200):

            def step(i: int = i, canvas: Any = canvas, sample: Any = sample) -> None:
                for k in range(10):
                    canvas.pointers.move(sample(k, i))
                app.processEvents()

            times.append(timed(step))
        for k in range(10):
            canvas.pointers.release(sample(k, 200))
        measured = f"p50 {p(times, 0.5):.1f}  p99 {p(times, 0.99):.1f}"
        line(f"ten strokes at once, {nib}", measured, f"p50 {p(floor, 0.5):.2f}  p99 {p(floor, 0.99):.2f}", "p99 <= 12")
        canvas.close_session()


@bench("papers")
def papers() -> None:
    """Every paper over a whole view, from far out to far in; a line of the same length as floor."""
    from PyQt6.QtCore import QLineF
    from PyQt6.QtGui import QImage, QPainter, QPen

    from larch.board.paint import painting
    from larch.board.papers import paint_paper
    from larch.core.base.shape import Box
    from larch.core.model.page import SIZES
    from larch.core.model.paper import PATTERNS, fresh_paper

    image = QImage(1280, 720, QImage.Format.Format_ARGB32_Premultiplied)

    def draw(name: str, scale: float) -> None:
        with painting(image) as painter:
            painter.scale(scale, scale)
            box = Box(0, 0, 1280 / scale, 720 / scale)
            paint_paper(painter, fresh_paper(name), SIZES["16:9"], box, scale)

    def bare() -> None:
        painter = QPainter(image)
        painter.fillRect(0, 0, 1280, 720, 0xFFFFFF)
        painter.setPen(QPen(0x888888))
        painter.drawLines([QLineF(0, 20 * k, 1280, 20 * k) for k in range(36)])  # type: ignore[call-overload]
        painter.end()

    slowest = {
        name: max((min(timed(lambda: draw(name, scale)) for _ in range(3)), scale) for scale in (0.1, 0.5, 1.0, 2.0, 6.0))  # noqa: B023
        for name in PATTERNS
    }
    worst = max(slowest, key=lambda name: slowest[name])
    took, scale = slowest[worst]
    floor = f"36 lines {min(timed(bare) for _ in range(9)):.2f}"
    line("papers, the slowest at any zoom (whole view)", f"{took:.1f} ({worst} at {scale:g})", floor, "a frame, 16")


@bench("paint fills")
def fill() -> None:
    """Paint on a page with 500 strokes, in its own thread; labelling the bare raster as floor."""
    import numpy as np
    from scipy import ndimage

    from larch.bench.material import full_page
    from larch.core.actions.ink.fill import find_region
    from larch.core.things.ink.ink import ink_from

    turns = [2 * math.pi * k / 90 for k in range(91)]
    ring = ink_from([(640 + 200 * math.cos(t), 360 + 200 * math.sin(t), 0.5, 0.0) for t in turns])
    page = full_page(500).put(ring)
    find_region(page, (640, 500), 16)
    times = [timed(lambda: find_region(page.replace(), (640, 500), 16)) for _ in range(5)]
    rows = np.ones((720, 1280), dtype=bool)
    floor = min(timed(lambda: ndimage.label(rows)) for _ in range(5))
    line("Paint on a page with 500 strokes", f"{p(times, 0.5):.0f} (own thread)", f"label the raster {floor:.1f}", "<= 300")


@bench("turning pages")
def turning(app: Any) -> None:
    """Turning back to a page with 2,000 strokes, till it is on the screen."""
    from larch.bench.material import full_page
    from larch.board.canvas import Canvas
    from larch.core.model.lesson import Lesson
    from larch.core.model.page import Page
    from larch.core.session.session import Session

    lesson = Lesson().insert(full_page()).insert(Page(id=""))
    canvas = Canvas(Session(lesson, time.monotonic), "p1")
    canvas.resize(1280, 720)
    canvas.show()
    canvas.surface.sharpen(1e6)

    def turn(id: str) -> None:
        canvas.show_page(id)
        canvas.whole_page()
        app.processEvents()

    turn("p2")
    back = timed(lambda: turn("p1"))
    line("turning back to a page with 2,000 strokes", f"{back:.1f}", "", "a frame, 16")
    canvas.close_session()
