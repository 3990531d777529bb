"""Pointers: one neutral sample for mouse, touch and tablet pen. Tools see nothing else. No Qt."""

from __future__ import annotations

from typing import NamedTuple

from larch.core.base.shape import Point


class Sample(NamedTuple):
    """One moment of one pointer.

    pointer: stable while it is down, e.g. "mouse", "touch 3", "pen 7f". kind: mouse, touch, pen or eraser.
    view_pos in pixels of the canvas, page_pos in page units. pressure 0 to 1; 0 < contact: size of a finger in
    pixels. time in ms. pressed: whether the device measures pressure at all.
    """

    pointer: str
    kind: str
    view_pos: Point
    page_pos: Point
    time: float
    pressure: float = 0.5
    senses_pressure: bool = False
    contact: float = 0.0
    shift: bool = False
    control: bool = False
    alt: bool = False
    clicks: int = 1
    button: str = "left"
