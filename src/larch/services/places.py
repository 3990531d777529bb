"""Where Larch keeps what is not in a lesson, by the XDG base directory specification."""

from __future__ import annotations

import os
from pathlib import Path


def _base(variable: str, usual: str) -> Path:
    base = os.environ.get(variable, "")
    return (Path(base) if base.startswith("/") else Path.home() / usual) / "larch"


def state_folder() -> Path:
    return _base("XDG_STATE_HOME", ".local/state")


def data_folder() -> Path:
    return _base("XDG_DATA_HOME", ".local/share")


def media_folder() -> Path:
    """Pictures and sounds by their hash; lesson files carry copies."""
    return state_folder() / "media"


def kept_folder() -> Path:
    """What a teacher has kept on the shelf."""
    return data_folder() / "kept"


def journals_folder() -> Path:
    return state_folder() / "journals"


def spare_folders() -> list[Path]:
    """Where journals go if the state folder can't be written, the best first: they are looked for in each."""
    own = f"larch-{os.getuid()}"
    cache = _base("XDG_CACHE_HOME", ".cache")
    return [data_folder() / "journals", cache / "journals", Path("/var/tmp") / own, Path("/tmp") / own]


def journal_for(path: Path) -> Path:
    """The journal of a lesson's file: the same each time the file is opened."""
    import hashlib  # loads a large library; most starts do without

    name = str(path.resolve()).encode("utf-8", "surrogateescape")
    return journals_folder() / ("file-" + hashlib.sha256(name).hexdigest()[:16])
