"""Laying frost over things."""

from __future__ import annotations

from larch.core.base.shape import Placement, union
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, register
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.pictures.frost import MARGIN, Frost


def frost_over(page: Page, things: Things) -> Edit:
    """Lays frost over a selection, on top of everything."""
    box = union(thing.box() for thing in things).grown(MARGIN)
    frost = Frost(width=max(24.0, box.width), height=max(24.0, box.height), placement=Placement(box.x0, box.y0))
    return Edit(_("Frost"), page, page.put(frost), select=tuple(page.put_ids(1)))


FROSTING = (
    Action("frost over", lambda p, ts: _("frost over"), "snowflake", frost_over,
           lambda p, ts: bool(ts) and not any(isinstance(t, Frost) for t in ts), rank=69,
           words=N_("hide cover answer reveal curtain")),
)  # fmt: skip
register(FROSTING, at=50)
