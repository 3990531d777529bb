"""A person's few settings, in the state folder."""

from __future__ import annotations

import msgspec
from msgspec import Struct

from larch.core.base.disk import disk, keep_bytes
from larch.core.model.nibs import KEPT_PENS, Pen
from larch.core.recognise.hand import KnownHand
from larch.services.places import state_folder


class Settings(Struct, frozen=True, omit_defaults=True):
    """ledge: the edge where the tools lie, "bottom", "top", "left" or "right", or "float". still: no motions. sounds:
    equipment is heard.

    pen: the one in hand; pens: those kept ready; by_tip: each tip keeps a pen of its own, and tips: which. eraser: its
    mode. own_hues: colours mixed by the person, newest first, as #rrggbb. theme: the look of the interface.
    pause: milliseconds after which a pen that reads takes what was written. hand: what is remembered of the handwriting.
    """

    ledge: str = "bottom"
    pen: Pen = Pen()
    pens: tuple[Pen, ...] = KEPT_PENS
    by_tip: bool = False
    tips: dict[str, Pen] = {}
    eraser: str = "part"
    own_hues: tuple[str, ...] = ()
    still: bool = False
    sounds: bool = True
    theme: str = "paper"
    pause: int = 1200
    hand: KnownHand = KnownHand()


def load_settings() -> Settings:
    try:
        return msgspec.json.decode(disk().read(state_folder() / "settings.json"), type=Settings)
    except (OSError, msgspec.MsgspecError):
        return Settings()


def save_settings(settings: Settings) -> None:
    """A setting that can't be kept is not worth stopping for."""
    try:
        disk().make_folder(state_folder())
        keep_bytes(state_folder() / "settings.json", msgspec.json.encode(settings), sure=False)
    except (OSError, UnicodeEncodeError):
        pass
