"""Opening and keeping work: which journal belongs to what, and that nothing is ever lost between windows."""

from __future__ import annotations

import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from larch.core.files.lesson_file import LessonFileError, read_lesson, write_lesson
from larch.core.model.action import put
from larch.core.model.lesson import Lesson, blank_lesson
from larch.core.model.nibs import Pen
from larch.core.things.numbers.block import Block
from larch.services import desktop
from larch.services.places import journal_for, state_folder
from larch.services.recent import recent_lessons, remember_lesson
from larch.services.settings import Settings, load_settings, save_settings
from larch.services.work import OpenLesson
from larch.services.workspace import open_demo, open_file, open_new, open_unsaved, unsaved_folders


def worked(work: OpenLesson, edits: int = 1) -> Lesson:
    """Does some work and ends the program without saving."""
    journal = work.begin(lambda error: None)
    lesson = work.lesson
    for _ in range(edits):
        after = put(lesson.pages[0], [Block()], "put").apply(lesson)
        journal.record("put", lesson, after)
        lesson = after
    journal.close()
    work.close()
    return lesson


@pytest.fixture
def saved(tmp_path: Path) -> Path:
    path = tmp_path / "river.larch"
    write_lesson(blank_lesson(), path)
    return path


def test_unsaved_work_on_a_file_comes_back_again_and_again(saved: Path) -> None:
    lesson = worked(open_file(saved), 2)
    for _ in range(3):  # opened and closed without saving, it is still there
        work = open_file(saved)
        assert (work.lesson, work.brought_back) == (lesson, 2)
        worked(work, 0)


def test_two_windows_on_one_file_do_not_share_a_journal(saved: Path) -> None:
    first = open_file(saved)
    second = open_file(saved)
    assert first.folder != second.folder
    assert "another window" in second.notes[0]
    mine = worked(second)
    first.close()
    assert [open_unsaved(folder).lesson for folder in unsaved_folders()] == [mine]  # type: ignore[union-attr]


def test_what_was_done_during_the_first_save_is_found_in_its_file(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """Larch ends when the file is there, and before its own journal is."""
    work = open_new(blank_lesson())
    work.begin(None).settle_in()
    saved = put(work.lesson.pages[0], [Block()], "put").apply(work.lesson)
    work.record("put", work.lesson, saved)
    later = put(saved.pages[0], [Block()], "put").apply(saved)
    path = tmp_path / "river.larch"

    def meanwhile(*given: Any) -> list[str]:
        work.record("put", saved, later)
        return write_lesson(*given)

    def ended(*_given: Any) -> None:
        raise OSError(5, "ended here")

    monkeypatch.setattr("larch.services.work.write_lesson", meanwhile)
    monkeypatch.setattr(work, "_move", ended)
    with pytest.raises(OSError, match="ended here"):
        work.save(saved, path)
    work.journal.flush()
    work.place.leave()
    again = open_file(path)
    assert (again.lesson, again.brought_back) == (later, 1)
    assert again.path == path


def test_new_lessons_are_found_newest_first_and_empty_ones_are_cleared_away() -> None:
    worked(open_new(blank_lesson()), 0)
    older = worked(open_new(blank_lesson()), 1)
    newer = worked(open_new(blank_lesson()), 3)
    folders = unsaved_folders()
    found = [open_unsaved(folder) for folder in folders]
    assert [work.lesson for work in found if work] == [newer, older]
    for work in found:
        assert work is not None
        work.close()


def test_a_lesson_in_use_is_not_offered_to_another_window() -> None:
    work = open_new(blank_lesson())
    journal = work.begin(lambda error: None)
    journal.record("put", work.lesson, put(work.lesson.pages[0], [Block()], "put").apply(work.lesson))
    journal.flush()
    assert unsaved_folders() == []
    journal.close()
    work.close()
    assert len(unsaved_folders()) == 1


def test_unsaved_work_survives_the_loss_of_its_file(saved: Path) -> None:
    lesson = worked(open_file(saved))
    saved.unlink()
    with pytest.raises(LessonFileError, match="no file"):
        open_file(saved)
    (folder,) = unsaved_folders()
    work = open_unsaved(folder)
    assert work is not None
    assert (work.lesson, work.path) == (lesson, None)
    work.close()


def test_the_demo_keeps_what_was_done_and_can_begin_anew() -> None:
    done = worked(open_demo(blank_lesson))
    again = open_demo(blank_lesson)
    assert again.lesson == done
    worked(again, 0)
    fresh = open_demo(blank_lesson, anew=True)
    assert fresh.lesson == blank_lesson()
    fresh.close()
    assert len(unsaved_folders()) == 1


def test_a_damaged_journal_is_no_reason_not_to_open(saved: Path) -> None:
    worked(open_file(saved))
    folder = journal_for(saved)
    for file in folder.iterdir():
        file.write_bytes(b"broken")
    work = open_file(saved)
    assert work.lesson == blank_lesson()
    assert "can't be read" in work.notes[0]
    worked(work)
    (evidence,) = folder.parent.glob("damaged-*")
    assert {file.read_bytes() for file in evidence.iterdir()} == {b"broken"}
    assert unsaved_folders() == [folder]


@pytest.mark.parametrize("ending", ["larch", "copy.larch", "log", "mirror"])
@pytest.mark.parametrize("spoil", [lambda data: b"", lambda data: data[: len(data) // 2],
                                   lambda data: data[:90] + bytes([data[90] ^ 4]) + data[91:]])  # fmt: skip
def test_any_one_file_may_be_damaged(saved: Path, ending: str, spoil: Callable[[bytes], bytes]) -> None:
    lesson = worked(open_file(saved), 3)
    worked(open_file(saved), 0)  # begun anew, with edits that no file has
    (file,) = journal_for(saved).glob(f"*[0-9].{ending}")
    file.write_bytes(spoil(file.read_bytes()))
    work = open_file(saved)
    assert (work.lesson, work.brought_back) == (lesson, 3)
    work.close()


def test_a_damaged_file_leaves_what_the_journal_has(saved: Path) -> None:
    lesson = worked(open_file(saved), 2)
    saved.write_bytes(b"PK broken")
    work = open_unsaved(unsaved_folders()[0]) or open_file(saved)
    assert work.lesson == lesson
    assert work.path is None
    assert "not a Larch lesson" in work.notes[0]
    worked(work)
    assert saved.read_bytes() == b"PK broken"
    assert len(unsaved_folders()) == 1


def test_two_windows_and_neither_save_is_lost(saved: Path) -> None:
    first, second = open_file(saved), open_file(saved)
    lessons = [put(work.lesson.pages[0], [Block(value=value)], "put").apply(work.lesson)
               for work, value in ((first, 1), (second, 100))]  # fmt: skip
    for work, lesson in zip((first, second), lessons, strict=True):
        work.begin()
        work.record("put", work.lesson, lesson)
    assert first.save(lessons[0], saved).notes == []
    told = second.save(lessons[1], saved)
    assert told.path == saved.with_name("river 2.larch")
    assert "both are kept" in told.notes[0]
    assert [read_lesson(path).lesson for path in (saved, told.path)] == lessons
    for work in (first, second):
        work.close()
    assert unsaved_folders() == []


def test_saving_over_a_lesson_keeps_what_was_unsaved_there(saved: Path, tmp_path: Path) -> None:
    other = tmp_path / "boats.larch"
    write_lesson(blank_lesson(), other)
    unsaved = worked(open_file(other), 2)
    work = open_file(saved)
    work.begin()
    work.save(work.lesson, other)
    work.close()
    (folder,) = unsaved_folders()
    again = open_unsaved(folder)
    assert again is not None
    assert again.lesson == unsaved
    again.close()


def test_a_clock_that_is_wrong_stops_nothing(saved: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    for year in (0, -(10**9), 10**11):
        monkeypatch.setattr("time.localtime", lambda *_a, year=year: real(year))
        lesson = worked(open_file(saved))
        work = open_file(saved)
        assert work.lesson == lesson
        work.begin()
        work.save(lesson, saved)
        work.close()


real = time.localtime


def test_settings_and_recent_lessons_are_kept(tmp_path: Path, saved: Path) -> None:
    assert load_settings() == Settings()
    save_settings(Settings("left", Pen("crayon", width=9.0, hue="moss"), tips={"pen 7": Pen()}))
    assert load_settings() == Settings("left", Pen("crayon", width=9.0, hue="moss"), tips={"pen 7": Pen()})
    (state_folder() / "settings.json").write_text('{"ledge": 7}')
    assert load_settings() == Settings()
    other = tmp_path / "other.larch"
    write_lesson(blank_lesson(), other)
    for path in (saved, other, saved):
        remember_lesson(path)
    assert recent_lessons() == [saved, other]
    other.unlink()
    assert recent_lessons() == [saved]
    (state_folder() / "recent.json").write_bytes(b"\xff")
    assert recent_lessons() == []


def test_a_state_folder_that_cannot_be_written_stops_nothing(monkeypatch: pytest.MonkeyPatch, saved: Path) -> None:
    monkeypatch.setenv("XDG_STATE_HOME", "/proc/nowhere")
    save_settings(Settings("top"))
    remember_lesson(saved)
    assert load_settings() == Settings()


def test_the_desktop_files_are_installed_and_removed(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("LARCH_HOME", str(Path(__file__).parents[2]))
    written = desktop.install()
    assert len(written) == 4
    entry = (tmp_path / "xdg_data_home/applications/larch.desktop").read_text()
    assert "larch.lesson+zip" in entry
    assert "@" not in entry
    from xml.etree import ElementTree

    for name in ("mime/packages/larch-mime.xml", "metainfo/larch.metainfo.xml", "icons/hicolor/scalable/apps/larch.svg"):
        ElementTree.parse(tmp_path / "xdg_data_home" / name)
    assert sorted(desktop.remove()) == sorted(written)
    assert desktop.remove() == []


def test_without_a_writable_folder_work_is_kept_elsewhere_and_said(monkeypatch: pytest.MonkeyPatch, saved: Path) -> None:
    monkeypatch.setenv("XDG_STATE_HOME", "/proc/nowhere")
    for work in (open_new(blank_lesson()), open_file(saved), open_demo(blank_lesson)):
        assert "found there next time" in work.notes[0]
        worked(work)
        assert work.folder.parent.stat().st_mode & 0o777 == 0o700
    assert len(unsaved_folders()) == 3


@pytest.mark.parametrize(("answer", "still"), [("false", True), ("true", False), ("", False)])
def test_the_desktop_is_asked_for_stillness(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, answer: str, still: bool
) -> None:
    from larch.services.motion import desktop_wants_stillness

    tool = tmp_path / "gsettings"
    tool.write_text(f"#!/bin/sh\necho {answer}\n")
    tool.chmod(0o755)
    monkeypatch.setenv("PATH", f"{tmp_path}:/usr/bin:/bin")
    assert desktop_wants_stillness() is still
    monkeypatch.setenv("PATH", str(tmp_path / "nothing"))
    assert desktop_wants_stillness() is False
