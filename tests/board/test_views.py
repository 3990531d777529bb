"""Parity of views: every kind is painted, at any size, and text stays text where it leaves the program."""

from __future__ import annotations

import math
from itertools import pairwise

import pytest
from PyQt6.QtGui import QColor, QImage, QPainter

from larch.board.camera import Camera, fitting
from larch.board.export import Asked, ExportError, export
from larch.board.index import SceneIndex
from larch.board.paint import page_image, page_svg, paint_page
from larch.board.typeset.boxes import Bar, Glyph, Outline
from larch.board.typeset.mathset import set_node
from larch.board.views import view_of, views
from larch.board.views.ink.ink import outline
from larch.core.base.shape import Box, Placement
from larch.core.maths.expression import parse
from larch.core.model.kinds import kinds
from larch.core.model.nibs import Pen
from larch.core.model.page import Page
from larch.core.model.thing import Thing, Unknown
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.ink.ink import Ink, ink_from
from larch.core.things.words.text import Text
from tests.samples import page_with, sample_things, special_ink, stroke

pytestmark = pytest.mark.usefixtures("qapp")
SAMPLES = [*sample_things(), Unknown(was="abacus", raw=b"{}")]


def test_every_kind_has_a_view() -> None:
    assert set(views()) == set(kinds().values())


@pytest.mark.parametrize("thing", SAMPLES, ids=lambda t: t.kind())
def test_a_thing_is_painted_within_its_reach(thing: Thing) -> None:
    placed = thing.replace(placement=Placement(400, 300, 0, 1), supply=False)
    page = page_with(placed)
    reach = view_of(placed).reach(page.things[0], page)
    image = QImage(1280, 900, QImage.Format.Format_RGB32)
    painter = QPainter(image)
    paint_page(painter, page, Box(0, 0, 1280, 900))
    painter.end()
    paper = QColor("#FCFBF7").rgb()
    marked = [(x, y) for x in range(0, 1280, 2) for y in range(0, 900, 2) if image.pixel(x, y) != paper]
    assert marked
    assert all(reach.grown(2).holds(x, y) for x, y in marked)


@pytest.mark.parametrize("thing", SAMPLES, ids=lambda t: t.kind())
@pytest.mark.parametrize(
    "placement", [Placement(0, 0, 37, 1e-6), Placement(1e9, -1e9, 5, 1e6), Placement(100, 100, 720.5, 3)]
)
def test_odd_placements_paint_without_complaint(thing: Thing, placement: Placement) -> None:
    image = page_image(page_with(thing.replace(placement=placement, supply=True)), 200)
    assert image.width() == 200


@pytest.mark.parametrize(
    "thing",
    [Ink(points=b""), ink_from([(5, 5, 0.5, 0)]), ink_from([(5, 5, 0.5, 0)] * 9), ink_from([(0, 0, 1, 0), (1e5, 1e5, 0, 1)]),
     Polygon(vertices=((1.0, 1.0),) * 3, shown=("sides", "angles", "area")), Text(text=""),
     Text(text="שלום 灯 🏮 مرحبا\n\n" * 5, width=200),
     Polygon(vertices=((0.0, 0.0), (50.0, 0.0), (100.0, 0.0)), shown=("angles",))],
)  # fmt: skip
def test_degenerate_things_are_painted(thing: Thing) -> None:
    assert page_image(page_with(thing), 160).width() == 160


def test_a_stroke_is_one_smooth_body() -> None:
    polygons, rounds = outline(stroke())
    assert len(polygons) >= 4
    assert len(rounds) >= 2
    assert max(len(polygon) for polygon in polygons) < 80


def test_svg_keeps_text_as_text() -> None:
    svg = page_svg(page_with(Text(text="Lantern paper"), title="Night")).decode()
    assert "Lantern paper" in svg
    assert "<text" in svg


def test_pdf_png_svg_are_written_whole_or_not_at_all(tmp_path) -> None:  # type: ignore[no-untyped-def]
    pages = [page_with(Text(text="one")), page_with(stroke())]
    assert export(Asked(pages), tmp_path / "a.pdf")[0].read_bytes().startswith(b"%PDF")
    made = export(Asked(pages, width=320), tmp_path / "a.png")
    assert [path.name for path in made] == ["a-1.png", "a-2.png"]
    assert QImage(str(made[0])).width() == 320
    assert export(Asked(pages[:1]), tmp_path / "b.svg")[0].read_bytes().startswith(b"<?xml")
    assert export(Asked(pages, progress=lambda done, count: False), tmp_path / "c.svg") == []
    with pytest.raises(ExportError, match="can't be written"):
        export(Asked(pages), tmp_path / "nowhere/x.pdf")
    with pytest.raises(ExportError, match="ends in"):
        export(Asked(pages), tmp_path / "x.doc")
    assert not list(tmp_path.glob(".*"))


def test_typesetting_puts_things_where_they_belong() -> None:
    fraction = set_node(parse("(x+1)/2"))
    assert [type(m) for m in fraction.marks].count(Bar) == 1
    power = set_node(parse("x^2"))
    base, script = (m for m in power.marks if isinstance(m, Glyph))
    assert script.y < base.y
    assert script.size < base.size
    assert any(isinstance(m, Outline) for m in set_node(parse("sqrt(x)")).marks)
    tall = set_node(parse("((x/2)/(3/4))^2"))
    assert tall.above + tall.below > 1.5
    for source in ("sin^2 x", "|x|/x", "floor(x)", "root(x, 5)", "min(x, 2)", "3 1/2", "5!", "-x^2", "log(10)(x)"):
        assert set_node(parse(source)).width > 0.5


def test_the_index_finds_what_meets_a_box() -> None:
    index = SceneIndex()
    for i in range(100):
        index.put(f"t{i}", Box(i * 50, 0, i * 50 + 20, 20))
    index.put("huge", Box(-1e8, -1e8, 1e8, 1e8))
    assert index.meeting(Box(100, 5, 155, 6)) == {"t2", "t3", "huge"}
    index.put("t2", Box(0, 900, 1, 901))
    index.drop("huge")
    assert index.meeting(Box(100, 5, 155, 6)) == {"t3"}
    assert len(index.meeting(Box(-1e9, -1e9, 1e9, 1e9))) == 100


def test_the_camera_keeps_the_point_it_zooms_about() -> None:
    camera = Camera(1.3, 20, -7)
    before = camera.to_page(200, 100)
    assert camera.zoomed(2.5, 200, 100).to_page(200, 100) == pytest.approx(before)
    fitted = fitting(Box(0, 0, 1280, 720), 640, 640)
    assert fitted.scale == 0.5
    assert fitted.to_view(640, 360) == (320, 320)


def test_pages_of_any_size_make_pictures() -> None:
    page = Page(id="p", size=(720.0, 1018.0), title="A4")
    image = page_image(page, 360)
    assert (image.width(), image.height()) == (360, 509)


def test_pages_are_painted_in_other_threads_too(qapp) -> None:  # type: ignore[no-untyped-def]
    """Fonts belong to the thread they were made in: what is remembered must not cross over."""
    import gc
    import threading

    page = page_with(*sample_things())
    for _ in range(4):
        made: list[bytes] = []
        worker = threading.Thread(target=lambda made=made: made.append(page_svg(page)))
        worker.start()
        worker.join()
        assert b"<svg" in made[0]
        gc.collect()
        assert page_image(page, 300).width() == 300


def test_a_painter_ends_even_if_a_view_fails() -> None:
    from larch.board.paint import painting

    image = QImage(20, 20, QImage.Format.Format_RGB32)
    with pytest.raises(ZeroDivisionError), painting(image) as painter:
        raise ZeroDivisionError
    assert not painter.isActive()


def test_ink_stays_smooth_at_four_hundred_percent() -> None:
    """A circle drawn in 24 fast samples: no corner is seen, and the line keeps to the circle."""
    turns = [2 * math.pi * k / 24 for k in range(25)]
    ink = ink_from([(120 * math.cos(t), 120 * math.sin(t), 0.5, 0.0) for t in turns], 6.0)
    polygons, _rounds = outline(ink)
    for polygon in polygons:
        side = [polygon.at(i) for i in range(len(polygon) // 2)]
        ways = [math.atan2(b.y() - a.y(), b.x() - a.x()) for a, b in pairwise(side)]
        turned = [abs((b - a + math.pi) % (2 * math.pi) - math.pi) for a, b in pairwise(ways)]
        assert max(turned, default=0.0) < math.radians(9)


@pytest.mark.parametrize("ink", special_ink(), ids=lambda ink: f"{ink.nib}-{ink.form}-{ink.dash}")
def test_every_nib_leaves_the_program_in_every_format(ink: Ink, tmp_path) -> None:  # type: ignore[no-untyped-def]
    page = page_with(Text(text="Lantern", placement=Placement(60, 280)), ink)
    for ending in ("pdf", "svg", "png"):
        (made,) = export(Asked([page], width=400), tmp_path / f"ink.{ending}")
        assert made.stat().st_size > 500
    svg = (tmp_path / "ink.svg").read_text()
    assert "<image" not in svg  # vectors, however it looks


def test_of_an_endless_stroke_only_the_part_that_is_seen_is_painted() -> None:
    from larch.board.views.ink.ink import _seen

    ink = ink_from([(i * 0.02, 40 * math.sin(i / 900), 0.5, float(i)) for i in range(60_000)], 4.0)
    whole = outline(ink)[0]
    image = QImage(64, 64, QImage.Format.Format_RGB32)
    painter = QPainter(image)
    painter.setClipRect(0, 0, 64, 64)
    seen = _seen(painter, ink)
    painter.end()
    assert 0 < len(seen) < len(whole) / 10
    assert ink.touches(600, 40 * math.sin(30_000 / 900), 1)
    assert not ink.touches(600, 40 * math.sin(30_000 / 900) + 30, 1)


def test_a_highlighter_lets_through_what_it_covers_on_a_picture_too() -> None:
    marker = ink_from([(40.0 + 8 * i, 60.0, 1.0, 0.0) for i in range(30)], pen=Pen("highlighter", width=40.0, hue="straw"))
    image = page_image(page_with(Polygon(hue="needle", placement=Placement(80, 20)), marker), 1280)
    bare = page_image(page_with(Polygon(hue="needle", placement=Placement(80, 20))), 1280)
    shades = [(image.pixelColor(x, 60), bare.pixelColor(x, 60)) for x in range(60, 260)]
    assert all(over.blue() <= under.blue() for over, under in shades)
    assert min(over.lightness() for over, _under in shades) <= min(under.lightness() for _over, under in shades)


def test_a_highlighter_too_large_for_a_layer_is_painted_all_the_same(monkeypatch: pytest.MonkeyPatch) -> None:
    from larch.board.views.ink import ink as view

    monkeypatch.setattr(view, "MOST_PIXELS", 100)
    marker = ink_from([(40.0 + 8 * i, 60.0, 1.0, 0.0) for i in range(30)], pen=Pen("highlighter", width=40.0, hue="straw"))
    image = page_image(page_with(marker), 1280)
    assert image.pixelColor(150, 60).blue() < image.pixelColor(150, 300).blue() - 30
