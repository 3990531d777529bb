"""Measured at the door: start with and without bytecode, files, memory."""

from __future__ import annotations

import os
import shutil
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

from larch.bench.measure import bench, line, timed

BARE_WINDOW = """
import sys
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QColor
from PyQt6.QtWidgets import QApplication, QMainWindow
class Window(QMainWindow):
    def paintEvent(self, event):
        super().paintEvent(event)
        print("painted", flush=True); app.quit()
QColor("#17332E"); Qt.AlignmentFlag.AlignCenter
app = QApplication(sys.argv); window = Window(); window.resize(1280, 800); window.show(); app.exec()
"""

LARCH_WINDOW = """
import sys
from larch.desk.app import application, work_to_open
app = application()
from larch.desk.window import Window
window = Window(work_to_open(None, demo=len(sys.argv) > 1))
old = window.canvas.paintEvent
def painted(event):
    old(event)
    print("painted", flush=True)
    app.quit()
window.canvas.paintEvent = painted
window.show()
app.exec()
heavy = sorted({"numpy", "scipy", "sympy"} & set(sys.modules))
ours = sum(name.startswith("larch") for name in sys.modules)
print(f"modules at the first paint: {ours} of Larch, {len(sys.modules)} in all;", heavy or "nothing heavy", flush=True)
window.close()
"""

MEMORY = """
import sys
from PyQt6.QtTest import QTest
from larch.desk.app import application, work_to_open
app = application()
from larch.desk.window import Window
window = Window(work_to_open(None, demo=True)); window.show()
for number in range(6):
    QTest.qWait(150); window.turn(1)
line = next(l for l in open("/proc/self/status") if l.startswith("VmRSS"))
print(int(line.split()[1]) / 1024); window.close()
"""


SOURCE = Path(__file__).parents[2]


def _first_paint(script: str, *given: str, source: Path | None = None) -> tuple[float, str]:
    """From the start of a process to its first paint, ms; and what it said then. source: of a copy without bytecode, which
    writes none either."""
    environment = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    if source is not None:
        environment |= {"PYTHONPATH": str(source), "PYTHONDONTWRITEBYTECODE": "1"}
    began = time.perf_counter()
    child = subprocess.Popen(
        [sys.executable, "-c", script, *given], stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True, env=environment
    )
    assert child.stdout is not None
    child.stdout.readline()
    took = (time.perf_counter() - began) * 1000
    return took, child.communicate()[0].strip()


@bench("start to first paint, with and without bytecode")
def start_up() -> None:
    """Warm disk, median of five, interleaved with a bare window of the same run."""
    compiled = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    subprocess.run([sys.executable, "-m", "compileall", "-q", str(SOURCE / "larch")], check=False, env=compiled)
    with tempfile.TemporaryDirectory() as place:
        bare_source = Path(place) / "src"
        shutil.copytree(SOURCE, bare_source, ignore=shutil.ignore_patterns("__pycache__"))
        runs: dict[str, Callable[[], tuple[float, str]]] = {
            "bare": lambda: _first_paint(BARE_WINDOW),
            "start to first paint, blank page": lambda: _first_paint(LARCH_WINDOW),
            "   the demo lesson": lambda: _first_paint(LARCH_WINDOW, "demo"),
            "   blank page, no bytecode kept": lambda: _first_paint(LARCH_WINDOW, source=bare_source),
        }
        found: dict[str, list[tuple[float, str]]] = {name: [] for name in runs}
        for _ in range(5):
            for name, run in runs.items():
                found[name].append(run())
    floor = statistics.median(took for took, _said in found["bare"])
    for name, times in found.items():
        took = statistics.median(one for one, _said in times)
        if name != "bare":
            line(name, f"{took:.0f}", f"bare window {floor:.0f}  (ratio {took / floor:.1f})", "<= 3x")
    print(f"   {found['start to first paint, blank page'][-1][1]}", flush=True)


@bench("files of 100 pages")
def files(folder: Path) -> None:
    """100 pages with 10,000 strokes."""

    from larch.bench.material import long_lesson
    from larch.core.files.lesson_file import read_lesson, write_lesson
    from larch.core.model.action import put

    lesson, path = long_lesson(), folder / "long.larch"
    first = timed(lambda: write_lesson(lesson, path))
    size = path.stat().st_size
    changed = put(lesson.pages[3], [lesson.pages[0].things[0]], "").apply(lesson)
    again = timed(lambda: write_lesson(changed, path))
    bare_write = timed(lambda: (folder / "bare").write_bytes(os.urandom(1024) * (size // 1024)))
    bare_read = timed(lambda: path.read_bytes())
    opened = timed(lambda: read_lesson(path))
    line(
        "save 100 pages, 10,000 strokes: first time",
        f"{first:.0f} (own thread)",
        f"write {size / 2**20:.1f} MB {bare_write:.0f}",
        "",
    )
    line("   again after one stroke", f"{again:.0f} (own thread)", "", "interface: 0; <= 300")
    line("open it, all pages", f"{opened:.0f}", f"read {bare_read:.1f}", "first page <= 500")


@bench("memory")
def memory() -> None:
    done = subprocess.run([sys.executable, "-c", MEMORY], capture_output=True, text=True, check=False)
    bare = "import sys\nfrom PyQt6.QtWidgets import QApplication\na = QApplication(sys.argv)\n" + (
        'print(int(next(l for l in open("/proc/self/status") if l.startswith("VmRSS")).split()[1]) / 1024)'
    )
    floor = subprocess.run([sys.executable, "-c", bare], capture_output=True, text=True, check=False)
    line(
        "resident memory, demo lesson, all pages seen (MB)",
        done.stdout.strip()[:5],
        f"bare Qt {floor.stdout.strip()[:5]}",
        "<= 250",
    )
