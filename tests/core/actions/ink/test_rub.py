"""Rubbing out: laws that hold for every stroke and every path."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.ink import rub
from larch.core.actions.ink.writing import write
from larch.core.base.shape import Placement
from larch.core.model.edit import Edit
from larch.core.model.nibs import DASHES, ENDS, NIBS, Pen, sound_pen
from larch.core.model.page import Page
from larch.core.model.snapping import hold_direction, hold_point
from larch.core.things.ink.ink import Ink, ink_from, length_of, line_from, track
from larch.core.things.ink.mark import Mark, row, stamped
from larch.core.things.words.text import Text
from tests.samples import page_with, ring, special_ink, stroke

spots = st.tuples(st.floats(0, 400), st.floats(0, 300))
paths = st.lists(spots, min_size=2, max_size=4)
placements = st.builds(
    Placement, x=st.floats(-50, 50), y=st.floats(-50, 50), turn=st.floats(0, 360), scale=st.floats(0.5, 3)
)
strokes = st.builds(
    lambda points, place: ink_from([(x, y, 0.5, 8.0 * i) for i, (x, y) in enumerate(points)], 6.0).replace(placement=place),
    st.lists(spots, min_size=2, max_size=30), placements,
)  # fmt: skip


def on_page(ink: Ink) -> list[tuple[float, float]]:
    return [ink.placement.to_page(s[0], s[1]) for s in ink.samples()]


def distance(point: tuple[float, float], path: list[tuple[float, float]]) -> float:
    """By brute force."""
    best = math.inf
    for (ax, ay), (bx, by) in pairwise(path):
        size = (bx - ax) ** 2 + (by - ay) ** 2
        t = 0.0 if size == 0 else max(0.0, min(1.0, ((point[0] - ax) * (bx - ax) + (point[1] - ay) * (by - ay)) / size))
        best = min(best, math.dist(point, (ax + t * (bx - ax), ay + t * (by - ay))))
    return best


@given(strokes, paths, st.floats(2, 60))
def test_nothing_is_left_within_the_rubber_and_all_of_it_outside(
    ink: Ink, path: list[tuple[float, float]], r: float
) -> None:
    """Law: the pieces and what was rubbed out make up the stroke, and the boundary is the rubber's."""
    left = rub.part(path, r)(ink)
    reach = r + ink.width * rub.CLEAN * ink.placement.scale
    pieces = [ink] if left is None else list(left)
    for piece in pieces:
        assert isinstance(piece, Ink)
        for a, b in pairwise(on_page(piece)):
            middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
            assert distance(middle, path) >= reach - 0.05 * ink.placement.scale - 1e-3 * reach
    kept = [sample for piece in pieces for sample in on_page(piece)]  # type: ignore[arg-type]
    for point in on_page(ink):
        if distance(point, path) > reach + rub.DUST * ink.width * ink.placement.scale * 1.5:
            assert min((math.dist(point, other) for other in kept), default=9.0) < 0.02 * ink.placement.scale


@given(strokes, paths, st.floats(2, 60))
def test_whole_strokes_go_exactly_where_parts_would(ink: Ink, path: list[tuple[float, float]], r: float) -> None:
    assert (rub.whole(path, r)(ink) is None) == (rub.part(path, r)(ink) is None)


def test_times_and_pressures_go_on_through_a_cut() -> None:
    ink = ink_from([(10.0 * i, 0.0, 0.1 * i, 100.0 * i) for i in range(11)], 2.0)
    pieces = rub.part([(50, -20), (50, 20)], 4)(ink)
    assert pieces is not None and len(pieces) == 2
    first, second = (piece.samples() for piece in pieces)  # type: ignore[attr-defined]
    assert first[-1] == pytest.approx((45.2, 0, 0.452, 452), rel=1e-4)
    assert second[0] == pytest.approx((54.8, 0, 0.548, 548), rel=1e-4)


def test_a_line_stays_a_line_and_arrows_stay_at_their_ends() -> None:
    line = line_from([(0, 0), (200, 0)], Pen("pen", "line", 4, ends="both", dash="dash"))
    first, second = rub.part([(100, -9), (100, 9)], 10)(line) or ((), ())
    assert (first.form, first.ends, second.ends, first.dash) == ("line", "start", "end", "dash")
    assert len(first.samples()) == len(second.samples()) == 2
    curve = line_from([(0, 0), (100, 80), (200, 0)], Pen("pen", "curve", 4))
    parts = rub.part([(100, 70), (100, 90)], 10)(curve) or []
    assert [part.form for part in parts] == ["free", "free"]
    assert sum(length_of(part) for part in parts) == pytest.approx(length_of(curve) - 24, abs=3)


def test_only_ink_goes_and_none_that_is_locked() -> None:
    page = page_with(stroke(100), stroke(200, "berry"), stroke(300).replace(locked=True), Text(text="Count"), Mark())
    assert [t.id for t in rub.wipe(page).after.things] == ["t3", "t4", "t5"]
    assert [t.id for t in rub.wipe(page, "berry").after.things] == ["t1", "t3", "t4", "t5"]
    ring_path = [(0.0, 50.0), (400.0, 50.0), (400.0, 250.0), (0.0, 250.0)]
    assert set(rub.changed(page.things, rub.inside(ring_path))) == {"t1", "t2"}
    assert set(rub.changed(page.things, rub.inside([(0.0, 50.0), (90.0, 50.0), (90.0, 250.0), (0.0, 250.0)]))) == set()
    assert set(rub.changed(page.things, rub.beside(-9, 40))) == set()


def test_a_point_of_ink_and_an_empty_stroke_are_rubbed_without_complaint() -> None:
    dot = ink_from([(10, 10, 0.5, 0)])
    assert rub.part([(0, 10), (20, 10)], 3)(dot) == []
    assert rub.part([(0, 90), (20, 90)], 3)(dot) is None
    assert rub.part([(0, 10), (20, 10)], 3)(Ink()) is None
    assert rub.whole([(10, 10)], 3)(dot) == ()


def test_a_stroke_of_a_hundred_thousand_points_is_cut() -> None:
    ink = ink_from([(i * 0.01, math.sin(i / 50), 0.5, float(i)) for i in range(100_000)], 3.0)
    pieces = rub.part([(500, -9), (500, 9)], 5)(ink) or []
    assert len(pieces) == 2


def test_pieces_keep_their_depth_and_ids_stay_single() -> None:
    page = page_with(stroke(100), Text(text="a"), stroke(100), Text(text="b"))
    left = rub.changed(page.things, rub.part([(150, 50), (150, 150)], 10))
    edit = rub.rub_edit(page, left, "Rub out")
    assert isinstance(edit.after, Page)
    assert [t.kind() for t in edit.after.things] == ["ink", "ink", "text", "ink", "ink", "text"]
    ids = [t.id for t in edit.after.things]
    assert len(set(ids)) == 6 and ids[0] == "t1" and edit.after.next == 7


def test_the_highlighter_goes_under_the_writing_it_crosses() -> None:
    page = page_with(
        Mark(placement=Placement(0, 0)), Text(text="Lanterns", placement=Placement(50, 80)), stroke(100), stroke(500)
    )
    marker = ink_from([(40.0 + i, 110.0, 1.0, 0.0) for i in range(200)], pen=Pen("highlighter", width=30.0))
    after = write(page, marker).after
    assert isinstance(after, Page)
    nibs = [getattr(t, "nib", t.kind()) for t in after.things]
    assert nibs[:3] == ["mark", "highlighter", "text"]
    assert nibs[3:] == ["pen"] * 2
    aside = marker.moved(0, -3000)
    assert write(page, aside).after.things[-1].nib == "highlighter"


@given(spots, spots, spots)
def test_a_curve_passes_its_three_points(a: tuple[float, float], m: tuple[float, float], b: tuple[float, float]) -> None:
    curve = line_from([a, m, b], Pen(form="curve"))
    values = memoryview(track(curve)).cast("f")
    samples = [curve.placement.to_page(x, y) for x, y in zip(values[0::4], values[1::4], strict=True)]
    for point in (a, m, b):
        assert min(math.dist(point, s) for s in samples) < 0.01
    moved = curve.with_handle("1", 7.0, 9.0)
    assert isinstance(moved, Ink) and moved.samples()[1][:2] == (7, 9)


@given(spots, st.floats(0, 360), st.floats(5, 200))
def test_directions_are_held_to_fifteen_degrees(start: tuple[float, float], angle: float, length: float) -> None:
    end = (start[0] + length * math.cos(math.radians(angle)), start[1] - length * math.sin(math.radians(angle)))
    held = hold_direction(start, end, True)
    turned = math.degrees(math.atan2(start[1] - held.at[1], held.at[0] - start[0])) % 360
    assert turned / 15 == pytest.approx(round(turned / 15), abs=1e-6)
    assert math.dist(held.at, end) <= length * 0.132  # the sine of half a step


def test_ends_meet_ends_and_the_paper() -> None:
    from larch.core.model.paper import Paper

    page = page_with(line_from([(100, 100), (300, 100)], Pen(form="line")))
    held = hold_point(page, page.things, (296, 104), 10)
    assert (held.at, held.reason) == ((300, 100), "meets end")
    squared = Page(id="p", paper=Paper("squared", 32))
    assert hold_point(squared, (), (66, 97), 10).at == (64, 96)
    assert hold_point(squared, (), (80, 80), 10).reason == ""


@given(spots, spots, st.floats(1, 90))
def test_a_row_is_even_and_no_longer_than_it_was_drawn(a: tuple[float, float], b: tuple[float, float], gap: float) -> None:
    places = row(a, b, gap)
    assert places[0] == a
    assert all(math.dist(p, q) == pytest.approx(gap) for p, q in pairwise(places))
    assert math.dist(a, places[-1]) <= math.dist(a, b) + 1e-6


def test_a_stamped_row_counts_and_undoes_as_one() -> None:
    page = page_with()
    edit = stamped(page, row((0, 0), (400, 0), 50), [Mark(shape="tick")], 40)
    assert isinstance(edit, Edit)
    assert sum(thing.worth() for thing in edit.after.things) == 9


@pytest.mark.parametrize("ink", special_ink(), ids=lambda ink: f"{ink.nib}-{ink.form}")
def test_every_ink_can_be_rubbed_recoloured_and_redrawn(ink: Ink) -> None:
    page = page_with(ink)
    x, y = ink.box().centre
    assert rub.changed(page.things, rub.whole([(x - 400, y), (x + 400, y)], 60))
    facts = {fact.name: fact for fact in page.things[0].facts(page)}
    for name, table in (("nib", NIBS), ("dash", DASHES), ("ends", ENDS)):
        assert {value for value, _word in facts[name].options} == set(table)
        with pytest.raises(ValueError, match=r"\.$"):
            facts[name].set("nonsense")


def test_pens_from_a_broken_file_of_settings_are_made_sound() -> None:
    strange = Pen("quill", "spiral", -4.0, "x" * 500, "wavy", "fork")
    assert sound_pen(strange) == Pen(hue="x" * 20)
    assert sound_pen(Pen("crayon", "line", 20.0, "moss", "dash", "both")) == Pen(
        "crayon", "line", 20.0, "moss", "dash", "both"
    )
    assert ring(0, 0, 10).box().width > 19
