"""Pictures: drawings of the set, and photographs and drawings of one's own."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from typing import ClassVar

from larch.core.base.shape import Box, Placement, Point
from larch.core.base.words import N_, _
from larch.core.media.picture_set import LICENCE, drawing
from larch.core.media.store import NAME
from larch.core.model.action import Action, Fold, Things, only
from larch.core.model.capabilities import HasMedia, HasWords, Joinable
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact, measure, read_number
from larch.core.model.page import Page
from larch.core.model.thing import Handle, ShelfItem, Thing

LEAST = 0.04  # share of a side that trimming leaves
USUAL = 150.0  # page units along the longer side of what is put out
TRIM = ("left", "top", "right", "bottom")


class Picture(HasMedia, HasWords, Joinable, Thing, frozen=True, kw_only=True, tag="picture"):
    """media: name of its bytes in the store. width and height: of the whole of it, in its own units. trim: the shares cut
    off at the left, top, right and bottom. opacity: 0.05 to 1. tinted: drawn in the one colour `hue`.

    Raises ValueError for what no picture can be.
    """

    media: str = ""
    width: float = USUAL
    height: float = USUAL
    trim: tuple[float, float, float, float] = (0.0, 0.0, 0.0, 0.0)
    flipped: bool = False
    upended: bool = False
    opacity: float = 1.0
    tinted: bool = False

    icon: ClassVar[str] = "image"
    order: ClassVar[int] = 60
    help: ClassVar[str] = N_(
        "Search the shelf in any of twenty languages, or bring your own: paste it, drop a file on the page, or Put out › "
        "Picture from a file. Drag the marks in the middle of its edges to trim it."
    )

    def __post_init__(self) -> None:
        if self.media and not NAME.fullmatch(self.media):
            raise ValueError("that is not the name of a picture")
        if not (0.1 <= self.width <= 1e5 and 0.1 <= self.height <= 1e5):
            raise ValueError("a picture must have a size")
        left, top, right, bottom = self.trim
        if min(self.trim) < 0 or left + right > 1 - LEAST / 2 or top + bottom > 1 - LEAST / 2:
            raise ValueError("a picture must keep something of itself")
        if not 0.05 <= self.opacity <= 1:
            raise ValueError("a picture must be seen")

    @classmethod
    def title(cls) -> str:
        return _("picture")

    @classmethod
    def shelf(cls) -> Iterator[ShelfItem]:
        return iter(())  # the shelf asks the set itself: it is too large for a list

    def label(self, page: Page) -> str:
        return self.name or _("picture")

    def plain_text(self) -> str:
        return self.name

    def media_names(self) -> tuple[str, ...]:
        return (self.media,) if self.media else ()

    def is_drawing(self) -> bool:
        return self.media.endswith(".svg")

    def extent(self) -> Box:
        left, top, right, bottom = self.trim
        return Box(0, 0, self.width * (1 - left - right), self.height * (1 - top - bottom))

    def edges(self) -> Iterator[tuple[Sequence[Point], bool]]:
        yield self.extent().corners(), True

    def handles(self) -> tuple[Handle, ...]:
        box = self.extent()
        places = ((0, box.y1 / 2), (box.x1 / 2, 0), (box.x1, box.y1 / 2), (box.x1 / 2, box.y1))
        return tuple(Handle(f"trim {side}", x, y, _("trim"), roomy=True) for side, (x, y) in zip(TRIM, places, strict=True))

    def with_handle(self, name: str, x: float, y: float) -> Thing:
        """An edge dragged: what is beyond it is cut off, and can be brought back."""
        side = name.removeprefix("trim ")
        if side not in TRIM:
            return self
        k = TRIM.index(side)
        shares = list(self._seen_trim())
        along = (x / self.width, y / self.height)[k % 2]
        now = shares[k] + along if k < 2 else 1 - (shares[k - 2] + along)
        shares[k] = min(max(0.0, now), 1 - shares[(k + 2) % 4] - LEAST)
        if shares[k] < 0.01:
            shares[k] = 0.0
        before = self._seen_trim()
        shift = ((shares[0] - before[0]) * self.width, (shares[1] - before[1]) * self.height)
        at = self.placement.to_page(*shift)
        placement = Placement(*at, self.placement.turn, self.placement.scale)
        changed: Thing = self.replace(trim=self._kept_trim(shares), placement=placement)
        return changed

    def _seen_trim(self) -> tuple[float, float, float, float]:
        """The shares as seen: those of a mirrored picture change sides."""
        left, top, right, bottom = self.trim
        if self.flipped:
            left, right = right, left
        return (left, bottom, right, top) if self.upended else (left, top, right, bottom)

    def _kept_trim(self, seen: Sequence[float]) -> tuple[float, float, float, float]:
        left, top, right, bottom = seen
        if self.flipped:
            left, right = right, left
        return (left, bottom, right, top) if self.upended else (left, top, right, bottom)

    def facts(self, page: Page) -> Iterator[Fact]:
        cm = self.placement.scale / page.unit
        box = self.extent()
        for name, label, size in (("width", _("width"), box.width), ("height", _("height"), box.height)):

            def sized(typed: str, size: float = size) -> Thing:
                wanted = read_number(typed) / cm / size
                if not 0.001 < wanted < 1000:
                    raise ValueError(_("A picture can't have that size."))
                changed: Thing = self.enlarged(wanted, self.box().centre)
                return changed

            yield measure(name, size * cm, "cm", label, set=sized)
        yield measure("strength", round(self.opacity * 100), "%", _("strength"), 0, set=self._set_opacity)
        source = _("drawing") if self.is_drawing() else _("photograph")
        yield Fact("sort", source, text=source, label=_("what it is"))
        if self.is_drawing() and drawing(self.media[:64]) is not None:
            yield Fact("licence", LICENCE, text=LICENCE, label=_("licence"))
        if self.name:
            yield Fact("name", self.name, text=self.name, label=_("name"), set=lambda typed: self.replace(name=typed[:200]))

    def _set_opacity(self, typed: str) -> Thing:
        share = read_number(typed.replace("%", "")) / 100
        if not 0.05 <= share <= 1:
            raise ValueError(_("The strength of a picture is from 5 to 100 %."))
        changed: Thing = self.replace(opacity=share)
        return changed

    def actions(self) -> tuple[Action, ...]:
        return ACTIONS


def _changed(label: str, page: Page, things: Things, **fields: object) -> Edit:
    return Edit(label, page, page.with_things({t.id: t.replace(**fields) for t in things if isinstance(t, Picture)}))


def _mirror(field: str, label: str) -> Callable[[Page, Things], Edit]:
    def run(page: Page, things: Things) -> Edit:
        changed = {t.id: t.replace(**{field: not getattr(t, field)}) for t in things if isinstance(t, Picture)}
        return Edit(_(label), page, page.with_things(changed))

    return run


def _fitted(along: str) -> Callable[[Page, Things], Edit]:
    """To the width or the height of the printed part, in its middle."""

    def run(page: Page, things: Things) -> Edit:
        printed = page.printed()
        changed = {}
        for thing in things:
            if isinstance(thing, Picture) and not thing.locked:
                box = thing.box()
                factor = printed.width / box.width if along == "width" else printed.height / box.height
                grown = thing.enlarged(factor, box.centre)
                at = grown.box().centre
                changed[thing.id] = grown.moved(printed.centre[0] - at[0], printed.centre[1] - at[1])
        return Edit(_("Fit to the page"), page, page.with_things(changed))

    return run


def _untrim(page: Page, things: Things) -> Edit:
    changed = {}
    for thing in things:
        if isinstance(thing, Picture) and any(thing.trim):
            left, top, _right, _bottom = thing._seen_trim()
            at = thing.placement.to_page(-left * thing.width, -top * thing.height)
            placement = Placement(*at, thing.placement.turn, thing.placement.scale)
            changed[thing.id] = thing.replace(trim=(0.0, 0.0, 0.0, 0.0), placement=placement)
    return Edit(_("Untrimmed"), page, page.with_things(changed))


def _strength(by: float, label: str) -> Callable[[Page, Things], Edit]:
    def run(page: Page, things: Things) -> Edit:
        changed = {
            t.id: t.replace(opacity=min(1.0, max(0.1, round(t.opacity + by, 2)))) for t in things if isinstance(t, Picture)
        }
        return Edit(_(label), page, page.with_things(changed))

    return run


def _tint(page: Page, things: Things) -> Edit:
    value = not all(getattr(thing, "tinted", True) for thing in things)
    return _changed(_("One colour"), page, things, tinted=value)


def _drawings(page: Page, things: Things) -> bool:
    return only(Picture)(page, things) and all(isinstance(t, Picture) and t.is_drawing() for t in things)


PICTURE = Fold("picture", N_("picture"), "image")
ACTIONS = (
    Action("flip across", lambda p, ts: _("mirror left and right"), "flip-vertical-2", _mirror("flipped", N_("Mirror")),
           only(Picture), rank=52, words=N_("flip reverse")),
    Action("flip down", lambda p, ts: _("mirror up and down"), "flip-horizontal-2", _mirror("upended", N_("Mirror")),
           only(Picture), rank=66, fold=PICTURE, words=N_("flip reverse")),
    Action("paler", lambda p, ts: _("paler"), "blend", _strength(-0.2, N_("Paler")), only(Picture), rank=66,
           fold=PICTURE, words=N_("transparent opacity see through")),
    Action("stronger", lambda p, ts: _("stronger"), "contrast", _strength(0.2, N_("Stronger")),
           lambda p, ts: only(Picture)(p, ts) and any(getattr(t, "opacity", 1) < 1 for t in ts), rank=66,
           fold=PICTURE, words=N_("opacity")),
    Action("one colour", lambda p, ts: _("its own colours") if all(getattr(t, "tinted", False) for t in ts) else
           _("in one colour"), "palette", _tint, _drawings, rank=67, fold=PICTURE, words=N_("tint recolour silhouette")),
    Action("fit width", lambda p, ts: _("as wide as the page"), "move-horizontal", _fitted("width"), only(Picture), rank=67,
           fold=PICTURE, words=N_("background fill size")),
    Action("fit height", lambda p, ts: _("as high as the page"), "move-vertical", _fitted("height"), only(Picture), rank=67,
           fold=PICTURE, words=N_("background fill size")),
    Action("untrim", lambda p, ts: _("the whole picture again"), "crop", _untrim,
           lambda p, ts: only(Picture)(p, ts) and any(any(getattr(t, "trim", ())) for t in ts), rank=67,
           fold=PICTURE, words=N_("crop")),
)  # fmt: skip
