"""A plot as an SVG picture: axes with their numbers, branches, signs at what it has."""

from __future__ import annotations

import math
from itertools import pairwise
from typing import Any

WIDE, HIGH, EDGE = 1280.0, 800.0, 60.0
TALLEST = 4.0  # times as high as wide at most, before what is far away is cut off
LAKE, NEEDLE, GRID, BERRY = "#1F6F8B", "#17332E", "#DAD9D2", "#A23B52"


def nice(length: float, most: int = 12) -> float:
    """A step of 1, 2 or 5 that parts a length into a few."""
    rough = length / most
    power = 10.0 ** math.floor(math.log10(rough)) if rough > 0 else 1.0
    return next(step * power for step in (1, 2, 5, 10) if step * power >= rough)


def heights(found: dict[str, Any], low: float, high: float) -> tuple[float, float]:
    """The range of y that shows what matters."""
    ys = sorted(y for branch in found["branches"] for _x, y in branch)
    if not ys:
        return (-1.0, 1.0)
    count = len(ys)
    bottom, top = (ys[0], ys[-1])
    if found["features"]["poles"]:
        bottom, top = ys[count // 12], ys[-1 - count // 12]
    marked = [one["y"] for one in found["features"]["extrema"]] + [0.0 if found["features"]["roots"] else ys[count // 2]]
    bottom, top = min(bottom, *marked), max(top, *marked)
    room = (high - low) * TALLEST
    if top - bottom > 50 * room:
        bottom, top = max(bottom, -room), min(top, room)
    pad = 0.08 * (top - bottom) or 1.0
    return (bottom - pad, top + pad)


def cut_off(branch: list[list[float]], bottom: float, top: float) -> list[list[tuple[float, float]]]:
    """The parts of a branch that lie between two heights, ending just there."""
    made: list[list[tuple[float, float]]] = []
    for (x0, y0), (x1, y1) in pairwise(branch):
        if max(y0, y1) < bottom or min(y0, y1) > top:
            continue
        ends = []
        for x, y, other_x, other_y in ((x0, y0, x1, y1), (x1, y1, x0, y0)):
            edge = min(max(y, bottom), top)
            share = 0.0 if y == edge else (edge - y) / (other_y - y)
            ends.append((x + share * (other_x - x), edge))
        if not made or made[-1][-1] != ends[0]:
            made.append([ends[0]])
        made[-1].append(ends[1])
    return made


def plot_svg(found: dict[str, Any], low: float, high: float, title: str) -> str:
    """A whole picture."""
    bottom, top = heights(found, low, high)

    def x_of(x: float) -> float:
        return EDGE + (x - low) / (high - low) * (WIDE - 2 * EDGE)

    def y_of(y: float) -> float:
        return HIGH - EDGE - (y - bottom) / (top - bottom) * (HIGH - 2 * EDGE)

    parts: list[str] = []
    for step, first, last, across in ((nice(high - low), low, high, True), (nice(top - bottom, 8), bottom, top, False)):
        k = math.ceil(first / step)
        while k * step <= last:
            value = k * step
            at = x_of(value) if across else y_of(value)
            line = (
                f'x1="{at:.2f}" y1="{EDGE}" x2="{at:.2f}" y2="{HIGH - EDGE}"'
                if across
                else (f'x1="{EDGE}" y1="{at:.2f}" x2="{WIDE - EDGE}" y2="{at:.2f}"')
            )
            axis = k == 0
            parts.append(f'<line {line} stroke="{NEEDLE if axis else GRID}" stroke-width="{2.2 if axis else 1}"/>')
            text = f"{value:.6g}".replace("-", "\u2212")
            place = (
                f'x="{at:.1f}" y="{HIGH - EDGE + 30}" text-anchor="middle"'
                if across
                else (f'x="{EDGE - 10}" y="{at + 7:.1f}" text-anchor="end"')
            )
            parts.append(f'<text {place} font-size="22" fill="{NEEDLE}">{text}</text>')
            k += 1
    for pole in found["features"]["poles"]:
        at = x_of(pole)
        parts.append(
            f'<line x1="{at:.2f}" y1="{EDGE}" x2="{at:.2f}" y2="{HIGH - EDGE}" stroke="{NEEDLE}" stroke-width="1.5" '
            f'stroke-dasharray="8 8"/>'
        )
    for branch in found["branches"]:
        for piece in cut_off(branch, bottom, top):
            points = " ".join(f"{x_of(x):.2f},{y_of(y):.2f}" for x, y in piece)
            look = f'fill="none" stroke="{LAKE}" stroke-width="4.5" stroke-linejoin="round"'
            parts.append(f'<polyline points="{points}" {look}/>')
    marks = [(x, 0.0) for x in found["features"]["roots"]] + [(one["x"], one["y"]) for one in found["features"]["extrema"]]
    for x, y in marks:
        parts.append(f'<circle cx="{x_of(x):.2f}" cy="{y_of(y):.2f}" r="8" fill="{LAKE}"/>')
    for x, y in found["features"]["holes"]:
        parts.append(
            f'<circle cx="{x_of(x):.2f}" cy="{y_of(y):.2f}" r="8" fill="#FFFFFF" stroke="{LAKE}" stroke-width="3"/>'
        )
    safe = title.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")
    body = "".join(parts)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDE:.0f} {HIGH:.0f}" font-family="Andika, sans-serif">'
        f"<title>{safe}</title>{body}</svg>\n"
    )
