"""Links to pages, addresses, files and sounds."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint

from larch.core.media.store import store
from larch.core.model.thing import media_of
from larch.core.things.numbers.block import Block
from larch.desk.window import Window
from tests.board.test_tools import Hand
from tests.samples import sheet


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    made.put()
    return made


def test_a_sound_is_put_behind_a_thing_and_goes_into_the_file(hand: Hand, tmp_path: Path, said: list[str]) -> None:
    (block,) = hand.put(Block())
    path = tmp_path / "bell.wav"
    path.write_bytes(b"RIFF0000WAVE")
    hand.canvas.select([block])
    hand.window.following.sound_from(path)
    assert hand.thing(block).link.startswith("sound:") and media_of(hand.thing(block))
    hand.window.following.sound_from(tmp_path / "no.txt")
    assert "no sound" in said[-1]


def test_addresses_are_typed_and_bad_ones_answered(hand: Hand, said: list[str]) -> None:
    (block,) = hand.put(Block())
    hand.canvas.select([block])
    hand.window.following.to_address("larch.example/kites")
    assert hand.thing(block).link == "https://larch.example/kites"
    hand.window.following.to_address("javascript:alert(1)")
    assert len(said) == 1 and hand.thing(block).link == "https://larch.example/kites"
    hand.window.following.follow("file:///nowhere/at/all.pdf")
    hand.window.following.follow("nonsense")
    assert said[1].startswith("There is no file all.pdf") and said[2] == "This link leads nowhere."


def test_a_sound_plays_or_it_is_said_why_not(hand: Hand, said: list[str]) -> None:
    import struct

    samples = b"".join(struct.pack("<h", 8000 if k // 40 % 2 else -8000) for k in range(800))
    head = struct.pack(
        "<4sI4s4sIHHIIHH4sI",
        b"RIFF",
        36 + len(samples),
        b"WAVE",
        b"fmt ",
        16,
        1,
        1,
        8000,
        16000,
        2,
        16,
        b"data",
        len(samples),
    )
    following = hand.window.following
    following.follow(f"sound:{store.keep(head + samples, 'wav')}")
    assert following.player is not None or said == ["This machine can't play sounds."]
    following.follow(f"sound:{'0' * 64}.wav")
    assert said[-1] == "The sound is missing."


def test_a_link_is_followed_at_the_board_even_on_a_locked_thing(hand: Hand) -> None:
    hand.put(sheet(300, 200, link="#p1", locked=True), sheet(600, 200, link="#p999"))
    page = hand.canvas.page_id
    hand.canvas.at_board = True
    hand.tap(640, 230)
    assert hand.canvas.page_id == page  # it is said that the page is gone
    hand.tap(340, 230)
    assert hand.canvas.page_id == "p1"


def test_outside_links_are_asked_before_they_are_opened(hand: Hand, monkeypatch: pytest.MonkeyPatch) -> None:
    opened: list[str] = []
    monkeypatch.setattr("larch.desk.media.following.Following.open_outside", staticmethod(opened.append))
    hand.put(sheet(300, 200, link="https://larch.example/"))
    hand.canvas.at_board = True
    hand.tap(340, 230)
    assert not opened
    hand.canvas.withdraw(accepted=True)
    assert opened == ["https://larch.example/"]
    assert isinstance(hand.canvas.mapToGlobal(QPoint(0, 0)), QPoint)
