"""A person's few settings, in the state folder."""

from __future__ import annotations

import msgspec
from msgspec import Struct

from larch.services.places import state_folder


class Settings(Struct, frozen=True, omit_defaults=True):
    """ledge: the edge where the tools lie, "bottom", "top", "left" or "right", or "float". still: no motions."""

    ledge: str = "bottom"
    pen_width: float = 5.0
    pen_hue: str = "needle"
    still: bool = False


def load_settings() -> Settings:
    try:
        return msgspec.json.decode((state_folder() / "settings.json").read_bytes(), type=Settings)
    except (OSError, msgspec.MsgspecError):
        return Settings()


def save_settings(settings: Settings) -> None:
    """A setting that can't be kept is not worth stopping for."""
    try:
        state_folder().mkdir(parents=True, exist_ok=True)
        fresh = state_folder() / "settings.json.part"
        fresh.write_bytes(msgspec.json.encode(settings))
        fresh.replace(state_folder() / "settings.json")
    except OSError:
        pass
