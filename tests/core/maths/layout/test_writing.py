"""Writing mathematics: what keys make of a row, and that no caret is ever lost."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.algebra.compare import same
from larch.core.maths.expression import reading
from larch.core.maths.layout import terms
from larch.core.maths.layout import writing as pen
from larch.core.maths.layout.latex import latex
from larch.core.maths.layout.reading import look
from larch.core.maths.layout.terms import source_of
from larch.core.maths.layout.to_tree import tree_of
from larch.core.maths.layout.writing import Writing, row_at


def written(keys: str) -> Writing:
    made = Writing()
    for key in keys:
        made = pen.typed(made, key)
    return made


@pytest.mark.parametrize(
    ("keys", "meant"),
    [
        ("2x+5=15", "2·x + 5 = 15"), ("3/4 x-6", "3/4·x − 6"), ("sqrtx/2", "sqrt(x/2)"), ("sin^2 (2x)", "sin(2·x)^2"),
        ("|x-1| <=3", "|x − 1| ≤ 3"), ("(x+1)/(x-2)", "(x + 1)/(x − 2)"), ("pi r^2", "π·r^2"), ("2^x=8", "2^x = 8"),
        ("x!=3", "x ≠ 3"), ("n!=6", "n! = 6"), ("a=+-2", "a = ±2"), ("\\alpha+1", "α + 1"), ("log_2 8", "log(8, 2)"),
        ("1/2/3", "1/(2/3)"),
        ("abs(x", "|x|"), ("asinx", "asin(x)"), ("cosxsinx", "cos(x)·sin(x)"), ("x=2orx=3", "x = 2 or x = 3"),
        ("2pir", "2·π·r"),
        ("x>=3", "x ≥ 3"), ("50%", "50%"), ("x_1 +x_2", "x_1 + x_2"),
    ],
)  # fmt: skip
def test_typed_fast(keys: str, meant: str) -> None:
    assert reading(tree_of(written(keys).row)) == meant


def sound(made: Writing) -> None:
    here = row_at(made.row, made.path)
    assert 0 <= made.at <= len(here)
    assert made.anchor is None or 0 <= made.anchor <= len(here)


STEPS = {
    "left": lambda w: pen.step(w, False), "right": lambda w: pen.step(w, True),
    "home": pen.home, "end": lambda w: pen.home(w, True),
    "rub": pen.rubbed, "delete": lambda w: pen.rubbed(w, True), "select": lambda w: pen.step(w, True, True),
    "select back": lambda w: pen.step(w, False, True),
    "term": terms.term_at, "side": terms.side_at, "all": terms.everything,
    "fraction": pen.fraction, "power": lambda w: pen.script(w, True), "next": lambda w: pen.next_place(w) or w,
    "tint": lambda w: terms.coloured(w, "berry"),
}  # fmt: skip


@given(
    st.lists(
        st.one_of(st.sampled_from(sorted(STEPS)), st.sampled_from(list("0123xya+-*/^_()|= <>!.,%sqrtpi\\"))), max_size=40
    )
)
def test_whatever_is_pressed_the_caret_stays_in_the_row_and_the_row_can_be_kept(keys: list[str]) -> None:
    made = Writing()
    for key in keys:
        made = STEPS[key](made) if key in STEPS else pen.typed(made, key)
        sound(made)
        assert isinstance(latex(made.row), str)
    again = look(source_of(made.row)) if made.row else ()
    assert again is not None


@given(st.text(alphabet="123xy+-=/^ (", max_size=20))
def test_all_the_way_right_and_back_comes_to_the_same_places(keys: str) -> None:
    made = pen.home(pen.home(written(keys)))
    made = made.moved((), 0)
    seen = [(made.path, made.at)]
    while len(seen) < 300:
        further = pen.step(made, True)
        if (further.path, further.at) == seen[-1]:
            break
        made = further
        seen.append((made.path, made.at))
    assert (made.path, made.at) == ((), len(made.row))
    back = [(made.path, made.at)]
    while len(back) < 300:
        further = pen.step(made, False)
        if (further.path, further.at) == back[-1]:
            break
        made = further
        back.append((made.path, made.at))
    assert back == seen[::-1]


def test_rubbing_out_at_the_start_of_a_part_keeps_what_is_in_it() -> None:
    made = written("1/2")
    made = pen.rubbed(made.moved(((0, 0),), 0))
    assert source_of(made.row) == "12"


def test_selected_terms_go_into_a_fraction() -> None:
    made = terms.everything(written("x+1"))
    assert source_of(pen.fraction(made).row) == r"\frac{x+1}{}"
    term = terms.term_at(written("2x+5y").moved((), 4))
    assert "".join(item.text for item in term.selection()) == "5y"
    side = terms.side_at(written("2x+5=15").moved((), 1))
    assert "".join(item.text for item in side.selection()) == "2x+5"


@pytest.mark.parametrize(
    ("line", "at", "wanted"),
    [("2x+5=15", 3, "2x = 15 − 5"), ("2x+5=15", 0, "5 = 15 − 2x"), ("3x-4=11", 3, "3x = 11 + 4"),
    ("x=5-2x", 5, "x + 2x = 5"),
     ("x-3=0", 2, "x = 3"), ("x+1", 0, "x + 1")],
)  # fmt: skip
def test_a_term_goes_to_the_other_side_with_the_other_sign(line: str, at: int, wanted: str) -> None:
    moved = terms.brought_over(written(line).moved((), at))
    assert source_of(moved.row) == wanted
    assert "=" not in wanted or same(tree_of(moved.row), tree_of(written(line).row)).same is True
