"""Words that tell facts: "area = ½ · {AB} · {h}" with the numbers of the page in the place of what stands in braces.

In braces stands the name of a fact ({AB}, {ABC.area}, {angle C}), or an expression with such names ({AB * 2 + 1}). {=} is
what the sum to the left of the last "=" before it comes to: "½ · {AB} · {h} = {=}".
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Mapping, Sequence

from larch.core.base.bounds import MOST_TOLD
from larch.core.base.memo import remember
from larch.core.figures.figure import Figure
from larch.core.maths.expression import ExpressionError, Undefined, parse, value_at
from larch.core.model.capabilities import Defines, Tells
from larch.core.model.fact import Fact, number_text
from larch.core.model.page import Page
from larch.core.model.scale import length_fact
from larch.core.things.words.letters import letters

BRACES = re.compile(r"\{([^{}\n]{0,120})\}")
WORD = re.compile(r"[\w.]")
UNKNOWN = "?"
SPARE = "ghjklmnopqrstuvwz"  # names that stand for facts while an expression is read
MOST_POINTS = 60  # points of which every two have a distance that can be named


def answers(page: Page, text: str) -> tuple[str, ...]:
    """What stands at present for each pair of braces; for those after so many, that it isn't known."""
    found = list(BRACES.finditer(text))
    return tuple(answer(page, text, one) if k < MOST_TOLD else UNKNOWN for k, one in enumerate(found))


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

    def stand_in(name: str) -> str:
        fact = facts[name]
        value = fact.value
        if not isinstance(value, int | float) or isinstance(value, bool) or len(names) >= len(SPARE):
            return "?"
        letter = SPARE[len(names)]
        names[letter] = float(value)
        return f"({letter})"

    readable = _with_facts(expression, facts, _lengths(page), stand_in)
    readable = readable.replace("°", "").replace(",", ".")
    for sign, number in (("½", "(1/2)"), ("⅓", "(1/3)"), ("¼", "(1/4)"), ("¾", "(3/4)"), ("⅔", "(2/3)")):
        readable = readable.replace(sign, number)
    try:
        value = value_at(parse(readable), **names)
    except (ExpressionError, Undefined, ValueError):
        return None
    return float(value) if isinstance(value, int | float) and math.isfinite(value) else None


def _with_facts(text: str, facts: Mapping[str, Fact], lengths: Sequence[int], stand_in: Callable[[str], str]) -> str:
    """The text with each name of a fact replaced: the longest that fits, not within a longer word."""
    made: list[str] = []
    at = 0
    while at < len(text):
        name = ""
        if at == 0 or not WORD.match(text[at - 1]):
            fitting = (text[at : at + size] for size in lengths if at + size <= len(text))
            name = next((one for one in fitting if one in facts and not WORD.match(text, at + len(one))), "")
        made.append(stand_in(name) if name else text[at])
        at += max(1, len(name))
    return "".join(made)


@remember
def _lengths(page: Page) -> tuple[int, ...]:
    """Of the names of facts, the longest first."""
    return tuple(sorted({len(name) for name in known(page)}, reverse=True))


@remember
def known(page: Page) -> Mapping[str, Fact]:
    """All facts of a page by every name that they can be told by. What two things call alike belongs to the upper one,
    and "ABC.area" tells them apart. The distance of two points goes by their letters."""
    found: dict[str, Fact] = {}
    points: list[tuple[str, tuple[float, float]]] = []
    for thing in page.things:
        if isinstance(thing, Tells) and (thing.tells() or isinstance(thing, Defines)):
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
            told = Fact(fact.name, fact.value, fact.unit, fact.text)  # `set` may hold the page, which would then never die
            for name in (fact.name, f"{title}.{fact.name}" if title else "", *_short(fact.name)):
                if name:
                    found[name] = told
    _distances(page, points, found)
    for name, value in letters(page).values.items():
        found[name] = Fact(name, float(value), text=number_text(float(value), 6))
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
