"""Ink that is read: when it is asked for, and by pens that read what they write after a pause."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import TYPE_CHECKING, Any

import msgspec
from PyQt6.QtCore import QObject, Qt, QTimer
from PyQt6.QtWidgets import QApplication

from larch.board.timers import retire
from larch.board.views import view_of
from larch.core.actions.ink.readings import hue_of, inks_of, strokes_of, written_in
from larch.core.actions.ink.told import taker_under
from larch.core.actions.ink.writing import write
from larch.core.base.shape import Box, union
from larch.core.base.words import _
from larch.core.model.capabilities import IsInk
from larch.core.model.edit import Edit
from larch.core.model.thing import Thing
from larch.core.things.ink.ink import Ink
from larch.desk import reading_offers as offers
from larch.desk.cards.reading_card import Offer, ReadingCard
from larch.desk.fields import ENTER
from larch.desk.jobs import Job
from larch.desk.reading_line import WrittenLine, WrittenLines
from larch.desk.reading_offers import MOST, Reading
from larch.services.worker import WorkerError, worker

if TYPE_CHECKING:
    from larch.desk.context import Context

CALLS = {
    "shape": "larch.core.recognise.shapes.reading:shape_choices",
    "maths": "larch.core.recognise.maths.answers:maths_answer",
    "words": "larch.core.recognise.words:words_answer",
}
SECONDS = 12.0  # the first time it loads what it needs
LINGER = 8000  # ms for which is offered what else something could be that was done unasked
QUICK = 700  # ms after which a shape is trued up while drawing
MOST_STROKES = 300


class Readings(QObject):
    """Asks the worker, shows the card, and exchanges the ink for what is chosen."""

    def __init__(self, context: Context) -> None:
        super().__init__(context.top)
        self.context = context
        self.card: ReadingCard | None = None
        self.lines = WrittenLines(context)  # what pens that read mathematics are writing
        self._fresh: list[str] = []  # ids of ink written with a pen that reads
        self._seen: set[str] = set()
        self._page = ""
        self._taken: tuple[Box, list[str], int] | None = (
            None  # ink that a thing took: where, which, and after how many steps
        )
        self._committing = False
        self._asked = 0
        self.waiting = False  # for an answer
        self._pause = QTimer(self)
        self._pause.setSingleShot(True)
        self._pause.timeout.connect(self._paused)
        self._linger = QTimer(self)
        self._linger.setSingleShot(True)
        self._linger.timeout.connect(self._lingered)

    @property
    def line(self) -> WrittenLine:
        """The one that was written at last, or that a card is shown of."""
        return self.lines.current

    # By pens

    def committed(self) -> None:
        """Something was done on the page: an old card is put away; new ink of a pen that reads is waited for."""
        canvas = self.context.canvas
        if self._committing:
            self._seen = {thing.id for thing in canvas.page.things}
            return
        self.put_away()
        page, kind = canvas.page, self._pen_kind()
        if self._page != page.id:
            self._page, self._fresh, self._seen = page.id, [], set()
            self.lines.forget()
        here = {thing.id for thing in page.things}
        new = [thing.id for thing in page.things[-1:] if thing.id not in self._seen and isinstance(thing, IsInk)]
        new = [] if self.context.session.history.undone else new  # it came back, and was not written now
        self._seen = here
        if not kind:
            self._fresh = []
            return
        struck = self.line.struck_by(new[0]) if new and kind != "shape" else None
        if struck is not None:
            self._undo()  # of the stroke: one step back brings all of it back
            self._commit(lambda: struck(canvas.page))
            new = []
        if kind == "maths":
            new = self._going_on(new)
            self.lines.written(new)
            waits = bool(self.line.ids)
        else:
            self._fresh = [id for id in (*self._fresh, *new) if id in here][-MOST_STROKES:]
            waits = bool(self._fresh)
        if waits:
            self._pause.start(QUICK if kind == "shape" else self.context.settings.pause)

    def _going_on(self, new: list[str]) -> list[str]:
        """A slow hand writes the second digit when a thing has taken the first: that is ink again, and read with it."""
        canvas, taken = self.context.canvas, self._taken
        inks = inks_of(canvas.page.some(new))
        self._taken = None if new else taken
        if taken is None or not inks or len(self.context.session.history.done) != taken[2] + 1:
            return new
        if not self.line.goes_on(taken[0], taken[1], inks[0]):
            return new
        self._undo()
        self._undo()
        self._commit(lambda: write(canvas.page, inks[0].replace(id="")))
        return [canvas.page.things[-1].id]

    def _pen_kind(self) -> str:
        tool = self.context.part("ledge").current
        pen = getattr(tool, "pen", None)
        form = getattr(pen, "form", "")
        return {"shapes": "shape", "words": "words", "maths": "maths"}.get(form, "")

    def _paused(self) -> None:
        if self.context.canvas.pointers.busy:  # the hand writes on
            self._pause.start(200)
            return
        kind = self._pen_kind()
        if kind == "maths":
            if not self.line.is_a_tap():
                self.read(kind, self.line.here(), by_itself=self.line.is_on_a_thing(), follows=True)
            return
        ids, self._fresh = self._fresh, []
        if kind and ids:
            self.read(kind, ids, by_itself=True)

    # Reading

    def read_selection(self, kind: str) -> None:
        inks = inks_of(self.context.canvas.things())
        if not inks:
            self.context.say(_("Select handwriting first."))
            return
        ids = [ink.id for ink in inks]
        self.line.begin(ids if kind == "maths" else [])
        self.read(kind, ids)

    def read(self, kind: str, ids: Sequence[str], by_itself: bool = False, follows: bool = False) -> None:
        """by_itself: what is likeliest takes the place of the ink at once, and the others are offered. follows: nothing is
        said of what can't be read, and the pen keeps the keys."""
        inks = inks_of(self.context.canvas.page.some(ids))
        if not inks or len(inks) > MOST_STROKES:
            if not follows and not by_itself:
                self.context.say(_("That is too much ink to be read at once.") if inks else _("Select handwriting first."))
            return
        self.put_away()
        self._ask(kind, strokes_of(inks), partial(self._came, kind, inks, by_itself, follows), by_itself or follows)

    def _ask(self, kind: str, strokes: Any, came: Callable[[int, dict[str, Any]], None], quietly: bool) -> None:
        self._asked += 1
        number, hand = self._asked, self.context.settings.hand
        more: tuple[Any, ...] = ()
        if kind == "words":
            more = (self.context.session.lesson.language[:2].lower(), hand.words)
        elif kind == "maths":
            more = (self.line.settled(), hand.leaning())
        else:
            more = (not quietly,)
        self.waiting = True

        def asked(job: Job) -> Any:
            return worker().ask(CALLS[kind], strokes, *more, seconds=SECONDS).wait()

        job = Job(asked)
        job.answered = True
        job.finished.connect(partial(came, number))
        job.failed.connect(partial(self._failed, quietly))
        job.start()

    def _failed(self, quietly: bool, error: object) -> None:
        self.waiting = False
        missing = isinstance(error, WorkerError) and error.kind == "FileNotFoundError"
        if missing or not quietly:
            self.context.say(str(error) if missing else _("This could not be read in the time there is."))

    def _came(self, kind: str, inks: list[Ink], by_itself: bool, follows: bool, number: int, answer: dict[str, Any]) -> None:
        canvas = self.context.canvas
        self.waiting = self.waiting and number != self._asked
        if number != self._asked or any(canvas.page.thing(ink.id) is not ink for ink in inks):
            return  # something else was done meanwhile
        page = canvas.page
        if kind == "maths":
            readings = self.line.corrections(page, inks, answer) or offers.maths_readings(page, inks, answer)
            by_itself = by_itself and bool(readings) and readings[0].at_once
        else:
            readings = (offers.shape_readings if kind == "shape" else offers.word_readings)(page, inks, answer)
        if not readings:
            if not by_itself and not follows:
                self.context.say(_("Nothing was made out in it; it stays as ink."))
            self._turn_to_next(kind)
            return
        signs = self.line.read_signs(inks, answer) if kind == "maths" else []
        box = union(ink.box() for ink in inks)
        own = box
        taker = taker_under(page, inks) if by_itself and kind == "maths" else None
        if taker is not None:  # the card covers nothing of what is worked at
            box = union((own, view_of(taker).box(taker)))
        if by_itself:
            likeliest, *readings = readings
            self._commit(lambda: msgspec.structs.replace(likeliest.make(), select=()))  # the pen writes on
            signs = []
            if taker is not None:
                self._taken = (own, [ink.id for ink in inks], len(self.context.session.history.done))
        self._show(readings, box, by_itself, hue_of(inks), signs, at=own)
        if by_itself:
            self._linger.start(LINGER)
            self._turn_to_next(kind)
        if self.card is not None and not by_itself and not follows:
            self.card.choices[0].setFocus()

    def _show(
        self,
        readings: Sequence[Reading],
        box: Box,
        instead: bool,
        hue: str,
        signs: Sequence[Any],
        stay: str = "",
        at: Box | None = None,
    ) -> None:
        most = MOST - 1 if instead and not stay else 5 if stay else MOST
        made = [
            Offer(one.words, partial(self._take, one, instead and not stay), one.row, one.picture, hue)
            for one in readings[:most]
        ]
        self.card = ReadingCard(self.context.canvas, box, made, instead=instead, signs=signs, stay=stay, at=at)
        self.context.part("tag").hide()
        self.card.stayed.connect(partial(self._stay, instead and not stay))
        if self.card.signs is not None:
            self.card.signs.changed.connect(self._exchange)

    def _exchange(self, k: int, sign: str) -> None:
        """A sign of the likeliest reading is another one: all is read again with that settled."""
        self.line.pick(k, sign)
        self.read("maths", self.line.here())

    def read_again(self) -> None:
        """What type that was written by hand could be instead."""
        things = self.context.canvas.things()
        written = written_in(things)
        if written is None:
            self.context.say(_("Select type that was written by hand first."))
            return
        self.put_away()
        self.line.forget()
        kind, inks = written
        self._ask(kind, strokes_of(inks), partial(self._came_again, kind, things[0]), False)

    def _came_again(self, kind: str, thing: Thing, number: int, answer: dict[str, Any]) -> None:
        page = self.context.canvas.page
        self.waiting = self.waiting and number != self._asked
        if number != self._asked or page.thing(thing.id) is not thing:
            return
        readings = offers.other_readings(page, thing, kind, answer)
        if not readings:
            self.context.say(_("Nothing else was made out in it."))
            return
        self._show(readings, thing.box(), True, thing.hue, [], _("stay as it is"))
        if self.card is not None:
            self.card.choices[0].setFocus()

    # What is chosen

    def _take(self, reading: Reading, instead: bool) -> None:
        self.put_away()
        if instead:
            self._undo()
        self._commit(reading.make)
        self._remember(reading)
        self.line.forget()
        self._turn_to_next(self._pen_kind())

    def _remember(self, reading: Reading) -> None:
        """What was put right counts when this hand is read again."""
        hand = self.context.settings.hand
        kept = hand
        for word in reading.changed:
            kept = kept.chose(word)
        for was, now in self.line.put_right():
            kept = kept.changed(was, now)
        if kept != hand:
            self.context.keep_setting(hand=kept)

    def _stay(self, instead: bool) -> None:
        self.put_away()
        self.line.forget()
        if instead:
            self._undo()
        self._turn_to_next(self._pen_kind())

    def _turn_to_next(self, kind: str) -> None:
        """One of several who write at once is done with: what another has written is read."""
        if kind == "maths" and self.lines.turn_to_next():
            self.read(kind, self.line.here(), by_itself=self.line.is_on_a_thing(), follows=True)

    def _undo(self) -> None:
        self._committing = True
        try:
            self.context.part("undo")()
        finally:
            self._committing = False

    def _commit(self, make: Callable[[], Edit]) -> None:
        self._committing = True
        try:
            self.context.canvas.commit(make())
        except ValueError as error:
            self.context.say(str(error))
        finally:
            self._committing = False

    def _lingered(self) -> None:
        """What else it could be was offered for a while: then the card lies in nobody's way, unless someone is at it."""
        card = self.card
        if card is not None and (card.underMouse() or card.isAncestorOf(QApplication.focusWidget())):
            self._linger.start(LINGER)
        else:
            self.put_away()

    def press(self, key: int) -> bool:
        """A key while the pen has them and a card lies beside its ink: Enter takes the likeliest, Esc leaves the ink as it
        is, the arrow down goes onto the card. Whether it meant the card."""
        card = self.card
        if card is None:
            return False
        if key in ENTER and not card.instead:
            card.choices[0].click()
        elif key == Qt.Key.Key_Escape and not card.instead:
            card.stayed.emit()
        elif key == Qt.Key.Key_Escape:
            self.put_away()
        elif key == Qt.Key.Key_Down and not self.context.canvas.selection:
            card.choices[0].setFocus()
        else:
            return False
        return True

    def put_away(self) -> None:
        self._linger.stop()
        if self.card is not None:
            retire(self.card)
            self.card = None
            self.context.part("tag").refresh()
