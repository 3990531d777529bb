"""Boxes."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from larch.core.base.shape import Box, box_of, union
from tests.samples import points


@given(st.lists(points, min_size=1, max_size=8))
def test_boxes_hold_what_they_were_made_of(spots: list[tuple[float, float]]) -> None:
    box = box_of(spots)
    assert all(box.holds(*spot) for spot in spots)
    assert union([box, box]) == box
    assert box.grown(1).covers(box)
    assert box.meets(box)


def test_no_box_of_nothing_is_infinite() -> None:
    assert box_of([]) == Box(0, 0, 0, 0)
    assert union([]) == Box(0, 0, 0, 0)
