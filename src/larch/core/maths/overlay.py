"""Areas laid over each other, so that they add up."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Any


def overlaid(how: str, one: Any, other: Any) -> Any:
    """ "join", "overlap" or "subtract" of two Shapely areas.

    Edges that are nearly but not quite equal can make an overlay lose a whole piece: all is snapped to a grid of a 2⁻³⁰th of
    the size, and the areas have to add up, else a coarser grid is taken. Corners that were there keep all their digits.
    """
    import shapely

    total = one.area + other.area
    bounds = [abs(v) for v in (*one.bounds, *other.bounds)]
    size = max([1e-6, *bounds])
    grid = 2.0 ** (math.floor(math.log2(size)) - 30)
    for _try in range(4):
        joined = shapely.union(one, other, grid_size=grid)
        both = shapely.intersection(one, other, grid_size=grid)
        rest = shapely.difference(one, other, grid_size=grid)
        slack = 1e-7 * total + 4 * grid * (one.length + other.length)
        if abs(joined.area + both.area - total) <= slack and abs(rest.area + both.area - one.area) <= slack:
            break
        grid *= 16
    made = {"join": joined, "overlap": both, "subtract": rest}[how]
    return _with_own_digits(made, (one, other), 2 * grid)


def _with_own_digits(made: Any, sources: Sequence[Any], reach: float) -> Any:
    """With the corners that come from the sources put back to where they were before they were snapped."""
    import numpy as np
    import shapely

    own = np.vstack([shapely.get_coordinates(source) for source in sources])
    tree = shapely.STRtree(shapely.points(own))

    def back(points: Any) -> Any:
        near, away = tree.query_nearest(shapely.points(points), max_distance=reach, return_distance=True, all_matches=False)
        del away
        points = points.copy()
        points[near[0]] = own[near[1]]
        return points

    if made.is_empty:
        return made
    found = shapely.transform(made, back)
    return found if found.is_valid else made
