"""Things that run: what they look like now is painted when it changes, on whatever page they are, without edits."""

from __future__ import annotations

from collections.abc import Callable
from typing import Protocol

from PyQt6.QtCore import QObject, QTimer, pyqtSignal

from larch.core.base.memo import remember
from larch.core.model.capabilities import Sounds, Ticks
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.services.clock import clock

LONGEST = 3600.0  # seconds until it is looked again, should the clock be set in between
EARLY = 0.002  # seconds by which a timer may come too soon


@remember
def runners(page: Page) -> tuple[Ticks, ...]:
    """The things of a page that may run."""
    return tuple(thing for thing in page.things if isinstance(thing, Ticks))


def at_present(thing: Thing) -> Thing:
    """A thing as it is by the clock, if it is one that runs."""
    return thing.as_of(clock.now()) if isinstance(thing, Ticks) else thing


class Showing(Protocol):
    """What shows a page."""

    def tick(self, ids: set[str]) -> None:
        """These things of the page that is shown look different by now."""
        ...


class Ticking(QObject):
    """One timer for the whole lesson, set to when something next changes; none while all rests."""

    sounded = pyqtSignal(str)

    def __init__(self, showing: Showing, lesson: Callable[[], Lesson], page_id: Callable[[], str], parent: QObject) -> None:
        super().__init__(parent)
        self._showing, self._lesson, self._page_id = showing, lesson, page_id
        self._timer = QTimer(self)
        self._timer.setSingleShot(True)
        self._timer.timeout.connect(self._tick)
        self._looked = clock.now()

    @property
    def resting(self) -> bool:
        return not self._timer.isActive()

    def look(self) -> None:
        """The lesson has changed: sets the timer anew, or stops it."""
        now = clock.now()
        if self.resting:
            self._looked = now
        times = [
            time for page in self._lesson().pages.ready() for thing in runners(page)
            if (time := thing.next_change(now)) is not None
        ]  # fmt: skip
        if times:
            self._timer.start(max(1, round((min(min(times), now + LONGEST) - now + EARLY) * 1000)))
        else:
            self._timer.stop()

    def stop(self) -> None:
        self._timer.stop()

    def _tick(self) -> None:
        now, before = clock.now(), self._looked
        self._looked = now
        for page in self._lesson().pages.ready():
            due = [t for t in runners(page) if (when := t.next_change(before)) is not None and when <= now]
            for thing in due:
                after = thing.as_of(now)
                if isinstance(after, Sounds):
                    for name in after.sounds_since(thing.as_of(before)):
                        self.sounded.emit(name)
            if due and page.id == self._page_id():
                self._showing.tick({thing.id for thing in due})
        self.look()
