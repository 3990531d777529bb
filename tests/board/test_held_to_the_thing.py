"""Whatever a kind, a rule or a capability gets wrong is held to the thing concerned: the page, export and save go on."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from PyQt6.QtGui import QPainter

from larch.board.paint import page_image, page_svg
from larch.board.views import view_of
from larch.board.views.base import ANSWERS as VIEWED
from larch.board.views.base import PAINTED, View
from larch.core.base.shape import Box, Placement
from larch.core.figures.rules import RULES
from larch.core.files.lesson_file import read_lesson, write_lesson
from larch.core.model import guarded
from larch.core.model.action import actions_for
from larch.core.model.kinds import kinds
from larch.core.model.lesson import blank_lesson
from larch.core.model.page import Page
from larch.core.model.thing import Thing, Unknown
from larch.core.session.session import Session
from larch.core.things.geometry.point import Point
from larch.core.things.words.text import Text
from tests.samples import page_with, sample_things

KINDS = sorted(kinds())
WHOLE = Box(0, 0, 1280, 720)


class Mistake(Exception):
    pass


def wrong(*_given: object, **_named: object) -> Any:
    raise Mistake("of ours")


@pytest.fixture(autouse=True)
def as_people_have_it(monkeypatch: pytest.MonkeyPatch) -> Iterator[list[Exception]]:
    """Not strict; what is held is heard."""
    monkeypatch.setattr(guarded, "strict", False)
    heard: list[Exception] = []
    unlisten = guarded.listen(heard.append)
    yield heard
    unlisten()


def sample(kind: str) -> Thing | None:
    return next((thing for thing in sample_things() if thing.kind() == kind), None)


def goes_on(page: Page, tmp_path: Path) -> None:
    """All that is done with a page of a lesson: settled, painted, told, exported, saved and read again."""
    session = Session(blank_lesson().replace(pages=(page,)), lambda: 0.0)
    page = session.lesson.pages[0]
    assert not page_image(page, 200).isNull()
    assert b"<svg" in page_svg(page)
    for thing in page.things:
        list(thing.facts(page))
        thing.label(page)
        actions_for(page, (thing,))
    path = tmp_path / "a.larch"
    write_lesson(session.lesson, path, lambda one: page_svg(one, fonts="named"))
    again = read_lesson(path).lesson.pages[0]
    assert len(again.things) == len(page.things)
    words = [thing for thing in again.things if isinstance(thing, Text)]
    assert any(one.text == "seven lanterns" for one in words)


def page_of(thing: Thing) -> Page:
    """It, and something sound beside it."""
    return page_with(thing.replace(id="t1"), Text(id="t2", text="seven lanterns", placement=Placement(100, 600)))


@pytest.mark.parametrize("kind", KINDS)
def test_every_hook_of_every_kind_may_fail(kind: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, qapp) -> None:  # type: ignore[no-untyped-def]
    thing = sample(kind)
    if thing is None or isinstance(thing, Unknown):
        pytest.skip("no sample")
    owner = type(thing)
    hooks = [name for name in guarded.ANSWERS if callable(getattr(owner, name, None))]
    assert {"extent", "facts", "label", "touches"} <= set(hooks)
    for name in hooks:
        assert getattr(getattr(owner, name), "guarded", False), f"{kind}.{name} is not held"
        with monkeypatch.context() as patch:
            patch.setattr(owner, name, guarded.guarded(wrong, guarded.ANSWERS[name]))
            goes_on(page_of(sample(kind)), tmp_path)  # type: ignore[arg-type]


@pytest.mark.parametrize("kind", KINDS)
def test_every_hook_of_every_view_may_fail(kind: str, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, qapp) -> None:  # type: ignore[no-untyped-def]
    thing = sample(kind)
    if thing is None or isinstance(thing, Unknown):
        pytest.skip("no sample")
    owner = type(view_of(thing))
    for name in (*VIEWED, *PAINTED):
        of = 1 if name in VIEWED else 2
        assert getattr(getattr(owner, name), "guarded", False) or name in PAINTED, f"{kind}: {name} is not held"
        with monkeypatch.context() as patch:
            patch.setattr(owner, name, guarded.guarded(wrong, {**VIEWED, **PAINTED}[name], of))
            goes_on(page_of(sample(kind)), tmp_path)  # type: ignore[arg-type]
    for name in ("paint_local", "paint_upright", "paint_whole"):
        with monkeypatch.context() as patch:
            patch.setattr(owner, name, wrong)
            goes_on(page_of(sample(kind)), tmp_path)  # type: ignore[arg-type]


def test_what_can_t_be_painted_is_a_blank_with_a_reason_and_spoils_nothing_beside_it(
    monkeypatch: pytest.MonkeyPatch, qapp: object, as_people_have_it: list[Exception]
) -> None:
    clock = sample("clock")
    assert clock is not None
    page = page_of(clock.replace(placement=Placement(400, 200)))
    sound = page.replace(things=page.things[1:])
    view = view_of(page.things[0])

    def halfway(_self: View, painter: QPainter, _thing: Thing, _page: Page) -> None:
        painter.save()
        painter.save()
        painter.scale(7, 7)
        painter.setOpacity(0.01)
        painter.setClipRect(0, 0, 1, 1)
        raise Mistake

    monkeypatch.setattr(type(view), "paint_local", halfway)
    picture, alone = page_image(page, 1280, WHOLE), page_image(sound, 1280, WHOLE)
    below = [picture.copy(0, 560, 1280, 100), alone.copy(0, 560, 1280, 100)]
    assert below[0] == below[1]  # the words below it stand where and as they stand without it
    assert picture != alone  # and in its place there is something to be seen
    assert [type(error) for error in as_people_have_it] == [Mistake]
    assert "clock" in guarded.trouble_of(page.things[0]).lower()
    assert not guarded.trouble_of(page.things[1])


def test_its_facts_say_why(monkeypatch: pytest.MonkeyPatch) -> None:
    thing = sample("die")
    assert thing is not None
    monkeypatch.setattr(type(thing), "facts", guarded.guarded(wrong, guarded.ANSWERS["facts"]))
    (fact,) = thing.facts(page_of(thing))
    assert fact.name == "trouble" and "kept as it is" in fact.text


def test_what_hangs_on_a_rule_that_fails_says_so_and_the_rest_is_settled(monkeypatch: pytest.MonkeyPatch) -> None:
    a, b = Point(id="t1", placement=Placement(100, 100)), Point(id="t2", placement=Placement(300, 100))
    for name, rule in RULES.items():
        with monkeypatch.context() as patch:
            patch.setitem(RULES, name, rule._replace(make=wrong) if hasattr(rule, "_replace") else rule)
            page = page_with(a, b, Point(id="t3", rule=name, of=("t1", "t2"), values=(0.5,)),
                             Point(id="t4", rule="middle", of=("t1", "t2")))  # fmt: skip
            settled = Session(blank_lesson().replace(pages=(page,)), lambda: 0.0).lesson.pages[0]
            assert settled.thing("t3") is not None and len(settled.things) == 4


@pytest.mark.parametrize("values", [(), (1.0,), (float("nan"), 2.0), (1e308, 1e308), (1.0, 2.0, 3.0)])
def test_a_plotted_point_with_bad_numbers_spoils_nothing(values: tuple[float, ...], tmp_path: Path, qapp: object) -> None:
    from larch.core.things.graphs.axes import Axes

    page = page_with(Axes(id="t1"), Point(id="t2", rule="plotted", of=("t1",), values=values),
                     Text(id="t3", text="seven lanterns"))  # fmt: skip
    if values and values[0] != values[0]:
        page = page_with(*page.things[:1], *page.things[2:])  # a file can't hold what is no number
    goes_on(page, tmp_path)
    point = Session(blank_lesson().replace(pages=(page,)), lambda: 0.0).lesson.pages[0].thing("t2")
    assert point is None or bool(getattr(point, "why", "")) == (len(values) < 2 or abs(values[0]) > 100)


def test_in_tests_it_is_raised(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(guarded, "strict", True)
    thing = sample("die")
    assert thing is not None
    answer: Callable[..., Any] = guarded.guarded(wrong, guarded.ANSWERS["extent"])
    with pytest.raises(Mistake):
        answer(thing)
