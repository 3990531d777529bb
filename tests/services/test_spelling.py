"""Spelling: the bundled dictionary, the words of mathematics, and a person's own."""

from __future__ import annotations

import pytest

from larch.services.spelling import Speller, _own_file


@pytest.fixture(scope="module")
def speller() -> Speller:
    made = Speller("en")
    assert made.load()
    return made


def test_words_of_the_classroom_are_known(speller: Speller) -> None:
    for word in ("lantern", "Rhombus", "isosceles", "hypotenuse", "ABC", "x", "triangle’s", "colour", "colored"):
        assert speller.knows(word), word


def test_mistakes_are_found_at_their_place_with_what_was_meant(speller: Speller) -> None:
    text = "Mesure the traingle, 3 sides, AB = 4."
    assert [text[start : start + length] for start, length in speller.unknown(text)] == ["Mesure", "traingle"]
    assert "triangle" in speller.suggestions("traingle")
    assert speller.suggestions("Mesure")[0] == "Measure"
    assert speller.suggestions("q" * 500) == []


def test_an_own_word_is_kept_for_good(speller: Speller) -> None:
    assert not speller.knows("floatery")
    speller.learn("Floatery")
    assert speller.knows("floatery")
    assert "floatery" in _own_file().read_text()
    again = Speller("en")
    again.load()
    assert again.knows("FLOATery")


def test_without_a_dictionary_nothing_is_called_wrong() -> None:
    made = Speller("xx")
    assert made.load() is False
    assert made.knows("qqqq")
    assert made.unknown("qqqq zzzz") == []
    assert made.suggestions("qqqq") == []


def test_a_broken_list_of_own_words_is_no_reason_to_stop() -> None:
    _own_file().parent.mkdir(parents=True, exist_ok=True)
    _own_file().write_bytes(b"\xff\xfe\x00")
    made = Speller("en")
    assert made.load()
    assert made.knows("lantern")


def test_other_languages_are_bundled_too() -> None:
    made = Speller("de-AT")
    assert made.load()
    assert made.knows("Dreieck")
    assert not made.knows("Dreiekc")
