"""Equations that can't be read are marked where; what a class understands is not."""

from __future__ import annotations

import pytest

from larch.board.views.graphs.equation import read
from larch.core.things.graphs.equation import Equation


@pytest.mark.parametrize("source", ["3+?=7", "?*4=12", "pi≈3.14", r"\sqrt{2}\approx 1.41", r"\frac{?}{4}=2", "2x+1=7"])
def test_a_number_that_is_asked_for_and_about_are_no_mistakes(qapp: object, source: str) -> None:
    assert read(Equation(source=source))[1] is None


@pytest.mark.parametrize(("source", "part"), [("3+*?=7", 2), ("3+4=*≈7", 4), ("2x+)", 3)])
def test_mistakes_beside_them_still_are(qapp: object, source: str, part: int) -> None:
    found = read(Equation(source=source))[1]
    assert found is not None and found.part == part
