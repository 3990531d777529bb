"""Words that tell facts and compute with them."""

from __future__ import annotations

import pytest

from larch.core.base.shape import Placement
from larch.core.figures.settle import followers, settle
from larch.core.files.codec import page_from_json, page_to_json
from larch.core.model.page import Page
from larch.core.model.scale import Scale
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.point import Point
from larch.core.things.geometry.polygon import Polygon, polygon_on
from larch.core.things.words.note import Note
from larch.core.things.words.text import Text


def page_with_text(text: str, **fields: object) -> Page:
    page = Page(id="p", **fields)  # type: ignore[arg-type]
    return settle(
        page.put(polygon_on(page, [(0.0, 320.0), (320.0, 320.0), (160.0, 160.0)]), Circle(radius=64), Text(text=text))
    )


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ("{AB}", "10"), ("{angle C}", "90°"), ("{∠C}", "90°"), ("{ABC.area}", "25"), ("{AB * 2 + 1}", "21"), ("{r}", "2"),
        ("½ · {AB} · {h} = {=}", "10 5 25"), ("{AB}² = {=}", "10 100"), ("{diameter} · π = {=}", "4 12.57"),
        ("{AB} + {BC} + {CA} = {=}", "10 7.1 7.1 24.14"), ("{lantern}", "?"), ("{1/0}", "?"), ("{}", "?"), ("{=}", "?"),
        ("{AB} = {=}", "10 10"), ("{circumference}", "12.6"),
    ],
)  # fmt: skip
def test_braces_tell(text: str, told: str) -> None:
    assert " ".join(page_with_text(text).things[-1].told) == told


def test_points_have_distances_by_their_letters_and_exact_values_are_told_exactly() -> None:
    points = Point(name="P", placement=Placement(0, 0)), Point(name="Q", placement=Placement(32, 32))
    page = settle(Page(id="p", scale=Scale(exact=True)).put(*points, Note(text="{PQ} {QP} {PQ^2}")))
    assert page.things[-1].told == ("√2", "√2", "2")


def test_they_follow_a_drag_and_are_not_written() -> None:
    page = page_with_text("{AB}")
    dragged = followers(page, {"t1": page.thing("t1").with_handle("1", 352.0, 160.0)})
    assert dragged["t3"].told == ("11",)
    assert b"told" not in page_to_json(page)
    assert page_from_json(page_to_json(page)) == page


def test_hostile_braces_are_only_unknown() -> None:
    for text in ("{" + "(" * 119 + "}", "{9^9^9^9}", "{__import__}", "{AB" * 50, "{" * 500, "{AB}" * 300):
        page = page_with_text(text)
        assert all(isinstance(told, str) for told in page.things[-1].told)


def test_plain_words_cost_nothing_and_stay() -> None:
    page = settle(Page(id="p").put(Text(text="no braces"), Polygon()))
    assert page.things[0].told == ()
