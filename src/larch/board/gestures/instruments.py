"""Instruments under the hand: a pen along an edge, from the middle of a protractor, compasses swung; two fingers."""

from __future__ import annotations

import math

from larch.board.gestures.base import TOUCH_SLACK, Caption, Change, Gesture, Stage, each, nothing
from larch.board.gestures.two_fingers import NEAR
from larch.board.pointer import Sample
from larch.core.actions.geometry.picks import put_below_points
from larch.core.actions.ink.writing import write
from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import _
from larch.core.maths.plane.forms import direction, towards
from larch.core.model.capabilities import IsInk, snap_of
from larch.core.model.edit import Edit
from larch.core.model.fact import number_text
from larch.core.model.nibs import Pen
from larch.core.model.page import Page
from larch.core.model.scale import length_fact
from larch.core.model.thing import Snap, Thing
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.line import Line
from larch.core.things.ink.ink import ink_from, line_from
from larch.core.things.instruments.compasses import Compasses
from larch.core.things.instruments.instrument import Instrument, held, points_near, slid
from larch.core.things.instruments.protractor import RADIUS, Protractor

REACH = 12.0  # pixels
GRIP = 30.0  # pixels round a knob or a foot of compasses
RIM = 34.0  # page units about a protractor's rim in which a pen draws from its middle


def slack_of(stage: Stage, sample: Sample) -> float:
    """How far beside an edge a pen may come down, page units."""
    return (REACH + (TOUCH_SLACK if sample.kind == "touch" else 0.0)) / stage.camera.scale


def pen_on_edge(stage: Stage, sample: Sample, thing: Instrument, pen: Pen) -> Gesture | None:
    """What a pen that comes down on an instrument begins; None if it writes as ever."""
    slack = slack_of(stage, sample)
    if held(thing, sample.page_pos, slack) is not None:
        return AlongEdge(stage, sample, thing, pen, slack)
    if thing.touches(*thing.placement.to_local(*sample.page_pos), 0) and not thing.locked:
        return Slide(stage, sample, thing)
    return None


def pen_on_protractor(stage: Stage, sample: Sample, thing: Protractor, pen: Pen) -> Gesture | None:
    away = math.dist(thing.centre(), sample.page_pos)
    above_base = thing.full or thing.placement.to_local(*sample.page_pos)[1] <= 6
    if abs(away - RADIUS) <= RIM and above_base:
        return FromMiddle(stage, sample, thing, pen)
    return pen_on_edge(stage, sample, thing, pen)


def pen_on_compasses(stage: Stage, sample: Sample, thing: Compasses, pen: Pen) -> Gesture | None:
    grip = GRIP / stage.camera.scale
    places = {handle.name: thing.placement.to_page(handle.x, handle.y) for handle in thing.handles()}
    near = min(places, key=lambda name: math.dist(places[name], sample.page_pos))
    if math.dist(places[near], sample.page_pos) <= grip:
        return Swing(stage, sample, thing, pen) if near == "swing" else Foot(stage, sample, thing, near)
    if thing.touches(*thing.placement.to_local(*sample.page_pos), 6):
        return Slide(stage, sample, thing)
    return None


class AlongEdge(Gesture):
    """A pen held along an edge: a straight line, with the length that is drawn."""

    def __init__(self, stage: Stage, sample: Sample, thing: Instrument, pen: Pen, slack: float) -> None:
        self.stage, self.thing, self.pen = stage, thing, pen
        found = held(thing, sample.page_pos, slack)
        assert found is not None
        self.start = self.end = self._on_point(found.at, slack)
        self.held = found
        self.slack = slack

    def _on_point(self, at: Point, slack: float) -> Point:
        """A point that lies on the edge is where a hand would begin or end."""
        near = points_near(self.stage.page, self.stage.things_in(Box(*at, *at).grown(slack)))
        close = [point for point in near if math.dist(point, at) <= slack]
        for point in sorted(close, key=lambda point: math.dist(point, at)):
            edge = held(self.thing, point, 1.0)
            if edge is not None and math.dist(edge.at, point) < 1.0:
                return point
        return at

    def move(self, sample: Sample) -> None:
        self.held = slid(self.held, sample.page_pos)
        self.end = self._on_point(self.held.at, self.slack)
        self._show()

    def _length(self) -> str:
        return length_fact(self.stage.page, "", math.dist(self.start, self.end)).text

    def _made(self) -> Thing:
        if self.thing.draws == "figure":
            return Line(ends=(self.start, self.end), hue=self.pen.hue, shown=("length",))
        return line_from([self.start, self.end], self.pen.replace(form="line"))

    def _show(self) -> None:
        if self.start != self.end:
            self.stage.preview(self, nothing, [self._made()])
            self.stage.show_marks(self, Caption(self.end, self._length()))

    def release(self, sample: Sample) -> None:
        self.move(sample)
        page = self.stage.page
        if self.start != self.end:
            made = self._made()
            if isinstance(made, IsInk):
                edit = write(page, made)  # type: ignore[arg-type]
            else:
                edit = Edit(_("Segment"), page, put_below_points(page, made))
            self.stage.commit(edit)
        self.cancel()

    def cancel(self) -> None:
        self.stage.show_marks(self)
        self.stage.end_preview(self)


class FromMiddle(Gesture):
    """A pen at the rim of a protractor: a line from its middle, at whole degrees."""

    def __init__(self, stage: Stage, sample: Sample, thing: Protractor, pen: Pen) -> None:
        self.stage, self.thing, self.pen = stage, thing, pen
        self.angle = 0.0
        self.move(sample)

    def move(self, sample: Sample) -> None:
        centre = self.thing.centre()
        if sample.page_pos == centre:
            return
        own = (direction(centre, sample.page_pos) - self.thing.placement.turn) % 360
        self.angle = float(round(own)) if not sample.alt else own
        if not self.thing.full and self.angle > 180:
            self.angle = 180.0 if own < 270 else 0.0
        self.stage.preview(self, nothing, [self._made()])
        self.stage.show_marks(self, Caption(self._tip(), f"{number_text(self.angle)}°"))

    def _tip(self) -> Point:
        return towards(self.thing.centre(), self.angle + self.thing.placement.turn, RADIUS + 24)

    def _made(self) -> Thing:
        ends = (self.thing.centre(), self._tip())
        if self.thing.draws == "figure":
            return Line(ends=ends, reach="ray", hue=self.pen.hue)
        return line_from(list(ends), self.pen.replace(form="line"))

    def release(self, sample: Sample) -> None:
        page, made = self.stage.page, self._made()
        edit = write(page, made) if isinstance(made, IsInk) else Edit(_("Ray"), page, page.put(made))  # type: ignore[arg-type]
        self.stage.commit(edit)
        self.cancel()

    def cancel(self) -> None:
        self.stage.show_marks(self)
        self.stage.end_preview(self)


class Swing(Gesture):
    """Compasses swung by their knob: an arc follows the pencil, as far as it is swung."""

    def __init__(self, stage: Stage, sample: Sample, thing: Compasses, pen: Pen | None = None) -> None:
        self.stage, self.thing = stage, thing
        self.pen = pen or Pen(hue="lake")
        self.start = direction(thing.needle(), thing.pencil())
        self.last = self._pointed(sample)
        self.swung = 0.0
        self.low = self.high = 0.0

    def _pointed(self, sample: Sample) -> float:
        needle = self.thing.needle()
        return direction(needle, sample.page_pos) if sample.page_pos != needle else 0.0

    def move(self, sample: Sample) -> None:
        now = self._pointed(sample)
        self.swung += (now - self.last + 180) % 360 - 180
        self.last = now
        self.low, self.high = min(self.low, self.swung), max(self.high, self.swung)
        self.stage.preview(self, self._change, self._made())
        self.stage.show_marks(self, Caption(self._turned().pencil(), f"{number_text(self.high - self.low, 0)}°"))

    def _change(self, page: Page) -> dict[str, Thing]:
        return dict(each((self.thing.id,), lambda thing: thing.turned(self.swung, self.thing.needle()))(page))

    def _turned(self) -> Compasses:
        turned: Compasses = self.thing.turned(self.swung, self.thing.needle())
        return turned

    def _made(self) -> list[Thing]:
        span = self.high - self.low
        if span < 1:
            return []
        radius = self.thing.opening * self.thing.placement.scale
        whole = span >= 358
        fields = {} if whole else {"piece": "arc", "start": (self.start + self.low) % 360, "span": span}
        arc = Circle(radius=radius, placement=Placement(*self.thing.needle()), hue=self.pen.hue, **fields)  # type: ignore[arg-type]
        if self.thing.draws == "figure":
            return [arc]
        form = arc.form()
        count = max(8, round(span / 2))
        points = [form.at(form.start + (360 if whole else span) * k / count) for k in range(count + 1)]
        return [ink_from([(x, y, 0.75, 8.0 * i) for i, (x, y) in enumerate(points)], pen=self.pen.replace(form="free"))]

    def release(self, sample: Sample) -> None:
        page = self.stage.page
        after = page.with_things(self._change(page))
        made = self._made()
        if made:
            after = put_below_points(after, made[0])
        if self.swung:
            self.stage.commit(Edit(_("Arc") if made else _("Swing"), page, after))
        self.cancel()

    def cancel(self) -> None:
        self.stage.show_marks(self)
        self.stage.end_preview(self)


class Foot(Gesture):
    """The needle or the pencil of compasses, set down elsewhere; it falls onto points."""

    def __init__(self, stage: Stage, sample: Sample, thing: Compasses, name: str) -> None:
        self.stage, self.thing, self.name = stage, thing, name
        self.change: Change = nothing

    def move(self, sample: Sample) -> None:
        at, reach = sample.page_pos, REACH / self.stage.camera.scale
        near = points_near(
            self.stage.page, [t for t in self.stage.things_in(Box(*at, *at).grown(reach)) if t.id != self.thing.id]
        )
        close = [point for point in near if math.dist(point, at) <= 1.5 * reach]
        if close and not sample.alt:
            at = min(close, key=lambda point: math.dist(point, at))
        self.change = each((self.thing.id,), lambda thing: thing.with_handle(self.name, *thing.placement.to_local(*at)))
        self.stage.preview(self, self.change)
        after = self.change(self.stage.page).get(self.thing.id, self.thing)
        text = length_fact(self.stage.page, "", getattr(after, "opening", 0.0) * after.placement.scale).text
        self.stage.show_marks(self, Caption(at, text))

    def release(self, sample: Sample) -> None:
        self.stage.show_marks(self)
        self.stage.finish(self, _("Set the compasses"), self.change)

    def cancel(self) -> None:
        self.stage.show_marks(self)
        self.stage.end_preview(self)


class Slide(Gesture):
    """An instrument slid by one finger while a pen is in hand."""

    def __init__(self, stage: Stage, sample: Sample, thing: Instrument) -> None:
        self.stage, self.thing, self.start = stage, thing, sample
        self.pressed = sample
        self.carried = (thing.id,)
        self.change: Change = nothing

    def move(self, sample: Sample) -> None:
        (x, y), (x0, y0) = sample.page_pos, self.start.page_pos
        moved = self.thing.moved(x - x0, y - y0)
        reach = REACH / self.stage.camera.scale
        others = [t for t in self.stage.things_in(moved.box().grown(reach)) if t.id != self.thing.id]
        snap = None if sample.alt else snap_of(moved, self.stage.page, others, reach)
        dx, dy = (x - x0, y - y0) if snap is None else (x - x0 + snap.dx, y - y0 + snap.dy)
        self.change = each((self.thing.id,), lambda thing: thing.moved(dx, dy))
        self.stage.show_snap(self, snap)
        self.stage.preview(self, self.change)

    def release(self, sample: Sample) -> None:
        self.stage.show_snap(self, None)
        self.stage.finish(self, _("Move"), self.change)

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.end_preview(self)


class TurnInstrument(Gesture):
    """Turned by the ring at its end, about its zero; it falls onto lines that are there."""

    def __init__(self, stage: Stage, sample: Sample, thing: Instrument) -> None:
        self.stage, self.thing = stage, thing
        self.change: Change = nothing
        self.centre = (thing.placement.x, thing.placement.y)
        self.first = direction(self.centre, sample.page_pos) if sample.page_pos != self.centre else 0.0

    def move(self, sample: Sample) -> None:
        if sample.page_pos == self.centre:
            return
        turn = (direction(self.centre, sample.page_pos) - self.first + 180) % 360 - 180
        others = [t for t in self.stage.things_in(self.thing.box().grown(NEAR)) if t.id != self.thing.id]
        turn, why = (turn, "") if sample.alt else self.thing.held_turn(self.stage.page, others, turn)
        self.change = each((self.thing.id,), lambda thing: thing.turned(turn, self.centre))
        self.stage.show_snap(self, Snap(0, 0, why, (self.centre, sample.page_pos)) if why else None)
        self.stage.preview(self, self.change)

    def release(self, sample: Sample) -> None:
        self.stage.show_snap(self, None)
        self.stage.finish(self, _("Turn"), self.change)

    def cancel(self) -> None:
        self.stage.show_snap(self, None)
        self.stage.end_preview(self)
