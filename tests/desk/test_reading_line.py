"""Mathematics under the pen that reads it: a line that grows, signs put right, numbers on equipment, striking out."""

from __future__ import annotations

import pytest
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from pytestqt.qtbot import QtBot

from larch.board.views import view_of
from larch.core.model.nibs import Pen
from larch.core.recognise.hand import KnownHand
from larch.core.things.graphs.equation import Equation
from larch.core.things.ink.ink import Ink, ink_from
from larch.core.things.numbers.abacus import Abacus
from larch.core.things.numbers.column_sum import ColumnSum
from larch.core.things.numbers.number_flag import NumberFlag
from larch.core.things.numbers.number_line import NumberLine
from larch.core.things.numbers.place_value_chart import PlaceValueChart
from larch.core.things.time.clock import Clock
from larch.core.things.words.text import Text
from tests.board.test_tools import Hand, click
from tests.core.recognise.drawn import Strokes, bar, columns, row
from tests.core.recognise.test_written_maths import to_and_fro
from tests.desk.test_readings import INK, WAIT, card, draw, written


def shifted(strokes: Strokes, dx: float, dy: float) -> Strokes:
    return [[(x + dx, y + dy) for x, y in run] for run in strokes]


def take_pen(hand: Hand, form: str = "maths") -> None:
    hand.window.keep_setting(pause=600)
    hand.window.ledge.take("pen")
    hand.window.ledge.tool("pen").choose(Pen(form=form, hue="lake"))


def write(hand: Hand, strokes: Strokes) -> None:
    for run in strokes:
        draw(hand, list(run))


def equations(hand: Hand) -> list[Equation]:
    return [thing for thing in hand.canvas.page.things if isinstance(thing, Equation)]


def plain(equation: Equation) -> str:
    return equation.source.replace(" ", "")


def test_a_sign_is_put_right_by_two_taps_and_remembered(hand: Hand, qtbot: QtBot) -> None:
    ids = hand.put(*[ink_from([(x, y, 0.7, 0.0) for x, y in run], hue="lake") for run in shifted(row("7+5=12"), 200, 300)])
    hand.canvas.select(ids)
    hand.window.run("read maths")
    first = card(hand, qtbot)
    assert first.signs is not None and [key.sign for key in first.signs.keys] == list("7+5=12")
    click(first.signs.keys[0])
    assert first.signs.others and first.rect().contains(first.signs.geometry())
    other = first.signs.others[0].sign
    click(first.signs.others[0])
    qtbot.waitUntil(lambda: hand.window.readings.card not in (None, first), timeout=WAIT)
    shown = card(hand, qtbot)
    assert shown.choices[0].accessibleName().startswith(other) and shown.signs is not None
    assert shown.signs.keys[0].sign == other and not shown.signs.keys[0].unsure
    click(shown.choices[0])
    (made,) = equations(hand)
    assert made.source.startswith(other)
    assert hand.window.settings.hand.signs == {f"7>{other}": 1}
    hand.window.run("forget hand")
    assert hand.window.settings.hand == KnownHand()


@pytest.mark.parametrize("key", [Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Escape, Qt.Key.Key_Down])
def test_the_pen_keeps_the_keys_and_enter_takes_what_it_wrote(hand: Hand, qtbot: QtBot, key: Qt.Key) -> None:
    hand.put()
    take_pen(hand)
    write(hand, shifted(row("x=4"), 200, 300))
    shown = card(hand, qtbot)
    assert not shown.isAncestorOf(hand.canvas.focusWidget())  # the line may go on
    pad = Qt.KeyboardModifier.KeypadModifier if key == Qt.Key.Key_Enter else Qt.KeyboardModifier.NoModifier
    QTest.keyClick(hand.canvas, key, pad)
    if key == Qt.Key.Key_Down:
        assert hand.window.readings.card is shown
        assert shown.choices[0].hasFocus() or not hand.window.isActiveWindow()
        QTest.keyClick(shown, Qt.Key.Key_Return)
    assert hand.window.readings.card is None
    left = equations(hand)
    if key == Qt.Key.Key_Escape:
        assert not left and all(isinstance(thing, Ink) for thing in hand.canvas.page.things)
        assert hand.window.ledge.current.name == "pen"
    else:
        assert [plain(one) for one in left] == ["x=4"]


def test_keys_beside_what_a_pen_has_exchanged_already(hand: Hand, qtbot: QtBot) -> None:
    """Esc puts the card away and leaves the word; Enter means the page."""
    hand.put()
    take_pen(hand, "words")
    (one,) = [one for one in INK["words"] if one["text"] == "how many lanterns"]
    write(hand, shifted(one["strokes"], 160, 200))
    shown = card(hand, qtbot)
    made = hand.canvas.page.things
    assert shown.instead and any(isinstance(thing, Text) for thing in made)
    QTest.keyClick(hand.canvas, Qt.Key.Key_Return)
    assert hand.window.readings.card is shown
    QTest.keyClick(hand.canvas, Qt.Key.Key_Escape)
    assert hand.window.readings.card is None and hand.canvas.page.things == made


def test_the_signs_are_gone_through_by_keys(hand: Hand, qtbot: QtBot) -> None:
    ids = hand.put(*[ink_from([(x, y, 0.7, 0.0) for x, y in run]) for run in shifted(row("x=4"), 200, 300)])
    hand.canvas.select(ids)
    hand.window.run("read maths")
    shown = card(hand, qtbot)
    assert shown.signs is not None
    shown.signs.keys[2].setFocus()
    QTest.keyClick(shown.signs.keys[2], Qt.Key.Key_Space)
    assert shown.signs.others and shown.signs.keys[2].isChecked()
    QTest.keyClick(shown.signs.keys[2], Qt.Key.Key_Space)
    assert not shown.signs.others
    QTest.keyClick(shown, Qt.Key.Key_Escape)
    assert not equations(hand)


def test_a_line_grows_while_it_is_written_and_a_digit_that_was_rubbed_out_is_read_anew(hand: Hand, qtbot: QtBot) -> None:
    hand.put()
    take_pen(hand)
    write(hand, shifted(row("2x+5"), 200, 250))
    first = card(hand, qtbot)
    assert first.choices[0].accessibleName() == "2x+5"
    write(hand, shifted(row("=13"), 370, 250))
    qtbot.waitUntil(lambda: hand.window.readings.card not in (None, first), timeout=WAIT)
    assert card(hand, qtbot).choices[0].accessibleName() == "2x+5=13"
    # The eraser takes the last digit; another one is written there, and all the rest stays as it was read.
    last = max(hand.canvas.page.things, key=lambda thing: thing.box().x0)
    box = last.box()
    hand.window.ledge.take("rub out")
    rub(hand, last.id)
    take_pen(hand)
    write(hand, shifted(row("8"), box.x0, 250))
    qtbot.waitUntil(lambda: hand.window.readings.card is not None, timeout=WAIT)
    shown = card(hand, qtbot)
    assert shown.choices[0].accessibleName() == "2x+5=18"
    click(shown.choices[0])
    (made,) = equations(hand)
    assert made.source == "2x+5=18" and len(made.written) >= 8


def rub(hand: Hand, id: str) -> None:
    from larch.core.model.edit import Edit

    page = hand.canvas.page
    hand.canvas.commit(Edit("rub", page, page.without([id])))


def test_what_is_written_far_off_is_a_line_of_its_own(hand: Hand, qtbot: QtBot) -> None:
    hand.put()
    take_pen(hand)
    write(hand, shifted(row("x=4"), 100, 150))
    first = card(hand, qtbot)
    write(hand, shifted(row("8"), 700, 450))
    qtbot.waitUntil(lambda: hand.window.readings.card not in (None, first), timeout=WAIT)
    assert card(hand, qtbot).choices[0].accessibleName() == "8"


def test_ink_struck_out_to_and_fro_is_gone_at_once(hand: Hand, qtbot: QtBot) -> None:
    hand.put()
    take_pen(hand)
    write(hand, shifted(row("463"), 200, 250))
    boxes = sorted((thing.box() for thing in hand.canvas.page.things), key=lambda box: box.x0)
    before = len(boxes)
    write(hand, [to_and_fro(boxes[-1].x0 - 4, boxes[-1].x1 + 4, boxes[-1].centre[1] - 15)])
    assert len(hand.canvas.page.things) == before - 1
    qtbot.waitUntil(lambda: hand.window.readings.card is not None, timeout=WAIT)
    assert card(hand, qtbot).choices[0].accessibleName() == "46"
    hand.window.undo()
    assert len(hand.canvas.page.things) == before


@pytest.fixture
def equation(hand: Hand) -> Equation:
    (id,) = hand.put(Equation(source="y=3x-6", size=60.0))
    thing = hand.thing(id)
    assert isinstance(thing, Equation)
    moved = thing.replace(placement=thing.placement.moved(200.0, 300.0))
    put(hand, moved)
    found = hand.thing(id)
    assert isinstance(found, Equation)
    return found


def put(hand: Hand, thing: Equation) -> None:
    from larch.core.model.edit import Edit

    page = hand.canvas.page
    hand.canvas.commit(Edit("move", page, page.with_things({thing.id: thing})))


def part_box(equation: Equation, part: int):  # type: ignore[no-untyped-def]
    """Where a part of its row lies on the page."""
    from larch.board.views.graphs.equation import PAD, read
    from larch.core.base.shape import Box

    made, _error = read(equation)
    stops = {stop.part: stop for stop in made.stops if not stop.path}
    one, following, size = stops[part], stops[part + 1], equation.size
    base = (max(made.above, 0.7) + PAD) * size
    x0, y0 = equation.placement.to_page((one.x + PAD) * size, base + one.top * size)
    x1, y1 = equation.placement.to_page((following.x + PAD) * size, base + one.bottom * size)
    return Box(x0, y0, x1, y1)


def test_a_digit_written_over_one_of_an_equation_takes_its_place(hand: Hand, equation: Equation, qtbot: QtBot) -> None:
    take_pen(hand)
    box = part_box(equation, 2)
    write(hand, shifted(row("8", size=28.0), box.centre[0] - 12, box.y1 - 12))
    qtbot.waitUntil(lambda: plain(equations(hand)[0]) != "y=3x-6", timeout=WAIT)
    (made,) = equations(hand)
    assert plain(made) == "y=8x−6" and not any(isinstance(thing, Ink) for thing in hand.canvas.page.things)
    shown = card(hand, qtbot)
    click(shown.choices[-1])  # stay as ink
    assert equations(hand)[0].source == "y=3x-6" and any(isinstance(thing, Ink) for thing in hand.canvas.page.things)


def test_signs_of_an_equation_are_struck_out(hand: Hand, equation: Equation) -> None:
    take_pen(hand)
    minus, six = part_box(equation, 4), part_box(equation, 5)
    write(hand, [to_and_fro(minus.x0, six.x1 + 4, six.centre[1] - 12, legs=7, drop=4)])
    (made,) = hand.canvas.page.things
    assert isinstance(made, Equation) and plain(made) == "y=3x"
    hand.window.undo()
    assert equations(hand)[0].source == "y=3x-6"


def test_what_is_written_behind_an_equation_goes_on_with_it(hand: Hand, equation: Equation, qtbot: QtBot) -> None:
    take_pen(hand)
    last = part_box(equation, 5)
    write(hand, shifted(row("2", size=28.0), last.x1 + 8, last.y1 - 12))
    qtbot.waitUntil(lambda: plain(equations(hand)[0]) == "y=3x−62", timeout=WAIT)


def test_an_empty_place_is_filled_by_hand(hand: Hand, qtbot: QtBot) -> None:
    from larch.board.typeset.boxes import Place
    from larch.board.views.graphs.equation import PAD, read

    (id,) = hand.put(Equation(source=r"\frac{3}{}+1", size=70.0))
    thing = hand.thing(id)
    assert isinstance(thing, Equation)
    put(hand, thing.replace(placement=thing.placement.moved(200.0, 300.0)))
    thing = hand.thing(id)
    assert isinstance(thing, Equation)
    made, _error = read(thing)
    place = next(mark for mark in made.marks if isinstance(mark, Place))
    x, y = thing.placement.to_page(
        (place.x + PAD) * thing.size, (max(made.above, 0.7) + PAD + place.y + place.height) * thing.size
    )
    take_pen(hand)
    write(hand, shifted(row("4", size=26.0), x + 4, y))
    qtbot.waitUntil(
        lambda: equations(hand)[0].source == r"\frac{3}{4}+1" or "3/4" in equations(hand)[0].source, timeout=WAIT
    )


# Numbers on what takes them


def on_equipment(hand: Hand, thing: object, text: str, at: tuple[float, float], qtbot: QtBot) -> str:
    (id,) = hand.put(thing)  # type: ignore[arg-type]
    before = hand.canvas.page
    take_pen(hand)
    ids = [ink_from([(x, y, 0.7, 0.0) for x, y in run], hue="lake") for run in shifted(row(text), *at)]
    from larch.core.model.edit import Edit

    for ink in ids:
        hand.canvas.commit(Edit("ink", hand.canvas.page, hand.canvas.page.put(ink)))
    qtbot.waitUntil(lambda: not any(isinstance(t, Ink) for t in hand.canvas.page.things), timeout=WAIT)
    assert hand.canvas.page is not before
    return id


def test_a_number_on_a_number_line_becomes_a_flag_that_is_dragged_to_its_place(hand: Hand, qtbot: QtBot) -> None:
    on_equipment(hand, NumberLine(last=100.0, step=10.0), "63", (300.0, 60.0), qtbot)
    (flag,) = [thing for thing in hand.canvas.page.things if isinstance(thing, NumberFlag)]
    assert flag.text == "63" and flag.stands_right(hand.canvas.page) is False and flag.hue == "lake"
    shown = card(hand, qtbot)
    assert shown.choices[-1].accessibleName() == "stay as ink"
    line = next(thing for thing in hand.canvas.page.things if isinstance(thing, NumberLine))
    seen, ink = (hand.canvas.camera.box_to_view(box) for box in (line.box(), flag.box()))
    here = shown.geometry()
    assert here.bottom() < seen.y0 or here.top() > seen.y1 or here.right() < seen.x0 or here.left() > seen.x1
    assert here.left() - 20 <= ink.centre[0] <= here.right() + 20  # it points at what was written


def test_a_slow_hand_writes_the_second_digit_later(hand: Hand, qtbot: QtBot) -> None:
    hand.put(NumberLine(last=100.0, step=10.0))
    take_pen(hand)
    write(hand, shifted(row("6"), 300, 60))
    qtbot.waitUntil(lambda: any(isinstance(t, NumberFlag) for t in hand.canvas.page.things), timeout=WAIT)
    first = card(hand, qtbot)
    write(hand, shifted(row("3"), 335, 60))
    assert not any(isinstance(t, NumberFlag) for t in hand.canvas.page.things)  # both are ink again
    qtbot.waitUntil(lambda: any(isinstance(t, NumberFlag) for t in hand.canvas.page.things), timeout=WAIT)
    assert hand.window.readings.card is not first
    (flag,) = [thing for thing in hand.canvas.page.things if isinstance(thing, NumberFlag)]
    assert flag.text == "63"
    write(hand, shifted(row("5"), 800, 60))  # far off: a number of its own
    qtbot.waitUntil(lambda: sum(isinstance(t, NumberFlag) for t in hand.canvas.page.things) == 2, timeout=WAIT)


def test_a_time_written_on_a_clock_sets_it(hand: Hand, qtbot: QtBot) -> None:
    id = on_equipment(hand, Clock(), "725", (110.0, 110.0), qtbot)
    thing = hand.thing(id)
    assert isinstance(thing, Clock) and thing.minutes == 7 * 60 + 25


def test_digits_in_a_place_value_chart(hand: Hand, qtbot: QtBot) -> None:
    id = on_equipment(hand, PlaceValueChart(), "63", (40.0, 110.0), qtbot)
    thing = hand.thing(id)
    assert isinstance(thing, PlaceValueChart) and int(thing.value(hand.canvas.page)) == 63


def test_a_number_on_an_abacus(hand: Hand, qtbot: QtBot) -> None:
    id = on_equipment(hand, Abacus(), "405", (20.0, 60.0), qtbot)
    thing = hand.thing(id)
    assert isinstance(thing, Abacus) and thing.worth() == 405


def test_column_arithmetic_comes_as_that(hand: Hand, qtbot: QtBot) -> None:
    strokes = [*columns([" 47", "+35"]), bar(-5, 160, 100), *shifted(columns([" 72"]), 0, 165)]
    ids = hand.put(*[ink_from([(x, y, 0.7, 0.0) for x, y in run], hue="moss") for run in shifted(strokes, 200, 200)])
    hand.canvas.select(ids)
    hand.window.run("read maths")
    click(card(hand, qtbot).choices[0])
    (made,) = hand.canvas.page.things
    assert isinstance(made, ColumnSum) and made.numbers == ("47", "35") and made.answer() == "72" and made.hue == "moss"
    box = view_of(made).box(made)
    assert abs(box.x1 - 356) < 40 and abs(box.y0 - 150) < 60


def test_a_difference_that_no_column_takes_is_offered_as_mathematics(hand: Hand, qtbot: QtBot) -> None:
    strokes = [*columns([" 23", "-45"]), bar(-5, 160, 100)]
    ids = hand.put(*[ink_from([(x, y, 0.7, 0.0) for x, y in run]) for run in shifted(strokes, 200, 200)])
    hand.canvas.select(ids)
    hand.window.run("read maths")
    click(card(hand, qtbot).choices[0])
    assert [plain(one).replace("−", "-") for one in equations(hand)] == ["23-45"]


def test_lines_come_as_equations_each_in_its_place(hand: Hand, qtbot: QtBot) -> None:
    strokes = row("2x+5=13") + row("2x=8", 20, 100) + row("x=4", 40, 200)
    ids = hand.put(*[ink_from([(x, y, 0.7, 0.0) for x, y in run]) for run in shifted(strokes, 200, 150)])
    hand.canvas.select(ids)
    hand.window.run("read maths")
    click(card(hand, qtbot).choices[0])
    made = sorted(equations(hand), key=lambda thing: thing.placement.y)
    assert [thing.source for thing in made] == ["2x+5=13", "2x=8", "x=4"]
    assert len({thing.size for thing in made}) <= 3 and all(thing.written for thing in made)


# Read otherwise


def test_words_in_type_are_read_otherwise_and_the_choice_is_remembered(hand: Hand, qtbot: QtBot) -> None:
    one = next(one for one in INK["words"] if one["text"] == "who won")
    ids = hand.put(*written(one["strokes"], 200, 200))
    hand.canvas.select(ids)
    hand.window.run("read words")
    click(card(hand, qtbot).choices[0])
    text = next(thing for thing in hand.canvas.page.things if isinstance(thing, Text))
    hand.canvas.select([text.id])
    hand.window.run("read again")
    shown = card(hand, qtbot)
    names = [one.accessibleName() for one in shown.choices]
    assert 2 <= len(names) <= 6 and names[-1] == "stay as it is" and text.text not in names
    click(shown.choices[0])
    changed = hand.thing(text.id)
    assert isinstance(changed, Text) and changed.text == names[0] and changed.written and changed.placement == text.placement
    assert hand.window.settings.hand.words[:1] == (names[0].strip(".,!?:;").lower(),)


def test_an_equation_in_type_is_read_otherwise(hand: Hand, qtbot: QtBot) -> None:
    ids = hand.put(*[ink_from([(x, y, 0.7, 0.0) for x, y in run]) for run in shifted(row("7+5=12"), 200, 300)])
    hand.canvas.select(ids)
    hand.window.run("read maths")
    click(card(hand, qtbot).choices[0])
    (made,) = equations(hand)
    hand.canvas.select([made.id])
    hand.window.run("read again")
    shown = card(hand, qtbot)
    click(shown.choices[0])
    (changed,) = equations(hand)
    assert changed.source != made.source and changed.written == made.written
    assert view_of(changed).box(changed).centre[1] == pytest.approx(view_of(made).box(made).centre[1], abs=1.0)
