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
    for name in ("draw", "circles", "images", "tangents", "construct"):
        family(name)
        assert window.choices.isVisible()
        assert window.room.rect().contains(window.choices.geometry())
        seen |= set(shown())
        assert all(button.text() and button.accessibleName() for button in shown().values())
    assert seen == set(RULES) | {"point", "drawn", "locus"}
    family("tangents")
    shown()["tangent"].click()
    assert tool.mode == "tangent"
    assert shown()["tangent"].isChecked()
    window.hand.run("construct parallel")
    assert tool.mode == "parallel"


@pytest.mark.parametrize("size", [(1280, 800), (1024, 600)])
def test_at_the_board_all_constructions_have_room(window: Window, size: tuple[int, int]) -> None:
    window.resize(*size)
    window.go_to_board()
    window.showNormal()
    window.resize(*size)
    window.ledge.take("construct")
    window.hand.toggle_choices(window.ledge.tool("construct"))
    for name in ("draw", "circles", "images", "tangents", "construct"):
        next(b for b in window.choices.findChildren(QPushButton) if b.isVisible() and b.text() == name).click()
        inside = window.rect()
        for button in window.choices.findChildren(RuleButton):
            corner = button.mapTo(window, button.rect().bottomRight())
            assert not button.isVisible() or inside.contains(corner), (name, button.name, corner)
