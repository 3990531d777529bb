"""Beads: what goes along, what counts, what is exchanged."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.files.codec import thing_from_json, thing_to_json
from larch.core.model.action import actions_for
from larch.core.things.numbers.abacus import BEAD, BEADS, GAP, Abacus
from tests.samples import page_with

beads = st.integers(0, BEADS - 1)
counts = st.lists(st.integers(0, BEADS), min_size=1, max_size=7).map(tuple)


def place_of(abacus: Abacus, rod: int, bead: int) -> tuple[float, float]:
    return (abacus.rod_x(rod), abacus.bead_y(bead, abacus.beads(rod)[bead]))


@given(counts, st.data())
def test_a_bead_is_found_where_it_is_seen(given_counts: tuple[int, ...], data: st.DataObject) -> None:
    abacus = Abacus(counts=given_counts)
    rod, bead = data.draw(st.integers(0, len(given_counts) - 1)), data.draw(beads)
    assert abacus.part_at(*place_of(abacus, rod, bead), 0) == f"{rod}:{bead}"


@given(counts, st.data())
def test_a_tapped_bead_goes_to_the_other_side_with_those_in_front_of_it(
    counts: tuple[int, ...], data: st.DataObject
) -> None:
    abacus = Abacus(counts=counts)
    rod, bead = data.draw(st.integers(0, len(counts) - 1)), data.draw(beads)
    was_up = [at > k for k, at in enumerate(abacus.beads(rod))]
    after = abacus.tap_part(f"{rod}:{bead}", (0, 0))
    up = [at > k for k, at in enumerate(after.beads(rod))]
    assert up[bead] is not was_up[bead]
    assert (
        up == [was or k >= bead for k, was in enumerate(was_up)]
        if not was_up[bead]
        else up == [k > bead for k in range(BEADS)]
    )


@given(counts, st.data(), st.lists(st.floats(-200, 200), min_size=1, max_size=12))
def test_beads_never_pass_each_other_nor_leave_their_rod(
    counts: tuple[int, ...], data: st.DataObject, ways: list[float]
) -> None:
    abacus = Abacus(counts=counts)
    for way in ways:
        rod, bead = data.draw(st.integers(0, len(counts) - 1)), data.draw(beads)
        abacus = abacus.drag_part(f"{rod}:{bead}", (0.0, 0.0), (0.0, way))
        for k in range(len(counts)):
            at = abacus.beads(k)
            assert all(b - a >= 1 - 1e-9 for a, b in pairwise(at))
            assert at[0] >= 0 and at[-1] <= BEADS - 1 + GAP
    rested = abacus.part_let_go("0:0")
    assert rested.slide == () and rested.worth() == abacus.worth()


def test_steps_of_a_drag_add_up() -> None:
    whole = Abacus().drag_part("2:8", (0, 0), (0, -40.0))
    steps = Abacus()
    for k in range(40):
        steps = steps.drag_part("2:8", (0, -float(k)), (0, -float(k + 1)))
    assert steps.beads(2) == pytest.approx(whole.beads(2))
    assert whole.worth() == 2  # the bead and the one above it


@given(st.integers(0, 999))
def test_a_value_is_set_and_read_by_place(value: int) -> None:
    fact = next(f for f in Abacus().facts(page_with()) if f.name == "value")
    assert fact.set is not None
    shown = fact.set(str(value))
    assert shown.worth() == value
    assert thing_from_json(thing_to_json(shown)) == shown
    digits = {f.name: f.value for f in shown.facts(page_with())}
    assert digits["hundreds"] * 100 + digits["tens"] * 10 + digits["ones"] == value


@pytest.mark.parametrize("typed", ["1000", "-1", "2.5", "many"])
def test_what_no_abacus_of_three_rods_shows_is_refused(typed: str) -> None:
    fact = next(f for f in Abacus().facts(page_with()) if f.name == "value")
    assert fact.set is not None
    with pytest.raises(ValueError, match=r"\.$"):
        fact.set(typed)


@given(counts)
def test_exchanging_ten_for_one_keeps_the_value(given_counts: tuple[int, ...]) -> None:
    page = page_with(Abacus(counts=given_counts))
    run = {a.name: a for a in actions_for(page, page.things)}
    full = any(given_counts[k] == BEADS and given_counts[k - 1] < BEADS for k in range(1, len(given_counts)))
    assert ("exchange beads" in run) is full
    if full:
        after = run["exchange beads"].run(page, page.things).after.things[0]  # type: ignore[union-attr]
        assert isinstance(after, Abacus)
        assert after.worth() == Abacus(counts=given_counts).worth() and sum(after.counts) == sum(given_counts) - BEADS + 1


def test_one_more_carries_and_stops_at_the_end() -> None:
    page = page_with(Abacus(counts=(0, 9, 9)))
    run = {a.name: a for a in actions_for(page, page.things)}
    assert run["one bead more"].run(page, page.things).after.things[0].counts == (1, 0, 0)  # type: ignore[union-attr]
    last = page_with(Abacus(counts=(9, 9, 9)))
    with pytest.raises(ValueError, match="0 to 999"):
        run["one bead more"].run(last, last.things)


def test_a_bead_in_the_hand_counts_from_half_its_way() -> None:
    low = Abacus().drag_part("2:9", (0, 0), (0, -0.4 * GAP * BEAD))
    high = Abacus().drag_part("2:9", (0, 0), (0, -0.6 * GAP * BEAD))
    assert (low.worth(), high.worth()) == (0, 1)
    assert low.part_let_go("2:9") == Abacus() and high.sounds_since(Abacus()) == ()
    assert high.part_let_go("2:9").sounds_since(Abacus()) == ("click",)
