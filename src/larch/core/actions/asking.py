"""Asking: any fact of any thing becomes a task, and is checked. One mechanism over facts; no kind knows of it.

What is wanted is read as the thing itself reads it: the fact is set to it on a copy, and the values are compared. So "half
past"-times, fractions and numbers in words are right in whatever way they are written that the kind understands.
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping, Sequence
from fractions import Fraction
from typing import Any, NamedTuple

from msgspec import structs

from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, grants, only, register
from larch.core.model.chance import chance, drawn
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, Told, number_text, read_number
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.asking.task import LONGEST, WIDE, Task

NEAR = 1e-9  # by how much, in parts of itself, a number may be off that was worked out
BESIDE = 24.0
TIME = re.compile(r"(\d{1,2}):(\d{2})")
RANGE = re.compile(r"\s*(.+?)\s*(?:…|\.\.|–|\bto\b)\s*(.+?)\s*", re.IGNORECASE)
ABOUT = re.compile(r"\s*(.+?)\s*(?:±|\+/?-|\+−)\s*(.+?)\s*")
RULE = re.compile(r"\s*(\S+)\s*(?:\bto\b|…|\.\.|–)\s*(\S+?)\s*(?:\bstep\b\s*(\S+))?\s*", re.IGNORECASE)
HALF_DAY = 720


class Checked(NamedTuple):
    """right: None where the task is not finished; says: a sentence; task: with that on its card."""

    right: bool | None
    says: str
    task: Task


def fact_of(page: Page, thing: Thing, name: str) -> Fact | None:
    return next((fact for fact in thing.facts(page) if fact.name == name), None)


def asked(page: Page, thing: Thing, name: str, given: Mapping[str, str] | None = None) -> Edit:
    """Puts a task beside a thing that wants a fact of it. given: one of wanted, within, one of, at least (or wanted and
    within); with nothing given it wants what is there now. Raises ValueError."""
    fact = fact_of(page, thing, name)
    if fact is None:
        raise ValueError(_("It does not know “{name}”.").format(name=name[:60]))
    given = {"wanted": fact.text or str(fact.value)} if given is None else given
    mode = next((mode for mode in ("within", "one of", "at least") if mode in given), "exact")
    wanted = given.get(mode, "") if mode != "exact" else given.get("wanted", "")
    if mode == "within" and "wanted" in given:
        wanted = f"{given['wanted']} ± {given['within']}"
    if len(wanted) > LONGEST:
        raise ValueError(_("That is too long for a card."))
    task = Task(of=thing.id, fact=name, mode=mode, wanted=wanted)
    task = task.replace(sentence=sentence_for(page, thing, fact, task))
    placed = task.replace(placement=task.placement.moved(*_place_for(page, thing, task)))
    return Edit(_("Ask"), page, page.put(placed), select=tuple(page.put_ids(1)))


def sentence_for(page: Page, thing: Thing, fact: Fact, task: Task) -> str:
    """What the card says, until the teacher writes something better."""
    what = fact.label or fact.name
    about = thing.name or thing.title()
    if not task.wanted or task.by == "number":
        text = _("{thing}: {what}?").format(thing=about, what=what)
    elif task.mode == "at least":
        text = _("{thing}: make the {what} at least {wanted}.").format(thing=about, what=what, wanted=task.wanted)
    else:
        wanted = task.wanted.replace(";", _(" or")) if task.mode == "one of" else task.wanted
        text = _("{thing}: make the {what} {wanted}.").format(thing=about, what=what, wanted=wanted)
    return (text[:1].upper() + text[1:])[:LONGEST]


def _place_for(page: Page, thing: Thing, task: Task) -> tuple[float, float]:
    """Beside the thing, on the printed page, where nothing lies if there is such a place."""
    box, high, sheet = thing.box(), task.extent().height, page.printed()
    places = [
        (box.x1 + BESIDE, box.y0), (box.x0 - BESIDE - WIDE, box.y0),
        (box.x0, box.y1 + BESIDE), (box.x0, box.y0 - BESIDE - high),
        (sheet.x1 - WIDE - BESIDE, sheet.y0 + BESIDE), (sheet.x0 + BESIDE, sheet.y1 - high - BESIDE),
    ]  # fmt: skip
    taken = [other.box() for other in page.things if not other.hidden]
    for x, y in places:
        room = Box(x, y, x + WIDE, y + high)
        if sheet.covers(room) and not any(room.meets(other) for other in taken):
            return (x, y)
    return (min(max(box.x1 + BESIDE, sheet.x0), sheet.x1 - WIDE), min(max(box.y0, sheet.y0), max(sheet.y0, sheet.y1 - high)))


# Checking


def verdict(page: Page, task: Task) -> tuple[bool | None, str]:
    """Whether it is right at present, and a sentence; None where the task is not finished."""
    if task.by == "number":
        return None, _("Write the answer on the card.")
    thing = page.thing(task.of)
    if thing is None:
        return None, _("What it asks about is not on the page.")
    fact = fact_of(page, thing, task.fact)
    if fact is None:
        return None, _("“{fact}” is not known of it at present.").format(fact=task.fact)
    if not task.wanted.strip():
        return None, _("It has no right answer yet: write what is wanted.")
    if fact.value is None:
        return False, fact.text or _("It has no value now.")
    try:
        right = _fits(page, thing, fact, task)
    except ValueError as error:
        return None, _("What is wanted can't be read: {why}").format(why=error)
    if right:
        return True, _("Right")
    shown = fact.text or str(fact.value)
    return False, _("Now the {what} is {value}.").format(what=fact.label or fact.name, value=shown)


def _fits(page: Page, thing: Thing, fact: Fact, task: Task) -> bool:
    """Raises ValueError where what is wanted can't be read."""
    if task.mode == "exact":
        return _is(fact, wanted_value(page, thing, fact, task.wanted))
    if task.mode == "one of":
        parts = [part for part in re.split(r"[;|]|,\s", task.wanted) if part.strip()]
        return any(_is(fact, wanted_value(page, thing, fact, part)) for part in parts)
    now = _number(fact.value)
    if now is None:
        raise ValueError(_("only a number can be within or at least something."))
    if task.mode == "at least":
        return now >= _needed(wanted_value(page, thing, fact, task.wanted)) - NEAR * max(1.0, abs(now))
    low, high = _bounds(page, thing, fact, task.wanted)
    slack = NEAR * max(1.0, abs(now))
    return low - slack <= now <= high + slack


def _is(fact: Fact, wanted: Any) -> bool:
    """Whether a fact is what is wanted: in truth, or as it is written. A side that reads 10.8 cm is 10.8 cm to a class."""
    if _same(fact.value, wanted):
        return True
    if isinstance(fact.value, bool) or not isinstance(fact.value, int | float) or not fact.text:
        return False
    try:
        return _same(_reading(fact.text), wanted)
    except ValueError:
        return False


def _bounds(page: Page, thing: Thing, fact: Fact, wanted: str) -> tuple[float, float]:
    """Of "60 ± 2", "58 to 62" or "58; 62"."""
    if match := ABOUT.fullmatch(wanted):
        middle, off = _needed(wanted_value(page, thing, fact, match[1])), abs(read_number(match[2]))
        return middle - off, middle + off
    match = RANGE.fullmatch(wanted)
    ends = [match[1], match[2]] if match else wanted.split(";")
    if len(ends) != 2:
        raise ValueError(_("write for example 58 to 62, or 60 ± 2."))
    low, high = (_needed(wanted_value(page, thing, fact, end)) for end in ends)
    return min(low, high), max(low, high)


def wanted_value(page: Page, thing: Thing, fact: Fact, wanted: str) -> Any:
    """What a fact is when it is what was written. Raises ValueError."""
    wanted = wanted.strip()
    if isinstance(fact.value, bool):
        return wanted.casefold() in {_("yes").casefold(), "yes", "true", fact.text.casefold() if fact.value else ""}
    if isinstance(fact.value, int | float):
        return _reading(wanted)
    if fact.set is not None:
        try:
            changed = fact.set(wanted)
        except ValueError:
            changed = None
        if isinstance(changed, Told):
            changed = changed.result
        if isinstance(changed, Thing):
            again = fact_of(page.with_things({thing.id: changed}), changed, fact.name)
            if again is not None:
                return again.value
    return wanted


def _reading(wanted: str) -> float:
    words = re.sub(r"[\s\u2009\u00a0](?=\d{3}\b)", "", wanted)  # 1 000
    match = re.fullmatch(r"\s*([-−+]?[\d.,/ ]+?)\s*(?:%|°|[a-zA-Zμ²³]{1,6})?\s*", words)
    return read_number(match[1] if match else words)


def _needed(value: Any) -> float:
    number = _number(value)
    if number is None:
        raise ValueError(_("“{wanted}” is not a number.").format(wanted=str(value)[:40]))
    return number


def _number(value: Any) -> float | None:
    if isinstance(value, bool) or value is None:
        return None
    if isinstance(value, int | float):
        return float(value) if math.isfinite(value) else None
    text = str(value).strip()
    if match := TIME.fullmatch(text):
        return float(int(match[1]) * 60 + int(match[2]))
    try:
        return float(Fraction(text.replace(" ", "")))
    except (ValueError, ZeroDivisionError):
        try:
            return read_number(text)
        except ValueError:
            return None


def _same(now: Any, wanted: Any) -> bool:
    """A time of the forenoon is right on a round face in the afternoon, too."""
    if isinstance(now, bool) or isinstance(wanted, bool):
        return bool(now) == bool(wanted)
    if isinstance(now, str) and isinstance(wanted, str) and TIME.fullmatch(now) and TIME.fullmatch(wanted):
        a, b = _number(now) or 0.0, _number(wanted) or 0.0
        return a == b or (b < HALF_DAY and a % HALF_DAY == b)
    if isinstance(now, str) and not isinstance(wanted, int | float):
        same = now.strip().casefold() == str(wanted).strip().casefold()
        a_, b_ = _number(now), _number(wanted)
        return same or (a_ is not None and b_ is not None and math.isclose(a_, b_, rel_tol=NEAR, abs_tol=NEAR))
    a_, b_ = _number(now), _number(wanted)
    return a_ is not None and b_ is not None and math.isclose(a_, b_, rel_tol=1e-6, abs_tol=1e-6)


def checked(page: Page, task: Thing) -> Checked:
    """Raises ValueError if it is no task."""
    if not isinstance(task, Task):
        raise ValueError(_("Only a task is checked."))
    right, says = verdict(page, task)
    if right is None:
        return Checked(None, says, task)
    after = _after_check(task, right, says)
    return Checked(right, says if right else after.said, after)


def _after_check(task: Task, right: bool, says: str, answer: str = "") -> Task:
    """With what is said on the card; answer: what was written there."""
    tries = task.tries + 1
    if not right and task.hint and tries >= 2:
        says = f"{says} {task.hint}"
    said = answer if right else says
    after: Task = task.replace(state="right" if right else "not yet", said=said[:LONGEST], tries=tries)
    return after


def _check(page: Page, things: Things) -> Edit:
    return check_edit(page, [checked(page, task) for task in things])


def check_edit(page: Page, found: Sequence[Checked]) -> Edit:
    """Keeps what was found on the cards; what is not finished is said."""
    said = next((one.says for one in found if one.right is None), "")
    return Edit(_("Check"), page, page.with_things({one.task.id: one.task for one in found}), said=said)


def _again(page: Page, things: Things) -> Edit:
    fresh = {t.id: t.replace(state="asked", said="") for t in things if isinstance(t, Task)}
    return Edit(_("Try again"), page, page.with_things(fresh))


def _ask(page: Page, things: Things) -> Edit:
    """Asks for what a thing shows now: its first fact that can be set, else its first."""
    (thing,) = things
    facts = [fact for fact in thing.facts(page) if fact.value is not None]
    fact = next((f for f in facts if f.set is not None and not f.options and f.value != ""), facts[0])
    return asked(page, thing, fact.name)


@grants("written answer")
def _written(page: Page, task: Task, typed: str) -> Page:
    """A number that is written on the card: where the thing is to come out so, it is set to it, and checked; where it is so
    already, or nobody can set it, the number answers the question. Raises ValueError where it can't be read or checked."""
    thing = page.thing(task.of)
    fact = fact_of(page, thing, task.fact) if thing is not None else None
    reads = task.by == "number" or fact is None or fact.set is None or bool(fact.options) or verdict(page, task)[0]
    if thing is None or fact is None or reads:
        return page.with_things({task.id: _answered(page, task, thing, fact, typed)})
    assert fact.set is not None
    changed = fact.set(typed)
    changed = changed.result if isinstance(changed, Told) else changed
    after = changed if isinstance(changed, Page) else page.with_things({thing.id: changed})
    found = checked(after, task)
    return after.with_things({task.id: found.task}) if found.right is not None else after


def _answered(page: Page, task: Task, thing: Thing | None, fact: Fact | None, typed: str) -> Task:
    right, says = verdict(page, task.replace(by="thing"))
    if thing is None or fact is None or right is None:
        raise ValueError(says)
    meant = structs.replace(fact, value=wanted_value(page, thing, fact, typed), text=typed)
    return _after_check(task, _fits(page, thing, meant, task), _("You wrote {answer}.").format(answer=typed), typed)


@grants("ask about")
def _ask_about(page: Page, task: Task, typed: str) -> Thing:
    thing = page.thing(task.of)
    fact = fact_of(page, thing, typed) if thing is not None else None
    if thing is None or fact is None:
        raise ValueError(_("It does not know “{name}”.").format(name=typed[:60]))
    mine = not task.sentence or task.sentence == _own_sentence(page, task)
    changed: Task = task.replace(fact=typed, wanted=(fact.text or str(fact.value))[:LONGEST], state="asked", said="")
    return changed.replace(sentence=sentence_for(page, thing, fact, changed)) if mine else changed


@grants("task sentence")
def _sentence(page: Page, task: Task, _typed: str) -> str:
    return _own_sentence(page, task)


def _own_sentence(page: Page, task: Task) -> str:
    thing = page.thing(task.of)
    fact = fact_of(page, thing, task.fact) if thing is not None else None
    return sentence_for(page, thing, fact, task) if thing is not None and fact is not None else ""


def renewed(page: Page, things: Things) -> Edit:
    """Draws what is wanted anew from each task's rule: the same page and seed give the same. Raises ValueError."""
    rng = chance(page)
    changed: dict[str, Thing] = {}
    for task in things:
        if isinstance(task, Task) and task.rule:
            wanted = _drawn_from(task.rule, rng)
            mine = not task.sentence or task.sentence == _own_sentence(page, task)
            fresh = task.replace(wanted=wanted, state="asked", said="", tries=0)
            changed[task.id] = fresh.replace(sentence=_own_sentence(page, fresh)) if mine else fresh
    return Edit(_("A new one"), page, drawn(page).with_things(changed))


def _drawn_from(rule: str, rng: Any) -> str:
    """Of "3 to 9", "0.5 to 4 step 0.5" or "1:00 to 11:55 step 5" (minutes)."""
    match = RULE.fullmatch(rule)
    if match is None:
        raise ValueError(_("Write the rule for example as 3 to 9, or 0.5 to 4 step 0.5."))
    times = TIME.fullmatch(match[1]) and TIME.fullmatch(match[2])
    low, high = (Fraction(int(_number(match[k]) or 0)) if times else Fraction(str(read_number(match[k]))) for k in (1, 2))
    step = Fraction(str(read_number(match[3]))) if match[3] else Fraction(1)
    if step <= 0 or high < low or (high - low) / step > 10**6:
        raise ValueError(_("Write the rule for example as 3 to 9, or 0.5 to 4 step 0.5."))
    value = low + step * int(rng.integers(0, int((high - low) / step) + 1))
    return f"{int(value) // 60}:{int(value) % 60:02d}" if times else number_text(float(value), 6)


def _can_ask(page: Page, things: Things) -> bool:
    fits = len(things) == 1 and not isinstance(things[0], Task) and not things[0].supply
    return fits and any(fact.value is not None for fact in things[0].facts(page))


register([
    Action("check", lambda p, ts: _("check"), "check", _check, only(Task), rank=4, board=True,
           words=N_("right answer test")),
    Action("try again", lambda p, ts: _("try again"), "rotate-ccw", _again,
           lambda p, ts: only(Task)(p, ts) and any(getattr(t, "state", "") != "asked" for t in ts), rank=5, board=True,
           words=N_("reset anew")),
    Action("new one", lambda p, ts: _("a new one"), "dices", renewed,
           lambda p, ts: only(Task)(p, ts) and all(getattr(t, "rule", "") for t in ts), rank=6, board=True,
           words=N_("another task next random rule")),
], Task, at=5)  # fmt: skip
register([
    Action("ask", lambda p, ts: _("ask for this"), "message-square", _ask, _can_ask, rank=58,
           words=N_("task question check quiz exercise")),
], None, at=60)  # fmt: skip
