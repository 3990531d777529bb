"""Commands that choose how a lesson writes its mathematics."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from larch.core.base.signs import AS_WRITTEN
from larch.core.base.words import N_, _
from larch.core.model.edit import Edit
from larch.desk.commands.command import Command

if TYPE_CHECKING:
    from larch.desk.context import Context

ORDER = 11
CHOICES = (
    ("decimal", ",", N_("Decimal comma: 3,5")), ("decimal", ".", N_("Decimal point: 3.5")),
    ("times", "⋅", N_("Dot for times: 2 ⋅ 3")), ("times", "×", N_("Cross for times: 2 × 3")),
    ("divide", ":", N_("Colon for division: 8 : 2")), ("divide", "÷", N_("Division sign: 8 ÷ 2")),
    ("tangent", "tg", N_("Tangent as tg")), ("tangent", "tan", N_("Tangent as tan")),
    ("keys", "numbers", N_("Keys for young children first")), ("keys", "letters", N_("Keys with letters first")),
    ("keys", "functions", N_("Keys with functions first")),
)  # fmt: skip


def build(w: Context) -> list[Command]:
    words = _("notation decimal comma point convention country mathematics signs")
    made = [
        Command(f"{name} {sign}", _(label), partial(_choose, w, name, sign), "Lesson", words=words,
                fold=_("Signs of mathematics"), apart=k in (0, 2, 4, 6, 8), checked=partial(_chosen, w, name, sign))
        for k, (name, sign, label) in enumerate(CHOICES)
    ]  # fmt: skip
    as_typed = Command("signs as typed", _("All as they are typed"), partial(_choose, w, "", ""), "Lesson", words=words,
                       fold=_("Signs of mathematics"), apart=True,
                       checked=lambda: w.session.lesson.signs == AS_WRITTEN)  # fmt: skip
    return [*made, as_typed]


def _chosen(w: Context, name: str, sign: str) -> bool:
    return getattr(w.session.lesson.signs, name) == sign  # type: ignore[no-any-return]


def _choose(w: Context, name: str, sign: str) -> None:
    """Chooses a sign for the whole lesson; once more, and it is as it is typed again."""
    lesson = w.session.lesson
    signs = lesson.signs.replace(**{name: "" if _chosen(w, name, sign) else sign}) if name else AS_WRITTEN
    w.session.commit(Edit(_("Signs of mathematics"), lesson, lesson.replace(signs=signs)))
