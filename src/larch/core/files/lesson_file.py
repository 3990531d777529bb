"""The .larch file: a ZIP that any program can look into. Reading never trusts, writing never half-writes."""

from __future__ import annotations

import contextlib
import re
import time
import zlib
from collections.abc import Callable, Iterable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any, BinaryIO, NamedTuple

import msgspec
from msgspec import Raw, Struct

from larch.core.base.bounds import MOST_ENTRIES, MOST_MATHML, MOST_PAGES
from larch.core.base.disk import NoOrdinaryFile, Stat, disk, replace_file, sweep, usual_mode
from larch.core.base.foreseen import Foreseen
from larch.core.base.memo import remember
from larch.core.base.signs import ALLOWED, Signs
from larch.core.base.words import _, many
from larch.core.files.codec import CodecError, page_later, page_to_json
from larch.core.media.store import LARGEST as LARGEST_MEDIUM
from larch.core.media.store import NAME as MEDIUM
from larch.core.media.store import digest, store
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.model.page_list import PageList, Slot
from larch.core.model.thing import media_of

if TYPE_CHECKING:  # it is imported when a file is read or written: a start does without
    import zipfile

MIMETYPE = "application/vnd.larch.lesson+zip"
VERSION = 1
LARGEST_ENTRY = 256 * 2**20  # bytes, unpacked
LARGEST_FILE = 1024 * 2**20

Picture = Callable[[Page], bytes]
MEDIA_NAME = re.compile(MEDIUM.pattern.encode())  # in a page as it stands in its file


class LessonFileError(Foreseen):
    """The file can't be read; the message is one sentence for a person."""


class Opened(Struct, frozen=True):
    """A lesson as read, and one sentence for each thing that was left out or is newer."""

    lesson: Lesson
    losses: tuple[str, ...] = ()
    newer: bool = False

    @property
    def lost(self) -> int:
        """How many sentences tell of something that was left out."""
        return len(self.losses) - self.newer


class _PageEntry(Struct):
    id: str
    title: str = ""


class _LessonEntry(Struct, omit_defaults=True):
    version: int
    title: str = ""
    language: str = "en"
    next: int = 1
    signs: dict[str, str] = {}
    pages: list[_PageEntry] = []


def write_lesson(
    lesson: Lesson, path: Path, picture: Picture | None = None, before: Callable[[Stat, Path], object] | None = None
) -> list[str]:
    """Puts a lesson in the place of what was there (see `replace_file`); what it was renamed over is then gone.

    `picture` gives a page as SVG. Returns the names of media that are nowhere to be found: those that only the replaced file
    has are taken over from it. Raises OSError; the old file is then as it was.
    """
    target = path.resolve()
    found, missing = _media_of(lesson, target)
    mode = usual_mode(target)
    replace_file(target, lambda out: _write_zip(lesson, out, picture, found), mode, _read_back, before)
    sweep(target)
    return missing


def _media_of(lesson: Lesson, path: Path) -> tuple[list[str], list[str]]:
    """The media that a lesson needs and that are to be had, and those that are not."""
    import zipfile

    names = media_in(lesson.pages)
    missing = [name for name in names if store.data(name) is None]
    if missing:
        with contextlib.suppress(OSError, ValueError, zipfile.BadZipFile), disk().reader(path) as file:
            archive = zipfile.ZipFile(file)
            for name in missing:
                with contextlib.suppress(KeyError, ValueError, OSError, zipfile.BadZipFile, zlib.error, EOFError):
                    store.keep(_medium(archive, name), name.rpartition(".")[2])
    missing = [name for name in missing if store.data(name) is None]
    return [name for name in names if name not in missing], missing


def _read_back(path: Path) -> None:
    """What was written is whole, to the last bit. Raises OSError."""
    import zipfile

    try:
        with disk().reader(path) as file, zipfile.ZipFile(file) as archive:
            damaged = archive.testzip()
    except (ValueError, zipfile.BadZipFile, zlib.error, EOFError) as error:
        raise OSError(5, "what was written reads differently") from error
    if damaged is not None:
        raise OSError(5, "what was written reads differently")


def _moment() -> tuple[int, int, int, int, int, int]:
    """Now, as far as a ZIP can say it: a clock before 1980 or after 2107 is a clock that is wrong."""
    now = time.localtime()
    return now[:6] if 1980 <= now.tm_year <= 2107 else (1980, 1, 1, 0, 0, 0)


def _write_zip(lesson: Lesson, out: BinaryIO, picture: Picture | None, media: Sequence[str]) -> None:
    import zipfile

    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED, compresslevel=1) as archive:
        archive.writestr(_entry("mimetype", (1980, 1, 1, 0, 0, 0)), MIMETYPE, zipfile.ZIP_STORED)
        now = _moment()
        mathml = 0
        archive.writestr(_entry("lesson.json", now), _lesson_json(lesson))
        for slot in lesson.pages.slots:
            raw = slot.raw
            if raw is not None and picture is None and not slot.ready:  # just as it came
                archive.writestr(_entry(f"pages/{slot.id}.json", now), raw)
                continue
            page = slot.page()
            for ending, part in packed_parts(page):
                mathml += ending.endswith(".mml")
                if ending.endswith(".mml") and mathml > MOST_MATHML:
                    continue
                _add_packed(archive, f"pages/{page.id}{ending}", part, now)
            if picture is not None:
                archive.writestr(_entry(f"pages/{page.id}.svg", now), picture(page))
        for name in media:
            data = store.data(name)
            if data is None:
                raise OSError(5, "a picture was lost while it was being saved", name)
            way = zipfile.ZIP_DEFLATED if name.endswith(".svg") else zipfile.ZIP_STORED
            archive.writestr(_entry(f"media/{name}", now), data, way)


def media_in(pages: Iterable[Page]) -> list[str]:
    """The names of all media that pages speak of, those of their set-outs too. Pages that are still to be made are not made
    for this: what looks like such a name in their text is one."""
    found: set[str] = set()
    for slot in PageList.of(pages).slots:
        if slot.raw is not None and not slot.ready:
            found.update(match[0].decode() for match in MEDIA_NAME.finditer(slot.raw))
        else:
            found |= _page_media(slot.page())
    return sorted(found)


@remember
def _page_media(page: Page) -> frozenset[str]:
    things = [*page.things, *(thing for kept in page.setouts for thing in kept.things)]
    return frozenset(name for thing in things for name in media_of(thing))


class _Packed(NamedTuple):
    data: bytes
    check: int
    size: int


@remember
def packed_parts(page: Page) -> list[tuple[str, _Packed]]:
    """A page's files, deflated. Remembered with the immutable page: one that did not change is not packed again."""
    from larch.core.files.inkml import page_inkml
    from larch.core.files.mathml import page_mathml

    parts = [(".json", page_to_json(page)), (".inkml", page_inkml(page))]
    parts += [(f"-{name}.mml", data) for name, data in page_mathml(page)]
    found = []
    for ending, data in parts:
        if data:
            packer = zlib.compressobj(1, zlib.DEFLATED, -15)
            found.append((ending, _Packed(packer.compress(data) + packer.flush(), zlib.crc32(data), len(data))))
    return found


def _entry(name: str, moment: tuple[int, int, int, int, int, int]) -> zipfile.ZipInfo:
    """What can be read once it is unzipped."""
    import zipfile

    made = zipfile.ZipInfo(name, moment)
    made.external_attr = 0o644 << 16
    made.compress_type = zipfile.ZIP_DEFLATED
    return made


def _add_packed(archive: zipfile.ZipFile, name: str, part: _Packed, moment: tuple[int, int, int, int, int, int]) -> None:
    """Adds what is deflated already, which `zipfile` itself has no call for."""
    import zipfile

    entry = zipfile.ZipInfo(name, moment)
    entry.compress_type = zipfile.ZIP_DEFLATED
    entry.external_attr = 0o644 << 16  # else what is unzipped can't be read
    entry.CRC, entry.file_size, entry.compress_size = part.check, part.size, len(part.data)
    out = archive.fp
    assert out is not None
    entry.header_offset = out.tell()
    out.write(entry.FileHeader(zip64=False))
    out.write(part.data)
    archive.filelist.append(entry)
    archive.NameToInfo[name] = entry
    archive.start_dir = out.tell()


class _Titled(Struct):
    title: str = ""


def _title(slot: Slot) -> str:
    raw = slot.raw
    if raw is not None and not slot.ready:
        return msgspec.json.decode(raw, type=_Titled).title
    return slot.page().title


def _lesson_json(lesson: Lesson) -> bytes:
    entries = [_PageEntry(slot.id, _title(slot)) for slot in lesson.pages.slots]
    entry = _LessonEntry(
        VERSION,
        lesson.title,
        lesson.language,
        lesson.next,
        {n: s for n, s in msgspec.structs.asdict(lesson.signs).items() if s},
        entries,
    )
    fields: dict[str, Any] = msgspec.json.decode(msgspec.json.encode(entry), type=dict[str, Raw])
    fields.update({name: Raw(raw) for name, raw in lesson.extra})
    return msgspec.json.format(msgspec.json.encode(fields), indent=2)


def read_lesson(path: Path) -> Opened:
    """Reads as far as can be read. Raises LessonFileError, with one sentence, if that is nowhere."""
    import zipfile

    try:
        size = disk().stat(path).size
        if size > LARGEST_FILE:
            raise LessonFileError(_("{name} is too large for a lesson.").format(name=path.name))
        with disk().reader(path) as file, zipfile.ZipFile(file) as archive:
            return _read_zip(archive, path.name)
    except FileNotFoundError as error:
        raise LessonFileError(_("There is no file {name}.").format(name=path.name)) from error
    except (zipfile.BadZipFile, UnicodeDecodeError, EOFError, ValueError) as error:
        raise LessonFileError(_("{name} is not a Larch lesson.").format(name=path.name)) from error
    except NoOrdinaryFile as error:
        raise LessonFileError(_("{name} is no ordinary file and was not opened.").format(name=path.name)) from error
    except (OSError, RuntimeError, zlib.error) as error:
        raise LessonFileError(_("{name} can't be read.").format(name=path.name)) from error


def _read_zip(archive: zipfile.ZipFile, name: str) -> Opened:
    if len(archive.infolist()) > MOST_ENTRIES:
        raise LessonFileError(_("{name} holds far too many parts for a lesson.").format(name=name))
    for part in archive.namelist():
        if part.startswith("/") or ".." in part.split("/") or "\\" in part:
            raise LessonFileError(_("{name} points outside itself and was not opened.").format(name=name))
    try:
        head = _bounded(archive, "lesson.json")
        entry = msgspec.json.decode(head, type=_LessonEntry)
        fields = msgspec.json.decode(head, type=dict[str, Raw])
    except KeyError as error:
        raise LessonFileError(_("{name} is not a Larch lesson.").format(name=name)) from error
    except (msgspec.MsgspecError, RecursionError) as error:
        raise LessonFileError(_("{name} is damaged: its list of pages can't be read.").format(name=name)) from error
    losses: list[str] = []
    newer = entry.version > VERSION
    if newer:
        losses.append(_("It was made by a newer Larch; what this one can't show is kept."))
    pages = _read_pages(archive, entry, losses)
    _read_media(archive, pages, losses)
    extra = tuple((k, bytes(v)) for k, v in sorted(fields.items()) if k not in _LessonEntry.__struct_fields__)
    ids = [int(page.id[1:]) for page in pages if page.id[:1] == "p" and page.id[1:].isdecimal()]
    lesson = Lesson(
        title=entry.title, language=entry.language, pages=PageList(pages), next=max([entry.next, *(i + 1 for i in ids)]),
        signs=_signs(entry.signs), extra=extra,
    )  # fmt: skip
    if not pages:
        if entry.pages:
            raise LessonFileError(_("{name} is damaged: none of its pages can be read.").format(name=name))
        lesson = lesson.insert(Page(id=""))
    return Opened(lesson, tuple(losses), newer)


def _signs(written: dict[str, str]) -> Signs:
    """How mathematics is written; by what this version does not know, as it was typed."""
    return Signs(**{name: sign for name, sign in written.items() if sign in ALLOWED.get(name, ())})


def _read_pages(archive: zipfile.ZipFile, entry: _LessonEntry, losses: list[str]) -> list[Slot]:
    import zipfile

    pages: list[Slot] = []
    seen: set[str] = set()
    left = LARGEST_FILE
    if len(entry.pages) > MOST_PAGES:
        losses.append(_("It has more than {most} pages; the others were left out.").format(most=MOST_PAGES))
    for number, listed in enumerate(entry.pages[:MOST_PAGES], 1):
        try:
            if listed.id in seen:
                raise CodecError("a page is listed twice")
            data = _bounded(archive, f"pages/{listed.id}.json")
            left -= len(data)
            if left < 0:
                raise CodecError("too large")
            lost: list[str] = []
            page = page_later(data, listed.id, lost)
        except (KeyError, CodecError, zipfile.BadZipFile, zlib.error, EOFError, OSError) as error:
            missing = isinstance(error, KeyError)
            text = _("Page {n} is missing.") if missing else _("Page {n} is damaged and was left out.")
            losses.append(text.format(n=number))
            continue
        seen.add(listed.id)
        if lost:
            text = many("1 thing on page {{page}} was left out.", "{n} things on page {{page}} were left out.", len(lost))
            losses.append(text.format(page=number))
        pages.append(page)
    return pages


def _read_media(archive: zipfile.ZipFile, pages: list[Slot], losses: list[str]) -> None:
    """Takes what the pages speak of into the store. What is missing or not what its name says is told, not taken."""
    import zipfile

    lost = 0
    left = LARGEST_FILE
    for name in media_in(PageList(pages)):
        if store.has(name):
            continue
        try:
            data = _medium(archive, name)
            left -= len(data)
            if left < 0:
                raise CodecError("too large")
            store.keep(data, name.rpartition(".")[2], sure=False)
        except (KeyError, ValueError, zipfile.BadZipFile, zlib.error, EOFError, OSError):
            lost += store.data(name) is None
    if lost:
        losses.append(many("1 picture is missing or damaged.", "{n} pictures are missing or damaged.", lost))


def _medium(archive: zipfile.ZipFile, name: str) -> bytes:
    """A medium out of a lesson file. Raises ValueError where it is not what its name says, and what zipfile raises."""
    with archive.open(f"media/{name}") as part:
        data = part.read(LARGEST_MEDIUM + 1)
    if not MEDIUM.fullmatch(name) or digest(data) != name[:64]:
        raise CodecError("not what its name says")
    return _harmless(data, name)


def _harmless(data: bytes, name: str) -> bytes:
    """A lesson from elsewhere may hold a drawing that no one has looked at. Raises ValueError."""
    if name.endswith(".svg"):
        from larch.core.media.svg_clean import clean_svg

        if clean_svg(data).dropped:
            raise ValueError("the drawing does more than to show something")
    return data


def _bounded(archive: zipfile.ZipFile, name: str) -> bytes:
    """Unpacks an entry, but never more than LARGEST_ENTRY bytes, whatever its header claims."""
    with archive.open(name) as entry:
        data = entry.read(LARGEST_ENTRY + 1)
    if len(data) > LARGEST_ENTRY:
        raise CodecError("too large")
    return data
