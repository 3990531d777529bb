"""Where what hangs over the page lies."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from larch.board.camera import Camera, shown_beside
from larch.board.free_place import freest, overlap
from larch.core.base.shape import Box

ROOM = Box(0, 0, 400, 300)
numbers = st.integers(0, 350)
boxes = st.builds(lambda x, y, w, h: Box(x, y, x + w + 1, y + h + 1), numbers, numbers, numbers, numbers)


@given(boxes, boxes)
def test_an_overlap_is_the_same_from_both_sides_and_never_more_than_either(a: Box, b: Box) -> None:
    assert overlap(a, b) == overlap(b, a)
    assert 0 <= overlap(a, b) <= min(a.width * a.height, b.width * b.height)
    assert overlap(a, a) == a.width * a.height


@given(st.lists(boxes, min_size=1, max_size=6), st.lists(boxes, max_size=5))
def test_no_other_place_in_the_room_covers_less_unless_the_first_was_free(places: list[Box], taken: list[Box]) -> None:
    found = freest(places, [(box, 1.0) for box in taken], ROOM)
    inside = [place for place in places if ROOM.covers(place)]
    assert (found is None) == (not inside)
    if found is None:
        return

    def covers(place: Box) -> float:
        return sum(overlap(place, box) for box in taken)

    free = 0.02 * found.width * found.height
    assert covers(found) <= free or covers(found) == min(map(covers, inside))


def test_what_matters_more_is_covered_last() -> None:
    left, right = Box(0, 0, 100, 50), Box(200, 0, 300, 50)
    assert freest([left, right], [(left, 5.0), (right, 1.0)], ROOM) == right


@given(boxes)
def test_a_view_moves_only_as_far_as_it_must_to_show_a_box(box: Box) -> None:
    before = Camera(1.0, 0.0, 0.0)
    after = shown_beside(before, box, ROOM)
    if box.width > ROOM.width or box.height > ROOM.height:
        assert after is before
        return
    assert ROOM.grown(1).covers(after.box_to_view(box))
    if ROOM.covers(box):
        assert after is before
