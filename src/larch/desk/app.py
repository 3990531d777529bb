"""Starting the program."""

from __future__ import annotations

import os
import signal
import sys
import traceback
from pathlib import Path
from types import TracebackType

from PyQt6.QtCore import QTimer
from PyQt6.QtGui import QIcon
from PyQt6.QtWidgets import QApplication

from larch.core.base.words import _
from larch.core.files.lesson_file import LessonFileError
from larch.core.media.store import store
from larch.core.model.lesson import blank_lesson
from larch.desk.jobs import in_background
from larch.desk.quiet import Quiet
from larch.desk.style import ICON, dress
from larch.desk.window import Window
from larch.services.motion import desktop_wants_stillness
from larch.services.places import media_folder
from larch.services.recent import remember_lesson
from larch.services.workspace import OpenLesson, fresh_seed, open_demo, open_file, open_new, open_unsaved, unsaved_folders


def has_display() -> bool:
    return bool(os.environ.get("DISPLAY") or os.environ.get("WAYLAND_DISPLAY"))


def application() -> QApplication:
    """The QApplication, dressed; offscreen, and saying so, where there is no display."""
    if "QT_QPA_PLATFORM" not in os.environ and not has_display():
        print("larch: there is no display; running offscreen", file=sys.stderr)
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
    found = QApplication.instance()
    app = found if isinstance(found, QApplication) else QApplication(sys.argv[:1])
    store.folder = media_folder()
    app.setApplicationName("larch")
    app.setDesktopFileName("larch")
    app.setApplicationDisplayName("Larch")
    app.setWindowIcon(QIcon(str(ICON)))
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
        work_left = open_unsaved(folder)
        if work_left is not None:
            return work_left
    return open_new(blank_lesson(fresh_seed()))


def _calm(window: Window, still: object) -> None:
    window.canvas.still = window.canvas.still or bool(still)


def _stumble(window: Window, kind: type[BaseException], error: BaseException, trace: TracebackType | None) -> None:
    """A mistake of ours must not end a lesson: it is printed, said, and the work goes on."""
    traceback.print_exception(kind, error, trace)
    if not issubclass(kind, KeyboardInterrupt):
        window.canvas.pointers.cancel()
        window.notice.say(_("Something went wrong in Larch; your work is kept. Undo or go on."))
    else:
        window.close()


def run(path: Path | None = None, demo: bool = False) -> int:
    """Opens the window and works until it is closed."""
    app = application()
    try:
        work = work_to_open(path, demo)
    except LessonFileError as error:
        print(f"larch: {error}", file=sys.stderr)
        return 2
    window = Window(work)
    window.show()
    in_background(window, lambda _job: desktop_wants_stillness(), lambda still: _calm(window, still))
    Quiet(window)
    sys.excepthook = lambda kind, error, trace: _stumble(window, kind, error, trace)
    signal.signal(signal.SIGTERM, lambda *_args: window.close())
    ears = QTimer(window)  # lets Python hear signals while Qt waits
    ears.timeout.connect(lambda: None)
    ears.start(300)
    return int(app.exec())
