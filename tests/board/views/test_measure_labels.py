"""Measures keep out of each other's way."""

from __future__ import annotations

from larch.board.views.measure_labels import laid_out
from larch.core.base.shape import Placement
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.polygon import polygon_on
from larch.desk.window import Window
from tests.board.test_surface import differing
from tests.board.test_tools import Hand


def picture(window: Window):  # type: ignore[no-untyped-def]
    window.canvas.surface.sharpen(5000)
    return window.canvas.surface.base.toImage()


def test_badges_keep_out_of_each_others_way(hand: Hand) -> None:
    from larch.board.views.measure_labels import box_at

    shown = ("sides", "angles", "area", "perimeter")
    hand.put(
        polygon_on(hand.canvas.page, [(160.0, 500.0), (420.0, 500.0), (270.0, 290.0)], shown=shown),
        polygon_on(hand.canvas.page, [(420.0, 500.0), (700.0, 470.0), (560.0, 280.0)], shown=shown),
        Circle(radius=70, placement=Placement(520, 560), shown=("radius", "area", "circumference")),
    )
    boxes = [box_at(laid.slip, laid.at) for slips in laid_out(hand.canvas.page).values() for laid in slips]
    assert len(boxes) == 2 * 8 + 3
    overlaps = [(a, b) for i, a in enumerate(boxes) for b in boxes[i + 1 :] if a.grown(-2).meets(b.grown(-2))]
    assert len(overlaps) <= 1, overlaps


def test_a_slip_that_is_pushed_is_painted_anew(hand: Hand) -> None:
    """After any change the picture at rest is the same as one painted from nothing."""
    first = polygon_on(hand.canvas.page, [(200.0, 500.0), (520.0, 500.0), (300.0, 330.0)], shown=("sides", "area"))
    hand.put(first, first.moved(300, 0))
    hand.canvas.surface.sharpen(5000)
    hand.drag((520 + 100, 470), (520 - 120, 440))
    kept = picture(hand.window)
    hand.canvas.repaint_page()
    assert differing(picture(hand.window), kept) == 0
