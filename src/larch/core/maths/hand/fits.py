"""Curves of best fit through points, by least squares; those that are not linear are refined on the points themselves.

Exponentials and powers begin from a line through logarithms and are refined by Gauss and Newton's iteration, as are sines,
which begin from the best of many periods (a least-squares spectrum, after Lomb).
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any, NamedTuple

from larch.core.base.words import _

if TYPE_CHECKING:
    from numpy.typing import NDArray

LEAST = {"line": 2, "quadratic": 3, "exponential": 2, "power": 2, "sine": 4}
STEPS = 40
PERIODS = 400


class Fitted(NamedTuple):
    """source: the equation; r: how well it fits, from −1 to 1 for a line, else the root of the share of the spread that it
    explains. values: its numbers."""

    source: str
    r: float
    values: tuple[float, ...]


def fitted(kind: str, points: Sequence[tuple[float, float]], digits: int = 4) -> Fitted:
    """A curve of one of the kinds in `LEAST`, its numbers written to so many digits. Raises ValueError with one sentence
    where the points have none."""
    import numpy as np

    x, y = np.array([p[0] for p in points], dtype=float), np.array([p[1] for p in points], dtype=float)
    if len(points) < LEAST[kind] or len(set(x.tolist())) < LEAST[kind]:
        raise ValueError(_("That takes at least {n} points with different x.").format(n=LEAST[kind]))
    with np.errstate(all="ignore"):
        values, text, model = _KINDS[kind](x, y, digits)
        r = _r(kind, x, y, model(x))
    if not all(map(math.isfinite, values)):
        raise ValueError(_("No such curve goes near these points."))
    return Fitted(text, r, tuple(float(v) for v in values))


def _r(kind: str, x: NDArray[Any], y: NDArray[Any], model: NDArray[Any]) -> float:
    spread = float(((y - y.mean()) ** 2).sum())
    if not spread:
        return 1.0 if float(((y - model) ** 2).sum()) < 1e-18 else 0.0
    if kind == "line":
        across = float(((x - x.mean()) ** 2).sum())
        return float(((x - x.mean()) * (y - y.mean())).sum() / math.sqrt(across * spread))
    return math.sqrt(max(0.0, 1.0 - float(((y - model) ** 2).sum()) / spread))


Found = tuple[Sequence[float], str, Callable[[Any], Any]]


def _line(x: NDArray[Any], y: NDArray[Any], digits: int) -> Found:
    import numpy as np

    m, c = np.polyfit(x, y, 1)
    return (m, c), f"y = {_short(m, digits)}x {_signed(c, digits)}".rstrip(), lambda t: m * t + c


def _quadratic(x: NDArray[Any], y: NDArray[Any], digits: int) -> Found:
    import numpy as np

    a, b, c = np.polyfit(x, y, 2)
    text = f"y = {_short(a, digits)}x^2 {_signed(b, digits, 'x')} {_signed(c, digits)}".rstrip()
    return (a, b, c), text, lambda t: (a * t + b) * t + c


def _exponential(x: NDArray[Any], y: NDArray[Any], digits: int) -> Found:
    import numpy as np

    if not ((y > 0).all() or (y < 0).all()):
        raise ValueError(_("An exponential goes through points on one side of the x-axis."))
    sign = 1.0 if y[0] > 0 else -1.0
    k, start = np.polyfit(x, np.log(sign * y), 1)
    first = np.array([sign * math.exp(start), k])
    a, k = _refined(first, lambda p: p[0] * np.exp(p[1] * x), lambda p: np.column_stack(
        [np.exp(p[1] * x), p[0] * x * np.exp(p[1] * x)]), y)  # fmt: skip
    return (a, math.exp(k)), f"y = {_short(a, digits)} * {_short(math.exp(k), digits)}^x", lambda t: a * np.exp(k * t)


def _power(x: NDArray[Any], y: NDArray[Any], digits: int) -> Found:
    import numpy as np

    if not ((x > 0).all() and (y > 0).all()):
        raise ValueError(_("A power goes through points whose x and y are more than nothing."))
    n, start = np.polyfit(np.log(x), np.log(y), 1)
    a, n = _refined(np.array([math.exp(start), n]), lambda p: p[0] * x ** p[1], lambda p: np.column_stack(
        [x ** p[1], p[0] * x ** p[1] * np.log(x)]), y)  # fmt: skip
    return (a, n), f"y = {_short(a, digits)}x^{_bracketed(n, digits)}", lambda t: a * t**n


def _sine(x: NDArray[Any], y: NDArray[Any], digits: int) -> Found:
    import numpy as np

    width = float(x.max() - x.min())
    apart = float(np.diff(np.sort(x)).min())
    best: tuple[float, NDArray[Any]] | None = None
    for b in np.linspace(math.pi / width, math.pi / max(apart, width / 200), PERIODS):
        columns = np.column_stack([np.sin(b * x), np.cos(b * x), np.ones_like(x)])
        part, *_rest = np.linalg.lstsq(columns, y, rcond=None)
        off = float(((columns @ part - y) ** 2).sum())
        # Of periods that fit alike the longest: points say nothing of what goes on between them.
        if best is None or off < 0.98 * best[0] - 1e-12:
            best = (off, np.array([part[0], part[1], b, part[2]]))
    assert best is not None

    def model(v: Any) -> Any:
        return v[0] * np.sin(v[2] * x) + v[1] * np.cos(v[2] * x) + v[3]

    def slopes(v: Any) -> Any:
        sine, cosine = np.sin(v[2] * x), np.cos(v[2] * x)
        return np.column_stack([sine, cosine, x * (v[0] * cosine - v[1] * sine), np.ones_like(x)])

    p, q, b, d = _refined(best[1], model, slopes, y)
    a, shift = math.hypot(p, q), math.atan2(q, p)
    h = -shift / b
    h = min((h + k * 2 * math.pi / b for k in range(-3, 4)), key=abs)
    inner = f"x {_signed(-h, digits)}".rstrip()
    text = f"y = {_short(a, digits)}sin({_short(b, digits)}({inner})) {_signed(d, digits)}".rstrip()
    return (a, b, h, d), text, lambda t: a * np.sin(b * (t - h)) + d


_KINDS = {"line": _line, "quadratic": _quadratic, "exponential": _exponential, "power": _power, "sine": _sine}


def _refined(first: Any, model: Callable[[Any], Any], slopes: Callable[[Any], Any], y: Any) -> Any:
    """By Gauss and Newton, with steps halved until they help."""
    import numpy as np

    now, off = first, float(((model(first) - y) ** 2).sum())
    for _step in range(STEPS):
        part, *_rest = np.linalg.lstsq(slopes(now), y - model(now), rcond=None)
        for _half in range(12):
            after = now + part
            new = float(((model(after) - y) ** 2).sum())
            if new <= off:
                break
            part = part / 2
        else:
            return now
        done = off - new <= 1e-15 * (1 + off)
        now, off = after, new
        if done:
            break
    return now


def _short(value: float, digits: int) -> str:
    """To so many digits, without a power of ten where that is readable."""
    rounded = float(f"{value:.{digits}g}") if abs(value) > 1e-9 else 0.0
    plain = not rounded or 1e-6 <= abs(rounded) < 1e9
    text = f"{rounded:.10f}".rstrip("0").rstrip(".") if plain else f"{rounded:.{digits}g}"
    return text or "0"


def _bracketed(value: float, digits: int) -> str:
    text = _short(value, digits)
    return f"({text})" if text.startswith("-") or "." in text else text


def _signed(value: float, digits: int, letter: str = "") -> str:
    """As a term after others; "" for nothing."""
    text = _short(abs(value), digits)
    if text == "0":
        return ""
    size = letter if letter and text == "1" else text + letter
    return f"{'-' if value < 0 else '+'} {size}"
