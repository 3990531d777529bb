"""One catalogue of samples and one set of hypothesis strategies for all tests."""

from __future__ import annotations

from hypothesis import strategies as st

from larch.core.page import Page
from larch.core.shape import Placement
from larch.core.thing import Thing, Unknown, kinds, shelf_items
from larch.core.things.ink import Ink, ink_from

finite = st.floats(-1e4, 1e4, allow_nan=False)
points = st.tuples(finite, finite)
placements = st.builds(
    Placement, x=finite, y=finite, turn=st.floats(-720, 720), scale=st.floats(0.01, 50)
)  # fmt: skip


def stroke(y: float = 100.0, hue: str = "needle", start: float = 50.0) -> Ink:
    """A wavy stroke across the page."""
    return ink_from([(start + 6 * i, y + (i % 5), 0.5, 8.0 * i) for i in range(40)], 5.0, hue)


def sample_things() -> list[Thing]:
    """At least one of every kind that can be put on a page."""
    things: list[Thing] = [item.make().moved(40 * i, 30 * i) for i, item in enumerate(shelf_items())]
    things.append(stroke())
    missing = set(kinds().values()) - {type(thing) for thing in things} - {Unknown}
    assert not missing, f"kinds without a sample: {missing}"
    return things


def page_with(*things: Thing, **fields: object) -> Page:
    return Page(id="p1", seed=7, **fields).put(*things)  # type: ignore[arg-type]
