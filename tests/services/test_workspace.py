"""Opening and keeping work: which journal belongs to what, and that nothing is ever lost between windows."""

from __future__ import annotations

from pathlib import Path

import pytest

from larch.core.files.lesson_file import LessonFileError, write_lesson
from larch.core.model.action import put
from larch.core.model.lesson import Lesson, blank_lesson
from larch.core.model.nibs import Pen
from larch.core.things.numbers.block import Block
from larch.services import desktop
from larch.services.places import journal_for, state_folder
from larch.services.recent import recent_lessons, remember_lesson
from larch.services.settings import Settings, load_settings, save_settings
from larch.services.workspace import OpenLesson, open_demo, open_file, open_new, open_unsaved, unsaved_folders


def worked(work: OpenLesson, edits: int = 1) -> Lesson:
    """Does some work and ends the program without saving."""
    journal = work.journal(lambda error: None)
    lesson = work.lesson
    for _ in range(edits):
        after = put(lesson.pages[0], [Block()], "put").apply(lesson)
        journal.record("put", lesson, after)
        lesson = after
    journal.close()
    work.release()
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
    first.release()
    assert [open_unsaved(folder).lesson for folder in unsaved_folders()] == [mine]  # type: ignore[union-attr]


def test_new_lessons_are_found_newest_first_and_empty_ones_are_cleared_away() -> None:
    worked(open_new(blank_lesson()), 0)
    older = worked(open_new(blank_lesson()), 1)
    newer = worked(open_new(blank_lesson()), 3)
    folders = unsaved_folders()
    found = [open_unsaved(folder) for folder in folders]
    assert [work.lesson for work in found if work] == [newer, older]
    for work in found:
        assert work is not None
        work.release()


def test_a_lesson_in_use_is_not_offered_to_another_window() -> None:
    work = open_new(blank_lesson())
    journal = work.journal(lambda error: None)
    journal.record("put", work.lesson, put(work.lesson.pages[0], [Block()], "put").apply(work.lesson))
    journal.flush()
    assert unsaved_folders() == []
    journal.close()
    work.release()
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
    work.release()


def test_the_demo_keeps_what_was_done_and_can_begin_anew() -> None:
    done = worked(open_demo(blank_lesson))
    again = open_demo(blank_lesson)
    assert again.lesson == done
    worked(again, 0)
    fresh = open_demo(blank_lesson, anew=True)
    assert fresh.lesson == blank_lesson()
    fresh.release()
    assert len(unsaved_folders()) == 1


def test_a_damaged_journal_is_no_reason_not_to_open(saved: Path) -> None:
    worked(open_file(saved))
    folder = journal_for(saved)
    (folder / "lesson.larch").write_bytes(b"broken")
    (folder / "about.json").write_bytes(b"[")
    work = open_file(saved)
    assert work.lesson == blank_lesson()
    work.release()


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
        assert "may be lost" in work.notes[0]
        worked(work)
    assert unsaved_folders() == []


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
