"""Construct: points, lines, circles and what follows from them, by taps or by drags."""

from __future__ import annotations

import math
from typing import TYPE_CHECKING, ClassVar

from larch.board.gestures.base import DRAG_START, TOUCH_SLACK, Caption, Gesture, Prompt, Spots, Stage, nothing
from larch.board.pointer import Sample
from larch.board.tools.base import Tool
from larch.core.base.shape import Point
from larch.core.base.words import N_, _
from larch.core.maths.plane.forms import NotThere
from larch.core.model.action import named
from larch.core.model.edit import Edit
from larch.core.model.thing import Thing

if TYPE_CHECKING:
    from larch.core.actions.geometry.picks import Pick

REACH = 13.0  # pixels within which something is meant
OPEN_ENDED = ("polygon", "polyline")
LOCUS = (N_("a point that traces"), N_("the point that moves"))
SIMPLE = 1.5  # page units by which a drawn outline may be simplified
MOST_DRAWN = 300


class ConstructTool(Tool):
    """mode: the name of a rule, "point", "drawn" (a closed shape by hand) or "locus"; numbers: those chosen for rules."""

    name: ClassVar[str] = "construct"
    icon: ClassVar[str] = "drafting-compass"
    cursor: ClassVar[str] = "cross"
    shortcut: ClassVar[str] = "G"

    def __init__(self) -> None:
        self.mode = "segment"
        self.family = ""  # the one that is looked through, "" for that of the mode
        self.hue = "lake"
        self.numbers: dict[str, float] = {}
        self.picks: list[Pick] = []

    def label(self) -> str:
        return _("construct")

    def choose(self, mode: str) -> None:
        self.mode = mode
        self.picks.clear()

    def takes(self) -> tuple[str, ...]:
        from larch.core.figures.rules import RULES

        if self.mode == "locus":
            return ("point", "point")
        return RULES[self.mode].takes if self.mode in RULES else ("point",)

    def values(self) -> tuple[float, ...]:
        from larch.core.figures.rules import RULES

        rule = RULES.get(self.mode)
        if rule is None or not rule.starts:
            return ()
        return (self.numbers.get(self.mode, rule.starts[0]), *rule.starts[1:])

    def title(self) -> str:
        from larch.core.figures.rules import RULES

        words = {"point": _("point"), "drawn": _("shape by hand"), "locus": _("locus")}
        return words.get(self.mode) or _(RULES[self.mode].label)

    def question(self) -> str:
        """What is wanted next."""
        from larch.core.figures.questions import asked

        if self.mode == "point":
            return _("tap where it lies")
        if self.mode == "drawn":
            return _("draw round it")
        k = len(self.picks)
        if self.mode == "locus":
            return _("tap {what}").format(what=_(LOCUS[min(k, 1)]))
        if self.mode in OPEN_ENDED and k >= 2:
            if self.mode == "polygon":
                return _("tap the next corner, or the first to close")
            return _("tap the next point, or the last again to end")
        return _("tap {what}").format(what=_(asked(self.mode, k)))

    def wanted(self) -> str:
        takes = self.takes()
        return takes[min(len(self.picks), len(takes) - 1)]

    def taken(self, stage: Stage) -> None:
        self.show(stage)

    def show(self, stage: Stage, *marks: Caption) -> None:
        """The question, and the places picked so far."""
        spots = [Spots([one.at for one in self.picks])] if self.picks else []
        stage.show_marks(self, Prompt(f"{self.title().capitalize()}: {self.question()}"), *spots, *marks)

    def press(self, stage: Stage, sample: Sample) -> Gesture:
        return Drawing(stage, sample, self) if self.mode == "drawn" else Picking(stage, sample, self)

    def put_down(self, stage: Stage) -> None:
        self.picks.clear()
        stage.show_marks(self)


class Picking(Gesture):
    """One tap picks one thing; a drag picks two, and shows meanwhile what comes of it."""

    def __init__(self, stage: Stage, sample: Sample, tool: ConstructTool) -> None:
        self.stage = stage
        self.tool = tool
        self.start = sample
        self.dragging = False
        self.missed = ""
        first = self._pick(sample, tool.wanted())
        self.first = first
        if first is not None:
            self._preview([*tool.picks, first], sample)

    def _pick(self, sample: Sample, wanted: str) -> Pick | None:
        from larch.core.actions.geometry.picks import near_box, pick

        at = sample.page_pos
        slack = TOUCH_SLACK if sample.kind == "touch" else 0.0
        reach = (REACH + slack) / self.stage.camera.scale
        page = self.stage.page
        return pick(page, self.stage.things_in(near_box(at, reach)), at, reach, wanted, not sample.alt)

    def _second(self, sample: Sample) -> Pick | None:
        """What a drag ends on."""
        takes = self.tool.takes()
        k = len(self.tool.picks) + 1
        if k >= len(takes) and takes[-1] != "point…":
            return None
        return self._pick(sample, takes[min(k, len(takes) - 1)])

    def move(self, sample: Sample) -> None:
        if not self.dragging and math.dist(sample.view_pos, self.start.view_pos) < 2 * DRAG_START:
            return
        if self.first is None:
            return
        self.dragging = True
        if self.tool.mode in ("point", "on"):
            self.first = self._pick(sample, self.tool.wanted()) or self.first
            self._preview([self.first], sample)
            return
        second = self._second(sample)
        if second is not None:
            self._preview([*self.tool.picks, self.first, second], sample)

    def _preview(self, picks: list[Pick], sample: Sample) -> None:
        from larch.core.figures.settle import settle

        tool, last = self.tool, picks[-1]
        new: list[Thing] = []
        takes = tool.takes()
        if tool.mode == "point" or len(picks) < len(takes) or tool.mode in OPEN_ENDED:
            new = [one.fresh for one in picks if one.fresh is not None]
        if tool.mode in OPEN_ENDED and len(picks) >= 3:
            new.append(self._outline([one.at for one in picks]))
        elif tool.mode != "point" and len(picks) == len(takes) and takes[-1] != "point…":
            made = self._built(picks, sample.page_pos)
            if made is not None:
                new = list(made)
        page = self.stage.page
        settled = settle(page.put(*new)).things[len(page.things) :] if new else ()
        self.stage.preview(self, nothing, settled)
        tool.show(self.stage, *([Caption(last.at, last.why)] if last.why else []))

    def _outline(self, corners: list[Point]) -> Thing:
        from larch.core.things.geometry.polygon import polygon_on

        if self.tool.mode == "polygon":
            return polygon_on(self.stage.page, corners, hue=self.tool.hue, letters=" " * len(corners))
        from larch.core.things.geometry.polyline import Polyline

        return Polyline(vertices=tuple(corners), hue=self.tool.hue)

    def _built(self, picks: list[Pick], at: Point) -> tuple[Thing, ...] | None:
        from larch.core.actions.geometry.picks import built, nearest_value
        from larch.core.maths.plane.forms import NotThere

        page = self.stage.page
        try:
            values = nearest_value(page, self.tool.mode, picks, at) or self.tool.values()
            made = built(page, self.tool.mode, picks, values, self.tool.hue)
        except NotThere:
            return None
        return made.page.some(made.ids)

    def release(self, sample: Sample) -> None:
        tool = self.tool
        self.stage.end_preview(self)
        if self.first is None:
            self._say_missed()
            return
        picks = [self.first]
        if self.dragging and tool.mode not in ("point", "on"):
            second = self._second(sample)
            if second is not None and second.at != self.first.at:
                picks.append(second)
        if tool.mode in OPEN_ENDED:
            self._corner(picks, sample)
        else:
            tool.picks += picks
            if len(tool.picks) >= len(tool.takes()):
                self._done(sample.page_pos)
        tool.show(self.stage)

    def _say_missed(self) -> None:
        what = _("There is nothing like that here: {question}.").format(question=self.tool.question())
        self.tool.show(self.stage, Caption(self.start.page_pos, what))

    def _corner(self, picks: list[Pick], sample: Sample) -> None:
        """A corner more; at the first one (a polyline: at the last one again) the shape is done."""
        tool = self.tool
        reach = 1.4 * REACH / self.stage.camera.scale
        for one in picks:
            end = tool.picks[0] if tool.mode == "polygon" and tool.picks else tool.picks[-1] if tool.picks else None
            least = 3 if tool.mode == "polygon" else 2
            if end is not None and math.dist(end.at, one.at) <= reach:
                if len(tool.picks) >= least:
                    self._done(sample.page_pos)
                    return
                continue
            tool.picks.append(one)
        if sample.clicks > 1 and len(tool.picks) >= 3:
            self._done(sample.page_pos)

    def _done(self, at: Point) -> None:
        from larch.core.actions.geometry.picks import built, nearest_value, put_below_points
        from larch.core.figures.settle import settle

        tool, page = self.tool, self.stage.page
        picks, tool.picks = list(tool.picks), []
        if tool.mode == "point":
            one = picks[0]
            if one.fresh is None:
                self.stage.select([one.ref.partition(":")[0]])
                return
            self.stage.commit(Edit(_("Point"), page, settle(page.put(named(page, one.fresh)))))
            return
        if tool.mode in OPEN_ENDED and not any(one.ref or (one.fresh and one.fresh.rule) for one in picks):
            thing = self._outline([one.at for one in picks]).replace(**_no_letters(tool.mode))
            self.stage.commit(Edit(tool.title().capitalize(), page, put_below_points(page, thing)))
            return
        values = nearest_value(page, tool.mode, picks, at) or tool.values()
        try:
            made = built(page, tool.mode, picks, values, tool.hue)
        except NotThere as why:  # what was picked has been taken away meanwhile, say
            self.stage.said.emit(_(str(why)))
            return
        self.stage.commit(Edit(tool.title().capitalize(), page, made.page))

    def cancel(self) -> None:
        self.stage.end_preview(self)


def _no_letters(mode: str) -> dict[str, str]:
    return {"letters": ""} if mode == "polygon" else {}


class Drawing(Gesture):
    """A closed shape, drawn round by hand."""

    def __init__(self, stage: Stage, sample: Sample, tool: ConstructTool) -> None:
        self.stage = stage
        self.tool = tool
        self.path = [sample.page_pos]

    def move(self, sample: Sample) -> None:
        if math.dist(self.path[-1], sample.page_pos) * self.stage.camera.scale >= 2:
            self.path.append(sample.page_pos)
        if len(self.path) > 3:
            self.stage.preview(self, nothing, [self._shape(self.path[:: max(1, len(self.path) // 200)])])

    def _shape(self, path: list[Point]) -> Thing:
        from larch.core.things.geometry.polygon import polygon_on

        return polygon_on(self.stage.page, path, hue=self.tool.hue, drawn=True)

    def release(self, sample: Sample) -> None:
        self.stage.end_preview(self)
        outline = simplified(self.path)
        if len(outline) < 3:
            self.tool.show(self.stage, Caption(sample.page_pos, _("Draw all the way round it.")))
            return
        page = self.stage.page
        self.stage.commit(Edit(_("Draw a shape"), page, page.put(self._shape(outline))))

    def cancel(self) -> None:
        self.stage.end_preview(self)


def simplified(path: list[Point]) -> list[Point]:
    """An outline with as few corners as it needs; empty if it encloses nothing. Douglas and Peucker (1973)."""
    import shapely

    if len(path) < 4:
        return []
    tolerance = SIMPLE
    for _round in range(12):
        ring = shapely.simplify(shapely.LinearRing(path), tolerance)
        points = [(float(x), float(y)) for x, y in ring.coords[:-1]]
        if len(points) <= MOST_DRAWN:
            break
        tolerance *= 1.6
    return points if len(points) >= 3 and shapely.Polygon(points).convex_hull.area > 100 else []
