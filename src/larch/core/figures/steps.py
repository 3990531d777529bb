"""The steps of a construction in words, in the order in which they can be played."""

from __future__ import annotations

from typing import NamedTuple

from larch.core.base.words import _
from larch.core.figures.figure import Figure, split_ref
from larch.core.figures.rules import RULES
from larch.core.figures.settle import plan_of
from larch.core.model.fact import number_text
from larch.core.model.page import Page
from larch.core.model.scale import factor


class Step(NamedTuple):
    """id of the thing that the step puts there, what was done, and why it is not to be seen, if it isn't."""

    id: str
    words: str
    why: str = ""


def ref_name(page: Page, ref: str) -> str:
    """What a reference is called: a point by its letter, a side by its ends; "" for what has no name."""
    id, sign, k = split_ref(ref)
    thing = page.thing(id)
    if thing is None:
        return ""
    if not sign:
        return thing.name
    names_of = getattr(thing, "corner_names", None)
    names = names_of() if names_of is not None else []
    if sign == ":" and 0 <= k < len(names):
        return str(names[k]).strip()
    if sign == "/" and 0 <= k < len(names):
        return f"{names[k]}{names[(k + 1) % len(names)]}".strip()
    return ""


def said(page: Page, ref: str) -> str:
    """A reference in a sentence: its name, or what it is."""
    name = ref_name(page, ref)
    if name:
        return name
    id, sign, k = split_ref(ref)
    thing = page.thing(id)
    if thing is None:
        return _("something gone")
    if sign == ":" and k == 0 and thing.kind() in ("circle", "ellipse"):
        return _("the centre of {thing}").format(thing=_lower(thing.label(page)))
    if sign == ":":
        return _("an end of {thing}").format(thing=_lower(thing.label(page)))
    label = _lower(thing.label(page))
    if thing.kind() == "equation":
        return _("the graph of {thing}").format(thing=thing.label(page))
    rule = RULES.get(getattr(thing, "rule", ""))
    if not sign and rule is not None and rule.family in ("construct", "touching"):
        names = "".join(ref_name(page, other) for other in getattr(thing, "of", ()))
        words = _("the {thing} through {names}") if rule.takes == ("point", "line") else _("the {thing} of {names}")
        return words.format(thing=_(rule.label), names=names) if names else _("the {thing}").format(thing=_(rule.label))
    return _("a side of {thing}").format(thing=label) if sign == "/" else _("the {thing}").format(thing=label)


def _lower(label: str) -> str:
    return label[:1].lower() + label[1:]


def sentence(page: Page, thing: Figure) -> str:
    """How a figure came to be, in one sentence."""
    name = thing.name
    if thing.rule == "plotted":
        at = "; ".join(number_text(v, 3) for v in thing.values)
        return _("Plot {name} at ({at}).").format(name=name or _("a point"), at=at)
    if thing.rule == "locus":
        tracer, driver = (said(page, ref) for ref in (*thing.of, "", "")[:2])
        return _("Trace the path of {tracer} while {driver} moves.").format(tracer=tracer, driver=driver)
    rule = RULES.get(thing.rule)
    if rule is None:
        what = _lower(thing.label(page))
        return _("Put out {thing}.").format(
            thing=_("point {name}").format(name=name) if thing.kind() == "point" and name else what
        )
    refs = [said(page, ref) for ref in thing.of]
    values = {
        f"v{i}": _value(page, value, rule.values[i][1]) for i, value in enumerate(thing.values) if i < len(rule.values)
    }
    filled = refs + ["…"] * 3
    words = _(rule.words).format(*filled, all=", ".join(refs), **{**{f"v{i}": "…" for i in range(3)}, **values})
    if thing.kind() == "point" and name:
        words = _("{name}: {words}").format(name=name, words=_lower(words))
    return words


def _value(page: Page, value: float, unit: str) -> str:
    if unit == "length":
        return f"{number_text(value * factor(page), page.scale.places)} {page.scale.unit}"
    return f"{number_text(value, 2)}{unit}"


def steps(page: Page) -> list[Step]:
    """All figures of the page in the order in which they follow; free ones just before the first that needs them."""
    plan = plan_of(page)
    order: dict[str, None] = {}
    rank = {thing.id: i for i, thing in enumerate(page.things)}
    for id in sorted(plan.order, key=lambda id: rank.get(id, 0)):
        _with_parents(id, plan.parents, order)
    for thing in page.things:
        if isinstance(thing, Figure) and thing.id not in order and thing.kind() == "point":
            order[thing.id] = None
    found = []
    for id in order:
        figure = page.thing(id)
        if isinstance(figure, Figure):
            found.append(Step(id, sentence(page, figure), _(figure.why) if figure.why else ""))
    return found


def _with_parents(id: str, parents: object, order: dict[str, None]) -> None:
    """All that a thing hangs on, then the thing; without recursion, as chains may be long."""
    assert isinstance(parents, dict)
    waiting = [(id, False)]
    entered: set[str] = set()
    while waiting:
        here, ready = waiting.pop()
        if here in order:
            continue
        if ready or here in entered:
            order[here] = None
            continue
        entered.add(here)
        waiting.append((here, True))
        waiting += [(parent, False) for parent in reversed(parents.get(here, ())) if parent not in order]
