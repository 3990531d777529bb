"""What a person does with lessons, one way of ending it after the other, and what must be found again."""

from __future__ import annotations

import contextlib
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

from larch.core.base.disk import another, disk
from larch.core.files import journal as journals
from larch.core.files.lesson_file import LessonFileError, read_lesson, write_lesson
from larch.core.media.store import Media, store
from larch.core.model.lesson import Lesson, blank_lesson
from larch.core.things.pictures.picture import Picture
from larch.core.things.words.text import Text
from larch.services import work as works
from larch.services.places import media_folder
from larch.services.work import OpenLesson
from larch.services.workspace import open_file, open_new, open_unsaved, unsaved_folders
from tests.faults.memory_disk import Killed, MemoryDisk

FILE, OTHER = Path("/school/river.larch"), Path("/school/boats.larch")
PNG = b"\x89PNG\r\n\x1a\n" + b"river lantern night" * 8


class Person:
    """Works at one lesson. `kept`: the words of which Larch has said that they are on disk."""

    def __init__(self) -> None:
        self.work: OpenLesson | None = None
        self.lesson = Lesson()
        self.kept: set[str] = set()
        self.made = 0

    def takes(self, work: OpenLesson) -> Person:
        self.work = work
        self.lesson = work.lesson
        work.begin(None, self.lesson).settle_in()
        return self

    def writes(self, acknowledged: bool = True) -> Person:
        self.made += 1
        word = f"word {self.made} of {id(self)}"
        page = self.lesson.pages[0].put(Text(text=word))
        return self._edit(self.lesson.with_page(page), {word} if acknowledged else set())

    def _edit(self, after: Lesson, words: set[str]) -> Person:
        assert self.work is not None
        self.work.record("write", self.lesson, after)
        self.lesson = after
        if words and self.work.journal.flush(0.15):
            self.kept |= words
        return self

    def brings_a_picture(self) -> Person:
        try:
            name = store.keep(PNG, "png")
        except OSError:
            return self
        return self._edit(self.lesson.with_page(self.lesson.pages[0].put(Picture(media=name))), {name})

    def saves(self, path: Path, meanwhile: Callable[[], object] = lambda: None) -> Person:
        """`meanwhile`: what is done between taking the lesson to be saved and its being written."""
        assert self.work is not None
        lesson = self.lesson
        meanwhile()
        with contextlib.suppress(OSError):
            self.work.save(lesson, path)
        return self

    def leaves(self) -> Person:
        assert self.work is not None
        self.work.close()
        return self


def new_lesson(person: Person) -> None:
    person.takes(open_new(blank_lesson())).writes().writes().leaves()


def left_open(person: Person) -> None:
    person.takes(open_new(blank_lesson())).writes().writes()


def first_save(person: Person) -> None:
    disk().make_folder(FILE.parent)
    person.takes(open_new(blank_lesson())).writes().saves(FILE, lambda: person.writes()).writes().leaves()


def edit_a_file(person: Person) -> None:
    _there(FILE)
    person.takes(open_file(FILE)).writes().saves(FILE).writes().leaves()


def save_during_edits(person: Person) -> None:
    _there(FILE)
    person.takes(open_file(FILE)).writes().saves(FILE, lambda: person.writes().writes()).writes().saves(FILE).writes()


def save_elsewhere(person: Person) -> None:
    _there(FILE)
    person.takes(open_file(FILE)).writes().saves(OTHER, lambda: person.writes()).writes().leaves()


def save_over_another(person: Person) -> None:
    """The other file has unsaved work of its own, which must not go."""
    _there(FILE)
    _there(OTHER)
    before = Person().takes(open_file(OTHER)).writes().leaves()
    person.kept_before = before.kept  # type: ignore[attr-defined]
    person.takes(open_file(FILE)).writes().saves(OTHER).writes().leaves()


def reopened(person: Person) -> None:
    _there(FILE)
    person.takes(open_file(FILE)).writes().leaves()
    person.takes(open_file(FILE)).writes().leaves()
    person.takes(open_file(FILE)).writes()


def two_windows(person: Person) -> None:
    _there(FILE)
    first = Person().takes(open_file(FILE)).writes()
    person.takes(open_file(FILE)).writes()
    first.saves(FILE)
    person.kept_before = first.kept  # type: ignore[attr-defined]
    person.saves(FILE).writes().leaves()


def with_media(person: Person) -> None:
    disk().make_folder(FILE.parent)
    person.takes(open_new(blank_lesson())).brings_a_picture().saves(FILE).writes().leaves()


def recovered(person: Person) -> None:
    disk().make_folder(FILE.parent)
    person.takes(open_new(blank_lesson())).writes().leaves()
    folder = next(iter(unsaved_folders()), None)
    work = open_unsaved(folder) if folder is not None else None
    if work is not None:
        person.takes(work).writes().saves(FILE).writes()


SCENARIOS = (
    new_lesson, left_open, first_save, edit_a_file, save_during_edits, save_elsewhere, save_over_another, reopened,
    two_windows, with_media, recovered,
)  # fmt: skip


def _there(path: Path) -> None:
    disk().make_folder(path.parent)
    write_lesson(blank_lesson(), path)


@contextlib.contextmanager
def on(memory: MemoryDisk) -> Iterator[None]:
    """Larch as one process on such a disk, impatient."""
    patience = (journals.RETRY_SECONDS, journals.SAVING_PATIENCE, works.MOVING_PATIENCE)
    journals.RETRY_SECONDS, journals.SAVING_PATIENCE, works.MOVING_PATIENCE = 0.002, 0.05, 0.1
    begun: list[journals.Journal] = []

    class Watched(journals.Journal):
        def __init__(self, folder: Path, *more: Any) -> None:
            super().__init__(folder, *more)
            begun.append(self)

    works.Journal = Watched  # type: ignore[misc]
    before = store.__dict__.copy()
    store.__dict__.update(Media(media_folder(), store._other).__dict__)
    try:
        with another(memory):
            yield
            memory.dead = True
            for one in begun:  # a thread that went on would meet the next disk
                one._stopping.set()
                one._queue.put(None)
                one._thread.join(30.0)
                assert not one._thread.is_alive()
    finally:
        works.Journal = journals.Journal  # type: ignore[misc]
        store.__dict__.clear()
        store.__dict__.update(before)
        journals.RETRY_SECONDS, journals.SAVING_PATIENCE, works.MOVING_PATIENCE = patience


def run(scenario: Callable[[Person], None], memory: MemoryDisk) -> Person:
    """Has it done, as far as the disk lets it."""
    person = Person()
    with on(memory), contextlib.suppress(Killed, OSError, LessonFileError):
        scenario(person)
    return person


def words_of(lesson: Lesson) -> set[str]:
    found = set()
    for page in lesson.pages:
        for thing in page.things:
            if isinstance(thing, Text):
                found.add(thing.text)
            elif isinstance(thing, Picture) and store.data(thing.media) == PNG:
                found.add(thing.media)
    return found


def everything(memory: MemoryDisk) -> list[set[str]]:
    """The words of each lesson that can be had: by opening the files, and by plain starts."""
    with on(memory):
        found = []
        opened = []
        for path in (FILE, OTHER, FILE.with_name("river 2.larch")):
            with contextlib.suppress(LessonFileError):
                opened.append(open_file(path))
        opened += [work for folder in unsaved_folders() if (work := open_unsaved(folder)) is not None]
        for work in opened:
            found.append(words_of(work.lesson))
            work.close()
        with contextlib.suppress(LessonFileError):
            found.append(words_of(read_lesson(FILE).lesson))
        return found
