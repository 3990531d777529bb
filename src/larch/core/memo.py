"""Derived values, remembered by the identity of the immutable value they came from."""

import weakref
from collections.abc import Callable
from functools import wraps
from typing import Any, TypeVar

T = TypeVar("T")
R = TypeVar("R")


def remember(compute: Callable[[T], R]) -> Callable[[T], R]:
    """Caches `compute(value)` for as long as `value` itself is alive.

    `value` must be immutable and weakly referable. Identity, not equality, is the key:
    comparing two strokes of a thousand points would cost more than most of what is remembered.
    """
    known: dict[int, tuple[weakref.ref[Any], R]] = {}

    @wraps(compute)
    def look_up(value: T) -> R:
        key = id(value)
        found = known.get(key)
        if found is not None and found[0]() is value:
            return found[1]
        result = compute(value)
        known[key] = (weakref.ref(value, lambda _gone: known.pop(key, None)), result)
        return result

    return look_up
