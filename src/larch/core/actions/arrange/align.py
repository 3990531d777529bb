"""Things lined up, spread evenly, made equal, stacked, and copied into rows, grids and circles. Groups act as one."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence

from larch.core.base.shape import Box, Point, union
from larch.core.base.words import N_, _
from larch.core.figures.settle import carried
from larch.core.model.action import Action, Fold, Things, named, register
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing

Unit = tuple[Thing, ...]
GAP = 16.0
MOST_COPIES = 400


def units(things: Things) -> list[Unit]:
    """What is arranged as one: things of the same group together, in depth order."""
    found: dict[str, list[Thing]] = {}
    for thing in things:
        found.setdefault(thing.groups[0] if thing.groups else f"alone {thing.id}", []).append(thing)
    return [tuple(unit) for unit in found.values()]


def box_of(unit: Sequence[Thing]) -> Box:
    return union(thing.box() for thing in unit)


def _free(things: Things) -> list[Unit]:
    return [unit for unit in units(things) if not any(thing.locked for thing in unit)]


def _moved(page: Page, label: str, shifts: Sequence[tuple[Unit, float, float]]) -> Edit:
    """Each unit shifted by its own way, with what follows from it."""
    after = page
    for unit, dx, dy in shifts:
        if dx or dy:
            after = after.with_things(carried(after, [thing.id for thing in unit], dx, dy))
    return Edit(label, page, after)


EDGES: dict[str, Callable[[Box], float]] = {
    "left": lambda b: b.x0, "centre": lambda b: b.centre[0], "right": lambda b: b.x1,
    "top": lambda b: b.y0, "middle": lambda b: b.centre[1], "bottom": lambda b: b.y1,
}  # fmt: skip


def line_up(page: Page, things: Things, edge: str) -> Edit:
    """Lines things up with the one that is locked among them, or else with the outermost edge or common middle."""
    chosen = units(things)
    anchor = next((unit for unit in chosen if any(thing.locked for thing in unit)), None)
    of = EDGES[edge]
    target = of(box_of(anchor) if anchor is not None else union(box_of(unit) for unit in chosen))
    across = edge in ("left", "centre", "right")
    shifts = []
    for unit in _free(things):
        by = target - of(box_of(unit))
        shifts.append((unit, by, 0.0) if across else (unit, 0.0, by))
    return _moved(page, _("Line up"), shifts)


def distribute(page: Page, things: Things, across: bool) -> Edit:
    """Equal gaps between things, the outermost staying where they are."""
    chosen = sorted(_free(things), key=lambda unit: box_of(unit).centre[0 if across else 1])
    if len(chosen) < 3:
        return Edit(_("Spread evenly"), page, page)
    boxes = [box_of(unit) for unit in chosen]
    sizes = [box.width if across else box.height for box in boxes]
    start = boxes[0].x0 if across else boxes[0].y0
    end = boxes[-1].x1 if across else boxes[-1].y1
    gap = (end - start - math.fsum(sizes)) / (len(chosen) - 1)
    shifts, at = [], start
    for unit, box, size in zip(chosen, boxes, sizes, strict=True):
        by = at - (box.x0 if across else box.y0)
        shifts.append((unit, by, 0.0) if across else (unit, 0.0, by))
        at += size + gap
    return _moved(page, _("Spread evenly"), shifts)


def stack(page: Page, things: Things) -> Edit:
    """All with their middles on the spot of the lowest."""
    chosen = _free(things)
    target = box_of(units(things)[0]).centre
    shifts = [(unit, target[0] - box_of(unit).centre[0], target[1] - box_of(unit).centre[1]) for unit in chosen]
    return _moved(page, _("Stack on one spot"), shifts)


def same_size(page: Page, things: Things) -> Edit:
    """As large as the first that was put out, by the longer side; each about its own middle."""
    first = things[0].box()
    wanted = max(first.width, first.height)
    changed = {}
    for thing in things[1:]:
        box = thing.box()
        now = max(box.width, box.height)
        if now > 0 and thing.resizable and not thing.locked:
            changed[thing.id] = thing.enlarged(wanted / now, box.centre)
    return Edit(_("Same size"), page, page.with_things(changed))


def into_row(page: Page, things: Things, across: bool = True) -> Edit:
    """Side by side with equal gaps, middles level, in the order in which they lie."""
    chosen = sorted(_free(things), key=lambda unit: box_of(unit).centre[0 if across else 1])
    boxes = [box_of(unit) for unit in chosen]
    whole = union(boxes)
    sizes = [box.width if across else box.height for box in boxes]
    room = math.fsum(sizes) + GAP * (len(boxes) - 1)
    at = (whole.centre[0] if across else whole.centre[1]) - room / 2
    shifts = []
    for unit, box, size in zip(chosen, boxes, sizes, strict=True):
        if across:
            shifts.append((unit, at - box.x0, whole.centre[1] - box.centre[1]))
        else:
            shifts.append((unit, whole.centre[0] - box.centre[0], at - box.y0))
        at += size + GAP
    return _moved(page, _("In a row") if across else _("In a column"), shifts)


def into_grid(page: Page, things: Things) -> Edit:
    """In rows and columns, as square as can be, in reading order."""
    chosen = _reading_order(_free(things))
    boxes = [box_of(unit) for unit in chosen]
    columns = math.ceil(math.sqrt(len(chosen)))
    wide = max(box.width for box in boxes) + GAP
    high = max(box.height for box in boxes) + GAP
    rows = math.ceil(len(chosen) / columns)
    centre = union(boxes).centre
    shifts = []
    for k, (unit, box) in enumerate(zip(chosen, boxes, strict=True)):
        x = centre[0] + (k % columns - (columns - 1) / 2) * wide
        y = centre[1] + (k // columns - (rows - 1) / 2) * high
        shifts.append((unit, x - box.centre[0], y - box.centre[1]))
    return _moved(page, _("In a grid"), shifts)


def into_circle(page: Page, things: Things) -> Edit:
    """Middles evenly on a circle, wide enough that neighbours do not touch, the first at the top, then clockwise."""
    chosen = _reading_order(_free(things))
    boxes = [box_of(unit) for unit in chosen]
    centre = union(boxes).centre
    radius = circle_radius(len(chosen), max(math.hypot(box.width, box.height) for box in boxes))
    shifts = []
    for k, (unit, box) in enumerate(zip(chosen, boxes, strict=True)):
        x, y = on_circle(centre, radius, k, len(chosen))
        shifts.append((unit, x - box.centre[0], y - box.centre[1]))
    return _moved(page, _("In a circle"), shifts)


def circle_radius(count: int, widest: float) -> float:
    return max(widest * 0.75, widest / (2 * math.sin(math.pi / max(2, count))))


def on_circle(centre: Point, radius: float, k: int, count: int) -> Point:
    turn = 2 * math.pi * k / count
    return (centre[0] + radius * math.sin(turn), centre[1] - radius * math.cos(turn))


def _reading_order(chosen: list[Unit]) -> list[Unit]:
    """Row by row: what begins above the middle of another in the row belongs to it."""
    left = sorted(chosen, key=lambda unit: box_of(unit).y0)
    ordered: list[Unit] = []
    while left:
        line = box_of(left[0]).centre[1]
        row = [unit for unit in left if box_of(unit).y0 <= line]
        ordered += sorted(row, key=lambda unit: box_of(unit).x0)
        left = [unit for unit in left if unit not in row]
    return ordered


def copies_in(page: Page, things: Things, shape: str, count: int, columns: int = 0) -> Edit:
    """`count` of the selection in all, itself the first: in a row, a grid of so many columns, or a circle round it.

    Raises ValueError with one sentence.
    """
    from larch.core.actions.arrange.arrange import copies

    if not 2 <= count <= MOST_COPIES:
        raise ValueError(_("From 2 to {most} can be laid out.").format(most=MOST_COPIES))
    if count * len(things) > 4 * MOST_COPIES:
        raise ValueError(_("That would be too many things for one page."))
    box = box_of(things)
    ways: list[Point] = []
    if shape == "circle":
        radius = circle_radius(count, math.hypot(box.width, box.height))
        first = on_circle((0.0, 0.0), radius, 0, count)
        ways = [(x - first[0], y - first[1]) for x, y in (on_circle((0.0, 0.0), radius, k, count) for k in range(count))]
    else:
        across = count if shape == "row" else columns or math.ceil(math.sqrt(count))
        wide, high = box.width + GAP, box.height + GAP
        ways = [(k % across * wide, k // across * high) for k in range(count)]
    after, ids = page, [thing.id for thing in things]
    for dx, dy in ways[1:]:
        made = [copy.replace(supply=False) for copy in copies(after, things, dx, dy)]
        ids += after.put_ids(len(made))
        for copy in made:
            after = after.put(named(after, copy))
    return Edit(_("Copies"), page, after, select=tuple(ids))


def read_copies(typed: str) -> tuple[str, int, int]:
    """ "12" a row, "4 x 3" a grid of four columns and three rows, "8 round" a circle. Raises ValueError."""
    text = typed.strip().lower().replace("×", "x").replace("*", "x")
    parts = [part.strip() for part in text.split("x")]
    try:
        if len(parts) == 2:
            columns, rows = int(parts[0]), int(parts[1])
            if columns < 1 or rows < 1:
                raise ValueError
            return "grid", columns * rows, columns
        words = text.split()
        count = int(words[0])
    except (ValueError, IndexError):
        raise ValueError(_("Type how many: 6 for a row, 4 x 3 for a grid, 8 round for a circle.")) from None
    return ("circle" if len(words) > 1 else "row"), count, 0


def _several(least: int) -> Callable[[Page, Things], bool]:
    return lambda page, things: len(_free(things)) >= least or (len(units(things)) > 1 and least == 2)


def _edge(edge: str) -> Callable[[Page, Things], Edit]:
    return lambda page, things: line_up(page, things, edge)


LABELS: dict[str, tuple[Callable[[], str], str]] = {
    "left": (lambda: _("left edges"), "align-start-vertical"),
    "centre": (lambda: _("middles, upright"), "align-center-vertical"),
    "right": (lambda: _("right edges"), "align-end-vertical"),
    "top": (lambda: _("top edges"), "align-start-horizontal"),
    "middle": (lambda: _("middles, level"), "align-center-horizontal"),
    "bottom": (lambda: _("bottom edges"), "align-end-horizontal"),
}  # fmt: skip


def _edge_label(edge: str) -> Callable[[Page, Things], str]:
    return lambda page, things: _("line up {edges}").format(edges=LABELS[edge][0]())


ARRANGE = Fold("arrange", N_("arrange"), "layout-grid")
ALIGNING: tuple[Action, ...] = (
    Action("arrange row", lambda p, ts: _("in a row"), "align-horizontal-space-around", into_row, _several(2), rank=59,
           fold=ARRANGE, words=N_("beside side line")),
    Action("arrange column", lambda p, ts: _("in a column"), "align-vertical-space-around",
           lambda p, ts: into_row(p, ts, False),
           _several(2), rank=73, fold=ARRANGE, words=N_("below line")),
    Action("arrange grid", lambda p, ts: _("in a grid"), "layout-grid", into_grid, _several(3), rank=73, fold=ARRANGE,
           words=N_("array rows columns tidy")),
    Action("arrange circle", lambda p, ts: _("in a circle"), "loader", into_circle, _several(3), rank=73, fold=ARRANGE,
           words=N_("round ring")),
    Action("arrange spread across", lambda p, ts: _("equal gaps across"), "align-horizontal-distribute-center",
           lambda p, ts: distribute(p, ts, True), _several(3), rank=73, fold=ARRANGE, words=N_("distribute spacing")),
    Action("arrange spread down", lambda p, ts: _("equal gaps down"), "align-vertical-distribute-center",
           lambda p, ts: distribute(p, ts, False), _several(3), rank=73, fold=ARRANGE, words=N_("distribute spacing")),
    *(Action(f"arrange {edge}", _edge_label(edge), picture, _edge(edge), _several(2), rank=73, fold=ARRANGE,
           words=N_("align"))
      for edge, (_word, picture) in LABELS.items()),
    Action("arrange stack", lambda p, ts: _("stack on one spot"), "layers-2", stack, _several(2), rank=73, fold=ARRANGE,
           words=N_("pile heap")),
    Action("arrange same size", lambda p, ts: _("same size"), "scaling", same_size,
           lambda p, ts: len(ts) > 1 and any(t.resizable and not t.locked for t in ts[1:]), rank=73,
           fold=ARRANGE, words=N_("equal large")),
)  # fmt: skip
register(ALIGNING, at=10)
