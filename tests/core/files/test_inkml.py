"""Ink as InkML."""

from __future__ import annotations

from larch.core.base.shape import Placement
from larch.core.files.inkml import page_inkml
from larch.core.model.page import Page
from larch.core.things.ink.ink import ink_from
from tests.samples import page_with, stroke


def test_inkml_carries_turned_strokes_to_the_page() -> None:
    ink = ink_from([(0, 0, 0.5, 0), (10, 0, 0.5, 8)]).replace(placement=Placement(100, 50, 90, 2))
    text = page_inkml(page_with(ink, stroke())).decode()
    assert "100.00 50.00 0.500 0,100.00 30.00 0.500 8" in text
    assert page_inkml(Page(id="p")) == b""
