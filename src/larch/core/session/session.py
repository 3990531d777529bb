"""A session: the lesson as it stands, its history, its journal, and who wants to hear of changes."""

from __future__ import annotations

from collections.abc import Callable

from larch.core.base.bounds import MOST_PAGES, MOST_THINGS
from larch.core.base.memo import forget_derived
from larch.core.base.signs import signs_in_use, use_signs
from larch.core.base.whole_text import mended, whole
from larch.core.base.words import _
from larch.core.figures.settle import settle_lesson
from larch.core.model.edit import Changes, Edit, changed_pages, changes_between
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.session.history import History, Step

Observer = Callable[[Changes], None]
Recorder = Callable[[str, Lesson, Lesson], None]


class Session:
    """Commits edits and settles what follows. `recorder` (the journal) is told of every change before any observer is;
    `drafter` of what is being typed."""

    def __init__(self, lesson: Lesson, clock: Callable[[], float], recorder: Recorder | None = None) -> None:
        use_signs(lesson.signs)
        self.lesson = settle_lesson(lesson)
        self.history = History(clock)
        self.recorder = recorder
        self.drafter: Callable[[Lesson, Lesson], None] | None = None
        self.refused: Callable[[str], object] | None = None  # told why an edit was not taken
        self.revision = 0
        self._observers: list[Observer] = []

    def subscribe(self, observer: Observer) -> Callable[[], None]:
        """Calls `observer` after every change; returns the way to stop that."""
        self._observers.append(observer)
        return lambda: self._observers.remove(observer)

    def page(self, id: str) -> Page | None:
        return self.lesson.page(id)

    def commit(self, edit: Edit) -> Changes:
        """Applies an edit. An empty one changes nothing and leaves no step; nor does one that is too much: `refused` is
        told why."""
        if edit.is_empty():
            return Changes({}, frozenset(), False)
        before = self.lesson
        after = edit.apply(before)
        too_much = _too_much(before, after)
        if too_much:
            if self.refused is not None:
                self.refused(too_much)
            return Changes({}, frozenset(), False)
        if after.signs != before.signs:
            _write_with(after)
        after = settle_lesson(after, before if after.signs == before.signs else None)
        page = edit.after.id if isinstance(edit.after, Page) else ""
        after = self._kept(edit.label, after)
        self.history.add(Step(edit.label, before, after, page, edit.merge))
        return self._become(after)

    def draft(self, edit: Edit | None) -> None:
        """Tells the journal what would be committed if typing ended now; None if nothing."""
        if self.drafter is None:
            return
        after = self.lesson if edit is None else edit.apply(self.lesson)
        try:
            self.drafter(self.lesson, after)
        except UnicodeEncodeError:
            self.drafter(self.lesson, _whole(self.lesson, after))

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
        if lesson.signs != signs_in_use():
            _write_with(lesson)
        self.revision += 1
        changes = changes_between(before, lesson)
        for observer in list(self._observers):
            observer(changes)
        return changes


def _write_with(lesson: Lesson) -> None:
    """Takes a lesson's signs into use; what was derived with others is forgotten."""
    use_signs(lesson.signs)
    forget_derived()


def _too_much(before: Lesson, after: Lesson) -> str:
    """Why a lesson would hold more than it may; "" if it wouldn't, or did before."""
    if len(after.pages) > max(MOST_PAGES, len(before.pages)):
        return _("A lesson can have up to {most} pages.").format(most=MOST_PAGES)
    for was, page in changed_pages(before, after):
        if len(page.things) > max(MOST_THINGS, len(was.things) if was is not None else 0):
            return _("A page can hold up to {most} things.").format(most=MOST_THINGS)
    return ""


def _whole(before: Lesson, lesson: Lesson) -> Lesson:
    """What changed since `before`, with every text made whole."""
    for _was, page in changed_pages(before, lesson):
        lesson = lesson.with_page(mended(page))
    return lesson.replace(title=whole(lesson.title))
