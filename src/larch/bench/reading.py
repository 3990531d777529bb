"""Measured: how long it takes to read a line of mathematics, words and a shape, against the bare network."""

from __future__ import annotations

import resource
from importlib import resources
from typing import Any

from larch.bench.measure import bench, line, p, timed


def _ink() -> dict[str, Any]:
    import msgspec

    found: dict[str, Any] = msgspec.json.decode(resources.files("larch").joinpath("assets/demo/ink.json").read_bytes())
    return found


def _memory() -> float:
    """Megabytes that the process has taken at most."""
    return resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024


@bench("reading: mathematics, words, shapes")
def reading() -> None:
    import numpy as np

    from larch.core.recognise.maths.reading import read_maths
    from larch.core.recognise.net import signs
    from larch.core.recognise.shapes.reading import read_shape
    from larch.core.recognise.words import read_words

    ink = _ink()
    before = _memory()
    shape = [timed(lambda: read_shape(ink["square"])) for _ in range(20)]
    line("a shape read", f"p50 {p(shape, 0.5):.1f}  first {shape[0]:.0f}", "", "<= 10")
    maths = [timed(lambda: read_maths(ink["rule"])) for _ in range(20)]
    images, runs, facts = (np.zeros((60, *size), np.float32) for size in ((3, 32, 32), (5, 40), (6,)))
    bare = [timed(lambda: signs.ask(images=images, runs=runs, facts=facts)) for _ in range(20)]
    told = f"p50 {p(maths, 0.5):.0f}  first {maths[0]:.0f}"
    line("a line of mathematics read", told, f"the network alone {p(bare, 0.5):.0f}", "<= 120")
    words = [timed(lambda: read_words(ink["words"])) for _ in range(10)]
    line("three words read", f"p50 {p(words, 0.5):.0f}  first {words[0]:.0f}", "", "a word <= 60")
    line("memory taken for it", f"{_memory() - before:.0f} MB", "", "<= 150 MB")
