"""The main window: Desk and Board, two ways of being in the same lesson."""

from __future__ import annotations

import time
from functools import partial
from typing import TYPE_CHECKING, Any

import msgspec
from PyQt6.QtCore import QEvent, QObject, QPoint, Qt, QTimer
from PyQt6.QtGui import QCloseEvent, QDragEnterEvent, QDropEvent, QKeyEvent, QPaintEvent, QResizeEvent
from PyQt6.QtWidgets import QBoxLayout, QButtonGroup, QHBoxLayout, QMenu, QMenuBar, QPushButton, QWidget

from larch.board.canvas import Canvas
from larch.board.timers import retire
from larch.core.base.words import N_, _
from larch.core.model.page import PUPILS
from larch.core.session.session import Session
from larch.desk.cards.message_bar import Notice
from larch.desk.cards.notice_place import notice_bar, notice_place
from larch.desk.context import Context
from larch.desk.drawers import Drawers
from larch.desk.files import Files
from larch.desk.heading import Heading
from larch.desk.jobs import in_background
from larch.desk.overview.pages import Pages
from larch.desk.page_keys import PageKeys
from larch.desk.shelf.putting_out import PuttingOut
from larch.desk.toolbar.in_hand import InHand
from larch.desk.toolbar.toolbar import Ledge
from larch.services.settings import Settings, load_settings, save_settings
from larch.services.work import OpenLesson

if TYPE_CHECKING:
    from larch.desk.reader import Reader

DIRECTIONS = {
    "bottom": QBoxLayout.Direction.TopToBottom,
    "top": QBoxLayout.Direction.BottomToTop,
    "left": QBoxLayout.Direction.RightToLeft,
    "right": QBoxLayout.Direction.LeftToRight,
}
SHELF_HEIGHT = 172
ROOMY = (1400, 880)  # a screen smaller than this is filled
FRAME = (8, 40)  # about what a window manager adds round a window, in pixels
MENUS = (N_("Lesson"), N_("Edit"), N_("Page"), N_("Put out"), N_("Geometry"), N_("View"), N_("Help"))


def _is_read(_job: object) -> bool:
    """Whether a screen reader runs; asked off the interface's thread."""
    from larch.desk.reader import is_read

    return is_read()


class Window(Drawers):
    def __init__(self, work: OpenLesson) -> None:
        super().__init__()
        self.settings: Settings = load_settings()
        self.at_board = False
        self._state_before = Qt.WindowState.WindowNoState
        self.reader: Reader | None = None  # while a screen reader runs
        self._filled: set[str] = set()  # menus
        self.context = Context(self)
        self.pages = Pages(self.context)
        self.keys = PageKeys(self.context)
        self.putting = PuttingOut(self.context)
        self.hand = InHand(self.context)
        self.room = QWidget(self)
        self.setCentralWidget(self.room)
        self.session = Session(work.lesson, time.monotonic)
        self.canvas = Canvas(self.session, work.page_to_open(), self.room)
        self.ledge = Ledge(self.room)
        self._lay = QBoxLayout(DIRECTIONS["bottom"], self.room)
        self._lay.setContentsMargins(0, 0, 0, 0)
        self._lay.setSpacing(0)
        self._lay.addWidget(self.canvas, 1)
        self._lay.addWidget(self.ledge)
        self.notice = Notice(self, partial(notice_bar, self.context), partial(notice_place, self.context))
        self.files = Files(self.context, work)
        self.canvas.still = self.settings.still
        self._dress_canvas()
        self._make_top_bar()
        self._connect()
        self.set_ledge(self.settings.ledge)
        self.hand.recall()
        self.setAcceptDrops(True)
        self.resize(1280, 800)
        self.refresh_title()
        self.pages_changed()
        self._say_all(work.notes)

    # Making

    def _dress_canvas(self) -> None:
        """The tag, the facts card and the editors of the present canvas."""
        self.put_readings_away()
        for name in ("tag", "facts", "editors"):  # of the canvas before; made anew when they are wanted
            self.__dict__.pop(name, None)
        self.canvas.edit_wanted.connect(lambda thing: self.editors.edit(thing))
        self.canvas.measure_wanted.connect(self._type_measure)
        self.canvas.command_wanted.connect(self.run)
        self.canvas.committed.connect(self._committed)
        self.canvas.selection_changed.connect(self._selected)
        self.canvas.menu_wanted.connect(self._menu)
        self.canvas.said.connect(self.notice.say)
        stop = self.canvas.stop_working
        self.canvas.working.connect(lambda what, count: self.notice.say_working(what, count, stop))
        self.canvas.sound_wanted.connect(self.sound)
        self.canvas.aloud_wanted.connect(self.say_aloud)
        self.canvas.link_wanted.connect(lambda link: self.following.follow(link))
        self.canvas.place_outside = lambda at: self.keeping.place_outside(at)
        self.canvas.over_changed.connect(lambda place: self.keeping.show_over(place))
        self.canvas.let_go.connect(lambda place, ids: self.keeping.let_go(place, ids))
        self.hand.follow(self.canvas)
        self.canvas.installEventFilter(self)
        if self.reader is not None:
            self.read_aloud()

    def _make_top_bar(self) -> None:
        bar = QWidget(self)
        bar.setObjectName("topbar")
        self.menus = QMenuBar(bar)
        labels = {
            "Lesson": _("&Lesson"), "Edit": _("&Edit"), "Page": _("&Page"), "Put out": _("P&ut out"),
            "Geometry": _("&Geometry"), "View": _("&View"), "Help": _("&Help"),
        }  # fmt: skip
        for name in MENUS:
            menu = self.menus.addMenu(labels[name])
            assert menu is not None
            menu.aboutToShow.connect(partial(self._fill_menu, menu, name))
        self.heading = Heading(bar)
        self.heading.setObjectName("title")
        switch = self.switch = QWidget(bar)
        pair = QHBoxLayout(switch)
        pair.setContentsMargins(2, 2, 2, 2)
        pair.setSpacing(0)
        self._modes = QButtonGroup(self)
        for name, label, run in (("desk", _("Desk"), self.go_to_desk), ("board", _("Board"), self.go_to_board)):
            button = QPushButton(label, switch)
            button.setCheckable(True)
            button.setAutoExclusive(True)
            button.setObjectName("tray")
            button.setChecked(name == "desk")
            button.setMinimumHeight(36)
            button.clicked.connect(run)
            self._modes.addButton(button)
            pair.addWidget(button)
        row = QHBoxLayout(bar)
        row.setContentsMargins(4, 0, 10, 0)
        row.addWidget(self.menus, 1)
        row.addWidget(self.heading, 0, Qt.AlignmentFlag.AlignCenter)
        right = QHBoxLayout()
        right.addStretch(1)
        right.addWidget(switch)
        row.addLayout(right, 1)
        self.top_bar = bar
        self.setMenuWidget(bar)

    def _connect(self) -> None:
        self.ledge.tool_taken.connect(self.hand.take)
        self.ledge.choices_wanted.connect(self.hand.toggle_choices)
        self.ledge.turned.connect(self.turn)
        self.ledge.pressed.connect(self.run)
        self.ledge.desk.tapped.connect(lambda: self.notice.say(_("Hold that button for a moment to go back to the Desk.")))

    def take(self, work: OpenLesson) -> None:
        """Another lesson takes the place of this one."""
        old = self.canvas
        tool = old.pointers.tool
        old.close_session()
        self.session = Session(work.lesson, time.monotonic)
        self.files.setParent(None)
        self.canvas = Canvas(self.session, work.page_to_open(), self.room)
        self.canvas.pointers.tool = tool
        self.canvas.at_board = self.at_board
        self.canvas.still = old.still
        self.files = Files(self.context, work)
        self._lay.replaceWidget(old, self.canvas)
        retire(old)
        self._dress_canvas()
        self.canvas.lower()
        self.canvas.show()
        self.canvas.setFocus()
        self.let_go()
        self.refresh_title()
        self.pages_changed()
        self._say_all(work.notes)
        self.files.watch_first_paint()

    def _say_all(self, notes: list[str]) -> None:
        if notes:
            self.notice.say(" ".join(notes), stay=len(notes) > 1)

    # Commands

    def paintEvent(self, event: QPaintEvent | None) -> None:
        if "commands" not in self.__dict__:
            QTimer.singleShot(0, self._after_first_paint)

    def _after_first_paint(self) -> None:
        """What a start can do without, in the first idle moment."""
        self.refresh_commands(anew=True)
        self.files.journal.settle_in()
        self.files.watch_first_paint()
        in_background(self, _is_read, self.read_aloud)

    def read_aloud(self, on: object = True) -> None:
        """From now on the page is heard by a screen reader."""
        if on:
            from larch.desk.reader import Reader

            self.reader = Reader(self.context)
            self.canvas.has_keys = self.reader.has_keys

    def run(self, name: str) -> None:
        """Runs a command by its name, as a press of its button would."""
        command = next(c for c in self.commands.listed if c.name == name)
        if self.commands.can(command):
            command.run()

    def _fill_menu(self, menu: QMenu, name: str) -> None:
        """What a menu holds, put into it when it is first opened."""
        self.refresh_commands(anew=True)
        if name not in self._filled:
            self._filled.add(name)
            self.commands.fill(menu, name)
        if name == "Edit":
            from larch.desk.action_menu import add_selection

            add_selection(menu, self.canvas, lambda: self.facts.want(True))
        if name == "Lesson":
            from larch.desk.commands.lesson import fill_recent

            fill_recent(self.context, menu)

    def refresh_commands(self, anew: bool = False) -> None:
        """Enables what can be done now; with `anew` also where no command was made yet."""
        if anew or "commands" in self.__dict__:
            self.commands.refresh()
        history = self.session.history
        self.ledge.undo.setEnabled(bool(history.done))
        self.ledge.redo.setEnabled(bool(history.undone))
        self.ledge.bin.setEnabled(any(not thing.locked for thing in self.canvas.things()))
        self.ledge.again.setEnabled(bool(self.canvas.page.setouts))

    def _menu(self, at: QPoint | None) -> None:
        if self.canvas.selection:
            self.tag.refresh()
            if not self.tag.actions_now:
                return
            self.tag.open_menu(at)

    # Pages

    def pages_changed(self) -> None:
        self.pages.changed()

    def show_page(self, id: str) -> None:
        self.pages.show(id)

    def turn(self, by: int) -> None:
        self.pages.turn(by)

    def undo(self, redo: bool = False) -> None:
        self.finish_typing()
        self.canvas.pointers.cancel()
        self.canvas.withdraw()
        step = self.session.redo() if redo else self.session.undo()
        if step is None:
            return
        page = step.page if self.session.lesson.page(step.page) is not None else ""
        if page and page != self.canvas.page_id:
            self.show_page(page)
        self.pages_changed()
        if self.shows("spread"):
            self.spread.refresh()
            self.spread.list.setFocus()

    def _committed(self) -> None:
        if self.session.lesson.page(self.canvas.page_id) is None:  # thrown away in the spread, say
            self.pages_changed()
        if self.at_board:
            self.leave_to_pupils()
        self.read_on()
        self.refresh_commands()
        self.refresh_title()
        if not self.shows("spread"):
            self.pages_changed()

    def refresh_title(self) -> None:
        title = self.session.lesson.title or (self.files.path.stem if self.files.path else _("New lesson"))
        mark = " •" if self.files.modified else ""
        self.heading.show_title(title, mark)
        self.heading.setToolTip(_("has changes that are not saved yet; they are kept all the same") if mark else "")
        self.setWindowTitle(f"{title}{mark} — Larch")

    # Tools, shelf, facts

    def keep_setting(self, **changed: Any) -> None:
        self.settings = msgspec.structs.replace(self.settings, **changed)
        save_settings(self.settings)

    def set_still(self, still: bool) -> None:
        """Switches motions off or on."""
        self.keep_setting(still=still)
        self.canvas.still = still
        self.notice.say(_("Things change without motion.") if still else _("Motion shows how things change."))

    def _type_measure(self, id: str, name: str) -> None:
        from larch.desk.editors.measure import MeasureField

        MeasureField(self.context, id, name)

    def finish_typing(self) -> None:
        """Keeps what is being typed, if anything is."""
        if "editors" in self.__dict__:
            self.editors.finish()

    def keep_typing(self) -> None:
        """Keeps what has been typed so far, and lets it be gone on with."""
        if "editors" in self.__dict__:
            self.editors.keep_so_far()

    def _selected(self) -> None:
        if self.canvas.selection and "tag" not in self.__dict__:
            self.tag.refresh()
        self.refresh_commands()

    def set_sounds(self, on: bool) -> None:
        """Switches the sounds of equipment off or on."""
        self.keep_setting(sounds=on)
        self.notice.say(_("Equipment is heard.") if on else _("Equipment is silent."))

    def set_ledge(self, edge: str) -> None:
        """Lays the ledge along an edge of the window."""
        edge = edge if edge in DIRECTIONS or edge == "float" else "bottom"
        self._lay.removeWidget(self.ledge)
        self.ledge.set_edge(edge)
        if edge == "float":
            middle = self.room.rect().center()
            self.ledge.float_to(QPoint(middle.x() - self.ledge.sizeHint().width() // 2, self.room.height() - 120))
        else:
            self._lay.setDirection(DIRECTIONS[edge])
            self._lay.addWidget(self.ledge)
        self._lay.activate()
        if edge != self.settings.ledge:
            self.keep_setting(ledge=edge)
        self.close_card("choices")
        self._place_overlays()

    def show_shelf(self, on: bool) -> None:
        self.ledge.shelf.setChecked(on)
        if on:
            self.shelf.open()
            self.shelf.search.setFocus()
            self.shelf.search.selectAll()
        else:
            self.shelf.hide()
            self.canvas.setFocus()
        self._place_overlays()

    def _place_overlays(self) -> None:
        """Shelf above the ledge, spread over the page, notice on top."""
        page = self.canvas.geometry()
        covered = 0
        if self.shows("shelf"):
            top = page.y() if self.ledge.edge == "top" else page.bottom() + 1 - SHELF_HEIGHT
            self.shelf.setGeometry(page.x(), top, page.width(), SHELF_HEIGHT)
            covered = SHELF_HEIGHT
        above = self.ledge.edge == "top"
        self.canvas.cover(top=covered if above else 0, below=0 if above else covered)
        if "facts" in self.__dict__:
            self.facts.refresh()
        if "tag" in self.__dict__:
            self.tag.place()
        if "spread" in self.__dict__:
            self.spread.setGeometry(page)
        self.notice.place()
        if self.ledge.edge == "float":
            self.ledge.float_to(self.ledge.pos())

    # Desk and Board

    def open_on_screen(self) -> None:
        """Shows the window at a size that its screen has, frame included."""
        screen = self.screen()
        if screen is None:
            self.show()
            return
        room = screen.availableGeometry()
        self.resize(min(round(room.width() * 0.86), 1500), min(round(room.height() * 0.86), 950))
        if room.width() < ROOMY[0] or room.height() < ROOMY[1]:
            self.resize(room.width() - FRAME[0], room.height() - FRAME[1])
            self.move(room.topLeft())
            self.showMaximized()
        else:
            self.show()

    def go_to_board(self) -> None:
        """The room sees the page and the ledge, and nothing else."""
        self.finish_typing()
        if not self.at_board:
            self._state_before = self.windowState() & ~Qt.WindowState.WindowFullScreen
        self.at_board = self.canvas.at_board = True
        self.canvas.select(())
        self.top_bar.hide()
        self.ledge.set_large(True)
        self.leave_to_pupils()
        self._modes.buttons()[1].setChecked(True)
        self.setWindowState(self._state_before | Qt.WindowState.WindowFullScreen)
        if "facts" in self.__dict__:
            self.facts.refresh()
        self.canvas.setFocus()

    def leave_to_pupils(self) -> None:
        """The ledge shows what can be used here: at the Board, what the page leaves to the class."""
        self.ledge.leave(self.canvas.page.pupils if self.at_board else tuple(PUPILS))
        if self.at_board and not self.ledge.offers(self.ledge.current):
            self.ledge.take("select")
        if self.at_board and not self.canvas.may("shelf") and self.shows("shelf"):
            self.show_shelf(False)
        self.refresh_commands()

    def go_to_desk(self) -> None:
        """The window is as it was before the Board."""
        self.at_board = self.canvas.at_board = False
        self.canvas.select(())
        self.top_bar.show()
        self.ledge.set_large(False)
        self.leave_to_pupils()
        self._modes.buttons()[0].setChecked(True)
        self.setWindowState(self._state_before)
        if "facts" in self.__dict__:
            self.facts.refresh()
        self.canvas.setFocus()

    # Events

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if watched is self.canvas and event is not None:
            if event.type() == QEvent.Type.Resize:
                self._place_overlays()
                if "facts" in self.__dict__:
                    self.facts.refresh()
            if event.type() in (QEvent.Type.MouseButtonPress, QEvent.Type.TouchBegin, QEvent.Type.TabletPress):
                self.close_card("choices")
                self.close_card("finder")
            if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.ShortcutOverride and self.keys.types_here(event):
                event.accept()  # a letter, not a key of the window
                return True
            if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
                return self.keys.press(event)
            if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyRelease and event.key() == Qt.Key.Key_Space:
                self.canvas.pointers.space_held = False
        return super().eventFilter(watched, event)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self._place_overlays()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event is None:
            return
        data = event.mimeData()
        if data is not None and (any(url.path().endswith(".larch") for url in data.urls()) or self.bringing.takes(data)):
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        from pathlib import Path

        if event is None:
            return
        data = event.mimeData()
        if data is None:
            return
        lesson = next((url.toLocalFile() for url in data.urls() if url.path().endswith(".larch")), None)
        if lesson is not None:
            self.files.open(Path(lesson))
        else:
            self.bringing.dropped(data, self.canvas.mapFrom(self, event.position().toPoint()))

    def closeEvent(self, event: QCloseEvent | None) -> None:
        """Nothing is asked: what is not saved comes back. If the disk refuses to keep it, that is said once."""
        if event is not None and not self.files.may_close():
            return event.ignore()
        self.files.close()
        return super().closeEvent(event)
