"""Measured with the equipment: blocks dragged as a group, many dice, handles of the newer things, running timers."""

from __future__ import annotations

import time
from functools import partial
from typing import Any

from larch.bench.measure import bench, canvas_of, line, mouse, p, timed
from larch.bench.parts import _dragged
from larch.core.base.shape import Placement
from larch.core.model.page import Page


@bench("equipment: 400 blocks as a group")
def blocks(app: Any) -> None:
    from PyQt6.QtCore import QEvent

    from larch.core.things.numbers.block import Block

    many = (Block(placement=Placement(80 + 16 * (k % 40), 120 + 16 * (k // 40)), groups=("g",)) for k in range(400))
    canvas = canvas_of(Page(id="p1").put(*many))
    x0, y0 = canvas.camera.to_view(86, 126)
    mouse(canvas, QEvent.Type.MouseButtonPress, x0, y0)

    def frame(i: int) -> None:
        mouse(canvas, QEvent.Type.MouseMove, x0 + 4 * i, y0 + 2 * i)
        app.processEvents()

    times = [timed(partial(frame, i)) for i in range(1, 60)][3:]
    mouse(canvas, QEvent.Type.MouseButtonRelease, x0 + 240, y0 + 120)
    line("400 blocks dragged as a group", f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}", "", "p95 <= 16")
    canvas.close_session()


@bench("equipment: dials, frames, lines in the hand")
def hands(app: Any) -> None:
    from larch.core.things.numbers.column_dials import ColumnDials
    from larch.core.things.numbers.number_line import NumberLine
    from larch.core.things.numbers.ten_frame import TenFrame

    for name, thing, part in (
        ("dial", ColumnDials(number=347, placement=Placement(200, 60)), "ones"),
        ("counter in a frame", TenFrame(cells=(1,) * 10, placement=Placement(200, 60)), "0"),
        ("jump on a line", NumberLine(jumps=(3.0, 5.0), placement=Placement(100, 200)), "jump 2"),
    ):
        canvas = canvas_of(Page(id="p1").put(thing))
        start = thing.placement.to_page(*thing.part_place(part))
        times = _dragged(app, canvas, [start], 5)
        line(f"{name} dragged", f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}", "", "p95 <= 8")


@bench("equipment: ten thousand dice")
def dice(app: Any) -> None:
    from larch.core.things.chance.coins import Coins, toss
    from larch.core.things.chance.die import Die, roll_often

    page = Page(id="p1", seed=1).put(*(Die() for _ in range(10)))
    times = [timed(lambda: roll_often(page, page.things)) for _ in range(9)]
    line("10,000 dice rolled and counted", f"p50 {p(times, 0.5):.1f}  worst {max(times):.1f}", "", "<= 50")
    page = Page(id="p1", seed=1).put(Coins(count=1000))
    times = [timed(lambda: toss(page, page.things)) for _ in range(9)]
    line("1,000 coins tossed, each seen", f"p50 {p(times, 0.5):.1f}  worst {max(times):.1f}", "", "<= 50")


@bench("equipment: four running timers")
def timers(app: Any) -> None:
    """Of a core, over some seconds in which nothing else happens."""
    from larch.core.things.time.timer import Timer

    now = time.time()
    four = (Timer(length=300.0, going=now, placement=Placement(40 + 240 * k, 100)) for k in range(4))
    canvas = canvas_of(Page(id="p1").put(*four))
    app.processEvents()
    used, end = time.process_time(), time.monotonic() + 4.0
    while time.monotonic() < end:
        app.processEvents()
        time.sleep(0.02)
    share = 100 * (time.process_time() - used) / 4.0
    used, end = time.process_time(), time.monotonic() + 1.0
    canvas.close_session()
    canvas.hide()
    while time.monotonic() < end:
        app.processEvents()
        time.sleep(0.02)
    line("four running timers, % of a core", f"{share:.2f}", f"{100 * (time.process_time() - used):.2f}", "<= 1")


@bench("equipment: the shelf with all kinds")
def shelf(app: Any) -> None:
    """The first opening imports every kind; then each tray, its cards with their pictures."""
    from PyQt6.QtWidgets import QWidget

    from larch.desk.shelf.shelf import Shelf

    room = QWidget()
    room.resize(1280, 800)
    made = Shelf(room)
    made.resize(1280, 172)
    room.show()
    app.processEvents()

    def opened() -> None:
        made.open()
        app.processEvents()

    first = timed(opened)
    times = []
    for name in made.trays:

        def chosen(name: str = name) -> None:
            made.choose(name)
            app.processEvents()

        times.append(timed(chosen))
    line("shelf opened the first time", f"{first:.0f}", "", "<= 100")
    line("a tray of it opened", f"p50 {p(times, 0.5):.1f}  worst {max(times):.1f}", "", "<= 100")
    room.hide()
