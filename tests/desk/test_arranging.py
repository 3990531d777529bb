"""Pictures from elsewhere, the shelf's drawings and kept things, layers, set-outs, contents: through the real window."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import QEvent, QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QColor, QDragEnterEvent, QDropEvent, QGuiApplication, QImage, QImageWriter
from PyQt6.QtTest import QTest

from larch.board.media import pictures
from larch.core.base.shape import Placement
from larch.core.media.store import store
from larch.core.model.thing import media_of
from larch.core.things.numbers.block import Block
from larch.core.things.papers.sheet import Sheet
from larch.core.things.pictures.picture import Picture
from larch.core.things.words.text import Text
from larch.desk.commands.arrange import remember
from larch.desk.finder.findable import findable, pictures_found
from larch.desk.shelf import kept
from larch.desk.window import Window
from tests.board.test_tools import LEFT, NONE, Hand, move


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    made.put()
    return made


@pytest.fixture
def said(window: Window, monkeypatch: pytest.MonkeyPatch) -> list[str]:
    heard: list[str] = []
    monkeypatch.setattr(window.notice, "say", heard.append)
    return heard


def photograph(path: Path, width: int = 60, height: int = 40, sort: str = "png") -> Path:
    image = QImage(width, height, QImage.Format.Format_RGB32)
    image.fill(QColor("#2D6A8E"))
    writer = QImageWriter(str(path), sort.encode())
    assert writer.write(image)
    return path


def settled(window: Window, qtbot: object) -> None:
    qtbot.waitUntil(lambda: window.bringing.busy == 0, timeout=10_000)  # type: ignore[attr-defined]


def drop(window: Window, data: QMimeData) -> None:
    at = QPointF(window.canvas.mapTo(window, QPoint(400, 300)))
    action = Qt.DropAction.CopyAction
    enter = QDragEnterEvent(at.toPoint(), action, data, LEFT, NONE)
    window.dragEnterEvent(enter)
    assert enter.isAccepted()
    window.dropEvent(QDropEvent(at, action, data, LEFT, NONE, QEvent.Type.Drop))


def files(*paths: Path) -> QMimeData:
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path)) for path in paths])
    return data


@pytest.mark.parametrize("sort", ["png", "jpg", "webp"])
def test_a_dropped_photograph_lies_where_it_was_dropped(hand: Hand, tmp_path: Path, qtbot: object, sort: str) -> None:
    drop(hand.window, files(photograph(tmp_path / f"river.{sort}", 600, 400, sort)))
    settled(hand.window, qtbot)
    (picture,) = hand.canvas.page.things
    assert isinstance(picture, Picture) and picture.name == "river" and picture.media.endswith(sort)
    centre = hand.canvas.camera.to_page(400, 300)
    assert picture.box().centre == pytest.approx(centre, abs=1)
    assert picture.width / picture.height == pytest.approx(1.5)
    assert store.folder is not None and (store.folder / picture.media).exists()
    assert pictures.painted.get(picture.media, "", 64) is not None
    hand.window.undo()
    assert not hand.canvas.page.things


def test_many_files_come_side_by_side_and_the_bad_ones_are_named(
    hand: Hand, said: list[str], tmp_path: Path, qtbot: object
) -> None:
    good = [photograph(tmp_path / f"{k}.png", 50 + k, 40) for k in range(3)]
    text = tmp_path / "notes.png"
    text.write_text("these are no points")
    torn = tmp_path / "torn.png"
    torn.write_bytes(good[0].read_bytes()[:60])
    script = tmp_path / "drawing.svg"
    script.write_text(
        '<svg viewBox="0 0 9 9" xmlns="http://www.w3.org/2000/svg"><script>x</script><rect width="9" height="9"/></svg>'
    )
    broken = tmp_path / "broken.svg"
    broken.write_text("<svg><g></svg>")
    hand.window.bringing.files([*good, text, torn, script, broken, tmp_path / "missing.png"])
    settled(hand.window, qtbot)
    assert len(hand.canvas.page.things) == 4
    boxes = [thing.box() for thing in hand.canvas.page.things]
    assert not any(a.meets(b) for i, a in enumerate(boxes) for b in boxes[i + 1 :])
    assert len(said) == 4 and all(sentence.endswith(".") for sentence in said)
    assert "notes.png" in said[0] and "torn.png" in said[1] and "broken.svg" in said[2] and "missing.png" in said[3]
    assert sum("Scripts" in sentence for sentence in said) == 0  # four sentences are as much as anyone reads


def test_a_picture_of_thirty_thousand_points_is_refused_in_a_sentence(
    hand: Hand, said: list[str], tmp_path: Path, qtbot: object
) -> None:
    import struct
    import zlib

    def chunk(name: bytes, body: bytes) -> bytes:
        return struct.pack(">I", len(body)) + name + body + struct.pack(">I", zlib.crc32(name + body))

    rows = zlib.compress(b"\0" * 30_001 * 4)
    head = struct.pack(">IIBBBBB", 30_000, 30_000, 8, 0, 0, 0, 0)
    path = tmp_path / "huge.png"
    path.write_bytes(b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", rows) + chunk(b"IEND", b""))
    hand.window.bringing.files([path])
    settled(hand.window, qtbot)
    assert not hand.canvas.page.things
    assert said == ["huge.png is 30000 by 30000 points, which is too large; up to 12000 a side can be taken."]


def test_a_large_photograph_is_kept_smaller(tmp_path: Path) -> None:
    brought = pictures.picture_from_file(photograph(tmp_path / "wide.png", 5000, 1000))
    data = store.data(brought.picture.media)
    assert data is not None
    assert QImage.fromData(data).width() == pictures.KEPT_SIDE


def test_pictures_are_pasted_from_other_programs(hand: Hand, qtbot: object) -> None:
    clipboard = QGuiApplication.clipboard()
    assert clipboard is not None
    image = QImage(30, 20, QImage.Format.Format_ARGB32)
    image.fill(QColor(10, 20, 30, 120))
    clipboard.setImage(image)
    hand.window.run("paste")
    settled(hand.window, qtbot)
    assert hand.canvas.page.things[0].media.endswith(".png")  # type: ignore[attr-defined]
    data = QMimeData()
    data.setData("image/svg+xml", b'<svg viewBox="0 0 8 4"><circle r="2"/></svg>')
    clipboard.setMimeData(data)
    hand.window.run("paste")
    settled(hand.window, qtbot)
    assert hand.canvas.page.things[1].is_drawing()  # type: ignore[attr-defined]


def test_the_shelf_finds_drawings_and_puts_them_out(hand: Hand) -> None:
    window = hand.window
    window.show_shelf(True)
    window.shelf.search.setText("laterne")
    labels = [card.item.label for card in window.shelf.cards]
    assert "red paper lantern" in labels
    window.shelf.cards[labels.index("red paper lantern")].click()
    (picture,) = hand.canvas.page.things
    assert isinstance(picture, Picture) and picture.name == "red paper lantern"
    assert hand.canvas.selection == (picture.id,)
    window.shelf.search.setText("zzqq")
    assert not window.shelf.cards
    window.shelf.choose("Pictures")
    first = len(window.shelf.cards)
    bar = window.shelf._area.horizontalScrollBar()
    assert bar is not None
    for _k in range(3):
        QGuiApplication.processEvents()
        bar.setValue(bar.maximum())
    assert len(window.shelf.cards) > first  # more come as one scrolls
    assert any("lantern" in found.label for found in pictures_found(window.context, "lantern"))


def test_an_organiser_is_put_out_whole_in_one_step(hand: Hand) -> None:
    hand.window.show_shelf(True)
    hand.window.shelf.search.setText("flow chart")
    hand.window.shelf.cards[0].click()
    kinds = [thing.kind() for thing in hand.canvas.page.things]
    assert kinds.count("box") == 5 and kinds.count("connector") == 5
    assert not any(getattr(thing, "why", "") for thing in hand.canvas.page.things)
    hand.window.undo()
    assert not hand.canvas.page.things


def test_what_is_kept_is_found_on_the_shelf_in_another_lesson(hand: Hand, qtbot: object) -> None:
    window = hand.window
    hand.put(Sheet(placement=Placement(300, 200)), Text(text="answer", placement=Placement(320, 220)))
    window.keeping.keep(hand.canvas.page, hand.canvas.page.things, "my/answer: sheet")
    qtbot.waitUntil(lambda: bool(kept.items()), timeout=10_000)  # type: ignore[attr-defined]
    (item,) = kept.items()
    assert item.label == "my answer sheet"
    window.pages.new()
    window.show_shelf(True)
    window.shelf.search.setText("answer sheet")
    next(card for card in window.shelf.cards if card.item.tray == "Kept").click()
    assert [thing.kind() for thing in hand.canvas.page.things] == ["sheet", "text"]
    assert kept.forget(item.label) and not kept.items()


def test_a_whole_page_is_kept_with_its_paper_and_put_out_as_a_page(hand: Hand, qtbot: object) -> None:
    window = hand.window
    window.run("paper dotted")
    hand.canvas.commit(
        __import__("larch.core.actions.arrange.arrange", fromlist=["put"]).put(hand.canvas.page, [Block()], "x")
    )
    window.keeping.keep(hand.canvas.page, hand.canvas.page.things, "dots", whole=True)
    qtbot.waitUntil(lambda: bool(kept.items()), timeout=10_000)  # type: ignore[attr-defined]
    count = len(window.session.lesson.pages)
    window.putting.put_out(kept.items()[0])
    assert len(window.session.lesson.pages) == count + 1
    assert hand.canvas.page.paper.pattern == "dotted" and len(hand.canvas.page.things) == 1


def test_a_disk_that_refuses_is_told_and_nothing_is_lost(
    hand: Hand, said: list[str], qtbot: object, monkeypatch: pytest.MonkeyPatch
) -> None:
    def refuse(*_args: object) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr(kept, "write_lesson", refuse)
    hand.put(Block())
    hand.window.keeping.keep(hand.canvas.page, hand.canvas.page.things, "x")
    qtbot.waitUntil(lambda: bool(said), timeout=10_000)  # type: ignore[attr-defined]
    assert "No space left" in said[0] and len(hand.canvas.page.things) == 1


def test_things_dragged_onto_the_open_shelf_are_kept(hand: Hand, qtbot: object) -> None:
    window = hand.window
    hand.put(Sheet(placement=Placement(300, 200), width=80, height=60, name="leaf"))
    window.show_shelf(True)
    target = hand.canvas.mapFromGlobal(window.shelf.mapToGlobal(window.shelf.rect().center()))
    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(340, 230))
    move(hand.canvas, hand.at(350, 260), NONE)
    move(hand.canvas, target, NONE)
    assert window.shelf.tray == "Kept"
    QTest.mouseRelease(hand.canvas, LEFT, NONE, target)
    qtbot.waitUntil(lambda: [item.label for item in kept.items()] == ["leaf"], timeout=10_000)  # type: ignore[attr-defined]
    assert len(hand.canvas.page.things) == 1  # it stays on the page as well


# Layers


def test_the_list_of_layers_finds_what_lies_behind_and_changes_the_order(hand: Hand) -> None:
    low, high = hand.put(
        Sheet(placement=Placement(300, 200), width=80, height=60, name="under"),
        Sheet(placement=Placement(280, 180), width=200, height=160, name="over"),
    )
    hand.window.run("layers")
    card = hand.window._cards["layers"]
    assert card is not None and card.ids == [high, low]
    card.list.setCurrentRow(1)
    assert hand.canvas.selection == (low,)
    card._reordered(1, 0)
    assert [t.id for t in hand.canvas.page.things] == [high, low] and card.ids == [low, high]
    card._reordered(0, 2)
    assert [t.id for t in hand.canvas.page.things] == [low, high]
    card.switch(high, "hidden")
    assert hand.thing(high).hidden
    hand.tap(340, 230)
    assert hand.canvas.selection == (low,)
    card.switch(high, "hidden")
    card.switch(low, "locked")
    assert hand.thing(low).locked and not hand.thing(high).hidden
    card.rename(low, "the answer")
    assert hand.thing(low).name == "the answer"
    card.search.setText("answer")
    assert card.ids == [low]
    hand.window.run("layers")
    assert not card.isVisible()


def test_ink_is_among_the_layers_and_hundreds_of_them_open_quickly(hand: Hand) -> None:
    from tests.samples import stroke

    hand.put(*(stroke(y=100 + k) for k in range(300)))
    hand.window.run("layers")
    assert len(hand.window._cards["layers"].ids) == 300
    rows = hand.window._cards["layers"].list
    made = [rows.itemWidget(rows.item(k)) is not None for k in range(300)]
    assert made[0] and not made[-1]  # rows are made as they are seen
    rows.scrollToBottom()
    assert rows.itemWidget(rows.item(299)) is not None


# Pages


def test_arrangements_are_remembered_by_name(hand: Hand) -> None:
    (block,) = hand.put(Block(placement=Placement(100, 100)))
    remember(hand.window.context, "start")
    hand.drag(hand.thing(block).box().centre, (600, 400))
    remember(hand.window.context, "end")
    found = {one.label: one for one in findable(hand.window.context)}
    found["set out again: start"].run()
    assert (hand.thing(block).placement.x, hand.thing(block).placement.y) == (100, 100)
    {one.label: one for one in findable(hand.window.context)}["set out again: end"].run()
    assert hand.thing(block).placement.x > 400


def test_a_page_of_contents_leads_to_every_titled_page(hand: Hand) -> None:
    window = hand.window
    window.run("contents")
    links = [thing.link for thing in hand.canvas.page.things if thing.link]
    titled = [page.id for page in window.session.lesson.pages[1:] if page.title]
    assert links[: len(titled)] == [f"#{id}" for id in titled][: len(links)] and links
    window.undo()
    assert window.session.lesson.pages[0].title != "Contents"


def test_a_sound_is_put_behind_a_thing_and_goes_into_the_file(hand: Hand, tmp_path: Path, said: list[str]) -> None:
    (block,) = hand.put(Block())
    path = tmp_path / "bell.wav"
    path.write_bytes(b"RIFF0000WAVE")
    hand.canvas.select([block])
    hand.window.following.sound_from(path)
    assert hand.thing(block).link.startswith("sound:") and media_of(hand.thing(block))
    hand.window.following.sound_from(tmp_path / "no.txt")
    assert "no sound" in said[-1]


def test_laying_out_copies_from_the_facts(hand: Hand) -> None:
    hand.put(Sheet(placement=Placement(100, 100), width=40, height=40))
    hand.canvas.select([hand.canvas.page.things[0].id])
    hand.window.facts.want(True)
    hand.window.facts.set_fact("copies", "4 x 3")
    assert len(hand.canvas.page.things) == 12
    hand.window.facts.set_fact("moves", "board")
    assert hand.canvas.page.things[0].hold == "board"
    hand.window.facts.set_fact("link", "2")
    assert hand.canvas.page.things[0].link == f"#{hand.window.session.lesson.pages[1].id}"


def test_a_large_photograph_is_read_in_a_thread_and_then_painted(hand: Hand, tmp_path: Path, qtbot: object) -> None:
    import random

    rnd = random.Random(4)
    image = QImage(900, 600, QImage.Format.Format_RGB32)
    for y in range(0, 600, 2):
        for x in range(0, 900, 2):
            image.setPixel(x, y, rnd.getrandbits(24))  # noise, so that no format makes it small
    path = tmp_path / "noise.png"
    assert image.save(str(path))
    picture = pictures.picture_from_file(path).picture
    assert pictures.painted.soon(picture.media, "", 512) is None and pictures.painted.is_coming(picture.media)
    hand.put(picture.moved(300, 200))
    qtbot.waitUntil(lambda: pictures.painted.soon(picture.media, "", 512) is not None, timeout=10_000)  # type: ignore[attr-defined]
    qtbot.waitUntil(lambda: not pictures.painted.is_coming(picture.media), timeout=10_000)  # type: ignore[attr-defined]
    hand.canvas.surface.sharpen(2000)
    at = hand.at(420, 300)
    colours = {hand.canvas.grab().toImage().pixel(at.x() + k, at.y()) for k in range(6)}
    assert len(colours) > 1


def test_what_has_been_lost_is_shown_as_missing_and_kept(hand: Hand) -> None:
    hand.put(Picture(media=f"{'a' * 64}.png", placement=Placement(300, 200)))
    assert pictures.painted.soon(f"{'a' * 64}.png", "", 64) is None
    assert not pictures.painted.is_coming(f"{'a' * 64}.png")
    assert hand.canvas.grab().toImage().pixel(hand.at(305, 205)) != 0


def test_a_drawing_in_one_colour_is_painted_in_that_colour(hand: Hand) -> None:
    from larch.core.media import picture_set

    drawing = picture_set.search("red apple", 1)[0]
    image = pictures.painted.get(f"{drawing.hash}.svg", "#1F6F8B", 64)
    assert image is not None
    hues = [image.pixelColor(x, y) for x in range(0, 64, 4) for y in range(0, 64, 4)]
    seen = [colour for colour in hues if colour.alpha() > 250 and colour.hsvSaturation() > 20]
    assert seen and all(abs(colour.hue() - QColor("#1F6F8B").hue()) < 12 for colour in seen)


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


def test_the_number_of_a_page_dragged_onto_the_shelf_keeps_the_page(hand: Hand, qtbot: object) -> None:
    window = hand.window
    hand.put(Block())
    window.show_shelf(True)
    number = window.ledge.number
    target = number.mapFromGlobal(window.shelf.mapToGlobal(window.shelf.rect().center()))
    QTest.mousePress(number, LEFT, NONE, number.rect().center())
    for at in (QPoint(30, -20), target):
        move(number, at, NONE)
    QTest.mouseRelease(number, LEFT, NONE, target)
    qtbot.waitUntil(lambda: bool(kept.items()), timeout=10_000)  # type: ignore[attr-defined]
    assert kept.page_of(kept.items()[0]) is not None
    assert not window.shows("spread")  # the press did not mean the list of pages
    window.show_shelf(False)
    QTest.mouseClick(number, LEFT, NONE, number.rect().center())
    assert window.shows("spread")
