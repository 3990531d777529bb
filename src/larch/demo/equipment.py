"""Pages with equipment that is moved: numbers, frames, fractions, chances, times; on two of them a task is checked."""

from __future__ import annotations

from larch.core.base.shape import Placement
from larch.core.base.words import _
from larch.core.model.page import Page
from larch.core.things.asking.task import Task
from larch.core.things.chance.bag import Bag
from larch.core.things.chance.coins import Coins
from larch.core.things.chance.spinner import Spinner
from larch.core.things.fractions.fraction_bar import HIGH, FractionBar
from larch.core.things.fractions.fraction_circle import FractionCircle
from larch.core.things.fractions.fraction_piece import FractionPiece
from larch.core.things.numbers.array import Array
from larch.core.things.numbers.block import Block
from larch.core.things.numbers.counter import Counter
from larch.core.things.numbers.factor_picture import FactorPicture
from larch.core.things.numbers.number_grid import NumberGrid
from larch.core.things.numbers.number_line import NumberLine
from larch.core.things.numbers.place_value_chart import PlaceValueChart
from larch.core.things.numbers.ten_frame import TenFrame
from larch.core.things.numbers.value_card import ValueCard
from larch.core.things.time.calendar import Calendar
from larch.core.things.time.clock import Clock
from larch.core.things.time.timer import Timer
from larch.demo.parts import fresh_page, lettering


def at(x: float, y: float, scale: float = 1.0) -> Placement:
    return Placement(x, y, 0.0, scale)


def boats() -> Page:
    """A chart with 352 in blocks, supplies beside it, value cards, and a task that is checked."""
    page = fresh_page(_("How many paper boats are ready?"))
    chart = PlaceValueChart(placement=at(56, 108), locked=True)
    page = page.put(chart)
    kept = page.things[-1]
    assert isinstance(kept, PlaceValueChart)
    page = page.put(*kept.laid_out(kept.read("352")))
    for k, value in enumerate((100, 10, 1)):
        page = page.put(Block(value=value, supply=True, placement=at(556 + 190 * k, 120)))
    page = page.put(Task(of=kept.id, fact="value", wanted="463", sentence=_("Make 463 boats in the chart."),
                         hint=_("Look at the hundreds."), placement=at(846, 420)))  # fmt: skip
    cards = ((9, 2, 540, 420), (2, 1, 540, 540), (1, 0, 700, 540))
    return page.put(*(ValueCard(digit=d, power=p, placement=at(x, y)) for d, p, x, y in cards))


def rafts() -> Page:
    """A ten frame with counters from a supply, and an array that is parted."""
    page = fresh_page(_("Ten places on a raft"))
    page = page.put(TenFrame(cells=(1, 1, 1, 1, 2, 2, 2, 0, 0, 0), placement=at(56, 120)))
    page = page.put(Counter(supply=True, placement=at(520, 140)), Counter(second=True, supply=True, placement=at(520, 230)))
    page = page.put(lettering(_("Tap a counter to turn it over."), 56, 380))
    page = page.put(Array(rows=12, columns=14, row_split=10, column_split=10, placement=at(600, 120)))
    line = NumberLine(first=0.0, last=20.0, jumps_from=7.0, jumps=(3.0, 5.0), long=1090.0, placement=at(56, 520))
    return page.put(line)


def shares() -> Page:
    """A wall of fractions and a circle in percent."""
    page = fresh_page(_("Who has how much of the river bank?"))
    rows = ((1, 0), (2, 1), (3, 0), (4, 0), (8, 4))
    for k, (parts, taken) in enumerate(rows):
        page = page.put(FractionBar(parts_count=parts, filled=tuple(range(taken)), placement=at(56, 120 + k * HIGH),
                                    shown=("value",) if taken else ()))  # fmt: skip
    circle = FractionCircle(parts_count=4, filled=(0, 1, 2), labels="percent", placement=at(900, 120),
                            shown=("value", "decimal", "percent"))  # fmt: skip
    page = page.put(circle)
    page = page.put(lettering(_("Half the bank is as long as four eighths. Lay the pieces over it."), 56, 490))
    places = {2: 56.0, 4: 400.0, 3: 584.0, 8: 822.0}
    return page.put(*(FractionPiece(parts_count=n, placement=at(x, 600)) for n, x in places.items()))


def chances() -> Page:
    """A spinner, coins and a bag, each with what came of it so far."""
    page = fresh_page(_("Which lantern comes next?"))
    names = (_("star"), _("round"), _("kite"))
    spinner = Spinner(
        shares=(3.0, 1.0, 2.0), names=names, tally=(31, 9, 20), at=300.0, shown=("tally",), placement=at(70, 110)
    )
    page = page.put(spinner)
    up = "hhthttthhthhhthtthtthhhthtthhhthththtthhththhhtthttthhthhthtthhthhttththhhtthhhtththhthttthhhthhtthh"[:100]
    page = page.put(Coins(count=100, up=up, tosses=100, heads=up.count("h"), placement=at(470, 110)))
    return page.put(Bag(counts=(3, 2, 1), names=names, drawn=(0, 1, 0, 2), placement=at(950, 130)))


def times() -> Page:
    """A clock with a task that is checked, a timer, and the days until the night."""
    page = fresh_page(_("When do the lanterns go?"))
    page = page.put(Clock(minutes=14 * 60 + 35, shown=("time",), placement=at(56, 120)))
    clock = page.things[-1]
    page = page.put(Task(of=clock.id, fact="time", wanted="7:30", sentence=_("Show half past seven."),
                         hint=_("The long hand points down."), rule="1:00 to 11:55 step 5",
                         placement=at(450, 120)))  # fmt: skip
    page = page.put(Timer(length=200.0, placement=at(540, 440)))
    return page.put(Calendar(year=2026, month=9, marked=(7, 18), placement=at(860, 130)))


def patterns() -> Page:
    """A grid with the multiples of 4 and 6, and 36 as a picture of its factors."""
    page = fresh_page(_("Lanterns in rows: which numbers fit?"))
    page = page.put(NumberGrid(multiples=(4, 6), placement=at(56, 96, 0.98)))
    page = page.put(FactorPicture(number=36, placement=at(720, 110, 1.3)))
    return page.put(lettering(_("Tap a number to mark it."), 720, 560))
