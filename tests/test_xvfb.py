"""Once in a real window: under Xvfb, through the xcb platform, as a person's machine would run it."""

from __future__ import annotations

import os
import shutil
import signal
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import pytest

SCRIPT = """
import sys
from pathlib import Path
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtTest import QTest
from larch.desk.app import application, work_to_open
from larch.desk.window import Window

app = application()
assert app.platformName() == "xcb", app.platformName()
window = Window(work_to_open(None, demo=True))
window.show()
assert QTest.qWaitForWindowExposed(window)
window.ledge.take("pen")
canvas = window.canvas
QTest.mousePress(canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, QPoint(300, 300))
for x in range(310, 600, 10):
    QTest.mouseMove(canvas, QPoint(x, 300 + x % 7))
QTest.mouseRelease(canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, QPoint(600, 300))
ink = [thing for thing in canvas.page.things if thing.kind() == "ink"]
assert len(ink) == 1, ink
assert window.files.journal.flush()
print("drawn", flush=True)
QTest.qWait(60_000)
"""


@pytest.fixture
def display(tmp_path: Path) -> Iterator[str]:
    if not shutil.which("Xvfb"):
        pytest.skip("Xvfb is not installed")
    read, write = os.pipe()
    server = subprocess.Popen(
        ["Xvfb", "-displayfd", str(write), "-screen", "0", "1280x800x24", "-nolisten", "tcp"],
        pass_fds=[write], stderr=subprocess.DEVNULL,
    )  # fmt: skip
    os.close(write)
    with os.fdopen(read) as numbers:
        number = numbers.readline().strip()
    yield f":{number}"
    server.kill()
    server.wait(20)


def start(display: str, folder: Path, script: str) -> subprocess.Popen[str]:
    environment = {**os.environ, "DISPLAY": display, "QT_QPA_PLATFORM": "xcb", "XDG_STATE_HOME": str(folder)}
    return subprocess.Popen([sys.executable, "-c", script], stdout=subprocess.PIPE, text=True, env=environment)


def test_a_real_window_draws_is_killed_and_finds_everything_again(display: str, tmp_path: Path) -> None:
    first = start(display, tmp_path, SCRIPT)
    assert first.stdout is not None
    assert first.stdout.readline() == "drawn\n"
    first.send_signal(signal.SIGKILL)
    first.stdout.close()
    first.wait()
    look = SCRIPT.split('window.ledge.take("pen")')[0] + (
        "ink = [t for t in window.canvas.page.things if t.kind() == 'ink']\n"
        "print(len(ink), window.notice.text(), flush=True)\nwindow.close()\n"
    )
    second = start(display, tmp_path, look)
    assert second.communicate(timeout=60)[0] == "1 Brought back 1 change that was not saved.\n"
