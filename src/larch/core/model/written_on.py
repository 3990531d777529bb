"""What only some kinds can do, said by small mixins: take numbers that are written on them, give numbers a place."""

from __future__ import annotations

from collections.abc import Sequence
from typing import TYPE_CHECKING, NamedTuple

from larch.core.base.shape import Box, Point
from larch.core.model.capabilities import Able

if TYPE_CHECKING:
    from larch.core.model.page import Page


class WrittenSign(NamedTuple):
    """A sign that was read in handwriting, and where it stands on the page."""

    text: str
    box: Box


class Graduated(Able, frozen=True):
    """What numbers have their place on."""

    __slots__ = ()

    def number_at(self, at: Point, reach: float) -> float | None:
        """The number at a place of the page, if that lies on it within `reach` page units."""
        raise TypeError(self.kind())

    def place_of(self, number: float) -> Point:
        """Where on the page a number belongs, also beyond its ends."""
        raise TypeError(self.kind())


class TakesNumbers(Able, frozen=True):
    """A number that is written on it by hand is read where it stands."""

    __slots__ = ()

    def number_written(self, page: Page, text: str, signs: Sequence[WrittenSign], hue: str) -> Page:
        """The page when that means what it says. hue: in which it was written. Raises ValueError with one sentence where
        it can't be that."""
        raise TypeError(self.kind())
