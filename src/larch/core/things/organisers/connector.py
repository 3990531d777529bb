"""Lines that join two things and stay with them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from typing import TYPE_CHECKING, Any, ClassVar

from larch.core.base.shape import Box, Placement, Point, box_of
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure, split_ref
from larch.core.maths.plane.forms import NotThere, Path
from larch.core.maths.plane.near import distance
from larch.core.maths.routing import leaves, squared, straight
from larch.core.model.action import Action, Fold, Things, only
from larch.core.model.capabilities import HasWords, Joinable
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.thing import Thing

if TYPE_CHECKING:
    from larch.core.figures.settling import Settling
    from larch.core.maths.plane.forms import Form

WIDTH = 6.0
STYLES = (N_("straight"), N_("square"), N_("curved"))
ARROWS = (N_("end"), N_("both"), N_("none"))
MOST_OBSTACLES = 40


class Connector(HasWords, Figure, frozen=True, kw_only=True, tag="connector"):
    """of: the ids of the two things. route: where it runs, derived. words: what is written on it. style: one of STYLES;
    arrows: one of ARROWS."""

    route: tuple[Point, ...] = ((0.0, 0.0), (160.0, 0.0))
    words: str = ""
    style: str = "straight"
    arrows: str = "end"
    hue: str = "lake"

    icon: ClassVar[str] = "workflow"
    order: ClassVar[int] = 42
    resizable: ClassVar[bool] = False
    turnable: ClassVar[bool] = False
    help: ClassVar[str] = N_("Select two things and choose “join”; Ctrl+I says what is written on the line.")

    def __post_init__(self) -> None:
        if not 2 <= len(self.route) <= 200 or len(self.words) > 200:
            raise ValueError("a connector must have a way")
        if self.style not in STYLES or self.arrows not in ARROWS:
            raise ValueError("a connector has one of the known styles")

    @classmethod
    def title(cls) -> str:
        return _("joining line")

    def label(self, page: Page) -> str:
        ends = [end for id in self.ends_at() if (end := page.thing(id)) is not None]
        names = [end.title() if isinstance(end, Connector) else end.label(page) for end in ends]  # lines may join in a ring
        return _("line from {a} to {b}").format(a=names[0], b=names[1]) if len(names) == 2 else self.title()

    def ends_at(self) -> tuple[str, ...]:
        return tuple(split_ref(ref)[0] for ref in self.of)

    def plain_text(self) -> str:
        return self.words

    def form(self) -> Path:
        return Path(tuple(self.placement.to_page(*point) for point in self.route), closed=False)

    def formed(self, form: Any) -> Figure:
        changed: Figure = self.replace(route=form.corners, placement=Placement())
        return changed

    def worked_out(self, settler: Settling) -> Form | None:
        """Raises NotThere if one of its ends is."""
        ends = [settler.thing(id) for id in self.ends_at()]
        if len(ends) != 2 or ends[0] is None or ends[1] is None:
            raise NotThere(N_("What it joins is gone."))
        a, b = ends[0], ends[1]
        around = settler.remembered("obstacles", lambda: _obstacles(settler))
        obstacles = [box for id, box in around if id not in (a.id, b.id)]
        box_a, box_b = a.box(), b.box()
        if self.style == "square":
            path = squared(box_a, box_b, obstacles)
        else:
            path = straight(box_a.centre, box_b.centre, obstacles)
        if path[0] == box_a.centre or self.style != "square":
            path[0] = leaves(box_a, path[1], getattr(a, "shape", "box"))
            path[-1] = leaves(box_b, path[-2], getattr(b, "shape", "box"))
        return Path(tuple(path), closed=False)

    def extent(self) -> Box:
        return box_of(self.route)

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.route, False

    def touches(self, x: float, y: float, slack: float) -> bool:
        return distance(Path(self.route, False), (x, y)) <= slack + WIDTH

    def facts(self, page: Page) -> Iterator[Fact]:
        def say(typed: str) -> Thing:
            changed: Thing = self.replace(words=typed.strip()[:200])
            return changed

        yield Fact("words", self.words, text=self.words, label=_("on it is written"), set=say)
        for name, now, names in (("style", self.style, STYLES), ("arrows", self.arrows, ARROWS)):

            def choose(typed: str, name: str = name, names: tuple[str, ...] = names) -> Thing:
                if typed not in names:
                    raise ValueError(_("“{typed}” is none of the choices.").format(typed=typed[:40]))
                changed: Thing = self.replace(**{name: typed})
                return changed

            label = _("way") if name == "style" else _("arrowheads")
            yield Fact(name, now, text=_(now), label=label, set=choose, options=tuple((one, _(one)) for one in names))

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _obstacles(settler: Settling) -> list[tuple[str, Box]]:
    """What lines go round, as it lies now."""
    found: list[tuple[str, Box]] = []
    for thing in settler.page.things:
        if isinstance(thing, Joinable) and thing.solid and not thing.hidden:
            now = settler.thing(thing.id) or thing
            box = now.box()
            if box.width < 600 and box.height < 400:  # what lines may lead to from within is no obstacle
                found.append((thing.id, box))
    return found[:MOST_OBSTACLES]


LINE = Fold("line", N_("joining line"), "spline")


def _change(field: str, value: str, label: str, picture: str) -> Action:
    def run(page: Page, things: Things) -> Edit:
        return Edit(_("Joining line"), page, page.with_things({t.id: t.replace(**{field: value}) for t in things}))

    return Action(
        f"line {value}",
        lambda p, ts: _(label),
        picture,
        run,
        only(Connector),
        rank=52,
        fold=LINE,
        words=N_("arrow style route"),
    )


ACTIONS = (
    _change("style", "straight", N_("straight way"), "minus"),
    _change("style", "square", N_("level and upright"), "corner-down-right"),
    _change("style", "curved", N_("curved"), "spline"),
    _change("arrows", "end", N_("one arrowhead"), "move-right"),
    _change("arrows", "both", N_("two arrowheads"), "move-horizontal"),
    _change("arrows", "none", N_("no arrowheads"), "minus"),
)
