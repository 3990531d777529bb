"""Letters that hold for a page: sliders, what is written, what follows from others, circles."""

from __future__ import annotations

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.figures.settle import settle
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.slider import ACTIONS, LONG, TRACK, Slider
from larch.core.things.words.letters import letter_text, letter_value, letters
from larch.core.things.words.text import Text


def settled(*things: Thing) -> Page:
    return settle(Page(id="p1").put(*things))


def test_what_is_written_holds_for_the_page_and_what_follows_follows() -> None:
    page = settled(
        Equation(source="a = 3"), Equation(source=r"b = \frac{a}{2}"), Equation(source="2b + a ="), Text(text="{a} boats")
    )
    assert letters(page).values == {"a": 3, "b": Fraction(3, 2)}
    sum_ = page.things[2]
    assert isinstance(sum_, Equation) and sum_.outcome() == "6"
    assert getattr(page.things[3], "told") == ("3",)  # noqa: B009
    changed = settle(page.with_things({page.things[0].id: page.things[0].replace(source="a = 5")}))
    assert isinstance(changed.things[2], Equation) and changed.things[2].outcome() == "10"
    assert sum_.bare() == sum_.replace(told=())


def test_circles_are_explained() -> None:
    page = settled(Equation(source="a = b + 1"), Equation(source="b = 2a"), Equation(source="c = 4"))
    found = letters(page)
    assert found.values == {"c": 4}
    assert "circle" in found.why["a"] and "circle" in found.why["b"]
    facts = {fact.name: fact for fact in page.things[0].facts(page)}
    assert facts["letter"].value is None and "circle" in facts["letter"].text


def test_lines_of_a_solution_and_graphs_give_no_letters() -> None:
    page = settled(
        Equation(source="2k = 6"), Equation(source="k = 3", above="t1"), Equation(source="y = 2"), Equation(source="f = 2x")
    )
    assert letters(page).values == {}


def test_a_curve_follows_a_slider() -> None:
    page = settled(Slider(letter="m", value=2.0), Equation(source="y = m x"))
    line = page.things[1]
    assert isinstance(line, Equation) and line.curve() is not None
    assert settled(Equation(source="y = m x")).things[0].curve() is None  # type: ignore[attr-defined]


@given(st.floats(-50, 50), st.floats(0.1, 90), st.floats(0.01, 5), st.floats(0, 1), st.floats(-20, 400))
def test_a_thumb_stands_on_a_step_between_the_ends(low: float, long: float, step: float, share: float, x: float) -> None:
    slider = Slider(low=low, high=low + long, step=step, value=low)
    moved = slider.drag_part("thumb", slider.part_place("thumb"), (x, TRACK))
    assert slider.low <= moved.value <= slider.high
    steps = (moved.value - low) / step
    assert abs(steps - round(steps)) < 1e-4 or moved.value == pytest.approx(slider.high)
    assert moved.part_at(*moved.part_place("thumb"), 0) == "thumb"
    more = moved.tap_part("more", (LONG, TRACK))
    assert more is not None and more.value >= moved.value
    later = slider.replace(going=100.0).as_of(100.0 + 9 * share)
    assert slider.low <= later.value <= slider.high


def test_it_runs_to_and_fro_and_stops_where_it_is() -> None:
    page = Page(id="p1").put(Slider(low=0, high=4, step=1, value=0))
    run = ACTIONS[0]
    going = run.edit(page, page.things, 1000.0).after
    assert isinstance(going, Page) and isinstance(slider := going.things[0], Slider)
    assert slider.next_change(1000.0) is not None
    assert [slider.as_of(1000.0 + t).value for t in (0, 2, 4, 6, 8)] == [0, 2, 4, 2, 0]
    stood = run.edit(going, going.things, 1002.0).after
    assert isinstance(stood, Page) and stood.things[0] == page.things[0].replace(value=2.0)


@pytest.mark.parametrize("typed", ["7", "-1", "tall"])
def test_a_value_beyond_its_ends_is_refused_in_a_sentence(typed: str) -> None:
    page = Page(id="p1").put(Slider(letter="a", low=0, high=5))
    facts = {fact.name: fact for fact in page.things[0].facts(page)}
    assert facts["a"].set is not None
    with pytest.raises(ValueError, match=r"\.$"):
        facts["a"].set(typed)


@given(st.one_of(st.fractions(max_denominator=10**6), st.floats(-1e6, 1e6).filter(lambda v: v != int(v))))
def test_values_are_kept_without_loss(value: Fraction | float) -> None:
    assert letter_value(letter_text(value)) == value


def test_facts_stand_in_equations_as_they_do_in_words() -> None:
    page = settled(Slider(letter="a", value=2.0), Equation(source="3 · {a} ="))
    told = page.things[1]
    assert isinstance(told, Equation)
    assert told.seen_source() == "3 · 2 =" and told.outcome() == "6"


@pytest.mark.parametrize(
    ("line", "typed", "wanted"),
    [
        ("2x + 5 = 15", "− 5", "2x = 10"),
        ("2x = 10", "÷ 2", "x = 5"),
        ("-2x < 6", "/(-2)", "x > −3"),
        ("x/2 = 3", "* 2", "x = 6"),
    ],
)
def test_the_same_is_done_to_both_sides(line: str, typed: str, wanted: str) -> None:
    page = Page(id="p1").put(Equation(source=line))
    facts = {fact.name: fact for fact in page.things[0].facts(page)}
    assert facts["both sides"].set is not None
    after = facts["both sides"].set(typed)
    assert isinstance(after, Page) and isinstance(below := after.things[1], Equation)
    assert below.source == wanted and below.above == page.things[0].id and "both sides" in below.reason
    for bad in ("5", "− =", "÷ 0" if "<" in line else "?"):
        with pytest.raises(ValueError, match=r"\.$"):
            facts["both sides"].set(bad)
