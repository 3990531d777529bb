"""Keeping things on the shelf, and what becomes of things that are let go over the bin or the shelf."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, QObject, QPoint, Qt
from PyQt6.QtGui import QCursor, QMouseEvent

from larch.board.timers import timer
from larch.core.actions.arrange.arrange import delete
from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.desk.jobs import in_background
from larch.desk.shelf import kept

if TYPE_CHECKING:
    from larch.desk.context import Context


DRAG_START = 10  # pixels
REST = 600  # ms over the shelf after which its tray of kept things opens


class Keeping:
    def __init__(self, context: Context) -> None:
        self.context = context
        self._resting = timer(context, self._rests, REST, once=True)

    def ask(self, whole: bool = False) -> None:
        """Asks under which name the selection, or the page, is to be kept."""
        from PyQt6.QtWidgets import QInputDialog

        page, things = self.context.canvas.page, self.context.canvas.things()
        suggestion = page.title if whole else things[0].label(page) if things else ""
        name, good = QInputDialog.getText(self.context.top, _("Keep"), _("Under which name?"), text=suggestion[:60])
        if good:
            self.keep(page, page.things if whole else things, name, whole)

    def keep(self, page: Page, things: Sequence[Thing], name: str, whole: bool = False) -> None:
        """Writes it off the interface's thread and says so."""
        if not things:
            self.context.say(_("There is nothing to keep."))
            return

        def done(path: object) -> None:
            self.context.say(_("Kept on the shelf as “{name}”.").format(name=getattr(path, "stem", name)))
            if self.context.shows("shelf"):
                self.context.part("shelf").refresh()

        def failed(error: Exception) -> None:
            self.context.say(_("It could not be kept: {reason}.").format(reason=getattr(error, "strerror", "") or error))

        in_background(self.context.canvas, lambda _job: kept.keep(page, things, name, whole), done, failed)

    # Dragged off the page

    def place_outside(self, view_pos: Point) -> str:
        """What lies under a place of the view that is dragged over: "bin", "shelf" or ""."""
        window = self.context
        at = window.canvas.mapToGlobal(QPoint(round(view_pos[0]), round(view_pos[1])))
        if window.part("ledge").bin.isVisible() and window.part("ledge").bin.rect().contains(
            window.part("ledge").bin.mapFromGlobal(at)
        ):
            return "bin"
        if window.shows("shelf") and window.part("shelf").rect().contains(window.part("shelf").mapFromGlobal(at)):
            return "shelf"
        return ""

    def show_over(self, place: str) -> None:
        """What is dragged rests over the bin, or over the shelf: that opens the tray of kept things, but not for one who
        only passes over it."""
        self.context.part("ledge").bin.setDown(place == "bin")
        if place == "shelf":
            self._resting.start()
        else:
            self._resting.stop()

    def _rests(self) -> None:
        if self.context.part("shelf").tray != "Kept":
            self.context.part("shelf").choose("Kept")

    def let_go(self, place: str, ids: Sequence[str]) -> None:
        self._resting.stop()
        canvas = self.context.canvas
        things = canvas.page.some(ids)
        if place == "bin":
            canvas.commit(delete(canvas.page, things))
        elif place == "shelf" and things:
            self.keep(canvas.page, things, things[0].label(canvas.page))


class PageGrip(QObject):
    """The number of the page on the ledge, dragged onto the open shelf, keeps the page."""

    def __init__(self, context: Context) -> None:
        super().__init__(context.top)
        self.context = context
        self._from: QPoint | None = None
        self._dragging = False
        context.part("ledge").number.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if not isinstance(event, QMouseEvent) or not self.context.shows("shelf"):
            return False
        at = event.globalPosition().toPoint()
        if event.type() == QEvent.Type.MouseButtonPress:
            self._from = at
        elif event.type() == QEvent.Type.MouseMove and self._from is not None:
            if not self._dragging and (at - self._from).manhattanLength() > DRAG_START:
                self._dragging = True
                self.context.part("ledge").number.setCursor(QCursor(Qt.CursorShape.DragCopyCursor))
                self.context.part("keeping").show_over("shelf")
        elif event.type() == QEvent.Type.MouseButtonRelease:
            self._from = None
            if self._dragging:
                self._dragging = False
                self.context.part("ledge").number.unsetCursor()
                self.context.part("ledge").number.setDown(False)
                self._let_go(at)
                return True
        return False

    def _let_go(self, at: QPoint) -> None:
        shelf, page = self.context.part("shelf"), self.context.canvas.page
        if shelf.rect().contains(shelf.mapFromGlobal(at)):
            self.context.part("keeping").keep(page, page.things, page.title or _("page"), whole=True)
