"""Starting the program."""

from __future__ import annotations

import os
import signal
import sys
import traceback
from pathlib import Path
from types import TracebackType

from PyQt6 import sip
from PyQt6.QtCore import QObject, QTimer, pyqtSignal
from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QApplication

from larch.core.base.words import _
from larch.core.files.lesson_file import LessonFileError
from larch.core.media.store import store
from larch.core.model import guarded
from larch.core.model.lesson import blank_lesson
from larch.desk.jobs import in_background
from larch.desk.quiet import Quiet
from larch.desk.style import ICON, dress
from larch.desk.theme import wear
from larch.desk.window import Window
from larch.services import log
from larch.services.motion import desktop_wants_stillness
from larch.services.places import media_folder
from larch.services.recent import remember_lesson
from larch.services.settings import load_settings
from larch.services.work import OpenLesson
from larch.services.workspace import fresh_seed, open_demo, open_file, open_new, open_unsaved, unsaved_folders


def has_display() -> bool:
    return bool(os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY"))


def application() -> QApplication:
    """The QApplication, dressed; offscreen, and saying so, where there is no display."""
    if "QT_QPA_PLATFORM" not in os.environ and not has_display():
        print("larch: there is no display; running offscreen", file=sys.stderr)
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
    store.folder = media_folder()
    found = QApplication.instance()
    if isinstance(found, QApplication) and found.applicationName() == "larch":
        return found  # dressed before: doing it again would restyle every window there is
    app = found if isinstance(found, QApplication) else QApplication(sys.argv[:1])
    app.setApplicationName("larch")
    app.setDesktopFileName("larch")
    app.setApplicationDisplayName("Larch")
    app.setWindowIcon(QIcon(str(ICON)))
    wear(load_settings().theme)
    dress(app)
    return app


def work_to_open(path: Path | None, demo: bool) -> OpenLesson:
    """What to start with: the file, the demo, the newest unsaved work, or a blank page."""
    if path is not None:
        work = open_file(path)
        remember_lesson(path)
        return work
    if demo:
        from larch.demo import demo_lesson

        return open_demo(demo_lesson)
    for folder in unsaved_folders():
        try:
            work_left = open_unsaved(folder)
        except Exception as error:  # one bad lesson never keeps the program from starting
            log.report(error, "opening what was left")
            continue
        if work_left is not None:
            return work_left
    return open_new(blank_lesson(fresh_seed()))


def _calm(window: Window, still: object) -> None:
    window.canvas.still = window.canvas.still or bool(still)


class Trouble(QObject):
    """A mistake of ours must not end a lesson: it is logged and said, and the work goes on. From any thread."""

    met = pyqtSignal()

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self._window = window
        self.met.connect(self._say)
        self._unlisten = log.listen(lambda _error: self._met())
        self.destroyed.connect(lambda: self._unlisten())

    def _met(self) -> None:
        if not sip.isdeleted(self):
            self.met.emit()

    def _say(self) -> None:
        words = _("Something went wrong in Larch; your work is kept. Undo or go on.")
        self._window.notice.say(words, _("show the log"), lambda: self._window.run("log"))

    def stumble(self, kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
        """What nothing has caught, on the interface's thread."""
        traceback.print_exception(kind, error, trace)
        if issubclass(kind, KeyboardInterrupt):
            self._window.close()
        else:
            self._window.canvas.pointers.cancel()


def run(path: Path | None = None, demo: bool = False) -> int:
    """Opens the window and works until it is closed."""
    app = application()
    try:
        work = work_to_open(path, demo)
    except (LessonFileError, OSError) as error:  # a bad lesson never keeps the program from starting
        print(f"larch: {error}", file=sys.stderr)
        work = open_new(blank_lesson(fresh_seed()))
        work.notes.insert(0, str(error))
    window = Window(work)
    window.open_on_screen()
    in_background(window, lambda _job: desktop_wants_stillness(), lambda still: _calm(window, still))
    Quiet(window)
    guarded.listen(lambda error: log.report(error, "held to a thing", quietly=True))
    log.watch_threads()
    log.watch_python(Trouble(window).stumble)
    signal.signal(signal.SIGTERM, lambda *_args: window.close() or window.close())  # said once, then done
    ears = QTimer(window)  # lets Python hear signals while Qt waits
    ears.timeout.connect(lambda: None)
    ears.start(300)
    return int(app.exec())
