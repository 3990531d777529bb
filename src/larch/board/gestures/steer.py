"""A graph dragged as a whole, or by one of its places: the equation follows in the form in which it is written."""

from __future__ import annotations

import math
from abc import ABC, abstractmethod
from collections.abc import Callable, Mapping

from larch.board.gestures.base import DRAG_START, Gesture, Stage, nothing
from larch.board.gestures.drag import tapped
from larch.board.pointer import Sample
from larch.core.base.shape import Point
from larch.core.base.words import _
from larch.core.maths.plane.forms import NotThere
from larch.core.model.capabilities import Plots, Shades, Steered, Steers, Tabulates
from larch.core.model.page import Page
from larch.core.model.thing import Snap, Thing


class SteerGraph(Gesture):
    """name: of the place, "" for the whole. Control: it falls onto nothing. A tap selects the equation; one on something
    that stands out means `tap`, which tells what changes by it."""

    def __init__(
        self, stage: Stage, sample: Sample, id: str, name: str = "", tap: Callable[[Page], Mapping[str, Thing]] | None = None
    ) -> None:
        self.stage, self.id, self.name, self.tap = stage, id, name, tap
        self.start = sample
        self.to: Point | None = None
        self.freely = False
        self.trouble = ""

    def move(self, sample: Sample) -> None:
        if self.to is None and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        if self.to is None and self.stage.selection != (self.id,):
            self.stage.select((self.id,))
        self.to, self.freely = sample.page_pos, sample.control
        found = self._steered(self.stage.page)
        snap = Snap(0, 0, found.why, (found.at, found.at)) if found is not None and found.why else None
        self.stage.show_snap(self, snap)
        self.stage.preview(self, self._change)

    def _steered(self, page: Page) -> Steered | None:
        thing = page.thing(self.id)
        if not isinstance(thing, Steers) or self.to is None:
            return None
        try:
            return thing.steered(page, self.name, self.start.page_pos, self.to, self.freely)
        except NotThere as reason:
            self.trouble = _(str(reason))
            return None

    def _change(self, page: Page) -> Mapping[str, Thing]:
        found = self._steered(page)
        return {} if found is None else found.changed

    def release(self, sample: Sample) -> None:
        self.stage.show_snap(self, None)
        thing = self.stage.page.thing(self.id)
        if self.to is None:
            if thing is None:
                return
            changed = self.tap(self.stage.page) if self.tap is not None and sample.clicks < 2 else {}
            if changed and (self.stage.at_board or self.stage.selection == (self.id,)):
                self.stage.finish(self, _("Say what it is"), self.tap or nothing)
            else:
                tapped(self.stage, thing, sample)
            return
        if self._steered(self.stage.page) is None and self.trouble:
            self.stage.said.emit(self.trouble)
        self.stage.finish(self, _("Move the graph"), self._change)

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.end_preview(self)


class _DragOnAxes(Gesture, ABC):
    """Something of a thing dragged on axes: it falls onto the grid, Ctrl for freely. A tap selects the thing."""

    def __init__(self, stage: Stage, sample: Sample, axes: str, id: str, which: int) -> None:
        self.stage, self.axes, self.id, self.which = stage, axes, id, which
        self.start = sample
        self.to: Point | None = None
        self.freely = False

    @abstractmethod
    def changed(self, thing: Thing | None, page: Page, x: float, y: float) -> Thing | None:
        """The thing with its part at these coordinates; None where it has none any more."""

    @abstractmethod
    def words(self) -> str:
        """What the edit is called."""

    def move(self, sample: Sample) -> None:
        if self.to is None and math.dist(sample.view_pos, self.start.view_pos) < DRAG_START:
            return
        self.to, self.freely = sample.page_pos, sample.control
        self.stage.preview(self, self._change)

    def _change(self, page: Page) -> Mapping[str, Thing]:
        axes = page.thing(self.axes)
        if not isinstance(axes, Plots) or self.to is None:
            return {}
        at = axes.coordinates(self.to if self.freely else axes.grid_point(self.to))
        made = self.changed(page.thing(self.id), page, *at)
        return {} if made is None else {self.id: made}

    def release(self, sample: Sample) -> None:
        if self.to is None:
            self.stage.select((self.id,))
        else:
            self.stage.finish(self, self.words(), self._change)

    def cancel(self) -> None:
        self.stage.end_preview(self)


class DragDot(_DragOnAxes):
    """A point of a table: the row follows."""

    def changed(self, thing: Thing | None, page: Page, x: float, y: float) -> Thing | None:
        return thing.with_point(page, self.which, x, y) if isinstance(thing, Tabulates) else None

    def words(self) -> str:
        return _("Move a point")


class DragEnd(_DragOnAxes):
    """The beginning or the end of a shaded area, or of a staircase, along its axis."""

    def changed(self, thing: Thing | None, page: Page, x: float, y: float) -> Thing | None:
        return thing.with_end(self.which, x) if isinstance(thing, Shades) else None

    def words(self) -> str:
        return _("Move an edge")
