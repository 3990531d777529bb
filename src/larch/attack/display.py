"""A screen of its own (Xvfb with a window manager) and a hand at it: mouse and keys that come from the X server itself."""

from __future__ import annotations

import contextlib
import ctypes
import ctypes.util
import os
import shutil
import subprocess
import time
from collections.abc import Iterator
from typing import Any

LEFT, MIDDLE, RIGHT, WHEEL_UP, WHEEL_DOWN = 1, 2, 3, 4, 5  # buttons of X11
DWELL = 0.012  # seconds for which a button is held: short for a hand, long enough for a program to act in between
SHOWN_WITHIN = 40.0  # seconds in which a program must have shown its window


def missing() -> list[str]:
    """Debian packages without which there is no such screen."""
    needed = {"xvfb": shutil.which("Xvfb"), "openbox": shutil.which("openbox"), "libx11-6": _library("X11"),
              "libxtst6": _library("Xtst")}  # fmt: skip
    return [package for package, found in needed.items() if not found]


def _library(name: str) -> str | None:
    return ctypes.util.find_library(name)


@contextlib.contextmanager
def screen(size: tuple[int, int] = (1280, 800)) -> Iterator[str]:
    """The name of a display that lives as long as the block. Raises OSError if the server does not come up."""
    read, write = os.pipe()
    command = ["Xvfb", "-displayfd", str(write), "-screen", "0", f"{size[0]}x{size[1]}x24", "-nolisten", "tcp"]
    with contextlib.ExitStack() as stack:
        server = stack.enter_context(_running(command, pass_fds=[write]))
        os.close(write)
        with os.fdopen(read) as numbers:
            number = numbers.readline().strip()
        if not number:
            raise OSError(f"Xvfb ended with {server.wait(5)}")
        stack.enter_context(_running(["openbox"], env={**os.environ, "DISPLAY": f":{number}"}))
        yield f":{number}"


@contextlib.contextmanager
def _running(command: list[str], **how: Any) -> Iterator[subprocess.Popen[bytes]]:
    process = subprocess.Popen(command, stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, **how)
    try:
        yield process
    finally:
        process.kill()
        process.wait(20)


class Hand:
    """Mouse and keys of a display, by the XTEST extension: a program can't tell them from real ones."""

    def __init__(self, display: str) -> None:
        self._x, self._test = ctypes.CDLL(_library("X11")), ctypes.CDLL(_library("Xtst"))
        self._x.XOpenDisplay.restype = ctypes.c_void_p
        opened = self._x.XOpenDisplay(display.encode())
        if not opened:
            raise OSError(f"no display {display}")
        self._display = ctypes.c_void_p(opened)
        self._x.XStringToKeysym.restype = ctypes.c_ulong
        self._x.XKeysymToKeycode.argtypes = [ctypes.c_void_p, ctypes.c_ulong]

    def close(self) -> None:
        self._x.XCloseDisplay(self._display)

    def move(self, x: int, y: int) -> None:
        self._test.XTestFakeMotionEvent(self._display, -1, int(x), int(y), ctypes.c_ulong(0))
        self._x.XFlush(self._display)

    def button(self, number: int, down: bool) -> None:
        self._test.XTestFakeButtonEvent(self._display, number, int(down), ctypes.c_ulong(0))
        self._x.XFlush(self._display)

    def click(self, x: int, y: int, number: int = LEFT, times: int = 1) -> None:
        self.move(x, y)
        for _time in range(times):
            self.button(number, True)
            time.sleep(DWELL)
            self.button(number, False)
            time.sleep(DWELL)

    def drag(self, start: tuple[int, int], end: tuple[int, int], steps: int = 8, pause: float = 0.004) -> None:
        """pause: seconds from step to step."""
        self.move(*start)
        self.button(LEFT, True)
        for k in range(1, steps + 1):
            self.move(*(int(a + (b - a) * k / steps) for a, b in zip(start, end, strict=True)))
            time.sleep(pause)
        self.button(LEFT, False)

    def key(self, chord: str) -> None:
        """chord: X11's names joined by "+": "Control_L+s", "Return", "a"."""
        signs = [self._x.XStringToKeysym(name.encode()) for name in chord.split("+")]
        codes = [self._x.XKeysymToKeycode(self._display, sign) for sign in signs]
        for code in codes:
            self._test.XTestFakeKeyEvent(self._display, code, 1, ctypes.c_ulong(0))
        for code in reversed(codes):
            self._test.XTestFakeKeyEvent(self._display, code, 0, ctypes.c_ulong(0))
        self._x.XFlush(self._display)

    def type(self, words: str) -> None:
        """Letters, digits and spaces."""
        for letter in words:
            self.key("space" if letter == " " else f"Shift_L+{letter.lower()}" if letter.isupper() else letter)

    def has_window(self, title: str) -> bool:
        """Whether a window is shown whose title has this in it."""
        return any(title in name for name in self._titles(self._x.XDefaultRootWindow(self._display)))

    def _titles(self, window: int) -> list[str]:
        root, parent = ctypes.c_ulong(), ctypes.c_ulong()
        children, count = ctypes.POINTER(ctypes.c_ulong)(), ctypes.c_uint()
        name = ctypes.c_char_p()
        found: list[str] = []
        if self._x.XFetchName(self._display, ctypes.c_ulong(window), ctypes.byref(name)) and name.value:
            found.append(name.value.decode("utf-8", "replace"))
        if self._x.XQueryTree(self._display, ctypes.c_ulong(window), ctypes.byref(root), ctypes.byref(parent),
                              ctypes.byref(children), ctypes.byref(count)):  # fmt: skip
            for k in range(count.value):
                found += self._titles(children[k])
            if count.value:
                self._x.XFree(children)
        return found

    def wait_for(self, title: str, process: subprocess.Popen[Any], seconds: float = SHOWN_WITHIN) -> bool:
        """Whether the program showed such a window in time."""
        end = time.monotonic() + seconds
        while time.monotonic() < end and process.poll() is None:
            if self.has_window(title):
                return True
            time.sleep(0.05)
        return False
