"""The looks of the interface keep what WCAG 2.2 asks: 4.5 : 1 for words, 3 : 1 for what one must see to use it."""

from __future__ import annotations

import pytest
from PyQt6.QtWidgets import QApplication

from larch.board import look
from larch.core.base.hues import HUES, PAPER, contrast, readable
from larch.desk import theme
from larch.desk.style import paint_over, sheet
from larch.desk.window import Window
from larch.services.settings import load_settings

WORDS = [("needle", "paper"), ("needle", "stone"), ("needle", "drawer"), ("soft", "paper"), ("soft", "stone"),
         ("soft", "drawer"), ("strong text", "strong"), ("wrong", "paper")]  # fmt: skip
PARTS = [("focus", "paper"), ("focus", "stone"), ("focus", "drawer"), ("edge", "paper"), ("edge", "drawer"),
         ("handle", "drawer"), ("handle", "paper"), ("gold", "paper"), ("faded", "paper")]  # fmt: skip


@pytest.fixture(autouse=True)
def paper_again() -> object:
    yield
    app = QApplication.instance()
    if isinstance(app, QApplication) and theme.worn() != "paper":
        paint_over(app, "paper")
    return None


@pytest.mark.parametrize("name", theme.THEMES)
def test_what_is_read_and_what_is_used_stand_out(name: str) -> None:
    tones = theme.THEMES[name]
    for front, back in WORDS:
        assert contrast(tones[front], tones[back]) >= (7.0 if name == "contrast" else 4.5), (front, back)
    for front, back in PARTS:
        assert contrast(tones[front], tones[back]) >= 3.0, (front, back)


@pytest.mark.parametrize("hue", HUES)
def test_words_of_every_hue_can_be_read_on_paper(hue: str) -> None:
    assert contrast(readable(hue), PAPER) >= 4.5
    assert readable("#fedcba") == "#fedcba"


@pytest.mark.parametrize("name", theme.THEMES)
def test_a_theme_is_put_on_at_once_and_kept(window: Window, name: str) -> None:
    window.run(f"theme {name}")
    assert theme.worn() == name
    assert theme.PAPER.name() == theme.THEMES[name]["paper"].lower()
    assert look.ink["shade"] == theme.THEMES[name]["needle"]
    assert window.grab().toImage().pixelColor(6, window.height() - 30).name() == theme.THEMES[name]["stone"].lower()
    assert load_settings().theme == name
    assert theme.THEMES[name]["strong"] in sheet()


def test_an_unknown_theme_is_paper() -> None:
    assert theme.wear("of a newer Larch") == "paper"
