"""Pictures from elsewhere made into what a lesson holds, and pictures painted."""

from __future__ import annotations

import threading
from collections import OrderedDict
from errno import EFBIG
from pathlib import Path
from typing import NamedTuple

from PyQt6.QtCore import QBuffer, QByteArray, QIODevice, QRectF, QSize, Qt, QThread
from PyQt6.QtGui import QColor, QImage, QImageReader, QPainter
from PyQt6.QtSvg import QSvgRenderer

from larch.board.media.arrivals import arrivals
from larch.board.media.foreign import NotDrawn, foreign_image, is_foreign, is_plain, painted_elsewhere
from larch.board.paint import painting
from larch.core.base.disk import NoOrdinaryFile, read_bounded
from larch.core.base.words import _
from larch.core.media.store import LARGEST, store
from larch.core.media.svg_clean import CleanSvg, NotASvg
from larch.core.model.fact import number_text
from larch.core.things.pictures.picture import USUAL, Picture
from larch.services.threads import run_in_pool
from larch.services.worker import WorkerError, worker

MOST_SIDE = 12_000  # pixels along a side of what is read
MOST_PIXELS = 60_000_000
KEPT_SIDE = 3000  # pixels along the longer side of what is kept
KEPT_BYTES = 6 * 2**20  # of a file that is kept as it came
SHARPEST = 2048  # pixels along the longer side of what is held painted
HELD = 96 * 2**20  # bytes of painted pictures
AT_ONCE = 150_000  # bytes of a picture that is read while one waits
RENDERERS = 16
SVG_SECONDS = 4.0  # for writing a drawing anew
DEEPER = 105  # of 255: flat drawings are pale, and one colour needs more depth to show their parts
SORTS = {"png": "png", "jpeg": "jpg", "jpg": "jpg", "webp": "webp", "gif": "gif"}
ENDINGS = (".png", ".jpg", ".jpeg", ".webp", ".svg", ".gif")


class NoPicture(ValueError):
    """It can't be taken; the message is one sentence."""


class Brought(NamedTuple):
    """A picture made ready, and a sentence about what had to be left out of it; "" if nothing had."""

    picture: Picture
    said: str = ""


def picture_from_file(path: Path) -> Brought:
    """Raises NoPicture. To be called off the interface's thread: it reads and may scale."""
    try:
        data = read_bounded(path, 4 * LARGEST)
    except NoOrdinaryFile as error:
        raise NoPicture(_("{name} is no ordinary file.").format(name=path.name)) from error
    except OSError as error:
        if error.errno == EFBIG:
            raise NoPicture(_("{name} is too large a file for a picture.").format(name=path.name)) from error
        raise NoPicture(_("{name} can't be read.").format(name=path.name)) from error
    return picture_from_bytes(data, path.stem[:100], path.name)


def cleaned(data: bytes) -> CleanSvg:
    """A foreign drawing, written anew from what is harmless; in a process that can be stopped. Raises NotASvg."""
    request = worker().ask("larch.core.media.svg_clean:clean_plain", data, seconds=SVG_SECONDS)
    try:
        fresh, size, dropped = request.wait()
    except WorkerError as error:
        words = str(error) if error.kind == "NotASvg" else _("this drawing is too much for Larch.")
        raise NotASvg(words) from error
    return CleanSvg(fresh, tuple(size), dropped)


def picture_from_bytes(data: bytes, name: str, called: str = "") -> Brought:
    """A picture from the bytes of a file. Raises NoPicture with one sentence."""
    called = called or _("The picture")
    if _looks_like_svg(data):
        try:
            clean = cleaned(data)
        except NotASvg as error:
            raise NoPicture(f"{called}: {error}") from error
        try:
            painted_elsewhere(clean.data, 64)
        except NotDrawn as error:
            raise NoPicture(f"{called}: {error}.") from error
        said = (
            _("Scripts and what it fetches from outside were left out of {name}.").format(name=called)
            if clean.dropped
            else ""
        )
        return Brought(_placed(store.keep(clean.data, "svg"), clean.size, name), said)
    return _photograph(data, name, called)


def _looks_like_svg(data: bytes) -> bool:
    start = data[:1024].lstrip(b"\xef\xbb\xbf \t\r\n")
    return start[:1] == b"<" or (b"<svg" in data[:4096] and start[:4] not in (b"\x89PNG", b"RIFF", b"GIF8"))


def _photograph(data: bytes, name: str, called: str) -> Brought:
    buffer = QBuffer()
    buffer.setData(QByteArray(data))
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    reader = QImageReader(buffer)
    reader.setAutoTransform(True)
    sort = bytes(reader.format().data()).decode("ascii", "replace").lower()
    if sort not in SORTS:
        raise NoPicture(_("{name} is not a picture that Larch can read: PNG, JPEG, WebP, SVG or GIF.").format(name=called))
    size = reader.size()
    w, h = size.width(), size.height()
    if max(w, h) > MOST_SIDE or w * h > MOST_PIXELS:
        words = _("{name} is {w} by {h} points, which is too large; up to {most} a side can be taken.")
        counts = {"w": number_text(w, 0), "h": number_text(h, 0), "most": number_text(MOST_SIDE, 0)}
        raise NoPicture(words.format(name=called, **counts))
    if w > 0 and max(w, h) > KEPT_SIDE:
        reader.setScaledSize(size.scaled(QSize(KEPT_SIDE, KEPT_SIDE), Qt.AspectRatioMode.KeepAspectRatio))
    image = reader.read()
    if image.isNull() or image.width() < 1:
        raise NoPicture(_("{name} is damaged and can't be shown.").format(name=called))
    as_it_came = len(data) <= KEPT_BYTES and max(w, h) <= KEPT_SIDE and not reader.transformation().value
    kept = (data, SORTS[sort]) if as_it_came else _written(image)
    return Brought(_placed(store.keep(*kept), (image.width(), image.height()), name))


def picture_from_image(image: QImage, name: str = "") -> Brought:
    """From the clipboard of another program."""
    if image.isNull():
        raise NoPicture(_("There is no picture on the clipboard."))
    if max(image.width(), image.height()) > KEPT_SIDE:
        smooth = Qt.TransformationMode.SmoothTransformation
        image = image.scaled(KEPT_SIDE, KEPT_SIDE, Qt.AspectRatioMode.KeepAspectRatio, smooth)
    return Brought(_placed(store.keep(*_written(image)), (image.width(), image.height()), name))


def _written(image: QImage) -> tuple[bytes, str]:
    """As a JPEG, or as a PNG where one can see through it."""
    buffer = QBuffer()
    buffer.open(QIODevice.OpenModeFlag.WriteOnly)
    clear = image.hasAlphaChannel()
    image.save(buffer, "PNG" if clear else "JPEG", -1 if clear else 90)
    return bytes(buffer.data().data()), "png" if clear else "jpg"


def _placed(media: str, size: tuple[float, float], name: str) -> Picture:
    """At a size that suits a page: small ones as they are, large ones USUAL along the longer side, twice if photographs."""
    w, h = size
    most = USUAL if media.endswith(".svg") else 2 * USUAL
    scale = most / max(w, h)
    return Picture(media=media, width=max(0.1, w * scale), height=max(0.1, h * scale), name=name)


class _Painted:
    """Pictures as painted, by name, colour and size in pixels; the ones used last. Threads that export share it."""

    def __init__(self) -> None:
        self._held: OrderedDict[tuple[str, str, int], QImage] = OrderedDict()
        self._bytes = 0
        self._lock = threading.Lock()
        self._coming: set[tuple[str, str, int]] = set()
        self._lost: set[str] = set()
        self._refused: dict[str, str] = {}  # why a picture is not painted

    def get(self, media: str, tint: str, side: int) -> QImage | None:
        """A picture whose longer side has at least so many pixels; None if there is none to be had."""
        key = (media, tint, _bucket(side))
        found = self._look_up(key)
        if found is None and _is_interface() and is_foreign(media):
            return self.soon(media, tint, side)
        return found if found is not None or media in self._refused else self._make(key)

    def soon(self, media: str, tint: str, side: int) -> QImage | None:
        """The same for the interface's thread: a large picture is read in a thread of its own, and till it has come, a
        smaller one that is there already is given, or None. `arrivals` tells when it can be painted."""
        key = (media, tint, _bucket(side))
        found = self._look_up(key)
        if found is not None or media in self._lost or media in self._refused:
            return found
        data = store.data(media)
        at_once = data is None or (len(data) <= AT_ONCE and not is_foreign(media))
        if at_once or not _is_interface():
            return self._make(key)
        if key not in self._coming:
            with self._lock:
                self._coming.add(key)
            run_in_pool(lambda: self._fetch(key))
        with self._lock:
            others = [image for (name, hue, _wide), image in self._held.items() if (name, hue) == (media, tint)]
        return max(others, key=QImage.width, default=None)

    def is_coming(self, media: str) -> bool:
        with self._lock:
            return any(name == media for name, _tint, _wide in self._coming)

    def why_not(self, media: str) -> str:
        """Why a picture can't be painted; "" if nothing is known against it."""
        return self._refused.get(media, "")

    def _fetch(self, key: tuple[str, str, int]) -> None:
        try:
            self._make(key)
        finally:
            with self._lock:
                self._coming.discard(key)
        arrivals.arrived.emit(key[0])

    def _look_up(self, key: tuple[str, str, int]) -> QImage | None:
        with self._lock:
            found = self._held.get(key)
            if found is not None:
                self._held.move_to_end(key)
        return found

    def _make(self, key: tuple[str, str, int]) -> QImage | None:
        media, tint, wide = key
        try:
            image = foreign_image(media, wide) if is_foreign(media) else _image(media, wide)
        except NotDrawn as error:
            self._refused[media] = str(error)
            return None
        if image is None:
            self._lost.add(media)
            return None
        self._lost.discard(media)
        found = (_tinted(image, tint) if tint else image).convertToFormat(QImage.Format.Format_ARGB32_Premultiplied)
        with self._lock:
            self._held[key] = found
            self._bytes = sum(one.sizeInBytes() for one in self._held.values())
            while self._bytes > HELD and len(self._held) > 1:
                _key, gone = self._held.popitem(last=False)
                self._bytes -= gone.sizeInBytes()
        return found


def _is_interface() -> bool:
    """Whether someone waits for what this thread does: it runs the window, and more than one command."""
    thread = QThread.currentThread()
    return threading.current_thread() is _main and thread is not None and thread.loopLevel() > 0


def _bucket(side: int) -> int:
    wide = 16
    while wide < side and wide < SHARPEST:
        wide *= 2
    return wide


painted = _Painted()
_main = threading.main_thread()
_local = threading.local()


def renderer(media: str) -> QSvgRenderer | None:
    """Of a drawing, for this thread; None for what is none or is lost, or had better be shown as a picture."""
    known: OrderedDict[str, QSvgRenderer] = _local.__dict__.setdefault("renderers", OrderedDict())
    if media not in known:
        data = store.data(media) if media.endswith(".svg") else None
        if data is not None and is_foreign(media) and not (is_plain(data) and painted.get(media, "", 64) is not None):
            return None
        made = QSvgRenderer(QByteArray(data)) if data is not None else None
        if made is None or not made.isValid():
            return None
        known[media] = made
        while len(known) > RENDERERS:
            known.popitem(last=False)
    return known[media]


def _image(media: str, side: int) -> QImage | None:
    drawn = renderer(media)
    if drawn is not None:
        size = drawn.viewBoxF().size()
        longest = max(size.width(), size.height()) or 1.0
        wide, high = (max(1, round(side * one / longest)) for one in (size.width(), size.height()))
        image = QImage(wide, high, QImage.Format.Format_ARGB32_Premultiplied)
        image.fill(Qt.GlobalColor.transparent)
        with painting(image) as painter:
            drawn.render(painter, QRectF(0, 0, image.width(), image.height()))
        return image
    data = store.data(media)
    if data is None:
        return None
    buffer = QBuffer()
    buffer.setData(QByteArray(data))
    buffer.open(QIODevice.OpenModeFlag.ReadOnly)
    reader = QImageReader(buffer)
    reader.setAutoTransform(True)
    pixels = reader.size()
    if pixels.width() * pixels.height() > MOST_PIXELS:  # a file may hold what no one would have let in
        return None
    if max(pixels.width(), pixels.height()) > side:
        reader.setScaledSize(pixels.scaled(QSize(side, side), Qt.AspectRatioMode.KeepAspectRatio))
    image = reader.read()
    return None if image.isNull() else image


def _tinted(image: QImage, shade: str) -> QImage:
    """One colour whose depth follows how dark the drawing is."""
    flat = image.convertToFormat(QImage.Format.Format_ARGB32_Premultiplied)
    with painting(flat) as painter:
        painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_SourceAtop)
        painter.fillRect(flat.rect(), Qt.GlobalColor.white)
        painter.drawImage(0, 0, image.convertToFormat(QImage.Format.Format_Grayscale8))
        painter.fillRect(flat.rect(), QColor(0, 0, 0, DEEPER))
    whole = QImage(flat.size(), QImage.Format.Format_ARGB32_Premultiplied)
    whole.fill(Qt.GlobalColor.transparent)
    with painting(whole) as painter:
        painter.drawImage(0, 0, flat)
        painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_Screen)
        painter.fillRect(whole.rect(), QColor(shade))
        painter.setCompositionMode(QPainter.CompositionMode.CompositionMode_DestinationIn)
        painter.drawImage(0, 0, image)
    return whole
