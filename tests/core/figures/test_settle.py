"""Figures that follow: they follow at once, fade with a reason, come back, and are not written into files."""

from __future__ import annotations

import json
import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.arrange.arrange import copies, delete, duplicate, nudge
from larch.core.actions.geometry.picks import Pick, built
from larch.core.base.shape import Placement
from larch.core.figures.rules import RULES
from larch.core.figures.settle import carried, descendants, dragged_to, followers, free_of, set_free, settle
from larch.core.figures.steps import steps
from larch.core.files.codec import page_from_json, page_to_json
from larch.core.maths.plane.forms import Circle, Line, Path, Spot
from larch.core.model.edit import Edit, changes_between
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.session.session import Session
from larch.core.things.geometry.circle import Circle as CircleThing
from larch.core.things.geometry.line import Line as LineThing
from larch.core.things.geometry.locus import Locus
from larch.core.things.geometry.point import Point
from larch.core.things.geometry.polygon import Polygon, polygon_on


def point(name: str, x: float, y: float, **fields: object) -> Point:
    return Point(name=name, placement=Placement(x, y), **fields)  # type: ignore[arg-type]


def page_of(*things: object) -> Page:
    return settle(Page(id="p1").put(*things))  # type: ignore[arg-type]


def euclid() -> Page:
    """The equilateral triangle on a segment, by two circles."""
    return page_of(
        point("A", 100, 300), point("B", 300, 300),
        CircleThing(rule="circle", of=("t1", "t2")), CircleThing(rule="circle", of=("t2", "t1")),
        Point(name="C", rule="meet", of=("t3", "t4"), values=(0.0,)),
        Polygon(rule="polygon", of=("t1", "t2", "t5")),
    )  # fmt: skip


def test_what_follows_is_worked_out_in_order_whatever_its_depth() -> None:
    page = euclid()
    corners = page.thing("t6").form().corners
    sides = [math.dist(a, b) for a, b in zip(corners, (*corners[1:], corners[0]), strict=True)]
    assert sides == pytest.approx([200] * 3)
    backwards = settle(page.replace(things=page.things[::-1]))
    assert backwards.thing("t6").form() == page.thing("t6").form()


def test_settling_again_changes_nothing_and_keeps_the_very_values() -> None:
    page = euclid()
    assert settle(page) is page
    moved = page.with_things({"t1": page.thing("t1").moved(10, 0)})
    again = settle(moved, page)
    assert settle(again) is again
    assert again.thing("t2") is page.thing("t2")


@given(st.floats(-800, 800), st.floats(-800, 800))
def test_a_dragged_point_takes_all_that_hangs_on_it_along(dx: float, dy: float) -> None:
    page = euclid()
    after = page.with_things(carried(page, ["t2"], dx, dy))
    assert settle(after) is after
    a, b = after.thing("t1"), after.thing("t2")
    if math.dist((a.placement.x, a.placement.y), (b.placement.x, b.placement.y)) < 1e-6:
        assert after.thing("t6").why
        return
    corners = after.thing("t6").form().corners
    assert math.dist(corners[0], corners[2]) == pytest.approx(math.dist(corners[0], corners[1]), rel=1e-7)


def test_what_is_no_more_fades_with_the_reason_and_comes_back() -> None:
    page = page_of(
        point("A", 0, 0), point("B", 100, 0), CircleThing(rule="circle with radius", of=("t1",), values=(60.0,)),
        CircleThing(rule="circle with radius", of=("t2",), values=(60.0,)),
        Point(rule="meet", of=("t3", "t4"), values=(1.0,)),
        LineThing(rule="segment", of=("t1", "t5")),
    )  # fmt: skip
    last = page.thing("t5").form()
    apart = page.with_things(carried(page, ["t2"], 100, 0))
    assert apart.thing("t5").why == "The circles lie apart."
    assert apart.thing("t6").why == "What it hangs on is not there."
    assert apart.thing("t5").form() == last  # faint where it last was
    back = apart.with_things(carried(apart, ["t2"], -100, 0))
    assert not back.thing("t5").why and not back.thing("t6").why
    assert back.thing("t5").form() == last


def test_dragging_what_follows_moves_what_it_hangs_on() -> None:
    page = euclid()
    moved = carried(page, ["t6"], 30, -20)
    assert free_of(page, ["t6"]) == ["t1", "t2"]
    for id in ("t1", "t2"):
        assert moved[id].placement.x == page.thing(id).placement.x + 30
    top = page.thing("t5").form()
    assert moved["t6"].form().corners[2] == pytest.approx((top.x + 30, top.y - 20))


def test_a_locked_point_stays_when_its_construction_is_dragged() -> None:
    page = euclid()
    page = page.with_things({"t1": page.thing("t1").replace(locked=True)})
    assert "t1" not in carried(page, ["t6"], 30, 0)


def test_a_point_on_a_line_slides_along_it() -> None:
    page = page_of(point("A", 0, 0), point("B", 200, 0), LineThing(rule="segment", of=("t1", "t2")),
                   Point(name="P", rule="on", of=("t3",), values=(0.25,)))  # fmt: skip
    assert page.thing("t4").form() == Spot(50, 0)
    slid = carried(page, ["t4"], 70, 90)["t4"]
    assert slid.form() == Spot(120, 0)
    assert carried(page, ["t4"], 900, 0)["t4"].form() == Spot(200, 0)  # not beyond the end
    assert dragged_to(page, page.thing("t3"), (1.0, 1.0)) is None


def test_loops_and_lost_parents_are_said_and_harmless() -> None:
    page = page_of(Point(rule="midpoint", of=("t2", "t3")), Point(rule="midpoint", of=("t1", "t3")), point("C", 5, 5))
    assert {page.thing(id).why for id in ("t1", "t2")} == {"It hangs on itself."}
    lost = page_of(Point(rule="midpoint", of=("t9", "t2")), point("A", 0, 0))
    assert lost.thing("t1").why == "What it hangs on is gone."
    strange = page_of(point("A", 0, 0), Point(rule="from the future", of=("t1",)), Point(rule="midpoint", of=("t1",)))
    assert strange.thing("t2").why == "It was made by a newer Larch."
    assert strange.thing("t3").why


def test_a_long_chain_is_no_matter() -> None:
    things: list[object] = [point("A", 0, 0), point("B", 100, 0)]
    things += [Point(rule="midpoint", of=(f"t{k + 1}", f"t{k + 2}")) for k in range(3000)]
    page = page_of(*things)
    assert page.thing("t3002").form().x == pytest.approx(200 / 3)
    assert len(descendants(page, ["t1"])) == 3000


def test_only_free_choices_are_written_and_come_back_settled() -> None:
    page = euclid()
    raw = json.loads(page_to_json(page))
    circle = next(thing for thing in raw["things"] if thing["id"] == "t3")
    assert circle == {"kind": "circle", "id": "t3", "rule": "circle", "of": ["t1", "t2"]}
    assert page_from_json(page_to_json(page)) == page


def test_deleting_takes_along_what_hangs_on_it_and_undo_brings_it_back() -> None:
    session = Session(Lesson(pages=(euclid(),)), lambda: 0.0)
    page = session.lesson.pages[0]
    session.commit(delete(page, page.some(["t2"])))
    assert [t.id for t in session.lesson.pages[0].things] == ["t1"]
    session.undo()
    assert session.lesson.pages[0] == page


def test_a_session_settles_every_edit_and_tells_what_changed() -> None:
    session = Session(Lesson(pages=(euclid(),)), lambda: 0.0)
    page = session.lesson.pages[0]
    changes = session.commit(Edit("Move", page, page.with_things({"t2": page.thing("t2").moved(50, 0)})))
    assert changes.things["p1"] == {"t2", "t3", "t4", "t5", "t6"}
    assert not changes_between(session.lesson, session.lesson)


def test_copies_follow_copies_or_are_free() -> None:
    page = euclid()
    both = settle(duplicate(page, page.things).after)
    copied = both.things[6:]
    assert [t.rule for t in copied] == [t.rule for t in page.things]
    assert all(ref in {t.id for t in copied} for t in copied for ref in t.of)
    assert len({t.name for t in both.things if t.kind() == "point"}) == 6  # no letter twice
    (alone,) = copies(page, page.some(["t4"]), 24, 24)
    assert alone.rule == "" and alone.form().centre == pytest.approx((324, 324))


def test_taken_to_another_page_they_follow_each_other_there_and_nothing_else() -> None:
    from larch.core.actions.arrange.arrange import brought, taken_along
    from larch.core.files.codec import thing_from_json, thing_to_json
    from larch.core.model.action import put

    page = euclid()
    other = page_of(point("A", 700, 700), point("B", 20, 900))  # with ids that mean something else here
    for ids in (["t1", "t2", "t3"], ["t3", "t5"], ["t6"]):
        carried_over = [thing_from_json(thing_to_json(thing)) for thing in taken_along(page.some(ids))]
        after = settle(put(other, brought(other, carried_over, 0, 0), "Paste").after)
        new = after.things[2:]
        assert not any(thing.why for thing in new)
        assert [thing.form() for thing in new] == [thing.form() for thing in page.some(ids)]
        own = {thing.id for thing in new}
        assert all(ref in own for thing in new for ref in thing.of)
        assert after.things[:2] == other.things


def test_arrow_keys_and_setting_free() -> None:
    page = euclid()
    nudged = nudge(page, page.some(["t3"]), 2, 0).after
    assert nudged.thing("t1").placement.x == 102
    free = set_free(page, page.some(["t5", "t6"])).after
    assert free.thing("t6").rule == ""
    assert free.thing("t6").form() == page.thing("t6").form()


def test_images_follow_their_originals() -> None:
    triangle = polygon_on(Page(id="p"), [(0.0, 0.0), (90.0, 0.0), (30.0, 60.0)])
    page = page_of(triangle, point("M", 200, 0), point("N", 200, 100),
                   LineThing(rule="line", of=("t2", "t3")))  # fmt: skip
    made = built(page, "mirror", [Pick("t1", (0, 0)), Pick("t4", (0, 0))]).page
    image = next(t for t in made.things if t.kind() == "polygon" and t.id != "t1")
    assert image.form().corners == ((400, 0), (310, 0), (370, 60))
    assert image.corner_names() == ["A′", "B′", "C′"]
    dragged = made.with_things(followers(made, {"t1": made.thing("t1").with_handle("0", -20.0, 10.0)}))
    assert dragged.thing(image.id).form().corners[0] == pytest.approx((420, 10))


def test_a_locus_is_the_path_it_should_be() -> None:
    """The midpoint between a fixed point and one on a circle runs round a circle of half the radius."""
    page = page_of(point("O", 0, 0), CircleThing(rule="circle with radius", of=("t1",), values=(100.0,)),
                   Point(name="Q", rule="on", of=("t2",), values=(30.0,)), point("A", 300, 0),
                   Point(name="M", rule="midpoint", of=("t3", "t4")), Locus(rule="locus", of=("t5", "t3")))  # fmt: skip
    (line,) = page.thing("t6").lines
    assert all(math.dist(p, (150, 0)) == pytest.approx(50, rel=1e-9) for p in line)
    assert line[0] == pytest.approx(line[-1], abs=1e-6)
    moved = page.with_things(carried(page, ["t4"], 0, 80))
    assert all(math.dist(p, (150, 40)) == pytest.approx(50, rel=1e-9) for p in moved.thing("t6").lines[0])
    no_path = page_of(point("A", 0, 0), point("B", 9, 9), Locus(rule="locus", of=("t1", "t2")))
    assert no_path.thing("t3").why == "The moving point must lie on a line or a circle."


def test_steps_are_told_in_the_order_in_which_they_follow() -> None:
    told = [step.words for step in steps(euclid())]
    assert told == [
        "Put out point A.", "Put out point B.", "Draw the circle about A through B.", "Draw the circle about B through A.",
        "C: find where the circle about A and the circle about B meet.", "Join A, B, C to a polygon.",
    ]  # fmt: skip


SPOTS = [Spot(100.0, 100.0), Spot(260.0, 120.0), Spot(180.0, 240.0), Spot(40.0, 200.0)]
WHOLE = {
    "line": Line((0.0, 0.0), (100.0, 40.0), "line"), "circle": Circle((150.0, 150.0), 40.0),
    "curve": Circle((60.0, 60.0), 120.0), "figure": Path(((0.0, 0.0), (50.0, 0.0), (20.0, 40.0))),
}  # fmt: skip


@pytest.mark.parametrize("name", RULES)
def test_every_rule_makes_what_it_says_and_survives_nonsense(name: str) -> None:
    from larch.core.figures.rules import made_by
    from larch.core.maths.plane.forms import NotThere
    from larch.core.model.kinds import kinds

    rule = RULES[name]
    takes = ["point"] * 4 if rule.takes[0] == "point…" else rule.takes
    forms = [SPOTS[i] if want == "point" else WHOLE[want] for i, want in enumerate(takes)]
    if name == "meet":
        forms = [WHOLE["line"], WHOLE["curve"]]
    made = made_by(name, forms, rule.starts)
    if rule.makes:
        assert kinds()[rule.makes]().formed(made).form() == made
    same = [Spot(5.0, 5.0) if isinstance(form, Spot) else form for form in forms]
    far = [Spot(1e300, -1e300) if isinstance(form, Spot) else form for form in forms]
    for nonsense in (same, far, [], forms[:1] * len(forms), [Line((1, 1), (1, 1)), Circle((0, 0), 0.0)]):
        for values in ((), (0.0,), (-3.0, 2.0), (1e9,)):
            try:
                made_by(name, nonsense, values)
            except NotThere as reason:
                assert str(reason).endswith(".")
