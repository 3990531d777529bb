"""The picture at rest: whatever was edited, panned or zoomed, it equals one painted afresh."""

from __future__ import annotations

import time
from collections.abc import Sequence
from typing import Any

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from numpy.typing import NDArray
from PyQt6.QtCore import QRect, QSize
from PyQt6.QtGui import QImage

from larch.board.camera import Camera
from larch.board.canvas import Canvas
from larch.board.surface import Surface
from larch.core.actions.arrange import arrange
from larch.core.base.shape import Placement
from larch.core.model.action import put
from larch.core.model.edit import Edit
from larch.core.model.lesson import Lesson, blank_lesson
from larch.core.model.page import Page, Paper
from larch.core.model.thing import Thing
from larch.core.session.session import Session
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.numbers.block import Block
from larch.core.things.words.text import Text
from tests.samples import stroke

pytestmark = pytest.mark.usefixtures("qapp")
SIZE = QSize(420, 300)


def things() -> list[object]:
    return [
        Polygon(vertices=((0.0, 0.0), (90.0, 10.0), (40.0, 80.0)), shown=("sides",), placement=Placement(60, 60)),
        Block(value=100, placement=Placement(180, 40)),
        Text(text="lantern", placement=Placement(40, 180)),
        stroke(150.0),
        Axes(width=120, height=90, placement=Placement(270, 160)),
        Equation(source="y = x", axes="t5", size=20, placement=Placement(20, 250)),
    ]


def picture(surface: Surface) -> QImage:
    surface.sharpen(10_000)
    assert surface.sharp
    return surface.base.toImage()


def afresh(page: Page, camera: Camera) -> QImage:
    surface = Surface(lambda: page)
    surface.resize(SIZE, 1.0)
    surface.camera = camera
    surface.load()
    return picture(surface)


def differing(a: QImage, b: QImage) -> int:
    """Pixels that differ by more than rounding of antialiased edges."""
    first, second = (_pixels(image) for image in (a, b))
    return int((np.abs(first - second).max(axis=2) > 40)[::2, ::2].sum())


def _pixels(image: QImage) -> NDArray[Any]:
    plain = image.convertToFormat(QImage.Format.Format_RGB32)
    bits = plain.constBits()
    assert bits is not None
    raw = np.frombuffer(bits.asstring(plain.sizeInBytes()), dtype=np.uint8)
    return raw.reshape(plain.height(), plain.width(), 4)[:, :, :3].astype(int)


@settings(max_examples=12, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(
    st.lists(
        st.tuples(st.sampled_from(["move", "pan", "delete", "add", "back", "turn", "paper", "slice"]), st.integers(0, 9)),
        max_size=8,
    )
)
def test_the_kept_picture_equals_one_painted_afresh(steps: list[tuple[str, int]]) -> None:
    """Law: patches, strips and things painted on top leave the same picture as painting everything."""
    lesson = blank_lesson()
    lesson = lesson.with_page(lesson.pages[0].put(*things()))  # type: ignore[arg-type]
    state = {"page": lesson.pages[0]}
    surface = Surface(lambda: state["page"])
    surface.resize(SIZE, 1.0)
    surface.load()
    surface.sharpen(10_000)
    for what, n in steps:
        page = state["page"]
        chosen = page.things[n % len(page.things) :][:1] if page.things else ()
        if what == "pan":
            surface.look(surface.camera.panned(7 * n - 20, 11 - 5 * n))
            continue
        if what == "slice":
            surface.sharpen(0)
            continue
        if what == "paper":
            state["page"] = page.replace(paper=Paper("plain" if n % 2 else "squared"))
            surface.invalidate_all()
            continue
        after = edited(page, chosen, what, n)
        from larch.core.model.edit import changed_things

        state["page"] = after
        surface.change(page, after, set(changed_things(page, after)))
        if any(t.kind() == "equation" for t in chosen):  # what depends on it is the canvas's business
            surface.invalidate_all()
    assert differing(picture(surface), afresh(state["page"], surface.camera)) <= 3


def edited(page: Page, chosen: Sequence[Thing], what: str, n: int) -> Page:
    edits = {
        "move": lambda: arrange.nudge(page, chosen, 13 * n - 40, 9),
        "delete": lambda: arrange.delete(page, chosen),
        "add": lambda: put(page, [Block(value=10, placement=Placement(30.0 * n, 20))], "add"),
        "back": lambda: arrange.to_back(page, chosen),
        "turn": lambda: arrange.quarter_turn(page, chosen),
    }
    after = edits[what]().after if chosen or what == "add" else page
    assert isinstance(after, Page)
    return after


def test_a_zoom_shows_at_once_and_is_sharp_after_resting(qtbot) -> None:  # type: ignore[no-untyped-def]
    lesson = blank_lesson()
    lesson = lesson.with_page(lesson.pages[0].put(*things()))  # type: ignore[arg-type]
    canvas = Canvas(Session(lesson, time.monotonic), "p1")
    qtbot.addWidget(canvas)
    canvas.resize(SIZE)
    canvas.show()
    canvas.zoom_by(1.7, (200, 150))
    assert canvas.surface.camera is not canvas.camera
    assert not canvas.grab().isNull()
    qtbot.waitUntil(lambda: canvas.surface.camera is canvas.camera and canvas.surface.sharp)
    canvas.surface.sharpen(10_000)
    assert differing(canvas.surface.base.toImage(), afresh(canvas.page, canvas.camera)) <= 3


def test_no_slice_takes_long_on_a_crowded_page() -> None:
    page = Page(id="p1").put(*(stroke(3.0 * i, start=10.0 * (i % 30)) for i in range(600)))
    surface = Surface(lambda: page)
    surface.resize(QSize(1280, 720), 1.0)
    surface.load()
    longest = 0.0
    while not surface.sharp:
        began = time.thread_time()  # not the clock: a busy machine is not our slowness
        surface.sharpen(1)
        longest = max(longest, time.thread_time() - began)
    assert longest < 0.05


def test_hidden_things_are_left_out_and_come_back() -> None:
    page = Page(id="p1").put(Block(value=100, placement=Placement(100, 100)))
    surface = Surface(lambda: page)
    surface.resize(SIZE, 1.0)
    surface.load()
    whole = picture(surface)
    surface.hidden = {"t1"}
    surface.invalidate(surface.index.boxes["t1"])
    assert picture(surface).pixelColor(150, 150) != whole.pixelColor(150, 150)
    surface.hidden = set()
    surface.invalidate(surface.index.boxes["t1"])
    assert picture(surface) == whole


def test_marks_outside_the_view_cost_nothing() -> None:
    page = Page(id="p1")
    surface = Surface(lambda: page)
    surface.resize(SIZE, 1.0)
    surface.sharpen(10_000)
    from larch.core.base.shape import Box

    surface.invalidate(Box(5000, 5000, 6000, 6000))
    surface.invalidate(Box(-1e9, -1e9, -1e8, -1e8))
    assert surface.sharp
    surface.invalidate(Box(-1e9, 10, 1e9, 20))
    assert not surface.sharp
    assert all(QRect(0, 0, 420, 300).contains(rect) for rect in surface.sharpen(10_000))


def test_live_ink_looks_like_the_stroke_it_becomes(qtbot) -> None:  # type: ignore[no-untyped-def]
    """Nothing jumps when the pen is lifted."""
    from larch.board.pointer import Sample
    from larch.board.tools.draw import PenTool

    canvas = Canvas(Session(Lesson().insert(Page(id="")), time.monotonic), "p1")
    qtbot.addWidget(canvas)
    canvas.resize(SIZE)
    canvas.show()
    canvas.look(Camera(1.0, 0, 0))
    canvas.pointers.tool = PenTool()

    def sample(i: int) -> Sample:
        at = (60.0 + 7 * i, 150 + 40 * ((i % 20) / 10 - 1) ** 2)
        return Sample("mouse", "mouse", at, canvas.camera.to_page(*at), 16.0 * i)

    canvas._press(sample(0))  # sharpens the page, which was zoomed a moment ago
    for i in range(1, 40):
        canvas.pointers.move(sample(i))
    live = canvas.grab().toImage()
    canvas.pointers.release(sample(39))
    canvas.surface.sharpen(10_000)
    kept = canvas.grab().toImage()
    assert canvas._ink.strokes == {}
    inked = sum(kept.pixelColor(x, y).lightness() < 120 for x in range(0, 420, 2) for y in range(0, 300, 2))
    assert inked > 100
    assert differing(live, kept) < inked * 0.12


def test_an_edit_while_things_are_dragged_keeps_both(qtbot) -> None:  # type: ignore[no-untyped-def]
    """Two people: one drags a block while the other's edit lands on the same page."""
    lesson = blank_lesson()
    lesson = lesson.with_page(lesson.pages[0].put(Block(value=100, placement=Placement(100, 100)), Text(text="a")))
    session = Session(lesson, time.monotonic)
    canvas = Canvas(session, "p1")
    qtbot.addWidget(canvas)
    canvas.resize(SIZE)
    canvas.show()
    owner = object()
    canvas.carry(owner, ["t1"], 50, 0)
    page = canvas.page
    session.commit(Edit("other", page, page.with_things({"t2": page.things[1].replace(text="b")})))
    page = canvas.page
    canvas.commit(Edit("move", page, page.changing(["t1"], lambda t: t.moved(50, 0))))
    canvas.end_preview(owner)
    assert [canvas.page.things[0].placement.x, canvas.page.things[1].text] == [150, "b"]
    assert canvas.surface.hidden == set()
