"""Axes, as far as graphs on them need to know."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, Protocol

from larch.core.base.shape import Placement, Point
from larch.core.base.words import N_

OUTSIDE = N_("The graph has no point there on these axes.")


class Plane(Protocol):
    """Axes, as far as a graph on them needs to know."""

    @property
    def placement(self) -> Placement: ...

    @property
    def x_min(self) -> float: ...
    @property
    def x_max(self) -> float: ...
    @property
    def y_min(self) -> float: ...
    @property
    def y_max(self) -> float: ...
    def to_plane(self, x: float, y: float) -> Point: ...
    def page_of(self, at: Point) -> Point: ...
    def has_log(self) -> bool: ...
    def logarithmic(self) -> tuple[bool, bool]: ...
    def units(self) -> tuple[float, float]: ...
    def replace(self, **changes: Any) -> Any: ...


def window_of(axes: Plane, slack: float) -> Callable[[Point], bool]:
    """Whether a place of the page can be seen on the axes."""

    def seen(at: Point) -> bool:
        x, y = axes.to_plane(*axes.placement.to_local(*at))
        return axes.x_min - slack <= x <= axes.x_max + slack and axes.y_min - slack <= y <= axes.y_max + slack

    return seen
