"""Bar models and times tables."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.model.page import Page
from larch.core.things.numbers.bar_model import BarModel
from larch.core.things.numbers.times_table import ACTIONS, TimesTable


@given(st.lists(st.integers(1, 99), min_size=1, max_size=6), st.data())
def test_what_is_asked_completes_the_bar(parts: list[int], data: st.DataObject) -> None:
    hidden = data.draw(st.integers(-1, len(parts) - 1))
    words = tuple("?" if k == hidden else str(n) for k, n in enumerate(parts))
    model = BarModel(whole="?" if hidden < 0 else str(sum(parts)), parts=words)
    assert model.asked() == (sum(parts) if hidden < 0 else parts[hidden])
    assert model.sizes() == pytest.approx([n / sum(parts) for n in parts])
    assert model.word_text("?") == "?"
    assert model.replace(open=True).word_text("?") != "?"


def test_equal_parts_and_what_can_not_be_said() -> None:
    assert BarModel(whole="24", parts=("?",) * 4).asked() == 6
    assert BarModel(whole="?", parts=("?", "3")).asked() is None
    assert BarModel(whole="5", parts=("7", "?")).asked() is None
    assert not BarModel(whole="5", parts=("7",)).agrees()
    facts = {fact.name: fact for fact in BarModel().facts(Page(id="p1"))}
    assert facts["parts"].set is not None
    assert facts["parts"].set("2,5 + ?").parts == ("2.5", "?")
    for typed in ("", "seven", "-1", "0", "1 2 3 4 5 6 7 8 9 10 11"):
        with pytest.raises(ValueError, match=r"\.$"):
            facts["parts"].set(typed)


@given(st.integers(1, 20), st.integers(1, 20), st.data())
def test_products_are_uncovered_one_by_one(rows: int, columns: int, data: st.DataObject) -> None:
    page = Page(id="p1").put(TimesTable(rows=rows, columns=columns))
    table = ACTIONS[0].run(page, page.things).after.things[0]  # type: ignore[union-attr]
    assert isinstance(table, TimesTable) and len(table.covered) == rows * columns
    cell = data.draw(st.integers(0, rows * columns - 1))
    assert table.part_at(*table.part_place(str(cell)), 0) == str(cell)
    shown = table.tap_part(str(cell), (0, 0))
    assert cell not in shown.covered and len(shown.covered) == rows * columns - 1
    a, b = shown.factors(cell)
    assert {f.name: f.value for f in shown.facts(page)}["value"] == a * b
    across = table.drag_part("0", table.part_place("0"), table.part_place(str(columns - 1)))
    assert len(across.covered) == (rows - 1) * columns
