"""The folder of the journal is taken away, or replaced by something else, while Larch is open."""

from __future__ import annotations

import shutil
import time
from pathlib import Path

import pytest

from larch.core.files import journal
from larch.core.files.journal import Gone, recover
from larch.core.media.store import store
from larch.core.model.lesson import Lesson, blank_lesson
from larch.services.places import media_folder, state_folder
from larch.services.work import OpenLesson
from larch.services.workspace import open_file, open_new, open_unsaved, unsaved_folders
from tests.samples import stroke


class Working:
    """A lesson that grows by a stroke an edit, and what is said of its journal."""

    def __init__(self, work: OpenLesson) -> None:
        self.work, self.lesson = work, work.lesson
        self.said: list[Exception | None] = []
        work.begin(self.said.append)

    def edit(self) -> Lesson:
        before = self.lesson
        page = before.pages[0]
        self.lesson = before.with_page(page.put(stroke(10.0 * len(page.things))))
        self.work.record("ink", before, self.lesson)
        return self.lesson

    def kept(self) -> bool:
        return self.work.journal.flush()


def strokes(work: OpenLesson) -> int:
    found = recover(work.folder)
    assert found is not None and not found.lost
    return len(found.lesson.pages[0].things)


def until(holds, seconds: float = 6.0) -> None:  # type: ignore[no-untyped-def]
    end = time.monotonic() + seconds
    while not holds():
        assert time.monotonic() < end, "it never came"
        time.sleep(0.01)


@pytest.mark.parametrize("which", [state_folder, lambda: state_folder() / "journals"])
def test_the_next_edit_writes_all_of_it_again(which) -> None:  # type: ignore[no-untyped-def]
    at = Working(open_new(blank_lesson(3)))
    for _k in range(5):
        at.edit()
    assert at.kept()
    if not which().exists():
        pytest.skip("the journals lie elsewhere")
    shutil.rmtree(which())
    at.edit()
    assert at.kept()
    assert strokes(at.work) == 6
    assert [type(error) for error in at.said] == [Gone]
    for _k in range(6):
        at.edit()
    assert at.kept() and strokes(at.work) == 12 and len(at.said) == 1
    at.work.close()


def test_it_is_noticed_without_an_edit_too(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(journal, "LOOK_EVERY", 0.05)
    at = Working(open_new(blank_lesson(3)))
    at.edit()
    assert at.kept()
    shutil.rmtree(state_folder())
    until(lambda: at.said)
    assert isinstance(at.said[0], Gone) and strokes(at.work) == 1
    at.work.close()
    (folder,) = unsaved_folders()
    again = open_unsaved(folder)
    assert again is not None and len(again.lesson.pages[0].things) == 1
    again.close()


def test_work_on_a_file_is_still_known_as_that_of_the_file(tmp_path: Path) -> None:
    first = Working(open_new(blank_lesson(3)))
    first.edit()
    first.work.save(first.lesson, tmp_path / "a.larch")
    first.edit()
    assert first.kept()
    shutil.rmtree(state_folder())
    first.edit()
    assert first.kept()
    first.work.close()
    again = open_file(tmp_path / "a.larch")
    assert len(again.lesson.pages[0].things) == 3 and again.brought_back
    again.close()


def test_pictures_that_are_held_are_written_again() -> None:
    store.folder = media_folder()
    at = Working(open_new(blank_lesson(3)))
    at.edit()
    name = store.keep(b"a picture of a raft", "png")
    assert at.kept() and (media_folder() / name).exists()
    shutil.rmtree(state_folder(), ignore_errors=True)
    shutil.rmtree(media_folder(), ignore_errors=True)
    at.edit()
    assert at.kept()
    assert (media_folder() / name).read_bytes() == b"a picture of a raft"
    at.work.close()


def test_nobody_else_takes_the_folder_that_was_made_again() -> None:
    from larch.services.journals import take

    at = Working(open_new(blank_lesson(3)))
    at.edit()
    assert at.kept()
    shutil.rmtree(state_folder())
    at.edit()
    assert at.kept()
    assert take(at.work.folder) is None
    at.work.close()
    freed = take(at.work.folder)
    assert freed is not None
    freed.leave()


def folder_instead(path: Path) -> None:
    path.unlink()
    path.mkdir()


def cut_off(path: Path) -> None:
    data = path.read_bytes()
    path.write_bytes(data[: data.index(b"\n", data.index(b"\n") + 1) + 1])  # the head and one edit stay


def emptied(path: Path) -> None:
    path.write_bytes(b"")


def scrambled(path: Path) -> None:
    path.write_bytes(bytes((7 * k) % 256 for k in range(500)))


def device_instead(path: Path) -> None:
    path.unlink()
    path.symlink_to("/dev/zero")


WAYS = (folder_instead, cut_off, emptied, scrambled, device_instead, Path.unlink)


@pytest.mark.parametrize("first", WAYS)
@pytest.mark.parametrize("second", WAYS)
def test_whatever_both_parts_of_a_journal_suffer_opening_says_what_is_lost(first, second, tmp_path: Path) -> None:  # type: ignore[no-untyped-def]
    at = Working(open_new(blank_lesson(3)))
    for _k in range(4):
        at.edit()
    assert at.kept()
    folder = at.work.folder
    at.work.close()
    first(next(folder.glob("*.log")))
    second(next(folder.glob("*.mirror")))
    assert folder in unsaved_folders()
    work = open_unsaved(folder)
    assert work is not None
    left = 1 if cut_off in (first, second) else 0
    assert len(work.lesson.pages[0].things) == left
    assert any(f"{4 - left} parts could not be read" in note for note in work.notes), work.notes
    again = Working(work)  # and it can be worked at
    again.edit()
    assert again.kept()
    work.close()
