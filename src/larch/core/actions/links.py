"""Where a thing leads when it is tapped: a page, a web address, a file, a sound."""

from __future__ import annotations

import math
import re
from pathlib import Path
from typing import NamedTuple
from urllib.parse import unquote, urlsplit

from larch.core.base.shape import Placement
from larch.core.base.words import N_, _
from larch.core.media.store import NAME
from larch.core.model.action import Action, Things, register
from larch.core.model.edit import Edit
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.words.rich import TITLE
from larch.core.things.words.text import Text

LONGEST = 2000
FEWEST_ROWS, CONTENTS_HIGH = 9, 504.0  # of a page of contents
HARMLESS = frozenset(
    (
        ".pdf",
        ".png",
        ".jpg",
        ".jpeg",
        ".webp",
        ".gif",
        ".bmp",
        ".tif",
        ".tiff",
        ".txt",
        ".csv",
        ".md",
        ".odt",
        ".ods",
        ".odp",
        ".odg",
        ".docx",
        ".xlsx",
        ".pptx",
        ".epub",
        ".mp3",
        ".ogg",
        ".oga",
        ".wav",
        ".flac",
        ".m4a",
        ".mp4",
        ".webm",
        ".ogv",
        ".mkv",
        ".mov",
        ".larch",
    )
)  # fmt: skip  (endings of what a program shows or plays, and does not run)
BARE = re.compile(r"[\w-]+(\.[\w-]+)*\.[a-z]{2,}([/?#].*)?$", re.IGNORECASE)


class Link(NamedTuple):
    """sort: "page", "web", "file", "sound"; to: id, address, path or name of the sound."""

    sort: str
    to: str


def link_of(text: str) -> Link | None:
    """What a stored link means; None for what leads nowhere, or where nothing should be led."""
    if text.startswith("#"):
        return Link("page", text[1:])
    if text.startswith("sound:"):
        return Link("sound", text[6:]) if NAME.fullmatch(text[6:]) else None
    try:
        parts = urlsplit(text)
    except ValueError:  # brackets that do not close, say
        return None
    if parts.scheme in ("http", "https") and parts.netloc:
        return Link("web", text)
    if parts.scheme == "file" and not parts.netloc:
        return Link("file", unquote(parts.path))
    return None


def read_link(typed: str) -> str:
    """A link from what a person typed: "3" or "page 3" need the lesson and are read by `page_link`.

    Raises ValueError with one sentence.
    """
    text = typed.strip()
    if not text:
        return ""
    if len(text) > LONGEST:
        raise ValueError(_("That address is too long."))
    if text.startswith("#") and re.fullmatch(r"#p\d{1,9}", text):
        return text
    if BARE.match(text):
        text = f"https://{text}"
    elif text.startswith(("/", "~")):
        try:
            text = Path(text).expanduser().as_uri()
        except (RuntimeError, ValueError):
            raise ValueError(_("There is no such folder.")) from None
    link = link_of(text)
    if link is None:
        raise ValueError(_("“{text}” is no page, web address or file.").format(text=typed.strip()[:60]))
    if link.sort == "file" and Path(link.to).suffix.lower() not in HARMLESS:
        raise ValueError(_("A link opens documents, pictures, sounds and films, and starts no programs."))
    return text


def opened_by(link: Link) -> Path | None:
    """The file that a link really leads to, if it is one and harmless by its real name; None for all else."""
    try:
        real = Path(link.to).resolve(strict=True)
        return real if real.is_file() and real.suffix.lower() in HARMLESS else None
    except (OSError, ValueError, RuntimeError):
        return None


def page_link(lesson: Lesson, number: int) -> str:
    """To a page by its number. Raises ValueError."""
    if not 1 <= number <= len(lesson.pages):
        raise ValueError(_("There is no page {n}.").format(n=number))
    return f"#{lesson.pages.ids[number - 1]}"


def said(text: str) -> str:
    link = link_of(text)
    if link is None:
        return text
    names = {"page": _("a page"), "sound": _("a sound")}
    if link.sort == "file":
        return Path(link.to).name
    return names.get(link.sort) or urlsplit(link.to).netloc


def linked(page: Page, things: Things, link: str) -> Edit:
    return Edit(_("Link"), page, page.with_things({t.id: t.replace(link=link) for t in things}))


LINKING: tuple[Action, ...] = (
    Action("unlink", lambda p, ts: _("no longer a link"), "unlink", lambda p, ts: linked(p, ts, ""),
           lambda p, ts: any(t.link for t in ts), rank=75, words=N_("url address")),
)  # fmt: skip


def contents(lesson: Lesson) -> Page:
    """A page that lists the titles of all others, each leading there, in three columns; smaller, the more there are."""
    rows = [(number, page) for number, page in enumerate(lesson.pages, 1) if page.title.strip()]
    made = Page(id="", title=_("Contents"))
    things: list[Thing] = [Text(text=_("Contents"), size=TITLE, bold=True, placement=Placement(96, 56))]
    column = max(FEWEST_ROWS, math.ceil(len(rows) / 3))
    step = CONTENTS_HIGH / column
    for k, (number, page) in enumerate(rows):
        at = Placement(96 + (k // column) * 400, 190 + (k % column) * step)
        words = f"{number}   {page.title}"[:60]
        things.append(Text(text=words, size=max(8.0, min(36.0, step * 0.64)), link=f"#{page.id}", placement=at))
    return made.put(*things)


register(LINKING, at=60)
