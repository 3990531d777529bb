"""Equations as MathML."""

from __future__ import annotations

from xml.etree import ElementTree

import pytest

from larch.core.files.mathml import mathml, page_mathml
from larch.core.maths.expression import parse
from larch.core.things.graphs.equation import Equation
from tests.samples import page_with


@pytest.mark.parametrize(
    "source", ["3/4 x - 6", "|x|+sqrt(x)", "root(x,3)", "x^2 < 5!", "sin^2 x", "-(x+1)(x-1)", "floor(x)", "min(x, 30°)"]
)
def test_mathml_is_sound_xml(source: str) -> None:
    root = ElementTree.fromstring(mathml(parse(source)))
    assert root.tag.endswith("math")
    assert len(list(root.iter())) > 2


def test_only_readable_equations_become_mathml() -> None:
    page = page_with(Equation(source="y = x/2"), Equation(source="y = ("))
    assert [name for name, _data in page_mathml(page)] == ["t1"]
