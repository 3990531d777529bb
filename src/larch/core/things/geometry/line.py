"""Segments, rays, lines and vectors; lines of several pieces."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import Any, ClassVar

from larch.core.base.shape import FARTHEST, Box, Placement, Point, box_of
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure
from larch.core.figures.on_axes import coordinate_facts
from larch.core.figures.reshape import reshaped
from larch.core.maths.plane.forms import Line as LineForm
from larch.core.maths.plane.forms import direction
from larch.core.maths.plane.near import distance
from larch.core.model.action import Action, Things, only, toggle
from larch.core.model.capabilities import Constructible
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.scale import angle_fact, length_fact, read_length
from larch.core.model.thing import Handle, ShelfItem, Thing

FORMS = ("segment", "ray", "line", "vector")
WIDTH = 3.5


def form_word(form: str) -> str:
    return {"segment": _("segment"), "ray": _("ray"), "line": _("line"), "vector": _("vector")}.get(form, form)


class Line(Constructible, Figure, frozen=True, kw_only=True, tag="line"):
    """ends: two points in its own coordinates; form: one of FORMS. dashed: drawn as a help line."""

    ends: tuple[Point, Point] = ((0.0, 0.0), (256.0, 0.0))
    reach: str = "segment"
    dashed: bool = False
    hue: str = "lake"

    icon: ClassVar[str] = "slash"
    order: ClassVar[int] = 28
    help: ClassVar[str] = N_("Drag an end. A line that follows from points moves with them.")

    def __post_init__(self) -> None:
        if self.reach not in FORMS:
            raise ValueError("a line is a segment, a ray, a line or a vector")
        if not all(abs(v) <= FARTHEST for end in self.ends for v in end):
            raise ValueError("an end must lie on the page")

    @classmethod
    def title(cls) -> str:
        return _("line")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        for form in FORMS:
            words = _("straight length points geometry arrow")
            yield ShelfItem(f"straight {form}", form_word(form), N_("Shapes"), _maker(cls, form), words)

    def label(self, page: Page) -> str:
        names = end_names(page, self)
        word = form_word(self.reach).capitalize()
        return self.name or (f"{word} {''.join(names)}" if names else word)

    def form(self) -> LineForm:
        a, b = (self.placement.to_page(*end) for end in self.ends)
        return LineForm(a, b, self.reach)

    def formed(self, form: Any) -> Figure:
        changed: Figure = self.replace(ends=(form.a, form.b), reach=form.form, placement=Placement())
        return changed

    def extent(self) -> Box:
        return box_of(self.ends)

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.ends, False

    def touches(self, x: float, y: float, slack: float) -> bool:
        return distance(LineForm(*self.ends, self.reach), (x, y)) <= slack + WIDTH

    def facts(self, page: Page) -> Iterator[Fact]:
        form = self.form()
        names = end_names(page, self)
        ends = "".join(names) or "length"
        if self.reach in ("segment", "vector"):
            setter = self._length_setter(page, 1) if not self.why else None
            label = ends if names else _("length")
            yield length_fact(page, ends, math.dist(form.a, form.b), label, ends, setter)
        if form.a != form.b:
            lean = direction(form.a, form.b)
            yield angle_fact(page, "lean", lean if self.reach in ("ray", "vector") else lean % 180, _("from level"), "lean")
        yield from coordinate_facts(page, form, names)
        yield from self.rule_facts(page)

    def _length_setter(self, page: Page, end: int) -> Callable[[str], Any]:
        def set_length(typed: str) -> Any:
            wanted = read_length(typed, page)
            form = self.form()
            now = math.dist(form.a, form.b)
            if wanted <= 0:
                raise ValueError(_("A length must be more than nothing."))
            if now == 0:
                raise ValueError(_("The two ends lie on one spot; drag them apart first."))
            k = wanted / now
            to = (form.a[0] + form.way[0] * k, form.a[1] + form.way[1] * k)
            return reshaped(page, self, form._replace(b=to))

        return set_length

    def handles(self) -> tuple[Handle, ...]:
        if self.rule:
            return ()
        return tuple(Handle(str(i), x, y, _("end"), held=True) for i, (x, y) in enumerate(self.ends))

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        if self.rule:
            return self
        ends = list(self.ends)
        ends[int(name)] = (x, y)
        changed: Thing = self.replace(ends=tuple(ends))
        return changed

    def actions(self) -> tuple[Action, ...]:
        return LINE_ACTIONS


def _maker(kind: type[Line], form: str) -> Callable[[], Thing]:
    return lambda: kind(reach=form)


def end_names(page: Page, line: Figure) -> list[str]:
    """The letters of the points that a line was drawn between, if both have one."""
    from larch.core.figures.steps import ref_name

    if len(line.of) < 2 or line.rule not in FORMS:
        return []
    names = [ref_name(page, ref) for ref in line.of[:2]]
    return names if all(names) else []


def _dash(page: Page, things: Things) -> Edit:
    return toggle(page, things, "dashed", _("Dashed"), _("Solid"))


LINE_ACTIONS = (
    Action("dashed", lambda p, ts: _("solid line") if all(getattr(t, "dashed", False) for t in ts) else _("dashed line"),
           "ellipsis", _dash, only(Line), rank=54, words=N_("help line construction style")),
)  # fmt: skip
