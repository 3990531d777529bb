"""Which things lie in a region: a grid over the page, hashed by cell."""

from __future__ import annotations

from collections.abc import Iterable

from larch.core.base.shape import Box

CELL = 128.0
MOST_CELLS = 900  # a thing that covers more is kept in a list of its own


class SceneIndex:
    """Boxes by id. Adding, moving and asking cost as much as the cells concerned, not as the page."""

    def __init__(self) -> None:
        self.boxes: dict[str, Box] = {}
        self._cells: dict[tuple[int, int], set[str]] = {}
        self._large: set[str] = set()

    def put(self, id: str, box: Box) -> None:
        self.drop(id)
        self.boxes[id] = box
        cells = self._covered(box)
        if cells is None:
            self._large.add(id)
        else:
            for cell in cells:
                self._cells.setdefault(cell, set()).add(id)

    def drop(self, id: str) -> None:
        box = self.boxes.pop(id, None)
        if box is None:
            return
        self._large.discard(id)
        for cell in self._covered(box) or ():
            found = self._cells.get(cell)
            if found is not None:
                found.discard(id)

    def meeting(self, box: Box) -> set[str]:
        """Ids of the boxes that meet a box."""
        cells = self._covered(box)
        candidates: Iterable[str]
        if cells is None:
            candidates = self.boxes
        else:
            candidates = set(self._large).union(*(self._cells.get(cell, ()) for cell in cells))
        return {id for id in candidates if self.boxes[id].meets(box)}

    @staticmethod
    def _covered(box: Box) -> list[tuple[int, int]] | None:
        left, right = int(box.x0 // CELL), int(box.x1 // CELL)
        top, bottom = int(box.y0 // CELL), int(box.y1 // CELL)
        if (right - left + 1) * (bottom - top + 1) > MOST_CELLS:
            return None
        return [(x, y) for x in range(left, right + 1) for y in range(top, bottom + 1)]
