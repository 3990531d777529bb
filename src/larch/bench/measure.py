"""What every bench needs: timing, lines of the table, a canvas to work at, and how benches are found."""

from __future__ import annotations

import inspect
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any, NamedTuple


class Bench(NamedTuple):
    name: str
    run: Callable[..., None]


BENCHES: list[Bench] = []


def bench(name: str) -> Callable[[Callable[..., None]], Callable[..., None]]:
    """Marks a function that measures something: `larch bench WORD` runs those with WORD in their name. It may ask for
    `app`, the application, and for `folder`, where it may write."""

    def keep(run: Callable[..., None]) -> Callable[..., None]:
        BENCHES.append(Bench(name, run))
        return run

    return keep


def carry_out(one: Bench, app: Any, folder: Path) -> None:
    given = {"app": app, "folder": folder}
    one.run(**{name: given[name] for name in inspect.signature(one.run).parameters})


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


def canvas_of(page: Any) -> Any:
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


def mouse(canvas: Any, kind: Any, x: float, y: float) -> None:
    from PyQt6.QtCore import QPointF, Qt
    from PyQt6.QtGui import QMouseEvent
    from PyQt6.QtWidgets import QApplication

    at, left = QPointF(x, y), Qt.MouseButton.LeftButton
    event = QMouseEvent(kind, at, canvas.mapToGlobal(at), left, left, Qt.KeyboardModifier.NoModifier)
    QApplication.sendEvent(canvas, event)


def moved(app: Any, canvas: Any, kind: Any, x: float, y: float) -> None:
    mouse(canvas, kind, x, y)
    app.processEvents()


def stepped(app: Any, step: Callable[[int], None], i: int) -> None:
    step(i)
    app.processEvents()
