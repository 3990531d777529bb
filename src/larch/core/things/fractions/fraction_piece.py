"""A part of a whole that lies by itself: pieces are laid over each other, end to end, and exchanged for equals."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from fractions import Fraction
from functools import partial
from typing import ClassVar

from larch.core.base.hues import hue_of_number
from larch.core.base.number_words import decimal_text
from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.model.action import Action, Things, only
from larch.core.model.capabilities import Counts, Snaps, TurnsOnto
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, read_whole
from larch.core.model.page import Page
from larch.core.model.thing import ShelfItem, Snap, Thing
from larch.core.things.fractions.whole import Whole

LONG, HIGH = 640.0, 64.0  # of a whole bar, page units
RADIUS = 124.0  # of a whole circle
MOST = 100
SAME = 2.0  # page units: what lies closer lies at the same place
WIDER = 1.6  # reach than that of other things: small hands lay large pieces
ONTO = 6.0  # degrees within which an edge falls onto another
FORMS = (("bar", N_("of a bar")), ("circle", N_("of a circle")))


class FractionPiece(Counts, Snaps, TurnsOnto, Thing, frozen=True, kw_only=True, tag="fraction piece"):
    """parts_count: so many make a whole. form: one of FORMS; in its own coordinates a piece of a circle points upwards from
    its tip. Raises ValueError where these don't fit."""

    parts_count: int = 4
    form: str = "bar"
    hue: str = ""

    resizable: ClassVar[bool] = False
    icon: ClassVar[str] = "split"
    order: ClassVar[int] = 17
    help: ClassVar[str] = N_(
        "Lay pieces end to end or over each other and over bars and circles: what is equally large is seen. A piece can be "
        "cut into equal ones, and equal ones be put together."
    )

    def __post_init__(self) -> None:
        if not 1 <= self.parts_count <= MOST or self.form not in dict(FORMS):
            raise ValueError("a piece is one of up to a hundred parts of a bar or a circle")

    @classmethod
    def title(cls) -> str:
        return _("fraction piece")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        words = _("fraction piece part loose tile overlay compare equivalent exchange")
        yield ShelfItem("fraction piece", _("piece of a bar"), N_("Fractions"), cls, words)
        round_piece = partial(cls, form="circle")
        yield ShelfItem("fraction piece, circle", _("piece of a circle"), N_("Fractions"), round_piece, words)

    def label(self, page: Page) -> str:
        return self.name or _("piece: {fraction}").format(fraction=self.value_text())

    def value_text(self) -> str:
        return f"1/{self.parts_count}" if self.parts_count > 1 else "1"

    def colour(self) -> str:
        return self.hue or hue_of_number(self.parts_count)

    def worth(self) -> float:
        return 1 / self.parts_count

    def half_angle(self) -> float:
        """Of a piece of a circle, in degrees, to each side of the direction in which it points."""
        return 180.0 / self.parts_count

    def extent(self) -> Box:
        if self.form == "bar":
            return Box(0, 0, LONG / self.parts_count, HIGH)
        if self.parts_count == 1:
            return Box(0, 0, 2 * RADIUS, 2 * RADIUS)
        return Box(0, 0, 2 * RADIUS * math.sin(math.radians(self.half_angle())), RADIUS)

    def tip(self) -> Point:
        """The middle of its circle, in its own coordinates."""
        return (self.extent().width / 2, RADIUS)

    def touches(self, x: float, y: float, slack: float) -> bool:
        if self.form == "bar" or self.parts_count == 1:
            return super().touches(x, y, slack)
        tx, ty = self.tip()
        away = math.dist((x, y), (tx, ty))
        off = abs(math.degrees(math.atan2(x - tx, ty - y)))
        beside = away * math.sin(math.radians(min(90.0, max(0.0, off - self.half_angle()))))
        return away <= RADIUS + slack and beside <= slack

    def facts(self, page: Page) -> Iterator[Fact]:
        value, text = Fraction(1, self.parts_count), self.value_text()
        yield Fact("value", text, text=text, label=_("fraction"), badge="value")
        yield Fact("parts", self.parts_count, text=str(self.parts_count), label=_("so many make a whole"),
                   set=lambda typed: self.replace(parts_count=read_whole(typed, 1, MOST)))  # fmt: skip
        yield Fact("decimal", decimal_text(value), text=decimal_text(value), label=_("as a decimal"), badge="decimal")
        percent = f"{decimal_text(100 * value)} %"
        yield Fact("percent", float(100 * value), "%", percent, _("in percent"), "percent")
        forms = tuple((name, _(words)) for name, words in FORMS)
        yield Fact("form", self.form, "", dict(forms)[self.form], _("piece"), "", self._set_form, forms)

    def _set_form(self, typed: str) -> Thing:
        if typed not in dict(FORMS):
            raise ValueError(_("It is a piece of a bar or of a circle."))
        return self.replace(form=typed)  # type: ignore[no-any-return]

    # Falling into place

    def snap(self, page: Page, others: list[Thing], reach: float) -> Snap | None:
        places = _beside if self.form == "bar" else _tip_to_tip
        best = min(
            (one for other in others for one in places(self, other) if max(abs(one.dx), abs(one.dy)) <= WIDER * reach),
            key=lambda one: max(abs(one.dx), abs(one.dy)),
            default=None,
        )
        return best

    def held_turn(self, page: Page, others: Sequence[Thing], degrees: float) -> tuple[float, str]:
        """A straight edge falls onto a straight edge of what has its tip at the same place."""
        if self.form == "bar":
            return degrees, ""
        tip, best = self.placement.to_page(*self.tip()), (ONTO, 0.0)
        for edge in edges_round(self):
            for other in others:
                if any(math.dist(at, tip) <= SAME * 4 for at in middles(other)):
                    for there in edges_round(other):
                        off = (there - edge - degrees + 180) % 360 - 180
                        best = min(best, (abs(off), off))
        return (degrees + best[1], _("edges meet")) if best[0] < ONTO else (degrees, "")

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _beside(piece: FractionPiece, other: Thing) -> Iterator[Snap]:
    """End to end with a piece, over it, or above and below; over and below the parts of a bar."""
    mine, theirs = piece.box(), other.box()
    wide = theirs.width
    if isinstance(other, FractionPiece) and other.form == "bar":
        edges = [theirs.x0, theirs.x1]
    elif isinstance(other, Whole) and not other.middles():
        edges = [theirs.x0 + share * wide for share in other.part_lines()]
    else:
        return
    for row, y in enumerate((theirs.y0, theirs.y1, theirs.y0 - mine.height)):
        for x in edges:
            for dx in (x - mine.x0, x - mine.x1):
                level = abs(mine.x0 + dx - theirs.x0) < SAME and abs(mine.width - wide) < SAME
                why = _("equally long") if level else _("edges meet") if row or x not in edges[1:-1] else _("laid over it")
                yield Snap(dx, y - mine.y0, why, ((x, min(y, theirs.y0)), (x, max(y + mine.height, theirs.y1))))


def _tip_to_tip(piece: FractionPiece, other: Thing) -> Iterator[Snap]:
    x, y = piece.placement.to_page(*piece.tip())
    for to in middles(other):
        yield Snap(to[0] - x, to[1] - y, _("same middle"))


def middles(other: Thing) -> list[Point]:
    """Of the circles that it is or is part of, on the page."""
    if isinstance(other, FractionPiece):
        return [other.placement.to_page(*other.tip())] if other.form == "circle" else []
    return [other.placement.to_page(*at) for at in other.middles()] if isinstance(other, Whole) else []


def edges_round(other: Thing) -> list[float]:
    """Directions of its straight edges on the page, in degrees counter-clockwise from upwards."""
    turn = other.placement.turn
    if isinstance(other, FractionPiece):
        return [turn - other.half_angle(), turn + other.half_angle()] if other.form == "circle" else []
    return [turn - 360 * share for share in other.part_lines()] if isinstance(other, Whole) else []


def row_of(count: int, parts_count: int, form: str, at: Placement, hue: str = "", first: int = 0) -> list[FractionPiece]:
    """So many pieces side by side from a place on, or round a middle that lies there, clockwise, from where the `first` part
    of a whole lies."""
    made = []
    for k in range(first, first + count):
        piece = FractionPiece(parts_count=parts_count, form=form, hue=hue)
        if form == "bar":
            place = Placement(k * LONG / parts_count, 0)
        else:
            x, y = piece.tip()
            place = Placement(-x, -y).turned(-360 * (k + 0.5) / parts_count, (0, 0))
            if parts_count == 1:
                place = Placement(-x, -y)
        made.append(piece.replace(placement=place.on(at)))
    return made


def cut(page: Page, things: Things, count: int, label: str) -> Edit:
    """Each piece becomes so many that are equal, where it lies."""
    after, chosen = page, []
    for piece in things:
        if not isinstance(piece, FractionPiece):
            continue
        if piece.parts_count * count > MOST:
            raise ValueError(_("A whole has up to {most} parts.").format(most=MOST))
        if piece.form == "circle":
            finer = _fanned(piece, count)
        else:
            finer = row_of(count, piece.parts_count * count, "bar", piece.placement, piece.hue)
        after = after.without([piece.id]).put(*finer)
        chosen += [thing.id for thing in after.things[-count:]]
    return Edit(label, page, after, select=tuple(chosen))


def _fanned(piece: FractionPiece, count: int) -> list[FractionPiece]:
    """Pieces round the tip of one that is cut, from its one edge to the other."""
    tip = piece.placement.to_page(*piece.tip())
    made = []
    for k in range(count):
        fine = FractionPiece(parts_count=piece.parts_count * count, form="circle", hue=piece.hue)
        x, y = fine.tip()
        start = piece.half_angle() - (k + 0.5) * 2 * fine.half_angle()
        local = Placement(-x, -y).turned(start, (0, 0))
        made.append(fine.replace(placement=local.on(Placement(*tip, piece.placement.turn, piece.placement.scale))))
    return made


def join(page: Page, things: Things) -> Edit:
    """Equal pieces become the one that is as large as they are together, where the first of them lies.

    Raises ValueError where there is none.
    """
    pieces = [thing for thing in things if isinstance(thing, FractionPiece)]
    first = pieces[0]
    if any((one.parts_count, one.form) != (first.parts_count, first.form) for one in pieces):
        raise ValueError(_("Only equal pieces are put together. Cut them into equal ones first."))
    total = Fraction(len(pieces), first.parts_count)
    if total.numerator != 1:
        raise ValueError(_("Together they make {total}, which is no single part of a whole.").format(total=total))
    leading = min(pieces, key=lambda one: one.box().x0) if first.form == "bar" else first
    if first.form == "bar":
        whole = leading.replace(parts_count=total.denominator)
    else:
        tip = first.placement.to_page(*first.tip())
        whole = FractionPiece(parts_count=total.denominator, form="circle", hue=first.hue)
        x, y = whole.tip()
        turn = first.placement.turn + first.half_angle() - whole.half_angle()
        whole = whole.replace(placement=Placement(-x, -y).on(Placement(*tip, turn, first.placement.scale)))
    gone = [one.id for one in pieces]
    after = page.without(gone).put(whole.replace(id=""))
    return Edit(_("Put together"), page, after, select=(after.things[-1].id,))


ACTIONS = (
    Action("cut in two", lambda p, ts: _("cut in two"), "split", lambda p, ts: cut(p, ts, 2, _("Cut in two")),
           only(FractionPiece), rank=5, board=True, words=N_("exchange equal equivalent halve finer")),
    Action("cut in three", lambda p, ts: _("cut in three"), "scissors", lambda p, ts: cut(p, ts, 3, _("Cut in three")),
           only(FractionPiece), rank=6, board=True, words=N_("exchange equal equivalent finer")),
    Action("put pieces together", lambda p, ts: _("put together"), "combine", join,
           lambda p, ts: len(ts) > 1 and only(FractionPiece)(p, ts), rank=5, board=True,
           words=N_("exchange equal equivalent join")),
)  # fmt: skip
