"""What can be done with anything: duplicate, delete, group, lock, order in depth, supply, wipe, set out."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence

from larch.core.actions.arrange.holds import allowed
from larch.core.base.hues import HUES
from larch.core.base.shape import union
from larch.core.base.words import N_, _, many
from larch.core.figures.figure import Figure, split_ref
from larch.core.figures.settle import carried, free_of, settle, without
from larch.core.model.action import Action, Fold, Things, ids_of, put, register, toggle
from larch.core.model.capabilities import Counts, Covers, IsInk
from larch.core.model.edit import Edit
from larch.core.model.holders import with_held
from larch.core.model.page import Arrangement, Page, with_groups
from larch.core.model.thing import Thing

DUPLICATE_SHIFT = 24.0


def copies(page: Page, things: Things, dx: float, dy: float, here: bool = True) -> list[Thing]:
    """Shifted copies. Groups get new names; what refers to another thing refers to the copy of that if it is copied too.

    here: of things of the same page, so that they know what they are copies of.
    """
    renamed = dict(zip(ids_of(things), page.put_ids(len(things)), strict=True))
    made = []
    for thing in things:
        groups = tuple(f"{group}+{page.next}" for group in thing.groups)
        copy = thing.moved(dx, dy).replace(groups=groups, locked=False, copy_of=thing.id if here else "", limit=0)
        for field in thing.refers:  # to the copy of what it refers to; on another page to nothing that only has the same id
            there = renamed.get(getattr(thing, field), getattr(thing, field) if here else "")
            copy = copy.replace(**{field: there})
        made.append(_follows_copies(copy, renamed, dx, dy) if isinstance(copy, Figure) else copy)
    return made


def _follows_copies(copy: Figure, renamed: Mapping[str, str], dx: float, dy: float) -> Thing:
    """The copy of what follows from others follows from their copies, or is free if those are not copied."""
    letters = {"letters": ""} if getattr(copy, "letters", "").strip() else {}
    fresh: Figure = copy.replace(name="" if copy.kind() == "point" else copy.name, **letters)
    if not copy.rule:
        return fresh
    refs = [split_ref(ref) for ref in copy.of]
    if all(id in renamed for id, _sign, _k in refs):
        of = tuple(renamed[id] + (f"{sign}{k}" if sign else "") for id, sign, k in refs)
        follower: Thing = fresh.replace(of=of)
        return follower
    free: Thing = _loose(fresh).moved(dx, dy)
    return free


def taken_along(things: Things) -> list[Thing]:
    """Things as they go to another page: what follows from things that stay behind is free there."""
    ids = set(ids_of(things))
    return [_loose(t) if isinstance(t, Figure) and not ids.issuperset(split_ref(r)[0] for r in t.of) else t for t in things]


def _loose(figure: Figure) -> Thing:
    free: Thing = figure.replace(rule="", of=(), values=(), why="")
    return free


def laid_out(things: Sequence[Thing]) -> Page:
    """Things that refer to each other as t1, t2 … on a page of their own, with what follows worked out."""
    return settle(Page(id="").put(*things))


def brought(page: Page, things: Things, dx: float, dy: float) -> list[Thing]:
    """Copies for a page of things that come from another one."""
    there = settle(Page(id="", unit=page.unit, scale=page.scale, things=tuple(things)))
    return copies(page, there.things, dx, dy, here=False)


def duplicate(page: Page, things: Things) -> Edit:
    """A copy a little aside, or, of copies that were moved, one as far on again."""
    dx, dy = _step(page, things)
    seen, box = page.printed(), union(thing.box() for thing in things)
    if seen.covers(box) and not seen.covers(box.moved(dx, dy)):
        dx, dy = DUPLICATE_SHIFT, DUPLICATE_SHIFT  # as far on again would be off the page
        if not seen.covers(box.moved(dx, dy)):
            dx, dy = (-DUPLICATE_SHIFT if box.x1 + dx > seen.x1 else dx), (-DUPLICATE_SHIFT if box.y1 + dy > seen.y1 else dy)
    made = [copy.replace(supply=False) for copy in copies(page, things, dx, dy)]
    return put(page, made, _("Duplicate"))


def _step(page: Page, things: Things) -> tuple[float, float]:
    """The way that all the things have been moved from what they are copies of, if it is the same for all."""
    ways = set()
    for thing in things:
        source = page.thing(thing.copy_of)
        if source is None or type(source) is not type(thing) or source.supply:  # from a supply it may have come far
            return (DUPLICATE_SHIFT, DUPLICATE_SHIFT)
        ways.add((round(thing.placement.x - source.placement.x, 6), round(thing.placement.y - source.placement.y, 6)))
    way = ways.pop() if len(ways) == 1 else (0.0, 0.0)
    return way if any(way) else (DUPLICATE_SHIFT, DUPLICATE_SHIFT)


def risen(page: Page, ids: Iterable[str]) -> Page:
    """Things that were dropped lie above what they were dropped on: anything as large or larger that their middle is in.
    What covers an answer stays above it."""
    chosen = set(ids)
    order = list(page.things)
    moving = [(k, thing, thing.box()) for k, thing in enumerate(order) if thing.id in chosen]
    if not moving:
        return page
    top = -1
    for k, other in enumerate(order):
        if other.id in chosen or other.hidden or isinstance(other, Covers | IsInk) or k < moving[0][0]:
            continue
        theirs = other.box()
        for at, _thing, mine in moving:
            if at < k and theirs.holds(*mine.centre) and theirs.width * theirs.height >= mine.width * mine.height:
                top = k
                break
    if top < 0:
        return page
    rising = [thing for at, thing, _box in moving if at < top]
    gone = {thing.id for thing in rising}
    fresh = [thing for thing in order[: top + 1] if thing.id not in gone]
    return page.replace(things=(*fresh, *rising, *order[top + 1 :]))


def taken_from(page: Page, supply: Thing) -> int:
    """How many on the page were taken from a supply."""
    return sum(thing.copy_of == supply.id and not thing.supply for thing in page.things)


def exhausted(page: Page, supply: Thing) -> bool:
    """Whether a supply with a limit has given all it has."""
    return 0 < supply.limit <= taken_from(page, supply)


def same_kind(page: Page, things: Things) -> list[str]:
    """The ids of all that is of the kinds of some things, and can be moved."""
    kinds = {thing.kind() for thing in things}
    return [thing.id for thing in page.things if thing.kind() in kinds and not thing.locked and not thing.hidden]


def delete(page: Page, things: Things) -> Edit:
    """Takes things off the page, and what hangs on them. Locked ones stay."""
    going = [thing.id for thing in things if not thing.locked]
    return Edit(_("Delete"), page, without(page, going), select=())


def _movable(page: Page, things: Things) -> list[str]:
    """Those that are not locked, or what they hang on."""
    free = free_of(page, [thing.id for thing in things if not thing.locked])
    return [thing.id for thing in page.some(free) if not thing.locked]


def group(page: Page, things: Things) -> Edit:
    """Makes things act as one; groups may hold groups."""
    ids = with_groups(page, ids_of(things))
    name = f"g{page.next}"
    grouped = page.changing(ids, lambda thing: thing.replace(groups=(name, *thing.groups)))
    return Edit(_("Group"), page, grouped.replace(next=page.next + 1), select=ids)


def ungroup(page: Page, things: Things) -> Edit:
    ids = with_groups(page, ids_of(things))
    freed = page.changing(ids, lambda thing: thing.replace(groups=thing.groups[1:]))
    return Edit(_("Ungroup"), page, freed, select=ids)


def lock(page: Page, things: Things) -> Edit:
    return toggle(page, things, "locked", _("Lock"), _("Unlock"))


def supply(page: Page, things: Things) -> Edit:
    return toggle(page, things, "supply", _("Make a supply"), _("No longer a supply"))


def to_front(page: Page, things: Things) -> Edit:
    chosen = page.some(ids_of(things))
    return Edit(_("Bring to front"), page, page.without(ids_of(chosen)).replace(things=_rest(page, chosen) + chosen))


def to_back(page: Page, things: Things) -> Edit:
    chosen = page.some(ids_of(things))
    return Edit(_("Send to back"), page, page.replace(things=chosen + _rest(page, chosen)))


def _rest(page: Page, chosen: Sequence[Thing]) -> tuple[Thing, ...]:
    ids = {thing.id for thing in chosen}
    return tuple(thing for thing in page.things if thing.id not in ids)


def quarter_turn(page: Page, things: Things) -> Edit:
    """Turned by 90° counter-clockwise about their common centre."""
    centre = union(thing.box() for thing in things).centre
    turned = page.changing(_movable(page, things), lambda thing: thing.turned(90, centre))
    return Edit(_("Turn a quarter"), page, turned)


def recolour(page: Page, things: Things, hue: str) -> Edit:
    changed = page.changing(ids_of(things), lambda thing: thing.replace(hue=hue))
    return Edit(_("Colour"), page, changed)


def nudge(page: Page, things: Things, dx: float, dy: float) -> Edit:
    """Moved by arrow keys; quick repeats are one step of undo."""
    movable = with_held(page, [thing.id for thing in things if not thing.locked])
    ways: dict[tuple[float, float], list[str]] = {}
    for thing in page.some(movable):
        ways.setdefault(allowed(thing, dx, dy), []).append(thing.id)
    moved = page
    for way, ids in ways.items():
        if any(way):
            moved = moved.with_things(carried(moved, ids, *way))
    return Edit(_("Move"), page, moved, merge="nudge " + " ".join(movable))


def shown_on(thing: Thing) -> tuple[str, ...]:
    """The names of the facts shown on a thing, each by itself."""
    listed: Callable[[], tuple[str, ...]] | None = getattr(thing, "all_shown", None)
    return thing.shown if listed is None else listed()


def show_fact(page: Page, thing: Thing, name: str) -> Edit:
    """Shows a fact beside the thing, or hides it again."""
    now = shown_on(thing)
    shown = tuple(n for n in now if n != name) if name in now else (*now, name)
    return Edit(_("Show or hide a measure"), page, page.with_things({thing.id: thing.replace(shown=shown)}))


def set_out(page: Page, name: str = "") -> Edit:
    """Remembers how the page is set out: everything on it but ink."""
    things = tuple(thing for thing in page.things if not isinstance(thing, IsInk))
    name = name.strip()[:60]
    others = tuple(kept for kept in page.setouts if kept.name != name)
    return Edit(_("Set out"), page, page.replace(setouts=(*others, Arrangement(name, things))))


def set_out_again(page: Page, name: str = "") -> Edit:
    """Returns to a remembered arrangement. Ink stays; wiping is an action of its own."""
    kept = next((kept for kept in page.setouts if kept.name == name), None)
    if kept is None:
        return Edit(_("Set out again"), page, page)
    ink = tuple(thing for thing in page.things if isinstance(thing, IsInk))
    return Edit(_("Set out again"), page, page.replace(things=kept.things + ink), select=())


def total(things: Things) -> float | None:
    """What the selection counts for together, or None unless at least two of it count."""
    worths = [worth for thing in things if isinstance(thing, Counts) and (worth := thing.worth()) is not None]
    return round(sum(worths), 9) if len(worths) > 1 else None


def recolouring(hue: str) -> Callable[[Page, Things], Edit]:
    return lambda page, things: recolour(page, things, hue)


def _colour_label(hue: str) -> Callable[[Page, Things], str]:
    return lambda page, things: _("colour: {hue}").format(hue=_(hue))


def _label(text: Callable[[], str]) -> Callable[[Page, Things], str]:
    return lambda page, things: text()


def _grouped(page: Page, things: Things) -> bool:
    return any(thing.groups for thing in things)


def _can_group(page: Page, things: Things) -> bool:
    tops = {thing.groups[0] if thing.groups else thing.id for thing in things}
    return len(tops) > 1


def _hide(page: Page, things: Things) -> Edit:
    return Edit(_("Hide"), page, page.changing(ids_of(things), lambda thing: thing.replace(hidden=True)), select=())


def forward(page: Page, things: Things, by: int) -> Edit:
    """One step up or down among the things that overlap it, the others keeping their order."""
    chosen = set(ids_of(things))
    order = list(page.things)
    boxes = {thing.id: thing.box() for thing in order}
    area = union(boxes[id] for id in chosen)
    meeting = [k for k, thing in enumerate(order) if thing.id not in chosen and boxes[thing.id].meets(area)]
    own = [k for k, thing in enumerate(order) if thing.id in chosen]
    if by > 0:
        target = next((k for k in meeting if k > max(own)), len(order) - 1)
    else:
        target = next((k for k in reversed(meeting) if k < min(own)), 0)
    moving = [order[k] for k in own]
    rest = [thing for thing in order if thing.id not in chosen]
    pivot = order[target]
    at = rest.index(pivot) + (1 if by > 0 else 0) if pivot in rest else (len(rest) if by > 0 else 0)
    fresh = (*rest[:at], *moving, *rest[at:])
    return Edit(_("Further up") if by > 0 else _("Further down"), page, page.replace(things=fresh))


def to_depth(page: Page, id: str, at: int) -> Edit:
    """A thing taken to a depth, 0 for the lowest."""
    thing = page.thing(id)
    if thing is None:
        return Edit(_("Order"), page, page)
    rest = tuple(other for other in page.things if other.id != id)
    return Edit(_("Order"), page, page.replace(things=(*rest[:at], thing, *rest[at:])))


ORDER = Fold("order", N_("order"), "layers")
SIZE = Fold("size", N_("size and turn"), "scaling")
COLOUR = Fold("colour", N_("colour"), "palette")
ARRANGING: tuple[Action, ...] = (
    Action("supply", lambda p, ts: _("no longer a supply") if all(t.supply for t in ts) else _("supply"),
           "sheets", supply, rank=60, words=N_("endless copies source")),
    Action("duplicate", _label(lambda: _("duplicate")), "copy", duplicate, shortcut="Ctrl+D", rank=61,
           words=N_("copy again")),
    Action("lock", lambda p, ts: _("unlock") if all(t.locked for t in ts) else _("lock"), "lock", lock,
           shortcut="Ctrl+L", rank=62, words=N_("fix pin")),
    Action("delete", lambda p, ts: many("delete", "delete {n}", len(ts)), "trash-2", delete,
           lambda p, ts: any(not t.locked for t in ts), shortcut="Del", rank=63, words=N_("remove bin")),
    Action("group", _label(lambda: _("group")), "group", group, _can_group, shortcut="Ctrl+G", rank=64),
    Action("ungroup", _label(lambda: _("ungroup")), "ungroup", ungroup, _grouped, shortcut="Ctrl+Shift+G", rank=65),
    Action("to front", _label(lambda: _("to the front")), "bring-to-front", to_front, shortcut="Ctrl+Shift+Up",
           rank=70, fold=ORDER, words=N_("above top layer")),
    Action("to back", _label(lambda: _("to the back")), "send-to-back", to_back, shortcut="Ctrl+Shift+Down", rank=71,
           fold=ORDER, words=N_("below under layer")),
    Action("up one", _label(lambda: _("one further up")), "arrow-up", lambda p, ts: forward(p, ts, 1),
           shortcut="Ctrl+Up", rank=70, fold=ORDER, words=N_("forward layer above")),
    Action("down one", _label(lambda: _("one further down")), "arrow-down", lambda p, ts: forward(p, ts, -1),
           shortcut="Ctrl+Down", rank=71, fold=ORDER, words=N_("backward layer below")),
    Action("hide", _label(lambda: _("hide")), "eye-off", _hide, rank=76, words=N_("invisible layer conceal")),
    Action("quarter turn", _label(lambda: _("turn a quarter")), "rotate-cw", quarter_turn,
           lambda p, ts: any(t.turnable and not t.locked for t in ts), rank=72, fold=SIZE, words=N_("rotate 90")),
    *(Action(f"colour {hue}", _colour_label(hue), f"hue {hue}",
             recolouring(hue), rank=80, fold=COLOUR, words=N_("color paint")) for hue in HUES),
)  # fmt: skip
register(ARRANGING, at=30)
