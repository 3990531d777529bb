"""Every sentence a person sees can be translated: it is in the template that Babel extracts, and comes through gettext.

A made-up language puts ⟦ ⟧ round whatever it translates. What is looked up and not in the template is a text that no
translator would ever get to see; what stands on a widget without ⟦ never came through gettext at all.
"""

from __future__ import annotations

import gettext
import re
from collections.abc import Iterator
from functools import cache
from pathlib import Path

import pytest
from babel.messages.extract import extract_from_dir
from PyQt6.QtWidgets import QAbstractButton, QComboBox, QLabel, QLineEdit, QMenu, QTextBrowser, QWidget

from larch.core.base import words
from larch.core.base.words import _
from larch.core.figures.questions import ASKS
from larch.core.figures.rules import RULES
from larch.core.model.action import actions_for
from larch.core.model.kinds import kinds, shelf_items
from larch.core.model.paper import PATTERNS
from larch.core.things.ink.mark import MARKS
from tests import samples

SOURCE = Path(words.__file__).parents[2]
LETTERS = re.compile(r"[^\W\d_]{3,}")
# Names that are the same in every language, keys, and what a person typed or a file is called.
OWN = re.compile(
    r"^Close$|Larch|Andika|Atkinson|STIX|DejaVu|Hyperlegible|Ctrl|Shift|Return|Backspace|Home|PgUp|PgDown|PgDn|sin|cos|\.larch|^#"
)


@cache
def template() -> frozenset[str]:
    """All texts that a translator is given."""
    found: set[str] = set()
    keywords = {"_": None, "N_": None, "many": (1, 2)}
    for _file, _line, message, _comments, _context in extract_from_dir(SOURCE, keywords=keywords, comment_tags=()):
        found.update([message] if isinstance(message, str) else message)
    return frozenset(found)


class MadeUp(gettext.NullTranslations):
    """Translates what is in the template, and remembers what was asked for and is not."""

    def __init__(self) -> None:
        super().__init__()
        self.missing: set[str] = set()

    def gettext(self, message: str) -> str:
        if message not in template():
            self.missing.add(message)
            if not message:
                raise AssertionError("an empty text stands for the head of a translation")
            return message
        return f"⟦{message}⟧"

    def ngettext(self, one: str, several: str, n: int) -> str:
        return self.gettext(one if n == 1 else several)


@pytest.fixture
def made_up() -> Iterator[MadeUp]:
    language = MadeUp()
    before = words.use(language)
    yield language
    words.use(before)


def plain(texts: list[str]) -> set[str]:
    """Those with words in them that never came through gettext."""
    return {text for text in texts if LETTERS.search(text) and "⟦" not in text and not OWN.search(text)}


def test_all_that_kinds_say_is_in_the_template(made_up: MadeUp) -> None:
    things = samples.sample_things()
    page = samples.page_with(*things)
    said: list[str] = []
    for kind in kinds().values():
        said += [kind.title(), _(kind.help) if kind.help else ""]
    for item in shelf_items():
        said += [item.label, _(item.tray), item.words]
    for thing in page.things:
        for fact in thing.facts(page):
            said += [fact.label, fact.hint, *(label for _value, label in fact.options)]
        for action in actions_for(page, (thing,)):
            said += [action.label(page, (thing,)), _(action.words) if action.words else ""]
            said.append(_(action.fold.label) if action.fold is not None else "")
    for action in actions_for(page, page.things[:6]):
        said.append(action.label(page, page.things[:6]))
    for rule in RULES.values():
        said += [_(rule.label), _(rule.words), _(rule.search) if rule.search else "", *(_(n) for n, _u in rule.values if n)]
    said += [_(ask) for asks in ASKS.values() for ask in asks]
    said += [pattern.label() for pattern in PATTERNS.values()] + [label() for label in MARKS.values()]
    own_facts = {fact.label for thing in page.things for fact in thing.facts(page) if not LETTERS.search(fact.label[2:])}
    assert made_up.missing == set()
    assert plain([text for text in said if text not in own_facts]) == set()


def texts_of(widget: QWidget) -> Iterator[str]:
    yield from (widget.toolTip(), widget.accessibleName(), widget.windowTitle())
    if isinstance(widget, QAbstractButton | QLabel):
        yield widget.text()
    if isinstance(widget, QLineEdit):
        yield widget.placeholderText()
    if isinstance(widget, QMenu):
        yield from (widget.title(), *(action.text() for action in widget.actions()))
    if isinstance(widget, QComboBox):
        yield from (widget.itemText(i) for i in range(widget.count()))
    if isinstance(widget, QTextBrowser):
        yield from widget.toPlainText().split("\n")


def test_a_window_in_a_made_up_language_shows_nothing_else(made_up: MadeUp, window) -> None:  # type: ignore[no-untyped-def]
    w = window
    said: list[str] = []

    def look() -> None:
        for widget in w.findChildren(QWidget):
            said.extend(texts_of(widget))

    for menu in w.menus.findChildren(QMenu):
        menu.aboutToShow.emit()
    w.show_shelf(True)
    for tray in w.shelf.trays:
        if tray != "Pictures":  # drawings are called what their makers called them
            w.shelf.choose(tray)
            look()
    w.show_shelf(False)
    for tool in w.ledge.tools:
        w.ledge.take(tool.name)
        w.hand.toggle_choices(tool)
        look()
        w.choices.hide()
    w.ledge.take("select")
    for number in range(len(w.session.lesson.pages)):
        w.show_page(f"p{number + 1}")
        for thing in w.canvas.page.things[:4]:
            w.canvas.select((thing.id,))
            w.facts.want(True)
            w.tag.refresh()
            said.extend(action.text() for action in w.tag.menu().actions())
        w.canvas.select(())
        w.facts.want(True)
        look()
    w.show_card("layers")
    w.show_card("steps")
    w.run("spread")
    look()
    w.spread.hide()
    from larch.desk.finder.findable import findable

    w.canvas.select((w.canvas.page.things[0].id,))
    found = findable(w.context)
    said += [text for one in found for text in (one.label, one.place)]
    said += [command.label for command in w.commands.listed]
    w.run("help")
    look()
    assert made_up.missing == set()
    assert plain(said) == set()
