"""Ink that is read: when it is asked for, and by pens that read what they write after a pause."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial
from typing import TYPE_CHECKING, Any

import msgspec
from PyQt6.QtCore import QObject, QTimer

from larch.board.timers import retire
from larch.board.views import view_of
from larch.core.actions.ink.readings import SHAPES, as_mathematics, as_words, hue_of, inks_of, shaped, strokes_of
from larch.core.base.shape import union
from larch.core.base.words import _
from larch.core.maths.layout.reading import look
from larch.core.model.capabilities import IsInk
from larch.core.model.edit import Edit
from larch.core.things.ink.ink import Ink
from larch.desk.cards.reading_card import Offer, ReadingCard
from larch.desk.jobs import Job
from larch.services.worker import WorkerError, worker

if TYPE_CHECKING:
    from larch.desk.context import Context

CALLS = {
    "shape": "larch.core.recognise.shapes.reading:shape_choices",
    "maths": "larch.core.recognise.maths.reading:maths_answer",
    "words": "larch.core.recognise.words:words_answer",
}
SECONDS = 12.0  # the first time it loads what it needs
MOST = 3  # offers
QUICK = 700  # ms after which a shape is trued up while drawing
MOST_STROKES = 300


class Readings(QObject):
    """Asks the worker, shows the card, and exchanges the ink for what is chosen."""

    def __init__(self, context: Context) -> None:
        super().__init__(context.top)
        self.context = context
        self.card: ReadingCard | None = None
        self._fresh: list[str] = []  # ids of ink written with a pen that reads
        self._seen: set[str] = set()
        self._page = ""
        self._committing = False
        self._asked = 0
        self.waiting = False  # for an answer
        self._pause = QTimer(self)
        self._pause.setSingleShot(True)
        self._pause.timeout.connect(self._paused)

    # By pens

    def committed(self) -> None:
        """Something was done on the page: an old card is put away; new ink of a pen that reads is waited for."""
        canvas = self.context.canvas
        if self._committing:
            self._seen = {thing.id for thing in canvas.page.things}
            return
        self.put_away()
        kind = self._pen_kind()
        if not kind:
            self._seen, self._fresh = set(), []
            return
        page = canvas.page
        if self._page != page.id:
            self._page, self._fresh, self._seen = page.id, [], set()
        here = {thing.id for thing in page.things}
        new = [thing.id for thing in page.things[-1:] if thing.id not in self._seen and isinstance(thing, IsInk)]
        self._fresh = [id for id in (*self._fresh, *new) if id in here][-MOST_STROKES:]
        self._seen = here
        if self._fresh:
            self._pause.start(QUICK if kind == "shape" else self.context.settings.pause)

    def _pen_kind(self) -> str:
        tool = self.context.part("ledge").current
        pen = getattr(tool, "pen", None)
        form = getattr(pen, "form", "")
        return {"shapes": "shape", "words": "words", "maths": "maths"}.get(form, "")

    def _paused(self) -> None:
        if self.context.canvas.pointers.busy:  # the hand writes on
            self._pause.start(200)
            return
        kind, ids = self._pen_kind(), self._fresh
        self._fresh = []
        if kind and ids:
            self.read(kind, ids, by_itself=kind != "maths")

    # Reading

    def read_selection(self, kind: str) -> None:
        inks = inks_of(self.context.canvas.things())
        if not inks:
            self.context.say(_("Select handwriting first."))
            return
        self.read(kind, [ink.id for ink in inks])

    def read(self, kind: str, ids: Sequence[str], by_itself: bool = False) -> None:
        """by_itself: what is likeliest takes the place of the ink at once, and the others are offered."""
        page = self.context.canvas.page
        inks = inks_of(page.some(ids))
        if not inks or len(inks) > MOST_STROKES:
            if not by_itself:
                self.context.say(_("That is too much ink to be read at once.") if inks else _("Select handwriting first."))
            return
        self.put_away()
        self._asked += 1
        number, strokes = self._asked, strokes_of(inks)
        more = (self.context.session.lesson.language[:2].lower(),) if kind == "words" else ()
        self.waiting = True

        def asked(job: Job) -> Any:
            return worker().ask(CALLS[kind], strokes, *more, seconds=SECONDS).wait(SECONDS + 1)

        job = Job(asked)
        job.answered = True
        job.finished.connect(partial(self._came, number, kind, inks, by_itself))
        job.failed.connect(partial(self._failed, by_itself))
        job.start()

    def _failed(self, by_itself: bool, error: object) -> None:
        self.waiting = False
        missing = isinstance(error, WorkerError) and error.kind == "FileNotFoundError"
        if missing or not by_itself:
            self.context.say(str(error) if missing else _("This could not be read in the time there is."))

    def _came(self, number: int, kind: str, inks: list[Ink], by_itself: bool, answer: dict[str, Any]) -> None:
        canvas = self.context.canvas
        self.waiting = self.waiting and number != self._asked
        if number != self._asked or any(canvas.page.thing(ink.id) is not ink for ink in inks):
            return  # something else was done meanwhile
        edits = {"shape": self._shapes, "maths": self._maths, "words": self._words}[kind](inks, answer)
        if not edits:
            if not by_itself:
                self.context.say(_("Nothing was made out in it; it stays as ink."))
            return
        box = union(ink.box() for ink in inks)
        if by_itself:
            likeliest, *edits = edits
            self._commit(lambda: msgspec.structs.replace(likeliest[1](), select=()))  # the pen writes on
        offers = [
            Offer(words, partial(self._take, make, by_itself), row, picture, hue_of(inks))
            for words, make, row, picture in edits[:MOST if not by_itself else MOST - 1]
        ]  # fmt: skip
        self.card = ReadingCard(canvas, box, offers, instead=by_itself)
        self.context.part("tag").hide()
        self.card.stayed.connect(partial(self._stay, by_itself))
        if not by_itself:
            self.card.choices[0].setFocus()

    def _take(self, make: Callable[[], Edit], instead: bool) -> None:
        self.put_away()
        if instead:
            self._undo()
        self._commit(make)

    def _stay(self, instead: bool) -> None:
        self.put_away()
        if instead:
            self._undo()

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

    def put_away(self) -> None:
        if self.card is not None:
            retire(self.card)
            self.card = None
            self.context.part("tag").refresh()

    # What is offered: words, what makes the edit, a row or a picture

    def _shapes(self, inks: list[Ink], answer: dict[str, Any]) -> list[Any]:
        page = self.context.canvas.page
        found = []
        for reading in answer["readings"]:
            picture = _in_square(reading)
            found.append((f"{_(SHAPES[reading['kind']])}?", partial(shaped, page, inks, reading), (), picture))
        return found

    def _maths(self, inks: list[Ink], answer: dict[str, Any]) -> list[Any]:
        page = self.context.canvas.page
        sources = [source for source in (answer["latex"], *answer["alternatives"]) if source]
        return [
            (
                source,
                partial(as_mathematics, page, inks, source, lambda thing: view_of(thing).extent(thing)),
                look(source),
                (),
            )
            for source in sources[:MOST]
        ]

    def _words(self, inks: list[Ink], answer: dict[str, Any]) -> list[Any]:
        page, words = self.context.canvas.page, answer["words"]
        if not words:
            return []
        plain = [word["text"] for word in words]
        variants = [plain]
        for k in sorted(range(len(words)), key=lambda k: words[k]["confidence"])[:MOST]:
            for other in words[k]["others"][: 5 if len(words) == 1 else 1]:
                variants.append([*plain[:k], other, *plain[k + 1 :]])
        most = 6 if len(words) == 1 else MOST + 1
        return [(" ".join(texts), partial(as_words, page, inks, words, texts), (), ()) for texts in variants[:most]]


def _in_square(reading: dict[str, Any]) -> tuple[tuple[float, float], ...]:
    """Its outline in a square of size 1, for its picture."""
    import math

    places = [tuple(place) for place in reading["vertices"]]
    kind = reading["kind"]
    if kind in ("circle", "ellipse"):
        (a, b), turn = reading["radii"], math.radians(reading["angle"])
        c, s = math.cos(turn), math.sin(turn)
        turns = [2 * math.pi * k / 40 for k in range(41)]
        places = [(a * math.cos(t) * c - b * math.sin(t) * s, a * math.cos(t) * s + b * math.sin(t) * c) for t in turns]
    elif kind == "star":
        places = [places[(2 * k) % 5] for k in range(6)]
    elif kind not in ("line", "arrow", "arc", "angle"):
        places = [*places, places[0]]
    x0, x1 = min(x for x, _y in places), max(x for x, _y in places)
    y0, y1 = min(y for _x, y in places), max(y for _x, y in places)
    size = max(x1 - x0, y1 - y0) or 1.0
    dx, dy = (size - (x1 - x0)) / 2, (size - (y1 - y0)) / 2
    return tuple(((x - x0 + dx) / size, (y - y0 + dy) / size) for x, y in places)
