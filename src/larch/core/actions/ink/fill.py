"""Paint: the region that lines enclose about a point, as a shape. Small gaps are bridged; an open region is told.

Lines are drawn one pixel wide into a raster. A region is grown from the seed by labelling what is left free. If it
reaches the rim, the free part is shrunk (everything within r of a line is closed) until the seed is enclosed; the rest
is then given back to inside or outside, whichever reaches it first, so that corners are filled and a gap is split in
the middle: seeded region growing (Adams and Bischof 1994) on the distance transform. Contours by marching squares.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import TYPE_CHECKING, Any, NamedTuple

from larch.core.base.memo import remember
from larch.core.base.shape import Box, Placement, Point, box_of, union
from larch.core.base.words import _
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.pictures.painted import MOST_POINTS, Painted

if TYPE_CHECKING:
    from numpy.typing import NDArray

FINEST = 1.0  # pixels to a page unit
MOST_PIXELS = 1_400_000
RIM = 12.0  # page units left free round everything
LARGEST_GAP = 160.0
FAR = 1600.0  # page units from the seed beyond which lines are not looked at
ROUNDS = 400  # of growing; each fills one pixel further into a corner
SIMPLE = 0.45  # pixels by which the outline may be simplified
SAME = 0.02  # share by which two areas may differ and be of one region


class Region(NamedTuple):
    """A closed region: its rings on the page, how wide a gap was bridged (0 for none), and the ids of its lines."""

    rings: tuple[tuple[Point, ...], ...]
    bridged: float
    lines: frozenset[str]


class Open(NamedTuple):
    """No closed region: where its narrowest gap is and how wide, or None if there is no outline at all."""

    gap: Point | None
    width: float


def edges_of(page: Page) -> list[tuple[str, list[Point]]]:
    """All lines of the page that hold paint back, as (id, points on the page); closed ones end where they began."""
    return [(thing.id, line) for thing in page.things for line in _page_edges(thing)]


@remember
def _page_edges(thing: Thing) -> list[list[Point]]:
    place = thing.placement
    found = []
    for points, closed in thing.edges():
        line = [place.to_page(x, y) for x, y in points]
        found.append([*line, line[0]] if closed and line else line)
    return found


def find_region(page: Page, seed: Point, gap: float) -> Region | Open:
    """What a brush at `seed` would fill, bridging gaps up to `gap` page units."""
    from scipy import ndimage

    near = [(id, line) for id, line in edges_of(page) if line and box_of(line).meets(Box(*seed, *seed).grown(FAR))]
    if not near:
        return Open(None, 0.0)
    raster = _Raster([line for _id, line in near], seed)
    distance = ndimage.distance_transform_edt(~raster.walls)
    most = max(1, round(LARGEST_GAP / 2 * raster.scale))
    shrunk = _least_closing(raster, distance, most)
    if shrunk is None:
        return Open(None, 0.0)
    radius, inside = shrunk
    if radius > 0 and 2 * radius / raster.scale > max(gap, 2.0):
        return Open(raster.to_page(*_gap_at(raster, distance, radius, inside)), 2 * radius / raster.scale)
    region = _given_back(raster, distance, radius, inside) if radius else inside
    rings = _rings(raster, region)
    if not rings:
        return Open(None, 0.0)
    box = box_of(point for ring in rings for point in ring).grown(3)
    lines = frozenset(id for id, line in near if box_of(line).meets(box))
    return Region(rings, 2 * radius / raster.scale if radius else 0.0, lines)


class _Raster:
    """The lines as pixels. Rows run down the page."""

    def __init__(self, lines: Sequence[Sequence[Point]], seed: Point) -> None:
        import numpy as np

        reach = Box(*seed, *seed).grown(FAR)
        box = union([box_of(line) for line in lines] + [Box(*seed, *seed)]).grown(RIM)
        self.box = Box(max(box.x0, reach.x0), max(box.y0, reach.y0), min(box.x1, reach.x1), min(box.y1, reach.y1))
        self.scale = min(FINEST, math.sqrt(MOST_PIXELS / max(1.0, self.box.width * self.box.height)))
        height, width = math.ceil(self.box.height * self.scale) + 1, math.ceil(self.box.width * self.scale) + 1
        self.walls = np.zeros((height, width), dtype=bool)
        for line in lines:
            self._draw(np.asarray(line, dtype=float))
        row, column = self.to_pixel(seed)
        self.seed = (min(height - 1, max(0, row)), min(width - 1, max(0, column)))
        self._off_the_line()

    def _off_the_line(self) -> None:
        """A seed on a line means the nearest place beside it."""
        row, column = self.seed
        for away in range(1, 5):
            for down, across in ((0, 0), (-away, 0), (away, 0), (0, -away), (0, away)):
                spot = (row + down, column + across)
                if all(0 <= v < most for v, most in zip(spot, self.walls.shape, strict=True)) and not self.walls[spot]:
                    self.seed = spot
                    return

    def to_pixel(self, point: Point) -> tuple[int, int]:
        return round((point[1] - self.box.y0) * self.scale), round((point[0] - self.box.x0) * self.scale)

    def to_page(self, row: float, column: float) -> Point:
        return (self.box.x0 + column / self.scale, self.box.y0 + row / self.scale)

    def _draw(self, line: NDArray[Any]) -> None:
        """Sets pixels less than half a pixel apart, so that no path to the four neighbours slips through."""
        import numpy as np

        pixels = (line - (self.box.x0, self.box.y0)) * self.scale
        steps = np.diff(pixels, axis=0)
        lengths = np.append(0.0, np.cumsum(np.hypot(steps[:, 0], steps[:, 1])))
        count = int(min(200_000, lengths[-1] * 2.5)) + 2
        at = np.linspace(0, lengths[-1], count)
        x, y = (np.interp(at, lengths, pixels[:, k]) for k in (0, 1)) if len(line) > 1 else pixels.T
        rows, columns = np.round(y).astype(int), np.round(x).astype(int)
        height, width = self.walls.shape
        held = (rows >= 0) & (rows < height) & (columns >= 0) & (columns < width)
        self.walls[rows[held], columns[held]] = True


def _component(free: NDArray[Any], seed: tuple[int, int]) -> NDArray[Any] | None:
    """What is connected with the seed, or None if that reaches the rim."""
    from scipy import ndimage

    labels, _count = ndimage.label(free)
    own = labels[seed]
    rim = (labels[0], labels[-1], labels[:, 0], labels[:, -1])
    if own == 0 or any((side == own).any() for side in rim):
        return None
    found: NDArray[Any] = labels == own
    return found


def _least_closing(raster: _Raster, distance: NDArray[Any], most: int) -> tuple[int, NDArray[Any]] | None:
    """The smallest radius (pixels) about the lines that encloses the seed, and the region then; by bisection."""
    region = _component(~raster.walls, raster.seed)
    if region is not None:
        return 0, region
    highest = min(most, int(distance[raster.seed]) - 1)
    best: tuple[int, NDArray[Any]] | None = None
    low, high = 1, highest
    while low <= high:
        middle = (low + high) // 2
        region = _component(distance > middle, raster.seed)
        if region is None:
            low = middle + 1
        else:
            best, high = (middle, region), middle - 1
    return best


def _gap_at(raster: _Raster, distance: NDArray[Any], radius: int, inside: NDArray[Any]) -> tuple[float, float]:
    """The middle of the gap: where inside and outside, each growing, first meet."""
    import numpy as np

    grown = _grow(raster, distance, radius, inside, stop_at_meeting=True)
    rows, columns = np.nonzero(grown == 3)
    if not len(rows):
        return raster.seed
    first = 0
    near = np.hypot(rows - rows[first], columns - columns[first]) < 3 * radius + 3
    return float(rows[near].mean()), float(columns[near].mean())


def _given_back(raster: _Raster, distance: NDArray[Any], radius: int, inside: NDArray[Any]) -> NDArray[Any]:
    grown = _grow(raster, distance, radius, inside)
    region: NDArray[Any] = grown == 1
    return region


def _grow(
    raster: _Raster, distance: NDArray[Any], radius: int, inside: NDArray[Any], stop_at_meeting: bool = False
) -> NDArray[Any]:
    """Inside (1) and outside (2) grow into what was shrunk away, a pixel a round; 3 is where they meet."""
    import numpy as np

    marks = np.where(inside, np.int8(1), np.int8(0))
    marks[(distance > radius) & ~inside] = 2
    open_ = ~raster.walls & (marks == 0)
    for _round in range(ROUNDS):
        first, second = (_neighbours(marks == k) & open_ for k in (1, 2))
        if stop_at_meeting:
            both = (first | (marks == 1)) & (second | _neighbours(marks == 2))
            both |= second & _neighbours(marks == 1)
            if both.any():
                marks[both] = 3
                break
        if not (first.any() or second.any()):
            break
        marks[second] = 2
        marks[first] = 1
        open_ &= marks == 0
    return marks


def _neighbours(mask: NDArray[Any]) -> NDArray[Any]:
    import numpy as np

    grown = np.zeros_like(mask)
    grown[1:] |= mask[:-1]
    grown[:-1] |= mask[1:]
    grown[:, 1:] |= mask[:, :-1]
    grown[:, :-1] |= mask[:, 1:]
    return grown


def _rings(raster: _Raster, region: NDArray[Any]) -> tuple[tuple[Point, ...], ...]:
    """The outline of a region and of its holes, up to the middle of the lines round it."""
    import contourpy
    import numpy as np
    import shapely
    from scipy import ndimage

    rows, columns = np.nonzero(region)
    top, left = max(0, rows.min() - 3), max(0, columns.min() - 3)
    cut = region[top : rows.max() + 4, left : columns.max() + 4]
    soft = ndimage.gaussian_filter(_padded(cut), 0.8)
    # The middle of a line lies one pixel beyond the free pixel beside it: a level below a half reaches there.
    lines = contourpy.contour_generator(z=soft, name="serial").lines(0.28)
    rings: list[tuple[Point, ...]] = []
    for line in sorted((line for line in lines if len(line) > 3), key=len, reverse=True):
        smooth = shapely.simplify(shapely.LineString(line), SIMPLE)
        points = [raster.to_page(y + top - 1, x + left - 1) for x, y in smooth.coords]
        if len(points) > 4 and sum(map(len, rings)) + len(points) <= MOST_POINTS:
            rings.append(tuple((round(float(x), 2), round(float(y), 2)) for x, y in points[:-1]))
    return tuple(rings)


def _padded(cut: NDArray[Any]) -> NDArray[Any]:
    import numpy as np

    return np.pad(cut.astype(float), 1)


def paint(page: Page, region: Region, seed: Point, hue: str, strength: float = 0.45) -> Edit:
    """Lays the shape behind its lines; a region that is painted already takes the new colour instead."""
    box = box_of(point for ring in region.rings for point in ring)
    rings = tuple(tuple((x - box.x0, y - box.y0) for x, y in ring) for ring in region.rings)
    made = Painted(rings=rings, hue=hue, strength=strength, placement=Placement(box.x0, box.y0))
    label = _("Paint")
    under = [thing for thing in page.things if isinstance(thing, Painted) and _covers(thing, seed)]
    for thing in reversed(under):
        if not thing.locked and math.isclose(thing.area() * thing.placement.scale**2, made.area(), rel_tol=SAME):
            return Edit(label, page, page.with_things({thing.id: thing.replace(hue=hue, strength=strength)}))
    lowest = min((i for i, thing in enumerate(page.things) if thing.id in region.lines), default=len(page.things))
    return Edit(label, page, page.insert(lowest, made))


def _covers(thing: Painted, seed: Point) -> bool:
    return thing.touches(*thing.placement.to_local(*seed), 0)
