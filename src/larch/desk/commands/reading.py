"""Reading what is written by hand."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from larch.core.actions.ink.readings import inks_of, written_in
from larch.core.base.words import N_, _
from larch.core.recognise.hand import KnownHand
from larch.desk.commands.command import Command

if TYPE_CHECKING:
    from larch.desk.context import Context

ORDER = 26
KINDS = (
    ("shape", N_("True up the shape"), "shapes", N_("recognise straighten exact circle square triangle arrow")),
    (
        "maths",
        N_("Read as mathematics"),
        "square-function",
        N_("to mathematics recognise handwriting equation number convert type"),
    ),
    ("words", N_("Read as words"), "type", N_("to words recognise handwriting text convert type")),
)
PAUSES = (
    (600, N_("Pens read after a short pause")),
    (1200, N_("Pens read after a pause")),
    (2500, N_("Pens read after a long pause")),
)


def build(w: Context) -> list[Command]:
    return [
        Command(f"read {kind}", _(label), partial(_read, w, kind), "Edit", picture, words=_(words),
                enabled=lambda: bool(inks_of(w.canvas.things())), fold=_("Handwriting"), board=True)
        for kind, label, picture, words in KINDS
    ] + [
        Command("read again", _("Show what it could be instead"), partial(_again, w), "Edit", "list-ordered",
                words=_("other readings handwriting suggestions alternatives type"), fold=_("Handwriting"), board=True,
                enabled=lambda: written_in(w.canvas.things()) is not None),
        Command("forget hand", _("Forget what was learnt of this handwriting"), partial(_forget, w), "Edit",
                words=_("handwriting recognise reset corrections"), fold=_("Handwriting"),
                enabled=lambda: w.settings.hand != KnownHand()),
    ] + [
        Command(f"pause {pause}", _(label), partial(w.keep_setting, pause=pause), "Edit",
                words=_("handwriting wait convert"), fold=_("Handwriting"),
                apart=pause == PAUSES[0][0], checked=partial(_waits, w, pause))
        for pause, label in PAUSES
    ]  # fmt: skip


def _waits(w: Context, pause: int) -> bool:
    return w.settings.pause == pause


def _read(w: Context, kind: str) -> None:
    w.part("readings").read_selection(kind)


def _again(w: Context) -> None:
    w.part("readings").read_again()


def _forget(w: Context) -> None:
    w.keep_setting(hand=KnownHand())
    w.say(_("What was learnt of this handwriting is forgotten."))
