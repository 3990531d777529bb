"""Signs drawn plainly, set side by side and below each other, as someone writes who takes care."""

from __future__ import annotations

import importlib.util
from collections.abc import Sequence
from pathlib import Path
from types import ModuleType
from typing import Any

Strokes = list[list[tuple[float, float]]]
SIZE = 34.0  # page units to the height of an x


def _signs() -> ModuleType:
    path = Path(__file__).parents[3] / "tools" / "recognition" / "signs.py"
    spec = importlib.util.spec_from_file_location("drawn_signs", path)
    assert spec is not None and spec.loader is not None
    module = importlib.util.module_from_spec(spec)
    spec.loader.exec_module(module)
    return module


_DRAWN: Any = _signs()


def sign(name: str, x: float, y: float, size: float = SIZE, which: int = 0) -> tuple[Strokes, float]:
    """Its strokes with their left edge at x, standing on y; and where it ends."""
    runs = _DRAWN.SIGNS[name][which]
    left = min(float(run[:, 0].min()) for run in runs)
    made = [[(x + (float(a) - left) * size, y + float(b) * size) for a, b in run] for run in runs]
    return made, max(px for run in made for px, _y in run)


def row(text: str, x: float = 0.0, y: float = 0.0, size: float = SIZE, gap: float = 0.35) -> Strokes:
    """Blanks are a sign's width."""
    made: Strokes = []
    for name in text:
        if name == " ":
            x += 1.2 * size
            continue
        strokes, end = sign(name, x, y, size)
        made += strokes
        x = end + gap * size
    return made


def columns(lines: Sequence[str], pitch: float = 52.0, step: float = 78.0) -> Strokes:
    """Each sign in the middle of its column, rows ending at the right."""
    wide = max(map(len, lines))
    made: Strokes = []
    for k, line in enumerate(lines):
        for j, name in enumerate(line.rjust(wide)):
            if name != " ":
                strokes, end = sign(name, 0.0, 0.0)
                made += [[(px + pitch * j + (pitch - end) / 2, py + step * k) for px, py in run] for run in strokes]
    return made


def bar(x0: float, x1: float, y: float) -> list[tuple[float, float]]:
    return [(x0 + (x1 - x0) * k / 20, y) for k in range(21)]
