"""Measured while a page is put together: a supply, the search of the shelf, pages full of pictures, falling into line."""

from __future__ import annotations

from functools import partial
from typing import Any

from larch.bench.measure import bench, canvas_of, line, mouse, p, timed

FRAME = 16.0


@bench("forty from a supply")
def supply(app: Any) -> None:
    """Forty counters from one supply, each dragged over thirty frames: from the event to the end of the paint."""
    from PyQt6.QtCore import QEvent

    from larch.core.base.shape import Placement
    from larch.core.model.page import Page
    from larch.demo.stall import drawing

    canvas = canvas_of(Page(id="p1").put(drawing("coin", 120, 120, 80, supply=True).replace(placement=Placement(80, 80))))
    x0, y0 = canvas.camera.to_view(120, 120)
    times: list[float] = []
    for k in range(40):
        x1, y1 = canvas.camera.to_view(260 + k % 10 * 95, 90 + k // 10 * 150)
        mouse(canvas, QEvent.Type.MouseButtonPress, x0, y0)
        for i in range(1, 31):

            def work(i: int = i, x1: float = x1, y1: float = y1) -> None:
                mouse(canvas, QEvent.Type.MouseMove, x0 + (x1 - x0) * i / 30, y0 + (y1 - y0) * i / 30)
                app.processEvents()

            times.append(timed(work))

        def lift(x1: float = x1, y1: float = y1) -> None:
            mouse(canvas, QEvent.Type.MouseButtonRelease, x1, y1)
            app.processEvents()

        times.append(timed(lift))
    dropped = sum(value > FRAME for value in times)
    count = len(canvas.page.things) - 1
    measured = f"p50 {p(times, 0.5):.1f}  p99 {p(times, 0.99):.1f}  worst {max(times):.1f}"
    line(f"{count} things from a supply", measured, f"{dropped} of {len(times)} frames late", "none late")
    canvas.close_session()


@bench("shelf search")
def searching(app: Any) -> None:
    """A key in the search of the shelf: what is found, its cards, their first paint; and the memory that it takes."""
    from PyQt6.QtWidgets import QWidget

    from larch.core.media import picture_set
    from larch.desk.shelf.shelf import Shelf

    bare = _memory()
    alone = [timed(partial(lambda word: picture_set.search(word), word)) for word in _typed()]
    searched = _memory() - bare
    room = QWidget()
    room.resize(1280, 800)
    shelf = Shelf(room)
    shelf.resize(1280, 172)
    room.show()
    shelf.open()
    app.processEvents()
    before = _memory() - searched
    times = []
    for word in _typed():

        def key(word: str = word) -> None:
            shelf.search.setText(word)
            app.processEvents()

        times.append(timed(key))
    grown = _memory() - before
    measured = f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}  worst {max(times):.0f}"
    line("shelf: a key, all pictures", measured, f"search alone p95 {p(alone, 0.95):.1f}", "< 30")
    line("shelf: memory that searching takes", f"{grown:.0f} MB", "", "< 20")


def _typed() -> list[str]:
    words = ("lantern", "river", "apfel", "bateau", "estrella", "candle", "rojo", "vis", "かさ", "кот")
    return [word[: k + 1] for word in words for k in range(len(word))]


def _memory() -> float:
    with open("/proc/self/status") as status:
        text = next(one for one in status if one.startswith("VmRSS"))
    return int(text.split()[1]) / 1024


@bench("pan a page of pictures")
def panning(app: Any) -> None:
    """A page with three hundred pictures, moved and painted frame by frame."""
    from larch.core.base.shape import Placement
    from larch.core.media import picture_set
    from larch.core.model.page import Page
    from larch.core.things.pictures.picture import Picture

    drawings = [one for sort in ("Nature", "Food", "Places") for one in picture_set.tray(sort)][:300]
    made = [
        Picture(media=f"{one.hash}.svg", width=90, height=90, placement=Placement(k % 25 * 100, k // 25 * 100))
        for k, one in enumerate(drawings)
    ]
    canvas = canvas_of(Page(id="p1").put(*made))
    canvas.surface.sharpen(20_000)
    times = []
    for i in range(120):

        def frame(i: int = i) -> None:
            canvas.pan_by(-14 if i < 60 else 14, -6 if i % 40 < 20 else 6)
            app.processEvents()

        times.append(timed(frame))
    measured = f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}"
    line("pan: a frame, 300 pictures", measured, "", "p95 <= 16")
    canvas.close_session()


@bench("drag past 300 into line")
def falling_in(app: Any) -> None:
    """A thing dragged past three hundred others into whose line it may fall."""
    from PyQt6.QtCore import QEvent

    from larch.core.base.shape import Placement
    from larch.core.model.page import Page
    from larch.core.things.papers.sheet import Sheet

    made = [
        Sheet(width=40, height=30, placement=Placement(k % 24 * 52, 60 + k // 24 * 46)) for k in range(300)
    ]  # a crowd, so that something is always near
    canvas = canvas_of(Page(id="p1").put(*made))
    box = canvas.page.things[0].box()
    x, y = canvas.camera.to_view(*box.centre)
    mouse(canvas, QEvent.Type.MouseButtonPress, x, y)
    times = []
    for i in range(100):

        def work(i: int = i) -> None:
            mouse(canvas, QEvent.Type.MouseMove, x + 8 + 5 * i, y + 3 * i)
            app.processEvents()

        times.append(timed(work))
    mouse(canvas, QEvent.Type.MouseButtonRelease, x + 500, y + 300)
    line("drag past 300 into line", f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}", "", "p95 <= 16")
    canvas.close_session()


@bench("web of joined boxes")
def joined() -> None:
    """A web of forty boxes whose middle one is dragged: all lines worked out anew, round one another."""
    from larch.core.base.shape import Placement
    from larch.core.figures.settle import carried, settle
    from larch.core.model.page import Page
    from larch.core.things.organisers.box import WordBox
    from larch.core.things.organisers.connector import Connector

    boxes = [WordBox(text=str(k), width=120, height=60, placement=Placement(k % 8 * 170, k // 8 * 130)) for k in range(40)]
    page = Page(id="p1").put(*boxes)
    lines = [Connector(rule="connect", of=("t20", f"t{k}")) for k in range(1, 41) if k != 20]
    page = settle(page.put(*lines))
    times = [timed(partial(lambda i: carried(page, ["t20"], 3.0 * i, 1.0 * i), i)) for i in range(20)]
    line("web of 40 boxes, middle dragged", f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}", "computing only", "16")


@bench("frost rubbed off")
def rubbing(app: Any) -> None:
    """Frost over a whole page rubbed off at the Board, with forty rubs done before: event to the end of the paint."""
    from PyQt6.QtCore import QEvent

    from larch.core.model.page import Page
    from larch.core.things.pictures.frost import Frost

    frost = Frost(width=1200, height=640)
    for k in range(40):
        frost = frost.with_rub([(20 * i, 20 + k % 4 * 12) for i in range(50)])
    canvas = canvas_of(Page(id="p1").put(frost))
    canvas.at_board = True
    mouse(canvas, QEvent.Type.MouseButtonPress, 100, 300)
    times = []
    for i in range(100):

        def work(i: int = i) -> None:
            mouse(canvas, QEvent.Type.MouseMove, 100 + 8 * i, 300 + 60 * (i % 4))
            app.processEvents()

        times.append(timed(work))
    lifted = timed(lambda: mouse(canvas, QEvent.Type.MouseButtonRelease, 900, 300))
    measured = f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}"
    line("rubbing frost off, a frame", measured, f"(lifting it {lifted:.0f})", "p95 <= 16")
    canvas.close_session()
