"""Pictures and sounds by the hash of their content, beside the lessons that speak of them.

A name is the SHA-256 of the bytes in hexadecimal, a dot and the sort of file: `3f…9a.png`. What comes in is written to
the folder at once, so that it is there when the edit that uses it is recovered after a crash; lesson files carry their
own copies.
"""

from __future__ import annotations

import re
import threading
from collections import OrderedDict
from collections.abc import Callable
from pathlib import Path

from larch.core.base.disk import disk, keep_bytes

SORTS = ("png", "jpg", "webp", "gif", "svg", "ogg", "mp3", "wav")
NAME = re.compile(rf"[0-9a-f]{{64}}\.({'|'.join(SORTS)})")
LARGEST = 24 * 2**20  # bytes of one file
HELD = 48 * 2**20  # bytes held in memory where there is a folder to read them from again


def digest(data: bytes) -> str:
    import hashlib  # loads a large library; most starts do without

    return hashlib.sha256(data).hexdigest()


class Media:
    """A store. folder: where files lie; None: they are held in memory only. other: a further place to look in."""

    def __init__(self, folder: Path | None = None, other: Callable[[str], bytes | None] | None = None) -> None:
        self.folder = folder
        self._other = other
        self._held: OrderedDict[str, bytes] = OrderedDict()
        self._sound: set[Path] = set()  # of those in the folder: looked at, or written, since the start
        self._lock = threading.Lock()  # pictures are read in threads

    def keep(self, data: bytes, sort: str, sure: bool = True) -> str:
        """Stores bytes; returns their name. Raises OSError if the disk refuses, ValueError if they are too many.

        sure: not before they are safe from a power cut; what comes out of a lesson file is so already.
        """
        if len(data) > LARGEST:
            raise ValueError("too large to be kept")
        name = f"{digest(data)}.{sort}"
        if not NAME.fullmatch(name):
            raise ValueError("no sort of file that is kept")
        if self.folder is not None and not self._is_sound(name):
            disk().make_folder(self.folder)
            keep_bytes(self.folder / name, data, sure=sure)
            self._sound.add(self.folder / name)
        self._hold(name, data)
        return name

    def write_again(self) -> None:
        """Its folder may have been taken away: what is still held goes there again. Raises OSError."""
        self._sound.clear()
        with self._lock:
            held = list(self._held.items())
        for name, data in held:
            if not self._is_sound(name) and (self._other is None or self._other(name) is None):
                self.keep(data, name.rpartition(".")[2])

    def _read(self, name: str) -> bytes | None:
        """What the folder has, if it is what its name says: it may be damaged, or empty."""
        if self.folder is None:
            return None
        try:
            found = disk().read(self.folder / name)
        except OSError:
            return None
        return found if digest(found) == name[:64] else None

    def has(self, name: str) -> bool:
        """Whether it need not be read from elsewhere. What lies in the folder is looked at once."""
        return bool(NAME.fullmatch(name)) and (name in self._held or self._is_sound(name))

    def _is_sound(self, name: str) -> bool:
        if self.folder is None:
            return False
        if self.folder / name not in self._sound and self._read(name) is not None:
            self._sound.add(self.folder / name)
        return self.folder / name in self._sound

    def data(self, name: str) -> bytes | None:
        """The bytes of a name, or None if they are nowhere to be found."""
        if not NAME.fullmatch(name):
            return None
        held = self._held.get(name)
        if held is not None:
            return held
        found = self._read(name)
        if found is None and self._other is not None:
            found = self._other(name)
        if found is not None:
            self._hold(name, found)
        return found

    def _hold(self, name: str, data: bytes) -> None:
        with self._lock:
            self._held[name] = data
            if self.folder is not None:
                while sum(map(len, self._held.values())) > HELD and len(self._held) > 1:
                    self._held.popitem(last=False)


def _from_set(name: str) -> bytes | None:
    """Drawings that come with Larch are never copied to the folder."""
    if not name.endswith(".svg"):
        return None
    from larch.core.media.picture_set import drawing

    return drawing(name[:64])


store = Media(other=_from_set)
