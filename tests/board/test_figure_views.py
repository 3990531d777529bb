"""Whatever figures a page holds, it is painted, and where they are not there they are faint with the reason."""

from __future__ import annotations

import json

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from PyQt6.QtGui import QImage, QPainter

from larch.board.paint import paint_page
from larch.board.views.measure_labels import laid_out
from larch.core.base.shape import Box, Placement
from larch.core.figures.settle import carried, settle
from larch.core.files.codec import page_from_json
from larch.core.model.page import Page
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.point import Point
from tests.board.test_surface import differing
from tests.core.figures.test_fuzz import figures


def painted(page: Page) -> QImage:
    image = QImage(640, 480, QImage.Format.Format_RGB32)
    painter = QPainter(image)
    paint_page(painter, page, Box(0, 0, 640, 480))
    painter.end()
    return image


@settings(max_examples=60, suppress_health_check=list(HealthCheck))
@given(listed=st.lists(figures, max_size=8))
def test_any_page_of_figures_is_painted(qapp: object, listed: list[dict]) -> None:
    things = [{**thing, "id": f"t{i + 1}"} for i, thing in enumerate(listed)]
    page = page_from_json(json.dumps({"id": "p1", "things": things}).encode())
    assert painted(page).width() == 640
    assert set(laid_out(page)) <= {thing.id for thing in page.things}


def test_what_is_not_there_is_faint_and_says_why(qapp: object) -> None:
    ends = [Point(placement=Placement(x, 240)) for x in (200, 300)]
    circles = [Circle(rule="circle with radius", of=(id,), values=(80.0,)) for id in ("t1", "t2")]
    page = settle(Page(id="p").put(*ends, *circles, Point(name="P", rule="meet", of=("t3", "t4"), values=(0.0,))))
    apart = page.with_things(carried(page, ["t2"], 200, 0))
    assert apart.thing("t5").why
    without = apart.replace(things=apart.things[:4])
    seen = differing(painted(apart), painted(without))
    assert seen > 20  # the faint point and the sentence
    never = settle(Page(id="p").put(Point(rule="midpoint", of=("t8", "t9"))))
    assert differing(painted(never), painted(Page(id="p"))) == 0  # it was never anywhere


def test_fractions_stay_in_the_middle_of_their_parts() -> None:
    from larch.board.views.measure_labels import laid_out
    from larch.core.model.action import actions_for
    from larch.core.things.geometry.polygon import Polygon

    sheet = Polygon(vertices=((0.0, 0.0), (360.0, 0.0), (360.0, 216.0), (0.0, 216.0)), placement=Placement(500, 180))
    page = Page(id="p").put(sheet)
    action = next(a for a in actions_for(page, page.things) if a.name.startswith("share") and "12" in a.name)
    page = action.run(page, page.things).after  # type: ignore[assignment]
    parts = page.things
    assert len(parts) == 12
    page = page.with_things({thing.id: thing.replace(shown=("share",)) for thing in parts})
    for id, laid in laid_out(page).items():
        thing = page.thing(id)
        assert thing is not None
        assert [one.at for one in laid] == [pytest.approx(thing.box().centre)]
