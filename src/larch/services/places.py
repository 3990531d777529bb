"""Where Larch keeps what is not in a lesson, by the XDG base directory specification."""

from __future__ import annotations

import os
from pathlib import Path


def state_folder() -> Path:
    base = os.environ.get("XDG_STATE_HOME", "")
    return (Path(base) if base.startswith("/") else Path.home() / ".local/state") / "larch"


def data_folder() -> Path:
    base = os.environ.get("XDG_DATA_HOME", "")
    return (Path(base) if base.startswith("/") else Path.home() / ".local/share") / "larch"


def media_folder() -> Path:
    """Pictures and sounds by their hash; lesson files carry copies."""
    return state_folder() / "media"


def kept_folder() -> Path:
    """What a teacher has kept on the shelf."""
    return data_folder() / "kept"


def journals_folder() -> Path:
    return state_folder() / "journals"


def journal_for(path: Path) -> Path:
    """The journal of a lesson's file: the same each time the file is opened."""
    import hashlib  # loads a large library; most starts do without

    return journals_folder() / ("file-" + hashlib.sha256(str(path.resolve()).encode()).hexdigest()[:16])
