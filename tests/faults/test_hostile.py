"""A short, seeded part of `larch attack`, and everything that once did harm."""

from __future__ import annotations

import time
from pathlib import Path

import pytest

from larch.attack import display, fuzz, kills, monkeys, real, run

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


@pytest.mark.skipif(bool(display.missing()), reason="no X server, window manager or XTEST here")
def test_killed_while_it_is_worked_at_the_real_window_loses_nothing() -> None:
    done = kills.run(3, seed=5)
    assert done.lost == []
    assert done.kills == 3 and done.words > 0 and done.typing > 0


@pytest.mark.skipif(bool(display.missing()), reason="no X server, window manager or XTEST here")
def test_a_monkey_at_the_real_window_does_not_end_it() -> None:
    went = real.run(7, 250)
    assert went.trouble == ()
    assert went.steps == 250 and went.memory > 50


def test_attack_tells_its_seed_keeps_its_time_and_writes_nothing_into_the_program(
    monkeypatch: pytest.MonkeyPatch, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.chdir(tmp_path)
    for name in ("_faults", "_fuzz", "_monkeys", "_kills", "_real"):
        monkeypatch.setattr(run, name, lambda *_given: 0)
    assert run.attack(0.5) == run.attack(0.5) == 0
    seeds = [line.split()[1] for line in capsys.readouterr().out.splitlines() if line.startswith("seed")]
    assert len(set(seeds)) == 2
    assert sum(run.SHARES.values()) == pytest.approx(1.0)
    found = fuzz.Found("crash", b"{}", "somewhere")
    (said,) = run._kept("page", [found, found])
    assert [path.read_bytes() for path in (tmp_path / "larch-finds").iterdir()] == [b"{}"] and "larch-finds" in said


def test_hostile_input_keeps_the_time_it_is_given() -> None:
    began = time.monotonic()
    report = fuzz.run("expression", 3, 10**7, seconds=6.0)
    assert time.monotonic() - began < 30 and report.found == [] and 0 < report.tries < 10**7
