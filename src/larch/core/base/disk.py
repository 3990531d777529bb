"""The disk: every operation on files by which work could be lost, behind one small interface.

What Larch keeps (journals, lesson files, media, settings, exports) goes through `disk()`. Tests put another one in its
place that counts the operations and makes one of them fail, stop halfway, or be the last before a power cut.

The rules: a file is made beside its place, flushed, read back and only then renamed over it, and the folder is flushed
after that; nothing is removed before its successor has got so far.
"""

from __future__ import annotations

import contextlib
import errno
import fcntl
import io
import os
import shutil
import stat
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import BinaryIO, NamedTuple, cast

from larch.core.base.words import _

MOST_READ = 2 * 2**30  # bytes of a file that is read whole
MOST_NAMES = 9_999  # that are tried for a file beside another
BUFFER = 1 << 20
STALE = 86_400 * 10**9  # ns after which a part of a process that is no more is nobody's
PART = ".part"  # ends the names of files that are being made


class NoOrdinaryFile(OSError):
    """A pipe, a device or a socket: whoever reads it may wait for ever, or never come to its end."""


def ordinary(path: Path) -> BinaryIO:
    """Opened to be read, if it is an ordinary file, or a link to one. Raises OSError, at once in any case."""
    mode = os.stat(path).st_mode
    if stat.S_ISDIR(mode):
        raise IsADirectoryError(errno.EISDIR, os.strerror(errno.EISDIR), str(path))
    if not stat.S_ISREG(mode):
        raise NoOrdinaryFile(errno.EINVAL, _("it is no ordinary file"), str(path))
    file = os.fdopen(os.open(path, os.O_RDONLY | os.O_NONBLOCK | os.O_CLOEXEC), "rb")
    if not stat.S_ISREG(os.fstat(file.fileno()).st_mode):  # it may have been changed for another meanwhile
        file.close()
        raise NoOrdinaryFile(errno.EINVAL, _("it is no ordinary file"), str(path))
    return file


def read_bounded(path: Path, most: int) -> bytes:
    """All of an ordinary file. Raises OSError; also if it holds more than so many bytes, whatever it says of itself."""
    with ordinary(path) as file:
        data = file.read(most + 1)
    if len(data) > most:
        raise OSError(errno.EFBIG, _("it is too large"), str(path))
    return data


class Stat(NamedTuple):
    """size in bytes; time of the last change in ns since 1970."""

    size: int
    time: int
    is_folder: bool
    mode: int


class DiskFile(io.FileIO):
    """A file that is written without a buffer. `sync` returns when it would outlast a power cut."""

    def sync(self) -> None:
        os.fsync(self.fileno())


class Disk:
    """The disk of this machine. All raise OSError."""

    def read(self, path: Path) -> bytes:
        return read_bounded(path, MOST_READ)

    def reader(self, path: Path) -> BinaryIO:
        """Opened to be read at any place."""
        return ordinary(path)

    def stat(self, path: Path) -> Stat:
        found = path.stat()
        return Stat(found.st_size, found.st_mtime_ns, path.is_dir(), found.st_mode & 0o777)

    def names(self, folder: Path) -> list[str]:
        """Of what lies in a folder, sorted."""
        return sorted(os.listdir(folder))

    def make_folder(self, path: Path, fresh: bool = False) -> None:
        """Makes a folder that only its owner sees, and those above it. fresh: FileExistsError if there is one."""
        path.parent.mkdir(parents=True, exist_ok=True)
        path.mkdir(mode=0o700, exist_ok=not fresh)

    def create(self, path: Path, mode: int = 0o600) -> DiskFile:
        """A file that was not there before."""
        return DiskFile(path, "xb", opener=lambda name, flags: os.open(name, flags, mode))

    def append(self, path: Path) -> DiskFile:
        return DiskFile(path, "ab", opener=lambda name, flags: os.open(name, flags, 0o600))

    def is_removed(self, file: DiskFile) -> bool:
        """Whether an open file has no name any more."""
        return os.fstat(file.fileno()).st_nlink == 0

    def rename(self, path: Path, to: Path) -> None:
        """Puts a file or a folder in another place; a file that was there is gone."""
        os.replace(path, to)

    def remove(self, path: Path) -> None:
        path.unlink()

    def remove_folder(self, path: Path) -> None:
        """With all that is in it."""
        shutil.rmtree(path)

    def set_mode(self, path: Path, mode: int) -> None:
        path.chmod(mode)

    def flush_folder(self, folder: Path) -> None:
        """Makes the names in a folder outlast a power cut, where the file system can."""
        handle = os.open(folder, os.O_RDONLY)
        try:
            with contextlib.suppress(OSError):
                os.fsync(handle)
        finally:
            os.close(handle)

    def is_private(self, folder: Path) -> bool:
        """Whether a folder outside one's own folders is this person's; it is closed to all others then."""
        try:
            found = os.stat(folder, follow_symlinks=False)
            if found.st_uid == os.getuid() and found.st_mode & 0o077:
                folder.chmod(0o700)
        except OSError:
            return False
        return found.st_uid == os.getuid()

    def lock(self, path: Path) -> int | None:
        """Takes a file for this process, made if need be; None if another has it. To be given to `unlock`."""
        handle = os.open(path, os.O_RDWR | os.O_CREAT, 0o600)
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            os.close(handle)
            return None
        return handle

    def unlock(self, lock: int) -> None:
        os.close(lock)


_disk = Disk()


def disk() -> Disk:
    """The disk in use."""
    return _disk


@contextlib.contextmanager
def another(instead: Disk) -> Iterator[None]:
    """For tests: another disk for all threads."""
    global _disk
    before, _disk = _disk, instead
    try:
        yield
    finally:
        _disk = before


def is_there(path: Path) -> bool:
    """Raises OSError if that can't be said."""
    try:
        disk().stat(path)
    except (FileNotFoundError, NotADirectoryError):
        return False
    return True


def usual_mode(path: Path) -> int:
    """The rights of a file that is replaced; of a new one, what this person's new files have."""
    try:
        return disk().stat(path).mode
    except OSError:
        mask = os.umask(0)
        os.umask(mask)
        return 0o666 & ~mask


def replace_file(
    path: Path,
    write: Callable[[BinaryIO], object],
    mode: int = 0o600,
    check: Callable[[Path], object] | None = None,
    before: Callable[[Stat, Path], object] | None = None,
    sure: bool = True,
) -> Stat:
    """Writes a file and puts it in the place of what was there, or leaves all as it was. Returns what it became.

    check: is given the finished file before it takes the place and raises OSError if it is not what it should be.
    before: is told what the file will be, and where it still lies, just before. sure: it is safe from a power cut when this
    returns. Raises OSError, and what `write` raises.
    """
    at = disk()
    part = _beside(path)
    out = at.create(part, mode)
    try:
        try:
            with io.BufferedWriter(out, BUFFER) as buffered:
                write(cast(BinaryIO, buffered))
                buffered.flush()
                if sure:
                    out.sync()
        finally:
            out.close()
        at.set_mode(part, mode)  # whatever the mask
        if check is not None:
            check(part)
        made = at.stat(part)
        if before is not None:
            before(made, part)
        at.rename(part, path)
    except Exception:
        with contextlib.suppress(OSError):
            at.remove(part)
        raise
    if sure:
        at.flush_folder(path.parent)
    return made


def keep_bytes(path: Path, data: bytes, mode: int = 0o600, sure: bool = True) -> None:
    """A whole file at once, read back before it takes its place. Raises OSError."""

    def check(part: Path) -> None:
        if disk().read(part) != data:
            raise OSError(5, "what was written reads differently")

    replace_file(path, lambda out: out.write(data), mode, check if sure else None, sure=sure)


def _beside(path: Path) -> Path:
    """A name for the file that is to take another's place: hidden, and of this process."""
    stem = f".{path.name[:100]}.{os.getpid()}"
    for number in range(MOST_NAMES):
        found = path.with_name(f"{stem}.{number}{PART}")
        if not is_there(found):
            return found
    raise OSError(17, "too many unfinished files", str(path))


def sweep(path: Path) -> None:
    """Removes what was once being made to take a file's place and never did: parts a day old of processes that are no more.
    Never raises OSError; what can't be removed stays."""
    at = disk()
    begins = f".{path.name[:100]}."
    with contextlib.suppress(OSError):
        for name in at.names(path.parent):
            if not (is_part(name) and name.startswith(begins)):
                continue
            process, _dot, number = name[len(begins) : -len(PART)].partition(".")
            if not (process.isdecimal() and number.isdecimal()) or _is_running(int(process)):
                continue
            if at.stat(path.with_name(name)).time < time.time_ns() - STALE:  # it may be of another machine
                at.remove(path.with_name(name))


def _is_running(process: int) -> bool:
    try:
        os.kill(process, 0)
    except ProcessLookupError:
        return False
    except (OSError, OverflowError):
        return True
    return True


def is_part(name: str) -> bool:
    """Whether a file was being made when Larch ended."""
    return name.startswith(".") and name.endswith(PART)
