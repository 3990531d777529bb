"""Equations as MathML."""

from __future__ import annotations

import math
from xml.etree import ElementTree

import pytest

from larch.core.files.mathml import mathml, page_mathml
from larch.core.maths.expression import parse, value_at
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


MATH = "{http://www.w3.org/1998/Math/MathML}"


def value_of(node: ElementTree.Element, x: float) -> float:
    """What presentation MathML says, read by its own rules and not by ours."""
    tag, inner = node.tag.removeprefix(MATH), list(node)
    if tag == "mn":
        return float(node.text or "")
    if tag == "mi":
        return {"x": x, "π": math.pi}[node.text or ""]
    if tag == "mfrac":
        return value_of(inner[0], x) / value_of(inner[1], x)
    if tag == "msup":
        return value_of(inner[0], x) ** value_of(inner[1], x)
    if tag == "msqrt":
        return math.sqrt(value_of(inner[0], x))
    return row_value(inner, x)


def row_value(row: list[ElementTree.Element], x: float) -> float:
    signs = [node.text if node.tag == f"{MATH}mo" else "" for node in row]
    if "(" in signs[:1] and signs[-1] == ")":
        return row_value(row[1:-1], x)
    for sign, join in (("+", lambda a, b: a + b), ("−", lambda a, b: a - b), ("\u2064", lambda a, b: a + b),
                       ("×", lambda a, b: a * b), ("\u2062", lambda a, b: a * b)):  # fmt: skip
        if sign in signs[1:]:
            k = len(signs) - 1 - signs[::-1].index(sign)
            return float(join(row_value(row[:k], x), row_value(row[k + 1 :], x)))
    if signs[0] == "−":
        return -row_value(row[1:], x)
    if len(row) == 3 and signs[1] == "\u2061":  # a function applied
        name = row[0]
        power = 1.0
        if name.tag == f"{MATH}msup":
            name, power = name[0], value_of(name[1], x)
        assert name.tag == f"{MATH}mi"
        own = {"sin": math.sin, "cos": math.cos, "tan": math.tan, "ln": math.log, "log": math.log10}[name.text or ""]
        return float(own(value_of(row[2], x)) ** power)
    assert len(row) == 1, signs
    return value_of(row[0], x)


@pytest.mark.parametrize(
    "source",
    ["cos^2 x", "sin^2 x + cos^2 x", "2 1/3", "1 3/4 + x", "-2 1/2", "2 3/4 x", "ln^2(x+1)", "(x+1)(x-1)/2", "3x^2 - 2x + 1",
     "sqrt(x+1)", "x^(1/2) tan x", "5 - (3 - x)"],
)  # fmt: skip
def test_mathml_says_what_the_expression_says(source: str) -> None:
    node = parse(source)
    root = ElementTree.fromstring(mathml(node))
    for x in (0.7, 2.0, 3.3):
        assert value_of(root, x) == pytest.approx(float(value_at(node, x=x)))
