"""What a rule of its own is given when a figure is worked out."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from typing import NamedTuple, Protocol, TypeVar

from larch.core.maths.plane.forms import Form
from larch.core.model.page import Page
from larch.core.model.thing import Thing

T = TypeVar("T")


class Plan(NamedTuple):
    """order: ids of what follows, each after all it follows from. parents: the ids that each follows from, and
    children the other way. looped: ids that hang on themselves. telling: ids of words with facts in them."""

    order: tuple[str, ...]
    parents: Mapping[str, tuple[str, ...]]
    children: Mapping[str, tuple[str, ...]]
    looped: frozenset[str]
    telling: tuple[str, ...]


class Settling(Protocol):
    """A page being settled: things and forms as they are so far."""

    page: Page
    plan: Plan

    def thing(self, id: str) -> Thing | None: ...

    def form(self, ref: str) -> Form:
        """Raises NotThere."""
        ...

    def remembered(self, name: str, make: Callable[[], T]) -> T: ...
