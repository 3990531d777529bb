"""A task: a sentence, a fact of a thing that is to come out, and what was said when it was last checked."""

from __future__ import annotations

import textwrap
from collections.abc import Iterator, Sequence
from typing import ClassVar

from larch.core.base.shape import Box, Point
from larch.core.base.words import N_, _, many
from larch.core.model.action import Action, wished
from larch.core.model.capabilities import HasWords, LooksAt, Sounds, Speaks, Tappable, WorksLocked
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Thing
from larch.core.model.written_on import TakesNumbers, WrittenSign

WIDE, PAD = 400.0, 24.0
SIZE, LINE = 33.0, 44.0  # of the sentence, and from line to line
SAID_SIZE, SAID_LINE = 24.0, 31.0
BUTTON = 64.0
GAP = 16.0
LETTERS, SAID_LETTERS = 20, 30  # that fit on a line
MODES = (("exact", N_("exactly")), ("within", N_("within")), ("one of", N_("one of")), ("at least", N_("at least")))
STATES = ("asked", "right", "not yet")
WAYS = (("thing", N_("setting the thing")), ("number", N_("writing a number")))  # in which it is answered
PLACE = 120.0  # how high the place for a number is
LONGEST = 300


class Task(
    HasWords, LooksAt, Sounds, Speaks, TakesNumbers, Tappable, WorksLocked, Thing, frozen=True, kw_only=True, tag="task"
):
    """of: the id of the thing that is asked about; fact: the name of the fact. mode: one of MODES; wanted: as a person
    writes it, several parted by ";". rule: from what `wanted` is drawn anew, such as "3 to 9". at_once: it says so by
    itself when it is right. state, said: how the last check went; of a right answer in writing, what was written. tries: how
    many there were. by: one of WAYS.

    Raises ValueError for what it can't be.
    """

    of: str = ""
    fact: str = ""
    mode: str = "exact"
    wanted: str = ""
    rule: str = ""
    sentence: str = ""
    hint: str = ""
    at_once: bool = False
    state: str = "asked"
    said: str = ""
    tries: int = 0
    by: str = "thing"
    hue: str = "needle"

    refers: ClassVar[tuple[str, ...]] = ("of",)
    turnable: ClassVar[bool] = False
    icon: ClassVar[str] = "list-checks"
    order: ClassVar[int] = 64
    help: ClassVar[str] = N_(
        "Set a thing as it should come out, then Ask: the card wants just that. Its facts say what is wanted and how "
        "exactly, what the card says, and a hint. Then put the thing back to where the class begins. A tap on Check tells "
        "whether it is right. A number written on the card by hand is an answer, too."
    )

    def __post_init__(self) -> None:
        known = self.mode in dict(MODES) and self.state in STATES and self.by in dict(WAYS)
        if not known or not 0 <= self.tries <= 10**9:
            raise ValueError("a task is asked, right or not yet")
        if max(map(len, (self.wanted, self.rule, self.sentence, self.hint, self.said))) > LONGEST:
            raise ValueError("a task is a sentence")

    @classmethod
    def title(cls) -> str:
        return _("task")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("ask question check answer quiz exercise right wrong")
        yield ShelfItem("task", _("task"), N_("Words"), cls, words)

    def question(self) -> str:
        return self.sentence or _("Ask about a thing: select it, then choose Ask.")

    def label(self, page: Page) -> str:
        states = {"asked": _("asked"), "right": _("right"), "not yet": _("not yet")}
        return self.name or _("task: {question} ({state})").format(question=self.question(), state=states[self.state])

    def plain_text(self) -> str:
        return self.question()

    def lines(self) -> list[str]:
        return textwrap.wrap(self.question(), LETTERS) or [""]

    def said_lines(self) -> list[str]:
        return textwrap.wrap(self.said, SAID_LETTERS) if self.state == "not yet" else []

    def said_box(self) -> Box:
        """Where it says how it went, in its own coordinates; empty while it is asked."""
        top = PAD + LINE * len(self.lines()) + GAP / 2
        high = {"asked": 0.0, "right": 56.0}.get(self.state, 56.0 + SAID_LINE * len(self.said_lines()))
        return Box(PAD, top, WIDE - PAD, top + high)

    def button(self) -> Box:
        """Where it is tapped to be checked, or to be tried again; empty when it is right."""
        top = self.said_box().y1 + (GAP if self.state == "not yet" else 0.0)
        high = 0.0 if self.state == "right" or self.at_once or self.by == "number" else BUTTON
        return Box(PAD, top, WIDE - PAD, top + high)

    def place(self) -> Box:
        """Where a number is to be written; empty where the thing is the answer, and when it is right."""
        top = self.button().y1
        return Box(PAD, top, WIDE - PAD, top + (PLACE if self.by == "number" and self.state != "right" else 0.0))

    def extent(self) -> Box:
        return Box(0, 0, WIDE, self.place().y1 + PAD)

    def uses(self, page: Page) -> tuple[Thing, ...]:
        return page.some([self.of])

    def facts(self, page: Page) -> Iterator[Fact]:
        states = {"asked": _("not checked yet"), "right": _("right"), "not yet": _("not yet")}
        yield Fact("state", self.state, text=states[self.state], label=_("it is"))
        yield Fact("tries", self.tries, text=many("1 try", "{n} tries", self.tries), label=_("tries"))
        yield Fact("question", self.sentence, text=self.sentence, label=_("asks"), set=self._sets("sentence"),
                   hint=_("a sentence"), part="doing")  # fmt: skip
        about = page.thing(self.of)
        if about is not None:
            options = tuple((fact.name, fact.label or fact.name) for fact in about.facts(page))
            text = dict(options).get(self.fact, self.fact)
            yield Fact("fact", self.fact, text=text, label=_("about"), options=options, part="doing",
                       set=lambda typed: wished("ask about", page, self, typed))  # fmt: skip
        modes = tuple((name, _(words)) for name, words in MODES)
        yield Fact("mode", self.mode, text=dict(modes)[self.mode], label=_("wanted is"), options=modes, part="doing",
                   set=lambda typed: self._said_anew(page, "mode", typed))  # fmt: skip
        yield Fact("wanted", self.wanted, text=self.wanted, label=_("wanted"),
                   set=lambda typed: self._said_anew(page, "wanted", typed), part="doing",
                   hint=_("such as 7; or 6 to 8"))  # fmt: skip
        yield Fact("rule", self.rule, text=self.rule, label=_("a new one from"), set=self._sets("rule"),
                   hint=_("such as 3 to 9"), part="doing")  # fmt: skip
        yield Fact("hint", self.hint, text=self.hint, label=_("hint"), set=self._sets("hint"),
                   hint=_("shown after two tries"), part="doing")  # fmt: skip
        named = tuple((name, _(words)) for name, words in WAYS)
        yield Fact("by", self.by, text=dict(named)[self.by], label=_("answered by"), options=named, part="doing",
                   set=lambda typed: self._said_anew(page, "by", typed))  # fmt: skip
        if about is not None:
            yield Fact("answer", self.said if self.state == "right" else "", label=_("answer"), part="doing",
                       set=lambda typed: wished("written answer", page, self, typed) if typed.strip() else self,
                       hint=_("as a pupil would write it"))  # fmt: skip
        ways = (("asked", _("when it is tapped")), ("at once", _("at once")))
        value = "at once" if self.at_once else "asked"
        yield Fact("checks", value, text=dict(ways)[value], label=_("checks"), options=ways, part="doing",
                   set=lambda typed: self.replace(at_once=typed == "at once", state="asked", said=""))  # fmt: skip

    def _said_anew(self, page: Page, field: str, typed: str) -> Thing:
        """With a field changed; a sentence that the card made up itself goes along."""
        changed: Task = self._sets(field)(typed)
        sentence = wished("task sentence", page, self, "")  # "" where there is nothing to say it of
        if not sentence or self.sentence not in ("", sentence):
            return changed
        return changed.replace(sentence=wished("task sentence", page, changed, ""))  # type: ignore[no-any-return]

    def _sets(self, field: str):  # type: ignore[no-untyped-def]
        def put(typed: str) -> Thing:
            if len(typed) > LONGEST:
                raise ValueError(_("That is too long for a card."))
            if field == "mode" and typed not in dict(MODES):
                raise ValueError(_("It is exactly, within, one of or at least."))
            if field == "by" and typed not in dict(WAYS):
                raise ValueError(_("It is answered by setting the thing, or by writing a number."))
            changed: Thing = self.replace(**{field: typed.strip(), "state": "asked", "said": ""})
            return changed

        return put

    def number_written(self, page: Page, text: str, signs: Sequence[WrittenSign], hue: str) -> Page:
        """An answer: to the question, or what the thing is to be."""
        return wished("written answer", page, self, text)  # type: ignore[no-any-return]

    def tap_action(self, at: Point) -> str:
        if not self.button().grown(8).holds(*at):
            return ""
        return "try again" if self.state == "not yet" else "check"

    def sounds_since(self, before: Thing) -> tuple[str, ...]:
        if not isinstance(before, Task) or before.state == self.state:
            return ()
        return {"right": ("right",), "not yet": ("not yet",)}.get(self.state, ())

    def says(self, page: Page) -> str:
        """How the check went, aloud; the question when it is asked anew."""
        if self.state == "asked":
            return self.question() if self.tries else ""
        return _("Right") if self.state == "right" else _("Not yet. {why}").format(why=self.said)

    def actions(self) -> tuple[Action, ...]:
        return ()
