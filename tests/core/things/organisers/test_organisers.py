"""Tables, boxes, the lines that join them and their ways; frost; links."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.arrange.arrange import laid_out
from larch.core.actions.frosting import frost_over
from larch.core.actions.joining import grow, grown, join
from larch.core.actions.links import contents, link_of, page_link, read_link, said
from larch.core.base.shape import Box, Placement
from larch.core.figures.settle import carried, followers, settle, without
from larch.core.files.codec import page_from_json, page_to_json
from larch.core.maths.routing import crosses, leaves, squared, straight
from larch.core.model.holders import inside, with_held
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.things.numbers.block import Block
from larch.core.things.organisers.box import SIDES, WordBox
from larch.core.things.organisers.connector import Connector
from larch.core.things.organisers.ready_made import KINDS
from larch.core.things.organisers.table import Table
from larch.core.things.pictures.frost import GONE, RADIUS, Frost, covered
from larch.core.things.words.text import Text

numbers = st.floats(-500, 500)
boxes = st.builds(lambda x, y, w, h: Box(x, y, x + w, y + h), numbers, numbers, st.floats(20, 160), st.floats(20, 160))


@given(boxes, boxes, st.lists(boxes, max_size=5))
def test_a_way_begins_and_ends_where_it_should_and_keeps_clear_if_it_can(a: Box, b: Box, others: list[Box]) -> None:
    path = straight(a.centre, b.centre, others)
    assert path[0] == a.centre and path[-1] == b.centre
    if len(path) > 2:
        assert not any(crosses(p, q, box) for p, q in pairwise(path) for box in others if box in _met(a, b, others, path))


def _met(a: Box, b: Box, others: list[Box], path: list) -> list[Box]:
    """Those that the straight way would have crossed."""
    return [box for box in others if crosses(a.centre, b.centre, box)]


def test_a_way_goes_round_what_lies_between_and_by_the_nearer_side() -> None:
    wall = Box(100, -200, 130, 60)
    path = straight((0.0, 0.0), (230.0, 0.0), [wall])
    assert len(path) > 2 and all(y >= 0 for _x, y in path)
    assert not any(crosses(p, q, wall) for p, q in pairwise(path))


@given(boxes, boxes)
def test_squared_ways_are_level_or_upright(a: Box, b: Box) -> None:
    if a.meets(b):
        return
    path = squared(a, b, [])
    assert all(p[0] == pytest.approx(q[0], abs=1e-6) or p[1] == pytest.approx(q[1], abs=1e-6) for p, q in pairwise(path))


@given(boxes, numbers, numbers, st.sampled_from(["box", "oval", "diamond"]))
def test_lines_leave_at_the_edge_of_their_box(box: Box, x: float, y: float, sort: str) -> None:
    at = leaves(box, (x, y), sort)
    assert box.grown(1e-6).holds(*at)
    u, v = (at[0] - box.centre[0]) / (box.width / 2), (at[1] - box.centre[1]) / (box.height / 2)
    size = {"box": max(abs(u), abs(v)), "oval": math.hypot(u, v), "diamond": abs(u) + abs(v)}[sort]
    assert size == pytest.approx(1, abs=1e-6) or at == pytest.approx((x, y), abs=1e-6)


@pytest.mark.parametrize("name", [kind[0] for kind in KINDS])
def test_every_organiser_stands_and_is_written_and_read_again(name: str) -> None:
    build = next(kind[2] for kind in KINDS if kind[0] == name)
    page = Page(id="p1").put(*laid_out(build()).things)
    page = settle(page)
    assert not any(getattr(thing, "why", "") for thing in page.things)
    assert settle(page_from_json(page_to_json(page))).things == page.things


def two_boxes() -> Page:
    page = Page(id="p").put(WordBox(text="a"), WordBox(text="b", placement=Placement(500, 30)))
    return join(page, page.things).after  # type: ignore[return-value]


def test_lines_stay_attached_and_are_not_stored() -> None:
    page = two_boxes()
    line = page.things[0]
    assert isinstance(line, Connector) and not line.why
    moved = carried(page, [line.of[0]], 0, 300)
    after = page.with_things(moved).thing(line.id)
    assert isinstance(after, Connector)
    assert after.route[0] != line.route[0] and page.with_things(moved).thing(line.of[0]).box().grown(1).holds(
        *after.route[0]
    )  # type: ignore[union-attr]
    assert b"route" not in page_to_json(page)
    assert not any(isinstance(t, Connector) for t in without(page, [line.of[1]]).things)
    with pytest.raises(ValueError, match="joined already"):
        join(page, page.things)


def test_a_box_put_in_the_way_is_gone_round_at_once() -> None:
    page = two_boxes()
    line = page.things[0]
    assert isinstance(line, Connector) and len(line.route) == 2
    wall = WordBox(text="w", width=60, placement=Placement(340, -20))
    after = settle(page.put(wall), page).thing(line.id)
    assert isinstance(after, Connector) and len(after.route) > 2
    assert len(settle(page.put(wall).without([page.put_ids(1)[0]]), page.put(wall)).thing(line.id).route) == 2  # type: ignore[union-attr]


@pytest.mark.parametrize("side", SIDES)
def test_a_neighbour_grows_on_that_side_where_there_is_room(side: str) -> None:
    page = Page(id="p").put(WordBox(text="a", hue="clay", shape="oval"))
    own = page.things[0].box()
    ids = []
    for _k in range(3):
        page, id = grown(page, page.things[0], side)
        ids.append(id)
    found = [page.thing(id) for id in ids]
    assert all(isinstance(t, WordBox) and t.shape == "oval" and t.hue == "clay" and not t.text for t in found)
    boxes_ = [own, *(t.box() for t in found if t is not None)]
    assert not any(a.meets(b) for i, a in enumerate(boxes_) for b in boxes_[i + 1 :])
    dx, dy = SIDES[side]
    assert all((b.centre[0] - own.centre[0]) * dx + (b.centre[1] - own.centre[1]) * dy > own.width * 0.4 for b in boxes_[1:])
    edit = grow(page, page.some([ids[0]]), side)
    assert len(edit.select or ()) == 1


# Tables


def test_what_lies_in_a_table_goes_with_it_and_what_lies_under_or_beside_does_not() -> None:
    page = Page(id="p").put(
        Block(placement=Placement(20, 20)), Table(), Block(placement=Placement(30, 100)), Block(placement=Placement(900, 0))
    )
    assert [t.id for t in inside(page, page.things[1])] == ["t3"]
    assert with_held(page, ["t2"]) == ["t2", "t3"]
    assert with_held(page, ["t1"]) == ["t1"]


@given(st.integers(0, 1), st.floats(-300, 900))
def test_moving_a_line_between_columns_keeps_the_width_of_both(k: int, x: float) -> None:
    table = Table()
    changed = table.with_handle(f"column {k}", x, 0)
    assert isinstance(changed, Table)
    assert math.fsum(changed.columns) == pytest.approx(math.fsum(table.columns))
    assert min(changed.columns) >= 24


@given(st.floats(-100, 20_000))
def test_the_edge_adds_and_takes_away_rows(y: float) -> None:
    changed = Table().with_handle("rows", 0, y)
    assert isinstance(changed, Table)
    assert 1 <= len(changed.rows) <= 60
    if 0 < y < 60 * 72:
        assert abs(math.fsum(changed.rows) - y) <= 72


def test_contents_stay_in_their_cells_when_columns_change() -> None:
    table = Table(columns=(100.0, 100.0), rows=(60.0, 60.0))
    words = table.new_words(1, 1).replace(text="x")
    page = Page(id="p").put(table, words, Block(placement=Placement(120, 10)))
    before = page.things[0]
    wider = before.with_handle("column 0", 150, 0)
    page = page.with_things({before.id: wider, **wider.rearranged(page, before)})
    now = page.things[0]
    assert isinstance(now, Table)
    assert now.words_in(page, 1, 1) is page.things[1] and now.words_in(page, 0, 0) is None
    assert page.things[1].width == pytest.approx(26 if 50 - 24 > 24 else 24, abs=3)  # type: ignore[attr-defined]
    facts = {fact.name: fact for fact in now.facts(page)}
    assert facts["rows"].set is not None
    assert len(facts["rows"].set("5").things[0].rows) == 5
    with pytest.raises(ValueError, match="from 1 to"):
        facts["rows"].set("0")


# Frost


def test_frost_is_rubbed_off_where_the_finger_went_and_melts_at_last() -> None:
    page = Page(id="p").put(Block(placement=Placement(100, 100)), Block(placement=Placement(900, 100)))
    page = frost_over(page, page.things[:1]).after  # type: ignore[assignment]
    frost = page.things[-1]
    assert isinstance(frost, Frost)
    assert [t.id for t in covered(page, frost)] == ["t1"]
    centre = frost.box().centre
    rubbed = frost.rubbed_off([centre])
    local = frost.placement.to_local(*centre)
    assert frost.touches(*local, 0) and not rubbed.touches(*local, 0)
    wide = Frost(width=400, height=200)
    assert wide.rubbed_off([(0, 0), (0, 1)]).cleared() < 0.2
    y = 0.0
    while not wide.melted:
        wide = wide.rubbed_off([(0, y), (400, y)])
        y += RADIUS
        assert y < 400
    assert wide.cleared() == 1.0 and not wide.rubs


@given(st.lists(st.tuples(st.floats(0, 320), st.floats(0, 200)), min_size=1, max_size=8))
def test_more_rubbing_never_clears_less(path: list) -> None:
    frost, before = Frost(), 0.0
    for point in path:
        frost = frost.rubbed_off([point])
        assert frost.cleared() >= before
        before = frost.cleared()
        if frost.melted:
            assert before >= GONE
            return


# Links


@pytest.mark.parametrize(
    ("typed", "sort"),
    [
        ("larch.example", "web"),
        ("https://larch.example/a?b#c", "web"),
        ("/tmp/a b.pdf", "file"),
        ("#p3", "page"),
        ("", None),
    ],
)
def test_links_are_read_as_they_are_typed(typed: str, sort: str | None) -> None:
    text = read_link(typed)
    link = link_of(text)
    assert (link.sort if link else None) == sort


@pytest.mark.parametrize(
    "typed",
    ["javascript:alert(1)", "data:text/html,x", "/tmp/evil.desktop", "ftp://a", "file://host/a", "hello there", "/x.sh"],
)
def test_links_that_would_do_harm_or_mean_nothing_are_refused(typed: str) -> None:
    with pytest.raises(ValueError) as caught:
        read_link(typed)
    assert str(caught.value).endswith(".")


def test_pages_are_linked_by_number_and_listed() -> None:
    lesson = Lesson()
    for title in ("Kites", "", "Bridge"):
        lesson = lesson.insert(Page(id="", title=title))
    assert page_link(lesson, 3) == "#p3"
    with pytest.raises(ValueError, match="no page 4"):
        page_link(lesson, 4)
    listed = contents(lesson)
    texts = [thing for thing in listed.things if isinstance(thing, Text) and thing.link]
    assert [(t.text, t.link) for t in texts] == [("1   Kites", "#p1"), ("3   Bridge", "#p3")]
    assert said("https://larch.example/a") == "larch.example"
    for number in range(70):
        lesson = lesson.insert(Page(id="", title=f"Page {number}"))
    assert sum(bool(thing.link) for thing in contents(lesson).things) == 72  # none is left out
    assert followers(listed, {}) == {}


def test_melted_frost_can_be_taken_by_its_edge_alone() -> None:
    melted = Frost(width=200, height=100, melted=True)
    assert melted.touches(1, 50, 4) and melted.touches(100, 99, 4)
    assert not melted.touches(100, 50, 4) and not melted.touches(260, 50, 4)
