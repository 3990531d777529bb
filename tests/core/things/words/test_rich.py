"""Styled words: laws of runs and paragraphs, cleaning of rich text, notes."""

from __future__ import annotations

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.ink import rub
from larch.core.actions.ink.writing import write
from larch.core.base.shape import Placement
from larch.core.files.codec import thing_from_json, thing_to_json
from larch.core.files.rich_html import read_html
from larch.core.model.action import actions_for
from larch.core.model.nibs import Pen
from larch.core.model.page import Page
from larch.core.things.ink.ink import Ink, ink_from
from larch.core.things.words.note import Note, fold
from larch.core.things.words.rich import (
    DISTANCES,
    LONGEST,
    Lettered,
    Paragraph,
    Run,
    reads_from,
    restyled,
    spread,
    tidy_paragraphs,
    tidy_runs,
)
from larch.core.things.words.text import Text
from tests.samples import page_with, placements

runs = st.lists(
    st.builds(
        Run, st.integers(1, 9), bold=st.booleans(), hue=st.sampled_from(["", "berry"]), rise=st.sampled_from(["", "sub"])
    ),
    max_size=8,
)  # fmt: skip


@given(runs, st.integers(0, 40))
def test_tidying_keeps_every_characters_look(listed: list[Run], length: int) -> None:
    tidy = tidy_runs(listed, length)
    assert spread(tidy, length) == spread(listed, length)
    assert tidy_runs(tidy, length) == tidy
    assert all(a.replace(count=0) != b.replace(count=0) for a, b in pairwise(tidy))


@given(runs, st.integers(1, 40), st.integers(0, 40), st.integers(0, 40))
def test_restyling_changes_the_chosen_characters_and_no_others(listed: list[Run], length: int, a: int, b: int) -> None:
    start, end = sorted((min(a, length), min(b, length)))
    before, after = spread(listed, length), spread(restyled(listed, length, start, end, italic=True), length)
    assert all(run.italic for run in after[start:end])
    assert after[:start] == before[:start] and after[end:] == before[end:]


def test_paragraphs_end_with_the_last_that_is_special() -> None:
    assert tidy_paragraphs([Paragraph(), Paragraph("right"), Paragraph()], 3) == (Paragraph(), Paragraph("right"))
    assert tidy_paragraphs([Paragraph("right")] * 9, 2) == (Paragraph("right"),) * 2


def test_sizes_named_for_a_distance_are_read_from_there() -> None:
    """A letter is read from two hundred times its height, on a board 1.5 m wide."""
    for metres, size in DISTANCES.items():
        assert reads_from(size) >= metres
        assert reads_from(size) <= metres * 1.5


def test_actions_style_all_words_and_take_it_off_again() -> None:
    text = Text(text="Fold the paper", runs=(Run(4, bold=True),))
    page = page_with(text)
    bold = next(a for a in actions_for(page, page.things) if a.name == "bold")
    once = bold.run(page, page.things).after
    assert isinstance(once, Page)
    assert once.things[0].runs == (Run(14, bold=True),)
    twice = bold.run(once, once.things).after
    assert isinstance(twice, Page)
    assert twice.things[0].runs == ()
    whole = page_with(text.replace(bold=True, runs=()))
    assert (
        next(a for a in actions_for(whole, whole.things) if a.name == "bold").run(whole, whole.things).after.things[0].bold
        is False
    )
    nine = next(a for a in actions_for(page, page.things) if a.name == "reads 9")
    assert nine.run(page, page.things).after.things[0].size == DISTANCES[9]
    numbers = next(a for a in actions_for(page, page.things) if a.name == "numbers")
    assert numbers.run(page, page.things).after.things[0].paragraphs == (Paragraph(list="numbers"),)


def test_a_part_with_a_size_of_its_own_keeps_its_proportion() -> None:
    text = Text(text="Directions\nfold", size=40, runs=(Run(10, size=60),))
    assert text.sized(80).runs == (Run(10, size=120),)


def test_a_text_says_from_how_far_it_is_read() -> None:
    facts = {fact.name: fact for fact in Text(text="a", size=40).facts(page_with())}
    assert facts["reads from"].text == "about 7 m"
    with pytest.raises(ValueError, match=r"\.$"):
        facts["align"].set("sideways")
    assert facts["font"].set("Larch Sans Nowhere").font == "Larch Sans Nowhere"
    assert dict(Text(text="a", font="Larch Sans Nowhere").facts(page_with()).__iter__().__next__().plain())["name"] == "size"


@pytest.mark.parametrize(
    ("source", "text", "styled"),
    [
        ("<p>Fold <b>the</b> paper</p>", "Fold the paper", "the"),
        ("<div><span style='font-weight:700;color:red;font-family:Fancy'>Count</span> twice</div>", "Count twice", "Count"),
        ("<ul><li>one</li><li><i>two</i></li></ul>", "one\ntwo", "two"),
        ("x<sup>2</sup>&nbsp;+ 1", "x2 + 1", "2"),
        ("<script>alert(1)</script><style>p{}</style><p><u>safe</u></p>", "safe", "safe"),
        ("<p>a</p><p>b <em>c</em></p><br>", "a\nb c", "c"),
        ("<b>open<p>never closed", "open\nnever closed", "open\nnever closed"),
        ("<img src='file:///etc/passwd'><a href='x'>link <strong>here</strong></a>", "link here", "here"),
    ],
)
def test_rich_text_is_cleaned(source: str, text: str, styled: str) -> None:
    found, runs_found, _paragraphs = read_html(source)
    assert found == text
    single = spread(runs_found, len(found))
    marked = "".join(c for c, run in zip(found, single, strict=True) if not run.is_plain() or run.replace(count=1) != Run(1))
    assert marked == styled
    assert all((run.hue, run.font, run.size) == ("", "", 0) for run in runs_found)


def test_lists_come_through_and_numbers_stay_numbers() -> None:
    text, _runs, paragraphs = read_html("<p>Do</p><ol><li>fold</li><li>cut</li></ol><p>done</p>")
    assert text == "Do\nfold\ncut\ndone"
    assert [p.list for p in paragraphs] == ["", "numbers", "numbers"]


@given(st.text(max_size=300) | st.text(alphabet="<>/bipulol \"'=&;#x0", max_size=300))
def test_no_source_whatever_breaks_the_cleaner(source: str) -> None:
    text, found, paragraphs = read_html(source)
    made = Text(text=text, runs=found, paragraphs=paragraphs)
    assert thing_from_json(thing_to_json(made)) == made


def test_an_endless_source_is_bounded() -> None:
    text, _runs, _paragraphs = read_html("<b>lantern</b> " * 300_000)
    assert len(text) <= LONGEST
    assert read_html("<div>" * 9_000 + "deep")[0] == "deep"


@pytest.mark.parametrize(
    "bad", [{"runs": (Run(0),)}, {"runs": (Run(3, size=1e9),)}, {"text": "x" * 20_001}, {"width": -1.0}]
)
def test_words_that_cannot_be_are_refused(bad: dict[str, object]) -> None:
    with pytest.raises(ValueError, match=r"must have|at most"):
        Text(**bad)


# Notes


def scribble(x: float, y: float) -> Ink:
    return ink_from([(x + 3 * i, y, 0.5, 8.0 * i) for i in range(20)], pen=Pen(hue="berry"))


@given(placements)
def test_what_is_written_on_a_note_stays_where_it_was_written(place: Placement) -> None:
    note = Note(placement=place)
    x, y = place.to_page(100, 100)
    page = page_with(note)
    after = write(page, scribble(x, y)).after
    assert isinstance(after, Page)
    (written,) = after.things
    assert isinstance(written, Note)
    (stroke,) = written.strokes
    start = stroke.placement.on(written.placement)
    assert (start.x, start.y) == pytest.approx((x, y), abs=1e-4 + 1e-6 * abs(x) + 1e-6 * abs(y))


def test_ink_on_a_note_is_rubbed_and_wiped_and_the_words_stay() -> None:
    page = page_with(Note(text="Fold", placement=Placement(100, 100)))
    for y in (150, 250):
        page = write(page, scribble(150, y)).after  # type: ignore[assignment]
    assert len(page.things[0].strokes) == 2
    whole = rub.changed(page.things, rub.whole([(160, 140), (160, 160)], 5))
    assert len(whole["t1"][0].strokes) == 1
    parted = rub.changed(page.things, rub.part([(180, 140), (180, 160)], 5))
    assert len(parted["t1"][0].strokes) == 3
    wiped = rub.wipe(page).after
    assert isinstance(wiped, Page)
    assert (wiped.things[0].strokes, wiped.things[0].text) == ((), "Fold")
    assert rub.wipe(page, "lake").is_empty()


def test_a_folded_or_locked_note_takes_no_ink() -> None:
    for note in (Note(folded=True), Note(locked=True)):
        after = write(page_with(note), scribble(30, 30)).after
        assert isinstance(after, Page)
        assert [t.kind() for t in after.things] == ["note", "ink"]


def test_a_note_folds_to_a_tab_with_its_first_words_and_opens_again() -> None:
    page = page_with(Note(text="\n  The answer is twelve lanterns\nbecause", hue="lake"), Note())
    shut = fold(page, page.things).after
    assert isinstance(shut, Page)
    assert [t.folded for t in shut.things] == [True, True]
    assert shut.things[0].tab_words() == "The answer is twel…"
    assert shut.things[1].tab_words() == "empty"
    assert shut.things[0].box().height < page.things[0].box().height
    assert shut.things[0].tap_action((0, 0)) == "fold"
    assert page.things[0].tap_action((0, 0)) == ""
    opened = fold(shut, shut.things).after
    assert isinstance(opened, Page)
    assert opened.things == page.things
    mixed = shut.with_things({"t1": page.things[0]})
    assert [t.folded for t in fold(mixed, mixed.things).after.things] == [True, True]


def test_a_note_survives_the_file_with_its_strokes() -> None:
    note = Note(text="Fold", runs=(Run(2, size=48, hue="clay"),), strokes=(scribble(20, 30),), folded=True)
    assert thing_from_json(thing_to_json(note)) == note
    assert isinstance(note, Lettered)
