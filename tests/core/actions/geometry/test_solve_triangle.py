"""The working of a triangle: it ends, names only what is known so far, and follows the triangle."""

from __future__ import annotations

import re
from itertools import combinations

import pytest

from larch.core.actions.geometry.solve_triangle import work_out, working
from larch.core.base.shape import Placement
from larch.core.figures.settle import settle
from larch.core.model.page import Page
from larch.core.model.scale import Scale
from larch.core.things.geometry.polygon import Polygon, polygon_on
from larch.core.things.words.telling import BRACES

RIGHT = [(0.0, 300.0), (400.0, 300.0), (400.0, 0.0)]
ODD = [(0.0, 300.0), (384.0, 300.0), (300.0, 40.0)]
NAMES = ("AB", "BC", "CA", "angle A", "angle B", "angle C")


def shown(corners: list, *names: str) -> Page:
    page = Page(id="p", scale=Scale("m", 1.0))
    return page.put(polygon_on(page, corners, shown=names))


@pytest.mark.parametrize("names", list(combinations(NAMES, 3)))
def test_three_sizes_with_a_side_fix_a_triangle(names: tuple[str, ...]) -> None:
    page = shown(ODD, *names)
    sides = [name for name in names if "angle" not in name]
    ambiguous = len(sides) == 2 and len(names) == 3 and not _between(names)
    if not sides or (ambiguous and _stuck(page)):
        with pytest.raises(ValueError, match=r"\.$"):
            working(page.things[0])
        return
    known = set(names)
    for line in working(page.things[0])[1:]:
        own = re.match(r"∠?(\w+)", line)
        assert own
        used = set(BRACES.findall(line.partition("=")[2]))
        result = {name for name in used if name.endswith(own[1]) or name in (own[1], own[1][::-1])}
        assert used - result <= known, line
        known |= {name for name in NAMES if name in used}


def _between(names: tuple[str, ...]) -> bool:
    angle = next(name for name in names if "angle" in name)[-1]
    return all(angle in name for name in names if "angle" not in name)


def _stuck(page: Page) -> bool:
    try:
        working(page.things[0])
    except ValueError:
        return True
    return False


def test_a_height_by_a_side_and_an_angle() -> None:
    page = shown(RIGHT, "AB", "angle A")
    lines = working(page.things[0], "m")
    assert lines[2] == "tan A = BC : AB"
    assert lines[3] == "BC = {AB} · tan {angle A}\n    = {BC} m"
    done = settle(work_out(page, page.things).after)
    text = done.things[-1]
    said = iter(text.told)
    words = BRACES.sub(lambda _brace: next(said), text.text)
    assert "BC = 12.5 · tan 36.9°\n    = 9.4 m" in words
    higher = settle(done.with_things({"t1": done.thing("t1").with_handle("2", 400.0, -100.0)}))
    assert higher.things[-1].told != text.told  # the working follows the triangle


def test_too_little_is_said() -> None:
    for names in ((), ("AB",), ("angle A", "angle B", "angle C")):
        page = shown(ODD, *names)
        with pytest.raises(ValueError, match=r"[Ss]how"):
            work_out(page, page.things)
    turned = Polygon(vertices=tuple(RIGHT), shown=("AB", "BC"), placement=Placement(0, 0, 33))
    assert any("²" in line for line in working(turned))


def test_two_sides_and_the_angle_across_from_the_longer_fix_a_triangle() -> None:
    corners = [(0.0, 0.0), (500.0, 0.0), (120.0, 260.0)]  # AB is longest
    page = shown(corners, "AB", "BC", "angle C")
    lines = working(page.things[0])
    assert any(line.startswith("sin A") for line in lines)
    other = shown(corners, "AB", "CA", "angle B")  # across from the shorter of the two: two triangles
    with pytest.raises(ValueError, match="does not fix"):
        working(other.things[0])
