"""The commands of geometry: every construction by its name, and the list of steps."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from larch.core.base.words import _
from larch.core.figures.rules import RULES
from larch.desk.commands.command import Command

if TYPE_CHECKING:
    from larch.desk.context import Context

ORDER = 70
LISTED = ("segment", "line", "vector", "polygon", "angle", "circle", "arc", "midpoint", "meet", "perpendicular", "parallel",
          "bisector", "angle bisector", "tangent", "mirror", "rotate", "translate", "enlarge")  # fmt: skip


def build(w: Context) -> list[Command]:
    own = {"point": (_("point"), "dot", "plot"), "drawn": (_("shape by hand"), "lasso", "freehand closed"),
           "locus": (_("locus"), "waves", "trace path")}  # fmt: skip
    named = {name: (_(rule.label), rule.icon, _(rule.search)) for name, rule in RULES.items()}
    families = {name: rule.family for name, rule in RULES.items()}
    found = [
        Command("steps", _("Steps of the construction"), lambda: w.show_card("steps"), "Geometry", "list-ordered",
                "Ctrl+Shift+J", _("list play words history explain")),
    ]  # fmt: skip
    before, geometry = "", _("construct draw geometry")
    for name, (label, picture, words) in {**named, **own}.items():
        menu = "Geometry" if name in LISTED else ""
        apart = bool(menu) and families.get(name, "") != before
        before = families.get(name, before) if menu else before
        text = _("Construct: {what}").format(what=label) if not menu else label.capitalize()
        found.append(
            Command(f"construct {name}", text, partial(lambda name: w.part("hand").construct(name), name), menu, picture,
                    words=f"{words} {geometry}", apart=apart)
        )  # fmt: skip
    return found
