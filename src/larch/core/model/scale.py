"""What lengths on a page stand for, and how numbers are written on it: unit, scale, places, exact values."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING, Any

from msgspec import Struct

from larch.core.base.words import _
from larch.core.model.fact import Fact, number_text, read_number

if TYPE_CHECKING:
    from larch.core.model.page import Page

UNITS = {"mm": 0.001, "cm": 0.01, "dm": 0.1, "m": 1.0, "km": 1000.0}
WRITTEN = re.compile(r"^\s*([\d.,/ ]+)\s*(squares?|[a-zµ]*)\s*[=:]\s*([\d.,/ ]+)\s*([a-z]*)\s*$", re.IGNORECASE)
MOST_PLACES = 6


class Scale(Struct, frozen=True, omit_defaults=True, forbid_unknown_fields=True, gc=False):
    """One centimetre drawn stands for `per` of `unit`. Numbers have at most `places` decimals; `exact`: roots,
    fractions and multiples of π are written as such. Raises ValueError on a scale that is none."""

    unit: str = "cm"
    per: float = 1.0
    places: int = 1
    exact: bool = False

    def __post_init__(self) -> None:
        if not 1e-9 <= self.per <= 1e9 or not 0 <= self.places <= MOST_PLACES or len(self.unit) > 12:
            raise ValueError("a scale must be a number of a unit")


def factor(page: Page) -> float:
    """Units of the page's scale to one page unit."""
    return page.scale.per / page.unit


def length_fact(
    page: Page, name: str, length: float, label: str = "", badge: str = "", set: Callable[[str], Any] | None = None,
    pi: bool = False, about: bool = False,
) -> Fact:  # fmt: skip
    """A length, given in page units. pi: if it is exact, then as a multiple of π; about: not known to all its digits."""
    return _scaled(page, name, length * factor(page), page.scale.unit, label, badge, set, pi, about)


def area_fact(
    page: Page, name: str, area: float, label: str = "", badge: str = "", set: Callable[[str], Any] | None = None,
    pi: bool = False, about: bool = False,
) -> Fact:  # fmt: skip
    """An area, given in square page units."""
    return _scaled(page, name, area * factor(page) ** 2, f"{page.scale.unit}²", label, badge, set, pi, about)


def _scaled(
    page: Page, name: str, value: float, unit: str, label: str, badge: str, set: Callable[[str], Any] | None,
    pi: bool, about: bool,
) -> Fact:  # fmt: skip
    from larch.core.maths.surd import recognised

    text = ""
    if page.scale.exact and not about:
        exact = recognised(value / math.pi if pi else value)
        text = (exact.times_pi() if pi else exact).text() if exact is not None else ""
    text = text or number_text(value, page.scale.places)
    sign = "≈ " if about else ""
    return Fact(name, value, unit, f"{sign}{text} {unit}".strip(), label or name, badge, set)


def angle_fact(
    page: Page, name: str, degrees: float, label: str = "", badge: str = "", set: Callable[[str], Any] | None = None
) -> Fact:
    return Fact(name, degrees, "°", f"{number_text(degrees, page.scale.places)}°", label or name, badge, set)


def plain_fact(
    page: Page, name: str, value: float, unit: str = "", label: str = "", badge: str = "",
    set: Callable[[str], Any] | None = None,
) -> Fact:  # fmt: skip
    """A bare number or an angle; where values are exact, as a fraction if it is a simple one."""
    from larch.core.maths.surd import recognised

    if unit == "°":
        return angle_fact(page, name, value, label, badge, set)
    text = number_text(value, max(2, page.scale.places))
    if page.scale.exact:
        exact = recognised(value)
        text = exact.text() if exact is not None else text
    return Fact(name, value, unit, f"{text} {unit}".strip(), label or name, badge, set)


def read_length(typed: str, page: Page) -> float:
    """A length that a person typed, in page units. Raises ValueError with one sentence."""
    text, times = typed.strip(), 1.0
    found = re.search(r"([a-z]+)\s*$", text, re.IGNORECASE)
    if found and found[1] in UNITS and page.scale.unit in UNITS:
        times = UNITS[found[1]] / UNITS[page.scale.unit]
        text = text[: found.start()]
    elif found and found[1] == page.scale.unit:
        text = text[: found.start()]
    value = read_number(text) * times / factor(page)
    if not abs(value) <= 1e7:
        raise ValueError(_("That is too far out."))
    return value


def read_area(typed: str, page: Page) -> float:
    """An area that a person typed, in square page units."""
    text = typed.strip().removeprefix("≈").removesuffix(f"{page.scale.unit}²").strip()
    value = read_number(text) / factor(page) ** 2
    if not 0 < value <= 1e13:
        raise ValueError(_("An area must be more than nothing."))
    return value


def scale_text(page: Page) -> str:
    return f"1 cm = {number_text(page.scale.per, 6)} {page.scale.unit}"


def read_scale(typed: str, page: Page) -> Scale:
    """ "4 squares = 1 m", "1 cm = 5 km", "1 : 200", "m". Raises ValueError with one sentence."""
    text = typed.strip()
    if text and text.replace("²", "").isalpha():
        return _changed(page, unit=text, per=1.0)
    found = WRITTEN.match(text)
    if found is None:
        raise ValueError(_("Write a scale as “4 squares = 1 m”, “1 cm = 5 km” or “1 : 200”."))
    here, there = read_number(found[1]), read_number(found[3])
    if not here > 0 or not there > 0:
        raise ValueError(_("Both sides of a scale must be more than nothing."))
    word, unit = found[2].lower(), found[4]
    if not word and not unit:  # 1 : 200
        unit = page.scale.unit if page.scale.unit in UNITS else "cm"
        return _changed(page, unit=unit, per=there / here * UNITS["cm"] / UNITS[unit])
    centimetres = here * page.paper.step / page.unit if word.startswith("square") else here * UNITS.get(word, 0.01) / 0.01
    return _changed(page, unit=unit or "cm", per=there / centimetres)


def _changed(page: Page, **fields: Any) -> Scale:
    try:
        return Scale(**{"places": page.scale.places, "exact": page.scale.exact, **fields})
    except ValueError as error:
        raise ValueError(_("That scale is too far out.")) from error


def scale_facts(page: Page) -> Iterator[Fact]:
    """Facts of the page about its measures."""

    def with_scale(**fields: Any) -> Page:
        import msgspec

        return page.replace(scale=msgspec.structs.replace(page.scale, **fields))

    yield Fact("scale", scale_text(page), text=scale_text(page), label=_("scale"),
               set=lambda typed: page.replace(scale=read_scale(typed, page)))  # fmt: skip
    choices = tuple((str(n), number_text(1 / 3, n)) for n in range(5))
    places = page.scale.places
    yield Fact("places", str(places), text=str(places), label=_("decimals"), options=choices, part="measures",
               set=lambda typed: with_scale(places=min(MOST_PLACES, max(0, int(read_number(typed))))))  # fmt: skip
    kinds = (("decimals", _("as decimals")), ("exact", _("exact: √2, 1/3, 5π")))
    yield Fact("values", "exact" if page.scale.exact else "decimals", text="", label=_("values"), options=kinds,
               part="measures", set=lambda typed: with_scale(exact=typed == "exact"))  # fmt: skip
