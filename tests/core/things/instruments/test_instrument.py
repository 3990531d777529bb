"""Instruments: where a pen is held, what they fall onto, what they read."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.shape import Placement
from larch.core.maths.plane.near import drag_two
from larch.core.model.page import Page
from larch.core.model.scale import Scale
from larch.core.things.geometry.angle import Angle
from larch.core.things.geometry.line import Line
from larch.core.things.geometry.polygon import Polygon, polygon_on
from larch.core.things.instruments.compasses import LEG, Compasses
from larch.core.things.instruments.instrument import held, slid
from larch.core.things.instruments.protractor import Protractor, reading
from larch.core.things.instruments.ruler import Ruler
from larch.core.things.instruments.set_square import SetSquare

angle = st.floats(-180, 180, allow_nan=False)
along = st.floats(0, 480, allow_nan=False)


@given(angle, along, st.floats(0, 20))
def test_a_pen_beside_the_edge_is_held_on_it(turn: float, where: float, off: float) -> None:
    ruler = Ruler(placement=Placement(300, 200, turn))
    found = held(ruler, ruler.placement.to_page(where, -off), 12)
    assert found is not None
    assert found.at == pytest.approx(ruler.placement.to_page(where, 0), abs=1e-6)
    assert found.along == pytest.approx(where, abs=1e-6)
    on = slid(found, ruler.placement.to_page(where + 50, -90))
    assert ruler.placement.to_local(*on.at)[1] == pytest.approx(0, abs=1e-6)
    assert on.along <= 480 + 1e-6  # it stops at the end


def test_a_pen_far_off_or_in_the_middle_is_free() -> None:
    ruler = Ruler(placement=Placement(300, 200))
    assert held(ruler, (400, 100), 12) is None
    assert held(ruler, (400, 232), 12) is None
    assert held(ruler, (400, 262), 12) is not None  # the lower edge draws too


@given(st.floats(10, 170), angle)
def test_a_protractor_reads_the_angle_at_its_middle(size: float, turn: float) -> None:
    corner = Angle(
        arms=((200.0, 0.0), (200 * math.cos(math.radians(size)), -200 * math.sin(math.radians(size)))),
        placement=Placement(300, 300, turn),
    )
    page = Page(id="p").put(corner, Protractor(placement=Placement(300, 300, turn)))
    found = reading(page.things[1], page)
    assert found is not None
    assert found.angle == pytest.approx(size, abs=1e-6)
    assert found.first == pytest.approx(0, abs=1e-6)
    known = {fact.name: fact for fact in page.things[1].facts(page)}
    assert known["reads"].value == pytest.approx(size, abs=1e-6)


def test_it_reads_nothing_where_no_vertex_lies_and_falls_onto_one_nearby() -> None:
    page = Page(id="p").put(
        polygon_on(Page(id="p"), [(100.0, 300.0), (400.0, 300.0), (300.0, 100.0)]), Protractor(placement=Placement(106, 304))
    )
    protractor = page.things[1]
    assert reading(protractor, page) is None
    assert "no angle" in {fact.name: fact for fact in protractor.facts(page)}["reads"].text
    snap = protractor.snap(page, [page.things[0]], 11)
    assert snap is not None and snap.reason == "on the vertex"
    placed = protractor.moved(snap.dx, snap.dy)
    assert reading(placed, page.with_things({placed.id: placed})).angle == pytest.approx(45)


def test_instruments_fall_onto_lines_and_along_each_other() -> None:
    page = Page(id="p").put(Line(ends=((100.0, 300.0), (500.0, 260.0))), Ruler(placement=Placement(120, 330, 4.0)))
    turned, why = page.things[1].held_turn(page, [page.things[0]], 1.0)
    assert why == "along it"
    assert page.things[1].turned(turned, (120, 330)).edges_on_page()[0].angle == pytest.approx(
        math.degrees(math.atan2(40, 400))
    )
    free, why = page.things[1].held_turn(page, [], 10.0)
    assert (round(4 + free, 6), why) == (15, "15°")
    assert page.things[1].held_turn(page, [], 4.0) == (4.0, "")
    square = SetSquare(placement=Placement(200, 338))
    beside = Page(id="p").put(Ruler(placement=Placement(100, 340)), square)
    snap = beside.things[1].snap(beside, [beside.things[0]], 11)
    assert snap is not None and snap.dy == pytest.approx(2)


@given(angle, st.floats(-200, 200), st.floats(-200, 200))
def test_two_fingers_turn_and_shift(turn: float, dx: float, dy: float) -> None:
    c, s = math.cos(math.radians(turn)), math.sin(math.radians(turn))
    before = ((-100.0, 0.0), (100.0, 0.0))
    after = tuple((x * c + y * s + dx, -x * s + y * c + dy) for x, y in before)
    found, middle, shift = drag_two(before, after)
    assert (found - turn + 180) % 360 == pytest.approx(180, abs=1e-6)
    assert middle == (0, 0) and shift == pytest.approx((dx, dy), abs=1e-6)


def test_sizes_are_typed_in_the_units_of_the_page() -> None:
    page = Page(id="p", scale=Scale("m", 2.0)).put(Compasses(opening=96), Ruler(length=480), SetSquare(sort="30-60"))
    compasses = {fact.name: fact for fact in page.things[0].facts(page)}["opening"]
    assert compasses.text == "6 m"
    assert compasses.set("8").opening == pytest.approx(128)
    with pytest.raises(ValueError, match="open up to"):
        compasses.set("900")
    ruler = {fact.name: fact for fact in page.things[1].facts(page)}["length"]
    assert ruler.text == "30 m"
    turned = {fact.name: fact for fact in page.things[2].facts(page)}["turn"].set("30°")
    assert turned.placement.turn == 30


@given(st.floats(20, 400), st.floats(-300, 300), st.floats(-300, 300))
def test_legs_of_compasses_keep_their_length(opening: float, x: float, y: float) -> None:
    compasses = Compasses(opening=opening, placement=Placement(400, 400))
    assert math.dist(compasses.knob(), (0, 0)) == pytest.approx(LEG)
    assert math.dist(compasses.knob(), (opening, 0)) == pytest.approx(LEG)
    if math.hypot(x, y) > 20:
        opened = compasses.with_handle("opening", x, y)
        assert math.dist(opened.needle(), opened.pencil()) == pytest.approx(min(math.hypot(x, y), 2 * LEG - 40), rel=1e-9)
        assert opened.needle() == pytest.approx(compasses.needle())


def test_the_needle_falls_onto_a_point() -> None:
    page = Page(id="p").put(Polygon(placement=Placement(100, 100)), Compasses(placement=Placement(104, 263)))
    snap = page.things[1].snap(page, [page.things[0]], 11)
    assert snap is not None
    assert page.things[1].moved(snap.dx, snap.dy).needle() == pytest.approx((100, 260))
