"""The Finder by keys and by hand, over a list that is made for it."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QWidget

from larch.desk.finder.findable import findable
from larch.desk.finder.finder import Finder, Found
from tests.board.test_tools import Hand

KEYS = Qt.Key


@pytest.fixture
def done() -> list[str]:
    return []


@pytest.fixture
def finder(qtbot, done: list[str]) -> Iterator[Finder]:  # type: ignore[no-untyped-def]
    room = QWidget()
    room.resize(900, 600)
    qtbot.addWidget(room)

    def one(label: str, words: str = "", place: str = "Page") -> Found:
        return Found(label, words, "", place, lambda: done.append(label))

    listed = [one("hexagon", "six sides", "Shapes"), one("lock", "keep"), one("side table"), one("unlock")]
    made = Finder(room, lambda: listed, lambda query: [one("a lantern", query)] if query == "lantern" else [])
    room.show()
    made.open()
    yield made
    room.close()  # and is held until now


def labels(finder: Finder) -> list[str]:
    return [finder.list.item(row).text().split("   ·")[0] for row in range(finder.list.count())]


def test_all_is_listed_until_something_is_typed(finder: Finder) -> None:
    assert labels(finder) == ["hexagon", "lock", "side table", "unlock"]


def test_what_begins_so_comes_before_what_only_means_it(finder: Finder) -> None:
    QTest.keyClicks(finder.field, "side")
    assert labels(finder) == ["side table", "hexagon"]


def test_enter_runs_the_chosen_one_and_closes(finder: Finder, done: list[str]) -> None:
    QTest.keyClicks(finder.field, "lock")
    first = labels(finder)
    QTest.keyClick(finder.field, KEYS.Key_Down)
    QTest.keyClick(finder.field, KEYS.Key_Down)  # past the end: the last stays chosen
    QTest.keyClick(finder.field, KEYS.Key_Return)
    assert done == [first[-1]] and finder.isHidden()


def test_up_stays_at_the_first(finder: Finder, done: list[str]) -> None:
    QTest.keyClick(finder.field, KEYS.Key_Up)
    QTest.keyClick(finder.field, KEYS.Key_Enter)
    assert done == ["hexagon"]


def test_esc_closes_and_does_nothing(finder: Finder, done: list[str]) -> None:
    QTest.keyClick(finder.field, KEYS.Key_Escape)
    assert done == [] and finder.isHidden()


def test_a_tap_runs_what_it_meets(finder: Finder, done: list[str]) -> None:
    spot = finder.list.visualItemRect(finder.list.item(1)).center()
    QTest.mouseClick(finder.list.viewport(), Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, spot)
    assert done == ["lock"]


def test_nothing_found_is_said_and_cannot_be_run(finder: Finder, done: list[str]) -> None:
    QTest.keyClicks(finder.field, "zzz")
    assert labels(finder) == ["Nothing is called that."]
    QTest.keyClick(finder.field, KEYS.Key_Return)
    assert done == []


def test_what_is_too_much_for_a_list_is_asked_for(finder: Finder) -> None:
    QTest.keyClicks(finder.field, "lantern")
    assert labels(finder)[-1] == "a lantern"


def test_it_fits_a_small_room(finder: Finder) -> None:
    finder.parentWidget().resize(400, 300)
    finder.open()
    assert finder.parentWidget().rect().contains(finder.geometry())


def test_listing_what_there_is_opens_nothing(window) -> None:  # type: ignore[no-untyped-def]
    assert findable(window.context)
    assert not window.shows("shelf") and not window.shows("choices")


def test_a_folded_action_is_found_by_its_menu(window) -> None:  # type: ignore[no-untyped-def]
    hand = Hand(window)
    from larch.core.things.geometry.polygon import Polygon

    ids = hand.put(Polygon(vertices=((0, 0), (200, 0), (0, 150))))
    window.canvas.select(ids)
    window.finder.open()
    QTest.keyClicks(window.finder.field, "construct midpoint")
    assert labels(window.finder)[0] == "Midpoint"


@pytest.mark.parametrize(
    ("query", "label"),
    [("to words", "Read as words"), ("to mathematics", "Read as mathematics"), ("true up", "True up the shape")],
)
def test_ink_is_read_by_the_words_that_stand_on_its_tag(window, query: str, label: str) -> None:  # type: ignore[no-untyped-def]
    hand = Hand(window)
    from larch.core.things.ink.ink import ink_from

    window.canvas.select(hand.put(ink_from([(x, 200.0, 0.7, 0.0) for x in range(100, 200, 10)])))
    window.finder.open()
    QTest.keyClicks(window.finder.field, query)
    assert labels(window.finder)[0] == label
