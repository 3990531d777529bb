"""What can be constructed from the selected figures, as actions: the same rules as the tool has, without pointing."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from larch.core.actions.geometry.picks import Pick, built
from larch.core.base.shape import Point
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure, place
from larch.core.figures.rules import RULES, fits
from larch.core.figures.settle import set_free
from larch.core.maths.plane.forms import NotThere
from larch.core.maths.plane.meet import meetings
from larch.core.model.action import Action, Fold, Things, register
from larch.core.model.capabilities import Constructible
from larch.core.model.edit import Edit
from larch.core.model.page import Page

MOST_SELECTED = 12
FIRST = ("segment", "midpoint", "mirror", "meet", "perpendicular", "polygon")  # likely ones, before copying and locking


def matched(page: Page, things: Things, takes: Sequence[str]) -> list[Figure] | None:
    """The selected figures in the order in which a rule takes them, or None if they don't fit it."""
    figures = [thing for thing in things if isinstance(thing, Figure)]
    if len(figures) != len(things) or not figures:
        return None
    if takes[0] == "point…":
        forms = [figure.form_on(page) for figure in figures]
        return figures if len(figures) >= 3 and all(fits("point", form) for form in forms) else None
    if len(figures) != len(takes):
        return None
    return _assigned(page, figures, takes)


def _assigned(page: Page, figures: Sequence[Figure], takes: Sequence[str]) -> list[Figure] | None:
    if not takes:
        return []
    for i, figure in enumerate(figures):
        form = figure.form_on(page)
        if form is not None and fits(takes[0], form):
            rest = _assigned(page, [*figures[:i], *figures[i + 1 :]], takes[1:])
            if rest is not None:
                return [figure, *rest]
    return None


def _picks(page: Page, figures: Sequence[Figure]) -> list[Pick]:
    return [Pick(figure.id, _somewhere(page, figure)) for figure in figures]


def _somewhere(page: Page, figure: Figure) -> Point:
    form = figure.form_on(page)
    assert form is not None
    at = place(form, 0)
    return (at.x, at.y)


def _run(name: str) -> Callable[[Page, Things], Edit]:
    def run(page: Page, things: Things) -> Edit:
        figures = matched(page, things, RULES[name].takes)
        label = _(RULES[name].label).capitalize()
        if figures is None:
            return Edit(label, page, page)
        picks = _picks(page, figures)
        after = page
        ids: list[str] = []
        for number in range(_results(page, name, figures)):
            values = (float(number),) if name in ("meet", "tangent") else ()
            made = built(after, name, picks, values)
            after = made.page
            ids += made.ids
        return Edit(label, page, after, select=tuple(ids))

    return run


def _results(page: Page, name: str, figures: Sequence[Figure]) -> int:
    """How many things come of it: two circles meet twice, two tangents pass through a point."""
    forms = [form for figure in figures if (form := figure.form_on(page)) is not None]
    if name == "meet":
        try:
            return min(12, len(meetings(forms[0], forms[1])))
        except NotThere:
            return 1
    if name == "tangent":
        from larch.core.maths.plane.construct import tangents

        try:
            return len(tangents(forms[0], forms[1]))  # type: ignore[arg-type]
        except NotThere:
            return 1
    return 1


def _fits(name: str) -> Callable[[Page, Things], bool]:
    takes = RULES[name].takes
    return lambda page, things: len(things) <= MOST_SELECTED and matched(page, things, takes) is not None


def _label(name: str) -> Callable[[Page, Things], str]:
    return lambda page, things: _(RULES[name].label)


def _follows(page: Page, things: Things) -> bool:
    return bool(things) and any(isinstance(thing, Figure) and thing.rule for thing in things)


CONSTRUCT = Fold("construct", N_("construct"), "drafting-compass")
CONSTRUCTING = (
    *(
        Action(f"construct {name}", _label(name), rule.icon, _run(name), _fits(name),
               rank=56 if name in FIRST and len(rule.takes) > 1 else 76, fold=CONSTRUCT, words=rule.search)
        for name, rule in RULES.items()
        if name != "on"
    ),
    Action("follow no more", lambda p, ts: _("set it free from its construction"), "unlink", set_free, _follows,
           rank=74, words=N_("construction independent unlink")),
)  # fmt: skip
register(CONSTRUCTING, Constructible, at=10)
