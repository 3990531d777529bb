"""Words that were sorted, made one text."""

from __future__ import annotations

from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.one_text import as_one, in_order
from larch.core.base.shape import Placement
from larch.core.model.action import actions_for
from larch.core.model.page import Page
from larch.core.things.ink.ink import ink_from
from larch.core.things.words.rich import spread
from larch.core.things.words.text import Text


def at(text: str, x: float, y: float, **fields: object) -> Text:
    return Text(text=text, placement=Placement(x, y), **fields)  # type: ignore[arg-type]


@given(st.permutations(["the", "boats", "float", "down", "river"]))
def test_they_are_read_as_they_stand_however_they_were_selected(words: list[str]) -> None:
    places = {"the": (0, 0), "boats": (100, 6), "float": (240, -5), "down": (0, 90), "river": (120, 95)}
    made = as_one([at(word, *places[word]) for word in words])
    assert made.text == "the boats float\ndown river"
    assert (made.placement.x, made.placement.y) == (0, 0)


@given(
    st.lists(
        st.tuples(st.text("abc", min_size=1, max_size=5), st.sampled_from(("lake", "berry")), st.booleans()),
        min_size=2,
        max_size=6,
    )
)
def test_every_letter_keeps_its_colour_and_weight(words: list[tuple[str, str, bool]]) -> None:
    texts = [at(text, 200.0 * k, 0, hue=hue, bold=bold) for k, (text, hue, bold) in enumerate(words)]
    made = as_one(texts)
    letters = spread(made.runs, len(made.text))
    k = 0
    for text in texts:
        for letter in letters[k : k + len(text.text)]:
            assert (letter.hue or made.hue) == text.hue and (letter.bold or made.bold) == (text.bold or made.bold)
        k += len(text.text) + 1
    assert len(in_order(texts)) == 1


def test_it_is_one_step_and_the_ink_of_all_stays() -> None:
    ink = ink_from([(10, 10, 1, 0), (20, 20, 1, 0)])
    page = Page(id="p").put(
        *(at(word, 200.0 * k, 50, written=(ink.replace(placement=ink.placement.within(Placement(200.0 * k, 50))),))
          for k, word in enumerate(("paper", "boat")))
    )  # fmt: skip
    action = next(one for one in actions_for(page, page.things) if one.name == "one text")
    edit = action.run(page, page.things)
    (made,) = edit.after.things  # type: ignore[union-attr]
    assert made.text == "paper boat" and len(made.written) == 2
    assert all(stroke.placement.on(made.placement).x == 10 for stroke in made.written)
    assert edit.select == (made.id,)
