"""Derivatives, antiderivatives and inverses of graphs, checked by numbers; and equations that follow others on a page."""

from __future__ import annotations

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.actions.equations import derived as actions  # noqa: F401 — registers them
from larch.core.base.shape import Placement
from larch.core.figures.settle import settle
from larch.core.maths.expression import Node, Undefined, value_at
from larch.core.maths.expression.tree import Relation
from larch.core.maths.hand.derived import derived
from larch.core.maths.layout.reading import meaning
from larch.core.maths.plane.forms import NotThere
from larch.core.model.action import actions_for
from larch.core.model.page import Page
from larch.core.things.graphs.axes import axes_at
from larch.core.things.graphs.equation import Equation

FUNCTIONS = ["x^2 - 4x + 1", "3(x-2)^2 + 1", "sin(2x)", "4cos(x/2) - 1", "2^x", "e^(2x)", "1/(x-2)", "-3/(x+1)^2 + 2", "5",
             "sqrt(x+1)", "2x^3/5 - x", "0.5(2x+1)^3", "-x"]  # fmt: skip
MORE = ["x sin(x)", "ln(x)", "x/(x^2+1)", "tan(x)", "|x|"]
STEP = 1e-4


def side(node: Node) -> Node:
    assert isinstance(node, Relation)
    return node.right


def at(node: Node, x: float) -> float:
    try:
        value = value_at(node, x=x)
    except Undefined:
        assume(False)
    assert isinstance(value, int | float)
    return float(value)


@given(st.sampled_from(FUNCTIONS + MORE), st.floats(-4, 4))
def test_a_derivative_is_the_slope(source: str, x: float) -> None:
    node = meaning(source)
    assume(abs(x) > 0.1 and abs(x - 2) > 0.2 and abs(abs(x) - 1.5708) > 0.2 and abs(x + 1) > 0.2)
    slope = (at(node, x + STEP) - at(node, x - STEP)) / (2 * STEP)
    if source == "5":
        return
    assert at(side(derived(meaning(f"y = {source}"), "derivative", {})), x) == pytest.approx(slope, rel=1e-4, abs=1e-4)


@given(st.sampled_from(FUNCTIONS), st.floats(-4, 4))
def test_the_slope_of_an_antiderivative_is_the_function(source: str, x: float) -> None:
    assume(abs(x - 2) > 0.2 and abs(x + 1) > 0.2)
    node = side(derived(meaning(f"y = {source}"), "integral", {}))
    slope = (at(node, x + STEP) - at(node, x - STEP)) / (2 * STEP)
    assert slope == pytest.approx(at(meaning(source), x), rel=1e-4, abs=1e-4)


@given(st.sampled_from(FUNCTIONS + MORE), st.floats(-3, 3))
def test_an_inverse_has_its_coordinates_exchanged(source: str, t: float) -> None:
    node = derived(meaning(f"f(x) = {source}"), "inverse", {})
    assert isinstance(node, Relation)
    value = at(meaning(source), t)
    assert float(value_at(node.right, y=t)) == pytest.approx(value)  # type: ignore[arg-type]


@pytest.mark.parametrize(("source", "kind"), [
    ("y = x sin(x)", "integral"), ("x^2 + y^2 = 4", "derivative"), ("y = floor(x) x!", "derivative"), ("y > x", "inverse"),
])  # fmt: skip
def test_what_there_is_none_of_is_said(source: str, kind: str) -> None:
    with pytest.raises(NotThere):
        derived(meaning(source), kind, {})


def page_with(source: str) -> Page:
    return settle(Page(id="p1").put(axes_at(0, 0), Equation(source=source, axes="t1", placement=Placement(600, 0))))


def draw(page: Page, id: str, kind: str) -> Page:
    things = page.some([id])
    action = next(a for a in actions_for(page, things) if a.name == f"draw {kind}")
    edit = action.edit(page, things, 0.0)
    assert isinstance(edit.after, Page)
    return settle(edit.after, page)


def test_what_is_drawn_besides_follows_also_over_two_steps() -> None:
    page = draw(page_with("y = x^3"), "t2", "derivative")
    page = draw(page, "t3", "derivative")
    assert [t.source for t in page.things[1:]] == ["y = x^3", "y=3x^{2}", "y = 6x"]  # type: ignore[attr-defined]
    assert len({t.hue for t in page.things[1:]}) == 3
    changed = settle(page.changing(["t2"], lambda t: t.replace(source="y = x^4")), page)
    assert meaning(changed.things[3].source) == meaning("y = 12x^2")  # type: ignore[attr-defined]


def test_typed_over_it_follows_no_longer() -> None:
    page = draw(page_with("y = x^2"), "t2", "derivative")
    follower = page.things[-1]
    assert isinstance(follower, Equation) and follower.follows(page)
    own = follower.typed("y = 5x")
    assert (own.base, own.derived) == ("", "")
    with pytest.raises(NotThere, match="follows"):
        follower.steered(page, "", (0, 0), (10, 10), False)


def test_a_follower_of_itself_stays_as_it_is() -> None:
    page = Page(id="p1").put(Equation(source="y = x^2", base="t1", derived="derivative"))
    settled = settle(page)
    assert settled.things[0].source == "y = x^2"  # type: ignore[attr-defined]
