"""Congruent and similar shapes are recognised with their correspondence."""

from __future__ import annotations

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.actions.geometry.compare import fit, sentence
from larch.core.maths import geometry
from larch.core.maths.plane import Line, moves
from larch.core.model.page import Page
from larch.core.things.geometry.polygon import Polygon

coordinate = st.floats(-100, 100, allow_nan=False).map(lambda v: round(v, 1))
place = st.tuples(coordinate, coordinate)
ODD = ((0.0, 0.0), (96.0, 0.0), (64.0, 64.0))


@given(place, place, place, st.floats(0, 360), st.sampled_from([0.5, 1.0, 2.5]), st.booleans(), st.integers(0, 2))
def test_an_image_fits_its_original(
    a: tuple, b: tuple, c: tuple, turn: float, factor: float, over: bool, start: int
) -> None:
    ring = (a, b, c)
    sides = sorted(geometry.sides(ring))
    assume(geometry.area(ring) > 100 and sides[1] - sides[0] > 1 and sides[2] - sides[1] > 1)
    move = moves.rotation((3, 4), turn).then(moves.enlargement((7, 7), factor))
    if over:
        move = move.then(moves.reflection(Line((0, 0), (1, 2))))
    image = [move.point(p) for p in ring]
    image = image[start:] + image[:start]
    found = fit(ring, image)
    assert found is not None
    assert found.factor == pytest.approx(factor)
    assert found.over == over
    assert [image[k] for k in found.order] == [pytest.approx(move.point(p), abs=1e-6) for p in ring]


def test_what_differs_a_little_does_not_fit() -> None:
    assert fit(ODD, ((0.0, 0.0), (96.0, 0.0), (64.1, 64.0))) is None
    assert fit(ODD, ((0.0, 0.0), (96.0, 0.0), (64.0, 64.0), (0.0, 30.0))) is None
    assert fit(ODD, ((0.0, 0.0), (1.0, 1.0), (2.0, 2.0))) is None
    kite, dart = ((0.0, 0.0), (3.0, 3.0), (0.0, 9.0), (-3.0, 3.0)), ((0.0, 0.0), (3.0, 3.0), (0.0, 1.0), (-3.0, 3.0))
    assert fit(kite, dart) is None


def test_it_is_said_in_words() -> None:
    page = Page(id="p").put(
        Polygon(vertices=ODD), Polygon(vertices=tuple((-2 * x, 2 * y) for x, y in ODD), letters="DEF"),
        Polygon(vertices=(ODD[1], ODD[2], ODD[0]), letters="KLM"),
    )  # fmt: skip
    one, twice, same = page.things
    assert sentence(page, one, same) == "ABC and KLM are congruent: A ↔ M, B ↔ K, C ↔ L."
    assert sentence(page, one, twice) == "ABC and DEF are similar: A ↔ D, B ↔ E, C ↔ F; factor 2. One must be turned over."
    assert sentence(page, one, Polygon(letters="XYZ")) == "ABC and XYZ are not similar."
