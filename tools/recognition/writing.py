"""Rows of mathematics written as a hand would: placed, shaken, joined, slanted. For training and for measuring."""

from __future__ import annotations

import random
from collections.abc import Iterator
from typing import Any, NamedTuple

import numpy as np
from grown import between, thinned
from signs import SIGNS
from sketches import forms, sketched

Array = np.ndarray[Any, Any]
Hands = dict[str, dict[str, list[list[Array]]]]
MATES: dict[tuple[str, str], list[str]] = {}
ALWAYS_DRAWN = frozenset("πθαβγλμΔ∞√≤≥≠≈→·")


class Written(NamedTuple):
    """strokes: in the order of writing; owner: the symbol of each; symbols: their tokens; places: what each symbol is to the
    one before it in its row, "same", "up" or "down" (as pairs of symbols)."""

    strokes: list[Array]
    owner: list[int]
    symbols: list[str]
    pairs: list[tuple[int, int, str]]


class Hand:
    """Someone who writes: whose letters, and how they shake."""

    def __init__(self, hands: Hands, names: list[str], r: random.Random, rough: float = 1.0, learning: bool = False) -> None:
        """learning: with forms that no hand of the list has, for training; ink to measure with is by hands as they are."""
        self.r, self.hands, self.names, self.learning = r, hands, names, learning
        fonts = [name for name in names if "x" in hands[name]]
        self.font = r.choice(fonts)
        digits = [name for name in names if "x" not in hands[name] and "0" in hands[name]]
        self.digits = r.choice(digits) if digits and r.random() < 0.5 else ""
        self.mixed = 0.12 if r.random() < 0.3 else 0.0
        self.fonts = fonts
        self.slant = r.gauss(0, 0.12) * rough
        self.wide = r.uniform(0.85, 1.18)
        self.shake = abs(r.gauss(0, 0.018)) * rough
        self.size = abs(r.gauss(0, 0.06)) * rough
        self.gap = r.uniform(0.16, 0.5)
        self.join = r.choice((0.0, 0.5, 0.9))
        self.split = r.choice((0.0, 0.0, 0.05, 0.12) if learning else (0.0, 0.0, 0.0, 0.06))
        self.backwards = r.choice((0.02, 0.1, 0.35))
        self.rough = rough
        self.reversed = 0.3 if r.random() < 0.06 else 0.0
        self.own = r.choice((0.0, 0.15, 0.4, 0.9)) if learning else 0.0  # of forms that no font has
        self.loose = r.uniform(0.015, 0.06)
        self.between = 0.7 if learning and r.random() < 0.7 else 0.0
        self.share = r.uniform(-0.3, 0.9)
        self.apart = abs(r.gauss(0, 0.03)) * rough if learning else 0.0
        self.coarse = learning and r.random() < 0.16
        self.form: dict[str, int] = {}

    def glyph(self, sign: str) -> list[Array]:
        r = self.r
        picked = self._picked(sign)
        if not picked:
            return []
        if sign in "23457" and r.random() < self.reversed:  # as children do
            middle = np.concatenate(picked)[:, 0].mean()
            picked = [(run - (middle, 0)) * (-1, 1) + (middle, 0) for run in picked]
        if len(picked) > 1 and r.random() < 0.15:
            r.shuffle(picked)
        made = self.bent(self._joined([self._moved(run) for run in picked] if self.apart and len(picked) > 1 else picked))
        return (thinned(made, r) or made) if self.coarse and sign not in ".,·:;'" else made

    def _picked(self, sign: str) -> list[Array]:
        """A sign as this hand has it: its font's, one between two fonts, a form of school, or what is drawn here."""
        r = self.r
        font = r.choice(self.fonts) if self.mixed and r.random() < self.mixed else self.font
        if sign.isdigit() and self.digits:
            font = self.digits
        if self.own and r.random() < self.own and forms(sign):
            if sign not in self.form or r.random() < 0.2:
                self.form[sign] = r.randrange(forms(sign))
            return sketched(sign, self.form[sign], r, self.loose)
        own = self.hands[font].get(sign)
        drawn = SIGNS.get(sign)
        if own is None or (drawn is not None and (sign in ALWAYS_DRAWN or r.random() < 0.3)):
            if drawn is None:
                others = [name for name in self.names if sign in self.hands[name]]
                if not others:
                    return []
                font = r.choice(others)
                own = self.hands[font][sign]
            else:
                own = drawn
        picked = [run.copy() for run in r.choice(own)]
        if own is not drawn and r.random() < self.between:
            beside = self.hands[r.choice(self._mates(sign, font))][sign]
            return between(picked, r.choice(beside), self.share) or picked
        return picked

    def _mates(self, sign: str, font: str) -> list[str]:
        """Hands that write a sign as this one does; it itself where there is none."""
        if (sign, font) not in MATES:
            own = self.hands[font][sign]
            others = [name for name in self.names if sign in self.hands[name] and name != font]
            alike = [name for name in others if between(own[0], self.hands[name][sign][0], 0.5)]
            MATES[sign, font] = alike or [font]
        return MATES[sign, font]

    def _moved(self, run: Array) -> Array:
        """One of several strokes, put down a little elsewhere than it should be."""
        r = self.r
        middle = run.mean(axis=0)
        turn, size = r.gauss(0, 1.6 * self.apart), 1 + r.gauss(0, 2 * self.apart)
        c, s = np.cos(turn) * size, np.sin(turn) * size
        return np.asarray(
            (run - middle) @ np.array([[c, s], [-s, c]]) + middle + (r.gauss(0, self.apart), r.gauss(0, self.apart))
        )

    def bent(self, runs: list[Array]) -> list[Array]:
        """A sign as it comes out this once: turned, leaning, its plane warped softly."""
        r = self.r
        turn, lean = r.gauss(0, 0.055) * self.rough, r.gauss(0, 0.07) * self.rough
        c, s = np.cos(turn), np.sin(turn)
        plane = np.array([[c, s], [-s, c]]) @ np.array([[1.0, 0.0], [lean, 1.0]])
        warp = abs(r.gauss(0, 0.045)) * self.rough
        waves = [(r.uniform(1.5, 4.0), r.uniform(0, 6.3), r.uniform(-1, 1)) for _ in range(2)]
        middle = np.array([0.4, -0.6])
        made = []
        for run in runs:
            at = run - middle
            off = [np.sin(f * at[:, 1 - k] + phase + share * at[:, k]) for k, (f, phase, share) in enumerate(waves)]
            made.append(at @ plane + warp * np.column_stack(off) + middle)
        return made

    def _joined(self, runs: list[Array]) -> list[Array]:
        """Strokes that begin where another ends, written in one."""
        r = self.r
        runs = [run[::-1] if r.random() < self.backwards * (0.3 if len(run) > 12 else 1) else run for run in runs]
        if self.join and len(runs) > 1:
            k = 0
            while k < len(runs) - 1:
                found = next(self._ways_on(runs, k), None)
                if found is None:
                    k += 1
                else:
                    m, runs[k] = found
                    del runs[m]
        if self.split:
            parts: list[Array] = []
            for run in runs:
                if len(run) > 9 and r.random() < self.split:
                    cut = r.randint(3, len(run) - 4)
                    parts += [run[: cut + 1], run[cut:]]
                else:
                    parts.append(run)
            runs = parts
        return runs

    def _ways_on(self, runs: list[Array], k: int) -> Iterator[tuple[int, Array]]:
        """Strokes that can be written in one with the k-th, and how that looks."""
        for m in range(k + 1, len(runs)):
            for first in (runs[k], runs[k][::-1]):
                for second in (runs[m], runs[m][::-1]):
                    if np.hypot(*(first[-1] - second[0])) < 0.16 and self.r.random() < self.join:
                        yield m, np.concatenate([first, second])

    def shaken(self, run: Array) -> Array:
        """One stroke with tremor, and a little over or short of its ends."""
        r = self.r
        if len(run) < 2:
            return run
        n = len(run)
        noise = np.random.default_rng(r.getrandbits(32)).normal(0, 1, (n, 2))
        kernel = np.hanning(9)
        kernel /= kernel.sum()
        soft = np.column_stack([np.convolve(np.pad(noise[:, k], 4, mode="edge"), kernel, mode="valid") for k in (0, 1)])
        made = run + soft * self.shake * 2.6
        if n > 8 and r.random() < 0.25:  # overshoot, or a loop left open
            if r.random() < 0.5:
                cut = r.randint(1, max(1, n // 12))
                made = made[cut:] if r.random() < 0.5 else made[:-cut]
            else:
                way = made[-1] - made[-4]
                made = np.concatenate([made, made[-1] + way * np.linspace(0.2, r.uniform(0.3, 1.0), 3)[:, None]])
        return made


def write(row: list[Any], hand: Hand) -> Written | None:
    """None where a sign has no shape in any hand."""
    maker = _Maker(hand)
    maker.row(row, 0.0, 0.0, 1.0)
    if not maker.strokes or maker.failed:
        return None
    r = hand.r
    order = list(range(len(maker.strokes)))
    if r.random() < 0.15:  # late dots and bars
        k = r.randrange(len(order))
        order.append(order.pop(k))
    turn = r.gauss(0, 0.025)
    c, s = np.cos(turn), np.sin(turn)
    lean = np.array([[1.0, 0.0], [-hand.slant, 1.0]])
    base = np.array([[c, s], [-s, c]])
    scale = r.uniform(22, 60)
    strokes = [np.asarray(hand.shaken(maker.strokes[k]) @ lean @ base * scale) for k in order]
    return Written(strokes, [maker.owner[k] for k in order], maker.symbols, maker.pairs)


class _Maker:
    def __init__(self, hand: Hand) -> None:
        self.hand, self.r = hand, hand.r
        self.strokes: list[Array] = []
        self.owner: list[int] = []
        self.symbols: list[str] = []
        self.pairs: list[tuple[int, int, str]] = []
        self.failed = False

    def _put(self, sign: str, runs: list[Array], x: float, base: float, scale: float) -> tuple[int, float]:
        """A symbol with its left edge at x; tells its number and right edge."""
        r, hand = self.r, self.hand
        own = scale * (1 + r.gauss(0, hand.size))
        stretch = np.array([hand.wide * (1 + r.gauss(0, 0.05)), 1.0 + r.gauss(0, 0.05)]) * own
        points = np.concatenate(runs)
        left = points[:, 0].min()
        lift = r.gauss(0, 0.045) * scale
        number = len(self.symbols)
        self.symbols.append(sign)
        right = x
        for run in runs:
            made = (run - (left, 0)) * stretch + (x, base + lift)
            right = max(right, float(made[:, 0].max()))
            self.strokes.append(made)
            self.owner.append(number)
        return number, right

    def row(self, row: list[Any], x: float, base: float, scale: float) -> tuple[int | None, float]:
        """Writes it from x on; tells its first symbol and where it ends."""
        r, hand = self.r, self.hand
        first: int | None = None
        before: int | None = None
        start = x
        for item in row:
            gap = hand.gap * scale * r.uniform(0.6, 1.5) if x > start else 0.0
            number: int | None
            if isinstance(item, str):
                runs = hand.glyph(item)
                if not runs:
                    self.failed = True
                    return None, x
                air = 0.2 * scale * r.random() if item in "+-=<>≤≥≠×·÷:→" and before is not None else 0.0
                number, x = self._put(item, runs, x + gap + air, base, scale)
                x += air
            elif item[0] == "frac":
                number, x = self._fraction(item, x + gap, base, scale)
            elif item[0] == "root":
                number, x = self._root(item[1], x + gap, base, scale)
            else:
                size = scale * r.uniform(0.5, 0.82)
                rise = -r.uniform(0.72, 1.1) * scale if item[0] == "up" else r.uniform(0.25, 0.5) * scale
                inner, x = self.row(item[1], x + 0.6 * gap, base + rise, size)
                if before is not None and inner is not None:
                    self.pairs.append((before, inner, item[0]))
                if first is None:
                    first = inner
                continue
            if number is not None:
                if before is not None:
                    self.pairs.append((before, number, "same"))
                before = number
            first = number if first is None else first
        return first, x

    def _fraction(self, item: Any, x: float, base: float, scale: float) -> tuple[int, float]:
        r = self.r
        size = scale * r.uniform(0.68, 1.0)
        middle = base - r.uniform(0.35, 0.6) * scale
        at = len(self.strokes)
        _one, wide_a = self.row(item[1], 0.0, 0.0, size)
        cut = len(self.strokes)
        _two, wide_b = self.row(item[2], 0.0, 0.0, size)
        if self.failed:
            return 0, x
        above, below = self.strokes[at:cut], self.strokes[cut:]
        over = r.uniform(0.05, 0.4) * scale
        width = max(wide_a, wide_b) + 2 * over
        air = r.uniform(0.12, 0.4) * scale
        lift = middle - air - max(float(run[:, 1].max()) for run in above)
        drop = middle + air - min(float(run[:, 1].min()) for run in below)
        for k, run in enumerate(above):
            self.strokes[at + k] = np.add(run, (x + (width - wide_a) / 2 + r.gauss(0, 0.03) * scale, lift))
        for k, run in enumerate(below):
            self.strokes[cut + k] = np.add(run, (x + (width - wide_b) / 2 + r.gauss(0, 0.03) * scale, drop))
        tilt = r.gauss(0, 0.05) * scale
        bar = np.column_stack([np.linspace(x, x + width, 14), np.linspace(middle - tilt, middle + tilt, 14)])
        number = len(self.symbols)
        self.symbols.append("-")
        self.strokes.append(bar)
        self.owner.append(number)
        return number, x + width

    def _root(self, inner: list[Any], x: float, base: float, scale: float) -> tuple[int, float]:
        r = self.r
        at = len(self.strokes)
        hook = r.uniform(0.45, 0.75) * scale
        _first, end = self.row(inner, x + hook + 0.15 * scale, base, scale * r.uniform(0.9, 1.0))
        if self.failed or at == len(self.strokes):
            self.failed = True
            return 0, x
        points = np.concatenate(self.strokes[at:])
        top, bottom = float(points[:, 1].min()) - r.uniform(0.12, 0.35) * scale, max(float(points[:, 1].max()), base)
        end += r.uniform(0.05, 0.3) * scale
        half = (top + bottom) / 2
        corners = [
            (x, half + 0.05 * scale),
            (x + 0.3 * hook, half - 0.05 * scale),
            (x + 0.55 * hook, bottom + 0.05 * scale),
            (x + hook, top),
            (end, top + r.gauss(0, 0.05) * scale),
        ]
        if r.random() < 0.3:
            corners = corners[1:]
        if r.random() < 0.3:
            corners.append((end, top + 0.25 * scale))
        from signs import line

        number = len(self.symbols)
        self.symbols.append("√")
        self.strokes.append(np.asarray(line(*corners)))
        self.owner.append(number)
        return number, end
