"""Circles, arcs, sectors and segments of circles; ellipses."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Sequence
from typing import Any, ClassVar

from larch.core.base.shape import FARTHEST, Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.figures.figure import Figure
from larch.core.figures.on_axes import coordinate_facts
from larch.core.figures.reshape import reshaped
from larch.core.figures.steps import ref_name
from larch.core.maths.plane.forms import Circle as CircleForm
from larch.core.maths.plane.forms import box_round, direction, outline
from larch.core.maths.plane.near import distance, within
from larch.core.model.action import wished
from larch.core.model.capabilities import Constructible
from larch.core.model.fact import Fact, read_number
from larch.core.model.page import Page
from larch.core.model.scale import angle_fact, area_fact, length_fact, read_area, read_length
from larch.core.model.thing import Handle, ShelfItem, Thing

ABOUT = ("circle", "circle with radius", "arc", "sector", "cap")  # rules whose first point is the centre
FORMS = ("circle", "arc", "sector", "cap")
LINE = 3.5


def form_word(form: str) -> str:
    words = {"circle": _("circle"), "arc": _("arc"), "sector": _("sector"), "cap": _("segment of a circle")}
    return words.get(form, form)


class Circle(Constructible, Figure, frozen=True, kw_only=True, tag="circle"):
    """Its centre is its placement. piece: one of FORMS; a part begins at `start` and runs over `span`, degrees.

    Raises ValueError unless it has a radius."""

    radius: float = 96.0
    piece: str = "circle"
    start: float = 0.0
    span: float = 360.0
    hue: str = "lake"

    icon: ClassVar[str] = "circle"
    order: ClassVar[int] = 29
    help: ClassVar[str] = N_("Drag the ring on its rim, or type a radius, a circumference or an area.")

    def __post_init__(self) -> None:
        if self.piece not in FORMS:
            raise ValueError("a part of a circle is an arc, a sector or a cap")
        if not (0 < self.radius <= FARTHEST and 0 < self.span <= 360 and abs(self.start) <= 1e6):
            raise ValueError("a circle must have a radius")

    @classmethod
    def title(cls) -> str:
        return _("circle")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("round radius diameter circumference pie slice fraction share")
        yield ShelfItem("circle", _("circle"), N_("Shapes"), cls, words)
        yield ShelfItem("arc", _("arc"), N_("Shapes"), lambda: cls(piece="arc", start=20, span=110), words)
        yield ShelfItem(
            "sector", _("sector"), N_("Shapes"), lambda: cls(piece="sector", start=0, span=60, hue="straw"), words
        )
        yield ShelfItem(
            "cap", form_word("cap"), N_("Shapes"), lambda: cls(piece="cap", start=30, span=120, hue="straw"), words
        )

    def label(self, page: Page) -> str:
        if self.name:
            return self.name
        word = form_word(self.piece).capitalize()
        centre = ref_name(page, self.of[0]) if self.rule in ABOUT and self.of else ""
        return _("{shape} about {centre}").format(shape=word, centre=centre) if centre else word

    def form(self) -> CircleForm:
        place = self.placement
        start = self.start + place.turn
        return CircleForm((place.x, place.y), self.radius * place.scale, self.piece, start, self.span)

    def local(self) -> CircleForm:
        return CircleForm((0.0, 0.0), self.radius, self.piece, self.start, self.span)

    def formed(self, form: Any) -> Figure:
        changed: Figure = self.replace(
            radius=form.radius, piece=form.form, start=form.start, span=form.span, placement=Placement(*form.centre)
        )
        return changed

    def extent(self) -> Box:
        return box_round(self.local())

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield outline(self.local(), 3.0), False

    def touches(self, x: float, y: float, slack: float) -> bool:
        if self.piece != "arc" and not self.rule and within(self.local(), (x, y)):
            return True
        return distance(self.local(), (x, y)) <= slack + LINE

    def facts(self, page: Page) -> Iterator[Fact]:
        r, part = self.radius * self.placement.scale, self.piece
        yield length_fact(page, "radius", r, _("radius"), "radius", self._sized(page, lambda v: v))
        if part == "circle":
            yield length_fact(page, "diameter", 2 * r, _("diameter"), "diameter", self._sized(page, lambda v: v / 2))
            around = self._sized(page, lambda v: v / (2 * math.pi))
            yield length_fact(page, "circumference", 2 * math.pi * r, _("circumference"), "circumference", around, pi=True)
            yield area_fact(page, "area", math.pi * r * r, _("area"), "area", self._area_setter(page), pi=True)
        else:
            yield from self._part_facts(page, r)
        if part in ("circle", "sector") and self.part is None:
            yield Fact(
                "share into",
                "",
                text="",
                label=_("share into"),
                hint=_("such as 3"),
                set=lambda typed: wished("share", page, self, typed),
            )
        yield from coordinate_facts(page, self.form(), [""])
        yield from self.rule_facts(page)

    def _part_facts(self, page: Page, r: float) -> Iterator[Fact]:
        turn = math.radians(self.span)
        free = None if self.rule else self._opened
        yield angle_fact(page, "angle", self.span, _("angle at the centre"), "angle", free)
        yield length_fact(page, "arc length", r * turn, _("arc length"), "arc length", pi=True)
        chord = 2 * r * abs(math.sin(turn / 2))
        yield length_fact(page, "chord", chord, _("chord"), "chord")
        if self.piece == "sector":
            yield length_fact(page, "perimeter", r * turn + 2 * r, _("perimeter"), "perimeter")
            yield area_fact(page, "area", r * r * turn / 2, _("area"), "area", pi=True)
        elif self.piece == "cap":
            yield length_fact(page, "height", r * (1 - math.cos(turn / 2)), _("height"), "height")
            yield length_fact(page, "perimeter", r * turn + chord, _("perimeter"), "perimeter")
            yield area_fact(page, "area", r * r * (turn - math.sin(turn)) / 2, _("area"), "area")
        if self.part is not None and self.part.n:
            yield Fact("share", f"{self.part.k}/{self.part.n}", text=f"1/{self.part.n}", label=_("share"), badge="share")

    def _opened(self, typed: str) -> Thing:
        span = read_number(typed)
        if not 0 < span <= 360:
            raise ValueError(_("The angle of a part of a circle lies between 0° and 360°."))
        changed: Thing = self.replace(span=span)
        return changed

    def _sized(self, page: Page, radius_of: Callable[[float], float]) -> Callable[[str], Any] | None:
        if self.rule == "circle with radius":
            return lambda typed: self.replace(values=(self._positive(radius_of(read_length(typed, page))),))
        if self.why:
            return None
        return lambda typed: self._with_radius(page, radius_of(read_length(typed, page)))

    def _area_setter(self, page: Page) -> Callable[[str], Any] | None:
        if self.rule == "circle with radius":
            return lambda typed: self.replace(values=(math.sqrt(read_area(typed, page) / math.pi),))
        return lambda typed: self._with_radius(page, math.sqrt(read_area(typed, page) / math.pi))

    def _with_radius(self, page: Page, radius: float) -> Any:
        return reshaped(page, self, self.form()._replace(radius=self._positive(radius)))

    @staticmethod
    def _positive(radius: float) -> float:
        if not 0 < radius <= 1e6:
            raise ValueError(_("A radius must be more than nothing."))
        return radius

    def handles(self) -> tuple[Handle, ...]:
        if self.rule and self.rule != "circle with radius":
            return ()
        form = self.local()
        if self.piece == "circle":
            return (Handle("rim", *form.at(0), _("rim")),)
        return (Handle("start", *form.at(self.start), _("end")), Handle("end", *form.at(self.start + self.span), _("end")))

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        radius = math.hypot(x, y)
        if radius < 1e-3:
            return self
        changes: dict[str, Any] = {"radius": min(radius, 1e6)}
        if self.rule:
            changes = {"values": (changes["radius"] * self.placement.scale,)}
        angle = direction((0.0, 0.0), (x, y))
        if name == "start":
            end = self.start + self.span
            changes |= {"start": angle, "span": (end - angle) % 360 or 360.0}
        elif name == "end":
            changes["span"] = (angle - self.start) % 360 or 360.0
        changed: Thing = self.replace(**changes)
        return changed
