"""Pages of figures that no one would write: every one is read, settles, states facts and can be told in steps."""

from __future__ import annotations

import json

from hypothesis import given, settings
from hypothesis import strategies as st

from larch.core.figures.rules import RULES
from larch.core.figures.settle import carried, settle
from larch.core.figures.steps import steps
from larch.core.files.codec import page_from_json, page_to_json
from larch.core.model.action import actions_for
from larch.core.model.page import Page

KINDS = ("point", "line", "circle", "polygon", "polyline", "angle", "ellipse", "locus")
refs = st.builds(
    lambda k, sign, n: f"t{k}{sign}{n if sign else ''}",
    st.integers(0, 9),
    st.sampled_from(["", ":", "/"]),
    st.integers(0, 99),
)
strange = st.sampled_from(["", ":", "t1:x", "/", "t2:-1", "nothing"])
numbers = st.one_of(st.floats(-1e9, 1e9, allow_nan=False), st.sampled_from([0.0, 1e300, -1e300, 1e-300, 7.0]))
figures = st.fixed_dictionaries(
    {
        "kind": st.sampled_from(KINDS),
        "rule": st.sampled_from([*RULES, "plotted", "locus", "from the future", ""]),
        "of": st.lists(st.one_of(refs, strange), max_size=5),
        "values": st.lists(numbers, max_size=3),
        "placement": st.fixed_dictionaries({"x": st.floats(-1e6, 1e6), "y": st.floats(-1e6, 1e6)}),
        "shown": st.just(["sides", "angles", "area", "radius", "length"]),
    }
)


@settings(max_examples=120)
@given(st.lists(figures, max_size=9))
def test_any_page_of_figures_is_borne(listed: list[dict]) -> None:
    things = [{**thing, "id": f"t{i + 1}"} for i, thing in enumerate(listed)]
    page = page_from_json(json.dumps({"id": "p1", "things": things}).encode())
    assert len(page.things) == len(things)
    assert settle(page) is page
    for thing in page.things:
        assert all(fact.label for fact in thing.facts(page))
        assert thing.label(page)
        box = thing.box()
        assert box.x0 <= box.x1
        actions_for(page, [thing])
    assert all(step.words for step in steps(page))
    if page.things:
        dragged = page.with_things(carried(page, [page.things[-1].id], 13.0, -7.0))
        assert settle(dragged, page) is dragged
    again = page_from_json(page_to_json(page))
    assert [thing.id for thing in again.things] == [thing.id for thing in page.things]


def test_a_rule_without_anything_is_only_not_there() -> None:
    page = page_from_json(json.dumps({"id": "p", "things": [{"kind": "circle", "id": "t1", "rule": "circle"}]}).encode())
    assert isinstance(page, Page)
    assert page.things[0].why
