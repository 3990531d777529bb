"""Papers: laws of their patterns, and facts of the page that can be typed."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.shape import Box
from larch.core.files.codec import page_from_json, page_to_json
from larch.core.model.page import SIZES, Page
from larch.core.model.page_facts import page_facts
from larch.core.model.paper import (
    CLOSEST,
    PATTERNS,
    Paper,
    column_edges,
    column_names,
    four_lines,
    fresh_paper,
    rulings,
)

SIZE = SIZES["16:9"]
corners = st.floats(-5000, 5000)
boxes = st.builds(lambda x, y, w, h: Box(x, y, x + w, y + h), corners, corners, st.floats(10, 1500), st.floats(10, 900))
steps = st.floats(8, 300)
patterns = st.sampled_from(sorted(PATTERNS))


@given(patterns, steps, boxes, st.floats(0.05, 40))
def test_marks_reach_the_box_and_never_crowd(pattern: str, step: float, box: Box, scale: float) -> None:
    """However far out or in: a bounded number of marks, each line finite, and none closer than can be told apart."""
    paper = fresh_paper(pattern).replace(step=step)
    count = 0
    for ruling in rulings(paper, SIZE, box, scale):
        assert all(map(math.isfinite, (v for line in ruling.lines for v in line)))
        assert paper.ink(ruling.role).startswith("#")
        count += len(ruling.lines) + len(ruling.dots) + len(ruling.rings)
    across, down = box.width * scale / CLOSEST + 8, box.height * scale / CLOSEST + 8
    assert count <= 4 * (across + down) + across * down + 60


@given(steps, boxes)
def test_squares_are_as_wide_as_their_step(step: float, box: Box) -> None:
    (ruling,) = rulings(Paper("squared", step), SIZE, box, 2.0)
    upright = sorted(x0 for x0, _y0, x1, _y1 in ruling.lines if x0 == x1)
    assert all(b - a == pytest.approx(step, abs=1e-6) for a, b in pairwise(upright))
    assert all(x / step == pytest.approx(round(x / step), abs=1e-6) for x in upright)


@given(steps, boxes)
def test_isometric_lines_meet_in_equilateral_triangles(step: float, box: Box) -> None:
    """Law: every crossing of two families lies on a line of the third, and the dots are those crossings."""
    (dots,) = rulings(Paper("isometric dots", step), SIZE, box, 5.0)
    across = step * math.sqrt(3) / 2
    for x, y in dots.dots[:20]:
        assert x / across == pytest.approx(round(x / across), abs=1e-6)
        for rise in (1 / math.sqrt(3), -1 / math.sqrt(3)):
            number = (y - rise * x) / step
            assert number == pytest.approx(round(number), abs=1e-6)


@given(st.floats(20, 400), st.floats(0.1, 0.9))
def test_handwriting_lines_stand_in_proportion(step: float, share: float) -> None:
    capital, middle, base, low = four_lines(Paper("handwriting", step, share=share))
    assert 0 < capital < middle < base < low < step
    assert (base - middle) / (base - capital) == pytest.approx(share)
    assert low - base == pytest.approx(middle - capital)


def test_ruling_keeps_its_line_height_margin_and_free_top() -> None:
    paper = Paper("ruled", 90, margin=100, top=200)
    strong, margin = rulings(paper, SIZE, Box(0, 0, 1280, 720), 1.0)
    assert [line[1] for line in strong.lines[:3]] == [200, 290, 380]
    assert margin == ("margin", [(100, 0, 100, 720)], [], [], [])
    everywhere = rulings(paper.replace(top=0.0, margin=0.0), SIZE, Box(0, -500, 10, 0), 1.0)
    assert len(everywhere[0].lines) >= 5


def test_heavy_fives_stand_out_on_graph_paper_and_stay_when_it_is_far() -> None:
    near = rulings(Paper("graph", 16), SIZE, Box(0, 0, 320, 320), 1.0)
    assert [ruling.role for ruling in near] == ["fine", "line", "strong"]
    assert len(near[0].lines) == 2 * 21
    assert len(near[2].lines) == 2 * 3
    far = rulings(Paper("graph", 16), SIZE, Box(0, 0, 320, 320), 0.1)
    assert [ruling.role for ruling in far] == ["line", "strong"]


def test_polar_paper_is_centred_on_the_printed_part() -> None:
    line, strong = rulings(Paper("polar", 40), SIZE, Box(0, 0, 1280, 720), 1.0)
    assert {ring[:2] for ring in line.rings} == {(640, 360)}
    assert [ring[2] for ring in line.rings[:3]] == [40, 80, 120]
    assert len(line.lines) + len(strong.lines) == 24


@given(st.integers(1, 7), st.integers(0, 3))
def test_place_value_columns_fill_the_page_in_order(columns: int, decimals: int) -> None:
    paper = Paper("place value", columns=columns, decimals=decimals, top=90)
    names = column_names(columns, decimals)
    assert len(names) == columns + decimals
    assert names[columns - 1] == "ones"
    edges = column_edges(paper, SIZE)
    assert (edges[0], edges[-1]) == (0, SIZE[0])
    labels = [label for ruling in rulings(paper, SIZE, Box(0, 0, 1280, 720), 1.0) for label in ruling.labels]
    assert [text for _x, _y, text, _size in labels] == names
    assert all(size * len(text) * 0.5 < edges[1] for _x, _y, text, size in labels)


def test_colours_of_paper_and_lines() -> None:
    assert Paper().sheet() == "#FCFBF7"
    assert Paper(colour="#102030").sheet() == "#102030"
    assert Paper(colour="sky").sheet() != Paper(colour="berry").sheet()
    assert Paper("squared", lines="berry").ink("line") != Paper("squared").ink("line")
    assert Paper(colour="nonsense").sheet() == Paper().sheet()


def test_facts_of_the_page_are_typed_and_refused() -> None:
    page = Page(id="p", paper=fresh_paper("ruled"))
    facts = {fact.name: fact for fact in page_facts(page)}
    assert facts["step"].text == "2.25 cm"
    assert facts["step"].set("3 cm").paper.step == 96
    assert facts["margin"].set("0").paper.margin == 0
    assert facts["paper colour"].set("sky").paper.colour == "sky"
    assert facts["line colour"].set("#aa3344").paper.lines == "#aa3344"
    assert facts["size"].set("A4").size == (720, 1018)
    assert facts["title"].set("  Lanterns ").title == "Lanterns"
    assert facts["paper"].set("polar").paper == fresh_paper("polar")
    for name, typed in (("step", "0"), ("step", "wide"), ("margin", "-1"), ("paper", "marble"), ("size", "huge"),
                        ("paper colour", "reddish")):  # fmt: skip
        with pytest.raises(ValueError, match=r"\.$"):
            facts[name].set(typed)


def test_a_paper_that_cannot_be_read_does_not_cost_the_page() -> None:
    whole = page_to_json(Page(id="p", title="Night", paper=fresh_paper("handwriting")))
    assert page_from_json(whole).paper.pattern == "handwriting"
    broken = whole.replace(b'"step":160.0', b'"step":"tall"')
    assert broken != whole
    assert (page_from_json(broken).title, page_from_json(broken).paper) == ("Night", Paper())
    strange = whole.replace(b'"pattern":"handwriting"', b'"pattern":"marbled"')
    assert rulings(page_from_json(strange).paper, SIZE, Box(0, 0, 99, 99), 1.0) == []
