"""What loose pieces of fractions are laid over."""

from __future__ import annotations

from larch.core.base.shape import Point
from larch.core.model.capabilities import HoldsOthers


class Whole(HoldsOthers, frozen=True):
    """A bar or a circle in parts, as far as pieces need to know it."""

    __slots__ = ()

    def part_lines(self) -> list[float]:
        """Where one part ends and the next begins, as shares of its length or of a full turn from the top."""
        raise TypeError(self.kind())

    def middles(self) -> list[Point]:
        """The middles of its circles, in its own coordinates; none of a bar."""
        return []
