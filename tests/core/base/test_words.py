"""Languages."""

from __future__ import annotations

from larch.core.base import words


def test_another_language_without_a_catalogue_is_english() -> None:
    words.speak("xx")
    assert words._("page") == "page"
    assert words.many("{n} page", "{n} pages", 3) == "3 pages"
