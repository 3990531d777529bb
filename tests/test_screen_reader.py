"""What a screen reader really hears: an AT-SPI client under a session bus of its own listens to the window under Xvfb."""

from __future__ import annotations

import json
import os
import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from tests.test_xvfb import display  # noqa: F401

SYSTEM_PYTHON = "/usr/bin/python3"
WINDOW = """
import os
import sys
from PyQt6.QtCore import QSocketNotifier, Qt, QTimer
from PyQt6.QtTest import QTest
from larch.desk.app import application, work_to_open
from larch.desk.window import Window

app = application()
window = Window(work_to_open(None, demo=True))
window.canvas.still = True
window.show()
assert QTest.qWaitForWindowExposed(window)
window.activateWindow()
QTest.qWait(300)
assert window.reader is not None
window.canvas.setFocus()
print("ready", flush=True)


def do(line):
    name, _space, value = line.strip().partition(" ")
    if name == "page":
        window.show_page(value)
    elif name == "run":
        window.run(value)
    elif name == "say":
        window.notice.say(value)
    elif name == "key":
        held = Qt.KeyboardModifier.NoModifier
        for part in value.split("+")[:-1]:
            held |= getattr(Qt.KeyboardModifier, part + "Modifier")
        QTest.keyClick(window.focusWidget() or window.canvas, getattr(Qt.Key, "Key_" + value.split("+")[-1]), held)
    QTimer.singleShot(120, lambda: print("done", flush=True))


ear = QSocketNotifier(sys.stdin.fileno(), QSocketNotifier.Type.Read)
ear.activated.connect(lambda: do(os.read(sys.stdin.fileno(), 4096).decode()))
app.exec()
"""
CLIENT = """
import json, subprocess, sys
import gi
gi.require_version("Atspi", "2.0")
from gi.repository import Atspi, GLib

heard, apps = [], []

def on(event):
    apps.append(event.source.get_application())
    focus = event.type.startswith("object:state-changed:focused")
    if not focus or event.detail1:
        try:
            data = "" if focus else str(event.any_data)
            heard.append([event.type.split(":")[-1], event.source.get_role_name(), event.source.get_name() or "",
                          data or event.source.get_description() or ""])
        except GLib.Error:
            pass

listener = Atspi.EventListener.new(on)
for name in ("object:state-changed:focused", "object:property-change:accessible-description",
             "object:property-change:accessible-name", "object:text-changed:insert"):
    listener.register(name)

def pump(ms):
    loop = GLib.MainLoop()
    GLib.timeout_add(ms, loop.quit)
    loop.run()

window = subprocess.Popen([sys.argv[1], "-c", sys.argv[2]], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True)
assert window.stdout.readline().strip() == "ready"
pump(300)
told = {}
for command in sys.argv[3:]:
    heard.clear()
    window.stdin.write(command + "\\n")
    window.stdin.flush()
    assert window.stdout.readline().strip() == "done"
    pump(250)
    told.setdefault(command, []).extend(heard)

def tree(node, found):
    found.append([node.get_role_name(), node.get_name() or "", node.get_description() or ""])
    for k in range(min(node.get_child_count(), 80)):
        child = node.get_child_at_index(k)
        if child is not None:
            tree(child, found)
    return found

print(json.dumps({"told": told, "tree": tree(apps[0], [])}), flush=True)
window.kill()
"""


def listen(display: str, folder: Path, *commands: str) -> dict[str, object]:  # noqa: F811
    needed = [Path("/usr/libexec/at-spi2-registryd"), *Path("/usr/lib").glob("*/girepository-1.0/Atspi-2.0.typelib")]
    if len(needed) < 2 or not all(map(Path.exists, needed)) or not shutil.which("dbus-run-session"):
        pytest.skip("no AT-SPI client is installed")
    environment = {
        **os.environ, "DISPLAY": display, "QT_QPA_PLATFORM": "xcb", "XDG_STATE_HOME": str(folder),
        "QT_LINUX_ACCESSIBILITY_ALWAYS_ON": "1", "PYTHONPATH": os.pathsep.join(p for p in sys.path if p),
    }  # fmt: skip
    client = ["env", "-u", "PYTHONPATH", SYSTEM_PYTHON, "-c", CLIENT]
    # The window needs this Python's path, the client must not have it.
    window = f"import sys; sys.path[:0] = {sys.path!r}\n" + WINDOW
    done = subprocess.run(
        ["dbus-run-session", "--", *client, sys.executable, window, *commands],
        env=environment, capture_output=True, text=True, timeout=120,
    )  # fmt: skip
    assert done.returncode == 0, done.stderr[-3000:]
    found: dict[str, object] = json.loads(done.stdout.strip().splitlines()[-1])
    return found


def test_the_selection_the_corner_and_what_was_done_are_heard(display: str, own_folders: Path) -> None:  # noqa: F811
    found = listen(
        display, own_folders, "page p4", "key Tab", "key Tab", "run next corner", "key Right", "run undo", "page p3",
        "key Shift+Tab", "say The boats are counted.", "key R",
    )  # fmt: skip
    told: dict[str, list[list[str]]] = found["told"]  # type: ignore[assignment]

    def words(command: str) -> str:
        return " / ".join(" ".join(part) for part in told[command])

    focused = [part for part in told["key Tab"] if part[0] == "focused"]
    assert focused, told["key Tab"]
    assert all(part[1] == "panel" and part[2] for part in focused)
    assert any("triangle" in part[2].lower() for part in told["key Tab"]), words("key Tab")
    assert "area" in words("key Tab")  # all facts, not the first few
    assert any(part[0] == "focused" and part[1] == "text" and "corner" in part[2] for part in told["run next corner"]), (
        words("run next corner")
    )
    assert any(part[0] == "insert" and "cm from the left" in part[3] for part in told["key Right"]), words("key Right")
    assert "undone" in words("run undo")
    assert "The boats are counted." in words("say The boats are counted.")


def test_the_page_and_the_tools_are_what_they_are(display: str, own_folders: Path) -> None:  # noqa: F811
    tree: list[list[str]] = listen(display, own_folders, "page p4")["tree"]  # type: ignore[assignment]
    roles = {name: role for role, name, _description in tree}
    assert roles["Page 4: How much paper for one lantern panel?"] == "panel"
    for tool in ("select", "pen", "rub out"):
        assert roles[tool] == "radio button"
    assert roles["Desk"] == roles["Board"] == "radio button"
    assert all(
        name for role, name, _description in tree if role in ("push button", "radio button", "check box", "combo box")
    )
