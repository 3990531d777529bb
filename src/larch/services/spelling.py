"""Spelling with a bundled dictionary. Loading it takes a moment: call `load` off the interface's thread."""

from __future__ import annotations

import gzip
import re
import time
from pathlib import Path
from typing import Any

import msgspec

from larch.services.places import state_folder

LANGUAGES = ("en", "es", "fr", "pt", "de", "it", "ru", "ar", "eu", "lv", "nl")
WORD = re.compile(r"[^\W\d_]+(?:['’][^\W\d_]+)*")
SLICE = 60_000  # bytes of a dictionary that are read at a time
LONGEST = 40  # letters; what is longer is no word
MATHEMATICS = Path(__file__).parent.parent / "assets" / "words"  # words of the classroom that dictionaries lack


class Speller:
    """Knows the words of one language, those of mathematics, and those a person added."""

    def __init__(self, language: str = "en") -> None:
        self.language = language[:2].lower()
        self._checker: Any = None
        self._own: set[str] = set()

    @property
    def ready(self) -> bool:
        return self._checker is not None

    def load(self) -> bool:
        """Reads the dictionary; False if there is none for the language."""
        if self.language not in LANGUAGES:
            return False
        from spellchecker import SpellChecker

        self._own = _own_words()
        checker = SpellChecker(language=None, distance=1)
        checker.word_frequency.load_json(_bundled(self.language))
        extra = MATHEMATICS / f"mathematics-{self.language}.txt"
        if extra.exists():
            checker.word_frequency.load_words(extra.read_text(encoding="utf-8").split())
        self._checker = checker
        return True

    def knows(self, word: str) -> bool:
        """Whether a word can stand. Without a dictionary every word can, and so can capitals, single letters, and long
        strings."""
        plain = word.replace("’", "'")
        if not self.ready or len(plain) < 2 or len(plain) > LONGEST or plain.isupper():
            return True
        lower = plain.lower()
        return lower in self._own or bool(self._checker.known([lower, lower.removesuffix("'s")]))

    def unknown(self, text: str) -> list[tuple[int, int]]:
        """Places (start, length) of the words in a text that it does not know."""
        found = ((match.start(), match.group()) for match in WORD.finditer(text))
        return [(start, len(word)) for start, word in found if not self.knows(word)]

    def suggestions(self, word: str, most: int = 5) -> list[str]:
        """What might have been meant, the most usual word first; in the same case as it was typed."""
        if not self.ready or len(word) > LONGEST:
            return []
        candidates = self._checker.candidates(word.lower()) or set()
        ordered = sorted(candidates - {word.lower()}, key=lambda c: (-self._checker.word_usage_frequency(c), c))
        return [c.capitalize() if word[:1].isupper() else c for c in ordered[:most]]

    def learn(self, word: str) -> None:
        """Adds a word for good; one that can't be kept is known until the program ends."""
        self._own.add(word.lower().replace("’", "'"))
        try:
            _own_file().parent.mkdir(parents=True, exist_ok=True)
            _own_file().write_text("\n".join(sorted(self._own)) + "\n", encoding="utf-8")
        except OSError:
            pass


def _bundled(language: str) -> dict[str, int]:
    """The words of a language that come with pyspellchecker, and how usual each is.

    Read in slices: one call for all of it would keep the interpreter to itself for a sixth of a second, and with it
    the interface.
    """
    import spellchecker

    source = Path(spellchecker.__file__).parent / "resources" / f"{language}.json.gz"
    raw = gzip.decompress(source.read_bytes()).strip()[1:-1]
    words: dict[str, int] = {}
    start = 0
    while start < len(raw):
        end = raw.find(b', "', start + SLICE)
        part = raw[start : end if end >= 0 else len(raw)]
        words |= msgspec.json.decode(b"{" + part + b"}", type=dict[str, int])
        start = end + 1 if end >= 0 else len(raw)
        time.sleep(0)
    return words


def _own_file() -> Path:
    return state_folder() / "words.txt"


def _own_words() -> set[str]:
    try:
        return set(_own_file().read_text(encoding="utf-8").split()[:20_000])
    except (OSError, UnicodeDecodeError):
        return set()
