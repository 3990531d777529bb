"""Derived values, remembered by the identity of the immutable value they came from."""

import threading
import weakref
from collections.abc import Callable
from functools import wraps
from typing import Any, TypeVar

T = TypeVar("T")
R = TypeVar("R")


_everything: list[weakref.ref[Any]] = []  # all that is remembered, as long as its thread lives


def forget_derived() -> None:
    """Forgets what was remembered of values: for when it would come out otherwise now."""
    _everything[:] = [ref for ref in _everything if ref() is not None]
    for ref in list(_everything):
        known = ref()
        if known is not None:
            known.clear()


def remember(compute: Callable[[T], R]) -> Callable[[T], R]:
    """Caches `compute(value)` for as long as `value` itself is alive.

    `value` must be immutable and weakly referable. The result must not refer to it, not even by a function or by the
    traceback of an error: both would stay for ever. Identity, not equality, is the key: comparing two strokes of a
    thousand points would cost more than most of what is remembered.
    """
    known = _Known[R](shared=True)
    return wraps(compute)(_looking_up(compute, lambda: known))


P = TypeVar("P")


def once_a_page(compute: Callable[[T, P], R]) -> Callable[[T, P], R]:
    """Remembers what `compute(thing, page)` gave for the things of the page that was asked about last.

    For what is asked for several times in one paint. Both must be immutable; the result may refer to things of the page.
    """
    state: tuple[weakref.ref[Any] | None, dict[int, tuple[Any, Any]]] = (None, {})

    @wraps(compute)
    def look_up(thing: T, page: P) -> R:
        nonlocal state
        ref, known = state
        if ref is None or ref() is not page:
            known = {}
            state = (weakref.ref(page), known)
        found = known.get(id(thing))
        if found is None or found[0] is not thing:
            found = known[id(thing)] = (thing, compute(thing, page))
        result: R = found[1]
        return result

    return look_up


class _Known(dict[int, tuple["weakref.ref[Any]", R]]):
    """Results by the id of their value, and the ids of values that died in another thread."""

    def __init__(self, shared: bool) -> None:
        super().__init__()
        _everything.append(weakref.ref(self))
        self.late: list[int] = []
        self.home = 0 if shared else threading.get_ident()

    def forget(self, key: int) -> None:
        if self.home in (0, threading.get_ident()):
            self.pop(key, None)
        else:
            self.late.append(key)


class _Ref(weakref.ref[Any]):
    """Knows which entry to drop when its value dies. A closure for each would give the garbage collector far more to
    look through, which is felt as a stumble of the hand."""

    __slots__ = ("key", "known")
    key: int
    known: _Known[Any]


def _gone(ref: weakref.ref[Any]) -> None:
    if isinstance(ref, _Ref):
        ref.known.forget(ref.key)


def remember_in_thread(compute: Callable[[T], R]) -> Callable[[T], R]:
    """As `remember`, but apart for each thread: for results that hold fonts, which belong to the thread they were
    made in and die with it. A result whose value dies in another thread waits for its own thread to let it go."""
    own = threading.local()

    def known() -> _Known[R]:
        if not hasattr(own, "known"):
            own.known = _Known[R](shared=False)
        found: _Known[R] = own.known
        return found

    return wraps(compute)(_looking_up(compute, known))


def _looking_up(compute: Callable[[T], R], where: Callable[[], _Known[R]]) -> Callable[[T], R]:
    def look_up(value: T) -> R:
        known = where()
        key = id(value)
        found = known.get(key)
        if found is not None and found[0]() is value:
            return found[1]
        result = compute(value)
        while known.late:
            known.pop(known.late.pop(), None)
        ref = _Ref(value, _gone)
        ref.key, ref.known = key, known
        known[key] = (ref, result)
        return result

    return look_up


def cache_in_thread(compute: Callable[..., R]) -> Callable[..., R]:
    """A cache by hashable arguments, apart for each thread."""
    own = threading.local()

    @wraps(compute)
    def look_up(*arguments: Any) -> R:
        if not hasattr(own, "known"):
            own.known = {}
        if arguments not in own.known:
            own.known[arguments] = compute(*arguments)
        result: R = own.known[arguments]
        return result

    return look_up
