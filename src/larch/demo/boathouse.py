"""The boathouse: an abacus that counts the lanterns, and a clock that says when they float."""

from __future__ import annotations

from larch.core.base.shape import Placement
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.things.numbers.abacus import Abacus
from larch.core.things.time.clock import Clock
from larch.demo.parts import fresh_page, lettering


def boathouse() -> Page:
    """Beads to slide and hands to turn: both stand still, only their parts move."""
    page = fresh_page(_("At the boathouse"), squared=True)
    page = page.put(
        lettering(_("Slide the beads: how many lanterns lie ready?"), 56, 84),
        lettering(_("Turn the hands: when do they float?"), 56, 136, hue="slate"),
    )
    return page.put(
        Abacus(counts=(2, 4, 7), shown=("value",), placement=Placement(120, 196), locked=True),
        Clock(minutes=18 * 60 + 30, shown=("time",), placement=Placement(768, 214), locked=True),
    )
