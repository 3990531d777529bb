"""The lines that pens for mathematics are writing: each grows while the hand goes on, and is put right sign by sign."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import TYPE_CHECKING, Any

from larch.board.views.graphs.written_on import changes, equation_under, struck_out
from larch.core.actions.ink.readings import inks_of, strokes_of
from larch.core.actions.ink.told import taker_under
from larch.core.base.shape import Box, union
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.recognise.strike import strikes_out, struck
from larch.core.things.ink.ink import Ink
from larch.desk.cards.sign_keys import ReadSign
from larch.desk.reading_offers import Reading, read_signs

if TYPE_CHECKING:
    from larch.desk.context import Context

NEAR = 1.4  # heights of the line within which a stroke still belongs to it
LEAST = 40.0  # page units
MOST = 300  # strokes
TAP = 5.0  # page units
MOST_LINES = 4  # that are written at once, besides the one that was written at last


class WrittenLine:
    """ids: of its ink. What was picked by hand and what was read are remembered by ink, so that rubbing out one digit and
    writing another leaves the rest as it was read."""

    def __init__(self, context: Context) -> None:
        self.context = context
        self.forget()

    def forget(self) -> None:
        self.begin([])

    def begin(self, ids: Sequence[str]) -> None:
        self.ids: list[str] = list(ids)
        self._picked: dict[tuple[str, ...], tuple[str, str]] = {}  # by ink: what it was read as, and what it is
        self._read: list[tuple[tuple[str, ...], str]] = []  # signs of the last reading
        self._corrects = False  # something of it was taken away after it had been read
        self._on = ""  # the equation that it is written on

    def here(self) -> list[str]:
        """Its ink that is still on the page."""
        page = self.context.canvas.page
        kept = [id for id in self.ids if page.thing(id) is not None]
        self._corrects = self._corrects or len(kept) < len(self.ids)
        self.ids = kept
        return kept

    def reaches(self, ink: Ink) -> bool:
        """Whether a stroke belongs to it."""
        old = inks_of(self.context.canvas.page.some(self.here()))
        return bool(old) and _beside(union(one.box() for one in old), ink.box())

    def add(self, ink: Ink) -> None:
        """A further stroke of it."""
        if not self.here():
            self.forget()
            self._on = equation_under(self.context.canvas.page, ink.box())
        self.ids = [*self.ids, ink.id][-MOST:]

    def goes_on(self, box: Box, ids: Sequence[str], new: Ink) -> bool:
        """Whether a stroke belongs to what was just read, and had lain in `box`: then that is one line with it. What is
        written over it or below it is another number."""
        own = new.box()
        x, y = own.centre
        apart, level = x > box.x1 or x < box.x0, abs(y - box.centre[1]) < 0.75 * box.height
        if not (_beside(box, own) and apart and level):
            return False
        self.begin(ids)
        return True

    def is_on_a_thing(self) -> bool:
        """Whether it is written on what takes it at once: equipment, or an equation that it changes."""
        page = self.context.canvas.page
        inks = inks_of(page.some(self.ids))
        return bool(inks) and (bool(self._on) or taker_under(page, inks) is not None)

    def is_a_tap(self) -> bool:
        """Whether there is nothing but where a pen came down and went up again: that is no 1."""
        strokes = strokes_of(inks_of(self.context.canvas.page.some(self.ids)))
        return all(math.dist(run[0], at) < TAP for run in strokes for at in run)

    # What is settled before it is read again

    def settled(self) -> list[tuple[list[int], str]]:
        """Strokes, as numbers in the line, that are a sign already."""
        order = {id: k for k, id in enumerate(self.here())}
        found = {own: now for own, (_was, now) in self._picked.items()}
        if self._corrects:
            page = self.context.canvas.page
            known = {id for own, _sign in self._read for id in own}
            new = [ink.box() for ink in inks_of(page.some([id for id in order if id not in known]))]
            for own, sign in self._read:
                inks = inks_of(page.some(own))
                if len(inks) == len(own) and not any(union(i.box() for i in inks).meets(box) for box in new):
                    found.setdefault(own, sign)
        return [([order[id] for id in own], sign) for own, sign in found.items() if all(id in order for id in own)]

    def read_signs(self, inks: Sequence[Ink], answer: dict[str, Any]) -> list[ReadSign]:
        """What the card shows of the likeliest reading, which is kept for the next one."""
        ids = [ink.id for ink in inks]
        self._read = [(tuple(ids[k] for k in one["strokes"]), one["token"]) for one in answer["symbols"]]
        self._corrects = False
        return read_signs(answer, lambda strokes: tuple(ids[k] for k in strokes) in self._picked)

    def pick(self, k: int, sign: str) -> None:
        """The k-th sign of the last reading is another one."""
        if 0 <= k < len(self._read):
            own, read = self._read[k]
            was = self._picked[own][0] if own in self._picked else read
            self._picked[own] = (was, sign)

    def put_right(self) -> Iterator[tuple[str, str]]:
        """What was read, and what it was exchanged for by hand."""
        for was, now in self._picked.values():
            if was != now:
                yield was, now

    # On an equation

    def corrections(self, page: Page, inks: Sequence[Ink], answer: dict[str, Any]) -> list[Reading]:
        """What it makes of the equation that it is written on; none where it stands for itself."""
        if not self._on:
            return []
        sources = [source for source in (answer["latex"], *answer["alternatives"]) if source]
        found = changes(page, self._on, inks, sources)
        if not found:
            self._on = ""
        return [Reading(source, lambda edit=edit: edit, row, at_once=True) for source, row, edit in found]  # type: ignore[misc]

    # Striking out

    def struck_by(self, id: str) -> Callable[[Page], Edit] | None:
        """What a new stroke means that goes to and fro over ink or over parts of an equation: on a page without it, they are
        struck out."""
        page = self.context.canvas.page
        inks = inks_of(page.some([id]))
        if not inks:
            return None
        (stroke,) = strokes_of(inks)
        if not strikes_out(stroke):
            return None
        box = inks[0].box()
        others = [ink for ink in inks_of(page.things) if ink.id != id and ink.box().meets(box)]
        gone = [others[k].id for k in struck(stroke, [ink.box() for ink in others])]
        if gone:
            self._corrects = True
            return lambda bare: Edit(_("Strike out"), bare, bare.without(gone))
        if struck_out(page, box) is not None:
            return lambda bare: struck_out(bare, box) or Edit(_("Strike out"), bare, bare)
        return None


class WrittenLines:
    """What several people write at once: each line is read by itself, one after the other."""

    def __init__(self, context: Context) -> None:
        self.context = context
        self.current = WrittenLine(context)
        self._others: list[WrittenLine] = []

    def forget(self) -> None:
        self.current, self._others = WrittenLine(self.context), []

    def written(self, new: Sequence[str]) -> None:
        """Further strokes: in the line that they lie at."""
        for ink in inks_of(self.context.canvas.page.some(new)):
            if not self.current.reaches(ink):
                lines = [line for line in (self.current, *self._others) if line.here()]
                found = next((line for line in lines if line.reaches(ink)), None)
                self._others = [line for line in lines if line is not found][:MOST_LINES]
                self.current = found or WrittenLine(self.context)
            self.current.add(ink)

    def turn_to_next(self) -> bool:
        """To another line that waits to be read, when the current one is done with; False where there is none."""
        waiting = [line for line in self._others if line.here()]
        if not waiting:
            return False
        self.current, *self._others = waiting
        return True


def _beside(line: Box, box: Box) -> bool:
    reach = max(LEAST, NEAR * min(line.height, 2.0 * max(box.height, LEAST)))
    return line.grown(reach).meets(box)
