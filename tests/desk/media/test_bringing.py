"""Pictures from elsewhere: dropped, pasted, read from files, refused in a sentence."""

from __future__ import annotations

from pathlib import Path

import pytest
from PyQt6.QtCore import QEvent, QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QColor, QDragEnterEvent, QDropEvent, QGuiApplication, QImage, QImageWriter

from larch.board.media import pictures
from larch.core.base.shape import Placement
from larch.core.media.store import store
from larch.core.things.ink.ink import Ink
from larch.core.things.pictures.picture import Picture
from larch.desk.window import Window
from tests.board.test_tools import LEFT, NONE, Hand


@pytest.fixture
def hand(window: Window) -> Hand:
    made = Hand(window)
    made.put()
    return made


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


def test_a_large_photograph_is_read_in_a_thread_and_then_painted(
    hand: Hand, tmp_path: Path, qtbot: object, monkeypatch: pytest.MonkeyPatch
) -> None:
    import random

    rnd = random.Random(4)
    image = QImage(900, 600, QImage.Format.Format_RGB32)
    for y in range(0, 600, 2):
        for x in range(0, 900, 2):
            image.setPixel(x, y, rnd.getrandbits(24))  # noise, so that no format makes it small
    path = tmp_path / "noise.png"
    assert image.save(str(path))
    picture = pictures.picture_from_file(path).picture
    monkeypatch.setattr(pictures, "_is_interface", lambda: True)
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


def test_an_ink_file_that_is_dropped_becomes_ink_round_that_place(hand: Hand, tmp_path: Path, qtbot: object) -> None:
    path = tmp_path / "wave.INKML"
    path.write_text('<ink xmlns="http://www.w3.org/2003/InkML"><trace>1 1, 2 3, 4 2</trace><trace>5 5, 6 6</trace></ink>')
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(path))])
    assert hand.window.bringing.takes(data)
    drop(hand.window, data)
    qtbot.waitUntil(lambda: len(hand.canvas.page.things) == 2, timeout=10_000)  # type: ignore[attr-defined]
    assert all(isinstance(thing, Ink) for thing in hand.canvas.page.things)
    x, y = hand.canvas.camera.to_page(400, 300)
    boxes = [thing.box() for thing in hand.canvas.page.things]
    assert min(b.x0 for b in boxes) < x < max(b.x1 for b in boxes) and min(b.y0 for b in boxes) < y < max(
        b.y1 for b in boxes
    )
    hand.window.undo()
    assert not hand.canvas.page.things


@pytest.mark.parametrize("text", ["no ink at all", "<ink/>", "<ink><trace>NaN 1</trace></ink>"])
def test_a_file_without_ink_says_so_in_one_sentence(
    hand: Hand, said: list[str], tmp_path: Path, text: str, qtbot: object
) -> None:
    path = tmp_path / "bad.inkml"
    path.write_text(text)
    hand.window.bringing.files([path])
    qtbot.waitUntil(lambda: bool(said), timeout=10_000)  # type: ignore[attr-defined]
    assert len(said) == 1 and said[0].endswith(".") and not hand.canvas.page.things
