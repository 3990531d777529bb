"""Tasks: any fact can be asked for, in any way that its thing can read; what is not finished is never checked."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.actions.asking import asked, check_edit, checked, renewed, verdict
from larch.core.model.kinds import kinds
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from larch.core.things.asking.task import Task
from larch.core.things.chance.coins import Coins
from larch.core.things.fractions.fraction_bar import FractionBar
from larch.core.things.numbers.abacus import Abacus
from larch.core.things.time.clock import Clock
from tests.samples import sample_things


def task_on(thing: Thing, fact: str, given: dict[str, str] | None) -> tuple[Page, Task]:
    page = Page(id="p1").put(thing)
    after = asked(page, page.things[0], fact, given).after
    assert isinstance(after, Page)
    task = after.things[-1]
    assert isinstance(task, Task)
    return after, task


def right(thing: Thing, fact: str, **given: str) -> bool | None:
    return verdict(*task_on(thing, fact, {name.replace("_", " "): value for name, value in given.items()}))[0]


@pytest.mark.parametrize("thing", sample_things(), ids=lambda thing: f"{thing.kind()} {thing.label(Page(id='p'))}"[:50])
def test_every_fact_of_every_thing_can_be_asked_for_as_it_is(thing: Thing) -> None:
    page = Page(id="p1").put(thing)
    for fact in page.things[0].facts(page):
        if fact.value is None or (isinstance(fact.value, str) and not fact.value.strip()):
            continue
        edit = asked(page, page.things[0], fact.name, {"wanted": str(fact.value)[:300]})
        assert isinstance(edit.after, Page)
        task = edit.after.things[-1]
        assert isinstance(task, Task)
        if len(str(fact.value)) <= 300:
            assert verdict(edit.after, task)[0] is True, fact


@pytest.mark.parametrize(("wanted", "is_right"), [("14:35", True), ("2:35", True), ("2.35 pm", True), ("2:36", False),
                                                  ("2:35 am", True), ("15:35", False), ("soon", False)])  # fmt: skip
def test_times_are_read_as_the_clock_reads_them(wanted: str, is_right: bool) -> None:
    assert right(Clock(minutes=14 * 60 + 35), "time", wanted=wanted) is is_right


@pytest.mark.parametrize("thing", sample_things(), ids=lambda thing: f"{thing.kind()} {thing.label(Page(id='p'))}"[:50])
def test_what_is_asked_for_as_it_is_written_is_right(thing: Thing) -> None:
    """“Ask for this” takes what is read on the card; a measure is read with one decimal."""
    page = Page(id="p1").put(thing)
    for fact in page.things[0].facts(page):
        if isinstance(fact.value, int | float) and len(fact.text) < 200 and not isinstance(fact.value, bool):
            after, task = task_on(thing, fact.name, None)
            assert verdict(after, task)[0] in (True, None), fact


def test_equal_fractions_are_right_and_parts_may_be_asked_for() -> None:
    bar = FractionBar(parts_count=8, filled=(0, 1, 2, 3))
    assert right(bar, "value", wanted="1/2") is True
    assert right(bar, "value", wanted="3/8") is False
    assert right(bar, "taken", at_least="3") is True
    assert right(bar, "percent", within="45 to 55") is True
    assert right(bar, "percent", within="60 ± 5") is False
    assert right(bar, "parts", one_of="4; 8; 12") is True
    assert right(bar, "decimal", wanted="0.5") is True


def test_what_is_not_finished_is_not_checked() -> None:
    assert right(Abacus(), "value", wanted="") is None
    assert right(Abacus(), "value", wanted="many") is None
    assert right(Abacus(), "value", within="5") is None
    page, task = task_on(Abacus(), "value", {"wanted": "5"})
    gone = page.without([page.things[0].id])
    assert verdict(gone, task)[0] is None
    assert check_edit(gone, [checked(gone, task)]).is_empty()
    with pytest.raises(ValueError, match=r"\.$"):
        asked(page, page.things[0], "mood")


def test_not_yet_says_what_is_there_and_hints_after_two_tries() -> None:
    page, task = task_on(Abacus(counts=(0, 2, 1)), "value", {"wanted": "305"})
    page = page.with_things({task.id: task.replace(hint="Look at the hundreds.")})
    for tries in (1, 2):
        card = page.thing(task.id)
        assert card is not None
        found = checked(page, card)
        assert found.right is False and "21" in found.says and "305" not in found.says
        assert ("hundreds" in found.says) is (tries == 2)
        after = check_edit(page, [found]).after
        assert isinstance(after, Page)
        page = after
    card = page.thing(task.id)
    assert isinstance(card, Task) and (card.state, card.tries) == ("not yet", 2)


@given(st.integers(0, 10**6))
def test_a_new_one_follows_its_rule_and_the_seed(seed: int) -> None:
    page, task = task_on(Abacus(), "value", {"wanted": "1"})
    page = page.with_things({task.id: task.replace(rule="10 to 30 step 5")}).replace(seed=seed)
    new = renewed(page, [page.thing(task.id)]).after  # type: ignore[list-item]
    assert isinstance(new, Page)
    card = new.thing(task.id)
    assert isinstance(card, Task) and card.wanted in {"10", "15", "20", "25", "30"} and card.wanted in card.sentence
    assert renewed(page, [page.thing(task.id)]).after == new  # type: ignore[list-item]


def test_times_are_drawn_as_times() -> None:
    page, task = task_on(Clock(), "time", {"wanted": "1:00"})
    page = page.with_things({task.id: task.replace(rule="1:00 to 11:55 step 5")})
    new = renewed(page, [page.thing(task.id)]).after.thing(task.id)  # type: ignore[union-attr, list-item]
    assert isinstance(new, Task)
    hour, _colon, minute = new.wanted.partition(":")
    assert 1 <= int(hour) <= 11 and int(minute) % 5 == 0


def test_asking_is_one_mechanism_and_no_kind_knows_of_it() -> None:
    import inspect

    for tag, kind in kinds().items():
        if tag != "task":
            assert "asking" not in inspect.getsource(inspect.getmodule(kind)), tag  # type: ignore[arg-type]


def test_chance_can_be_asked_for_within() -> None:
    assert right(Coins(count=10, up="h" * 6 + "t" * 4, tosses=10, heads=6), "heads", within="4 to 6") is True


def test_a_sentence_of_its_own_follows_what_is_wanted_and_a_teachers_stays() -> None:
    page, task = task_on(Abacus(), "value", {"wanted": "305"})

    def with_wanted(card: Task, typed: str) -> Task:
        fact = next(fact for fact in card.facts(page) if fact.name == "wanted")
        assert fact.set is not None
        changed = fact.set(typed)
        assert isinstance(changed, Task)
        return changed

    assert "420" in with_wanted(task, "420").sentence
    assert with_wanted(task.replace(sentence="Show the boats."), "420").sentence == "Show the boats."


def test_a_copy_of_a_task_with_its_thing_asks_about_the_copy() -> None:
    from larch.core.actions.arrange.arrange import duplicate

    page, task = task_on(Abacus(), "value", {"wanted": "5"})
    after = duplicate(page, page.things).after
    assert isinstance(after, Page)
    copies = [thing for thing in after.things if page.thing(thing.id) is None]
    card = next(thing for thing in copies if isinstance(thing, Task))
    abacus = next(thing for thing in copies if isinstance(thing, Abacus))
    assert (card.of, task.of) == (abacus.id, page.things[0].id)


def written(page: Page, task: Task, text: str) -> tuple[Page, Task]:
    after = task.number_written(page, text, [], "lake")
    card = after.thing(task.id)
    assert isinstance(card, Task)
    return after, card


def test_a_number_written_on_the_card_is_what_the_thing_becomes() -> None:
    page, task = task_on(Clock(minutes=600), "time", {"wanted": "7:30"})
    after, card = written(page, task, "7:30")
    clock = after.things[0]
    assert isinstance(clock, Clock) and clock.minutes == 450.0 and card.state == "right"
    wrong, card = written(page, task, "8:30")
    clock = wrong.things[0]
    assert isinstance(clock, Clock) and clock.minutes == 510.0 and card.state == "not yet" and "8:30" in card.said


def test_where_the_thing_is_only_looked_at_the_number_answers_the_question() -> None:
    """What it shows is the answer already, or nobody can set it: then it stays as it is."""
    page, task = task_on(Abacus(counts=(0, 2, 1)), "value", None)
    after, card = written(page, task, "21")
    assert (card.state, card.said, after.things[0]) == ("right", "21", page.things[0])
    after, card = written(page, task, "12")
    assert card.state == "not yet" and "12" in card.said and after.things[0] == page.things[0]
    again, card = written(after, card, "21")
    assert card.state == "right" and card.tries == 2 and again.things[0] == page.things[0]


def test_an_answer_that_cant_be_checked_is_refused_with_a_sentence() -> None:
    page, task = task_on(Abacus(), "value", {"wanted": "5"})
    for bad_page, text in ((page.without([page.things[0].id]), "5"), (page, "many")):
        with pytest.raises(ValueError, match=r"\.$"):
            written(bad_page, task, text)
    unfinished = task.replace(wanted="", fact="columns")
    with pytest.raises(ValueError, match=r"\.$"):
        written(page, unfinished, "5")


def test_a_card_that_wants_a_number_does_not_tell_it_and_is_right_only_by_writing() -> None:
    page, task = task_on(Clock(minutes=450), "time", None)
    by = next(fact for fact in task.facts(page) if fact.name == "by")
    assert by.set is not None
    card = by.set("number")
    assert isinstance(card, Task) and "7" not in card.question() and card.question().endswith("?")
    page = page.with_things({card.id: card})
    assert verdict(page, card)[0] is None and card.button().height == 0 < card.place().height
    _page, wrong = written(page, card, "8:30")
    assert wrong.state == "not yet" and wrong.place().height > 0
    after, done = written(page, card, "7.30")
    assert done.state == "right" and done.place().height == 0 and after.things[0] == page.things[0]
    with pytest.raises(ValueError, match=r"\.$"):
        by.set("shouting")
