"""Pages of geometry: the lantern's panels, folding, sharing a sheet, a height, a construction, instruments, tiles."""

from __future__ import annotations

import math

from larch.core.actions.geometry.parting import share
from larch.core.actions.geometry.picks import Pick, built
from larch.core.actions.geometry.solve_triangle import work_out
from larch.core.base.shape import Placement, Point
from larch.core.base.words import _
from larch.core.maths.special import regular_corners
from larch.core.model.nibs import Pen
from larch.core.model.page import Page
from larch.core.model.scale import Scale
from larch.core.model.thing import Thing
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.point import Point as PointThing
from larch.core.things.geometry.polygon import Polygon, polygon_on
from larch.core.things.geometry.silhouette import PICTURES, Silhouette
from larch.core.things.geometry.tiles import Tiles
from larch.core.things.ink.ink import line_from
from larch.core.things.instruments.compasses import Compasses
from larch.core.things.instruments.protractor import Protractor
from larch.core.things.instruments.ruler import Ruler
from larch.core.things.pictures.painted import Painted
from larch.demo.parts import fresh_page, lettering


def folding() -> Page:
    """A kite and a hexagon with their fold lines."""
    page = fresh_page(_("Where do the panels fold?"), squared=True)
    kite = [(256.0, 160.0), (384.0, 288.0), (256.0, 576.0), (128.0, 288.0)]
    six = tuple((x * 1.25, y * 1.25) for x, y in regular_corners(6))
    page = page.put(
        polygon_on(page, kite, hue="berry", keeps="kite", shown=("fold lines", "marks")),
        Polygon(
            vertices=six, keeps="regular", hue="plum", letters="EFGHIJ", shown=("fold lines",), placement=Placement(590, 250)
        ),
    )
    return page.put(
        lettering(_("Drag a corner.\nWhen does the kite\nget more fold lines?"), 900, 200),
        lettering(_("How often does\nthe hexagon fold\nonto itself?"), 900, 440, hue="plum"),
    )


def sharing() -> Page:
    """A circle of paper shared among eight, one share taken away, and a sheet in twelve."""
    page = fresh_page(_("Share the paper"))
    page = page.put(Circle(radius=190, placement=Placement(290, 430), hue="lake"))
    after = share(page, page.things[-1:], 8).after
    assert isinstance(after, Page)
    page = after
    slices = [thing for thing in page.things if isinstance(thing, Circle)]
    page = page.with_things({slices[0].id: slices[0].moved(-44, -64)})
    sheet = polygon_on(page, [(640.0, 200.0), (1120.0, 200.0), (1120.0, 488.0), (640.0, 488.0)], keeps="rectangle")
    page = page.put(sheet)
    after = share(page, page.things[-1:], 4, rows=3).after
    assert isinstance(after, Page)
    return after.put(
        lettering(_("Eight children share a round sheet. Put it together again."), 56, 100),
        lettering(_("How many twelfths make a quarter?\nAnd how many make two thirds?"), 600, 540),
    )


def bridge() -> Page:
    """How high the bridge lantern hangs: a picture, a right-angled triangle over it, and the working."""
    page = fresh_page(_("How high hangs the bridge lantern?")).replace(scale=Scale("m", 1.0))
    water = ((0.0, 0.0), (560.0, 0.0), (560.0, 70.0), (0.0, 70.0))
    arch: list[Point] = [(0.0, 250.0), (0.0, 0.0), (170.0, 0.0), (170.0, 250.0), (146.0, 250.0)]
    arch += [(85 + 61 * math.cos(math.pi * k / 16), 196 - 100 * math.sin(math.pi * k / 16)) for k in range(17)]
    arch += [(24.0, 250.0)]
    scenery: list[Thing] = [
        Painted(rings=(tuple(arch),), hue="slate", strength=0.3, placement=Placement(432, 370), locked=True),
        Painted(rings=(water,), hue="sky", placement=Placement(56, 620), locked=True),
        line_from([(104.0, 620.0), (104.0, 566.0)], Pen("broad", "line", 8.0, "clay")).replace(locked=True),
    ]
    lantern = ((14.0, 0.0), (42.0, 0.0), (56.0, 30.0), (42.0, 66.0), (14.0, 66.0), (0.0, 30.0))
    page = page.put(*scenery)
    page = page.put(
        Polygon(
            vertices=lantern, letters="      ", hue="berry", name=_("lantern"), locked=True, placement=Placement(404, 300)
        )
    )
    corners = [(112.0, 620.0), (432.0, 620.0), (432.0, 332.0)]
    page = page.put(polygon_on(page, corners, hue="lake", shown=("AB", "angle A", "marks")))
    solved = work_out(page, [page.things[-1]]).after
    assert isinstance(solved, Page)
    text = solved.things[-1]
    page = solved.with_things({text.id: text.replace(placement=Placement(680, 116), locked=True)})
    return page.put(lettering(_("Drag A: does the height change?"), 640, 650))


def meeting_place() -> Page:
    """As far from three lamps: a construction whose steps can be played."""
    page = fresh_page(_("As far from all three lamps"), squared=True)
    for name, x, y in (("A", 608.0, 544.0), ("B", 992.0, 576.0), ("C", 896.0, 224.0)):
        page = page.put(PointThing(name=name, placement=Placement(x, y)))
    a, b, c = (thing.id for thing in page.things if isinstance(thing, PointThing))

    def add(page: Page, rule: str, *refs: str, hue: str = "slate") -> Page:
        return built(page, rule, [Pick(ref, (0.0, 0.0)) for ref in refs], hue=hue).page

    def newest(page: Page, old: Page) -> str:
        return next(thing.id for thing in page.things if old.thing(thing.id) is None)

    page = add(page, "polygon", a, b, c, hue="lake")
    first = add(page, "bisector", a, b)
    one = newest(first, page)
    second = add(first, "bisector", a, c)
    other = newest(second, first)
    page = second.changing([one, other], lambda thing: thing.replace(dashed=True))
    met = built(page, "meet", [Pick(one, (0.0, 0.0)), Pick(other, (0.0, 0.0))]).page
    place = newest(met, page)
    page = met.changing([place], lambda thing: thing.replace(name="P"))
    page = add(page, "circle", place, a, hue="clay")
    return page.put(
        lettering(_("Which place is as far\nfrom every lamp?"), 56, 160),
        lettering(_("AP = {AP} cm\nBP = {BP} cm\nCP = {CP} cm"), 56, 310, hue="clay"),
        lettering(_("Drag a lamp.\nWhen does P lie\noutside the triangle?"), 56, 510),
    )


def instruments() -> Page:
    """Ruler, protractor and compasses on a panel that is to be measured."""
    page = fresh_page(_("Measure the panel"), squared=True)
    panel = polygon_on(page, [(224.0, 480.0), (576.0, 480.0), (480.0, 224.0), (352.0, 192.0)], hue="moss")
    page = page.put(panel, Protractor(placement=Placement(224, 480)))
    page = page.put(Ruler(placement=Placement(224, 560), length=416.0, draws="figure"))
    page = page.put(Compasses(opening=128.0, placement=Placement(848, 620)))
    arc = Circle(radius=128, piece="arc", start=0, span=75, placement=Placement(848, 620), hue="lake")
    return page.put(
        arc, lettering(_("Lay the protractor on each\ncorner. What do the four\nangles make together?"), 690, 130)
    )


def tiles() -> Page:
    """A wall of paper tiles, a tile whose edges can be changed, an outline to be filled."""
    page = fresh_page(_("Paper for the long wall"))
    bends = (((0.0, 0.16), (0.02, 0.24), (0.0, -0.12)), ((0.02, 0.0), (0.0, 0.22), (0.0, -0.14)))
    page = page.put(
        Tiles(pattern="3.4.6.4", side=44, width=384, height=288, hue="straw", second="moss", placement=Placement(56, 120)),
        Tiles(
            pattern="square",
            side=96,
            bends=bends,
            hue="lake",
            second="sky",
            width=384,
            height=288,
            placement=Placement(56, 424),
        ),
    )
    page = page.put(Silhouette(vertices=PICTURES["lantern"], placement=Placement(500, 130)))
    side, height = 64.0, 64.0 * 3**0.5 / 2
    triangle = ((0.0, height), (side, height), (side / 2, 0.0))
    lozenge = ((side / 2, 0.0), (1.5 * side, 0.0), (side, height), (0.0, height))
    pieces = [
        Polygon(vertices=triangle, letters="   ", hue="straw", supply=True, placement=Placement(520, 560)),
        Polygon(vertices=lozenge, letters="    ", hue="berry", supply=True, placement=Placement(620, 560)),
    ]
    placed = Polygon(vertices=lozenge, letters="    ", hue="berry", placement=Placement(500 + side / 2, 130))
    return page.put(
        *pieces,
        placed,
        lettering(_("Fill the lantern.\nKeys [ and ] turn\na shape."), 840, 140),
        lettering(_("Drag a knot of the\ngold tile. Why do the\ntiles still fit?"), 840, 420, hue="lake"),
    )
