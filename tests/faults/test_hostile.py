"""A short, seeded part of `larch attack`, and everything that once did harm."""

from __future__ import annotations

from pathlib import Path

import pytest

from larch.attack import fuzz, kills, monkeys

CORPUS = Path(__file__).parent / "corpus"


@pytest.mark.parametrize(("kind", "count"), [("expression", 1500), ("html", 300), ("ink", 500), ("page", 400), ("svg", 40)])
def test_hostile_input_does_no_harm(kind: str, count: int) -> None:
    report = fuzz.run(kind, 12, count)
    assert [(one.what, one.about, one.data[:200]) for one in report.found] == []
    assert report.tries == count


@pytest.mark.parametrize("file", sorted(CORPUS.iterdir()), ids=lambda file: file.name)
def test_what_once_did_harm_does_none(qapp: object, file: Path) -> None:
    found = fuzz.try_one(file.name.split("-")[0], file.read_bytes())
    assert found is None, found


@pytest.mark.parametrize("seed", [4, 12])
def test_a_monkey_at_the_window_breaks_nothing(seed: int) -> None:
    went = monkeys.run(seed, 150)
    assert went.trouble == ""
    assert went.steps == 150


def test_killed_at_any_moment_the_window_finds_what_it_had_kept() -> None:
    done = kills.run(8, seed=5)
    assert done.kills == 8
    assert done.edits > 0
    assert done.lost == []
