"""Words that tell facts: "area = ½ · {AB} · {h}" with the numbers of the page in the place of what stands in braces.

In braces stands the name of a fact ({AB}, {ABC.area}, {angle C}), or an expression with such names ({AB * 2 + 1}). {=} is
what the sum to the left of the last "=" before it comes to: "½ · {AB} · {h} = {=}".
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from functools import lru_cache

from larch.core.base.memo import remember
from larch.core.figures.figure import Figure
from larch.core.maths.expression import ExpressionError, Undefined, parse, value_at
from larch.core.model.capabilities import Tells
from larch.core.model.fact import Fact, number_text
from larch.core.model.page import Page
from larch.core.model.scale import length_fact

BRACES = re.compile(r"\{([^{}\n]{0,120})\}")
UNKNOWN = "?"
SPARE = "ghjklmnopqrstuvwz"  # names that stand for facts while an expression is read
MOST_POINTS = 60  # points of which every two have a distance that can be named


def answers(page: Page, text: str) -> tuple[str, ...]:
    """What stands at present for each pair of braces."""
    return tuple(answer(page, text, found) for found in BRACES.finditer(text))


def answer(page: Page, text: str, found: re.Match[str]) -> str:
    inner = found[1].strip()
    if inner == "=":
        return _sum_before(page, text, found.start())
    fact = known(page).get(inner)
    if fact is not None:
        return _bare(fact)
    value = value_of(page, inner)
    return UNKNOWN if value is None else _written(page, value)


def _bare(fact: Fact) -> str:
    """A fact without its unit, which the words around it give; degrees keep their sign."""
    if isinstance(fact.value, bool) or fact.value is None:
        return UNKNOWN
    text = fact.text
    return text.removesuffix(fact.unit).strip() if fact.unit and fact.unit != "°" else text


def _written(page: Page, value: float) -> str:
    if page.scale.exact:
        from larch.core.maths.surd import recognised

        exact = recognised(value)
        if exact is not None:
            return exact.text()
    return number_text(value, max(2, page.scale.places))


def _sum_before(page: Page, text: str, end: int) -> str:
    """What the sum before the last "=" comes to, within its line."""
    line = text[text.rfind("\n", 0, end) + 1 : end].rstrip()
    parts = line.removesuffix("=").rstrip().split("=") if line.endswith("=") else line.split("=")
    sum_ = BRACES.sub(lambda m: f"({m[1]})" if m[1].strip() != "=" else "", parts[-1])
    value = value_of(page, sum_)
    return UNKNOWN if value is None else _written(page, value)


def value_of(page: Page, expression: str) -> float | None:
    """The value of an expression with facts in it; None if it has none."""
    facts = known(page)
    names: dict[str, float] = {}

    def stand_in(found: re.Match[str]) -> str:
        fact = facts[found[0]]
        value = fact.value
        if not isinstance(value, int | float) or isinstance(value, bool) or len(names) >= len(SPARE):
            return "?"
        letter = SPARE[len(names)]
        names[letter] = float(value)
        return f"({letter})"

    pattern = _pattern(tuple(facts))
    readable = pattern.sub(stand_in, expression) if facts else expression
    readable = readable.replace("°", "").replace(",", ".")
    for sign, number in (("½", "(1/2)"), ("⅓", "(1/3)"), ("¼", "(1/4)"), ("¾", "(3/4)"), ("⅔", "(2/3)")):
        readable = readable.replace(sign, number)
    try:
        value = value_at(parse(readable), **names)
    except (ExpressionError, Undefined, ValueError):
        return None
    return float(value) if isinstance(value, int | float) and math.isfinite(value) else None


@lru_cache(64)
def _pattern(names: tuple[str, ...]) -> re.Pattern[str]:
    """Any of the names, the longest first, not within a longer word."""
    listed = sorted(names, key=len, reverse=True)
    return re.compile(r"(?<![\w.])(?:" + "|".join(map(re.escape, listed)) + r")(?![\w.])") if listed else re.compile(r"(?!)")


@remember
def known(page: Page) -> Mapping[str, Fact]:
    """All facts of a page by every name that they can be told by. What two things call alike belongs to the upper one,
    and "ABC.area" tells them apart. The distance of two points goes by their letters."""
    found: dict[str, Fact] = {}
    points: list[tuple[str, tuple[float, float]]] = []
    for thing in page.things:
        if isinstance(thing, Tells):
            continue
        names_of = getattr(thing, "corner_names", None)
        title = thing.name or ("".join(names_of()) if names_of is not None else "")
        if isinstance(thing, Figure):
            if thing.why:
                continue
            if thing.kind() == "point" and thing.name:
                points.append((thing.name, (thing.placement.x, thing.placement.y)))
        for fact in thing.facts(page):
            if fact.name in ("sort", "name"):
                continue
            for name in (fact.name, f"{title}.{fact.name}" if title else "", *_short(fact.name)):
                if name:
                    found[name] = fact
    _distances(page, points, found)
    return found


def _short(name: str) -> tuple[str, ...]:
    """Other names that a fact goes by in class."""
    head, _gap, rest = name.partition(" ")
    if head == "angle" and rest:
        return (f"∠{rest}",)
    if head == "height" and rest:
        return (f"h_{rest}", "h") if rest in ("C", "") else (f"h_{rest}",)
    return {"radius": ("r",), "diameter": ("d",), "area": ("area",)}.get(name, ())


def _distances(page: Page, points: list[tuple[str, tuple[float, float]]], found: dict[str, Fact]) -> None:
    for i, (one, a) in enumerate(points[:MOST_POINTS]):
        for other, b in points[i + 1 : MOST_POINTS]:
            fact = length_fact(page, one + other, math.dist(a, b))
            found.setdefault(one + other, fact)
            found.setdefault(other + one, fact)
