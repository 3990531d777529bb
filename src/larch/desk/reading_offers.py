"""What is offered for ink that was read, from the answers of the readers."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from functools import partial
from typing import Any, NamedTuple

from larch.board.views import view_of
from larch.core.actions.ink.boxed import boxed, is_box, is_like_the_others
from larch.core.actions.ink.readings import SHAPES, as_mathematics, as_words, plain_of, read_otherwise, shaped
from larch.core.actions.ink.told import can_be_column, in_columns, in_lines, on_thing
from larch.core.base.words import _
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.rows import Row
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.ink.ink import Ink
from larch.desk.cards.sign_keys import ReadSign

MOST, BEST = 3, 5  # offers: of ink, and of type that was ink


class Reading(NamedTuple):
    """words: said, and shown where there is neither a row nor a picture. make: the edit that it means; its ValueError is
    one sentence. changed: words that are chosen instead of what was read. at_once: a pen that reads does it unasked."""

    words: str
    make: Callable[[], Edit]
    row: Row = ()
    picture: tuple[tuple[float, float], ...] = ()
    changed: tuple[str, ...] = ()
    at_once: bool = False


def shape_readings(page: Page, inks: list[Ink], answer: dict[str, Any]) -> list[Reading]:
    found = [
        Reading(f"{_(SHAPES[one['kind']])}?", partial(shaped, page, inks, one), (), in_square(one))
        for one in answer["readings"]
    ]
    first = answer["readings"][0] if found else None
    if first is not None and is_box(page, first):
        box = Reading(f"{_('box')}?", partial(boxed, page, inks, first), (), in_square(first))
        found.insert(0 if is_like_the_others(page, first) else 1, box)
    return found


def maths_readings(page: Page, inks: list[Ink], answer: dict[str, Any]) -> list[Reading]:
    """A number that is written on a thing which takes it comes first, as that."""
    found: list[Reading] = []
    on = on_thing(page, inks, answer)
    if on is not None:
        found.append(Reading(on.words, on.make, look(on.text), at_once=True))
    if answer.get("column") and can_be_column(answer["column"]):
        found.append(Reading(answer["column"]["said"], partial(in_columns, page, inks, answer["column"])))
    extent = lambda thing: view_of(thing).extent(thing)  # noqa: E731
    if len(answer.get("lines", ())) > 1:
        said = "   ".join(line["text"] for line in answer["lines"])
        found.append(Reading(said, partial(in_lines, page, inks, answer["lines"], extent)))
    else:
        for source in [source for source in (answer["latex"], *answer["alternatives"]) if source]:
            found.append(Reading(source, partial(as_mathematics, page, inks, source, extent), look(source)))
    return found[: MOST + (on is not None)]


def read_signs(answer: dict[str, Any], picked: Callable[[Sequence[int]], bool]) -> list[ReadSign]:
    return [
        ReadSign(one["token"], one["confidence"], tuple(one["others"]), picked(one["strokes"])) for one in answer["symbols"]
    ]


def word_readings(page: Page, inks: list[Ink], answer: dict[str, Any]) -> list[Reading]:
    words = answer["words"]
    if not words:
        return []
    plain = [word["text"] for word in words]
    variants: list[tuple[list[str], tuple[str, ...]]] = [(plain, ())]
    for k in sorted(range(len(words)), key=lambda k: words[k]["confidence"])[:MOST]:
        for other in words[k]["others"][: 5 if len(words) == 1 else 1]:
            variants.append(([*plain[:k], other, *plain[k + 1 :]], (other,)))
    most = 6 if len(words) == 1 else MOST + 1
    return [
        Reading(" ".join(texts), partial(as_words, page, inks, words, texts), changed=changed)
        for texts, changed in variants[:most]
    ]


def other_readings(page: Page, thing: Thing, kind: str, answer: dict[str, Any]) -> list[Reading]:
    """The best five that type which was written by hand isn't already."""
    if kind == "words":
        one = len(answer["words"]) == 1
        texts = [text for text in (answer["text"], *answer["alternatives"]) if text and text != plain_of(thing)]
        return [
            Reading(text, partial(read_otherwise, page, thing, text), changed=(text,) if one else ())
            for text in dict.fromkeys(texts)
        ][:BEST]
    rows = {look(source): source for source in (answer["latex"], *answer["alternatives"]) if source}
    rows.pop(look(plain_of(thing)), None)
    extent = lambda one: view_of(one).extent(one)  # noqa: E731
    return [Reading(source, partial(read_otherwise, page, thing, source, extent), row) for row, source in rows.items()][
        :BEST
    ]


def in_square(reading: dict[str, Any]) -> tuple[tuple[float, float], ...]:
    """Its outline in a square of size 1, for its picture."""
    places = [tuple(place) for place in reading["vertices"]]
    kind = reading["kind"]
    if kind in ("circle", "ellipse"):
        (a, b), turn = reading["radii"], math.radians(reading["angle"])
        c, s = math.cos(turn), math.sin(turn)
        turns = [2 * math.pi * k / 40 for k in range(41)]
        places = [(a * math.cos(t) * c - b * math.sin(t) * s, a * math.cos(t) * s + b * math.sin(t) * c) for t in turns]
    elif kind == "star":
        places = [places[(2 * k) % 5] for k in range(6)]
    elif kind not in ("line", "arrow", "arc", "angle", "polyline", "tick", "brace"):
        places = [*places, places[0]]
    x0, x1 = min(x for x, _y in places), max(x for x, _y in places)
    y0, y1 = min(y for _x, y in places), max(y for _x, y in places)
    size = max(x1 - x0, y1 - y0) or 1.0
    dx, dy = (size - (x1 - x0)) / 2, (size - (y1 - y0)) / 2
    return tuple(((x - x0 + dx) / size, (y - y0 + dy) / size) for x, y in places)
