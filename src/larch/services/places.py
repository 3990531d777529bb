"""Where Larch keeps what is not in a lesson, by the XDG base directory specification."""

from __future__ import annotations

import os
from pathlib import Path


def state_folder() -> Path:
    base = os.environ.get("XDG_STATE_HOME", "")
    return (Path(base) if base.startswith("/") else Path.home() / ".local/state") / "larch"


def journals_folder() -> Path:
    return state_folder() / "journals"


def journal_for(path: Path) -> Path:
    """The journal of a lesson's file: the same each time the file is opened."""
    import hashlib  # loads a large library; most starts do without

    return journals_folder() / ("file-" + hashlib.sha256(str(path.resolve()).encode()).hexdigest()[:16])
