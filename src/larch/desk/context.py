"""What commands, cards and dialogs are given of the desk: the lesson, the canvas, settings, and a few things to ask for.

Nothing here imports the window: it gives itself when it makes the context. A part of the desk that another one needs is
asked for by its name, and made when it is first wanted; so no card imports another.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from PyQt6.QtCore import QObject
from PyQt6.QtWidgets import QWidget

if TYPE_CHECKING:
    from larch.board.canvas import Canvas
    from larch.board.tools.base import Tool
    from larch.core.session.session import Session
    from larch.services.settings import Settings
    from larch.services.work import OpenLesson


class Context(QObject):
    """What the parts of the desk ask of it; `session` and `canvas` are new when another lesson is taken."""

    def __init__(self, desk: Any) -> None:
        super().__init__(desk)
        self._desk = desk

    @property
    def top(self) -> QWidget:
        """The window itself, as the parent of dialogs."""
        found: QWidget = self._desk
        return found

    @property
    def room(self) -> QWidget:
        """Where page, toolbar and cards lie."""
        found: QWidget = self._desk.room
        return found

    @property
    def session(self) -> Session:
        found: Session = self._desk.session
        return found

    @property
    def canvas(self) -> Canvas:
        found: Canvas = self._desk.canvas
        return found

    @property
    def settings(self) -> Settings:
        found: Settings = self._desk.settings
        return found

    @property
    def at_board(self) -> bool:
        return bool(self._desk.at_board)

    def part(self, name: str) -> Any:
        """Another part of the desk, such as "toolbar", "shelf", "files" or the card of a name; made when first wanted."""
        return getattr(self._desk, name)

    def say(self, sentence: str, button: str = "", run: Callable[[], object] | None = None, stay: bool = False) -> None:
        """One sentence on the screen, perhaps with something to do about it."""
        if button or stay:
            self._desk.notice.say(sentence, button, run, stay)
        else:
            self._desk.notice.say(sentence)

    def insist(self, sentence: str) -> None:
        """A sentence that comes again after every other one, until it is taken back with ""."""
        self._desk.notice.insist(sentence)

    def show_page(self, id: str) -> None:
        self._desk.show_page(id)

    def turn(self, by: int) -> None:
        self._desk.turn(by)

    def pages_changed(self) -> None:
        """Pages came, went or changed places."""
        self._desk.pages_changed()

    def refresh_commands(self) -> None:
        """What can be done may have changed."""
        self._desk.refresh_commands()

    def refresh_title(self) -> None:
        self._desk.refresh_title()

    def take_lesson(self, work: OpenLesson) -> None:
        """Another lesson takes the place of this one."""
        self._desk.take(work)

    def run(self, name: str) -> None:
        """Runs a command by its name."""
        self._desk.run(name)

    def undo(self, redo: bool = False) -> None:
        self._desk.undo(redo)

    def keep_setting(self, **changed: Any) -> None:
        self._desk.keep_setting(**changed)

    def tools(self) -> list[Tool]:
        return list(self._desk.ledge.tools)

    def tool(self, name: str) -> Any:
        return self._desk.ledge.tool(name)

    def take_tool(self, name: str) -> None:
        self._desk.ledge.take(name)

    def finish_typing(self) -> None:
        """Keeps what is being typed and closes its editor."""
        self._desk.finish_typing()

    def keep_typing(self) -> None:
        """Keeps what has been typed so far; its editor stays open, with the caret where it is."""
        self._desk.keep_typing()

    def shows(self, name: str) -> bool:
        """Whether a card or drawer is open."""
        return bool(self._desk.shows(name))

    def close_card(self, name: str) -> None:
        self._desk.close_card(name)

    def show_card(self, name: str) -> None:
        """Opens a card of the folder `cards` by its file's name, or closes it."""
        self._desk.show_card(name)

    def show_shelf(self, on: bool) -> None:
        self._desk.show_shelf(on)

    def go_to_board(self) -> None:
        self._desk.go_to_board()

    def go_to_desk(self) -> None:
        self._desk.go_to_desk()
