"""`larch bench [WORD]`: each figure beside a floor that does only the unavoidable work, in the same run."""

from __future__ import annotations

import importlib
import os
import pkgutil
import tempfile
from pathlib import Path

from larch.bench.measure import BENCHES, carry_out, line


def run_bench(word: str = "") -> int:
    """Runs every bench, or those with a word in their name; 2 if there are none."""
    from larch import bench

    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    folder = tempfile.mkdtemp(prefix="larch-bench-")
    os.environ["XDG_STATE_HOME"] = folder
    import numpy.linalg  # noqa: F401

    from larch.desk.app import application
    from larch.desk.quiet import calm

    for module in pkgutil.iter_modules(bench.__path__):
        if module.name not in ("run", "screenshots"):
            importlib.import_module(f"{bench.__name__}.{module.name}")
    chosen = [one for one in BENCHES if word.casefold() in one.name.casefold()]
    if not chosen:
        print("There is no such bench. There are: " + "; ".join(one.name for one in BENCHES))
        return 2
    app = application()
    calm()
    line("what", "Larch (ms)", "floor (ms)", "goal")
    for one in chosen:
        carry_out(one, app, Path(folder))
    return 0
