"""Graphs that are drawn besides that of an equation, and follow it: its derivative, an antiderivative, its inverse."""

from __future__ import annotations

from larch.core.actions.equations.plotting import curve_hue
from larch.core.base.words import N_, _
from larch.core.maths.plane.forms import NotThere
from larch.core.model.action import Action, Fold, Things, only, register
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.following import followed_source

BESIDES = Fold("besides", N_("draw besides"), "git-commit-horizontal")
LABELS = {"derivative": N_("its derivative"), "integral": N_("an antiderivative"), "inverse": N_("its inverse")}
SIGNS = {"derivative": "slash", "integral": "waves", "inverse": "flip-horizontal-2"}
GAP = 12.0


def _draw(kind: str) -> Action:
    def run(page: Page, things: Things) -> Edit:
        after, made = page, []
        for line in things:
            if not isinstance(line, Equation):
                continue
            follower = line.replace(id="", name="", base=line.id, derived=kind, above="", reason="", shown=(), told=())
            try:
                source = followed_source(follower, page)
            except NotThere as reason:
                raise ValueError(_(str(reason))) from reason
            axes = line.axes_on(page)
            follower = follower.replace(source=source, axes=axes.id if axes is not None else "")
            hue = curve_hue(after, follower, axes) if axes is not None else line.hue
            drop = line.extent().height * line.placement.scale + GAP
            after = after.put(follower.replace(hue=hue, placement=line.placement.moved(0, drop)))
            made.append(after.things[-1].id)
        return Edit(_(LABELS[kind]), page, after, select=tuple(made))

    return Action(f"draw {kind}", lambda p, ts: _(LABELS[kind]), SIGNS[kind], run, _fits, rank=62, board=True,
                  fold=BESIDES, words=N_("differentiate integrate gradient function area reflect"))  # fmt: skip


def _fits(page: Page, things: Things) -> bool:
    return only(Equation)(page, things) and all(
        isinstance(t, Equation) and (curve := t.curve()) is not None and curve.along == "x" and curve.op == "="
        for t in things
    )


def _free(page: Page, things: Things) -> Edit:
    changed = {t.id: t.replace(base="", derived="") for t in things if isinstance(t, Equation)}
    return Edit(_("Follow no longer"), page, page.with_things(changed))


register(
    (
        *(_draw(kind) for kind in LABELS),
        Action("follow no longer", lambda p, ts: _("follow no longer"), "unlink", _free,
               lambda p, ts: only(Equation)(p, ts) and all(isinstance(t, Equation) and t.base for t in ts), rank=26,
               words=N_("free detach")),
    ),
    Equation,
)  # fmt: skip
