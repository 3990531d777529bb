"""Small parts that everything stands on."""

from __future__ import annotations

import gc
import re
from pathlib import Path
from xml.etree import ElementTree

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.base import hues, words
from larch.core.base.memo import remember
from larch.core.base.shape import Box, Placement, box_of, union
from larch.core.files.inkml import page_inkml
from larch.core.files.mathml import mathml, page_mathml
from larch.core.maths.expression import ExpressionError, parse
from larch.core.model.fact import measure, number_text, read_number
from larch.core.model.page import Page
from larch.core.things.graphs.equation import Equation, fraction_text
from larch.core.things.ink.ink import ink_from
from tests.samples import page_with, points, stroke

SOURCE = Path(__file__).parents[2] / "src/larch"


@given(st.floats(-1e9, 1e9), st.integers(0, 6))
def test_a_written_number_reads_back_to_its_precision(value: float, places: int) -> None:
    assert read_number(number_text(value, places)) == pytest.approx(value, abs=0.5000001 * 10**-places)


@pytest.mark.parametrize(
    ("value", "places", "text"),
    [(0.0, 1, "0"), (-0.0, 1, "0"),
     (-0.04, 1, "0"), (2.50, 2, "2.5"), (-3, 0, "−3"), (1e20, 1, "1e+20"), (float("nan"), 1, "—"),
     (float("inf"), 1, "—"), (99.96, 1, "100"), (1234567.0, 0, "1234567")],
)  # fmt: skip
def test_numbers_are_written_as_in_class(value: float, places: int, text: str) -> None:
    assert number_text(value, places) == text


@pytest.mark.parametrize(
    ("typed", "value"), [("3", 3), (" 2,5 cm ", 2.5), ("−1", -1), ("1/2", 0.5), ("40°", 40), ("12 cm²", 12), ("√16", 4)]
)
def test_typed_numbers_are_understood(typed: str, value: float) -> None:
    assert read_number(typed) == value


def test_units_stand_where_they_are_written() -> None:
    assert measure("a", 40, "°").text == "40°"
    assert measure("s", 4.25, "cm").text == "4.3 cm" or measure("s", 4.25, "cm").text == "4.2 cm"


def test_remembered_values_go_with_what_they_came_from() -> None:
    calls = []

    @remember
    def compute(page: Page) -> int:
        calls.append(page.id)
        return len(calls)

    page = Page(id="a")
    assert (compute(page), compute(page)) == (1, 1)
    assert compute(Page(id="a")) == 2  # an equal value is another value
    del page
    gc.collect()
    assert compute(Page(id="b")) == 3


@given(st.lists(points, min_size=1, max_size=8))
def test_boxes_hold_what_they_were_made_of(spots: list[tuple[float, float]]) -> None:
    box = box_of(spots)
    assert all(box.holds(*spot) for spot in spots)
    assert union([box, box]) == box
    assert box.grown(1).covers(box)
    assert box.meets(box)


def test_no_box_of_nothing_is_infinite() -> None:
    assert box_of([]) == Box(0, 0, 0, 0)
    assert union([]) == Box(0, 0, 0, 0)


def test_hues_are_readable_on_paper() -> None:
    """WCAG 2.2: at least 3:1 for parts; the text colours at least 4.5:1."""

    def light(code: str) -> float:
        parts = [int(code[i : i + 2], 16) / 255 for i in (1, 3, 5)]
        linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in parts]
        return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]

    def contrast(a: str, b: str) -> float:
        high, low = sorted((light(a), light(b)), reverse=True)
        return (high + 0.05) / (low + 0.05)

    assert all(contrast(code, hues.PAPER) >= 3 for code in hues.HUES.values())
    for code in (hues.NEEDLE, hues.NEEDLE_SOFT, hues.GOLD_TEXT, hues.GOOD, hues.WRONG):
        assert contrast(code, hues.PAPER) >= 4.5
        assert contrast(code, hues.STONE) >= 4.5
    assert hues.hex_of("nonsense") == hues.NEEDLE
    assert hues.hex_of("#12ab9F") == "#12ab9F"


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


def test_inkml_carries_turned_strokes_to_the_page() -> None:
    ink = ink_from([(0, 0, 0.5, 0), (10, 0, 0.5, 8)]).replace(placement=Placement(100, 50, 90, 2))
    text = page_inkml(page_with(ink, stroke())).decode()
    assert "100.00 50.00 0.500 0,100.00 30.00 0.500 8" in text
    assert page_inkml(Page(id="p")) == b""


def test_fractions_are_written_with_a_true_minus() -> None:
    from fractions import Fraction

    assert [fraction_text(Fraction(*p)) for p in ((3, 4), (-3, 4), (8, 4), (-2, 1))] == ["3/4", "−3/4", "2", "−2"]


def test_another_language_without_a_catalogue_is_english() -> None:
    words.speak("xx")
    assert words._("page") == "page"
    assert words.many("{n} page", "{n} pages", 3) == "3 pages"


def test_an_error_names_a_place_inside_the_text() -> None:
    with pytest.raises(ExpressionError) as caught:
        parse("2 + + ) 3")
    assert caught.value.position == 6


def test_every_icon_that_is_named_is_shipped() -> None:
    shipped = {path.stem for path in (SOURCE / "assets/icons").glob("*.svg")}
    named = set()
    for path in SOURCE.rglob("*.py"):
        text = path.read_text()
        named |= set(re.findall(r'(?:icon(?:_button)?\(|icon: ClassVar\[str\] = )"([a-z0-9-]+)"', text))
    assert named and named <= shipped, named - shipped


def test_licences_lie_beside_fonts_and_icons() -> None:
    fonts = {path.stem.split("-")[0] for path in (SOURCE / "assets/fonts").glob("*.ttf")}
    licences = {path.stem.removeprefix("OFL-") for path in (SOURCE / "assets/fonts").glob("OFL-*.txt")}
    assert {font.replace("STIXTwoMath", "STIXTwoMath") for font in fonts} == licences
    assert "ISC" in (SOURCE / "assets/icons/LICENSE-Lucide.txt").read_text()


def test_files_stay_small_enough_to_hold_in_mind() -> None:
    for path in SOURCE.rglob("*.py"):
        assert len(path.read_text().splitlines()) <= 500, path
