"""`larch bench`: each figure beside a floor that does only the unavoidable work, in the same run."""

from __future__ import annotations

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from functools import partial
from pathlib import Path
from typing import Any

BARE_WINDOW = """
import sys, time
from PyQt6.QtWidgets import QApplication, QMainWindow
class Window(QMainWindow):
    def paintEvent(self, event):
        super().paintEvent(event)
        print("painted", flush=True); app.quit()
app = QApplication(sys.argv); window = Window(); window.resize(1280, 800); window.show(); app.exec()
"""

LARCH_WINDOW = """
import sys
from larch.desk.app import application, work_to_open
app = application()
from larch.desk.window import Window
window = Window(work_to_open(None, demo=True))
old = window.canvas.paintEvent
def painted(event):
    old(event)
    print("painted", flush=True)
    app.quit()
window.canvas.paintEvent = painted
window.show()
app.exec()
heavy = sorted({"numpy", "scipy", "sympy"} & set(sys.modules))
print("imported before the first paint:", heavy or "nothing heavy", flush=True)
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


def p(values: list[float], share: float) -> float:
    ordered = sorted(values)
    return ordered[min(len(ordered) - 1, int(len(ordered) * share))]


def timed(work: Callable[[], Any]) -> float:
    """Milliseconds."""
    began = time.perf_counter()
    work()
    return (time.perf_counter() - began) * 1000


def line(what: str, measured: str, floor: str, goal: str) -> None:
    print(f"{what:<52} {measured:<30} {floor:<34} {goal}", flush=True)


def run_bench() -> int:
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    folder = tempfile.mkdtemp(prefix="larch-bench-")
    os.environ["XDG_STATE_HOME"] = folder
    import numpy.linalg  # noqa: F401

    from larch.bench.arranging import arranging
    from larch.bench.dress import dressing
    from larch.bench.geometry import geometry
    from larch.desk.app import application
    from larch.desk.quiet import calm

    app = application()
    calm()
    line("what", "Larch (ms)", "floor (ms)", "goal")
    pen(app)
    views(app)
    vertex(app)
    curves()
    dressing(app)
    geometry(app)
    arranging(app)
    start_up(folder)
    files(Path(folder))
    memory()
    return 0


def _canvas(page: Any) -> Any:
    from larch.board.canvas import Canvas
    from larch.core.model.lesson import Lesson
    from larch.core.session.session import Session

    lesson = Lesson().insert(page)
    canvas = Canvas(Session(lesson, time.monotonic), "p1")
    canvas.resize(1280, 720)
    canvas.show()
    canvas.surface.sharpen(1e6)
    canvas.grab()
    return canvas


def _mouse(canvas: Any, kind: Any, x: float, y: float) -> None:
    from PyQt6.QtCore import QPointF, Qt
    from PyQt6.QtGui import QMouseEvent
    from PyQt6.QtWidgets import QApplication

    at, left = QPointF(x, y), Qt.MouseButton.LeftButton
    event = QMouseEvent(kind, at, canvas.mapToGlobal(at), left, left, Qt.KeyboardModifier.NoModifier)
    QApplication.sendEvent(canvas, event)


def pen(app: Any) -> None:
    """A stroke of 300 moves across a page with 2,000 strokes: from the event to the end of the paint."""
    from PyQt6.QtCore import QEvent, QPointF, Qt
    from PyQt6.QtGui import QColor, QPainter, QPen, QPixmap

    from larch.bench.material import full_page
    from larch.board.tools.draw import PenTool

    canvas = _canvas(full_page())
    canvas.pointers.tool = PenTool()
    kind = QEvent.Type
    times = []
    _mouse(canvas, kind.MouseButtonPress, 100, 100)
    for i in range(300):

        def step(i: int = i) -> None:
            _mouse(canvas, kind.MouseMove, 100 + 3 * i, 100 + 1.5 * i + 20 * (i % 2))
            app.processEvents()

        times.append(timed(step))
    lifted = timed(lambda: _moved(app, canvas, kind.MouseButtonRelease, 1000, 550))
    picture = QPixmap(1280, 720)
    screen = QPixmap(1280, 720)
    bare = []
    for i in range(300):

        def floor(i: int = i) -> None:
            painter = QPainter(picture)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(QPen(QColor("black"), 4, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            painter.drawLine(QPointF(100 + 3 * i, 100 + 1.5 * i), QPointF(103 + 3 * i, 120 + 1.5 * i))
            painter.end()
            painter = QPainter(screen)
            painter.drawPixmap(100 + 3 * i, 100, picture, 100 + 3 * i, 100, 30, 40)
            painter.end()

        bare.append(timed(floor))
    measured = f"p50 {p(times, 0.5):.2f}  p99 {p(times, 0.99):.2f}"
    line("pen: event to paint, 2,000 strokes", measured, f"p50 {p(bare, 0.5):.2f}  p99 {p(bare, 0.99):.2f}", "p99 <= 8")
    line("pen: lifting it (commit and paint at rest)", f"{lifted:.1f}", "", "a frame, 16")
    canvas.close_session()


def _moved(app: Any, canvas: Any, kind: Any, x: float, y: float) -> None:
    _mouse(canvas, kind, x, y)
    app.processEvents()


def _stepped(app: Any, step: Callable[[int], None], i: int) -> None:
    step(i)
    app.processEvents()


def views(app: Any) -> None:
    """Pan, zoom and a drag of 200 selected among 5,000 things; every frame painted."""
    from PyQt6.QtCore import QEvent
    from PyQt6.QtGui import QPainter, QPixmap

    from larch.bench.material import crowded_page

    canvas = _canvas(crowded_page())
    screen, base = QPixmap(1280, 720), QPixmap(1280, 720)

    def blit() -> None:
        painter = QPainter(screen)
        painter.drawPixmap(0, 0, base)
        painter.end()

    floor = f"blit {p([timed(blit) for _ in range(60)], 0.95):.2f}"

    def frames(steps: int, step: Callable[[int], None]) -> str:
        times = [timed(partial(_stepped, app, step, i)) for i in range(steps)]
        return f"p50 {p(times, 0.5):.1f}  p95 {p(times, 0.95):.1f}  max {max(times):.1f}"

    line("pan: a frame, 5,000 things", frames(100, lambda i: canvas.pan_by(-16, -6)), floor, "p95 <= 16")
    canvas.whole_page()
    canvas.surface.sharpen(1e6)
    zoomed = frames(60, lambda i: canvas.zoom_by(1.03 if i < 30 else 1 / 1.03, (640, 360)))
    line("zoom: a frame, 5,000 things", zoomed, floor, "p95 <= 16")
    canvas.true_size()
    canvas.surface.sharpen(1e6)
    chosen = [
        t.id
        for t in canvas.page.things
        if t.kind() != "ink" and canvas.box_of([t]).x1 < 1500 and canvas.box_of([t]).y1 < 1000
    ]
    canvas.select(chosen[:200])
    middles = [canvas.box_of([thing]).centre for thing in canvas.things()]
    on_top = next(at for at in middles if (hit := canvas.thing_at(at, 0)) is not None and hit.id in canvas.selection)
    x, y = canvas.camera.to_view(*on_top)
    kind = QEvent.Type
    _mouse(canvas, kind.MouseButtonPress, x, y)
    dragged = frames(80, lambda i: _mouse(canvas, kind.MouseMove, x + 8 + 3 * i, y + 2 * i))
    line(f"drag {len(canvas.selection)} of 5,000: a frame", dragged, floor, "p95 <= 16")
    _mouse(canvas, kind.MouseButtonRelease, x + 250, y + 160)
    canvas.close_session()


def vertex(app: Any) -> None:
    """A corner of a quadrilateral with all measures shown, and what its facts alone cost."""
    from PyQt6.QtCore import QEvent

    from larch.core.base.shape import Placement
    from larch.core.maths.geometry import area, interior_angles, perimeter, sides
    from larch.core.model.page import Page
    from larch.core.things.geometry.polygon import Polygon

    shape = ((0.0, 0.0), (300.0, 0.0), (260.0, 220.0), (30.0, 240.0))
    page = Page(id="").put(Polygon(vertices=shape, shown=("sides", "angles", "area"), placement=Placement(300, 200)))
    canvas = _canvas(page)
    canvas.select(["t1"])
    corner = canvas.camera.to_view(*canvas.page.things[0].placement.to_page(*shape[2]))
    kind = QEvent.Type
    _mouse(canvas, kind.MouseButtonPress, *corner)
    times = []
    for i in range(100):
        work = partial(_moved, app, canvas, kind.MouseMove, corner[0] + i, corner[1] + 20 * (i % 3))
        times.append(timed(work))
    thing = canvas.preview_page().things[0]
    facts = [timed(lambda: list(thing.facts(page))) for _ in range(100)]
    bare = [timed(lambda: (sides(shape), interior_angles(shape), perimeter(shape), area(shape))) for _ in range(100)]
    line(
        "drag a corner: event to painted measures",
        f"p50 {p(times, 0.5):.2f}  p95 {p(times, 0.95):.2f}",
        "",
        "the same frame",
    )
    line("   its facts alone", f"p50 {p(facts, 0.5):.3f}", f"bare geometry {p(bare, 0.5):.3f}", "<= 4")
    canvas.close_session()


def curves() -> None:
    """Five graphs computed and painted, against NumPy and a bare polyline."""
    import numpy as np
    from PyQt6.QtGui import QImage, QPainter, QPen

    from larch.board.ink.strokes import polygon_of
    from larch.board.paint import HINTS
    from larch.board.views.graphs.axes import paint_curve
    from larch.core.things.graphs.axes import Axes
    from larch.core.things.graphs.equation import Equation

    axes = Axes(width=600, height=500)
    image = QImage(640, 540, QImage.Format.Format_ARGB32_Premultiplied)
    made = [Equation(source=s) for s in ("y=3/4 x-2", "y=x^2/4", "y=3sin(x)", "y=1/x", "y=sqrt(x+4)")]
    at = np.linspace(-6, 6, 513)
    formulas: list[Callable[[Any], Any]] = [
        lambda x: 0.75 * x - 2,
        lambda x: x * x / 4,
        lambda x: 3 * np.sin(x),
        lambda x: 1 / x,
        lambda x: np.sqrt(x + 4),
    ]

    def ours() -> None:
        painter = QPainter(image)
        painter.setRenderHints(HINTS)
        for equation in made:
            paint_curve(painter, axes, equation, equation.curve())  # type: ignore[arg-type]
        painter.end()

    def bare() -> None:
        painter = QPainter(image)
        painter.setRenderHints(HINTS)
        painter.setPen(QPen(painter.pen().color(), 3.4))
        with np.errstate(all="ignore"):
            for formula in formulas:
                y = np.nan_to_num(np.clip(formula(at), -9, 9))
                whole = np.column_stack([(at + 6) * 50, (5 - y) * 50])
                for start in range(0, 513, 48):
                    painter.drawPolyline(polygon_of(whole[start : start + 49]))
        painter.end()

    mine, floor = (p([timed(work) for _ in range(40)], 0.5) for work in (ours, bare))
    line("five curves computed and painted", f"p50 {mine:.1f}", f"{floor:.1f}  (ratio {mine / floor:.1f})", "<= 8, <= 3x")


def start_up(folder: str) -> None:
    """From process start to the first paint, warm disk, median of five; interleaved with a bare window."""
    found: dict[str, list[float]] = {"larch": [], "bare": []}
    last = ""
    compiled = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    subprocess.run([sys.executable, "-m", "compileall", "-q", str(Path(__file__).parents[1])], check=False, env=compiled)
    for _ in range(5):
        for name, script in (("bare", BARE_WINDOW), ("larch", LARCH_WINDOW)):
            began = time.perf_counter()
            child = subprocess.Popen(
                [sys.executable, "-c", script], stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True, env=compiled
            )
            assert child.stdout is not None
            child.stdout.readline()
            found[name].append((time.perf_counter() - began) * 1000)
            last = child.communicate()[0].strip() or last
    mine, bare = (statistics.median(found[name]) for name in ("larch", "bare"))
    floor = f"bare window {bare:.0f}  (ratio {mine / bare:.1f})"
    line("start to first paint (demo lesson)", f"{mine:.0f}", floor, "<= 2x")
    print(f"   {last}", flush=True)


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
