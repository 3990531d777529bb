"""An outline drawn among boxes of words: it is one of them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from larch.core.actions.ink.readings import exchanged
from larch.core.base.shape import Box, Placement, box_of
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.ink.ink import Ink
from larch.core.things.organisers.box import WordBox, like

FORMS = {"square": "round", "rectangle": "round", "ellipse": "oval", "circle": "oval", "rhombus": "diamond"}
ALIKE = 2.2  # times as wide or as high as a box that is there, at most
LEAST = 40.0  # page units


def boxes_on(page: Page) -> list[WordBox]:
    return [thing for thing in page.things if isinstance(thing, WordBox) and not thing.hidden]


def is_box(page: Page, reading: Mapping[str, Any]) -> bool:
    """Whether it could be a box, as there are others on the page."""
    return reading["kind"] in FORMS and bool(boxes_on(page))


def is_like_the_others(page: Page, reading: Mapping[str, Any]) -> bool:
    """Whether it is about as large as one of them."""
    own = _outline(reading)
    return any(
        max(own.width, box.width) <= ALIKE * min(own.width, box.width)
        and max(own.height, box.height) <= ALIKE * min(own.height, box.height)
        for box in (thing.box() for thing in boxes_on(page))
    )


def boxed(page: Page, inks: Sequence[Ink], reading: Mapping[str, Any]) -> Edit:
    """A box of words in the place of the outline, dressed as the nearest one that is there; exactly as large as that where
    it is nearly so."""
    own = _outline(reading)
    nearest = min(boxes_on(page), key=lambda thing: _apart(thing.box(), own))
    model = like(nearest)
    scale = nearest.placement.scale
    form = (
        nearest.shape if nearest.shape in ("box", "round") and FORMS[reading["kind"]] == "round" else FORMS[reading["kind"]]
    )
    size = (_nearly(own.width / scale, model.width), _nearly(own.height / scale, model.height))
    x, y = own.centre
    at = Placement(x - size[0] * scale / 2, y - size[1] * scale / 2, 0.0, scale)
    made = model.replace(shape=form, width=size[0], height=size[1], placement=at)
    return exchanged(page, inks, [made], _("True up"), _("Taken for: {shape}").format(shape=_("box")))


def _nearly(drawn: float, there: float) -> float:
    return there if abs(drawn - there) < 0.25 * there else max(drawn, LEAST)


def _outline(reading: Mapping[str, Any]) -> Box:
    if reading["kind"] in ("circle", "ellipse"):
        (x, y), (a, b) = reading["center"], reading["radii"]
        across, down = (a, b) if abs((reading["angle"] + 45) % 180 - 45) <= 45 else (b, a)
        return Box(x - across, y - down, x + across, y + down)
    return box_of([(place[0], place[1]) for place in reading["vertices"]])


def _apart(one: Box, other: Box) -> float:
    (ax, ay), (bx, by) = one.centre, other.centre
    return abs(ax - bx) + abs(ay - by)
