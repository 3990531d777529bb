"""A session: the lesson as it stands, its history, its journal, and who wants to hear of changes."""

from __future__ import annotations

from collections.abc import Callable

from larch.core.base.whole_text import mended, whole
from larch.core.figures.settle import settle_lesson
from larch.core.model.edit import Changes, Edit, changed_pages, changes_between
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.session.history import History, Step

Observer = Callable[[Changes], None]
Recorder = Callable[[str, Lesson, Lesson], None]


class Session:
    """Commits edits and settles what follows. `recorder` (the journal) is told of every change before any observer is."""

    def __init__(self, lesson: Lesson, clock: Callable[[], float], recorder: Recorder | None = None) -> None:
        self.lesson = settle_lesson(lesson)
        self.history = History(clock)
        self.recorder = recorder
        self.revision = 0
        self._observers: list[Observer] = []

    def subscribe(self, observer: Observer) -> Callable[[], None]:
        """Calls `observer` after every change; returns the way to stop that."""
        self._observers.append(observer)
        return lambda: self._observers.remove(observer)

    def page(self, id: str) -> Page | None:
        return self.lesson.page(id)

    def commit(self, edit: Edit) -> Changes:
        """Applies an edit. An empty one changes nothing and leaves no step."""
        if edit.is_empty():
            return Changes({}, frozenset(), False)
        after = settle_lesson(edit.apply(self.lesson), self.lesson)
        page = edit.after.id if isinstance(edit.after, Page) else ""
        before = self.lesson
        after = self._kept(edit.label, after)
        self.history.add(Step(edit.label, before, after, page, edit.merge))
        return self._become(after)

    def undo(self) -> Step | None:
        step = self.history.undo()
        if step is not None:
            self._become(self._kept(f"undo {step.label}", step.before))
        return step

    def redo(self) -> Step | None:
        step = self.history.redo()
        if step is not None:
            self._become(self._kept(f"redo {step.label}", step.after))
        return step

    def _kept(self, label: str, lesson: Lesson) -> Lesson:
        """Tells the recorder. Returns the lesson, without half characters: no file could hold them."""
        if self.recorder is not None:
            try:
                self.recorder(label, self.lesson, lesson)
            except UnicodeEncodeError:
                lesson = _whole(self.lesson, lesson)
                self.recorder(whole(label), self.lesson, lesson)
        return lesson

    def _become(self, lesson: Lesson) -> Changes:
        before, self.lesson = self.lesson, lesson
        self.revision += 1
        changes = changes_between(before, lesson)
        for observer in list(self._observers):
            observer(changes)
        return changes


def _whole(before: Lesson, lesson: Lesson) -> Lesson:
    """What changed since `before`, with every text made whole."""
    for _was, page in changed_pages(before, lesson):
        lesson = lesson.with_page(mended(page))
    return lesson.replace(title=whole(lesson.title))
