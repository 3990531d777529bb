"""Tools without Qt: plain samples on a stage of wood."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.board.camera import Camera
from larch.board.pointer import Sample
from larch.board.pointers import Pointers
from larch.board.tools.draw import MOST_SAMPLES, EraserTool, PenTool
from larch.board.tools.place import HandTool
from larch.board.tools.select import SelectTool
from larch.core.edit import Edit
from larch.core.page import Page
from larch.core.shape import Box, Placement, Point, union
from larch.core.thing import Snap, Thing
from larch.core.things.block import Block
from larch.core.things.ink import Ink
from larch.core.things.polygon import Polygon
from tests.samples import page_with, stroke


class Wood:
    """A stage that only remembers."""

    def __init__(self, page: Page) -> None:
        self.page = page
        self.camera = Camera(2.0, 10, 20)
        self.selection: tuple[str, ...] = ()
        self.at_board = False
        self.edits: list[Edit] = []
        self.previews: dict[object, dict[str, Thing]] = {}
        self.snaps: dict[object, Snap | None] = {}
        self.tapped: list[str] = []
        self.opened: list[Thing] = []
        self.marquee: Box | None = None
        self.inked = 0

    def commit(self, edit: Edit) -> None:
        self.edits.append(edit)
        self.page = edit.after  # type: ignore[assignment]
        if edit.select is not None:
            self.selection = edit.select

    def select(self, ids: Sequence[str]) -> None:
        self.selection = tuple(ids)

    def things_in(self, box: Box) -> list[Thing]:
        return [t for t in self.page.things if t.box().meets(box)]

    def thing_at(self, pos: Point, slack: float) -> Thing | None:
        hits = [t for t in self.page.things if t.touches(*t.placement.to_local(*pos), slack)]
        return hits[-1] if hits else None

    def ink_at(self, start: Point, end: Point, radius: float) -> list[str]:
        box = union([Box(*start, *start), Box(*end, *end)]).grown(radius)
        return [t.id for t in self.things_in(box) if t.is_ink]

    def handle_at(self, view_pos: Point) -> tuple[str, str] | None:
        return None

    def box_of(self, things: Sequence[Thing]) -> Box:
        return union(t.box() for t in things)

    def preview(self, owner: object, things: Mapping[str, Thing], new: Sequence[Thing] = ()) -> None:
        self.previews[owner] = {**things, **{f"new {i}": t for i, t in enumerate(new)}}

    def carry(self, owner: object, ids: Sequence[str], dx: float, dy: float) -> None:
        self.previews[owner] = {t.id: t.moved(dx, dy) for t in self.page.some(ids)}

    def hide_things(self, owner: object, ids: Sequence[str]) -> None:
        self.previews[owner] = {}

    def end_preview(self, owner: object) -> None:
        self.previews.pop(owner, None)

    def show_snap(self, owner: object, snap: Snap | None) -> None:
        self.snaps[owner] = snap

    def show_marquee(self, owner: object, box: Box | None) -> None:
        self.marquee = box

    def ink_to(self, owner: object, samples: object, pressures: object, width: float, hue: str) -> None:
        self.inked += 1

    def ink_end(self, owner: object) -> None:
        self.inked = 0

    def show_eraser(self, owner: object, view_pos: Point | None, radius: float) -> None:
        self.snaps.pop(owner, None)

    def pan_by(self, dx: float, dy: float) -> None:
        self.camera = self.camera.panned(dx, dy)

    def zoom_by(self, factor: float, view_pos: Point) -> None:
        self.camera = self.camera.zoomed(factor, *view_pos)

    def edit_thing(self, thing: Thing) -> None:
        self.opened.append(thing)

    def tap(self, thing: Thing) -> bool:
        self.tapped.append(thing.id)
        return bool(thing.tap_action())


def at(stage: Wood, x: float, y: float, pointer: str = "mouse", **more: object) -> Sample:
    kind = pointer.split()[0]
    return Sample(pointer, kind, stage.camera.to_view(x, y), (x, y), float(more.pop("time", 0)), **more)  # type: ignore[arg-type]


def gesture(stage: Wood, tool: object, path: list[tuple[float, float]], **more: object) -> Pointers:
    pointers = Pointers(stage)  # type: ignore[arg-type]
    pointers.tool = tool  # type: ignore[assignment]
    pointers.press(at(stage, *path[0], **more))
    for i, spot in enumerate(path[1:], 1):
        pointers.move(at(stage, *spot, time=8 * i, **more))
    pointers.release(at(stage, *path[-1], time=8 * len(path), **more))
    return pointers


paths = st.lists(st.tuples(st.floats(0, 800), st.floats(0, 600)), min_size=2, max_size=12)


@given(paths, st.sampled_from([SelectTool, PenTool, EraserTool, HandTool]), st.booleans())
def test_any_gesture_leaves_no_preview_and_at_most_one_edit(
    path: list[tuple[float, float]], tool: type, board: bool
) -> None:
    stage = Wood(page_with(Block(value=100), Polygon(), Block(supply=True, placement=Placement(300, 300)), stroke()))
    stage.at_board = board
    pointers = gesture(stage, tool(), path)
    assert stage.previews == {}
    assert stage.marquee is None
    assert len(stage.edits) <= 1
    assert not pointers.busy


@given(paths, st.sampled_from([SelectTool, PenTool, EraserTool, HandTool]))
def test_a_cancelled_gesture_changes_nothing(path: list[tuple[float, float]], tool: type) -> None:
    stage = Wood(page_with(Block(value=100), Polygon(), Block(supply=True, placement=Placement(300, 300)), stroke()))
    before = stage.page
    pointers = Pointers(stage)  # type: ignore[arg-type]
    pointers.tool = tool()
    pointers.press(at(stage, *path[0]))
    for spot in path[1:]:
        pointers.move(at(stage, *spot))
    pointers.cancel()
    assert (stage.page, stage.previews, stage.edits) == (before, {}, [])


def test_several_pointers_drag_several_things() -> None:
    stage = Wood(page_with(Block(value=100), Block(value=100, placement=Placement(400, 0))))
    pointers = Pointers(stage)  # type: ignore[arg-type]
    pointers.press(at(stage, 50, 50, "touch 1"))
    pointers.press(at(stage, 450, 50, "touch 2"))
    for k in range(1, 6):
        pointers.move(at(stage, 50, 50 + 20 * k, "touch 1"))
        pointers.move(at(stage, 450, 50 + 30 * k, "touch 2"))
    assert len(stage.previews) == 2
    pointers.release(at(stage, 50, 150, "touch 1"))
    pointers.release(at(stage, 450, 200, "touch 2"))
    assert [t.placement.y for t in stage.page.things] == pytest.approx([100, 150])


def test_speed_thins_a_line_that_has_no_pressure() -> None:
    stage = Wood(page_with())
    slow = [(100.0 + i, 100.0) for i in range(60)]
    fast = [(100.0 + 30 * i, 200.0) for i in range(30)]
    gesture(stage, PenTool(), slow)
    gesture(stage, PenTool(), fast)
    first, second = (thing for thing in stage.page.things if isinstance(thing, Ink))
    assert first.samples()[40][2] > second.samples()[20][2] + 0.2


def test_times_and_places_are_kept_as_they_came() -> None:
    stage = Wood(page_with())
    gesture(stage, PenTool(), [(10.0, 20.0), (30.0, 25.0), (60.0, 10.0)])
    (ink,) = stage.page.things
    assert isinstance(ink, Ink)
    assert ink.placement == Placement(10, 20)
    assert [(round(x), round(y), t) for x, y, _p, t in ink.samples()][:3] == [(0, 0, 0), (20, 5, 8), (50, -10, 16)]


def test_an_endless_stroke_goes_on_as_another() -> None:
    stage = Wood(page_with())
    gesture(stage, PenTool(), [(float(i % 900), float(i // 900)) for i in range(MOST_SAMPLES + 50)])
    assert len(stage.page.things) == 2
    assert all(thing.is_ink for thing in stage.page.things)


def test_the_eraser_end_erases_whatever_tool_is_in_hand() -> None:
    stage = Wood(page_with(stroke(100.0), Block(value=100, placement=Placement(50, 60))))
    gesture(stage, PenTool(), [(60.0, 80.0), (60.0, 120.0)], pointer="eraser 7")
    assert [t.kind() for t in stage.page.things] == ["block"]


def test_the_held_space_bar_pans_with_any_tool() -> None:
    stage = Wood(page_with(Block(value=100)))
    pointers = Pointers(stage)  # type: ignore[arg-type]
    pointers.space_held = True
    pointers.press(at(stage, 50, 50))
    pointers.move(at(stage, 70, 60)._replace(view_pos=(150, 140)))
    pointers.release(at(stage, 70, 60))
    assert stage.edits == []
    assert (stage.camera.dx, stage.camera.dy) == (10 + 150 - 110, 20 + 140 - 120)


def test_a_locked_background_lets_a_box_be_drawn_over_it() -> None:
    stage = Wood(
        page_with(
            Polygon(vertices=((0, 0), (800, 0), (800, 600), (0, 600)), locked=True), Block(placement=Placement(100, 100))
        )
    )
    gesture(stage, SelectTool(), [(80.0, 80.0), (90.0, 95.0), (150.0, 150.0)])
    assert stage.selection == ("t2",)
    gesture(stage, SelectTool(), [(400.0, 400.0), (400.0, 400.0)])
    assert stage.selection == ("t1",)


def test_a_double_tap_opens_and_a_tap_at_the_board_acts() -> None:
    stage = Wood(page_with(Block(value=100)))
    gesture(stage, SelectTool(), [(50.0, 50.0), (50.0, 50.0)], clicks=2)
    assert [thing.id for thing in stage.opened] == ["t1"]
    stage.at_board = True
    gesture(stage, SelectTool(), [(50.0, 50.0), (50.0, 50.0)])
    assert stage.tapped[-1] == "t1"


def test_a_snap_is_shown_while_it_holds_and_gone_after() -> None:
    stage = Wood(page_with(Block(value=10, placement=Placement(100, 100)), Block(value=10, placement=Placement(300, 100))))
    pointers = Pointers(stage)  # type: ignore[arg-type]
    pointers.press(at(stage, 305, 150))
    pointers.move(at(stage, 200, 150))
    pointers.move(at(stage, 305 - 300 + 115, 151))
    (snap,) = stage.snaps.values()
    assert snap is not None and snap.reason == "side by side"
    pointers.release(at(stage, 305 - 300 + 115, 151))
    assert set(stage.snaps.values()) == {None}
    assert stage.page.things[1].placement == Placement(113, 100)
