"""Hiding the values that stand on equipment, and showing them again: what a class is to find out is not to be read there."""

from __future__ import annotations

from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, ids_of, only, register
from larch.core.model.capabilities import QUIET, HasLabels
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing


def hide_labels(page: Page, things: Things) -> Edit:
    """Hides the values on all, or shows them where all are hidden."""
    hide = not all(QUIET in thing.shown for thing in things)

    def changed(thing: Thing) -> Thing:
        rest = tuple(name for name in thing.shown if name != QUIET)
        after: Thing = thing.replace(shown=(*rest, QUIET) if hide else rest)
        return after

    label = _("Hide the values") if hide else _("Show the values")
    return Edit(label, page, page.changing(ids_of(things), changed))


register([
    Action("hide values", lambda p, ts: _("show the values") if all(QUIET in t.shown for t in ts) else _("hide the values"),
           "eye-off", hide_labels, only(HasLabels), rank=54, words=N_("label number cover answer")),
], HasLabels, at=40)  # fmt: skip
