"""How a thing may be moved, where it is not free: not at the Board, only along a line, only turned."""

from __future__ import annotations

import math
from collections.abc import Callable

from larch.core.base.shape import Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Fold, Things, register
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_number
from larch.core.model.page import Page
from larch.core.model.thing import Thing

BOARD, TURN = "board", "turn"  # not to be touched at the Board; only turned
ALONG = "along "  # followed by degrees: only along that direction


def direction_of(thing: Thing) -> float | None:
    """The angle along which alone it may be moved; None if that is not how it is held."""
    if not thing.hold.startswith(ALONG):
        return None
    try:
        angle = float(thing.hold[len(ALONG) :])
    except ValueError:
        return None
    return angle if math.isfinite(angle) else None


def allowed(thing: Thing, dx: float, dy: float) -> Point:
    """What remains of a shift."""
    if thing.hold == TURN:
        return (0.0, 0.0)
    angle = direction_of(thing)
    if angle is None:
        return (dx, dy)
    c, s = math.cos(math.radians(angle)), -math.sin(math.radians(angle))
    if abs(c) < 1e-12:
        c = 0.0
    if abs(s) < 1e-12:
        s = 0.0
    along = dx * c + dy * s
    return (along * c, along * s)


def untouchable(thing: Thing) -> bool:
    """Whether a hand at the Board goes through it."""
    return (thing.locked or thing.hold == BOARD) and not thing.supply


def hold(page: Page, things: Things, how: str) -> Edit:
    """Holds all, or sets all free if they are held so already."""
    value = "" if all(thing.hold == how for thing in things) else how
    labels = {BOARD: _("Not at the Board"), TURN: _("Only turning")}
    label = labels.get(how, _("Only along a line")) if value else _("Free to move")
    return Edit(label, page, page.with_things({t.id: t.replace(hold=value) for t in things}))


def said(thing: Thing) -> str:
    """How it is held, in words; "" if it is free."""
    angle = direction_of(thing)
    if angle is not None:
        names = {0.0: _("only level"), 90.0: _("only upright")}
        return names.get(angle % 180, _("only along {angle}°").format(angle=f"{angle % 180:g}"))
    return {BOARD: _("not at the Board"), TURN: _("only turning")}.get(thing.hold, "")


def hold_fact(thing: Thing) -> Fact:
    """How it may be moved, to be chosen, or typed as an angle."""

    def put(typed: str) -> Thing:
        text = typed.strip()
        if text in ("", BOARD, TURN, "locked"):
            changed: Thing = thing.replace(hold="" if text == "locked" else text, locked=text == "locked")
            return changed
        angle = read_number(text.removeprefix(ALONG))
        if not abs(angle) <= 360:
            raise ValueError(_("An angle from 0° to 360° says along which line."))
        along: Thing = thing.replace(hold=f"{ALONG}{angle % 180:g}", locked=False)
        return along

    options = (
        ("", _("freely")), ("locked", _("not at all")), (BOARD, _("not at the Board")), (f"{ALONG}0", _("only level")),
        (f"{ALONG}90", _("only upright")), (TURN, _("only turning")),
    )  # fmt: skip
    now = "locked" if thing.locked else thing.hold
    text = _("not at all") if thing.locked else said(thing) or _("freely")
    return Fact("moves", now, text=text, label=_("can be moved"), set=put, options=options, part="place")


def _holding(how: str) -> Callable[[Page, Things], Edit]:
    return lambda page, things: hold(page, things, how)


def _label(how: str, words: Callable[[], str]) -> Callable[[Page, Things], str]:
    return lambda page, things: _("free to move again") if all(t.hold == how for t in things) else words()


HOLDS = (
    ("hold board", BOARD, lambda: _("not at the Board"), "monitor-off"),
    ("hold level", f"{ALONG}0", lambda: _("only level"), "move-horizontal"),
    ("hold upright", f"{ALONG}90", lambda: _("only upright"), "move-vertical"),
    ("hold turn", TURN, lambda: _("only turning"), "refresh-cw"),
)
HOLD = Fold("hold", N_("can be moved…"), "lock")
HOLDING: tuple[Action, ...] = tuple(
    Action(name, _label(how, words), picture, _holding(how), rank=74, fold=HOLD, words=N_("lock fix move rail"))
    for name, how, words, picture in HOLDS
)
register(HOLDING, at=20)
