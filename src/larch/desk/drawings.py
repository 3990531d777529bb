"""Entries of the shelf that are too many for a list: the drawings of the set, and what a teacher has kept."""

from __future__ import annotations

from collections.abc import Callable

from larch.core.base.words import N_, _
from larch.core.media import picture_set
from larch.core.media.picture_set import Drawing
from larch.core.model.thing import ShelfItem, Thing
from larch.core.things.pictures.picture import Picture

MOST_FOUND = 48


def item_of(drawing: Drawing) -> ShelfItem:
    return ShelfItem(f"picture {drawing.hash[:12]}", drawing.label, N_("Pictures"), _maker(drawing))


def _maker(drawing: Drawing) -> Callable[[], Thing]:
    return lambda: Picture(media=f"{drawing.hash}.svg", name=drawing.label)


def found(query: str) -> list[ShelfItem]:
    return [item_of(drawing) for drawing in picture_set.search(query, MOST_FOUND)]


def sort_items(sort: str) -> list[ShelfItem]:
    return [item_of(drawing) for drawing in picture_set.tray(sort, 2000)]


def licence() -> str:
    """What a person is told about the drawings."""
    words = _("{n} drawings by Microsoft (Fluent Emoji, flat), under the MIT licence; words by Unicode CLDR.")
    return words.format(n=picture_set.count())
