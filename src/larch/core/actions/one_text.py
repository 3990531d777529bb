"""Texts made one: as words read from handwriting are, when they have been sorted."""

from __future__ import annotations

from collections.abc import Sequence

from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, register
from larch.core.model.edit import Edit
from larch.core.model.page import Page
from larch.core.things.words.rich import Run, tidy_runs
from larch.core.things.words.text import Text

ON_LINE = 0.6  # of the size of type, within which words stand on the same line


def _several_texts(page: Page, things: Things) -> bool:
    return len(things) > 1 and all(
        isinstance(t, Text) and not t.locked and not t.placement.turn and not t.paragraphs for t in things
    )


def in_order(texts: Sequence[Text]) -> list[list[Text]]:
    """Lines from top to bottom, words of each from left to right."""
    lines: list[list[Text]] = []
    for text in sorted(texts, key=lambda one: one.placement.y + one.base()):
        stands = text.placement.y + text.base()
        if lines:
            first = lines[-1][0]
            near = ON_LINE * min(first.size * first.placement.scale, text.size * text.placement.scale)
            if abs(stands - first.placement.y - first.base()) < near:
                lines[-1].append(text)
                continue
        lines.append([text])
    return [sorted(line, key=lambda one: one.placement.x) for line in lines]


def as_one(texts: Sequence[Text]) -> Text:
    """Where the first stands; each keeps its colour, its weight and its size beside the others; the ink of all is kept."""
    lines = in_order(texts)
    first = lines[0][0]
    words = ""
    runs: list[Run] = []
    for k, line in enumerate(lines):
        for m, text in enumerate(line):
            between = "" if not (k or m) else "\n" if not m else " "
            own = _runs(text, first)
            if between and own:
                own[0] = own[0].replace(count=own[0].count + 1)
            words += between + text.text
            runs += own
    written = tuple(
        ink.replace(placement=ink.placement.on(text.placement).within(first.placement))
        for text in texts
        for ink in text.written
    )
    made: Text = first.replace(text=words, runs=tidy_runs(runs, len(words)), written=written, width=0.0, told=())
    return made


def _runs(text: Text, first: Text) -> list[Run]:
    """How its characters differ from the first one's, all of them."""
    size = text.size * text.placement.scale / first.placement.scale
    hue = text.hue if text.hue != first.hue else ""
    font = text.font if text.font != first.font else ""
    covered = sum(run.count for run in text.runs)
    rest = [Run(len(text.text) - covered)] if covered < len(text.text) else []
    found = []
    for run in (*text.runs, *rest):
        own = run.size * size / text.size if run.size else size if abs(size - first.size) > 0.12 * first.size else 0.0
        found.append(
            run.replace(size=own, hue=run.hue or hue, font=run.font or font, bold=run.bold or (text.bold and not first.bold))
        )
    return found


def _one(page: Page, things: Things) -> Edit:
    made = as_one([thing for thing in things if isinstance(thing, Text)])
    after = page.without([thing.id for thing in things if thing.id != made.id]).with_things({made.id: made})
    return Edit(_("Make one text"), page, after, select=(made.id,))


register(
    (
        Action("one text", lambda p, ts: _("one text"), "combine", _one, _several_texts, rank=8, board=True,
               words=N_("join words merge sentence together")),
    ),
    Text,
)  # fmt: skip
