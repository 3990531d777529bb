"""Pages and lessons to measure with."""

from __future__ import annotations

import math

from larch.core.base.shape import Placement
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page, Paper
from larch.core.model.thing import Thing
from larch.core.things.chance.die import Die
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.ink.ink import Ink, ink_from
from larch.core.things.numbers.block import Block
from larch.core.things.words.text import Text


def wave(number: int, points: int = 60, across: int = 40) -> Ink:
    """A stroke of handwriting size, at a place that follows from its number."""
    x, y = 20 + (number % across) * 30.0, 20 + (number // across) * 13.5
    samples = [
        (x + 0.9 * i + 9 * math.cos(i / 3 + number), y + 10 * math.sin(i / 4 + number), 0.4 + 0.3 * math.sin(i / 9), 8.0 * i)
        for i in range(points)
    ]
    return ink_from(samples, 3.0, ("needle", "lake", "berry")[number % 3])


def full_page(strokes: int = 2000) -> Page:
    return Page(id="", title="full", paper=Paper("squared")).put(*(wave(i) for i in range(strokes)))


def crowded_page(count: int = 5000, width: float = 4000, height: float = 3000) -> Page:
    """Things of mixed kinds over a wide page."""
    things: list[Thing] = []
    for i in range(count):
        x, y = (i * 617 % 4001) / 4001 * width, (i * 389 % 3001) / 3001 * height
        at = Placement(x, y)
        kinds: list[Thing] = [
            Block(value=(1, 10, 100)[i % 3], placement=at),
            Polygon(vertices=((0.0, 0.0), (60.0, 0.0), (40.0, 50.0)), letters="   ", placement=at),
            Text(text=f"lantern {i}", size=22, placement=at),
            wave(i).replace(placement=at),
            Die(placement=Placement(x, y, 0, 0.5)),
        ]
        things.append(kinds[i % len(kinds)])
    return Page(id="", title="crowded", paper=Paper("squared")).put(*things)


def long_lesson(pages: int = 100, strokes: int = 100) -> Lesson:
    lesson = Lesson(title="long")
    for number in range(pages):
        lesson = lesson.insert(Page(id="", title=f"page {number + 1}").put(*(wave(i + number) for i in range(strokes))))
    return lesson
