"""What every test shares: folders of its own, the offscreen platform, and one window to work in."""

from __future__ import annotations

import gc
import os
import sys
from collections.abc import Iterator
from pathlib import Path

import numpy.linalg  # noqa: F401  (imported late by the program; early here, so that no test races with it)
import pytest
from hypothesis import HealthCheck, settings

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
settings.register_profile(
    "larch",
    deadline=None,
    derandomize=True,
    max_examples=int(os.environ.get("LARCH_EXAMPLES", "60")),
    suppress_health_check=[HealthCheck.too_slow],
)
settings.load_profile("larch")
gc.disable()  # as the program does: a widget must not be taken apart in whatever thread makes an object
YOUNG, WINDOWS = 100_000, 12  # objects, and windows, after which it is time to collect
_windows = 0


@pytest.fixture(autouse=True)
def tidy() -> Iterator[None]:
    """Collects garbage between tests, in this thread."""
    global _windows
    yield
    if _windows >= WINDOWS:
        _windows = 0
        gc.collect()
    elif gc.get_count()[0] > YOUNG:
        gc.collect(0)


@pytest.fixture(scope="session")
def qapp_cls() -> type:
    """Tests of the window run in an application that notices widgets destroyed within an event of their own."""
    from larch.attack.watching import Watching

    return Watching


@pytest.fixture(autouse=True)
def nothing_goes_within_its_own_event() -> Iterator[None]:
    yield
    module = sys.modules.get("larch.attack.watching")
    app = module.Watching.instance() if module is not None else None
    found = list(getattr(app, "faults", ()))
    if found:
        app.faults.clear()
        pytest.fail(found[0])


@pytest.fixture(autouse=True)
def mistakes_are_raised(monkeypatch: pytest.MonkeyPatch) -> None:
    """What the program would hold to the thing concerned is a mistake here."""
    monkeypatch.setattr("larch.core.model.guarded.strict", True)


@pytest.fixture(autouse=True)
def own_folders(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """Settings, journals and data go to a folder of this test alone."""
    for name in ("XDG_STATE_HOME", "XDG_DATA_HOME", "XDG_CONFIG_HOME", "XDG_CACHE_HOME"):
        monkeypatch.setenv(name, str(tmp_path / name.lower()))
    monkeypatch.setenv("HOME", str(tmp_path))
    return tmp_path


@pytest.fixture
def window(qtbot: object) -> Iterator[object]:
    """The main window with the demo lesson, shown offscreen."""
    from PyQt6.QtCore import QCoreApplication, QEvent

    from larch.desk.app import application, work_to_open
    from larch.desk.window import Window

    global _windows
    _windows += 1
    application()
    made = Window(work_to_open(None, demo=True))
    made.canvas.still = True
    made.show()
    qtbot.waitExposed(made)  # type: ignore[attr-defined]
    assert made.commands  # else made just after the first paint
    yield made
    made.close()
    made.deleteLater()
    QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete.value)  # else they all stay, and slow the rest


@pytest.fixture
def hand(window: object) -> object:
    """A mouse over the canvas of that window, with the select tool in it."""
    from tests.board.test_tools import Hand

    window.ledge.take("select")  # type: ignore[attr-defined]
    return Hand(window)


@pytest.fixture
def said(window: object, monkeypatch: pytest.MonkeyPatch) -> list[str]:
    """What the window says from now on."""
    heard: list[str] = []
    monkeypatch.setattr(window.notice, "say", heard.append)  # type: ignore[attr-defined]
    return heard
