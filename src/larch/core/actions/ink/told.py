"""Handwritten mathematics that is more than an equation: numbers on things that take them, column arithmetic, lines."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Any, NamedTuple

from larch.core.actions.ink.readings import as_mathematics, exchanged, hue_of
from larch.core.base.shape import Box, Placement, union
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.model.written_on import TakesNumbers, WrittenSign
from larch.core.things.ink.ink import Ink
from larch.core.things.numbers.column_sum import CELL, ColumnSum

ABOUT = 16.0  # page units round a thing in which a number counts as written on it
LONGEST = 20  # signs of a number


class OnThing(NamedTuple):
    """A number that goes onto a thing: its text, what that is called, and the edit."""

    text: str
    words: str
    make: Callable[[], Edit]


def taker_under(page: Page, inks: Sequence[Ink]) -> Thing | None:
    """The topmost thing under the middle of ink that takes numbers."""
    x, y = union(ink.box() for ink in inks).centre
    for thing in reversed(page.things):
        takes = isinstance(thing, TakesNumbers) and not thing.hidden and not thing.supply
        if takes and thing.box().grown(ABOUT).holds(x, y):
            return thing
    return None


def on_thing(page: Page, inks: Sequence[Ink], answer: Mapping[str, Any]) -> OnThing | None:
    """What is written as a number on what lies under it; None where it is none, or that takes none."""
    taker = taker_under(page, inks)
    if taker is None or not isinstance(taker, TakesNumbers):
        return None
    boxes = [ink.box() for ink in inks]
    signs = [WrittenSign(one["token"], union(boxes[k] for k in one["strokes"])) for one in answer["symbols"]]
    bare = page.without([ink.id for ink in inks])
    for text in dict.fromkeys((answer["text"], "".join(sign.text for sign in signs), *answer["alternatives"])):
        shown = text.replace("−", "-").replace(" ", "")
        if not 0 < len(shown) <= LONGEST or not any(c.isdigit() for c in shown):
            continue
        own = [WrittenSign(shown, union(boxes))]
        if len(signs) == len(shown):
            own = [WrittenSign(c, sign.box) for c, sign in zip(shown, signs, strict=True)]
        try:
            after = taker.number_written(bare, shown, own, hue_of(inks))
        except ValueError:
            continue
        words = _("{number} on the {thing}").format(number=text, thing=taker.title())
        return OnThing(text, words, lambda after=after: Edit(_("Write a number"), page, after))  # type: ignore[misc]
    return None


def in_lines(page: Page, inks: Sequence[Ink], lines: Sequence[Mapping[str, Any]], extent: Callable[[Thing], Box]) -> Edit:
    """An equation for each line that was written. lines: as `maths_answer` gives them."""
    after, made = page, []
    for line in lines:
        own = [inks[k] for k in line["strokes"]]
        before = {thing.id for thing in after.things}
        edit = as_mathematics(after, own, line["latex"], extent)
        assert isinstance(edit.after, Page)
        after = edit.after
        made += [thing.id for thing in after.things if thing.id not in before]
    return Edit(_("Tidy to mathematics"), page, after, select=tuple(made))


def can_be_column(column: Mapping[str, Any]) -> bool:
    """Whether column arithmetic takes these numbers: whole ones, few enough, the greater first where one is taken away."""
    try:
        ColumnSum(op=column["op"], numbers=tuple(column["numbers"])).answered(column["result"])
    except ValueError:
        return False
    return True


def in_columns(page: Page, inks: Sequence[Ink], column: Mapping[str, Any]) -> Edit:
    """Column arithmetic as it was written, with the digits under its line. Raises ValueError where it is none."""
    box = union(ink.box() for ink in inks)
    sum_ = ColumnSum(op=column["op"], numbers=tuple(column["numbers"]), hue=hue_of(inks)).answered(column["result"])
    scale = max(0.3, min(6.0, column["pitch"] / CELL))
    own = sum_.extent()
    at = Placement(box.x1 - own.width * scale, box.y0, 0.0, scale)
    return exchanged(page, inks, [sum_.replace(placement=at)], _("Tidy to mathematics"), "")
