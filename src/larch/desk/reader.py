"""What a screen reader hears of the page: unseen widgets over it, one for the selection, one for the corner in hand.

PyQt exposes no accessibility interfaces of its own, but every widget has one by its class. So what the keys are at is a
widget: a group with the name of what is selected and all its facts, or a field that holds the place of a corner and tells
when that changes. They take the focus only while a screen reader runs, and hand every key on to the page.
"""

from __future__ import annotations

import os
from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, QObject, QRect, Qt, QTimer
from PyQt6.QtGui import QKeyEvent, QPaintEvent
from PyQt6.QtWidgets import QGroupBox, QLineEdit, QWidget

from larch.board import chrome
from larch.board.spoken import description, place_of, spoken
from larch.core.base.words import _, many
from larch.core.model.grips import grip_of

if TYPE_CHECKING:
    from larch.board.canvas import Canvas
    from larch.desk.context import Context

ALWAYS = "QT_LINUX_ACCESSIBILITY_ALWAYS_ON"
STATUS = "org.a11y.Bus", "/org/a11y/bus", "org.a11y.Status"


def is_read() -> bool:
    """Whether a screen reader runs, or is said to (by the variable that Qt itself asks)."""
    if os.environ.get(ALWAYS):
        return True
    if not os.environ.get("DBUS_SESSION_BUS_ADDRESS"):
        return False
    from PyQt6.QtDBus import QDBusConnection, QDBusInterface

    bus = QDBusConnection.sessionBus()
    reply = QDBusInterface(STATUS[0], STATUS[1], "org.freedesktop.DBus.Properties", bus).call(
        "Get", STATUS[2], "ScreenReaderEnabled"
    )
    values = reply.arguments()
    return bool(values and getattr(values[0], "variant", lambda: values[0])())


class _Held:
    """Hands keys on to the page below and paints nothing."""

    canvas: Canvas

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None:
            event.ignore()

    def keyReleaseEvent(self, event: QKeyEvent | None) -> None:
        if event is not None:
            event.ignore()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        """What it stands for is painted by the page."""

    def focusNextPrevChild(self, onwards: bool) -> bool:
        return self.canvas.focusNextPrevChild(onwards)


class SelectionProxy(_Held, QGroupBox):
    """The selection: its name, and all its facts as the description."""

    def __init__(self, canvas: Canvas) -> None:
        super().__init__(canvas)
        self.canvas = canvas
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.hide()


class CornerProxy(_Held, QLineEdit):
    """The corner in hand: what it is called, and where it is as its text, so that each step is heard."""

    def __init__(self, canvas: Canvas) -> None:
        super().__init__(canvas)
        self.canvas = canvas
        self.setReadOnly(True)
        self.setFrame(False)
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.hide()

    def event(self, event: QEvent | None) -> bool:
        if event is not None and event.type() == QEvent.Type.ShortcutOverride:
            event.ignore()
            return False
        return super().event(event)


class Reader(QObject):
    """Keeps what is heard in step with a canvas."""

    def __init__(self, context: Context) -> None:
        super().__init__(context.canvas)
        self.context = context
        canvas = self.canvas = context.canvas
        self.selected, self.corner = SelectionProxy(canvas), CornerProxy(canvas)
        self.heard = QLineEdit(canvas)  # the last sentence: in the tree for whoever looks for it
        self.heard.setReadOnly(True)
        self.heard.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.heard.setAccessibleName(_("what happened last"))
        self.heard.setGeometry(0, 0, 1, 1)
        self.heard.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.heard.setStyleSheet("border: none; background: transparent; color: transparent; min-height: 0; padding: 0;")
        self.heard.show()
        canvas.selection_changed.connect(self._soon)
        canvas.committed.connect(self._committed)
        canvas.viewed.connect(self._soon)
        context.part("notice").spoken.connect(self.tell)
        canvas.installEventFilter(self)
        self._steps = len(context.session.history.done)
        self._waiting = False
        self.refresh()

    def has_keys(self) -> bool:
        return self.canvas.hasFocus() or self.selected.hasFocus() or self.corner.hasFocus()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is not None and event.type() == QEvent.Type.FocusIn:
            self._soon()
        return False

    def _soon(self) -> None:
        """After what is going on, which may move the keys itself."""
        if not self._waiting:
            self._waiting = True
            QTimer.singleShot(0, self.refresh)

    def refresh(self) -> None:
        """Shows the selection or the corner as they are now, and gives them the keys if the page has them."""
        self._waiting = False
        canvas = self.canvas
        things, page = canvas.things(), canvas.page
        busy = canvas.editing or canvas.pointers.busy
        handle = canvas.handle_focus if len(things) == 1 else ""
        shown: QWidget = canvas
        if things and not busy:
            box = chrome.frame(things, canvas.camera)
            at = QRect(round(box.x0), round(box.y0), max(2, round(box.width)), max(2, round(box.height)))
            one = things[0].label(page) if len(things) == 1 else many("1 thing", "{n} things", len(things))
            self.selected.setAccessibleName(one)
            self.selected.setAccessibleDescription(description(page, things))
            self.selected.setGeometry(at)
            shown = self.selected
            found = grip_of(things[0], handle)
            if found is not None:
                self.corner.setAccessibleName(_("{corner} of {thing}").format(corner=found.label, thing=one))
                where = place_of(page, things[0].placement.to_page(*found.at))
                if self.corner.text() != where:
                    self.corner.setText(where)
                self.corner.setGeometry(at)
                shown = self.corner
        keys = self.has_keys()
        shown.show()
        if keys and not shown.hasFocus() and not busy:
            shown.setFocus(Qt.FocusReason.OtherFocusReason)
        for proxy in (self.selected, self.corner):  # one that is hidden with the keys would hand them on by itself
            if proxy is not shown:
                proxy.hide()

    def _committed(self) -> None:
        """What was done is told, with what it came to: a roll, a move, a step undone."""
        done = self.context.session.history.done
        undone = len(done) < self._steps
        self._steps = len(done)
        things, page = self.canvas.things(), self.canvas.page
        label = done[-1].label if done and not undone else _("undone")
        came = spoken(page, things[0]) if len(things) == 1 else ""
        self.tell(f"{label}: {came}" if came else label)
        self.refresh()

    def tell(self, sentence: str) -> None:
        """One sentence, heard wherever the keys are: as what changed about the widget that has them."""
        self.heard.setText(sentence)
        held = self.context.top.focusWidget()
        if held in (self.selected, self.corner, self.canvas) and held is not None:
            held.setAccessibleDescription(sentence)
