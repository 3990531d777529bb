"""Graphs moved on their axes by mouse and fingers: the curve, its places, the axes themselves."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt

from larch.core.base.shape import Placement
from larch.core.maths.layout.reading import meaning
from larch.core.things.geometry.point import Point
from larch.core.things.graphs.axes import Axes
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.slider import Slider
from tests.board.gestures.test_several_hands import Fingers, at_board, fingers  # noqa: F401
from tests.board.test_tools import Hand

CONTROL = Qt.KeyboardModifier.ControlModifier
AXES = Axes(x_min=-6, x_max=6, y_min=-5, y_max=5, width=480, height=400, placement=Placement(100, 120))
BESIDE = Placement(700, 150)


def on_axes(hand: Hand, source: str, *more: object) -> str:
    ids = hand.put(AXES, Equation(source=source, axes="t1", placement=BESIDE), *more)
    return ids[1]


def at(x: float, y: float) -> tuple[float, float]:
    return AXES.page_of((x, y))


def source(hand: Hand, id: str) -> str:
    return hand.thing(id).source  # type: ignore[no-any-return]


@pytest.mark.parametrize(
    ("before", "start", "to", "after"),
    [
        ("y = 3/4 x - 3", (2, -1.5), (2, 0.5), "y = 3/4 x - 1"),
        ("y = (x-3)^2 + 1", (4, 2), (2, 0), "y = (x - 1)^2 - 1"),
        ("y = 1/x", (1, 1), (3, 2), "y = 1/(x - 2) + 1"),
        ("y = sin(x)", (0, 0), (1, 2), "y = sin(x - 1) + 2"),
        ("x = 2", (2, 3), (4, 1), "x = 4"),
        ("x^2 + y^2 = 4", (0, 2), (1, 3), "(x - 1)^2 + (y - 1)^2 = 4"),
        ("(2, 3)", (2, 3), (-1, 1), "(-1, 1)"),
    ],
)
def test_a_curve_is_dragged_and_its_equation_follows(
    hand: Hand, before: str, start: tuple[float, float], to: tuple[float, float], after: str
) -> None:
    id = on_axes(hand, before)
    axes = hand.thing("t1")
    hand.drag(at(*start), at(*to))
    assert meaning(source(hand, id)) == meaning(after)
    assert hand.canvas.selection == (id,)
    assert hand.thing("t1") is axes
    hand.window.undo()
    assert source(hand, id) == before


def test_a_vertex_is_taken_by_its_ring_and_falls_onto_the_grid(hand: Hand) -> None:
    id = on_axes(hand, "y = (x-3)^2 + 1")
    hand.canvas.select([id])
    hand.drag(at(3, 1), at(-1.93, -2.06))
    assert meaning(source(hand, id)) == meaning("y = (x + 2)^2 - 2")


def test_with_control_it_falls_onto_nothing(hand: Hand) -> None:
    id = on_axes(hand, "y = (x-3)^2 + 1")
    hand.canvas.select([id])
    hand.drag(at(3, 1), at(-1.9, -2.1), CONTROL)
    assert meaning(source(hand, id)) == meaning("y = (x + 1.9)^2 - 2.1")


def test_a_line_is_turned_by_its_second_place(hand: Hand) -> None:
    id = on_axes(hand, "y = 3/4 x - 3")
    hand.canvas.select([id])
    grip = next(grip for grip in hand.thing(id).grips_on(hand.canvas.page) if grip.name == "gradient")
    x, _y = AXES.plane_of((grip.x, grip.y))
    hand.drag((grip.x, grip.y), at(x, x / 2 - 3))
    assert meaning(source(hand, id)) == meaning("y = 1/2 x - 3")


def test_a_line_is_dragged_through_a_pupils_point_and_says_so(hand: Hand) -> None:
    id = on_axes(hand, "y = 3/4 x - 6", Point(rule="plotted", of=("t1",), values=(2.0, 1.0), name="P"))
    seen: list[str] = []
    show = hand.canvas.show_snap
    hand.canvas.show_snap = lambda owner, snap: (seen.append(snap.reason) if snap else None, show(owner, snap))
    hand.drag(at(4, -3), at(2.1, 1.1))
    assert meaning(source(hand, id)) == meaning("y = 3/4 x - 0.5")
    assert "through P" in seen


def test_a_slider_goes_with_the_letter_that_it_gives(hand: Hand) -> None:
    ids = hand.put(
        AXES, Equation(source="y = (x - h)^2 + k", axes="t1", placement=BESIDE),
        Slider(letter="h", value=1, low=-5, high=5, placement=Placement(700, 300)),
        Equation(source="k = 2", placement=Placement(700, 420)),
    )  # fmt: skip
    hand.drag(at(2, 3), at(3, 1))
    assert hand.thing(ids[1]).source == "y = (x - h)^2 + k"
    assert hand.thing(ids[2]).value == 2
    assert hand.thing(ids[3]).source == "k = 0"
    hand.window.undo()
    assert (hand.thing(ids[2]).value, hand.thing(ids[3]).source) == (1, "k = 2")


def test_what_can_not_move_says_why_and_stays(hand: Hand) -> None:
    said: list[str] = []
    hand.canvas.said.connect(said.append)
    hand.put(
        AXES, Equation(source="y = x + a b", axes="t1", placement=BESIDE),
        Equation(source="a = 1", placement=Placement(700, 300)), Equation(source="b = 2", placement=Placement(700, 420)),
    )  # fmt: skip
    page = hand.canvas.page
    hand.drag(at(1, 3), at(1, 0))
    assert hand.canvas.page is page
    assert "letters" in said[-1]


def test_a_locked_equation_keeps_its_graph(hand: Hand) -> None:
    hand.put(AXES, Equation(source="y = x", axes="t1", locked=True, placement=BESIDE))
    hand.drag(at(1, 1), at(1, 3))
    assert hand.thing("t2").source == "y = x"


def test_a_tap_on_a_curve_selects_its_equation_and_another_away_from_it_the_axes(hand: Hand) -> None:
    id = on_axes(hand, "y = x^2 - 3")
    hand.tap(*at(2, 1))
    assert hand.canvas.selection == (id,)
    assert {grip.name for grip in hand.thing(id).grips_on(hand.canvas.page)} == {"vertex", "size"}
    hand.tap(*at(-4, -3))
    assert hand.canvas.selection == ("t1",)


def test_places_of_a_graph_are_facts_that_can_be_typed(hand: Hand) -> None:
    id = on_axes(hand, "y = x^2 - 4x + 1")
    facts = {fact.name: fact for fact in hand.thing(id).facts(hand.canvas.page)}
    assert facts["at vertex"].text == "(2; −3)"
    page = facts["at vertex"].set("(1; -2)")  # type: ignore[misc]
    assert meaning(page.thing(id).source) == meaning("y = x^2 - 2x - 1")


def test_a_child_drags_a_parabola_while_another_draws_on_the_page(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    _axes, id = at_board(hand, AXES, Equation(source="y = x^2 - 3", axes="t1", placement=BESIDE))
    fingers.press(1, at(2, 1))
    fingers.press(2, (900, 500))
    fingers.move(2, (950, 550))
    fingers.move(1, at(3, 2))
    fingers.lift(2)
    fingers.lift(1)
    assert meaning(source(hand, id)) == meaning("y = (x - 1)^2 - 2")


def test_where_pupils_may_not_move_things_a_curve_stays(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    _axes, id = at_board(hand, AXES, Equation(source="y = x^2 - 3", axes="t1", placement=BESIDE))
    page = hand.canvas.page
    from larch.core.model.edit import Edit

    hand.canvas.commit(Edit("", page, page.replace(pupils=())))
    fingers.press(1, at(2, 1))
    fingers.move(1, at(3, 2))
    fingers.lift(1)
    assert source(hand, id) == "y = x^2 - 3"


def test_a_finger_stretches_axes_by_their_end_and_shifts_them_by_their_line(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    (id,) = at_board(hand, AXES)
    x, y = AXES.placement.to_page(*AXES.part_place("x end"))
    fingers.press(1, (x, y))
    fingers.move(1, (x + 80, y))
    fingers.lift(1)
    axes = hand.thing(id)
    assert (axes.x_max, axes.width) == (pytest.approx(8.0, abs=0.1), pytest.approx(560, abs=6))
    assert axes.units()[0] == pytest.approx(AXES.units()[0], rel=0.02)
    x, y = axes.placement.to_page(*axes.part_place("x axis"))
    fingers.press(1, (x, y))
    fingers.move(1, (x - 80, y + 40))
    fingers.lift(1)
    moved = hand.thing(id)
    assert moved.placement == axes.placement
    assert moved.x_min == pytest.approx(-4, abs=0.1) and moved.y_max == pytest.approx(6, abs=0.1)


def test_two_fingers_on_axes_scale_them_and_leave_them_where_they_are(hand: Hand, fingers: Fingers) -> None:  # noqa: F811
    (id,) = at_board(hand, AXES)
    fingers.press(1, at(1, 2))
    fingers.press(2, at(3, 4))
    fingers.move(1, at(0.5, 1.5))
    fingers.move(2, at(4.5, 5.5))
    fingers.lift(1)
    fingers.move(2, at(2, 2))  # the finger that stays does nothing more
    fingers.lift(2)
    axes = hand.thing(id)
    assert axes.placement == AXES.placement
    assert axes.units()[0] == pytest.approx(2 * AXES.units()[0], rel=0.05)
    hand.window.undo()
    assert hand.thing(id) == AXES.replace(id=id)


def do(hand: Hand, name: str) -> None:
    from larch.core.model.action import actions_for

    things = hand.canvas.things()
    hand.canvas.do(next(a for a in actions_for(hand.canvas.page, things) if a.name == name))


def facts(hand: Hand, id: str) -> dict[str, object]:
    return {fact.name: fact.text for fact in hand.thing(id).facts(hand.canvas.page)}


def test_an_area_is_put_under_a_graph_its_edge_dragged_and_cut_into_strips(hand: Hand) -> None:
    id = on_axes(hand, "y = x^2/2")
    hand.canvas.select([id])
    do(hand, "area")
    area = hand.canvas.page.things[-1].id
    low, high = hand.thing(area).ends()
    assert low == 0
    hand.drag(at(high, 0.3), at(2.02, 0.3))
    assert hand.thing(area).ends() == (0, 2)
    assert facts(hand, area)["value"] == "4/3"
    do(hand, "strips")
    assert facts(hand, area)["value"] == "0.875"
    do(hand, "strips")
    assert hand.thing(area).count == 8
    assert len(hand.thing(area).shaded(hand.canvas.page)) == 8
    hand.canvas.grab()
    do(hand, "exact area")
    assert facts(hand, area)["value"] == "4/3"


def test_an_area_between_two_graphs_follows_them(hand: Hand) -> None:
    ids = hand.put(
        AXES, Equation(source="y = x + 2", axes="t1", placement=BESIDE),
        Equation(source="y = x^2", axes="t1", placement=Placement(700, 300)),
    )  # fmt: skip
    hand.canvas.select(ids[1:])
    do(hand, "area")
    area = hand.canvas.page.things[-1]
    page = hand.canvas.page.with_things({area.id: area.replace(low=-1, high=2)})
    assert {f.name: f.text for f in page.things[-1].facts(page)}["value"] == "4.5"
    moved = page.changing([ids[2]], lambda t: t.replace(source="y = 1/x"))
    assert {f.name: f.value for f in moved.things[-1].facts(moved)}["value"] is None


def test_what_is_drawn_besides_follows_while_the_graph_is_dragged(hand: Hand) -> None:
    id = on_axes(hand, "y = x^2 - 3")
    hand.canvas.select([id])
    do(hand, "draw derivative")
    follower = hand.canvas.page.things[-1].id
    assert meaning(source(hand, follower)) == meaning("y = 2x")
    hand.drag(at(2, 1), at(3, 2))
    assert meaning(source(hand, follower)) == meaning("y = 2(x - 1)")
    hand.window.undo()
    assert meaning(source(hand, follower)) == meaning("y = 2x")


def test_the_equation_is_hidden_until_asked_and_its_graph_stays(hand: Hand) -> None:
    id = on_axes(hand, "y = x^2 - 3")
    hand.canvas.select([id])
    before = hand.canvas.grab().toImage()
    do(hand, "hide equation")
    from larch.board.views.graphs.equation import read

    marks = read(hand.thing(id))[0].marks
    assert [getattr(mark, "character", "") for mark in marks] == ["𝑦", "=", "?"]
    assert hand.canvas.grab().toImage() != before
    hand.canvas.select([])
    hand.drag(at(2, 1), at(3, 1))
    assert meaning(source(hand, id)) == meaning("y = (x - 1)^2 - 3")
    hand.canvas.select([id])
    do(hand, "hide equation")
    assert hand.thing(id).shown == ()


def test_several_members_of_a_family_are_drawn_faint(hand: Hand) -> None:
    from larch.core.things.graphs.members import members

    ids = hand.put(
        AXES, Equation(source="y = a x^2", axes="t1", placement=BESIDE),
        Slider(letter="a", value=1, low=-2, high=2, placement=Placement(700, 300)),
    )  # fmt: skip
    hand.canvas.select([ids[1]])
    before = hand.canvas.grab().toImage()
    do(hand, "family")
    assert len(members(hand.canvas.page, hand.thing(ids[1]))) == 9
    assert hand.canvas.grab().toImage() != before
    do(hand, "family")
    assert hand.thing(ids[1]).shown == ()


def test_a_freehand_curve_is_fitted_and_compared(hand: Hand) -> None:
    from larch.core.things.ink.ink import ink_from

    path = [at(-4 + k / 10, 0.5 * (-4 + k / 10 + 1) ** 2 - 3 + 0.03 * (-1) ** k) for k in range(70)]
    stroke = ink_from([(x, y, 0.5, 8.0 * k) for k, (x, y) in enumerate(path)])
    ids = hand.put(AXES, stroke, Equation(source="y = 0.5(x + 1)^2 - 3", axes="t1", placement=BESIDE))
    said: list[str] = []
    hand.canvas.said.connect(said.append)
    hand.canvas.select([ids[1]])
    do(hand, "fit quadratic to ink")
    made = hand.canvas.page.things[-1]
    assert isinstance(made, Equation) and made.axes == "t1"
    from larch.core.maths.expression import value_at

    curve = made.curve()
    assert curve is not None
    for x in (-3.0, 0.0, 2.0):
        assert float(value_at(curve.formula, x=x)) == pytest.approx(0.5 * (x + 1) ** 2 - 3, abs=0.1)  # type: ignore[arg-type]
    assert "0.03" in said[0]
    hand.canvas.select([ids[1], ids[2]])
    do(hand, "compare with graph")
    assert "0.03" in said[1]


def test_a_staircase_follows_its_graph_and_its_first_member_is_dragged(hand: Hand) -> None:
    id = on_axes(hand, "y = x/2 + 1")
    hand.canvas.select([id])
    do(hand, "staircase")
    stairs = hand.canvas.page.things[-1].id
    start = hand.thing(stairs).start
    assert facts(hand, stairs)["course"] == "towards 2"
    card = hand.thing(stairs).box()
    assert not any(card.meets(thing.box()) for thing in hand.canvas.page.things if thing.id != stairs)
    hand.drag(at(start, 0.0), at(-2.02, 0.05))
    assert hand.thing(stairs).start == -2
    assert hand.thing(stairs).members(hand.canvas.page)[:4] == (-2, 0, 1, 1.5)
    hand.canvas.select([stairs])
    do(hand, "step more")
    assert hand.thing(stairs).steps == 6
    hand.window.undo()
    assert hand.thing(stairs).steps == 5
    line = hand.thing(id)
    page = hand.canvas.page.with_things({id: line.replace(source="y = 1 - x")})
    assert {f.name: f.text for f in page.thing(stairs).facts(page)}["course"] == "round and round: -2;  3".replace("-", "−")
