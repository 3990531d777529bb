"""Actions: what can be done, stated once for the tag, the menus, the Finder, the keyboard and the screen reader."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from msgspec import Struct

from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing

Things = Sequence[Thing]


class Action(Struct, frozen=True):
    """A pure function of a page and the selected things of it, with its name and looks.

    fits: whether it makes sense for this selection. rank: lower comes sooner on the tag.
    board: offered to students at the Board. label may depend on the selection. fold: the menu within the menu that it lies
    in, if not that of the first word of its name.
    """

    name: str
    label: Callable[[Page, Things], str]
    icon: str
    run: Callable[[Page, Things], Edit]
    fits: Callable[[Page, Things], bool] = lambda page, things: bool(things)
    shortcut: str = ""
    rank: int = 50
    board: bool = False
    words: str = ""
    fold: str = ""


def actions_for(page: Page, things: Things) -> list[Action]:
    """All that fits the selection, likeliest first: the kinds' own actions, then those for anything."""
    from larch.core.actions.arrange.arrange import ARRANGING
    from larch.core.actions.links import LINKING
    from larch.core.things.organisers.box import JOINING
    from larch.core.things.pictures.frost import FROSTING

    found: dict[str, Action] = {}
    for thing in things:
        for action in thing.actions():
            found.setdefault(action.name, action)
    for action in (*ARRANGING, *JOINING, *FROSTING, *LINKING):
        found.setdefault(action.name, action)
    fitting = [action for action in found.values() if action.fits(page, things)]
    return sorted(fitting, key=lambda action: action.rank)


def only(kind: type[Thing]) -> Callable[[Page, Things], bool]:
    """Fits where every selected thing is of one kind."""
    return lambda page, things: bool(things) and all(isinstance(thing, kind) for thing in things)
