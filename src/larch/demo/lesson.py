"""River Lantern Night: the demo lesson, made by calling the core. A page is made when it is first shown."""

from __future__ import annotations

import importlib
from functools import partial

from larch.core.base.words import _
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.model.page_list import PageList, Slot

PAGES = (
    "night.directions", "night.counting", "night.dice_row", "night.panel_triangle", "night.panel_four", "night.candle",
    "night.worked_steps", "night.row_of_lanterns", "geometry.folding", "geometry.sharing", "geometry.bridge",
    "geometry.meeting_place", "geometry.instruments", "geometry.tiles", "stall.stall", "stall.web", "boathouse.boathouse",
    "equipment.boats", "equipment.rafts", "equipment.shares", "equipment.chances", "equipment.times", "equipment.patterns",
    "algebra.lanterns", "algebra.tide", "algebra.candles", "algebra.arch", "algebra.loads",
    "written.by_hand",
    "written.in_place",
)  # fmt: skip


def demo_lesson() -> Lesson:
    """The lesson as it is opened by `larch demo`, every page set out."""
    ids = [f"p{number}" for number in range(1, len(PAGES) + 1)]
    slots = [Slot(id, partial(_made, id, where)) for id, where in zip(ids, PAGES, strict=True)]
    return Lesson(title=_("River Lantern Night"), pages=PageList(slots), next=len(PAGES) + 1)


def _made(id: str, where: str) -> Page:
    from larch.core.actions.arrange.arrange import set_out
    from larch.core.figures.settle import settle

    module, _dot, name = where.partition(".")
    page: Page = getattr(importlib.import_module(f"larch.demo.{module}"), name)()
    remembered = set_out(settle(page.replace(id=id))).after
    assert isinstance(remembered, Page)
    return remembered
