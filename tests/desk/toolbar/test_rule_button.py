"""Constructions chosen by their pictures."""

from __future__ import annotations

import pytest
from PyQt6.QtWidgets import QPushButton

from larch.core.figures.rules import RULES
from larch.desk.toolbar.rule_button import RuleButton, example
from larch.desk.window import Window
from tests.board.test_surface import differing


@pytest.mark.parametrize("name", RULES)
def test_every_construction_has_a_picture_that_carries_it_out(window: Window, name: str) -> None:
    given, made = example(name)
    assert made is not None, given
    button, plain = RuleButton(name, name, window), RuleButton("point", "point", window)
    assert differing(button.grab().toImage(), plain.grab().toImage()) > 20


def test_a_construction_is_chosen_by_its_picture(window: Window) -> None:
    window.ledge.take("construct")
    tool = window.ledge.tool("construct")
    window.hand.toggle_choices(tool)

    def shown() -> dict[str, RuleButton]:
        return {button.name: button for button in window.choices.findChildren(RuleButton) if button.isVisible()}

    def family(name: str) -> None:
        next(b for b in window.choices.findChildren(QPushButton) if b.isVisible() and b.text() == name).click()

    seen: set[str] = set()
    for name in ("draw", "circles", "images", "construct"):
        family(name)
        assert window.choices.isVisible()
        assert window.room.rect().contains(window.choices.geometry())
        seen |= set(shown())
        assert all(button.text() and button.accessibleName() for button in shown().values())
    assert seen == set(RULES) | {"point", "drawn", "locus"}
    shown()["tangent"].click()
    assert tool.mode == "tangent"
    assert shown()["tangent"].isChecked()
    window.hand.run("construct parallel")
    assert tool.mode == "parallel"
