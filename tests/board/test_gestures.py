"""Tools without Qt: plain samples on a stage of wood."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.board.camera import Camera
from larch.board.gestures.base import Caption, Change, Gesture, OverlayMark, Spots
from larch.board.pointer import Sample
from larch.board.pointers import Pointers
from larch.board.tools.draw import MOST_SAMPLES, PenTool
from larch.board.tools.erase import MODES, EraserTool
from larch.board.tools.place import HandTool
from larch.board.tools.select import SelectTool
from larch.board.tools.stamp import MarkTool
from larch.core.base.shape import Box, Placement, Point, union
from larch.core.model.capabilities import IsInk, Tappable
from larch.core.model.edit import Edit
from larch.core.model.nibs import Pen
from larch.core.model.page import Page, with_groups
from larch.core.model.thing import Snap, Thing
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.ink.ink import Ink
from larch.core.things.numbers.block import Block
from tests.samples import page_with, stroke


class _Unheard:
    """A signal that no one listens to."""

    def emit(self, *_values: object) -> None:
        pass


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
        self.edited: list[Thing] = []
        self.opened = ""
        self.edit_at: Point | None = None
        self.let_go = self.said = _Unheard()
        self.marquee: Box | None = None
        self.inked = 0
        self.marks: dict[object, tuple[OverlayMark, ...]] = {}
        self.instead: dict[object, Mapping[str, Sequence[Thing]]] = {}
        self.offered: tuple[str, Callable[[], None], Callable[[], None]] | None = None
        self.filled: list[Point] = []

    def may(self, what: str) -> bool:
        return not self.at_board or what in self.page.pupils

    def commit(self, edit: Edit) -> None:
        self.edits.append(edit)
        self.page = edit.after  # type: ignore[assignment]
        if edit.select is not None:
            self.selection = edit.select

    def select(self, ids: Sequence[str]) -> None:
        self.selection = tuple(ids)

    def whole(self, ids: Sequence[str]) -> tuple[str, ...]:
        return with_groups(self.page, ids, self.opened)

    def open_group(self, name: str) -> None:
        self.opened = name

    def seen(self) -> Box:
        return Box(-1e4, -1e4, 1e4, 1e4)

    def drag_over(self, view_pos: Point | None) -> str:
        return ""

    def things_in(self, box: Box) -> list[Thing]:
        return [t for t in self.page.things if t.box().meets(box)]

    def thing_at(self, pos: Point, slack: float) -> Thing | None:
        hits = [t for t in self.page.things if t.touches(*t.placement.to_local(*pos), slack)]
        return hits[-1] if hits else None

    def handle_at(self, view_pos: Point) -> tuple[str, str] | None:
        return None

    def box_of(self, things: Sequence[Thing]) -> Box:
        return union(t.box() for t in things)

    def preview(self, owner: object, change: Change, new: Sequence[Thing] = ()) -> None:
        self.previews[owner] = {**change(self.page), **{f"new {i}": t for i, t in enumerate(new)}}

    def finish(self, owner: object, label: str, change: Change, then: Callable[..., Page] | None = None) -> None:
        made = change(self.page)
        if made:
            after = self.page.with_things(made)
            self.commit(Edit(label, self.page, after if then is None else then(after, tuple(made))))
        self.end_preview(owner)

    def carry(self, owner: object, ids: Sequence[str], dx: float, dy: float) -> None:
        self.previews[owner] = {t.id: t.moved(dx, dy) for t in self.page.some(ids)}

    def end_preview(self, owner: object) -> None:
        self.previews.pop(owner, None)

    def show_snap(self, owner: object, snap: Snap | None) -> None:
        self.snaps[owner] = snap

    def show_marquee(self, owner: object, box: Box | None) -> None:
        self.marquee = box

    def ink_to(self, owner: object, samples: object, pressures: object, pen: Pen) -> None:
        self.inked += 1

    def ink_end(self, owner: object) -> None:
        self.inked = 0

    def show_marks(self, owner: object, *marks: OverlayMark) -> None:
        self.marks.pop(owner, None)
        if marks:
            self.marks[owner] = marks

    def show_instead(self, owner: object, instead: Mapping[str, Sequence[Thing]], boxes: Sequence[Box]) -> None:
        self.instead[owner] = instead

    def rub_out(self, owner: object, path: object, radius: float, instead: Mapping[str, Sequence[Thing]]) -> None:
        self.instead[owner] = instead

    def end_instead(self, owner: object, committed: bool = False) -> None:
        self.instead.pop(owner, None)

    def offer(self, at: Point, text: str, icon: str, run: Callable[[], None], drop: Callable[[], None]) -> None:
        self.offered = (text, run, drop)

    def fill_at(self, at: Point, hue: str, gap: float) -> None:
        self.filled.append(at)

    def pan_by(self, dx: float, dy: float) -> None:
        self.camera = self.camera.panned(dx, dy)

    def zoom_by(self, factor: float, view_pos: Point) -> None:
        self.camera = self.camera.zoomed(factor, *view_pos)

    def edit_thing(self, thing: Thing) -> None:
        self.edited.append(thing)

    def tap(self, thing: Thing, at: Point) -> bool:
        self.tapped.append(thing.id)
        return isinstance(thing, Tappable) and bool(thing.tap_action(thing.placement.to_local(*at)))

    def part_at(self, thing: Thing, sample: Sample) -> str:
        return ""

    def held_corner_at(self, sample: Sample, under: Thing | None) -> None:
        return None

    def gesture_for(self, sample: Sample, thing: Thing, part: str) -> Gesture | None:
        return None

    def pen_gesture(self, sample: Sample, pen: Pen) -> None:
        return None


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


def pen_of(**fields: object) -> PenTool:
    tool = PenTool()
    tool.choose(Pen(**fields))  # type: ignore[arg-type]
    return tool


TOOLS = [
    SelectTool, PenTool, HandTool, MarkTool, *(lambda mode=mode: EraserTool(mode) for mode in MODES),
    *(lambda form=form: pen_of(form=form, ends="both") for form in ("line", "curve")),
    lambda: pen_of(nib="highlighter", width=30.0),
]  # fmt: skip
paths = st.lists(st.tuples(st.floats(0, 800), st.floats(0, 600)), min_size=2, max_size=12)


@given(paths, st.sampled_from(TOOLS), st.booleans())
def test_any_gesture_leaves_no_preview_and_at_most_one_edit(
    path: list[tuple[float, float]], tool: type, board: bool
) -> None:
    stage = Wood(page_with(Block(value=100), Polygon(), Block(supply=True, placement=Placement(300, 300)), stroke()))
    stage.at_board = board
    pointers = gesture(stage, tool(), path)
    assert stage.previews == {}
    assert stage.instead == {} or stage.offered is not None
    assert stage.marquee is None
    assert len(stage.edits) <= 1
    assert not pointers.busy


@given(paths, st.sampled_from(TOOLS))
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
    assert (stage.instead, stage.marks) == ({}, {})


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
    assert all(isinstance(thing, IsInk) for thing in stage.page.things)


def test_the_eraser_end_erases_whatever_tool_is_in_hand() -> None:
    stage = Wood(page_with(stroke(100.0), Block(value=100, placement=Placement(50, 60))))
    before = stage.page.things[0].box().width
    gesture(stage, PenTool(), [(60.0, 80.0), (60.0, 120.0)], pointer="eraser 7")
    assert [t.kind() for t in stage.page.things] == ["ink", "block"]
    assert stage.page.things[0].box().width < before - 10


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
    assert [thing.id for thing in stage.edited] == ["t1"]
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


SHIFT = {"shift": True}


def test_shift_holds_a_line_to_fifteen_degrees_and_says_so() -> None:
    stage = Wood(page_with())
    pointers = Pointers(stage)  # type: ignore[arg-type]
    pointers.tool = pen_of(form="line", ends="end")
    pointers.press(at(stage, 100, 300))
    pointers.move(at(stage, 300, 97, **SHIFT))
    (snap,) = stage.snaps.values()
    assert snap is not None and snap.reason == "45°"
    pointers.release(at(stage, 300, 97, **SHIFT))
    (line,) = stage.page.things
    assert isinstance(line, Ink)
    (x0, y0), (x1, y1) = (line.placement.to_page(s[0], s[1]) for s in line.samples())
    assert x1 - x0 == pytest.approx(y0 - y1)
    assert (line.form, line.ends) == ("line", "end")


def test_a_line_meets_corners_and_falls_level_unless_alt_is_held() -> None:
    triangle = Polygon(vertices=((0.0, 0.0), (100.0, 0.0), (0.0, 80.0)), placement=Placement(400, 300))
    stage = Wood(page_with(triangle))
    gesture(stage, pen_of(form="line"), [(100.0, 100.0), (200.0, 200.0), (502.0, 303.0)])
    end = stage.page.things[-1]
    assert isinstance(end, Ink)
    assert end.placement.to_page(*end.samples()[-1][:2]) == pytest.approx((500, 300), abs=0.01)
    gesture(stage, pen_of(form="line"), [(100.0, 500.0), (600.0, 506.0)])
    level = stage.page.things[-1].box()
    assert level.height < 6
    gesture(stage, pen_of(form="line"), [(100.0, 500.0), (600.0, 506.0)], alt=True)
    assert stage.page.things[-1].box().height > 10


def test_a_curve_goes_through_three_taps_or_through_one_sweep() -> None:
    stage = Wood(page_with())
    tool = pen_of(form="curve")
    pointers = Pointers(stage)  # type: ignore[arg-type]
    pointers.tool = tool
    for place in ((100, 300), (200, 100), (300, 300)):
        pointers.press(at(stage, *place))
        if place == (200, 100):
            assert stage.marks[tool] == (Spots([(100, 300)]),)
        pointers.release(at(stage, *place))
    (curve,) = stage.page.things
    assert curve.touches(*curve.placement.to_local(200, 100), 1)
    assert stage.marks == {}
    gesture(stage, tool, [(400.0, 300.0), (450.0, 220.0), (500.0, 200.0), (550.0, 220.0), (600.0, 300.0)])
    swept = stage.page.things[-1]
    assert isinstance(swept, Ink) and len(swept.samples()) == 3
    assert swept.touches(*swept.placement.to_local(500, 200), 1)
    pointers.press(at(stage, 10, 10))
    pointers.release(at(stage, 10, 10))
    tool.put_down(stage)  # type: ignore[arg-type]
    assert (tool.tapped, stage.marks) == ({}, {})


def test_each_tip_keeps_the_pen_that_it_was_last_given() -> None:
    """Tip colours: choose red, write with one pen; choose blue, write with another; both keep theirs."""
    stage = Wood(page_with())
    tool = PenTool()
    tool.by_tip = True
    path = [(10.0, 10.0), (60.0, 40.0)]
    for hue, pointer in (("berry", "pen 1"), ("lake", "pen 2"), ("moss", "touch 5")):
        tool.choose(Pen(hue=hue))
        gesture(stage, tool, path, pointer=pointer, contact=30.0 if "touch" in pointer else 0.0)
    for pointer, contact in (("pen 1", 0.0), ("pen 2", 0.0), ("touch 9", 24.0), ("touch 9", 60.0), ("mouse", 0.0)):
        gesture(stage, tool, path, pointer=pointer, contact=contact)
    assert [t.hue for t in stage.page.things[3:]] == ["berry", "lake", "moss", "moss", "moss"]
    tool.choose(Pen(hue="plum"))
    gesture(stage, tool, path, pointer="touch 11", contact=60.0)
    gesture(stage, tool, path, pointer="touch 12", contact=30.0)
    assert [t.hue for t in stage.page.things[-2:]] == ["plum", "moss"]


def test_a_flat_hand_rubs_out_and_may_come_down_slowly() -> None:
    stage = Wood(page_with(stroke(100.0), stroke(300.0), Block(value=100, placement=Placement(60, 80))))
    gesture(stage, PenTool(), [(60.0, 100.0), (200.0, 100.0)], pointer="touch 1", contact=140.0)
    assert stage.page.things[0].box().x0 > 200
    pointers = Pointers(stage)  # type: ignore[arg-type]
    pointers.tool = PenTool()
    pointers.press(at(stage, 60, 300, "touch 1", contact=30.0, time=0))
    pointers.move(at(stage, 62, 300, "touch 1", contact=120.0, time=60))
    pointers.move(at(stage, 250, 300, "touch 1", contact=120.0, time=90))
    pointers.release(at(stage, 250, 300, "touch 1", contact=120.0, time=99))
    assert [t.kind() for t in stage.page.things] == ["ink", "ink", "block"]
    assert stage.page.things[1].box().x0 > 240
    gesture(stage, SelectTool(), [(260.0, 300.0), (280.0, 300.0)], pointer="touch 1", contact=140.0)
    assert stage.page.things[1].box().x0 > 240


def test_a_ring_waits_for_its_chip() -> None:
    stage = Wood(page_with(stroke(100.0), stroke(300.0, "berry"), stroke(500.0).replace(locked=True)))
    square = [(20.0, 60.0), (400.0, 60.0), (400.0, 600.0), (20.0, 600.0)]
    gesture(stage, EraserTool("ring"), square)
    assert stage.edits == []
    assert stage.offered is not None
    text, take, drop = stage.offered
    assert text == "rub out 2 strokes"
    drop()
    assert (stage.instead, stage.marks) == ({}, {})
    tool = EraserTool("ring")
    tool.only_hue = "berry"
    gesture(stage, tool, square)
    text, take, _drop = stage.offered
    assert text == "rub out 1 stroke"
    take()
    assert [t.id for t in stage.page.things] == ["t1", "t3"]


def test_a_sweep_counts_what_will_go_and_going_back_spares_it() -> None:
    stage = Wood(page_with(stroke(100.0), stroke(300.0, start=700.0)))
    pointers = Pointers(stage)  # type: ignore[arg-type]
    pointers.tool = EraserTool("sweep")
    pointers.press(at(stage, 40, 400))
    pointers.move(at(stage, 500, 400))
    captions = [mark.text for marks in stage.marks.values() for mark in marks if isinstance(mark, Caption)]
    assert captions == ["1 stroke"]
    pointers.move(at(stage, 42, 400))
    pointers.release(at(stage, 42, 400))
    assert stage.edits == []
    gesture(stage, EraserTool("sweep"), [(40.0, 400.0), (500.0, 400.0)])
    assert [t.id for t in stage.page.things] == ["t2"]


def test_marks_stand_evenly_in_a_row() -> None:
    stage = Wood(page_with())
    tool = MarkTool()
    tool.shape, tool.size, tool.gap = "star", 40.0, 1.5
    gesture(stage, tool, [(100.0, 100.0), (300.0, 100.0), (405.0, 101.0)])
    places = [(round(t.placement.x, 6), round(t.placement.y, 6)) for t in stage.page.things]
    assert places == [(100 + 60 * k, 100) for k in range(6)]
    assert len(stage.edits) == 1
    gesture(stage, tool, [(500.0, 500.0), (502.0, 501.0)])
    assert len(stage.page.things) == 7


def test_things_can_be_the_stamp() -> None:
    stage = Wood(page_with())
    tool = MarkTool()
    tool.own, tool.shape = (Block(value=10, placement=Placement(9, 9)), stroke()), "own"
    gesture(stage, tool, [(100.0, 100.0), (400.0, 100.0)])
    things = stage.page.things
    assert len(things) % 2 == 0 and len(things) >= 10
    assert things[0].groups == things[1].groups != things[2].groups
    assert union(t.box() for t in things[:2]).centre == pytest.approx((100, 100), abs=1)


def test_two_rubbers_on_one_stroke_leave_no_double() -> None:
    """Two hands rub the same stroke at once; the one that is lifted last must not bring back what the other took."""
    stage = Wood(page_with(stroke(100.0)))
    pointers = Pointers(stage)  # type: ignore[arg-type]
    pointers.tool = EraserTool("part", 10.0)
    for pointer, x in (("touch 1", 100), ("touch 2", 220)):
        pointers.press(at(stage, x, 60, pointer))
        pointers.move(at(stage, x, 140, pointer))
    pointers.release(at(stage, 100, 140, "touch 1"))
    pointers.release(at(stage, 220, 140, "touch 2"))
    boxes = sorted(t.box() for t in stage.page.things)
    assert len(boxes) == 3
    assert all(a.x1 < b.x0 for a, b in pairwise(boxes))
