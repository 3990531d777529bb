"""Unknown words are underlined while they are typed; the menu on one offers what might have been meant."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject
from PyQt6.QtGui import QColor, QSyntaxHighlighter, QTextCharFormat, QTextCursor, QTextDocument
from PyQt6.QtWidgets import QMenu

from larch.core.base.hues import WRONG
from larch.core.base.words import _
from larch.desk.jobs import in_background
from larch.services.spelling import Speller


class _Underline(QSyntaxHighlighter):
    def __init__(self, document: QTextDocument, speller: Speller) -> None:
        super().__init__(document)
        self.speller = speller
        self.look = QTextCharFormat()
        self.look.setUnderlineStyle(QTextCharFormat.UnderlineStyle.SpellCheckUnderline)
        self.look.setUnderlineColor(QColor(WRONG))

    def highlightBlock(self, text: str | None) -> None:
        for start, length in self.speller.unknown(text or ""):
            self.setFormat(start, length, self.look)


class Spelling(QObject):
    """One dictionary for the window, read off this thread when words are first typed."""

    def __init__(self, parent: QObject, language: Callable[[], str]) -> None:
        super().__init__(parent)
        self._language = language
        self.speller = Speller(language())
        self._loading = False
        self._watched: list[_Underline] = []

    def watch(self, document: QTextDocument) -> QSyntaxHighlighter:
        """Underlines what is not known, in a document that is being typed in."""
        if self.speller.language != self._language()[:2].lower():
            self.speller, self._loading = Speller(self._language()), False
        made = _Underline(document, self.speller)
        self._watched.append(made)
        made.destroyed.connect(lambda: self._watched.remove(made) if made in self._watched else None)
        if not self.speller.ready and not self._loading:
            self._loading = True
            in_background(self, lambda _job: self.speller.load(), lambda _good: self._look_again(), lambda _error: None)
        return made

    def _learn(self, word: str) -> None:
        self.speller.learn(word)
        self._look_again()

    def _look_again(self) -> None:
        for watched in list(self._watched):
            watched.rehighlight()

    def fill(self, menu: QMenu, word: QTextCursor) -> None:
        """Adds what might have been meant to a menu."""
        text = word.selectedText()
        if not text or self.speller.knows(text):
            return
        found = self.speller.suggestions(text)
        for suggestion in found:
            action = menu.addAction(suggestion)
            if action is not None:
                action.triggered.connect(lambda _on=False, s=suggestion: word.insertText(s, word.charFormat()))
        if not found:
            none = menu.addAction(_("nothing like it is known"))
            if none is not None:
                none.setEnabled(False)
        learn = menu.addAction(_("“{word}” is right").format(word=text[:30]))
        if learn is not None:
            learn.triggered.connect(lambda: self._learn(text))
        menu.addSeparator()
