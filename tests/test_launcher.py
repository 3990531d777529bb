"""The launcher on a machine whose apt is busy."""

from __future__ import annotations

import importlib.machinery
import importlib.util
import os
from pathlib import Path
from types import ModuleType

import pytest

HOME = Path(__file__).parents[1]
BUSY = "E: Could not get lock /var/lib/dpkg/lock-frontend. It is held by process 812 (unattended-upgr)"


@pytest.fixture
def launcher(monkeypatch: pytest.MonkeyPatch) -> ModuleType:
    made = loaded()
    assert made.PATIENCE == 600.0 and made.LOOK_EVERY >= 1.0
    monkeypatch.setattr(made, "LOOK_EVERY", 0.01)
    return made


def loaded() -> ModuleType:
    loader = importlib.machinery.SourceFileLoader("launcher", str(HOME / "larch"))
    spec = importlib.util.spec_from_loader("launcher", loader)
    assert spec is not None
    made = importlib.util.module_from_spec(spec)
    loader.exec_module(made)
    return made


def fake_apt(folder: Path, busy: int, then: int, monkeypatch: pytest.MonkeyPatch) -> Path:
    """An apt that finds its lock held for so many calls, then ends with a code. Returns where it counts its calls."""
    calls = folder / "calls"
    calls.write_text("")
    program = folder / "apt-get"
    program.write_text(
        f'#!/bin/sh\necho "$@" >> "{calls}"\n'
        f'if [ "$(wc -l < "{calls}")" -le {busy} ]; then echo "{BUSY}" >&2; exit 100; fi\nexit {then}\n'
    )
    program.chmod(0o755)
    monkeypatch.setenv("PATH", f"{folder}:{os.environ['PATH']}")
    return calls


def test_it_waits_for_another_that_has_the_lock_and_says_so_once(
    launcher: ModuleType, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    calls = fake_apt(tmp_path, 4, 0, monkeypatch)
    assert launcher.apt(["apt-get", "install", "xvfb"]) == 0
    assert calls.read_text().splitlines() == ["install xvfb"] * 5
    said = capsys.readouterr().err
    assert said.count("waiting until it has finished") == 1 and "Could not get lock" not in said


def test_it_gives_up_in_the_end_with_what_to_do(
    launcher: ModuleType, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    calls = fake_apt(tmp_path, 10**6, 0, monkeypatch)
    monkeypatch.setattr(launcher, "PATIENCE", 0.2)
    with pytest.raises(SystemExit, match=r"apt's lock.*let it finish.*try again"):
        launcher.apt(["apt-get", "update"])
    assert len(calls.read_text().splitlines()) > 1


def test_another_trouble_is_not_waited_for(launcher: ModuleType, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    calls = fake_apt(tmp_path, 0, 100, monkeypatch)
    assert launcher.apt(["apt-get", "install", "nothing"]) == 100
    assert len(calls.read_text().splitlines()) == 1
