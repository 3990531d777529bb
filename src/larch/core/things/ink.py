"""Ink: a stroke as the hand made it, with pressure and time."""

from __future__ import annotations

import math
import struct
from collections.abc import Iterable, Iterator
from itertools import pairwise
from typing import ClassVar

from larch.core.fact import Fact, measure
from larch.core.geometry import distance_to_side
from larch.core.memo import remember
from larch.core.page import Page
from larch.core.shape import FARTHEST, Box, Placement
from larch.core.thing import Thing
from larch.core.words import _

Sample = tuple[float, float, float, float]
STRIDE = 16  # bytes of one sample: x, y, pressure (0 to 1), time (ms), as little-endian float32


class Ink(Thing, frozen=True, kw_only=True, tag="ink"):
    """points: samples of STRIDE bytes in its own coordinates; width: of the line at full pressure, page units.

    Raises ValueError if the bytes don't divide into samples or hold a number that is not finite.
    """

    points: bytes = b""
    width: float = 5.0
    hue: str = "needle"

    is_ink: ClassVar[bool] = True
    icon: ClassVar[str] = "pencil"
    help: ClassVar[str] = "Write with pen, finger or mouse. The eraser and Wipe take ink and only ink."

    def __post_init__(self) -> None:
        if len(self.points) % STRIDE:
            raise ValueError("ink must hold whole samples")
        if not 0 < self.width <= 1e4:
            raise ValueError("ink must have a width")
        box = _reach(self)
        if not (box.x0 >= -FARTHEST and box.y0 >= -FARTHEST and box.x1 <= FARTHEST and box.y1 <= FARTHEST):
            raise ValueError("ink must lie on the page")

    @classmethod
    def title(cls) -> str:
        return _("ink")

    def samples(self) -> list[Sample]:
        return list(struct.iter_unpack("<4f", self.points))

    def extent(self) -> Box:
        return _reach(self)

    def touches(self, x: float, y: float, slack: float) -> bool:
        reach = slack + self.width / 2
        if not self.extent().grown(slack).holds(x, y):
            return False
        values = memoryview(self.points).cast("f")
        count = len(values) // 4
        if count == 1:
            return (values[0] - x) ** 2 + (values[1] - y) ** 2 <= reach * reach
        before = (values[0], values[1])
        for i in range(4, count * 4, 4):
            here = (values[i], values[i + 1])
            if distance_to_side(before, here, x, y) <= reach:
                return True
            before = here
        return False

    def facts(self, page: Page) -> Iterator[Fact]:
        samples = self.samples()
        steps = pairwise(samples)
        length = sum(((b[0] - a[0]) ** 2 + (b[1] - a[1]) ** 2) ** 0.5 for a, b in steps)
        yield measure("length", length * self.placement.scale / page.unit, "cm", _("length"))
        seconds = (samples[-1][3] - samples[0][3]) / 1000 if samples else 0.0
        yield measure("time", seconds, "s", _("time taken"))


@remember
def _reach(ink: Ink) -> Box:
    if not ink.points:
        return Box(0, 0, 0, 0)
    values = memoryview(ink.points).cast("f")
    xs, ys = values[0::4].tolist(), values[1::4].tolist()
    if not math.isfinite(sum(xs) + sum(ys)):
        return Box(math.nan, math.nan, math.nan, math.nan)
    half = ink.width / 2
    return Box(min(xs) - half, min(ys) - half, max(xs) + half, max(ys) + half)


def ink_from(samples: Iterable[Sample], width: float = 5.0, hue: str = "needle") -> Ink:
    """A stroke from samples in page coordinates; its own origin is its first sample."""
    listed = list(samples)
    x0, y0, _pressure, t0 = listed[0]
    packed = b"".join(struct.pack("<4f", x - x0, y - y0, p, t - t0) for x, y, p, t in listed)
    return Ink(points=packed, width=width, hue=hue, placement=Placement(x0, y0))
