"""Pages as SVG and PDF: they look as they do on the page, and are read as they are written. Other programs are the judges:
PDFium (in QtPdf) and Qt's own SVG reader."""

from __future__ import annotations

from pathlib import Path
from xml.etree import ElementTree

import numpy as np
import pytest
from numpy.typing import NDArray
from PyQt6.QtCore import QByteArray, QRectF, QSize
from PyQt6.QtGui import QColor, QImage, QPainter
from PyQt6.QtPdf import QPdfDocument
from PyQt6.QtSvg import QSvgRenderer

from larch.board.export import Asked, export, in_reading_order
from larch.board.paint import page_image, page_svg
from larch.core.base.shape import Placement
from larch.core.model.page import Page
from larch.core.things.geometry.circle import Circle
from larch.core.things.graphs.equation import Equation
from larch.core.things.ink.ink import ink_from
from larch.core.things.papers.sheet import Sheet
from larch.core.things.pictures.frost import Frost, Rub
from larch.core.things.words.text import Text
from larch.demo import demo_lesson
from tests.samples import page_with

SVG = "{http://www.w3.org/2000/svg}"
WIDE = 960


def pixels(image: QImage) -> NDArray[np.int_]:
    flat = image.convertToFormat(QImage.Format.Format_RGB888)
    bits = flat.constBits()
    assert bits is not None
    rows = np.frombuffer(bytes(bits.asarray(flat.sizeInBytes())), np.uint8).reshape(flat.height(), flat.bytesPerLine())
    return rows[:, : 3 * flat.width()].reshape(flat.height(), flat.width(), 3).astype(int)


def differing(a: QImage, b: QImage) -> float:
    """The share of pixels that differ by more than 64 in a colour."""
    assert a.size() == b.size()
    return float((np.abs(pixels(a) - pixels(b)).max(axis=2) > 64).mean())


def pdf_of(tmp_path: Path, *pages: Page, **how: object) -> QPdfDocument:
    (made,) = export(Asked(pages, **how), tmp_path / "made.pdf")  # type: ignore[arg-type]
    document = QPdfDocument(None)
    assert document.load(str(made)) == QPdfDocument.Error.None_
    return document


def read(document: QPdfDocument, page: int = 0) -> str:
    return document.getAllText(page).text().replace("\r\n", "\n").replace("\r", "\n")


def as_seen(svg: bytes, page: Page) -> QImage:
    box = page.printed()
    image = QImage(QSize(WIDE, round(WIDE * box.height / box.width)), QImage.Format.Format_RGB32)
    image.fill(QColor("white"))
    painter = QPainter(image)
    QSvgRenderer(QByteArray(svg)).render(painter, QRectF(0, 0, image.width(), image.height()))
    painter.end()
    return image


@pytest.mark.parametrize("number", range(len(demo_lesson().pages)))
def test_a_page_of_the_demo_looks_alike_everywhere(qapp: object, tmp_path: Path, number: int) -> None:
    page = demo_lesson().pages[number]
    shown = page_image(page, WIDE, page.printed())
    document = pdf_of(tmp_path, page, grow=False)
    assert differing(document.render(0, shown.size()), shown) < 0.012
    root = ElementTree.fromstring(page_svg(page))
    assert root.tag == f"{SVG}svg"
    used = {match.get("clip-path") for match in root.iter(f"{SVG}g")} - {None}
    defined = {f"url(#{one.get('id')})" for one in root.iter(f"{SVG}clipPath")}
    assert used <= defined


def test_words_are_read_as_they_are_written_in_any_script(qapp: object, tmp_path: Path) -> None:
    lines = ["Lantern paper", "नमस्ते नदी", "Ёлка и лодка", "ÅÉß fi", "½ · 3 = 1,5 €", "a 𝑥 ∈ ℝ"]
    page = page_with(*(Text(text=line, placement=Placement(60, 60 + 90 * k)) for k, line in enumerate(lines)))
    assert read(pdf_of(tmp_path, page)).split("\n")[: len(lines)] == [line.replace("𝑥", "x") for line in lines]
    texts = [element.text for element in ElementTree.fromstring(page_svg(page)).iter(f"{SVG}text")]
    assert "".join(texts).replace(" ", "") == "".join(lines).replace(" ", "")  # type: ignore[arg-type]


SOURCES = {"y = 7 - 1.4x": "y = 7 − 1.4x", "y = 6 - 3/4 x": "y = 6 − 3/4 x", "sqrt(a^2+b^2)": "sqrt(a^2+b^2)"}


@pytest.mark.parametrize(("source", "plain"), SOURCES.items())
def test_an_equation_is_read_in_its_plain_form(qapp: object, tmp_path: Path, source: str, plain: str) -> None:
    page = page_with(Equation(source=source, placement=Placement(100, 100)))
    assert read(pdf_of(tmp_path, page)).strip() == plain
    assert plain in page_svg(page, fonts="named").decode()


def test_things_are_read_from_the_top_and_beside_each_other_from_the_left(qapp: object, tmp_path: Path) -> None:
    places = {"three": (100, 400), "two": (700, 110), "one": (100, 100), "four": (700, 420)}
    page = page_with(*(Text(text=word, placement=Placement(*at)) for word, at in places.items()))
    assert read(pdf_of(tmp_path, page)).split() == ["one", "two", "three", "four"]
    assert in_reading_order([]) == []


def test_what_frost_covers_is_read_only_with_the_answers(qapp: object, tmp_path: Path) -> None:
    answer = Text(text="forty-two", placement=Placement(100, 200))
    over = Frost(placement=Placement(60, 160), width=400, height=160)
    page = page_with(Text(text="How many?", placement=Placement(100, 60)), answer, over)
    assert read(pdf_of(tmp_path, page)).split() == ["How", "many?"]
    assert b"forty-two" not in page_svg(page)
    document = pdf_of(tmp_path, page, answers=True)
    assert "forty-two" in read(document)
    (picture,) = export(Asked([page], answers=True, width=WIDE), tmp_path / "a.png")
    assert differing(QImage(str(picture)), page_image(page, WIDE)) > 0.001
    for bare in (over.replace(melted=True), over.replace(rubs=(Rub(((10.0, 60.0), (390.0, 60.0)), 60.0),))):
        assert "forty-two" in read(pdf_of(tmp_path, page.with_things({"t3": bare})))


def test_a_highlighter_lets_the_words_under_it_be_read_and_has_its_arrow(qapp: object, tmp_path: Path) -> None:
    words = Text(text="IIIIIIII", placement=Placement(100, 100), size=80.0, bold=True)
    mark = ink_from([(80.0 + 20 * k, 150.0, 0.7, 8.0 * k) for k in range(30)]).replace(
        nib="highlighter", width=60.0, hue="straw"
    )
    page = page_with(words, mark.replace(ends="end"))
    shown = page_image(page, WIDE, page.printed())
    assert differing(pdf_of(tmp_path, page, grow=False).render(0, shown.size()), shown) < 0.01
    text = page_svg(page).decode()
    assert "mix-blend-mode:multiply" in text
    bare = page_svg(page_with(words, mark)).decode()
    assert text.count("<path") > bare.count("<path")  # the head of the arrow


def test_a_picture_of_the_set_has_no_outline_that_it_has_not(qapp: object, tmp_path: Path) -> None:
    from larch.desk.drawings import found

    (picture,) = found("lantern")[0].things()
    page = page_with(picture.replace(placement=Placement(300, 200), width=300.0, height=300.0))
    shown = page_image(page, WIDE, page.printed())
    assert differing(pdf_of(tmp_path, page, grow=False).render(0, shown.size()), shown) < 0.01
    trimmed = page_with(page.things[0].replace(trim=(0.5, 0.0, 0.0, 0.0)))
    shown = page_image(trimmed, WIDE, trimmed.printed())
    assert differing(pdf_of(tmp_path, trimmed, grow=False).render(0, shown.size()), shown) < 0.01
    assert b"<clipPath" in page_svg(trimmed)


@pytest.mark.parametrize("fonts", ["outlined", "embedded", "named"])
def test_letters_of_an_svg_are_as_chosen(qapp: object, fonts: str) -> None:
    page = page_with(Text(text="Lantern", placement=Placement(100, 100)), Sheet(), Circle(placement=Placement(400, 300)))
    root = ElementTree.fromstring(page_svg(page, fonts=fonts, language="de"))
    (text,) = root.iter(f"{SVG}text")
    assert text.text == "Lantern"
    assert (text.get("fill-opacity") == "0") == (fonts == "outlined")
    assert "Andika" in (text.get("font-family") or "")
    assert "sans-serif" in (text.get("font-family") or "")
    style = next(root.iter(f"{SVG}style"), None)
    assert (style is not None and "@font-face" in (style.text or "")) == (fonts == "embedded")
    assert root.get("{http://www.w3.org/XML/1998/namespace}lang") == "de"


def test_a_pdf_tells_its_title_and_language_and_is_tagged(qapp: object, tmp_path: Path) -> None:
    page = page_with(Text(text="Boats", placement=Placement(100, 100)), title="A page")
    document = pdf_of(tmp_path, page, title="Am Fluss – 1", language="de")
    assert document.metaData(QPdfDocument.MetaDataField.Title) == "Am Fluss – 1"
    raw = (tmp_path / "made.pdf").read_bytes()
    assert b"/Lang <FEFF00640065>" in raw
    assert b"/StructTreeRoot" in raw
    assert b"/Marked true" in raw
