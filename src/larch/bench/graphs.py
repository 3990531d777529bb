"""Measured: graphs while a slider, a curve or the axes are dragged, and what the worker finds about them."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from larch.bench.measure import bench, canvas_of, line, mouse, moved, p, timed

FIVE = ("y = a x - 2", "y = (x - a)^2/4", "y = 3sin(a x)", "y = a/x", "y = sqrt(x + a)")
SIXTH = "(x^2 + y^2 - a)^3 = x^2 y^3"
FOUND = ("x^3 - 3x", "3sin(2x) + 1", "1/(x - 2) + 3", "x e^(-x)", "tan(x)", "(x^2 + 1)/(x - 1)", "|x - 2| - 1", "ln(x)")


def _page(sources: Sequence[str], slider: bool = True) -> Any:
    from larch.core.base.shape import Placement
    from larch.core.figures.settle import settle
    from larch.core.model.page import Page
    from larch.core.things.graphs.axes import Axes
    from larch.core.things.graphs.equation import Equation
    from larch.core.things.graphs.slider import Slider

    page = Page(id="p1").put(Axes(width=620, height=520, placement=Placement(60, 80)))
    if slider:
        page = page.put(Slider(letter="a", value=1, low=-4, high=4, step=0.05, placement=Placement(760, 560)))
    hues = ("lake", "berry", "plum", "moss", "clay", "straw", "sky", "slate", "lake", "berry")
    for k, source in enumerate(sources):
        page = page.put(Equation(source=source, axes="t1", hue=hues[k % 10], placement=Placement(760, 40 + 48 * k)))
    return settle(page)


def _dragged(app: Any, page: Any, start: tuple[float, float], step: tuple[float, float], count: int = 60) -> list[float]:
    """Milliseconds of each step of a drag through the real canvas, to what is painted."""
    from PyQt6.QtCore import QEvent

    canvas = canvas_of(page)
    canvas.at_board = True
    x, y = canvas.camera.to_view(*start)
    kind = QEvent.Type
    moved(app, canvas, kind.MouseButtonPress, x, y)
    times = []
    for k in range(1, count + 1):

        def one(k: int = k) -> None:
            mouse(canvas, kind.MouseMove, x + step[0] * k, y + step[1] * k)
            canvas.repaint()

        times.append(timed(one))
        app.processEvents()  # what is done while the hand rests
    moved(app, canvas, kind.MouseButtonRelease, x + step[0] * count, y + step[1] * count)
    canvas.close_session()
    return times[5:]


def _told(what: str, times: list[float], goal: str) -> None:
    line(what, f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}", "", goal)


@bench("graphs: five curves while a slider moves")
def slider(app: Any) -> None:
    page = _page(FIVE)
    thumb = page.things[1]
    at = thumb.placement.to_page(*thumb.part_place(thumb.parts()[0]))
    _told("five curves while a slider moves, painted", _dragged(app, page, at, (1.5, 0)), "a frame (16)")


@bench("graphs: degree 6 while a slider moves")
def implicit(app: Any) -> None:
    page = _page((SIXTH,))
    thumb = page.things[1]
    at = thumb.placement.to_page(*thumb.part_place(thumb.parts()[0]))
    _told("a curve of degree 6 while a slider moves, painted", _dragged(app, page, at, (1.5, 0)), "a frame (16)")


@bench("graphs: a curve moved by hand")
def by_hand(app: Any) -> None:
    page = _page(("y = (x - 1)^2/2 - 3",), slider=False)
    at = page.things[0].page_of((3, -1))
    _told("a parabola dragged: its equation and graph painted", _dragged(app, page, at, (1.3, -0.7)), "a frame (16)")


@bench("graphs: axes pushed with ten curves")
def pan(app: Any) -> None:
    sources = [f"y = {k}sin(x/{k}) - {k}/2" for k in range(1, 6)] + [f"y = (x - {k})^2/{k} - 4" for k in range(1, 6)]
    page = _page(sources, slider=False)
    axes = page.things[0]
    at = axes.placement.to_page(0.97 * axes.width, axes.origin()[1])
    _told("axes pushed with ten curves on them, painted", _dragged(app, page, at, (1.3, 0.6)), "a frame (16)")


@bench("graphs: what stands out, in the worker")
def features(app: Any) -> None:
    from larch.board.marks import CALL, CHARACTER
    from larch.services.worker import worker

    worker().ask(CALL, "x", {}, -1.0, 1.0, seconds=20).wait(20)
    for what, call in (("what stands out on a curve", CALL), ("what is said of it as a whole", CHARACTER)):
        times = []
        for source in FOUND:

            def asked(source: str = source, call: str = call) -> None:
                worker().ask(call, source, {}, -10.0, 10.0, seconds=5).wait(6)

            times.append(timed(asked))
        line(f"{what}, in the worker", f"p50 {p(times, 0.5):.0f}  worst {max(times):.0f}", "", "<= 300")
