"""Parity: every kind of thing keeps every promise. New kinds are covered by being found."""

from __future__ import annotations

import math

import msgspec
import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.shape import Box, Placement, box_of
from larch.core.files.codec import thing_from_json, thing_to_json
from larch.core.model.action import actions_for
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, Told
from larch.core.model.kinds import kinds, shelf_items
from larch.core.model.page import Page
from larch.core.model.thing import Thing, Unknown
from tests.samples import page_with, placements, sample_things

SAMPLES = sample_things()
EACH = pytest.mark.parametrize("thing", SAMPLES, ids=lambda t: f"{t.kind()}-{t.label(Page(id='p'))[:12]}")


def test_kinds_are_found_by_themselves() -> None:
    assert {"ink", "text", "polygon", "block", "die", "equation", "axes"} <= kinds().keys()


@EACH
def test_survives_the_file(thing: Thing) -> None:
    moved = thing.replace(id="t9", locked=True, supply=True, groups=("g1", "g2"), name="Lantern", shown=("area",))
    assert thing_from_json(thing_to_json(moved)) == moved


@EACH
def test_facts_read(thing: Thing) -> None:
    page = page_with(thing)
    facts = list(page.things[0].facts(page))
    assert len({fact.name for fact in facts}) == len(facts) > 0
    for fact in facts:
        assert fact.text or fact.value == ""
        assert fact.label
        assert msgspec.json.encode(fact.plain())


def outcome(fact: Fact, typed: str, page: Page) -> list[Fact]:
    """The facts after one was typed, whatever its setter returns."""
    changed = fact.set(typed) if fact.set is not None else None
    changed = changed.result if isinstance(changed, Told) else changed
    if isinstance(changed, Page):
        return list(changed.things[0].facts(changed))
    assert isinstance(changed, Thing)
    return list(changed.facts(page))


@EACH
def test_a_settable_fact_keeps_its_own_text(thing: Thing) -> None:
    page = page_with(thing)
    for fact in page.things[0].facts(page):
        for option, _label in fact.options:
            assert option in [f.value for f in outcome(fact, option, page) if f.name == fact.name]
        if fact.set is not None and not fact.options:
            again = {f.name: f for f in outcome(fact, fact.text, page)}
            value = again[fact.name].value
            assert value == fact.value or value == pytest.approx(fact.value, rel=0.02, abs=0.06)


@EACH
def test_nonsense_in_a_fact_is_one_sentence(thing: Thing) -> None:
    page = page_with(thing)
    for fact in page.things[0].facts(page):
        if fact.set is not None and not isinstance(fact.value, str):
            for typed in ("", "lantern", "1/0", "-", "9" * 400, "x = 2"):
                with pytest.raises(ValueError, match=r".\.$"):
                    fact.set(typed)


@EACH
def test_every_action_makes_an_edit_that_undoes(thing: Thing) -> None:
    page = page_with(thing, thing.moved(300, 0))
    for chosen in (page.things[:1], page.things):
        for action in actions_for(page, chosen):
            try:
                edit = action.run(page, chosen)
            except ValueError as refusal:
                assert str(refusal).endswith(".")  # one sentence that says why not
                continue
            assert isinstance(edit, Edit)
            assert edit.before is page
            assert isinstance(edit.after, Page)
            assert action.label(page, chosen)
            ids = [t.id for t in edit.after.things]
            assert len(set(ids)) == len(ids)


@EACH
def test_has_a_name_and_a_box(thing: Thing) -> None:
    page = page_with(thing)
    assert thing.label(page).strip()
    assert thing.title().strip()
    box = thing.box()
    assert all(map(math.isfinite, box))
    assert box.width >= 0


@EACH
def test_handles_can_be_dragged_anywhere_finite(thing: Thing) -> None:
    for handle in thing.handles():
        for x, y in ((0.0, 0.0), (-500.0, 3.0), (1e6, 1e6)):
            moved = thing.with_handle(handle.name, x, y)
            assert all(map(math.isfinite, moved.box()))


@EACH
@given(placement=placements)
def test_any_placement_can_be_measured(thing: Thing, placement: Placement) -> None:
    placed = thing.replace(placement=placement)
    page = page_with(placed)
    assert all(map(math.isfinite, placed.box()))
    assert list(page.things[0].facts(page))


@pytest.mark.parametrize("kind", [k for k in kinds().values() if k is not Unknown], ids=lambda k: k.__name__)
@pytest.mark.parametrize("value", ["1e999", "NaN", "null", '"text"', "-1", "1e300", "[]", "{}"])
def test_a_bad_value_in_a_file_never_gets_into_a_thing(kind: type[Thing], value: str) -> None:
    """Whatever stands in a field, the result is a sound thing or a kept Unknown."""
    for field in kind.__struct_fields__:
        raw = f'{{"kind":"{kind.__struct_config__.tag}","id":"t1","{field}":{value}}}'.encode()
        try:
            thing = thing_from_json(raw)
        except ValueError:
            continue
        assert all(map(math.isfinite, thing.box()))
        page = Page(id="p", things=(thing,))
        assert isinstance([f.text for f in thing.facts(page)], list)


@pytest.mark.parametrize("kind", list(kinds().values()), ids=lambda kind: kind.__name__)
def test_no_kind_gives_a_field_of_all_things_another_meaning(kind: type[Thing]) -> None:
    """What is done with anything sets these fields: a copy knows what it is a copy of, and is else the same."""
    from larch.core.figures.figure import Figure

    shared = set(Thing.__struct_fields__) - {"hue", "shown", "locked"}  # other beginnings, the same meaning
    own = {
        name
        for base in kind.__mro__
        if base not in (Thing, Figure, object)
        for name in vars(base).get("__annotations__", {})
    }
    assert not own & shared


def test_a_copy_of_anything_says_what_the_original_says() -> None:
    from larch.core.actions.arrange.arrange import copies

    page = page_with(*sample_things())
    for thing in page.things:
        (copy,) = copies(page, [thing], 5.0, 5.0)
        assert copy.copy_of == thing.id
        changed = {name for name in thing.__struct_fields__ if getattr(copy, name) != getattr(thing, name)}
        assert changed <= {
            "id",
            "placement",
            "groups",
            "copy_of",
            "locked",
            "limit",
            "name",
            "letters",
            "rule",
            "of",
            "values",
            "why",
        }


def test_the_shelf_knows_where_everything_lies() -> None:
    names = [item.name for item in shelf_items()]
    assert len(set(names)) == len(names)
    for item in shelf_items():
        assert item.tray and item.label and item.words


@given(placements, st.floats(-1e4, 1e4), st.floats(-1e4, 1e4))
def test_placement_goes_there_and_back(placement: Placement, x: float, y: float) -> None:
    there = placement.to_page(x, y)
    assert placement.to_local(*there) == pytest.approx((x, y), rel=1e-6, abs=1e-3)


@given(placements, st.floats(-360, 360), st.floats(0.1, 10))
def test_turning_and_enlarging_keep_the_centre(placement: Placement, turn: float, factor: float) -> None:
    """Law: the centre of the motion stays where it is."""
    centre = placement.to_page(3.0, 4.0)
    if placement.scale * factor > 1e6:
        return
    for moved in (placement.turned(turn, centre), placement.enlarged(factor, centre)):
        assert moved.to_page(3.0, 4.0) == pytest.approx(centre, rel=1e-9, abs=1e-6)


@given(placements)
def test_a_box_on_the_page_holds_its_corners(placement: Placement) -> None:
    local = Box(-3, 2, 50, 40)
    outer = placement.box_on_page(local)
    exact = box_of(placement.to_page(*corner) for corner in local.corners())
    assert outer == pytest.approx(exact)


@pytest.mark.parametrize("bad", [{"x": math.inf}, {"y": math.nan}, {"scale": 0.0}, {"scale": -1.0}, {"turn": math.nan}])
def test_a_placement_off_every_page_is_refused(bad: dict[str, float]) -> None:
    with pytest.raises(ValueError, match="must"):
        Placement(**bad)


def test_a_fact_prints_with_stable_keys() -> None:
    assert Fact("area", 12.0, "cm²", "12 cm²").plain() == {"name": "area", "value": 12.0, "unit": "cm²", "text": "12 cm²"}
