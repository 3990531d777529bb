"""What the keys take in hand, one after the other: the corners and the parts of a thing."""

from __future__ import annotations

from typing import NamedTuple

from larch.core.base.shape import Point
from larch.core.model.capabilities import HasParts
from larch.core.model.thing import Thing

REACHES = (6.0, 12.0, 24.0, 48.0, 96.0)  # page units that a part is dragged by a key, until something comes of it


class Grip(NamedTuple):
    """name: unlike that of any other; part: of a part, "" for a corner. at: in the thing's own coordinates."""

    name: str
    at: Point
    label: str
    part: str = ""


def grips(thing: Thing) -> list[Grip]:
    found = [Grip(handle.name, (handle.x, handle.y), handle.label) for handle in thing.handles()]
    if isinstance(thing, HasParts):
        found += [Grip(f"part:{part}", thing.part_place(part), part, part) for part in thing.parts()]
    return found


def grip_of(thing: Thing, name: str) -> Grip | None:
    return next((grip for grip in grips(thing) if grip.name == name), None) if name else None


def nudged(thing: Thing, grip: Grip, across: int, down: int) -> Thing:
    """With a part dragged a little way and let go: as far as it takes for something to come of it."""
    if not isinstance(thing, HasParts):
        return thing
    for reach in REACHES:
        to = (grip.at[0] + across * reach, grip.at[1] + down * reach)
        after = thing.drag_part(grip.part, grip.at, to).part_let_go(grip.part)
        if after != thing:
            return after
    return thing


def tapped(thing: Thing, grip: Grip) -> Thing:
    """With a part tapped; the thing itself where that means nothing."""
    after = thing.tap_part(grip.part, grip.at) if isinstance(thing, HasParts) else None
    return thing if after is None else after
