"""The help: short topics, each with a picture of what it speaks of; and all keys, from the commands themselves."""

from __future__ import annotations

from functools import partial
from html import escape
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QImage, QPixmap, QTextCursor
from PyQt6.QtWidgets import (
    QDialog,
    QDialogButtonBox,
    QHBoxLayout,
    QListWidget,
    QPlainTextEdit,
    QTextBrowser,
    QVBoxLayout,
    QWidget,
)

from larch.board.paint import page_image
from larch.core.actions.arrange.arrange import brought, laid_out
from larch.core.base.shape import union
from larch.core.base.words import _
from larch.core.model.kinds import kinds, shelf_items
from larch.core.model.page import Page
from larch.desk.drawings import licence
from larch.desk.fields import Field
from larch.desk.jobs import in_background
from larch.desk.plain import Words
from larch.desk.search import ranked
from larch.desk.topics import KEYS_ON_THE_PAGE, TOPICS, Topic

if TYPE_CHECKING:
    from larch.desk.context import Context

WIDE = 520  # pixels of a topic's picture


def scene_of(topic: Topic) -> Page:
    """The things of a topic, side by side on a page of their size."""
    page, x = Page(id="help"), 0.0
    items = {item.name: item for item in shelf_items()}
    for name in topic.scene:
        made = list(laid_out(items[name].things()).things)
        box = union(thing.box() for thing in made)
        page = page.put(*brought(page, made, x - box.x0 + 40, -box.centre[1]))
        x += box.width + 60
    return page


def picture_of(topic: Topic) -> QImage | None:
    if not topic.scene:
        return None
    page = scene_of(topic)
    box = union(thing.box() for thing in page.things).grown(30)
    return page_image(page, WIDE, box._replace(y1=max(box.y1, box.y0 + box.width * 0.25)))


def keys_of(context: Context) -> list[tuple[str, str]]:
    """Every key and what it does: of the tools, the page and each command."""
    found = [(tool.shortcut, tool.label()) for tool in context.tools() if tool.shortcut]
    found += [(_(key), _(what)) for key, what in KEYS_ON_THE_PAGE]
    found += [(c.shortcut.replace(" or ", ", "), c.label) for c in context.part("commands").listed if c.shortcut]
    return found


def topic_html(context: Context, topic: Topic) -> str:
    body = "".join(f"<p>{escape(_(line))}</p>" for line in topic.lines)
    if topic.name == "keys":
        rows = "".join(f"<tr><td><b>{escape(k)}</b></td><td>{escape(what)}</td></tr>" for k, what in keys_of(context))
        body += f"<table cellpadding=5>{rows}</table>"
    if topic.name == "shelf":
        things = sorted((kind.title(), _(kind.help)) for kind in kinds().values() if kind.help)
        rows = "".join(f"<tr><td><b>{escape(name)}</b></td><td>{escape(text)}</td></tr>" for name, text in things)
        body += f"<table cellpadding=5>{rows}</table><p>{escape(licence())}</p>"
    return f"<h2>{escape(_(topic.title))}</h2>{body}"


class HelpDialog(QDialog):
    """Topics at the left, the chosen one at the right; the search narrows them."""

    def __init__(self, context: Context) -> None:
        super().__init__(context.top)
        self.context = context
        self.setWindowTitle(_("How things work"))
        room = context.top.size()
        self.resize(min(900, room.width() - 40), min(640, room.height() - 40))
        self.search = Field(self)
        self.search.setPlaceholderText(_("What would you like to know?"))
        self.search.setAccessibleName(_("search the help"))
        self.search.setClearButtonEnabled(True)
        self.search.textChanged.connect(self._fill)
        self.list = QListWidget(self)
        self.list.setAccessibleName(_("topics"))
        self.list.setObjectName("topics")
        self.list.setFixedWidth(300)
        self.list.currentRowChanged.connect(self._show)
        self.picture = Words(self)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.text = QTextBrowser(self)
        self.text.setAccessibleName(_("How things work"))
        self._topics: list[Topic] = []
        self._pictures: dict[str, QPixmap] = {}
        left, right = QVBoxLayout(), QVBoxLayout()
        left.addWidget(self.search)
        left.addWidget(self.list, 1)
        right.addWidget(self.picture)
        right.addWidget(self.text, 1)
        columns = QHBoxLayout()
        columns.addLayout(left)
        columns.addLayout(right, 1)
        buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close, self)
        buttons.rejected.connect(self.reject)
        whole = QVBoxLayout(self)
        whole.addLayout(columns, 1)
        whole.addWidget(buttons)
        self._fill("")

    def _fill(self, query: str) -> None:
        self._topics = ranked(query, TOPICS, lambda t: (_(t.title), f"{_(t.words)} {' '.join(map(_, t.lines))}"))
        self.list.clear()
        self.list.addItems([_(topic.title) for topic in self._topics])
        if self._topics:
            self.list.setCurrentRow(0)

    def open_at(self, name: str) -> None:
        self.search.clear()
        self.list.setCurrentRow(next((k for k, topic in enumerate(self._topics) if topic.name == name), 0))
        self.list.setFocus()
        self.show()

    def _show(self, row: int) -> None:
        if not 0 <= row < len(self._topics):
            return
        topic = self._topics[row]
        self.text.setHtml(topic_html(self.context, topic))
        self.picture.setVisible(bool(topic.scene))
        known = self._pictures.get(topic.name)
        self.picture.setPixmap(known if known is not None else QPixmap())
        if known is None and topic.scene:
            in_background(self, lambda _job: picture_of(topic), partial(self._drawn, topic))

    def _drawn(self, topic: Topic, image: QImage | None) -> None:
        if image is None:
            return
        made = QPixmap.fromImage(image).scaledToHeight(min(190, image.height()), Qt.TransformationMode.SmoothTransformation)
        self._pictures[topic.name] = made
        row = self.list.currentRow()
        if 0 <= row < len(self._topics) and self._topics[row] is topic:
            self.picture.setPixmap(made)


def show_help(context: Context, topic: str = "tools") -> QWidget:
    dialog = HelpDialog(context)
    dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    dialog.open_at(topic)
    return dialog


def show_log(context: Context) -> None:
    """What went wrong unforeseen, as it stands in the log: to be copied into a message to whoever looks after Larch."""
    from larch.services.log import log_file, newest

    dialog = QDialog(context.top)
    dialog.setWindowTitle(_("Log"))
    dialog.resize(760, 520)
    text = QPlainTextEdit(newest() or _("Nothing has gone wrong so far."), dialog)
    text.setReadOnly(True)
    text.setAccessibleName(_("Log"))
    text.moveCursor(QTextCursor.MoveOperation.End)
    where = Words(str(log_file()), dialog)
    where.setTextFormat(Qt.TextFormat.PlainText)
    where.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
    buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close, dialog)
    buttons.rejected.connect(dialog.reject)
    layout = QVBoxLayout(dialog)
    layout.addWidget(text)
    layout.addWidget(where)
    layout.addWidget(buttons)
    dialog.show()
