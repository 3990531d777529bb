"""How a lesson writes its mathematics: chosen once, seen everywhere, kept in its file, never changing what was typed."""

from __future__ import annotations

from collections.abc import Iterator
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest

from larch.board.typeset.boxes import Glyph
from larch.board.typeset.mathset import set_row
from larch.board.views import view_of
from larch.core.base.memo import remember
from larch.core.base.shape import Placement
from larch.core.base.signs import ALLOWED, AS_WRITTEN, Signs, use_signs
from larch.core.files.lesson_file import read_lesson, write_lesson
from larch.core.files.records import record_of, replayed
from larch.core.maths.layout.reading import look, meaning
from larch.core.model.fact import number_text, plain_number, read_number
from larch.core.model.lesson import blank_lesson
from larch.core.things.graphs.equation import Equation
from larch.core.things.words.text import Text
from larch.desk.editors.key_sets import POINT
from larch.desk.editors.key_tray import KeyTray
from tests.board.test_tools import Hand

COMMA = Signs(decimal=",", times="⋅", divide=":", tangent="tg")


@pytest.fixture(autouse=True)
def as_before(qapp: object) -> Iterator[None]:
    yield
    use_signs(AS_WRITTEN)
    KeyTray.chosen, KeyTray._asked = "letters", ""


def seen(source: str) -> str:
    shown = "".join(mark.character for mark in set_row(look(source)).marks if isinstance(mark, Glyph))
    return shown.replace("𝑥", "x")


@pytest.mark.parametrize(
    ("source", "shown"),
    [
        ("3.5", "3,5"), ("3,5", "3,5"), ("2 × 3", "2⋅3"), ("8 \\div 2", "8:2"), ("tan(2)", "tg2"), ("(2.5, 3)", "2,5;3"),
        ("max(1, 2)", "max1;2"), ("(2,3)", "2;3"), ("3{,}5x", "3,5x"), ("\\frac{1.5}{x}", "1,5x"),
    ],
)  # fmt: skip
def test_a_sign_is_shown_as_the_lesson_writes_it(source: str, shown: str) -> None:
    before = meaning(source)
    use_signs(COMMA)
    assert seen(source).replace("(", "").replace(")", "") == shown
    assert meaning(source) == before


def test_without_a_choice_all_stands_as_it_was_typed() -> None:
    assert (seen("3.5"), seen("2 × 3"), seen("tan(x)")) == ("3.5", "2×3", "tanx")


@given(st.floats(-1e6, 1e6), st.integers(0, 6))
def test_a_number_with_a_comma_is_read_as_the_same_number(value: float, places: int) -> None:
    plain = read_number(number_text(value, places))
    use_signs(COMMA)
    try:
        assert read_number(number_text(value, places)) == plain
        assert "," not in plain_number(value, places)
    finally:
        use_signs(AS_WRITTEN)


def test_the_command_changes_the_page_at_once_and_can_be_taken_back(hand: Hand) -> None:
    (equation, text) = hand.put(
        Equation(source="y = 0.5x", placement=Placement(200, 200)),
        Text(text="a is {1/4}", placement=Placement(200, 400)),
    )
    hand.window.run("decimal ,")
    assert hand.window.session.lesson.signs.decimal == ","
    assert number_text(0.5) == "0,5"
    assert hand.thing(text).read_text() == "a is 0,25"
    assert hand.thing(equation).source == "y = 0.5x"
    made = view_of(hand.thing(equation))
    assert made.extent(hand.thing(equation)).width > 0
    hand.window.session.undo()
    assert hand.window.session.lesson.signs == AS_WRITTEN
    assert number_text(0.5) == "0.5"
    assert hand.thing(text).read_text() == "a is 0.25"


def test_chosen_again_it_is_as_typed_and_its_entry_says_what_is_chosen(hand: Hand) -> None:
    actions = hand.window.commands.actions
    hand.window.run("times ×")
    assert actions["times ×"].isChecked() and not actions["times ⋅"].isChecked()
    hand.window.run("times ⋅")
    assert actions["times ⋅"].isChecked() and not actions["times ×"].isChecked()
    hand.window.run("times ⋅")
    assert hand.window.session.lesson.signs == AS_WRITTEN
    assert actions["signs as typed"].isChecked()


def test_the_point_key_shows_the_sign_of_the_lesson_and_its_keys_come_first(hand: Hand) -> None:
    hand.window.run("decimal ,")
    hand.window.run("keys numbers")
    hand.window.editors.edit(Equation(source="", placement=Placement(200, 200)))
    editor = hand.window.editors.open
    assert KeyTray.chosen == "numbers"
    key = next(button for _place, button in editor.tray._keys if button.key is POINT)
    assert [mark.character for mark in key._made.marks] == [","]
    QTest.keyClicks(editor, "3")
    QTest.mouseClick(key, Qt.MouseButton.LeftButton)
    QTest.keyClicks(editor, "5")
    hand.window.editors.finish()
    assert hand.canvas.page.things[-1].source == "3.5"


def test_it_is_kept_in_the_file_and_in_the_journal(tmp_path: Path) -> None:
    lesson = blank_lesson().replace(signs=COMMA)
    write_lesson(lesson, tmp_path / "a.larch")
    assert read_lesson(tmp_path / "a.larch").lesson.signs == COMMA
    before = blank_lesson()
    assert replayed(before, record_of("", before, before.replace(signs=COMMA))).signs == COMMA


def test_signs_that_are_not_known_cost_nothing_else(tmp_path: Path) -> None:
    import zipfile

    write_lesson(blank_lesson().replace(signs=COMMA, title="Night"), tmp_path / "a.larch")
    with zipfile.ZipFile(tmp_path / "a.larch") as old, zipfile.ZipFile(tmp_path / "b.larch", "w") as new:
        for name in old.namelist():
            data = old.read(name)
            if name == "lesson.json":
                data = data.replace(b'"times": "\xe2\x8b\x85"', b'"times": "**", "further": "x"')
            new.writestr(name, data)
    opened = read_lesson(tmp_path / "b.larch")
    assert opened.lesson.title == "Night"
    assert opened.lesson.signs == COMMA.replace(times="")


@pytest.mark.parametrize("name", ALLOWED)
def test_other_signs_are_refused(name: str) -> None:
    with pytest.raises(ValueError, match="signs"):
        Signs(**{name: "#"})


def test_what_was_derived_is_worked_out_again() -> None:
    from larch.core.base.memo import forget_derived

    calls = []
    value = Text(text="x")

    @remember
    def derived(thing: Text) -> int:
        calls.append(thing.text)
        return len(calls)

    assert (derived(value), derived(value)) == (1, 1)
    forget_derived()
    assert derived(value) == 2


def test_an_export_from_the_command_line_writes_as_the_lesson_does(tmp_path: Path, qapp: object) -> None:
    from larch.cli import main

    lesson = blank_lesson().replace(signs=COMMA)
    page = lesson.pages[0].put(Text(text="a is {1/4}", placement=Placement(100, 100)))
    write_lesson(lesson.with_page(page), tmp_path / "a.larch")
    assert main(["export", str(tmp_path / "a.larch"), "--to", str(tmp_path / "a.svg")]) == 0
    assert "0,25" in (tmp_path / "a.svg").read_text()
