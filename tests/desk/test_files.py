"""Lessons opened, saved, found again after a crash, exported: through the real window."""

from __future__ import annotations

from pathlib import Path

from larch.core.files.lesson_file import read_lesson
from larch.core.model.action import put
from larch.core.model.capabilities import IsInk
from larch.desk.app import work_to_open
from larch.desk.window import Window
from larch.services.workspace import unsaved_folders
from tests.samples import stroke


def save_to(window: Window, path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    window.files.save_to(path)
    qtbot.waitUntil(lambda: not window.files._saving, timeout=10_000)


def reopened(path: Path | None = None, demo: bool = False) -> Window:
    made = Window(work_to_open(path, demo))
    made.canvas.still = True
    return made


def test_saved_work_opens_and_unsaved_work_comes_back_unasked(window: Window, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "river.larch"
    window.canvas.commit(put(window.canvas.page, [stroke()], "ink"))
    save_to(window, path, qtbot)
    assert not window.files.modified
    assert read_lesson(path).lesson == window.session.lesson
    window.canvas.commit(put(window.canvas.page, [stroke(300)], "ink"))
    assert window.heading.text().endswith("•")
    lesson = window.session.lesson
    window.close()
    again = reopened(path)
    assert again.session.lesson == lesson
    assert "Brought back 1 change" in again.notice.text()
    assert again.files.modified
    again.close()
    third = reopened()  # without a file: the newest work that is in no file
    assert third.session.lesson == lesson
    assert third.files.path == path
    save_to(third, path, qtbot)
    third.close()
    assert unsaved_folders() == []


def test_unsaved_demo_work_comes_back_and_can_begin_afresh(window: Window) -> None:
    window.canvas.commit(put(window.canvas.page, [stroke()], "ink"))
    lesson = window.session.lesson
    window.close()
    again = reopened(demo=True)
    assert again.session.lesson == lesson
    again.files.demo_afresh()
    assert again.session.lesson != lesson
    again.close()
    assert len(unsaved_folders()) == 1


def test_a_file_changed_elsewhere_is_not_overruled_and_nothing_is_lost(window: Window, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    from larch.core.files.lesson_file import write_lesson
    from larch.core.model.lesson import blank_lesson

    path = tmp_path / "river.larch"
    save_to(window, path, qtbot)
    window.canvas.commit(put(window.canvas.page, [stroke(300)], "ink"))
    mine = window.session.lesson
    window.close()
    write_lesson(blank_lesson(), path)
    again = reopened(path)
    assert again.session.lesson == blank_lesson()
    assert "kept as a lesson of its own" in again.notice.text()
    again.close()
    kept = reopened()
    assert kept.session.lesson == mine
    assert kept.files.path is None
    kept.close()


def test_opening_a_broken_file_changes_nothing(window: Window, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    path = tmp_path / "broken.larch"
    path.write_bytes(b"nothing")
    lesson = window.session.lesson
    window.files.open(path)
    qtbot.waitUntil(lambda: "not a Larch lesson" in window.notice.text(), timeout=5000)
    assert window.session.lesson is lesson


def test_a_failed_save_says_so_and_loses_nothing(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    window.files.save_to(Path("/proc/nowhere/river.larch"))
    qtbot.waitUntil(lambda: "could not be saved" in window.notice.text(), timeout=5000)
    assert window.files.path is None


def test_back_to_the_saved_lesson_can_be_undone(window: Window, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    save_to(window, tmp_path / "a.larch", qtbot)
    window.canvas.commit(put(window.canvas.page, [stroke()], "ink"))
    changed = window.session.lesson
    window.files.back_to_saved()
    qtbot.waitUntil(lambda: window.session.lesson is not changed, timeout=5000)
    assert not any(isinstance(t, IsInk) for t in window.canvas.page.things)
    window.undo()
    assert window.session.lesson is changed


def test_export_runs_beside_the_interface(window: Window, tmp_path: Path, qtbot) -> None:  # type: ignore[no-untyped-def]
    window.files.export_to(tmp_path / "night.pdf")
    qtbot.waitUntil(lambda: "Exported as night.pdf" in window.notice.text(), timeout=20_000)
    assert (tmp_path / "night.pdf").stat().st_size > 10_000
