"""Ink as InkML."""

from __future__ import annotations

from xml.etree import ElementTree

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


INK = "{http://www.w3.org/2003/InkML}"
XML = "{http://www.w3.org/XML/1998/namespace}"


def test_every_trace_names_a_context_with_its_format_and_a_brush_with_all_that_it_is() -> None:
    pens = [("pen", ""), ("highlighter", ""), ("crayon", "dash"), ("pen", "dots")]
    page = page_with(*(stroke().replace(nib=nib, dash=dash, hue="berry") for nib, dash in pens))
    root = ElementTree.fromstring(page_inkml(page))
    named = {element.get(f"{XML}id"): element for element in root.iter() if element.get(f"{XML}id")}
    traces = list(root.iter(f"{INK}trace"))
    assert len(traces) == len(pens)
    for trace, (nib, dash) in zip(traces, pens, strict=True):
        context = named[(trace.get("contextRef") or "").lstrip("#")]
        assert context.tag == f"{INK}context"
        assert named[(context.get("traceFormatRef") or "").lstrip("#")].tag == f"{INK}traceFormat"
        brush = named[(trace.get("brushRef") or "").lstrip("#")]
        told = {one.get("type"): one.text for one in brush.iter(f"{INK}annotation")}
        assert told == {"nib": nib} | ({"dash": dash} if dash else {})
        properties = {one.get("name"): one.get("value") for one in brush.iter(f"{INK}brushProperty")}
        assert (properties.get("rasterOp") == "maskPen") == (nib == "highlighter")
        assert {"color", "width"} <= properties.keys()
