"""Picture outlines that are filled with shapes."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Callable, Iterator, Sequence
from operator import is_
from typing import ClassVar

from larch.core.base.shape import FARTHEST, Box, Point, box_of
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure
from larch.core.maths import geometry
from larch.core.maths.overlay import overlaid
from larch.core.model.capabilities import LooksAt
from larch.core.model.fact import Fact, number_text
from larch.core.model.page import Page
from larch.core.model.scale import area_fact
from larch.core.model.thing import ShelfItem, Thing

UNIT = 64.0
H = UNIT * 3**0.5 / 2  # height of a triangle with that side
FULL = 0.997  # share that counts as filled: hands leave hairlines
OVER = 0.01  # share of a shape that may lie beyond the rim or on another


def _scaled(points: Sequence[tuple[float, float]]) -> tuple[Point, ...]:
    """Points given in sides across and triangle heights down."""
    return tuple((x * UNIT, y * H) for x, y in points)


PICTURES: dict[str, tuple[Point, ...]] = {
    N_("lantern"): _scaled([(1, 0), (3, 0), (4, 2), (3, 4), (3.5, 5), (0.5, 5), (1, 4), (0, 2)]),
    N_("boat"): _scaled([(0, 4), (2, 4), (2, 4), (3, 4), (3, 4), (4, 2), (5, 4), (7, 4), (6, 6), (1, 6)]),
    N_("star"): _scaled(
        [(2, 0), (2.5, 1), (3.5, 1), (4, 2), (3.5, 3), (2.5, 3), (2, 4), (1.5, 3), (0.5, 3), (0, 2), (0.5, 1), (1.5, 1)]
    ),
    N_("fish"): _scaled([(0, 1), (1, 3), (2, 1), (4, 1), (5, 3), (4, 5), (2, 5), (1, 3), (0, 5), (0.5, 3)]),
}
PICTURES["boat"] = tuple(dict.fromkeys(PICTURES["boat"]))
PICTURES["fish"] = _scaled(
    [(0, 1), (1, 1), (1.5, 2), (2, 1), (4, 1), (5, 3), (4, 5), (2, 5), (1.5, 4), (1, 5), (0, 5), (1, 3)]
)


class Silhouette(LooksAt, Thing, frozen=True, kw_only=True, tag="silhouette"):
    """An outline to be filled; locked from the start, so that it stays under the shapes. Own coordinates."""

    vertices: tuple[Point, ...] = PICTURES["lantern"]
    locked: bool = True
    hue: str = "slate"
    shown: tuple[str, ...] = ("covered",)

    icon: ClassVar[str] = "shapes"
    order: ClassVar[int] = 37
    help: ClassVar[str] = N_("Lay shapes into the outline until it is full. Corners fall onto corners.")

    def __post_init__(self) -> None:
        if not 3 <= len(self.vertices) <= 200 or not all(abs(v) <= FARTHEST for p in self.vertices for v in p):
            raise ValueError("an outline has three corners at least")

    @classmethod
    def title(cls) -> str:
        return _("outline to fill")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        for name in PICTURES:
            label = _("outline: {picture}").format(picture=_(name))
            yield ShelfItem(f"outline {name}", label, N_("Shapes"), _maker(name), _("fill picture puzzle cover shapes"))

    def extent(self) -> Box:
        return box_of(self.vertices)

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.vertices, True

    def touches(self, x: float, y: float, slack: float) -> bool:
        return geometry.inside(self.vertices, x, y)

    def page_corners(self) -> list[Point]:
        return [self.placement.to_page(*corner) for corner in self.vertices]

    def uses(self, page: Page) -> tuple[Thing, ...]:
        """The shapes that lie on it."""
        box = self.box()
        return tuple(t for t in page.things if _is_piece(t) and t.box().meets(box) and not t.supply)

    def facts(self, page: Page) -> Iterator[Fact]:
        share, pieces, over = covered(self, page)
        percent = f"{number_text(100 * share, 0)} %"
        full = share >= FULL and not over
        text = _("full, with {n} shapes").format(n=pieces) if full else percent
        yield Fact("covered", share, text=text, label=_("covered"), badge="covered")
        yield Fact("pieces", pieces, text=str(pieces), label=_("shapes in it"))
        yield Fact("over", over, text=str(over), label=_("shapes beyond it or on others"))
        place = self.placement.scale
        yield area_fact(page, "area", geometry.area(self.vertices) * place * place, _("area"), "area")


def _maker(name: str) -> Callable[[], Thing]:
    return lambda: Silhouette(vertices=PICTURES[name])


def _is_piece(thing: Thing) -> bool:
    return isinstance(thing, Figure) and thing.kind() == "polygon" and not thing.why


Cover = tuple[float, int, int]
MOST_KNOWN = 16
_known: OrderedDict[tuple[str, str], tuple[Silhouette, tuple[Thing, ...], Cover]] = OrderedDict()


def covered(outline: Silhouette, page: Page) -> Cover:
    """The share of it that shapes cover, how many lie in it, and how many of those reach beyond it or over another.

    It is asked for at every paint, and is worked out anew only when one of them has changed.
    """
    pieces = tuple(outline.uses(page))
    key = (page.id, outline.id)
    found = _known.get(key)
    if found is not None and found[0] is outline and len(found[1]) == len(pieces) and all(map(is_, found[1], pieces)):
        return found[2]
    result = _covered(outline, pieces)
    _known[key] = (outline, pieces, result)
    while len(_known) > MOST_KNOWN:
        _known.popitem(last=False)
    return result


def _covered(outline: Silhouette, pieces: Sequence[Thing]) -> Cover:
    if not pieces:
        return 0.0, 0, 0
    import shapely

    room = shapely.Polygon(outline.page_corners())
    inside, over, union = 0, 0, None
    for piece in pieces:
        assert isinstance(piece, Figure)
        shape = shapely.make_valid(shapely.Polygon(piece.form().corners))  # type: ignore[union-attr]
        within = overlaid("overlap", shape, room)
        if within.area < 0.02 * shape.area:
            continue
        inside += 1
        beyond = shape.area - within.area
        overlap = 0.0 if union is None else overlaid("overlap", shape, union).area
        over += beyond > OVER * shape.area or overlap > OVER * shape.area
        union = shape if union is None else overlaid("join", union, shape)
    if union is None:
        return 0.0, 0, 0
    return min(1.0, overlaid("overlap", union, room).area / room.area), inside, over
