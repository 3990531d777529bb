"""Ink: a stroke as the hand made it, with pressure and time; or a line or curve through two or three points of it."""

from __future__ import annotations

import math
import struct
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from itertools import pairwise
from typing import TYPE_CHECKING, Any, ClassVar

from larch.core.base.memo import remember
from larch.core.base.shape import FARTHEST, Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.maths.geometry import distance_to_side
from larch.core.model.action import Action, Fold, Things, ids_of
from larch.core.model.capabilities import IsInk
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure
from larch.core.model.nibs import DASHES, ENDS, NIBS, READ, Nib, Pen
from larch.core.model.page import Page
from larch.core.model.thing import Handle, Thing

if TYPE_CHECKING:
    from numpy.typing import NDArray

Sample = tuple[float, float, float, float]
STRIDE = 16  # bytes of one sample: x, y, pressure (0 to 1), time (ms), as little-endian float32
HARDEST = 1000.0  # no pressure is beyond that
LONG = 400  # samples from which arrays are faster than numbers
BENT = 32  # pieces of a curve through three points
HEAD, LEAST_HEAD = 3.6, 16.0  # length of an arrow's head in widths of its line, and at least, page units


class Ink(IsInk, Thing, frozen=True, kw_only=True, tag="ink"):
    """points: samples of STRIDE bytes in its own coordinates; width: of the line at full pressure, page units.

    nib, dash, ends: see `nibs`. form: "free", "line" (from the first sample to the last) or "curve" (through
    first, middle and last). Raises ValueError if the bytes don't divide into samples or hold a number that is not finite.
    """

    points: bytes = b""
    width: float = 5.0
    hue: str = "needle"
    nib: str = "pen"
    form: str = "free"
    dash: str = ""
    ends: str = ""

    icon: ClassVar[str] = "pencil"
    help: ClassVar[str] = N_(
        "Write with pen, finger or mouse. Press the pen again for nibs, straight lines, curves, arrows and dashes. "
        "The eraser and Wipe take ink and only ink, and none that is locked."
    )

    def __post_init__(self) -> None:
        if len(self.points) % STRIDE:
            raise ValueError("ink must hold whole samples")
        if not 0 < self.width <= 1e4:
            raise ValueError("ink must have a width")
        box = _reach(self)
        if not (box.x0 >= -FARTHEST and box.y0 >= -FARTHEST and box.x1 <= FARTHEST and box.y1 <= FARTHEST):
            raise ValueError("ink must lie on the page")
        if self.points:
            pressed = memoryview(self.points).cast("f")[2::4].tolist()
            if not (math.isfinite(sum(pressed)) and min(pressed) >= -HARDEST and max(pressed) <= HARDEST):
                raise ValueError("ink is pressed as hard as a hand can")  # else no outline would ever end

    @classmethod
    def title(cls) -> str:
        return _("ink")

    def label(self, page: Page) -> str:
        return self.name or Pen(self.nib, self.form, self.width, self.hue, self.dash, self.ends).label()

    def samples(self) -> list[Sample]:
        return list(struct.iter_unpack("<4f", self.points))

    def extent(self) -> Box:
        return _reach(self)

    def touches(self, x: float, y: float, slack: float) -> bool:
        reach = slack + self.width / 2
        if not self.extent().grown(slack).holds(x, y):
            return False
        values = memoryview(track(self)).cast("f")
        count = len(values) // 4
        if count == 1:
            return (values[0] - x) ** 2 + (values[1] - y) ** 2 <= reach * reach
        if count > LONG:
            return _nearest(self, x, y) <= reach
        before = (values[0], values[1])
        for i in range(4, count * 4, 4):
            here = (values[i], values[i + 1])
            if distance_to_side(before, here, x, y) <= reach:
                return True
            before = here
        return False

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        if self.points and self.nib != "highlighter":
            values = memoryview(track(self)).cast("f")
            yield list(zip(values[0::4], values[1::4], strict=True)), False

    def facts(self, page: Page) -> Iterator[Fact]:
        yield measure("length", length_of(self) * self.placement.scale / page.unit, "cm", _("length"))
        samples = self.samples()
        if self.form == "line" and len(samples) > 1:
            (x0, y0), (x1, y1) = (self.placement.to_page(s[0], s[1]) for s in (samples[0], samples[-1]))
            yield measure("angle", math.degrees(math.atan2(y0 - y1, x1 - x0)) % 360, "°", _("direction"))
        seconds = (samples[-1][3] - samples[0][3]) / 1000 if samples else 0.0
        yield measure("time", seconds, "s", _("time taken"))
        yield Fact("nib", self.nib, "", self._word(NIBS.get(self.nib)), _("nib"), "", self._setter("nib", NIBS),
                   tuple((name, nib.label()) for name, nib in NIBS.items()))  # fmt: skip
        for name, table, label in (("dash", DASHES, _("dashes")), ("ends", ENDS, _("arrows"))):
            value = getattr(self, name)
            options = tuple((key, entry[0]()) for key, entry in table.items())
            text = table[value][0]() if value in table else value
            yield Fact(name, value, "", text, label, "", self._setter(name, table), options)

    @staticmethod
    def _word(nib: object) -> str:
        return nib.label() if isinstance(nib, Nib) else "?"

    def _setter(self, field: str, table: Mapping[str, object]) -> Callable[[str], Thing]:
        def choose(typed: str) -> Thing:
            if typed not in table:
                raise ValueError(_("“{typed}” is none of the choices.").format(typed=typed[:40]))
            changed: Thing = self.replace(**{field: typed})
            return changed

        return choose

    def handles(self) -> tuple[Handle, ...]:
        """The points that a line or a curve goes through."""
        if self.form == "free":
            return ()
        samples, last = self.samples(), len(self.points) // STRIDE - 1
        words = {0: _("start"), last: _("end")}
        return tuple(Handle(str(i), s[0], s[1], words.get(i, _("middle"))) for i, s in enumerate(samples[:3]))

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        samples = self.samples()
        where = int(name)
        if where < len(samples) and max(abs(x), abs(y)) <= FARTHEST:
            samples[where] = (x, y, *samples[where][2:])
        changed: Thing = self.replace(points=packed(samples))
        return changed

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS

    def rubbed(self, change: Callable[[Ink], Sequence[Thing] | None]) -> Sequence[Thing] | None:
        return change(self)


@remember
def track(ink: Ink) -> bytes:
    """The samples that its centre line runs through: its own, or those of the curve through its three points."""
    samples = ink.samples() if ink.form == "curve" else []
    if len(samples) != 3:
        return ink.points
    a, m, b = samples
    bend = [2 * m[k] - (a[k] + b[k]) / 2 for k in range(4)]  # so that the parabola passes m halfway
    made = []
    for i in range(BENT + 1):
        t = i / BENT
        u = 1 - t
        made.append(tuple(u * u * a[k] + 2 * u * t * bend[k] + t * t * b[k] for k in range(4)))
    return packed(made)  # type: ignore[arg-type]


@remember
def length_of(ink: Ink) -> float:
    """Length of the centre line in its own units."""
    values = memoryview(track(ink)).cast("f")
    points = list(zip(values[0::4], values[1::4], strict=True))
    return sum(math.dist(a, b) for a, b in pairwise(points))


def head_length(ink: Ink) -> float:
    """How long the head of its arrow is, in its own units; never more than half of a short line."""
    return min(max(LEAST_HEAD, HEAD * ink.width), length_of(ink) / 2)


@remember
def steps(ink: Ink) -> tuple[NDArray[Any], NDArray[Any], NDArray[Any], NDArray[Any]]:
    """Starts and ways of the steps of the centre line, and the corners of the box round each; shapes (n, 2)."""
    import numpy as np

    data = np.frombuffer(track(ink), dtype="<f4").reshape(-1, 4)[:, :2].astype(float)
    if len(data) == 1:
        return data, np.zeros((1, 2)), data, data
    start, end = data[:-1], data[1:]
    return start, end - start, np.minimum(start, end), np.maximum(start, end)


def _nearest(ink: Ink, x: float, y: float) -> float:
    """How far a point is from the centre line."""
    import numpy as np

    start, way, _lower, _upper = steps(ink)
    offset = np.array([x, y]) - start
    size = (way * way).sum(axis=1)
    along = np.clip((offset * way).sum(axis=1) / np.where(size > 0, size, 1.0), 0, 1)
    away = offset - way * along[:, None]
    return float(np.sqrt((away * away).sum(axis=1).min()))


@remember
def _reach(ink: Ink) -> Box:
    if not ink.points:
        return Box(0, 0, 0, 0)
    values = memoryview(ink.points).cast("f")
    if not math.isfinite(sum(values[0::4].tolist()) + sum(values[1::4].tolist())):
        return Box(math.nan, math.nan, math.nan, math.nan)
    values = memoryview(track(ink)).cast("f")
    xs, ys = values[0::4].tolist(), values[1::4].tolist()
    half = ink.width / 2
    if ink.ends:
        half = max(half, max(LEAST_HEAD, HEAD * ink.width) * 0.6)
    return Box(min(xs) - half, min(ys) - half, max(xs) + half, max(ys) + half)


def packed(samples: Iterable[Sample]) -> bytes:
    return b"".join(struct.pack("<4f", *sample) for sample in samples)


def ink_from(samples: Iterable[Sample], width: float = 5.0, hue: str = "needle", pen: Pen | None = None) -> Ink:
    """A stroke from samples in page coordinates; its own origin is its first sample."""
    listed = list(samples)
    pen = pen or Pen(width=width, hue=hue)
    x0, y0, _pressure, t0 = listed[0]
    points = packed((x - x0, y - y0, p, t - t0) for x, y, p, t in listed)
    form = "free" if pen.form in READ else pen.form
    return Ink(
        points=points, width=pen.width, hue=pen.hue, nib=pen.nib, form=form, dash=pen.dash, ends=pen.ends,
        placement=Placement(x0, y0),
    )  # fmt: skip


def line_from(points: Sequence[Point], pen: Pen) -> Ink:
    """A straight line or a curve through points of the page, drawn at an even pressure."""
    return ink_from([(x, y, 1.0, 0.0) for x, y in points], pen=pen)


STROKE = Fold("stroke", N_("pen and line"), "pen-line")


def _all_ink(page: Page, things: Things) -> bool:
    return bool(things) and all(isinstance(thing, Ink) for thing in things)


def _redraw(label: Callable[[], str], **changes: str) -> Callable[[Page, Things], Edit]:
    return lambda page, things: Edit(label(), page, page.changing(ids_of(things), lambda t: t.replace(**changes)))


def _choice(field: str, value: str, word: Callable[[], str], icon: str, rank: int) -> Action:
    name = f"{field} {value or 'none'}"
    return Action(
        name,
        lambda p, ts: word(),
        icon,
        _redraw(word, **{field: value}),
        _all_ink,
        rank=rank,
        fold=STROKE,
        words=N_("ink line"),
    )


ACTIONS = (
    *(_choice("nib", name, nib.label, nib.icon, 82) for name, nib in NIBS.items()),
    *(_choice("dash", name, word, icon, 83) for name, (word, icon) in DASHES.items()),
    *(_choice("ends", name, word, icon, 84) for name, (word, icon) in ENDS.items()),
)
