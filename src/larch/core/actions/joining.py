"""Lines between things, and boxes that grow neighbours."""

from __future__ import annotations

from collections.abc import Callable

from larch.core.base.words import N_, _
from larch.core.figures.settle import settle
from larch.core.model.action import Action, Fold, Things, only, register
from larch.core.model.capabilities import IsInk, Joinable
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.organisers.box import GAP, SIDES, WordBox, like
from larch.core.things.organisers.connector import Connector


def grown(page: Page, box: Thing, side: str) -> tuple[Page, str]:
    """The page with a neighbour of a box on one side, joined to it, where nothing else lies; and the neighbour's id."""
    dx, dy = SIDES[side]
    own = box.box()
    fresh = like(box)
    size = fresh.box()
    x = own.centre[0] + dx * (own.width / 2 + GAP + size.width / 2)
    y = own.centre[1] + dy * (own.height / 2 + GAP + size.height / 2)
    step = (size.height if dx else size.width) + 32.0
    others = [thing.box() for thing in page.things if not isinstance(thing, IsInk) and not isinstance(thing, Connector)]
    for k in range(24):
        off = (k + 1) // 2 * (1 if k % 2 else -1) * step
        at = (x + (0 if dx else off), y + (off if dx else 0))
        room = size.moved(at[0] - size.centre[0], at[1] - size.centre[1])
        if not any(room.meets(other) for other in others):
            break
    placed = fresh.moved(at[0] - size.centre[0], at[1] - size.centre[1])
    id, _line = page.put_ids(2)
    return settle(page.put(placed, Connector(rule="connect", of=(box.id, id), hue=box.hue))), id


def grow(page: Page, things: Things, side: str = "right") -> Edit:
    after, id = grown(page, things[0], side)
    return Edit(_("Joined box"), page, after, select=(id,))


def join(page: Page, things: Things) -> Edit:
    """Lines from the first of some things to all others, in the order of their depth."""
    ends = [thing for thing in things if not isinstance(thing, Connector)]
    joined = {frozenset(t.of) for t in page.things if isinstance(t, Connector)}
    made = [
        Connector(rule="connect", of=(ends[0].id, other.id), hue=getattr(ends[0], "hue", "lake"))
        for other in ends[1:]
        if frozenset((ends[0].id, other.id)) not in joined
    ]
    if not made:
        raise ValueError(_("They are joined already."))
    # Below the things they join, so that no line crosses a picture.
    low = min(page.things.index(end) for end in ends)
    return Edit(_("Join"), page, settle(page.insert(low, *made)))


def _grower(side: str) -> Callable[[Page, Things], Edit]:
    return lambda page, things: grow(page, things, side)


GROW = Fold("grow", N_("grow a box"), "workflow")
GROWN: tuple[tuple[str, Callable[[], str], str], ...] = (
    ("right", lambda: _("grow a box to the right"), "arrow-right"),
    ("down", lambda: _("grow a box below"), "arrow-down"),
    ("left", lambda: _("grow a box to the left"), "arrow-left"),
    ("up", lambda: _("grow a box above"), "arrow-up"),
)


def _grow_action(side: str, words: Callable[[], str], picture: str) -> Action:
    search = N_("concept map linked neighbour node child")
    return Action(f"grow {side}", lambda p, ts: words(), picture, _grower(side), _one_box, rank=56, fold=GROW, words=search)


def _can_join(page: Page, things: Things) -> bool:
    ends = [thing for thing in things if not isinstance(thing, Connector) and not isinstance(thing, IsInk)]
    return 2 <= len(ends) <= 40 and any(isinstance(thing, Joinable) for thing in ends)


def _one_box(page: Page, things: Things) -> bool:
    return len(things) == 1 and only(WordBox)(page, things)


JOINING = (
    Action(
        "join", lambda p, ts: _("join with lines"), "workflow", join, _can_join, rank=58, words=N_("connect arrow link line")
    ),
)
register((_grow_action(*one) for one in GROWN), WordBox, at=10)
register(JOINING, at=40)
