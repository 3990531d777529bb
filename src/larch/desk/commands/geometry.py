"""The commands of geometry: every construction by its name, and the list of steps."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from larch.core.base.words import N_, _
from larch.core.figures.rules import RULES
from larch.desk.commands.command import Command

if TYPE_CHECKING:
    from larch.desk.context import Context

ORDER = 70
FAMILIES = {
    "draw": N_("Draw"),
    "circles": N_("Circles"),
    "construct": N_("Construct"),
    "touching": N_("Tangents"),
    "move": N_("Images"),
}


def build(w: Context) -> list[Command]:
    own = {"point": (_("point"), "dot", "plot"), "drawn": (_("shape by hand"), "lasso", "freehand closed"),
           "locus": (_("locus"), "waves", "trace path")}  # fmt: skip
    named = {name: (_(rule.label), rule.icon, _(rule.search)) for name, rule in RULES.items()}
    families = {"locus": "construct", **{name: rule.family for name, rule in RULES.items()}}
    geometry = _("construct draw geometry")
    found = [
        Command(f"construct {name}", label.capitalize(), partial(lambda name: w.part("hand").construct(name), name),
                "Geometry", picture, words=f"{words} {geometry}", fold=_(FAMILIES[families.get(name, "draw")]))
        for name, (label, picture, words) in {**named, **own}.items()
    ]  # fmt: skip
    steps = Command("steps", _("Steps of the construction"), lambda: w.show_card("steps"), "Geometry", "list-ordered",
                    "Ctrl+Shift+J", _("list play words history explain"), apart=True)  # fmt: skip
    return [*sorted(found, key=lambda command: list(map(_, FAMILIES.values())).index(command.fold)), steps]
