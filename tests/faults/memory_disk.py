"""A disk in memory that knows what would outlast a power cut, and in which one operation can go wrong.

It is stricter than most: what is in a file lasts when the file was synced, a name lasts when its folder was flushed.
"""

from __future__ import annotations

import errno
import io
import threading
from pathlib import Path
from typing import Any, BinaryIO

from larch.core.base.disk import Disk, Stat


class Killed(BaseException):
    """The process has ended: nothing that it does from here on has any effect."""


class Node:
    def __init__(self, folder: bool = False) -> None:
        self.folder = folder
        self.data = b""
        self.safe = b""
        self.names: dict[str, Node] = {}
        self.safe_names: dict[str, Node] = {}
        self.time = 0
        self.mode = 0o755 if folder else 0o600
        self.locked_by = 0

    def after_power_cut(self) -> Node:
        """What is found when the power is back."""
        left = Node(self.folder)
        left.data = left.safe = self.safe
        left.names = {name: node.after_power_cut() for name, node in self.safe_names.items()}
        left.safe_names = dict(left.names)
        left.time, left.mode = self.time, self.mode
        return left


class Fault:
    """How operation `number` goes wrong: "io", "full", "permission" (it fails, once, or from then on with `stays`), "torn"
    (a write gets half as far and fails), "killed" (before it), "cut" (killed after half of it)."""

    def __init__(self, number: int = 0, kind: str = "", stays: bool = False) -> None:
        self.number, self.kind, self.stays = number, kind, stays


ERRORS = {"io": errno.EIO, "full": errno.ENOSPC, "permission": errno.EACCES, "torn": errno.EIO}


class MemoryDisk(Disk):
    def __init__(self, root: Node | None = None, fault: Fault | None = None) -> None:
        self.root = root or Node(folder=True)
        self.fault = fault or Fault()
        self.count = 0
        self.dead = False
        self.clock = 10**18
        self._turn = threading.RLock()

    # How an operation goes

    def step(self, writes: bool = False) -> bool:
        """Counts an operation. True: only half of it is to be done, then `fall`."""
        if self.dead:
            raise Killed
        self.count += 1
        fault = self.fault
        here = self.count == fault.number or (fault.stays and 0 < fault.number <= self.count)
        if not here:
            return False
        if fault.kind == "killed" or (fault.kind == "cut" and not writes):
            self.dead = True
            raise Killed
        if fault.kind in ("cut", "torn") and writes:
            return True
        raise OSError(ERRORS[fault.kind], "made to fail")

    def fall(self) -> None:
        if self.fault.kind == "cut":
            self.dead = True
            raise Killed
        raise OSError(errno.EIO, "made to fail")

    # Names

    def _node(self, path: Path) -> Node:
        node = self.root
        for part in path.parts[1:]:
            if part not in node.names:
                raise FileNotFoundError(errno.ENOENT, "not there", str(path))
            node = node.names[part]
        return node

    def _folder(self, path: Path) -> Node:
        node = self._node(path)
        if not node.folder:
            raise NotADirectoryError(errno.ENOTDIR, "no folder", str(path))
        return node

    def touch(self, node: Node) -> None:
        self.clock += 1_000_000
        node.time = self.clock

    def read(self, path: Path) -> bytes:
        with self._turn:
            self.step()
            node = self._node(path)
            if node.folder:
                raise IsADirectoryError(errno.EISDIR, "a folder", str(path))
            return node.data

    def reader(self, path: Path) -> BinaryIO:
        return io.BytesIO(self.read(path))

    def stat(self, path: Path) -> Stat:
        with self._turn:
            self.step()
            node = self._node(path)
            return Stat(len(node.data), node.time, node.folder, node.mode)

    def names(self, folder: Path) -> list[str]:
        with self._turn:
            self.step()
            return sorted(self._folder(folder).names)

    def make_folder(self, path: Path, fresh: bool = False) -> None:
        with self._turn:
            self.step()
            node = self.root
            for part in path.parts[1:-1]:
                if part not in node.names:  # the scenarios are about what lies in them
                    node.names[part] = node.safe_names[part] = Node(folder=True)
                node = node.names[part]
            if path.name in node.names:
                if fresh:
                    raise FileExistsError(errno.EEXIST, "is there", str(path))
                return
            node.names[path.name] = node.safe_names[path.name] = Node(folder=True)

    def create(self, path: Path, mode: int = 0o600) -> MemoryFile:  # type: ignore[override]
        with self._turn:
            self.step()
            folder = self._folder(path.parent)
            if path.name in folder.names:
                raise FileExistsError(errno.EEXIST, "is there", str(path))
            node = folder.names[path.name] = Node()
            node.mode = mode
            self.touch(node)
            return MemoryFile(self, node)

    def append(self, path: Path) -> MemoryFile:  # type: ignore[override]
        with self._turn:
            self.step()
            folder = self._folder(path.parent)
            if path.name not in folder.names:
                folder.names[path.name] = Node()
            return MemoryFile(self, folder.names[path.name], append=True)

    def is_removed(self, file: object) -> bool:
        return False

    def rename(self, path: Path, to: Path) -> None:
        with self._turn:
            self.step()
            node = self._node(path)
            del self._folder(path.parent).names[path.name]
            self._folder(to.parent).names[to.name] = node
            if node.folder:  # as file systems with a journal do: both ends at once
                self._folder(path.parent).safe_names.pop(path.name, None)
                self._folder(to.parent).safe_names[to.name] = node

    def remove(self, path: Path) -> None:
        with self._turn:
            self.step()
            self._node(path)
            del self._folder(path.parent).names[path.name]

    def remove_folder(self, path: Path) -> None:
        with self._turn:
            self.step()
            self._folder(path)
            del self._folder(path.parent).names[path.name]

    def set_mode(self, path: Path, mode: int) -> None:
        with self._turn:
            self.step()
            self._node(path).mode = mode

    def flush_folder(self, folder: Path) -> None:
        with self._turn:
            self.step()
            node = self._folder(folder)
            node.safe_names = dict(node.names)

    def is_private(self, folder: Path) -> bool:
        return True

    def lock(self, path: Path) -> int | None:
        with self._turn:
            self.step()
            folder = self._folder(path.parent)
            node = folder.names.setdefault(path.name, Node())
            folder.safe_names.setdefault(path.name, node)
            if node.locked_by:
                return None
            self.clock += 1
            node.locked_by = self.clock
            return self.clock

    def unlock(self, lock: int) -> None:
        with self._turn:
            for node in _all(self.root):
                if node.locked_by == lock:
                    node.locked_by = 0

    def after(self, power_cut: bool = False) -> MemoryDisk:
        """What another process finds when this one has ended."""
        root = self.root.after_power_cut() if power_cut else self.root
        for node in _all(root):
            node.locked_by = 0
        left = MemoryDisk(root)
        left.clock = self.clock
        return left


def _all(node: Node) -> list[Node]:
    return [node, *(found for below in node.names.values() for found in _all(below))]


class MemoryFile(io.RawIOBase):
    def __init__(self, disk: MemoryDisk, node: Node, append: bool = False) -> None:
        super().__init__()
        self._disk, self._node, self._append = disk, node, append
        self._at = 0

    def readable(self) -> bool:
        return False

    def writable(self) -> bool:
        return True

    def seekable(self) -> bool:
        return True

    def seek(self, offset: int, whence: int = 0) -> int:
        self._at = offset + (0 if whence == 0 else self._at if whence == 1 else len(self._node.data))
        return self._at

    def tell(self) -> int:
        return self._at

    def write(self, data: Any, /) -> int:
        with self._disk._turn:
            half = self._disk.step(writes=True)
            whole = bytes(data)
            part = whole[: len(whole) // 2] if half else whole
            at = len(self._node.data) if self._append else self._at
            before = self._node.data.ljust(at, b"\0")
            self._node.data = before[:at] + part + before[at + len(part) :]
            self._at = at + len(part)
            self._disk.touch(self._node)
            if half:
                self._disk.fall()
            return len(whole)

    def truncate(self, size: int | None = None, /) -> int:
        with self._disk._turn:
            self._disk.step()
            self._node.data = self._node.data[: self._at if size is None else size]
            return len(self._node.data)

    def sync(self) -> None:
        with self._disk._turn:
            self._disk.step()
            self._node.safe = self._node.data
