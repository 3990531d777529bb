"""What only some kinds can do, said by small mixins. Board and desk ask for the capability, never for the kind.

A mixin stands before `Thing` among the bases of a kind: `class Die(Counts, Tappable, Thing, …)`. For type checkers each is
a thing; at run time it adds neither fields nor size.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import TYPE_CHECKING, Any, ClassVar, NamedTuple, Self

from larch.core.base.shape import Box, Point

if TYPE_CHECKING:
    from fractions import Fraction

    from larch.core.maths.expression.tree import Node
    from larch.core.maths.graph import Curve
    from larch.core.maths.plane.forms import Form, Graph, Spot
    from larch.core.model.page import Page
    from larch.core.model.thing import Handle, Snap, Thing

    Able = Thing
    Left = Sequence[Thing] | None
else:

    class Able:
        __slots__ = ()

        def __init_subclass__(cls, **given: object) -> None:  # type checkers want to hear that values are frozen
            super().__init_subclass__()


class Steered(NamedTuple):
    """changed: things of the page; why: what a graph fell onto, or ""; at: where, on the page."""

    changed: Mapping[str, Thing]
    why: str = ""
    at: Point = (0.0, 0.0)


class HasParts(Able, frozen=True):
    """Beads, hands, cards: parts that any pointer drags or taps at the Board without selecting the thing first.

    `pen_moves_parts`: a pen in hand that comes down on a part moves it too, instead of writing.
    """

    __slots__ = ()
    pen_moves_parts: ClassVar[bool] = True

    def parts(self) -> tuple[str, ...]:
        """The names of its parts, as keys and `larch act` go through them."""
        return ()

    def part_place(self, part: str) -> Point:
        """Where a finger takes hold of a part, in its own coordinates."""
        raise TypeError(self.kind())

    def part_at(self, x: float, y: float, slack: float) -> str:
        """The part that lies at a place of its own coordinates, within `slack`; "" if there is none."""
        raise TypeError(self.kind())

    def drag_part(self, part: str, before: Point, to: Point) -> Self:
        """Itself after one step of a drag, from a place to the next, in its own coordinates. Steps add up: each is taken
        from the state that the last one left, so that turns can be counted. Steps straight on may come as one."""
        raise TypeError(self.kind())

    def part_let_go(self, part: str) -> Self:
        """Itself when the hand leaves the part: where a part falls into place."""
        return self

    def tap_part(self, part: str, at: Point) -> Self | None:
        """What a tap on the part makes of it; None if that means nothing."""
        return None

    def part_label(self, part: str) -> str:
        """What the change is called in the list of what can be undone."""
        raise TypeError(self.kind())


class Zooms(Able, frozen=True):
    """What two fingers on it scale within its frame, instead of moving it."""

    __slots__ = ()

    def zoomed(self, before: tuple[Point, Point], now: tuple[Point, Point]) -> Self:
        """Itself when two fingers have come from two places of its own coordinates to two others."""
        raise TypeError(self.kind())


class Tappable(Able, frozen=True):
    """A tap at the Board means one of its actions. `taps`: how many taps it takes."""

    __slots__ = ()
    taps: ClassVar[int] = 1

    def tap_action(self, at: Point) -> str:
        """The name of the action that a tap at a place of its own coordinates means, or ""."""
        raise TypeError(self.kind())


class WorksLocked(Able, frozen=True):
    """A hand at the Board reaches it although it can't be moved."""

    __slots__ = ()


class Covers(Able, frozen=True):
    """Hides what lies under it until a class has worked for it: an export shows that only with the answers."""

    __slots__ = ()


class Ticks(Able, frozen=True):
    """What runs by itself. What it is at a time follows from its value, so that no edit is made for a tick."""

    __slots__ = ()

    def next_change(self, now: float) -> float | None:
        """When it next looks different, in seconds of the clock (POSIX time), after `now`; None while it rests."""
        raise TypeError(self.kind())

    def as_of(self, now: float) -> Self:
        """What it is at a time."""
        raise TypeError(self.kind())


class Sounds(Able, frozen=True):
    """What is heard when it changes."""

    __slots__ = ()

    def sounds_since(self, before: Thing) -> tuple[str, ...]:
        """The names of the sounds that belong to a change from `before`, a value of the same kind, to this one."""
        raise TypeError(self.kind())


QUIET = "no values"  # among what a thing shows: its values are hidden


class HasLabels(Able, frozen=True):
    """What has its values standing on it, which can be hidden."""

    __slots__ = ()

    def labelled(self) -> bool:
        """Whether they are shown."""
        return QUIET not in self.shown


class Speaks(Able, frozen=True):
    """What says something aloud when that changes, also where others are changed."""

    __slots__ = ()

    def says(self, page: Page) -> str:
        """What it says now; "" for nothing."""
        raise TypeError(self.kind())


class Counts(Able, frozen=True):
    """What counts for something in a total."""

    __slots__ = ()

    def worth(self) -> float | None:
        """What it counts for; None if it does not at present."""
        raise TypeError(self.kind())


class Snaps(Able, frozen=True):
    """What falls into place beside others."""

    __slots__ = ()

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        """The shift that brings it into place, within `reach` page units."""
        raise TypeError(self.kind())


def snap_of(thing: Thing, page: Page, others: list[Thing], reach: float) -> Snap | None:
    """How a thing falls into place beside others, if it is of a kind that does."""
    return thing.snap(page, others, reach) if isinstance(thing, Snaps) else None


class Merges(Able, frozen=True):
    """What becomes something else together with others, when a hand at the Board lays it beside them."""

    __slots__ = ()

    def merged(self, page: Page) -> Page | None:
        """The page when that has happened; None if it doesn't."""
        raise TypeError(self.kind())


class HasPlaces(Able, frozen=True):
    """What small things fall into: cells of a frame, squares of a grid."""

    __slots__ = ()

    def places(self) -> Sequence[Point]:
        """The middles of its cells, in its own coordinates."""
        raise TypeError(self.kind())


class Unaligned(Able, frozen=True):
    """What has a place by its own geometry, and does not fall into line with the boxes of others."""

    __slots__ = ()


class TurnsOnto(Able, frozen=True):
    """What falls onto lines nearby when it is turned."""

    __slots__ = ()

    def held_turn(self, page: Page, others: Sequence[Thing], degrees: float) -> tuple[float, str]:
        """A turn that is near to one that lays it along a line; and the word that says why, or ""."""
        raise TypeError(self.kind())


class HasInk(Able, frozen=True):
    """What ink can be rubbed out of."""

    __slots__ = ()

    def rubbed(self, change: Callable[[Any], Left]) -> Left:
        """What stays of it when `change` is applied to the ink in it, given in page coordinates; None if all of it does.

        `change` returns what is left of a stroke, or None where it leaves it alone. See `actions.ink.rub`.
        """
        raise TypeError(self.kind())


class IsInk(HasInk, frozen=True):
    """What is written, not laid out: it is wiped, and stays when a page is set out again."""

    __slots__ = ()


class TakesInk(HasInk, frozen=True):
    """What is written on it becomes part of it."""

    __slots__ = ()

    def with_ink(self, ink: Any) -> Thing | None:
        """Itself with a stroke of the page in it, where it takes that."""
        raise TypeError(self.kind())


class HoldsOthers(Able, frozen=True):
    """What lies in it goes with it."""

    __slots__ = ()

    def rearranged(self, page: Page, before: Thing) -> Mapping[str, Thing]:
        """The other things that change when it has been changed from `before` by one of its handles."""
        return {}

    def fitted(self, thing: Thing) -> Thing | None:
        """A thing that lies in it as large as its place there; None if it has no places."""
        return None

    def keeps(self, thing: Thing) -> bool:
        """Whether a hand that drags a thing out of it means the whole: words in a cell are not dragged out by accident."""
        return False


class Joinable(Able, frozen=True):
    """Joining lines are offered for it. `solid`: lines between others go round it."""

    __slots__ = ()
    solid: ClassVar[bool] = True


class HasMedia(Able, frozen=True):
    """What shows or plays something from the store of media."""

    __slots__ = ()

    def media_names(self) -> tuple[str, ...]:
        raise TypeError(self.kind())


class HasWords(Able, frozen=True):
    """What has words in it that other programs can take."""

    __slots__ = ()

    def plain_text(self) -> str:
        raise TypeError(self.kind())


class Tells(Able, frozen=True):
    """Words that may tell facts of the page."""

    __slots__ = ()

    def tells(self) -> bool:
        """Whether there are facts among its words at all."""
        raise TypeError(self.kind())

    def told_on(self, page: Page) -> Self:
        """Itself with what the facts are at present; the same value if that has not changed."""
        raise TypeError(self.kind())


class Defines(Able, frozen=True):
    """What gives a letter of the page its value."""

    __slots__ = ()

    def definition(self, page: Page) -> tuple[str, Node] | None:
        """The letter and what it is; None if it gives none at present."""
        raise TypeError(self.kind())

    def ends_of_letter(self) -> tuple[float, float] | None:
        """From where to where the letter can go, if that is bounded."""
        return None

    def defined_as(self, value: Fraction) -> Thing | None:
        """Itself giving the letter another value; None where that follows from others."""
        return None


class Tabulates(Able, frozen=True):
    """What holds pairs of numbers that are points on axes."""

    __slots__ = ()

    def axes_on(self, page: Page) -> Plots | None:
        """The axes on which its points lie."""
        raise TypeError(self.kind())

    def points_on(self, page: Page) -> list[tuple[int, float, float]]:
        """Row, x and y of each that has both."""
        raise TypeError(self.kind())

    def residuals(self, page: Page) -> list[tuple[float, float, float]]:
        """x, y and what a curve of best fit has there instead, of each point."""
        return []

    def with_point(self, page: Page, row: int, x: float, y: float) -> Self:
        """Itself when the point of a row was dragged elsewhere."""
        raise TypeError(self.kind())


class Shades(Able, frozen=True):
    """What is shaded or stepped through on axes, from a number that can be dragged there, perhaps to another."""

    __slots__ = ()

    def axes_on(self, page: Page) -> Plots | None:
        """The axes on which it is shaded."""
        raise TypeError(self.kind())

    def shaded(self, page: Page) -> list[list[tuple[float, float]]]:
        """The corners of its parts, in coordinates."""
        raise TypeError(self.kind())

    def lines_on(self, page: Page) -> list[tuple[list[tuple[float, float]], bool]]:
        """Lines that it has there besides, as corners in coordinates, and whether they are dashed."""
        return []

    def ends(self) -> tuple[float, ...]:
        """Where it begins and, if that can be dragged too, ends."""
        raise TypeError(self.kind())

    def with_end(self, which: int, x: float) -> Thing:
        """Itself with its beginning (0) or its end (1) elsewhere."""
        raise TypeError(self.kind())


class Steers(Able, frozen=True):
    """What has a graph elsewhere on the page that a hand moves. Places are those of the page."""

    __slots__ = ()

    def grips_on(self, page: Page) -> Sequence[Handle]:
        """The places by which its graph is taken hold of."""
        raise TypeError(self.kind())

    def steered(self, page: Page, name: str, start: Point, to: Point, freely: bool) -> Steered:
        """The things that change when a grip, or with "" the whole graph, is dragged. Raises NotThere with a sentence."""
        raise TypeError(self.kind())


class Geometric(Able, frozen=True):
    """What has a form for geometry."""

    __slots__ = ()

    def form_on(self, page: Page) -> Form | None:
        """Its form in page coordinates; None if it has none at present."""
        raise TypeError(self.kind())

    def rests_on(self, page: Page) -> tuple[str, ...]:
        """The ids of other things on which its form depends without its following from them."""
        return ()


class Plots(Geometric, frozen=True):
    """A window onto the plane, in which points have coordinates."""

    __slots__ = ()

    def plotted(self, x: float, y: float) -> Spot:
        """Where a plotted point lies on the page. Raises NotThere outside the window."""
        raise TypeError(self.kind())

    def coordinates(self, at: Point) -> tuple[float, float]:
        """Of a place that a hand dragged a point to: kept within the window."""
        raise TypeError(self.kind())

    def plane_of(self, at: Point) -> Point:
        """Coordinates of a place of the page."""
        raise TypeError(self.kind())

    def page_of(self, at: Point) -> Point:
        """The place of the page that has these coordinates."""
        raise TypeError(self.kind())

    def grid_point(self, at: Point) -> Point:
        """The place of the page, on a grid of round numbers, that is nearest to one."""
        raise TypeError(self.kind())

    def units(self) -> tuple[float, float]:
        """Its own units to one unit of each axis."""
        raise TypeError(self.kind())

    def draws(self, drawn: Any) -> bool:
        """Whether something that has a graph is drawn here."""
        raise TypeError(self.kind())

    def graph(self, curve: Curve) -> Graph | Spot:
        """The part of a curve that is to be seen here, or the point that it is. Raises NotThere if there is none."""
        raise TypeError(self.kind())

    def window(self) -> Box:
        """Its edge, in its own coordinates."""
        return self.extent()


class LooksAt(Able, frozen=True):
    """What looks different when other things change."""

    __slots__ = ()

    def uses(self, page: Page) -> tuple[Thing, ...]:
        """The other things that its look depends on."""
        raise TypeError(self.kind())


class Derives(Able, frozen=True):
    """What holds values that are worked out, and not written into files."""

    __slots__ = ()

    def bare(self) -> Thing:
        """As it is written: without what is derived."""
        raise TypeError(self.kind())


class TakesNames(Able, frozen=True):
    """What is given names of its own on a page."""

    __slots__ = ()

    def christened(self, page: Page) -> Self:
        """Itself with names that are still free on the page, when it is put out there."""
        raise TypeError(self.kind())


class Constructible(Able, frozen=True):
    """Constructions, parting and the like are offered for it."""

    __slots__ = ()
