"""Undo and redo over whole lessons, which share everything that did not change."""

from __future__ import annotations

from collections.abc import Callable

from msgspec import Struct

from larch.core.model.lesson import Lesson

MERGE_SECONDS = 1.0
DEEPEST = 2000


class Step(Struct, frozen=True):
    """One step of undo. `page` is the id of the page it happened on, "" for the lesson."""

    label: str
    before: Lesson
    after: Lesson
    page: str = ""
    merge: str = ""
    time: float = 0.0


class History:
    """Steps done and undone.

    Merging: a step joins the one before it if both carry the same non-empty key, nothing was undone
    in between, and it comes within MERGE_SECONDS by the injected clock.
    """

    def __init__(self, clock: Callable[[], float]) -> None:
        self._clock = clock
        self.done: list[Step] = []
        self.undone: list[Step] = []

    def add(self, step: Step) -> None:
        now = self._clock()
        last = self.done[-1] if self.done else None
        joins = last is not None and step.merge and last.merge == step.merge and not self.undone
        if joins and last is not None and now - last.time <= MERGE_SECONDS:
            self.done[-1] = Step(last.label, last.before, step.after, step.page, step.merge, now)
        else:
            self.done.append(Step(step.label, step.before, step.after, step.page, step.merge, now))
            del self.done[:-DEEPEST]
        self.undone.clear()

    def undo(self) -> Step | None:
        if not self.done:
            return None
        self.undone.append(self.done.pop())
        return self.undone[-1]

    def redo(self) -> Step | None:
        if not self.undone:
            return None
        self.done.append(self.undone.pop())
        return self.done[-1]
