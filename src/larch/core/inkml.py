"""Ink as W3C InkML (2011), so that other programs can read the strokes of a lesson."""

from __future__ import annotations

from larch.core.hues import hex_of
from larch.core.page import Page
from larch.core.things.ink import Ink

HEAD = """<?xml version="1.0" encoding="UTF-8"?>
<ink xmlns="http://www.w3.org/2003/InkML">
<definitions><traceFormat xml:id="format"><channel name="X" type="decimal"/><channel name="Y" type="decimal"/>\
<channel name="F" type="decimal" min="0" max="1"/><channel name="T" type="decimal" units="ms"/></traceFormat>
"""


def page_inkml(page: Page) -> bytes:
    """The page's ink in page units; empty if there is none."""
    strokes = [thing for thing in page.things if isinstance(thing, Ink)]
    if not strokes:
        return b""
    brushes: dict[tuple[str, float], str] = {}
    traces = []
    for stroke in strokes:
        brush = brushes.setdefault((hex_of(stroke.hue), stroke.width), f"brush{len(brushes) + 1}")
        points = ",".join(_point(stroke, *sample) for sample in stroke.samples())
        traces.append(f'<trace contextRef="#format" brushRef="#{brush}">{points}</trace>\n')
    defined = "".join(
        f'<brush xml:id="{name}"><brushProperty name="color" value="{colour}"/>'
        f'<brushProperty name="width" value="{width:g}"/></brush>\n'
        for (colour, width), name in brushes.items()
    )
    return f"{HEAD}{defined}</definitions>\n{''.join(traces)}</ink>\n".encode()


def _point(stroke: Ink, x: float, y: float, pressure: float, time: float) -> str:
    on_page = stroke.placement.to_page(x, y)
    return f"{on_page[0]:.2f} {on_page[1]:.2f} {pressure:.3f} {time:.0f}"
