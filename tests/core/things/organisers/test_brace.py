"""Braces: their ends and tip are dragged, their words stay upright, and hands that draw one get it."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.ink.readings import shaped
from larch.core.base.shape import Placement
from larch.core.model.page import Page
from larch.core.things.geometry.polyline import Polyline
from larch.core.things.ink.ink import ink_from
from larch.core.things.ink.mark import Mark
from larch.core.things.organisers.brace import Brace
from larch.core.things.organisers.table import Table

PAGE = Page(id="p1")
NUMBERS = st.floats(-400, 400)


@given(NUMBERS, NUMBERS, st.sampled_from(("start", "end")), st.floats(0, 360))
def test_an_end_goes_where_it_is_dragged_and_the_other_stays(x: float, y: float, which: str, turn: float) -> None:
    brace = Brace(long=300.0, placement=Placement(100, 50, turn, 1.5))
    fixed = (300.0, 0.0) if which == "start" else (0.0, 0.0)
    if not 24 <= math.dist((x, y), fixed) <= 6000:
        return
    made = brace.with_handle(which, x, y)
    assert isinstance(made, Brace)
    ends = {"start": made.placement.to_page(0, 0), "end": made.placement.to_page(made.long, 0)}
    other = "end" if which == "start" else "start"
    assert ends[which] == pytest.approx(brace.placement.to_page(x, y), abs=1e-6)
    assert ends[other] == pytest.approx(brace.placement.to_page(*fixed), abs=1e-6)


def test_its_words_are_typed_and_its_length_measured() -> None:
    brace = Brace(long=200.0)
    facts = {fact.name: fact for fact in brace.facts(PAGE)}
    assert facts["words"].set is not None and facts["length"].set is not None
    assert facts["words"].set(" 24 boats ").text == "24 boats"  # type: ignore[attr-defined]
    longer = facts["length"].set("10")
    assert {fact.name: fact for fact in longer.facts(PAGE)}["length"].value == pytest.approx(10)
    for wrong in ("0", "x", "1e9"):
        with pytest.raises(ValueError):
            facts["length"].set(wrong)
    with pytest.raises(ValueError):
        facts["words"].set("w" * 100)


@pytest.mark.parametrize("turn", [0.0, 90.0, 180.0, 217.0])
def test_the_words_lie_within_its_extent_however_it_is_turned(turn: float) -> None:
    brace = Brace(text="whole", placement=Placement(0, 0, turn))
    assert brace.extent().covers(brace.words_box())
    assert brace.touches(*brace.words_box().centre, 0) and not brace.touches(brace.long / 2, -40, 5)


# What a hand drew, as things


def put_in_place(reading: dict[str, object]) -> object:
    page = PAGE.put(ink_from([(0.0, 0.0, 0.7, 0.0), (50.0, 50.0, 0.7, 0.0)], hue="moss"))
    edit = shaped(page, [page.things[0]], reading)  # type: ignore[list-item]
    (made,) = edit.after.things  # type: ignore[union-attr]
    assert made.hue == "moss"
    return made


@pytest.mark.parametrize(
    ("start", "tip", "end"),
    [
        ((0, 0), (100, 30), (200, 0)),
        ((200, 0), (100, 30), (0, 0)),
        ((0, 0), (100, -30), (200, 0)),
        ((0, 0), (30, 100), (0, 200)),
    ],
)
def test_a_drawn_brace_has_its_ends_and_its_tip_where_they_were(start, tip, end) -> None:  # type: ignore[no-untyped-def]
    made = put_in_place({"kind": "brace", "vertices": [start, tip, end]})
    assert isinstance(made, Brace)
    ends = {tuple(round(v) for v in made.placement.to_page(x, 0)) for x in (0.0, made.long)}
    assert ends == {start, end}
    assert made.placement.to_page(made.long / 2, made.deep) == pytest.approx(tip, abs=1.0)


def test_a_drawn_table_has_even_cells_unless_they_were_meant_uneven() -> None:
    frame = [(0, 0), (300, 0), (300, 120), (0, 120)]
    even = put_in_place({"kind": "table", "vertices": frame, "xs": [0, 96, 204, 300], "ys": [0, 60, 120]})
    assert isinstance(even, Table) and even.columns == (100.0, 100.0, 100.0) and even.rows == (60.0, 60.0)
    uneven = put_in_place({"kind": "table", "vertices": frame, "xs": [0, 60, 300], "ys": [0, 120]})
    assert isinstance(uneven, Table) and uneven.columns == (60, 240)


def test_a_tick_and_a_bent_line() -> None:
    tick = put_in_place({"kind": "tick", "vertices": [(0, 30), (15, 45), (60, 0)]})
    assert isinstance(tick, Mark) and tick.shape == "tick" and tick.size == 60
    bent = put_in_place({"kind": "polyline", "vertices": [(0, 0), (50, 80), (90, 10), (140, 60)]})
    assert isinstance(bent, Polyline) and len(bent.vertices) == 4
