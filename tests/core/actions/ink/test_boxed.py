"""An outline among boxes of words is one of them."""

from __future__ import annotations

from typing import Any

import pytest

from larch.core.actions.ink.boxed import boxed, is_box, is_like_the_others
from larch.core.base.shape import Placement
from larch.core.model.page import Page
from larch.core.things.ink.ink import ink_from
from larch.core.things.organisers.box import WordBox

PAGE = Page(id="p1")
INK = ink_from([(0.0, 0.0, 0.7, 0.0), (50.0, 50.0, 0.7, 0.0)])


def rectangle(x: float, y: float, wide: float, high: float) -> dict[str, Any]:
    return {"kind": "rectangle", "vertices": [(x, y), (x + wide, y), (x + wide, y + high), (x, y + high)]}


def test_only_where_there_are_boxes_and_only_what_could_be_one() -> None:
    among = PAGE.put(WordBox(text="boats"))
    assert not is_box(PAGE, rectangle(0, 300, 200, 90)) and is_box(among, rectangle(0, 300, 200, 90))
    assert not is_box(among, {"kind": "star", "vertices": [(0, 0)] * 5})
    assert is_like_the_others(among, rectangle(0, 300, 200, 90))
    assert not is_like_the_others(among, rectangle(0, 300, 900, 500))


@pytest.mark.parametrize(("wide", "width"), [(210.0, 220.0), (420.0, 420.0)])
def test_it_is_dressed_as_the_nearest_and_as_large_where_it_is_nearly_so(wide: float, width: float) -> None:
    near = WordBox(text="boats", hue="moss", shape="box", filled=False, placement=Placement(0, 150))
    page = PAGE.put(WordBox(text="far", hue="clay", placement=Placement(2000, 0)), near, INK)
    edit = boxed(page, [page.things[-1]], rectangle(0, 300, wide, 90))  # type: ignore[list-item]
    made = edit.after.things[-1]  # type: ignore[union-attr]
    assert isinstance(made, WordBox) and (made.hue, made.shape, made.filled, made.text) == ("moss", "box", False, "")
    assert made.width == width and made.placement.x + made.width / 2 == pytest.approx(wide / 2)
    assert made.placement.y + made.height / 2 == pytest.approx(345)


def test_an_ellipse_is_an_oval_box_whichever_way_its_radii_lie() -> None:
    page = PAGE.put(WordBox(text="boats"), INK)
    for radii, angle in (([130.0, 60.0], 0.0), ([60.0, 130.0], 90.0)):
        reading = {"kind": "ellipse", "center": [300, 300], "radii": radii, "angle": angle}
        made = boxed(page, [page.things[-1]], reading).after.things[-1]  # type: ignore[union-attr,list-item]
        assert isinstance(made, WordBox) and made.shape == "oval" and made.width > made.height
