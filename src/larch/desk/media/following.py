"""Following links, and setting them."""

from __future__ import annotations

from errno import EFBIG
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QMimeDatabase, QUrl
from PyQt6.QtGui import QDesktopServices

from larch.core.actions.links import HARMLESS, Link, link_of, linked, opened_by, page_link, read_link, said
from larch.core.base.disk import read_bounded
from larch.core.base.words import _
from larch.core.media.store import LARGEST, store

if TYPE_CHECKING:
    from larch.desk.context import Context

PROGRAMS = ("application/x-executable", "application/x-sharedlib", "application/x-shellscript", "application/x-desktop",
            "application/x-ms-dos-executable", "text/html", "application/x-perl", "text/x-python")  # fmt: skip
SOUNDS = {".ogg": "ogg", ".oga": "ogg", ".mp3": "mp3", ".wav": "wav"}


def _is_harmless(link: Link) -> bool:
    """By its real name and by what is in it: a program that is called a picture is none."""
    real = opened_by(link)
    if real is None:
        return False
    sort = QMimeDatabase().mimeTypeForFile(str(real), QMimeDatabase.MatchMode.MatchContent)
    return not any(sort.inherits(name) for name in PROGRAMS) and real.suffix.lower() in HARMLESS


class Following:
    """What a tap on a link does. Pages open at once, sounds play; before anything outside Larch is opened, it is asked."""

    def __init__(self, context: Context) -> None:
        self.context = context
        self.player: object | None = None

    def follow(self, text: str) -> None:
        link = link_of(text)
        if link is None:
            self.context.say(_("This link leads nowhere."))
        elif link.sort == "page":
            if self.context.session.lesson.page(link.to) is None:
                self.context.say(_("The page that this leads to is gone."))
            else:
                self.context.show_page(link.to)
        elif link.sort == "sound":
            self._play(link.to)
        elif link.sort == "file" and not _is_harmless(link):
            self.context.say(_("There is no file {name} that could be shown.").format(name=Path(link.to).name))
        else:
            self._ask(text)

    def _ask(self, text: str) -> None:
        canvas = self.context.canvas
        x, y = canvas.width() / 2, canvas.height() / 3
        words = _("Open {what}").format(what=said(text))
        canvas.offer(canvas.camera.to_page(x, y), words, "external-link", lambda: self.open_outside(text), lambda: None)

    @staticmethod
    def open_outside(text: str) -> None:
        """Looks again: what a link leads to may have changed since it was asked for."""
        link = link_of(text)
        if link is not None and link.sort == "web":
            QDesktopServices.openUrl(QUrl(text))
        elif link is not None and link.sort == "file" and _is_harmless(link):
            QDesktopServices.openUrl(QUrl.fromLocalFile(str(opened_by(link))))

    def _play(self, name: str) -> None:
        data = store.data(name)
        if data is None or store.folder is None:
            self.context.say(_("The sound is missing."))
            return
        if not (store.folder / name).exists():
            store.keep(data, name.rpartition(".")[2])
        try:
            from PyQt6.QtMultimedia import QAudioOutput, QMediaPlayer
        except ImportError:
            self.context.say(_("This machine can't play sounds."))
            return
        player = QMediaPlayer(self.context.top)
        player.setAudioOutput(QAudioOutput(player))
        player.setSource(QUrl.fromLocalFile(str(store.folder / name)))
        player.play()
        self.player = player

    def selected(self) -> None:
        """Follows the link of the selection."""
        link = next((thing.link for thing in self.context.canvas.things() if thing.link), "")
        if link:
            self.follow(link)
        else:
            self.context.say(_("What is selected leads nowhere yet."))

    def to_page(self, number: int) -> None:
        canvas = self.context.canvas
        if canvas.things():
            canvas.commit(linked(canvas.page, canvas.things(), page_link(self.context.session.lesson, number)))

    def ask_page(self) -> None:
        from PyQt6.QtWidgets import QInputDialog

        pages = self.context.session.lesson.pages
        names = [f"{k}   {page.title or _('untitled')}" for k, page in enumerate(pages, 1)]
        name, good = QInputDialog.getItem(self.context.top, _("Link"), _("To which page does it lead?"), names, 0, False)
        if good and name in names:
            self.to_page(names.index(name) + 1)

    def ask_address(self) -> None:
        """A web address or a file, as it is typed."""
        from PyQt6.QtWidgets import QInputDialog

        now = next((thing.link for thing in self.context.canvas.things() if thing.link), "")
        text, good = QInputDialog.getText(self.context.top, _("Link"), _("A web address, or the path of a file"), text=now)
        if good:
            self.to_address(text)

    def to_address(self, typed: str) -> None:
        canvas = self.context.canvas
        try:
            canvas.commit(linked(canvas.page, canvas.things(), read_link(typed)))
        except ValueError as error:
            self.context.say(str(error))

    def ask_sound(self) -> None:
        from PyQt6.QtWidgets import QFileDialog

        name, _kind = QFileDialog.getOpenFileName(
            self.context.top, _("A sound"), "", _("Sounds") + " (*.ogg *.oga *.mp3 *.wav)"
        )
        if name:
            self.sound_from(Path(name))

    def sound_from(self, path: Path) -> None:
        """Puts a sound behind the selection."""
        canvas = self.context.canvas
        sort = SOUNDS.get(path.suffix.lower())
        try:
            media = store.keep(read_bounded(path, LARGEST), sort) if sort is not None else ""
        except OSError as error:
            if error.errno == EFBIG:
                self.context.say(_("{name} is no sound of up to 24 MB.").format(name=path.name))
                return
            self.context.say(_("{name} can't be read.").format(name=path.name))
            return
        if not media:
            self.context.say(_("{name} is no sound of up to 24 MB.").format(name=path.name))
            return
        canvas.commit(linked(canvas.page, canvas.things(), f"sound:{media}"))
