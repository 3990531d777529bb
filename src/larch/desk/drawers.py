"""Drawers, cards and helpers of the window that a start does without: made when they are first wanted."""

from __future__ import annotations

import importlib
from functools import cached_property
from typing import TYPE_CHECKING, Any

from PyQt6.QtGui import QGuiApplication
from PyQt6.QtWidgets import QMainWindow, QWidget

from larch.board.canvas import Canvas
from larch.desk.cards.message_bar import Notice
from larch.desk.context import Context
from larch.desk.shelf.putting_out import PuttingOut
from larch.desk.toolbar.in_hand import InHand
from larch.services.settings import Settings

if TYPE_CHECKING:
    from larch.desk.cards.facts import FactsCard
    from larch.desk.cards.tag import Tag
    from larch.desk.commands.command import Commands
    from larch.desk.editors.editors import Editors
    from larch.desk.finder.finder import Finder
    from larch.desk.media.bringing import Bringing
    from larch.desk.media.following import Following
    from larch.desk.overview.overview import Spread
    from larch.desk.readings import Readings
    from larch.desk.shelf.keeping import Keeping
    from larch.desk.shelf.shelf import Shelf
    from larch.desk.toolbar.choices import Choices
    from larch.services.sounds import SoundPlayer
    from larch.services.speech import Speaker


class Drawers(QMainWindow):
    """What they need of the window is named here; it is the window itself that has it."""

    context: Context
    room: QWidget
    canvas: Canvas
    settings: Settings
    hand: InHand
    putting: PuttingOut
    notice: Notice

    def __init__(self) -> None:
        super().__init__()
        self._cards: dict[str, Any] = {}

    def run(self, name: str) -> None:
        raise TypeError("given by the window")

    def show_page(self, id: str) -> None:
        raise TypeError("given by the window")

    def show_shelf(self, on: bool) -> None:
        raise TypeError("given by the window")

    def pages_changed(self) -> None:
        raise TypeError("given by the window")

    @cached_property
    def readings(self) -> Readings:
        from larch.desk.readings import Readings

        return Readings(self.context)

    def read_on(self) -> None:
        """Something was done on the page, perhaps written by a pen that reads."""
        if "readings" in self.__dict__ or self.hand.reads():
            self.readings.committed()

    def put_readings_away(self) -> None:
        if "readings" in self.__dict__:
            self.readings.put_away()

    def reading_key(self, key: int) -> bool:
        """A key on the page; whether it meant the card of readings beside the ink."""
        return "readings" in self.__dict__ and self.readings.press(key)

    @cached_property
    def choices(self) -> Choices:
        from larch.desk.toolbar.choice_rows import fill
        from larch.desk.toolbar.choices import Choices

        made = Choices(self.room, lambda: self.settings.own_hues, fill)
        made.pressed.connect(self.hand.run)
        made.chosen.connect(self.hand.remember)
        return made

    @cached_property
    def shelf(self) -> Shelf:
        from larch.desk.shelf.keeping import PageGrip
        from larch.desk.shelf.shelf import Shelf

        made = Shelf(self.room)
        made.tapped.connect(self.putting.put_out)
        made.dragged.connect(self.putting.drag)
        made.dropped.connect(self.putting.drop)
        made.closed.connect(lambda: self.show_shelf(False))
        made.own_wanted.connect(lambda: self.bringing.ask())
        made.pressed.connect(self.run)
        PageGrip(self.context)
        return made

    @cached_property
    def following(self) -> Following:
        from larch.desk.media.following import Following

        return Following(self.context)

    @cached_property
    def keeping(self) -> Keeping:
        from larch.desk.shelf.keeping import Keeping

        return Keeping(self.context)

    def show_card(self, name: str) -> None:
        """Opens the card of a module in `desk.cards`, or closes it."""
        card = self._cards.get(name)
        if card is None:
            card = self._cards[name] = importlib.import_module(f"larch.desk.cards.{name}").make(self.context)
        if card.isVisible():
            card.shut()
        else:
            card.open()

    def let_go(self) -> None:
        """Of the lesson before: another was taken."""
        self._cards.clear()
        if "spread" in self.__dict__:
            self.spread.let_go()

    def show_topic(self, name: str) -> None:
        """Opens the help at a topic."""
        from larch.desk.dialogs.help import show_help

        show_help(self.context, name)

    def shown_cards(self) -> list[QWidget]:
        """The cards of the folder `cards` that are open."""
        return [card for card in self._cards.values() if card.canvas is self.canvas and card.isVisible()]

    @cached_property
    def bringing(self) -> Bringing:
        from larch.desk.media.bringing import Bringing

        return Bringing(self.context)

    @cached_property
    def spread(self) -> Spread:
        from larch.desk.overview.overview import Spread

        made = Spread(self.room)
        made.setGeometry(self.canvas.geometry())
        made.opened.connect(self.show_page)
        made.closed.connect(self.pages_changed)
        return made

    @cached_property
    def finder(self) -> Finder:
        from larch.desk.finder.findable import findable, pictures_found
        from larch.desk.finder.finder import Finder

        made = Finder(self.room, lambda: findable(self.context), lambda query: pictures_found(self.context, query))
        made.closed.connect(lambda: self.canvas.setFocus())
        return made

    def close_card(self, name: str) -> None:
        """Hides a card if it was ever made."""
        if name in self.__dict__:
            getattr(self, name).hide()

    def shows(self, name: str) -> bool:
        return name in self.__dict__ and bool(getattr(self, name).isVisible())

    @cached_property
    def commands(self) -> Commands:
        """All commands with their keys; made just after the first paint, or when one is wanted sooner."""
        from larch.desk.commands.command import Commands, all_commands

        return Commands(self.context, all_commands(self.context))

    def sound(self, name: str) -> None:
        """What equipment sounds like, where that is wanted."""
        if self.settings.sounds:
            self.sounds.play(name)

    def say_aloud(self, text: str) -> None:
        if self.settings.sounds:
            self.speaker.say(text)

    @cached_property
    def speaker(self) -> Speaker:
        from larch.services.speech import Mute

        return Mute()

    @cached_property
    def sounds(self) -> SoundPlayer:
        """Silent where nobody could hear it."""
        from larch.services.sounds import Loudspeaker, Silent

        return Silent() if QGuiApplication.platformName() == "offscreen" else Loudspeaker()

    @cached_property
    def tag(self) -> Tag:
        from larch.desk.cards.tag import Tag

        made = Tag(self.canvas)
        made.facts_wanted.connect(lambda: self.facts.want(True))
        return made

    @cached_property
    def facts(self) -> FactsCard:
        from larch.desk.cards.facts import FactsCard

        made = FactsCard(self.canvas)
        self.canvas.ticked.connect(made.tick)
        return made

    @cached_property
    def editors(self) -> Editors:
        from larch.desk.editors.editors import Editors

        return Editors(self.canvas, self.notice.say)
