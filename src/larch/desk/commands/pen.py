"""What the tools that make marks can be set to, for the Finder and the keyboard."""

from __future__ import annotations

from functools import partial
from typing import TYPE_CHECKING

from larch.board.tools.erase import MODES, mode_label
from larch.core.base.words import _
from larch.core.model.nibs import DASHES, ENDS, FORMS, NIBS
from larch.desk.commands.command import Command

if TYPE_CHECKING:
    from larch.desk.context import Context


ORDER = 40


def build(w: Context) -> list[Command]:
    """What the tools that make marks can be set to, for the Finder and the keyboard."""
    hand = w.part("hand")
    nibs = [
        Command(f"nib {name}", _("Write with: {nib}").format(nib=nib.label()), partial(lambda n: hand.set_pen(nib=n), name),
                "", nib.icon, words=_("pen ink nib"))
        for name, nib in NIBS.items()
    ]  # fmt: skip
    fields = [
        Command(f"{field} {value or 'none'}", _("Pen: {what}").format(what=word()),
                partial(lambda field, value: hand.set_pen(**{field: value}), field, value), "", picture,
                words=_("ink line arrow dash"))
        for field, table in (("form", FORMS), ("dash", DASHES), ("ends", ENDS))
        for value, (word, picture) in table.items()
    ]  # fmt: skip
    modes = [
        Command(f"rub {mode}", _("Rub out: {how}").format(how=mode_label(mode)), partial(hand.set_eraser, mode), "",
                "eraser", words=_("eraser erase wipe remove ink"))
        for mode in MODES
    ]  # fmt: skip
    return [
        Command("wipe this colour", _("Wipe this colour"), hand.wipe_hue, "", "brush-cleaning", words=_("ink erase hue")),
        Command("own stamp", _("Stamp with the selection"), hand.take_stamp, "", "stamp", words=_("own picture mark")),
        Command("tip colours", _("Tip colours on or off"), hand.set_by_tip, "", "fingerprint",
                words=_("pens fingers each device own colour")),
        Command("keep pen", _("Keep this pen ready"), hand.keep_pen, "", "pin", words=_("preset favourite")),
        *nibs, *fields, *modes,
    ]  # fmt: skip
