"""`larch screenshots`: the pictures of docs/screenshots, made anew from the demo lesson."""

from __future__ import annotations

import os
import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from larch.desk.window import Window

HOME = Path(__file__).resolve().parents[3]
FOLDER = HOME / "docs" / "screenshots"


def _kinds(window: Window, *kinds: str) -> list[str]:
    return [thing.id for thing in window.canvas.page.things if thing.kind() in kinds]


def desk_with_shelf(w: Window) -> None:
    w.show_page("p2")
    w.show_shelf(True)
    w.canvas.setFocus()
    w.canvas.select([t.id for t in w.canvas.page.things if t.kind() == "block" and not t.supply])


def triangle(w: Window) -> None:
    w.show_page("p4")
    w.canvas.select(_kinds(w, "polygon"))
    w.facts.want(True)


def graphs(w: Window) -> None:
    _at_board(w, "p26")


def spread(w: Window) -> None:
    w.run("spread")


def finder(w: Window) -> None:
    w.show_page("p5")
    w.finder.open()
    w.finder.field.setText("lantern")


def pen_choices(w: Window) -> None:
    w.show_page("p7")
    w.ledge.take("pen")
    w.hand.toggle_choices(w.ledge.tool("pen"))


def by_hand(w: Window) -> None:
    """A graph taken hold of, its table beside it, and what is known of it."""
    w.show_page("p27")
    w.canvas.select(_kinds(w, "equation"))
    w.facts.want(True)
    w.canvas.whole_page()


def regions(w: Window) -> None:
    _at_board(w, "p28")


def construction(w: Window) -> None:
    w.show_page("p12")
    w.show_card("steps")
    steps = w._cards["steps"]
    steps.setGeometry(12, 66, 420, 420)
    steps.go(7)


def instruments(w: Window) -> None:
    w.show_page("p13")
    w.go_to_board()
    w.showNormal()
    w.resize(1280, 800)
    w.canvas.select(_kinds(w, "compasses"))


def entry(w: Window) -> None:
    from larch.core.maths.layout.writing import typed
    from larch.core.things.graphs.equation import Equation
    from larch.desk.editors.equation import EquationEditor

    w.show_page("p24")
    w.go_to_board()
    w.showNormal()
    w.resize(1280, 800)
    lines = [thing for thing in w.canvas.page.things if isinstance(thing, Equation)]
    w.editors.edit(lines[-1])
    editor = w.editors.open
    assert isinstance(editor, EquationEditor)
    editor.next_line()
    editor = w.editors.open
    assert isinstance(editor, EquationEditor)
    for character in "x=15/":
        editor.write(typed(editor.writing, character))


def working(w: Window) -> None:
    w.show_page("p24")


def organisers(w: Window) -> None:
    w.show_page("p16")
    w.show_shelf(True)
    w.shelf.choose("Organisers")
    w.canvas.select([thing.id for thing in w.canvas.page.things if thing.label(w.canvas.page) == "lantern"][:1])


def _at_board(w: Window, page: str) -> None:
    w.show_page(page)
    w.go_to_board()
    w.showNormal()
    w.resize(1280, 800)


def numbers(w: Window) -> None:
    w.show_page("p18")
    w.show_shelf(True)
    w.shelf.choose("Numbers")
    w.canvas.setFocus()


def _read(w: Window, kind: str, hues: tuple[str, ...]) -> None:
    """Ink of some colours on the page to write on, read; the card stands beside it."""
    from larch.core.things.ink.ink import Ink

    w.canvas.select([thing.id for thing in w.canvas.page.things if isinstance(thing, Ink) and thing.hue in hues])
    w.run(f"read {kind}")
    for _turn in range(100):
        _wait(100)
        if w.readings.card is not None:
            return


def handwriting(w: Window) -> None:
    """Words that were tidied onto their line, and a rule with its readings beside it."""
    _at_board(w, "p29")
    _read(w, "words", ("needle", "berry"))
    if w.readings.card is not None:
        w.readings.card.choices[0].click()
    _read(w, "maths", ("lake",))


def shape_read(w: Window) -> None:
    _at_board(w, "p29")
    _read(w, "shape", ("moss",))


def fractions(w: Window) -> None:
    w.show_page("p20")
    w.canvas.select(_kinds(w, "fraction bar")[-1:])
    w.facts.want(True)


def chances(w: Window) -> None:
    from larch.core.things.chance.spinner import spin

    _at_board(w, "p21")
    spinner = _kinds(w, "spinner")
    w.canvas.commit(spin(w.canvas.page, w.canvas.page.some(spinner)))
    w.canvas.select(spinner)


def task(w: Window) -> None:
    """Checked once, and not yet right."""
    from larch.core.actions.asking import check_edit, checked

    _at_board(w, "p22")
    card = w.canvas.page.some(_kinds(w, "task"))[0]
    w.canvas.commit(check_edit(w.canvas.page, [checked(w.canvas.page, card)]))


SHOTS: dict[str, Callable[[Window], None]] = {
    "desk-shelf": desk_with_shelf,
    "numbers": numbers,
    "fractions": fractions,
    "chance": chances,
    "task-checked": task,
    "triangle-measures": triangle,
    "graphs": graphs,
    "graph-by-hand": by_hand,
    "regions": regions,
    "spread": spread,
    "finder": finder,
    "pen-choices": pen_choices,
    "handwriting": handwriting,
    "shape-read": shape_read,
    "construction-steps": construction,
    "instruments": instruments,
    "equation-entry": entry,
    "working-lines": working,
    "organisers": organisers,
}


def _wait(ms: int) -> None:
    from PyQt6.QtTest import QTest

    QTest.qWait(ms)  # type: ignore[call-arg, arg-type]


def make_screenshots(names: list[str] | None = None, folder: Path = FOLDER) -> int:
    """Draws each view in a window of its own, with settings and journals in a throwaway folder."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    import numpy.linalg  # noqa: F401

    from larch.desk.app import application, work_to_open
    from larch.desk.window import Window

    app = application()
    folder.mkdir(parents=True, exist_ok=True)
    for name in names or list(SHOTS):
        with tempfile.TemporaryDirectory() as state:
            os.environ["XDG_STATE_HOME"] = os.environ["XDG_DATA_HOME"] = state
            window = Window(work_to_open(None, demo=True))
            window.canvas.still = True
            window.show()
            _wait(100)
            SHOTS[name](window)
            _wait(900)
            window.notice.hide()
            window.canvas.surface.sharpen(5000)
            window.grab().save(str(folder / f"{name}.png"))
            window.close()
            app.processEvents()
            print(folder / f"{name}.png")
    return 0
