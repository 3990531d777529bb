"""What can be done with words: size, weight, lines, lists."""

from __future__ import annotations

from collections.abc import Callable

from larch.core.base.words import N_, _
from larch.core.model.action import Action, Fold, Things, ids_of, register
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.words.rich import DISTANCES, STEP, Lettered, spread

LETTERING = Fold("lettering", N_("type and lines"), "type")


def _all_lettered(page: Page, things: Things) -> bool:
    return bool(things) and all(isinstance(thing, Lettered) and not thing.locked for thing in things)


def _each(label: Callable[[], str], change: Callable[[Lettered], Thing]) -> Callable[[Page, Things], Edit]:
    def run(page: Page, things: Things) -> Edit:
        return Edit(label(), page, page.changing(ids_of(things), lambda t: change(t) if isinstance(t, Lettered) else t))

    return run


def _action(name: str, label: Callable[[], str], icon: str, rank: int, change: Callable[[Lettered], Thing]) -> Action:
    return Action(
        name,
        lambda p, ts: label(),
        icon,
        _each(label, change),
        _all_lettered,
        rank=rank,
        fold=LETTERING if rank > 60 else None,
        words=N_("text letters words type"),
    )


def _toggle(field: str, label: Callable[[], str], icon: str, rank: int) -> Action:
    """Sets a style on all words of all, or takes it off if all have it."""

    def has(thing: Thing) -> bool:
        assert isinstance(thing, Lettered)
        whole = field == "bold" and thing.bold
        return whole or all(getattr(run, field) for run in spread(thing.runs, len(thing.text)))

    def run(page: Page, things: Things) -> Edit:
        on = not all(has(thing) for thing in things)

        def change(thing: Thing) -> Thing:
            assert isinstance(thing, Lettered)
            changed: Thing = thing.replace(bold=False) if field == "bold" else thing
            return changed.styled(**{field: on})  # type: ignore[attr-defined, no-any-return]

        return Edit(label(), page, page.changing(ids_of(things), change))

    return Action(
        field,
        lambda p, ts: label(),
        icon,
        run,
        _all_lettered,
        rank=rank,
        fold=LETTERING if rank > 60 else None,
        words=N_("text letters words type"),
    )


def _reads(metres: int) -> Callable[[], str]:
    return lambda: _("read from {m} m").format(m=metres)


def _bigger(by: float) -> Callable[[Lettered], Thing]:
    return lambda text: text.sized(text.size * by)


def _from_distance(size: float) -> Callable[[Lettered], Thing]:
    return lambda text: text.sized(size / text.placement.scale)


TEXT_ACTIONS: tuple[Action, ...] = (
    _action("larger type", lambda: _("larger type"), "a-arrow-up", 51, _bigger(STEP)),
    _action("smaller type", lambda: _("smaller type"), "a-arrow-down", 52, _bigger(1 / STEP)),
    _toggle("bold", lambda: _("bold"), "bold", 53),
    _action("centred", lambda: _("lines centred"), "text-align-center", 54, lambda t: t.arranged(align="centre")),
    _toggle("italic", lambda: _("italic"), "italic", 74),
    _toggle("underline", lambda: _("underlined"), "underline", 74),
    *(_action(f"reads {m}", _reads(m), "ruler", 75, _from_distance(size)) for m, size in DISTANCES.items()),
    _action("left", lambda: _("lines to the left"), "text-align-start", 76, lambda t: t.arranged(align="")),
    _action("right", lambda: _("lines to the right"), "text-align-end", 76, lambda t: t.arranged(align="right")),
    _action("dots", lambda: _("list with dots"), "list", 77, lambda t: t.arranged(list="dots")),
    _action("numbers", lambda: _("list with numbers"), "list-ordered", 77, lambda t: t.arranged(list="numbers")),
    _action("no list", lambda: _("no list"), "text-align-justify", 77, lambda t: t.arranged(list="")),
)
register(TEXT_ACTIONS, Lettered, at=20)
