"""Ink read in the window: the card and what is chosen on it, pens that read, undo, the ink brought back."""

from __future__ import annotations

import gzip
import json
import math
from itertools import pairwise
from pathlib import Path

import pytest
from PyQt6.QtCore import QPoint, QRect, Qt
from PyQt6.QtTest import QTest
from pytestqt.qtbot import QtBot

from larch.core.model.nibs import Pen
from larch.core.things.geometry.circle import Circle
from larch.core.things.geometry.polygon import Polygon
from larch.core.things.graphs.equation import Equation
from larch.core.things.ink.ink import Ink, ink_from
from larch.core.things.words.text import Text
from larch.desk.cards.reading_card import Offer, ReadingCard
from tests.board.test_tools import Hand, click

WAIT = 20_000  # ms: the first reading loads the worker and what it needs
INK = json.loads(gzip.decompress((Path(__file__).parents[1] / "data" / "ink.json.gz").read_bytes()))


def written(strokes: list[list[list[float]]], x: float, y: float, hue: str = "lake") -> list[Ink]:
    left, top = (min(p[k] for s in strokes for p in s) for k in (0, 1))
    return [ink_from([(a - left + x, b - top + y, 0.7, 0.0) for a, b in s], 5.0, hue) for s in strokes]


def square(x: float, y: float, size: float) -> list[tuple[float, float]]:
    corners = [(0, 0), (1, 0), (1, 1), (0, 1), (0, 0)]
    return [
        (x + size * (a[0] + (b[0] - a[0]) * k / 12), y + size * (a[1] + (b[1] - a[1]) * k / 12))
        for a, b in pairwise(corners) for k in range(12)
    ]  # fmt: skip


def card(hand: Hand, qtbot: QtBot) -> ReadingCard:
    qtbot.waitUntil(lambda: hand.window.readings.card is not None, timeout=WAIT)
    found = hand.window.readings.card
    assert found is not None
    return found


def test_a_rough_square_becomes_an_exact_one_and_comes_back_by_undo(hand: Hand, qtbot: QtBot) -> None:
    (id,) = hand.put(ink_from([(x, y, 0.7, 0.0) for x, y in square(200, 200, 150)], hue="moss"))
    hand.canvas.select([id])
    hand.window.run("read shape")
    shown = card(hand, qtbot)
    assert [one.accessibleName() for one in shown.choices][:2] == ["square?", "rectangle?"]
    assert shown.choices[-1].accessibleName() == "stay as ink"
    click(shown.choices[0])
    (shape,) = [thing for thing in hand.canvas.page.things if isinstance(thing, Polygon)]
    sides = [math.dist(a, b) for a, b in zip(shape.vertices, [*shape.vertices[1:], shape.vertices[0]], strict=True)]
    assert max(sides) - min(sides) < 1e-6 and shape.hue == "moss"
    assert hand.window.readings.card is None
    hand.window.undo()
    assert isinstance(hand.thing(id), Ink)


def test_it_stays_as_ink_when_that_is_chosen_or_escape_is_pressed(hand: Hand, qtbot: QtBot) -> None:
    (id,) = hand.put(ink_from([(x, y, 0.7, 0.0) for x, y in square(200, 200, 150)]))
    for by_key in (False, True):
        hand.canvas.select([id])
        hand.window.run("read shape")
        shown = card(hand, qtbot)
        page = hand.canvas.page
        QTest.keyClick(shown, Qt.Key.Key_Escape) if by_key else click(shown.choices[-1])
        assert hand.canvas.page is page and hand.window.readings.card is None


def test_mathematics_comes_in_place_in_its_colour_with_the_ink_behind_it(hand: Hand, qtbot: QtBot) -> None:
    one = next(one for one in INK["maths"] if one["latex"] == "7+5=12")
    ids = hand.put(*written(one["strokes"], 200, 200))
    box = hand.canvas.page.thing(ids[0]).box()  # type: ignore[union-attr]
    hand.canvas.select(ids)
    hand.window.run("read maths")
    shown = card(hand, qtbot)
    QTest.keyClick(shown.choices[0], Qt.Key.Key_Return)
    (made,) = hand.canvas.page.things
    assert isinstance(made, Equation) and made.hue == "lake" and len(made.written) == len(ids)
    assert made.box().meets(box)
    action = next(a for a in made_actions(hand, made) if a.name == "ink back")
    hand.canvas.commit(action.run(hand.canvas.page, (made,)))
    back = hand.canvas.page.things
    assert len(back) == len(ids) and all(isinstance(thing, Ink) for thing in back)
    assert set(hand.canvas.selection) == {thing.id for thing in back}  # to be read otherwise at once
    assert back[0].box().x0 == pytest.approx(box.x0, abs=0.5) and back[0].box().y0 == pytest.approx(box.y0, abs=0.5)


def made_actions(hand: Hand, thing: object):  # type: ignore[no-untyped-def]
    from larch.core.model.action import actions_for

    return actions_for(hand.canvas.page, (thing,))  # type: ignore[arg-type]


def test_words_come_apart_on_their_line_in_their_colours(hand: Hand, qtbot: QtBot) -> None:
    one = next(one for one in INK["words"] if one["text"] == "Count the boats")
    inks = written(one["strokes"], 100, 200)
    ids = hand.put(*[ink.replace(hue="berry") if k < 8 else ink for k, ink in enumerate(inks)])
    hand.canvas.select(ids)
    hand.window.run("read words")
    shown = card(hand, qtbot)
    click(shown.choices[0])
    texts = [thing for thing in hand.canvas.page.things if isinstance(thing, Text)]
    assert len(texts) == 3 and len({round(t.placement.y + t.base()) for t in texts}) <= 2
    assert texts[0].hue == "berry" and texts[-1].hue == "lake"
    assert sum(len(t.written) for t in texts) == len(ids)
    assert [t.placement.x for t in texts] == sorted(t.placement.x for t in texts)


def test_a_question_in_two_colours_and_dashes_stands_on_the_line_of_the_paper(hand: Hand, qtbot: QtBot) -> None:
    from larch.core.model.edit import Edit

    one = next(one for one in INK["words"] if one["text"] == "how many lanterns")
    inks = written(one["strokes"], 160, 200)
    hand.put(*[ink.replace(hue="berry", dash="dash" if k % 3 else "") if k < 5 else ink for k, ink in enumerate(inks)])
    page = hand.canvas.page
    ruled = page.replace(paper=type(page.paper)(pattern="ruled", step=104.0, margin=112.0, top=146.0))
    hand.canvas.commit(Edit("paper", page, ruled))
    hand.canvas.select([thing.id for thing in hand.canvas.page.things])
    hand.window.run("read words")
    click(card(hand, qtbot).choices[0])
    texts = [thing for thing in hand.canvas.page.things if isinstance(thing, Text)]
    assert [text.text for text in texts] == ["how", "many", "lanterns"]
    assert [text.hue for text in texts] == ["berry", "lake", "lake"]
    assert [text.placement.y + text.base() for text in texts] == pytest.approx([250.0] * 3)  # a line of the paper
    assert max(text.size for text in texts) - min(text.size for text in texts) < 0.1


def test_writing_on_puts_the_card_away(hand: Hand, qtbot: QtBot) -> None:
    (id,) = hand.put(ink_from([(x, y, 0.7, 0.0) for x, y in square(200, 200, 150)]))
    hand.canvas.select([id])
    hand.window.run("read shape")
    card(hand, qtbot)
    hand.window.ledge.take("pen")
    hand.drag((600, 300), (700, 350))
    assert hand.window.readings.card is None


def test_a_pen_trues_up_what_it_draws_and_leaves_scribbles(hand: Hand, qtbot: QtBot) -> None:
    hand.put()
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="shapes", hue="clay"))
    turn = [2 * math.pi * k / 40 for k in range(41)]
    draw(hand, [(400 + 90 * math.cos(t), 300 + 90 * math.sin(t)) for t in turn])
    qtbot.waitUntil(lambda: any(isinstance(t, Circle) for t in hand.canvas.page.things), timeout=WAIT)
    (circle,) = hand.canvas.page.things
    assert circle.radius == pytest.approx(90, rel=0.04) and circle.hue == "clay"  # type: ignore[attr-defined]
    shown = card(hand, qtbot)
    click(shown.choices[-1])  # stay as ink
    assert [type(thing) for thing in hand.canvas.page.things] == [Ink]
    asked = hand.window.readings._asked
    draw(hand, [(700 + 1.5 * k * math.cos(k / 2), 300 + 1.5 * k * math.sin(k / 2)) for k in range(60)])
    qtbot.waitUntil(lambda: hand.window.readings._asked > asked, timeout=WAIT)
    qtbot.waitUntil(lambda: not hand.window.readings.waiting, timeout=WAIT)
    assert all(isinstance(thing, Ink) for thing in hand.canvas.page.things)


def test_what_else_it_could_be_is_offered_for_a_while(hand: Hand, qtbot: QtBot, monkeypatch: pytest.MonkeyPatch) -> None:
    """Unless someone is at the card; what was made stays."""
    monkeypatch.setattr("larch.desk.readings.LINGER", 400)
    hand.put()
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="shapes", hue="clay"))
    draw(hand, square(300, 200, 180))
    shown = card(hand, qtbot)
    shown.choices[0].setFocus()
    hand.window.readings._lingered()
    assert hand.window.readings.card is shown
    hand.canvas.setFocus()
    qtbot.waitUntil(lambda: hand.window.readings.card is None, timeout=WAIT)
    assert len(hand.canvas.page.things) == 1 and not isinstance(hand.canvas.page.things[0], Ink)


def draw(hand: Hand, places: list[tuple[float, float]]) -> None:
    from tests.board.test_tools import LEFT, NONE, move

    QTest.mousePress(hand.canvas, LEFT, NONE, hand.at(*places[0]))
    for place in places[1:]:
        move(hand.canvas, hand.at(*place))
    QTest.mouseRelease(hand.canvas, LEFT, NONE, hand.at(*places[-1]))


def test_what_was_changed_meanwhile_is_not_exchanged(hand: Hand, qtbot: QtBot) -> None:
    (id,) = hand.put(ink_from([(x, y, 0.7, 0.0) for x, y in square(200, 200, 150)]))
    hand.canvas.select([id])
    hand.window.run("read shape")
    page = hand.canvas.page.without([id])
    from larch.core.model.edit import Edit

    hand.canvas.commit(Edit("away", hand.canvas.page, page))
    qtbot.waitUntil(lambda: not hand.window.readings.waiting, timeout=WAIT)
    assert hand.window.readings.card is None and not hand.canvas.page.things


def test_a_pen_reads_only_what_it_wrote_itself(hand: Hand, qtbot: QtBot) -> None:
    old = hand.put(*[ink_from([(100.0, 100 + 40.0 * k, 0.7, 0.0), (300.0, 110 + 40.0 * k, 0.7, 0.0)]) for k in range(3)])
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form="shapes"))
    turn = [2 * math.pi * k / 40 for k in range(41)]
    draw(hand, [(600 + 80 * math.cos(t), 400 + 80 * math.sin(t)) for t in turn])
    qtbot.waitUntil(lambda: any(isinstance(t, Circle) for t in hand.canvas.page.things), timeout=WAIT)
    assert all(isinstance(hand.thing(id), Ink) for id in old)


@pytest.mark.parametrize("place", [(40, 40), (1000, 40), (40, 520), (1000, 520), (520, 300)])
@pytest.mark.parametrize("size", [(1280, 800), (1024, 600)])
@pytest.mark.parametrize("instead", [False, True])
def test_the_card_is_wholly_seen_and_never_lies_on_the_ink(
    hand: Hand, place: tuple[int, int], size: tuple[int, int], instead: bool
) -> None:
    hand.window.resize(*size)
    hand.put(ink_from([(x, y, 0.7, 0.0) for x, y in square(*place, 120)]))
    canvas = hand.canvas
    canvas.whole_page()
    box = canvas.page.things[0].box()
    offers = [Offer(f"shape {k}", lambda: None) for k in range(3)]
    shown = ReadingCard(canvas, box, offers, instead)
    here = shown.geometry()
    assert canvas.rect().contains(here)
    x0, y0 = canvas.camera.to_view(box.x0, box.y0)
    x1, y1 = canvas.camera.to_view(box.x1, box.y1)
    assert not here.intersects(QRect(QPoint(round(x0), round(y0)), QPoint(round(x1), round(y1))))
    names = [one.accessibleName() for one in shown.choices]
    assert names == ["shape 0", "shape 1", "shape 2", "stay as ink"]
    shown.choices[0].setFocus()
    QTest.keyClick(shown, Qt.Key.Key_Up)
    assert shown.choices[-1].hasFocus() or not hand.window.isActiveWindow()
    shown.close()


def test_the_card_keeps_off_what_is_on_the_page_where_it_can(hand: Hand) -> None:
    """Ink between two shapes: the card hangs below it; where the pen writes on, it stands above. Where all is taken, it
    stands where it always does."""
    drawn = ink_from([(x, y, 0.7, 0.0) for x, y in square(560, 330, 100)])
    tall = Polygon(vertices=((0, 0), (0, 700), (330, 700), (330, 0)))
    hand.put(drawn, tall.moved(840, 10), tall.moved(150, 10))
    canvas = hand.canvas
    canvas.whole_page()
    ink = next(thing.box() for thing in canvas.page.things if isinstance(thing, Ink))
    seen = canvas.camera.box_to_view(ink)
    for instead in (False, True):
        shown = ReadingCard(canvas, ink, [Offer("shape", lambda: None)], instead)
        here = shown.geometry()
        assert here.bottom() < seen.y0 if instead else here.top() > seen.y1
        shown.close()
    hand.put(drawn, *(Polygon(vertices=((0, 0), (0, 90), (90, 90), (90, 0))).moved(x, y)
                      for x, y in ((565, 225), (565, 445), (445, 335), (675, 335))))  # fmt: skip
    ink = next(thing.box() for thing in canvas.page.things if isinstance(thing, Ink))
    seen = canvas.camera.box_to_view(ink)
    shown = ReadingCard(canvas, ink, [Offer("shape", lambda: None)])
    assert shown.geometry().left() > seen.x1
    shown.close()
    hand.put(tall.moved(150, 10))
    for picture, below in ((((0.0, 0.0), (1.0, 1.0)), True), ((), False)):  # of shapes; of words, where the pen writes on
        top = ink.moved(0, 90 - ink.y0)
        shown = ReadingCard(canvas, top, [Offer("it", lambda: None, picture=picture)], True)
        assert (shown.geometry().top() > canvas.camera.box_to_view(top).y1) is below
        shown.close()


def test_how_long_a_pen_waits_is_kept(hand: Hand) -> None:
    hand.window.run("pause 2500")
    assert hand.window.settings.pause == 2500
    assert next(c for c in hand.window.commands.listed if c.name == "pause 2500").checked()
    hand.window.run("pause 1200")
    assert hand.window.settings.pause == 1200
