"""Pictures that lie damaged in the folder, and disks that are full while something is exported."""

from __future__ import annotations

import errno
import time
from pathlib import Path

import pytest

from larch.board.export import Asked, ExportError, export
from larch.core.base.disk import DiskFile
from larch.core.files.lesson_file import read_lesson, write_lesson
from larch.core.files.rich_html import read_html
from larch.core.media.store import Media, store
from larch.core.model.lesson import Lesson, blank_lesson
from larch.core.things.pictures.picture import Picture
from larch.core.things.words.text import Text

PNG = b"\x89PNG\r\n\x1a\n river lantern night"


def with_picture(name: str) -> Lesson:
    lesson = blank_lesson()
    return lesson.with_page(lesson.pages[0].put(Picture(media=name)))


def start_anew(folder: Path) -> None:
    """As another process would find the folder."""
    store.__dict__.update(Media(folder, store._other).__dict__)


@pytest.fixture(autouse=True)
def own_store(tmp_path: Path) -> object:
    before = store.__dict__.copy()
    start_anew(tmp_path / "media")
    yield
    store.__dict__.update(before)


@pytest.mark.parametrize("spoilt", [b"", PNG[:12], PNG + b"x"])
def test_a_damaged_copy_of_a_picture_never_wins_over_the_good_one(tmp_path: Path, spoilt: bytes) -> None:
    name = store.keep(PNG, "png")
    path = tmp_path / "river.larch"
    assert write_lesson(with_picture(name), path) == []
    for spoil_first in (True, False):
        (tmp_path / "media" / name).write_bytes(spoilt)
        start_anew(tmp_path / "media")
        if spoil_first:  # opened, then saved
            opened = read_lesson(path)
            assert opened.losses == ()
            assert store.data(name) == PNG
            (tmp_path / "media" / name).write_bytes(spoilt)
            start_anew(tmp_path / "media")
        assert write_lesson(with_picture(name), path) == []  # what only the file has is taken over from it
        assert read_lesson(path).losses == ()


def test_a_picture_that_is_nowhere_is_said_when_saving(tmp_path: Path) -> None:
    assert write_lesson(with_picture("0" * 64 + ".png"), tmp_path / "river.larch") == ["0" * 64 + ".png"]


@pytest.mark.parametrize("kind", ["pdf", "png", "svg"])
def test_a_full_disk_leaves_the_export_that_was_there(qapp: object, tmp_path: Path, kind: str, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    lesson = blank_lesson()
    page = lesson.pages[0].put(Text(text="lanterns"))
    target = tmp_path / f"river.{kind}"
    assert export(Asked([page]), target) == [target]
    before = target.read_bytes()

    def full(_file: DiskFile, _data: bytes) -> int:
        raise OSError(errno.ENOSPC, "No space left on device")

    monkeypatch.setattr(DiskFile, "write", full)
    with pytest.raises(ExportError, match="No space left"):
        export(Asked([page]), target)
    monkeypatch.undo()
    assert target.read_bytes() == before
    assert [path.name for path in tmp_path.iterdir() if path.name.startswith(".")] == []


@pytest.mark.parametrize(
    "source", ["<script " * 300_000, "<![<![", "<b>" * 1_000_000, "<!--" * 500_000, "<p>a &lt; b</p>" * 350_000]
)
def test_what_is_pasted_never_holds_up_the_window(source: str) -> None:
    began = time.perf_counter()
    read_html(source)
    assert time.perf_counter() - began < 0.3  # 0.05 on a machine that does nothing else
