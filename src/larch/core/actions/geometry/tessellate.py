"""Covering a page with copies of a shape, and taking such a cover apart."""

from __future__ import annotations

from larch.core.base.shape import Box, Placement, box_of
from larch.core.base.words import N_, _
from larch.core.figures.tiling import tiling_of
from larch.core.model.action import Action, Things, only, put, register
from larch.core.model.capabilities import Constructible
from larch.core.model.edit import Edit, replaced_by
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.geometry.tiles import MOST_LOOSE, Tiles, how, hue_of, tiles_of


def tessellate(page: Page, things: Things) -> Edit:
    """Covers the page with a shape. Raises Cannot with the reason if it does not tile."""
    shape = things[0]
    assert isinstance(shape, Polygon)
    corners = shape.form().corners
    tiling_of(corners)
    room = Box(40, 40, max(200.0, page.size[0] - 40), max(200.0, page.size[1] - 40))
    ring = tuple((x - room.x0, y - room.y0) for x, y in corners)
    made = Tiles(ring=ring, hue=shape.hue, width=room.width, height=room.height, placement=Placement(room.x0, room.y0))
    edit = put(page, [made], _("Tessellate"))
    return Edit(edit.label, edit.before, edit.after, select=edit.select, said=_("It tiles by {how}.").format(how=how(made)))


def _can_tessellate(page: Page, things: Things) -> bool:
    return (
        len(things) == 1
        and things[0].kind() == "polygon"
        and not getattr(things[0], "why", "")
        and not getattr(things[0], "holes", ())
    )


def take_apart(page: Page, things: Things) -> Edit:
    """The whole tiles become shapes that can be moved."""
    instead: dict[str, list[Thing]] = {}
    for tiles in things:
        assert isinstance(tiles, Tiles)
        rings = [(ring, k) for ring, k in tiles_of(tiles) if tiles.extent().grown(1e-6).covers(box_of(ring))]
        if not rings:
            raise ValueError(_("No whole tile lies in the room."))
        if len(rings) > MOST_LOOSE:
            raise ValueError(_("These are more than {most} tiles; make the room smaller first.").format(most=MOST_LOOSE))
        instead[tiles.id] = [
            Polygon(vertices=ring, letters=" " * len(ring), hue=hue_of(tiles, ring, k), placement=tiles.placement)
            for ring, k in rings
        ]
    return replaced_by(page, instead, _("Take apart"))


LOOSENING = (
    Action("take apart", lambda p, ts: _("take the tiles apart"), "puzzle", take_apart, only(Tiles), rank=20,
           words=N_("loose")),
)  # fmt: skip
TESSELLATING = (
    Action("tessellate", lambda p, ts: _("tessellate"), "grid-3x3", tessellate, _can_tessellate, rank=67,
           words=N_("tile cover plane pattern tiling")),
)  # fmt: skip
register(LOOSENING, Tiles)
register(TESSELLATING, Constructible, at=40)
