"""A bar model: a whole above its parts, as long as they are worth; one of them is asked for, and worked out."""

from __future__ import annotations

import re
from collections.abc import Iterator
from functools import partial
from typing import ClassVar

from larch.core.base.shape import Box
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only, toggle
from larch.core.model.fact import Fact, number_text, read_number
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing

WIDE, HIGH, GAP = 640.0, 72.0, 8.0
LEAST, LONGEST = 200.0, 4000.0
MOST = 10
ASKED = "?"


class BarModel(Thing, frozen=True, kw_only=True, tag="bar model"):
    """whole, parts: numbers as they are written, or "?" for what is asked. open: what was asked is shown. long: of the bars,
    page units. Raises ValueError where these are none."""

    whole: str = "12"
    parts: tuple[str, ...] = ("7", ASKED)
    open: bool = False
    long: float = WIDE

    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "chart-no-axes-gantt"
    order: ClassVar[int] = 15
    help: ClassVar[str] = N_(
        "Type the whole and its parts, with ? for what is asked, such as 7 ?. It is worked out, and shown "
        "when you choose so."
    )

    def __post_init__(self) -> None:
        if not 1 <= len(self.parts) <= MOST or not LEAST <= self.long <= LONGEST:
            raise ValueError("a bar model has parts")
        for word in (self.whole, *self.parts):
            if word != ASKED and not 0 < float(word) < 1e9:
                raise ValueError("a bar model has numbers above zero")

    @classmethod
    def title(cls) -> str:
        return _("bar model")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("bar model part whole unknown problem strip compare add subtract")
        yield ShelfItem("bar model", _("bar model"), N_("Numbers"), cls, words)
        shares = partial(cls, whole="24", parts=(ASKED,) * 4)
        yield ShelfItem("bar model, equal parts", _("bar model of equal parts"), N_("Numbers"), shares, words)

    def label(self, page: Page) -> str:
        return self.name or _("bar model: {whole} = {parts}").format(whole=self.whole, parts=" + ".join(self.parts))

    def extent(self) -> Box:
        return Box(0, 0, self.long, 2 * HIGH + GAP)

    def stretched(self, across: float, down: float) -> Thing | None:
        return self.replace(long=min(max(self.long * across, LEAST), LONGEST))  # type: ignore[no-any-return]

    def asked(self) -> float | None:
        """What "?" stands for: the whole, or each of the parts that are asked for alike; None where that can't be said."""
        known = [float(word) for word in self.parts if word != ASKED]
        missing = self.parts.count(ASKED)
        if self.whole == ASKED:
            return round(sum(known), 9) if not missing else None
        rest = float(self.whole) - sum(known)
        return round(rest / missing, 9) if missing and rest > 0 else None

    def sizes(self) -> list[float]:
        """How much each part takes of the bar, in parts of one; alike where that can't be said."""
        value = self.asked()
        found = [value if word == ASKED else float(word) for word in self.parts]
        if any(size is None for size in found):
            return [1 / len(found)] * len(found)
        numbers = [float(size) for size in found if size is not None]
        return [size / sum(numbers) for size in numbers]

    def agrees(self) -> bool:
        """Whether the parts make the whole, where nothing is asked."""
        words = (self.whole, *self.parts)
        return ASKED in words or abs(float(self.whole) - sum(map(float, self.parts))) < 1e-9

    def word_text(self, word: str) -> str:
        """How a number is written on its bar."""
        value = self.asked()
        if word == ASKED:
            return number_text(value, 6) if self.open and value is not None else ASKED
        return number_text(float(word), 6)

    def facts(self, page: Page) -> Iterator[Fact]:
        value = self.asked()
        text = number_text(value, 6) if value is not None else _("nothing is asked, or it can't be said")
        yield Fact("value", value, text=text, label=_("? is"))
        yield Fact("whole", self.whole, text=self.whole, label=_("whole"), set=self._set_whole)
        parts = " ".join(self.parts)
        yield Fact("parts", parts, text=parts, label=_("parts"), set=self._set_parts)
        yield Fact("agrees", self.agrees(), text=_("yes") if self.agrees() else _("no"), label=_("parts make the whole"))

    def _set_whole(self, typed: str) -> Thing:
        return self.replace(whole=_word(typed))  # type: ignore[no-any-return]

    def _set_parts(self, typed: str) -> Thing:
        words = [word for word in re.split(r"[\s;+]+", typed.strip()) if word]
        if not 1 <= len(words) <= MOST:
            raise ValueError(_("Write 1 to {n} parts, such as 7 ?.").format(n=MOST))
        return self.replace(parts=tuple(map(_word, words)))  # type: ignore[no-any-return]

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _word(typed: str) -> str:
    if typed.strip() == ASKED:
        return ASKED
    value = read_number(typed)
    if not 0 < value < 1e9:
        raise ValueError(_("Write a number above zero, or ? for what is asked."))
    return f"{value:.9g}"


def _is_open(things: Things) -> bool:
    return all(getattr(t, "open", False) for t in things)


ACTIONS = (
    Action("show asked", lambda p, ts: _("hide the answer") if _is_open(ts) else _("show the answer"), "eye",
           lambda p, ts: toggle(p, ts, "open", _("Show the answer"), _("Hide the answer")), only(BarModel), rank=5,
           words=N_("reveal unknown")),
)  # fmt: skip
