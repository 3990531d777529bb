"""Dice: uniform, repeatable from the page's seed, and never losing a count."""

from __future__ import annotations

from larch.core.model.page import Page
from larch.core.things.chance.die import Die, roll
from tests.samples import page_with

# 99.9 % points of chi-squared
CRITICAL = {3: 16.27, 5: 20.52, 7: 24.32, 9: 27.88, 11: 31.26, 19: 43.82}


def rolled(page: Page, times: int) -> Page:
    for _ in range(times):
        page = roll(page, page.things).after  # type: ignore[assignment]
    return page


def test_every_face_is_as_likely() -> None:
    for faces in (4, 6, 8, 10, 12, 20):
        page = rolled(page_with(Die(faces=faces)), 1200)
        die = page.things[0]
        assert isinstance(die, Die)
        expected = 1200 / faces
        chi = sum((count - expected) ** 2 / expected for count in die.counts())
        assert chi < CRITICAL[faces - 1]
        assert sum(die.counts()) == 1200


def test_the_same_seed_rolls_the_same() -> None:
    first, second = (rolled(page_with(Die(), Die()), 20) for _ in range(2))
    assert first.things == second.things
    other = rolled(page_with(Die(), Die()).replace(seed=8), 20)
    assert first.things != other.things


def test_a_roll_is_counted_on_its_face() -> None:
    page = page_with(Die())
    after = rolled(page, 1)
    die = after.things[0]
    assert isinstance(die, Die)
    assert die.counts()[die.value - 1] == 1
    assert after.draws == page.draws + 1
    assert next(f.value for f in die.facts(after) if f.name == "rolls") == 1
