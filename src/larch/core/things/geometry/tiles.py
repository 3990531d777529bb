"""A piece of the plane covered with tiles: one's own shape, one with changed edges, or sets of regular polygons."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from typing import ClassVar

from larch.core.base.memo import remember
from larch.core.base.shape import FARTHEST, Box, Point, box_of
from larch.core.base.words import N_, _
from larch.core.figures.semi_regular import SEMI_REGULAR, semi_regular
from larch.core.figures.tiling import Cannot, placements, tiling_of
from larch.core.maths import geometry
from larch.core.maths.plane.moves import Move
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.scale import area_fact, length_fact, read_length
from larch.core.model.thing import Handle, ShelfItem, Thing

MOST_LOOSE = 300  # tiles that can be laid out one by one
BASES = {N_("square"): 4, N_("hexagon"): 6}  # whose edges can be changed
KNOTS = 3  # on each edge


class Tiles(Thing, frozen=True, kw_only=True, tag="tiles"):
    """ring: the tile, in its own coordinates; or pattern: one of SEMI_REGULAR with sides of length `side`, or of BASES,
    whose edges are bent by `bends`: for each edge that has a partner, how far each of its knots stands off, in sides
    (along, outwards). The room is a box from its origin."""

    ring: tuple[Point, ...] = ()
    pattern: str = "3.6.3.6"
    side: float = 64.0
    bends: tuple[tuple[Point, ...], ...] = ()
    width: float = 512.0
    height: float = 352.0
    hue: str = "moss"
    second: str = "straw"

    icon: ClassVar[str] = "grid-3x3"
    order: ClassVar[int] = 36
    turnable: ClassVar[bool] = True
    help: ClassVar[str] = N_("Drag a knot of the marked tile: its partner follows, and the tiles still fit.")

    def __post_init__(self) -> None:
        sound = all(abs(v) <= FARTHEST for point in self.ring for v in point)
        bent = all(abs(v) <= 3 for edge in self.bends for knot in edge for v in knot)
        if not (sound and bent and 16 <= self.width <= 8000 and 16 <= self.height <= 8000 and 4 <= self.side <= 2000):
            raise ValueError("tiles must have a size and a room")
        if (len(self.ring) < 3 and self.pattern not in (*SEMI_REGULAR, *BASES)) or len(self.ring) > 1000:
            raise ValueError("a tile has three corners at least")

    @classmethod
    def title(cls) -> str:
        return _("tiles")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("tessellation pattern tiling regular polygons")
        for name in BASES:
            label = _("tile maker: {base}").format(base=_(name))
            yield ShelfItem(f"tile maker {name}", label, N_("Shapes"), _maker(name), words)
        for name in SEMI_REGULAR:
            yield ShelfItem(f"tiles {name}", _("tiles {name}").format(name=name), N_("Shapes"), _maker(name), words)

    def extent(self) -> Box:
        return Box(0, 0, self.width, self.height)

    def tile(self) -> tuple[Point, ...]:
        """The one tile that is repeated; empty for sets of several."""
        if self.ring:
            return self.ring
        return _bent(self) if self.pattern in BASES else ()

    def facts(self, page: Page) -> Iterator[Fact]:
        place = self.placement.scale
        rings = tiles_of(self)
        whole = [ring for ring, _number in rings if self.extent().grown(1e-6).covers(box_of(ring))]
        yield Fact("tiles", len(whole), text=str(len(whole)), label=_("whole tiles"))
        yield Fact("how", how(self), text=how(self), label=_("how they fit"))
        tile = self.tile()
        if tile:
            yield area_fact(page, "area", geometry.area(tile) * place * place, _("area of a tile"))
        else:
            yield length_fact(page, "side", self.side * place, _("side"), set=self._sided(page))

    def _sided(self, page: Page) -> Callable[[str], Thing]:
        def put_side(typed: str) -> Thing:
            side = read_length(typed, page) / self.placement.scale
            if not 12 <= side <= 1000:
                raise ValueError(_("A side of these tiles is between 0.4 and 30 cm long."))
            changed: Thing = self.replace(side=side)
            return changed

        return put_side

    def handles(self) -> tuple[Handle, ...]:
        room = Handle("room", self.width, self.height, _("room"))
        if self.pattern not in BASES or self.ring:
            return (room,)
        knots = [Handle(f"knot {e} {k}", *point, _("knot of an edge")) for e, k, point in _knots(self)]
        return (room, *knots)

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        if name == "room":
            size = {"width": min(max(64.0, x), 4000.0), "height": min(max(64.0, y), 4000.0)}
            room: Thing = self.replace(**size)
            return room
        _word, e, k = name.split()
        changed = self.replace(bends=_bend(self, int(e), int(k), (x, y)))
        return changed if _simple(_bent(changed)) else self  # a knot that would make edges cross stays

    def stretched(self, across: float, down: float) -> Thing | None:
        size = {"width": min(max(64.0, self.width * across), 4000.0), "height": min(max(64.0, self.height * down), 4000.0)}
        changed: Thing = self.replace(**size)
        return changed


def _maker(pattern: str) -> Callable[[], Thing]:
    return lambda: Tiles(
        pattern=pattern, side=96.0 if pattern in BASES else 48.0, hue="lake" if pattern in BASES else "moss"
    )


# Tiles with changed edges


def _base(tiles: Tiles) -> list[Point]:
    """The corners of the base in the middle of the room, so that the tile that is changed can be got at."""
    count, side = BASES[tiles.pattern], tiles.side
    middle = (tiles.width / 2, tiles.height / 2)
    radius = side / (2 * math.sin(math.pi / count))
    turn = math.pi / count if count == 4 else 0.0
    return [
        (
            middle[0] + radius * math.cos(turn + 2 * math.pi * k / count),
            middle[1] + radius * math.sin(turn + 2 * math.pi * k / count),
        )
        for k in range(count)
    ]


def _knot(a: Point, b: Point, k: int, bend: Point) -> Point:
    """Where a knot of an edge stands: a share of the way, and its bend along and outwards, in sides."""
    t = (k + 1) / (KNOTS + 1)
    wx, wy = b[0] - a[0], b[1] - a[1]
    return (a[0] + wx * (t + bend[0]) + wy * bend[1], a[1] + wy * (t + bend[0]) - wx * bend[1])


def _edge_bends(tiles: Tiles, e: int) -> tuple[Point, ...]:
    straight = tuple((0.0, 0.0) for _k in range(KNOTS))
    return tiles.bends[e] if e < len(tiles.bends) and len(tiles.bends[e]) == KNOTS else straight


def _knots(tiles: Tiles) -> Iterator[tuple[int, int, Point]]:
    corners = _base(tiles)
    for e in range(len(corners) // 2):
        for k, bend in enumerate(_edge_bends(tiles, e)):
            yield e, k, _knot(corners[e], corners[e + 1], k, bend)


def _bend(tiles: Tiles, e: int, k: int, at: Point) -> tuple[tuple[Point, ...], ...]:
    corners = _base(tiles)
    a, b = corners[e], corners[e + 1]
    wx, wy = b[0] - a[0], b[1] - a[1]
    size = wx * wx + wy * wy
    x, y = at[0] - a[0], at[1] - a[1]
    along, outwards = (x * wx + y * wy) / size - (k + 1) / (KNOTS + 1), (x * wy - y * wx) / size
    bends = [list(_edge_bends(tiles, i)) for i in range(len(corners) // 2)]
    bends[e][k] = (min(max(along, -0.9), 0.9), min(max(outwards, -0.9), 0.9))
    return tuple(map(tuple, bends))


def _bent(tiles: Tiles) -> tuple[Point, ...]:
    """The tile with its edges: each of the first half as it is bent, its partner the same, shifted across."""
    corners = _base(tiles)
    half = len(corners) // 2
    ring: list[Point] = []
    for e in range(2 * half):
        a, b = corners[e], corners[(e + 1) % (2 * half)]
        ring.append(a)
        if e < half:
            ring += [_knot(a, b, k, bend) for k, bend in enumerate(_edge_bends(tiles, e))]
        else:
            own = corners[e - half], corners[e - half + 1]
            shift = (b[0] - own[0][0], b[1] - own[0][1])
            knots = [_knot(*own, k, bend) for k, bend in enumerate(_edge_bends(tiles, e - half))]
            ring += [(x + shift[0], y + shift[1]) for x, y in reversed(knots)]
    return tuple(ring)


def _simple(ring: tuple[Point, ...]) -> bool:
    return not geometry.crosses_itself(ring)


def _base_moves(tiles: Tiles, room: Box) -> list[tuple[Move, int]]:
    """The translations that lay the tile over the room: those of the straight base."""
    corners = tuple(_base(tiles))
    return placements(corners, tiling_of(corners), room.grown(tiles.side))


# All the tiles


@remember
def tiles_of(tiles: Tiles) -> list[tuple[tuple[Point, ...], int]]:
    """The tiles that reach into the room, own coordinates; with each a number that tells it from its neighbours."""
    room = tiles.extent()
    try:
        if not tiles.ring and tiles.pattern in SEMI_REGULAR:
            return [(ring, 0) for ring in semi_regular(tiles.pattern, tiles.side, room)]
        tile = tiles.tile()
        moves = placements(tile, tiling_of(tile), room) if tiles.ring else _base_moves(tiles, room)
    except Cannot:
        return []
    made = [(tuple(move.point(p) for p in tile), number) for move, number in moves]
    return [(ring, number) for ring, number in made if box_of(ring).meets(room)]


def how(tiles: Tiles) -> str:
    try:
        if tiles.ring:
            return tiling_of(tiles.ring).how
    except Cannot as reason:
        return str(reason)
    if tiles.pattern in BASES:
        return _("translations: opposite edges fit")
    return _("round each corner: {kinds}").format(kinds=", ".join(map(str, SEMI_REGULAR[tiles.pattern])))


def hue_of(tiles: Tiles, ring: tuple[Point, ...], k: int) -> str:
    """Sets are coloured by their corners; one shape by turns."""
    if tiles.tile():
        return tiles.hue if k % 2 == 0 else tiles.second
    return {3: tiles.hue, 4: tiles.second, 6: "lake", 8: "plum", 12: "clay"}.get(len(ring), tiles.hue)
