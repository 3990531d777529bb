"""What no input may do to the window: be taken for markup, block it, end it, or be lost untold."""

from __future__ import annotations

import gc
import html
import os
import time
import weakref
from pathlib import Path

import pytest
from PyQt6.QtCore import QCoreApplication, QEvent
from PyQt6.QtWidgets import QAbstractButton, QLabel, QWidget

from larch.board.paint import Care
from larch.core.actions.links import Link, opened_by
from larch.core.base.bounds import MANY, MOST_PAGES, MOST_THINGS
from larch.core.files.lesson_file import read_lesson, write_lesson
from larch.core.model.action import actions_for, put
from larch.core.model.edit import Edit
from larch.core.model.lesson import Lesson, blank_lesson
from larch.core.things.graphs.equation import Equation
from larch.core.things.numbers.block import Block
from larch.core.things.words.telling import known
from larch.core.things.words.text import Text
from larch.desk.media.following import _is_harmless
from larch.desk.window import Window
from larch.services.workspace import open_file, open_new

MARKUP = '<img src="file:///nowhere.png">'


def is_plain(text: str) -> bool:
    return "<" not in text or (text.startswith("<qt>") and MARKUP not in text)


def test_nothing_that_is_shown_is_taken_for_markup(window: Window) -> None:
    page = window.canvas.page
    things = tuple(thing.replace(name=MARKUP) for thing in page.things)
    named = page.replace(title=MARKUP, things=(*things, Text(id="t999", text=MARKUP)), next=1000)
    lesson = window.session.lesson
    window.session.commit(Edit("named", lesson, lesson.with_page(named).replace(title=MARKUP)))
    window.pages_changed()
    window.refresh_title()
    for name in ("layers", "shelf", "spread", "board"):
        window.run(name)
    window.canvas.select(["t999"])
    window.facts.want(True)
    window.notice.say(MARKUP)
    window.finder.open()
    window.finder.field.setText("img")
    seen = 0
    for widget in window.findChildren(QWidget):
        assert is_plain(widget.toolTip()), (widget, widget.toolTip())
        if isinstance(widget, QLabel) and MARKUP in widget.text():
            seen += 1
            assert widget.textFormat().name == "PlainText", widget
        if isinstance(widget, QAbstractButton) and MARKUP in widget.text():
            seen += 1
    assert seen >= 2
    assert html.escape(MARKUP) in "".join(widget.toolTip() for widget in window.findChildren(QWidget))


def test_half_an_emoji_is_kept_as_something_that_any_file_can_hold(window: Window) -> None:
    canvas = window.canvas
    canvas.commit(put(canvas.page, [Text(text="boat \ud83d"), Text(text="\ud83c\udfee lit")], "write \ud83d"))
    texts = [thing.text for thing in canvas.page.things if isinstance(thing, Text)][-2:]
    assert texts == ["boat \ufffd", "🏮 lit"]
    assert window.files.journal.flush()
    window.undo()
    window.undo(redo=True)
    assert [thing.text for thing in canvas.page.things if isinstance(thing, Text)][-2:] == texts


def test_what_is_too_much_is_said_and_changes_nothing(window: Window, said: list[str]) -> None:
    window.session.refused = said.append
    canvas = window.canvas
    before = window.session.lesson
    canvas.commit(put(canvas.page, [Block() for _ in range(MOST_THINGS)], "put"))
    assert said == [f"A page can hold up to {MOST_THINGS} things."]
    assert window.session.lesson is before
    many = before
    for _ in range(MOST_PAGES):
        many = many.insert(before.pages[0].replace(id="", things=()))
    window.session.commit(Edit("pages", before, many))
    assert said[1:] == [f"A lesson can have up to {MOST_PAGES} pages."]


def test_what_takes_long_is_done_beside_and_can_be_stopped(window: Window, qtbot: object) -> None:
    canvas = window.canvas
    window.pages.new()
    canvas.commit(put(canvas.page, [Text(text=f"boat {k}") for k in range(MANY + 200)], "put"))
    canvas.select([thing.id for thing in canvas.page.things])
    action = next(one for one in actions_for(canvas.page, canvas.things()) if one.name == "arrange row")
    before = canvas.page
    began = time.perf_counter()
    canvas.do(action)
    assert time.perf_counter() - began < 0.5
    assert "700 things" in window.notice.text()
    canvas.stop_working()
    canvas.do(action)
    qtbot.waitUntil(lambda: canvas.page is not before, timeout=30_000)  # type: ignore[attr-defined]
    tops = {round(thing.placement.y, 3) for thing in canvas.page.things}
    assert len(tops) == 1


@pytest.mark.parametrize("name", ["x.desktop", "x.command", "x.flatpakref", "x", "x.html", "x.svg", "x.PDF.sh"])
def test_a_link_opens_nothing_that_runs(tmp_path: Path, name: str) -> None:
    file = tmp_path / name
    file.write_text("[Desktop Entry]\nExec=true\n")
    assert opened_by(Link("file", str(file))) is None
    assert opened_by(Link("file", f"{file}/")) is None
    (tmp_path / "sheet.pdf").symlink_to(file)
    assert opened_by(Link("file", str(tmp_path / "sheet.pdf"))) is None


def test_a_program_that_is_called_a_picture_is_none(tmp_path: Path) -> None:
    program, words = tmp_path / "boat.png", tmp_path / "boat.txt"
    program.write_bytes(Path("/bin/true").read_bytes())
    words.write_text("a boat\n")
    assert not _is_harmless(Link("file", str(program)))
    assert _is_harmless(Link("file", str(words)))


def test_a_start_after_one_that_ended_while_painting_is_careful(window: Window, qtbot: object, tmp_path: Path) -> None:
    path = tmp_path / "river.larch"
    write_lesson(window.session.lesson, path)
    work = open_file(path)
    work.begin()  # and there it ended
    work.journal.close()
    work.place.leave()
    work = open_file(path)
    assert work.careful
    window.take(work)
    assert Care.on
    assert "left out for now" in window.notice.text()
    window.notice._pressed()
    assert not Care.on
    qtbot.waitUntil(lambda: not (work.folder / "beginning").exists())  # type: ignore[attr-defined]


def test_a_file_that_could_not_be_read_whole_is_kept_when_it_is_saved(tmp_path: Path) -> None:
    import zipfile

    path = tmp_path / "river.larch"
    lesson: Lesson = blank_lesson()
    write_lesson(lesson.insert(lesson.pages[0].replace(id="")), path)
    spoilt = tmp_path / "spoilt.larch"
    with zipfile.ZipFile(path) as old, zipfile.ZipFile(spoilt, "w") as new:
        for name in old.namelist():
            new.writestr(name, b"{" if name == "pages/p2.json" else old.read(name))
    os.replace(spoilt, path)
    work = open_file(path)
    assert work.notes == ["Page 2 is damaged and was left out."]
    work.begin()
    told = work.save(work.lesson, path)
    work.close()
    assert "river 2.larch" in told.notes[0]
    assert len(read_lesson(tmp_path / "river 2.larch").losses) == 1
    assert read_lesson(path).losses == ()


def test_a_full_disk_goes_on_being_said(window: Window) -> None:
    window.files._disk_trouble(OSError(28, "No space left on device"))
    refused = window.notice.text()
    window.notice.say("Rolled a 3.")
    assert window.notice.text() == "Rolled a 3."
    window.notice._pass()
    assert window.notice.text() == refused
    window.files._disk_trouble(None)
    window.notice._pass()
    assert not window.notice.isVisible()


def test_the_window_says_once_that_it_could_not_keep_all(window: Window) -> None:
    window.files.journal.refused = True
    assert not window.close()
    assert "close again" in window.notice.text()
    window.files.journal.refused = False
    assert open_new(blank_lesson()).notes == []


def test_the_page_that_is_shown_may_be_thrown_away_in_the_spread(window: Window) -> None:
    window.show_page("p3")
    window.run("spread")
    window.spread.do("delete")
    assert window.session.lesson.page(window.canvas.page_id) is window.canvas.page
    window.turn(1)
    assert window.canvas.page_id == "p5"


def test_a_lesson_that_has_been_left_is_let_go(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    """Else a day at the Board fills the memory."""
    for page in window.session.lesson.pages:
        window.show_page(page.id)
        things = window.canvas.page.things
        window.canvas.select([things[0].id] if things else [])
        window.facts.want(True)
        assert known(window.canvas.page) is not None
    window.canvas.commit(put(window.canvas.page, [Equation(source="y = 2 +")], "write"))
    window.editors.edit(window.canvas.page.things[-1])
    window.editors.finish()
    for card in ("layers", "steps"):
        window.show_card(card)
    window.run("spread")
    left = [weakref.ref(page) for page in window.session.lesson.pages]
    canvas = weakref.ref(window.canvas)
    window.files.demo_afresh()
    window.facts.refresh()
    assert all(page.id != "" for page in window.session.lesson.pages)

    def gone() -> bool:
        QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)
        gc.collect()
        return canvas() is None and not any(page() for page in left)

    qtbot.waitUntil(gone, timeout=10_000)
