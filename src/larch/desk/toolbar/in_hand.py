"""The tool in hand: taking it, its choices and what is remembered of them, and what it asks of the window."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt

from larch.board.canvas import Canvas
from larch.board.gestures.base import Ring
from larch.board.stage import Offer
from larch.board.timers import retire
from larch.board.tools.base import Tool
from larch.board.tools.draw import PenTool
from larch.board.tools.erase import MODES, EraserTool
from larch.core.base.hues import HUES
from larch.core.base.shape import Point
from larch.core.base.words import _, many
from larch.core.model.capabilities import IsInk
from larch.core.model.edit import Edit
from larch.core.model.nibs import READ, sound_pen
from larch.core.model.page import Page
from larch.core.model.thing import Thing

if TYPE_CHECKING:
    from larch.core.actions.ink.fill import Open, Region
    from larch.desk.context import Context

CURSORS = {
    "cross": Qt.CursorShape.CrossCursor,
    "hand": Qt.CursorShape.OpenHandCursor,
    "text": Qt.CursorShape.IBeamCursor,
}
MOST_OWN_HUES = 8


class InHand:
    """What happens when a tool is taken, chosen for, or asks for something."""

    def __init__(self, context: Context) -> None:
        self.context = context
        self._chip: object = None
        self._selected: tuple[Thing, ...] = ()  # what was selected when a tool that makes marks was taken

    def follow(self, canvas: Canvas) -> None:
        """Listens to what the tools ask for on a canvas."""
        canvas.fill_wanted.connect(self.fill)
        canvas.offered.connect(self._offered)
        canvas.committed.connect(self.clear_signs)

    def _pen(self) -> PenTool:
        tool = self.context.tool("pen")
        assert isinstance(tool, PenTool)
        return tool

    def _eraser(self) -> EraserTool:
        tool = self.context.tool("rub out")
        assert isinstance(tool, EraserTool)
        return tool

    def reads(self) -> bool:
        """Whether the pen in hand reads what it writes."""
        return self.context.part("ledge").current is self._pen() and self._pen().pen.form in READ

    def take(self, tool: Tool) -> None:
        w = self.context
        w.finish_typing()
        w.canvas.withdraw()
        w.canvas.pointers.tool.put_down(w.canvas)
        w.canvas.pointers.tool = tool
        w.canvas.setCursor(CURSORS.get(tool.cursor, Qt.CursorShape.ArrowCursor))
        w.close_card("choices")
        if w.canvas.tool_writes():
            self._selected = w.canvas.things() or self._selected
            w.canvas.select(())
        w.part("facts").refresh()
        tool.taken(w.canvas)

    def toggle_choices(self, tool: Tool) -> None:
        w = self.context
        if w.part("choices").isVisible():
            w.part("choices").hide()
            return
        w.part("choices").large = w.at_board
        w.part("choices").open_for(tool)
        w.part("choices").stand_by(w.part("ledge").button_of(tool), w.part("ledge").edge)

    def run(self, name: str) -> None:
        self.context.part("choices").hide()
        self.context.run(name)

    def recall(self) -> None:
        """Gives the tools what they were set to the last time."""
        settings, pen = self.context.settings, self._pen()
        pen.pen = sound_pen(settings.pen)
        pen.kept = [sound_pen(kept) for kept in settings.pens[:8]] or pen.kept
        pen.by_tip = settings.by_tip
        pen.tips = {tip: sound_pen(kept) for tip, kept in settings.tips.items()}
        self._eraser().mode = settings.eraser if settings.eraser in MODES else "part"

    def remember(self) -> None:
        """Keeps the choices; a mixed colour joins those that are offered."""
        tool = self.context.canvas.pointers.tool
        tool.taken(self.context.canvas)
        pen, own = self._pen(), self.context.settings.own_hues
        hues = [getattr(tool, "hue", "") for tool in self.context.tools()]
        fresh = [hue for hue in hues if hue and hue not in HUES and hue not in own]
        self.context.keep_setting(
            pen=pen.pen, pens=tuple(pen.kept), by_tip=pen.by_tip, tips=pen.tips, eraser=self._eraser().mode,
            own_hues=(*fresh, *own)[:MOST_OWN_HUES],
        )  # fmt: skip

    def _offered(self, offer: Offer | None) -> None:
        """Hangs a chip on the page by which what is offered is confirmed."""
        from larch.desk.toolbar.chip import Chip

        if isinstance(self._chip, Chip):
            retire(self._chip)
        self._chip = Chip(self.context.canvas, offer) if offer is not None else None

    # Commands

    def set_pen(self, **changed: str) -> None:
        """Takes the pen with another nib, form, dash or end."""
        tool = self._pen()
        nib = changed.pop("nib", "")
        tool.choose((tool.pen.with_nib(nib) if nib else tool.pen).replace(**changed))
        self._take_and_keep("pen")

    def set_eraser(self, mode: str) -> None:
        self._eraser().mode = mode
        self._take_and_keep("rub out")

    def construct(self, mode: str) -> None:
        """Takes the construction tool for one construction."""
        from larch.board.tools.construct import ConstructTool

        tool = self.context.tool("construct")
        assert isinstance(tool, ConstructTool)
        tool.choose(mode)
        self.context.take_tool("construct")
        tool.taken(self.context.canvas)

    def set_by_tip(self) -> None:
        tool = self._pen()
        tool.by_tip = not tool.by_tip
        self.remember()
        on, off = _("Each tip keeps the pen it was last given."), _("All tips write with the pen in hand.")
        self.context.say(on if tool.by_tip else off)

    def keep_pen(self) -> None:
        """Lays the pen in hand ready among the kept ones, in the place of the one kept longest."""
        tool = self._pen()
        if tool.pen not in tool.kept:
            tool.kept = [*tool.kept[1:], tool.pen]
            self.remember()

    def _take_and_keep(self, name: str) -> None:
        self.remember()
        self.context.take_tool(name)

    def wipe(self, hue: str = "") -> None:
        from larch.core.actions.ink.rub import wipe

        w = self.context
        page = w.canvas.page
        edit = wipe(page, hue)
        assert isinstance(edit.after, Page)
        count = len(page.things) - len(edit.after.things)
        kept = sum(isinstance(thing, IsInk) and thing.locked for thing in page.things)
        w.canvas.commit(edit)
        changed = not edit.is_empty()
        text = many("Wiped 1 stroke.", "Wiped {n} strokes.", max(count, 1)) if changed else _("There is no ink to wipe.")
        if kept:
            text += " " + many("1 that is locked stayed.", "{n} that are locked stayed.", kept)
        w.say(text, _("undo") if changed else "", w.undo if changed else None)

    def wipe_hue(self) -> None:
        """Wipes the ink of the colour that the eraser is set to, or else that of the pen."""
        self.wipe(self._eraser().only_hue or self._pen().pen.hue)

    def keep_ink(self) -> None:
        """Locks all ink, so that neither eraser nor Wipe takes it: what the class writes on it can go alone."""
        w = self.context
        page = w.canvas.page
        free = [thing.id for thing in page.things if isinstance(thing, IsInk) and not thing.locked]
        if free:
            locked = page.changing(free, lambda thing: thing.replace(locked=True))
            w.canvas.commit(Edit(_("Keep what is written"), page, locked, select=()))
            w.say(_("What is written is part of the page now; the eraser leaves it."), _("undo"), w.undo)
        else:
            w.say(_("There is no ink to keep."))

    def take_stamp(self) -> None:
        """The selection becomes the picture that is stamped."""
        from larch.board.tools.stamp import MarkTool

        w = self.context
        stamp = w.tool("stamp")
        assert isinstance(stamp, MarkTool)
        things = w.canvas.things() or w.canvas.page.some(thing.id for thing in self._selected)
        if not things:
            w.say(_("Select what is to be the picture, then take it for the stamp."))
            return
        stamp.own, stamp.shape = tuple(things), "own"
        w.take_tool("stamp")

    def fill(self, at: Point, hue: str, gap: float) -> None:
        """Fills a region off this thread; an open one is told and its gap shown."""
        from larch.core.actions.ink.fill import Open, find_region, paint
        from larch.desk.jobs import in_background

        w = self.context
        page, canvas = w.canvas.page, w.canvas

        def done(found: Region | Open) -> None:
            now = canvas.page
            if now.id != page.id:
                return
            if isinstance(found, Open):
                self._tell_open(at, hue, found)
            else:
                canvas.show_marks(self)
                canvas.commit(paint(now, found, at, hue))

        def failed(error: Exception) -> None:
            w.say(_("Paint could not work out the region here."))

        in_background(w.top, lambda _job: find_region(page, at, gap), done, failed)

    def _tell_open(self, at: Point, hue: str, found: Open) -> None:
        w = self.context
        if found.gap is None:
            w.canvas.show_marks(self)
            w.say(_("There is no outline round this spot, so nothing was painted."))
            return
        ring = _circle(found.gap, max(14.0, found.width * 0.75))
        w.canvas.show_marks(self, Ring(ring))
        text = _("The outline is open at the ring, {w} cm wide.").format(w=f"{found.width / w.canvas.page.unit:.1f}")
        w.say(text, _("bridge it"), lambda: self.fill(at, hue, found.width * 1.2 + 2))

    def clear_signs(self) -> None:
        """Takes the sign of a gap off the page: something else is done."""
        self.context.canvas.show_marks(self)


def _circle(centre: Point, radius: float) -> list[Point]:
    import math

    turns = [2 * math.pi * k / 48 for k in range(48)]
    return [(centre[0] + radius * math.cos(t), centre[1] + radius * math.sin(t)) for t in turns]
