"""Searching: by beginnings, other words, accents and slips of the finger."""

from __future__ import annotations

import pytest

from larch.desk.search import ranked, score


@pytest.mark.parametrize("query", ["hex", "Hexagon", "hexagno", "six sides", "sides", "HÉX"])
def test_finds(query: str) -> None:
    assert score(query, "hexagon", "six sides") > 0


@pytest.mark.parametrize("query", ["zzz", "hexagon banana", "q"])
def test_does_not_find(query: str) -> None:
    assert score(query, "hexagon", "six sides") == 0


def test_the_label_comes_before_other_words() -> None:
    items = [("square", "four sides"), ("sides", "x"), ("side table", "y")]
    assert ranked("sides", items, lambda item: item)[0][0] == "sides"
    assert ranked("", items, lambda item: item) == items
