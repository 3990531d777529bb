"""A monkey at the real window: random events on real pages. Nothing may be raised, and after each step the page holds
together and the journal holds the lesson."""

from __future__ import annotations

import contextlib
import json
import random
import sys
import traceback
from collections.abc import Iterator
from itertools import zip_longest
from types import TracebackType
from typing import Any

from PyQt6.QtCore import QPoint, Qt, QTimer
from PyQt6.QtPrintSupport import QPrintDialog
from PyQt6.QtTest import QTest as Test
from PyQt6.QtWidgets import QAbstractButton, QApplication, QFileDialog, QInputDialog

from larch.core.files.codec import page_to_json, thing_to_json
from larch.core.files.journal import recover
from larch.core.model.lesson import Lesson
from larch.desk.window import Window
from larch.services import log

QTest: Any = Test  # its stubs take its functions for methods
LEFT_ALONE = {"quit", "print", "open", "log", "demo"}  # commands that end it, or hand over to another program
KEYS = [Qt.Key.Key_Return, Qt.Key.Key_Escape, Qt.Key.Key_Tab, Qt.Key.Key_Backtab, Qt.Key.Key_Delete, Qt.Key.Key_Backspace,
        Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Left, Qt.Key.Key_Right, Qt.Key.Key_Home, Qt.Key.Key_End, Qt.Key.Key_Space,
        Qt.Key.Key_F2, Qt.Key.Key_F6, *range(Qt.Key.Key_A, Qt.Key.Key_Z), *range(Qt.Key.Key_0, Qt.Key.Key_9)]  # fmt: skip
NONE, CTRL, SHIFT = (
    Qt.KeyboardModifier.NoModifier, Qt.KeyboardModifier.ControlModifier, Qt.KeyboardModifier.ShiftModifier,
)  # fmt: skip
HELD = [NONE, NONE, NONE, NONE, CTRL, SHIFT, Qt.KeyboardModifier.AltModifier, CTRL | SHIFT]
TYPED = ("3", "3 4 5", "1/0", "{AB}", "a<b>c", "🏮", "x^2", "-1", "90°", "", "lantern", "1e309", "= 2")
LEFT, RIGHT = Qt.MouseButton.LeftButton, Qt.MouseButton.RightButton


class Stumble(Exception):
    """Something was raised, or does not hold; the message says what, and after which steps."""


class Monkey:
    """Works with a seed; the same seed does the same."""

    def __init__(self, window: Window, seed: int) -> None:
        self.window = window
        self.rnd = random.Random(seed)
        self.steps: list[str] = []
        self.raised: list[str] = []

    def run(self, steps: int, every: int = 1) -> None:
        """Raises Stumble. every: steps after which the journal is compared."""
        with self._watched():
            for number in range(1, steps + 1):
                try:
                    self.step()
                except Exception as error:
                    self.raised.append("".join(traceback.format_exception(error, limit=-8)))
                if self.raised:
                    self._stumble(self.raised[0])
                self.check()
                if number % every == 0:
                    self.check_journal()

    def _stumble(self, why: str) -> None:
        raise Stumble(f"{why}\nafter: " + " · ".join(self.steps[-12:]))

    @contextlib.contextmanager
    def _watched(self) -> Iterator[None]:
        before = sys.excepthook

        def raised(kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
            self.raised.append("".join(traceback.format_exception(kind, error, trace, limit=-8)))

        def asked(*_a: Any, **_k: Any) -> tuple[str, bool]:
            return self.rnd.choice(TYPED), self.rnd.random() < 0.7

        replaced: tuple[tuple[Any, str, Any], ...] = ((QInputDialog, "getText", asked), (QInputDialog, "getItem", asked),
                    (QPrintDialog, "exec", lambda *_a: 0), (QFileDialog, "getOpenFileName", lambda *_a, **_k: ("", "")),
                    (QFileDialog, "getOpenFileNames", lambda *_a, **_k: ([], "")),
                    (QFileDialog, "getSaveFileName", lambda *_a, **_k: ("", "")))  # fmt: skip
        kept = [(owner, name, getattr(owner, name)) for owner, name, _new in replaced]
        for owner, name, new in replaced:
            setattr(owner, name, staticmethod(new))
        unlisten = log.listen(lambda error: self.raised.append(repr(error)))
        sys.excepthook = raised
        closer = QTimer()
        closer.timeout.connect(self._close_what_is_open)
        closer.start(30)
        try:
            yield
        finally:
            closer.stop()
            sys.excepthook = before
            unlisten()
            for owner, name, old in kept:
                setattr(owner, name, old)

    def _close_what_is_open(self) -> None:
        """A menu or a dialog waits for someone: it gets a key or two, then it goes."""
        for asks in (QApplication.activePopupWidget(), QApplication.activeModalWidget()):
            if asks is not None:
                key = self.rnd.choice([Qt.Key.Key_Down, Qt.Key.Key_Down, Qt.Key.Key_Return, Qt.Key.Key_Escape])
                QTest.keyClick(asks, key)
                if self.rnd.random() < 0.3:
                    asks.close()
                return

    # What it does

    def step(self) -> None:
        ways = (self.click, self.click, self.drag, self.drag, self.key, self.key, self.command, self.press_button, self.tool,
                self.type, self.wheel, self.turn_page, self.select, self.act, self.press_tag)  # fmt: skip
        way = self.rnd.choice(ways)
        self.steps.append(way.__name__)
        way()
        QApplication.processEvents()

    def _say(self, more: object) -> None:
        self.steps[-1] += f" {more}"

    def _place(self) -> QPoint:
        canvas = self.window.canvas
        things = canvas.page.things
        if things and self.rnd.random() < 0.7:
            box = canvas.camera.box_to_view(self.rnd.choice(things).box())
            spot = QPoint(int(self.rnd.uniform(box.x0 - 6, box.x1 + 6)), int(self.rnd.uniform(box.y0 - 6, box.y1 + 6)))
            if canvas.rect().contains(spot):
                return spot
        return QPoint(self.rnd.randrange(canvas.width()), self.rnd.randrange(canvas.height()))

    def click(self) -> None:
        at, button = self._place(), self.rnd.choice((LEFT, LEFT, LEFT, RIGHT))
        click = self.rnd.choice((QTest.mouseClick, QTest.mouseClick, QTest.mouseDClick))
        self._say((at.x(), at.y(), button.name))
        click(self.window.canvas, button, self.rnd.choice(HELD), at)

    def drag(self) -> None:
        canvas, at, to = self.window.canvas, self._place(), self._place()
        self._say((at.x(), at.y(), to.x(), to.y()))
        QTest.mousePress(canvas, LEFT, self.rnd.choice(HELD), at)
        for k in range(1, 6):
            QTest.mouseMove(canvas, at + (to - at) * k / 5)
            if self.rnd.random() < 0.05:
                key = self.rnd.choice((Qt.Key.Key_Escape, Qt.Key.Key_Delete, Qt.Key.Key_Z))
                QTest.keyClick(canvas, key, self.rnd.choice(HELD))
        QTest.mouseRelease(canvas, LEFT, Qt.KeyboardModifier.NoModifier, to)

    def key(self) -> None:
        key, held = self.rnd.choice(KEYS), self.rnd.choice(HELD)
        if key == Qt.Key.Key_Q and held != Qt.KeyboardModifier.NoModifier:
            return
        self._say((int(key), held.name))
        QTest.keyClick(QApplication.focusWidget() or self.window, Qt.Key(key), held)

    def type(self) -> None:
        words = self.rnd.choice(TYPED)
        self._say(repr(words))
        target = QApplication.focusWidget() or self.window.canvas
        for letter in words:
            QTest.keyClick(target, letter) if letter.isascii() else None

    def command(self) -> None:
        listed = [one for one in self.window.commands.listed if one.name not in LEFT_ALONE and self.window.commands.can(one)]
        command = self.rnd.choice(listed)
        self._say(command.name)
        self.window.run(command.name)

    def press_button(self) -> None:
        shown = [one for one in self.window.findChildren(QAbstractButton) if one.isVisible() and one.isEnabled()]
        if shown:
            button = self.rnd.choice(shown)
            self._say(button.accessibleName() or button.text())
            QTest.mouseClick(button, LEFT)

    def press_tag(self) -> None:
        """Something is selected, and a button of the tag that then hangs there is pressed."""
        self.select()
        QApplication.processEvents()
        tag = self.window.tag
        shown = [one for one in tag.findChildren(QAbstractButton) if one.isVisible()]
        if tag.isVisible() and shown:
            button = self.rnd.choice(shown)
            self._say(button.accessibleName() or button.text())
            QTest.mouseClick(button, LEFT)

    def tool(self) -> None:
        name = self.rnd.choice(sorted(self.window.ledge.buttons))
        self._say(name)
        self.window.ledge.take(name)

    def wheel(self) -> None:
        self.window.canvas.zoom_by(self.rnd.choice((0.5, 0.9, 1.1, 2.0)), (float(self.rnd.randrange(900)), 300.0))

    def turn_page(self) -> None:
        self.window.turn(self.rnd.choice((-1, 1, 1)))

    def select(self) -> None:
        ids = [thing.id for thing in self.window.canvas.page.things]
        self.window.canvas.select(self.rnd.sample(ids, min(len(ids), self.rnd.choice((1, 1, 2, 5, 40)))))

    def act(self) -> None:
        """One of the actions of what is selected."""
        from larch.core.model.action import actions_for

        canvas = self.window.canvas
        actions = actions_for(canvas.page, canvas.things())
        if actions:
            action = self.rnd.choice(actions)
            self._say(action.name)
            canvas.do(action)

    # What must hold

    def check(self) -> None:
        page = self.window.canvas.page
        ids = [thing.id for thing in page.things]
        if len(set(ids)) != len(ids) or not all(ids):
            self._stumble(f"ids are not unique: {ids}")
        if self.window.session.lesson.page(page.id) is not page:
            self._stumble("the page that is shown is not that of the lesson")
        if not set(self.window.canvas.selection) <= set(ids):
            self._stumble("something is selected that is not there")

    def check_journal(self) -> None:
        if not self.window.files.journal.flush():
            self._stumble("the journal does not come to rest")
        found = recover(self.window.files.work.folder)
        if found is None or found.lost:
            self._stumble("the journal can't be read")
        else:
            here, there = (_told(lesson) for lesson in (self.window.session.lesson, found.lesson))
            if here != there:
                other = [f"{a}\n   {b}" for a, b in zip_longest(here, there, fillvalue="") if a != b]
                self._stumble("the journal holds another lesson: " + "\n".join(other[:3]))


def _told(lesson: Lesson) -> list[Any]:
    """A lesson as its files would be: what is derived is worked out anew by whoever reads it."""
    lines: list[Any] = [lesson.title, lesson.next, lesson.pages.ids]
    for page in lesson.pages:
        lines += [json.loads(text) for text in (page_to_json(page, False), *map(thing_to_json, page.things))]
    return lines
