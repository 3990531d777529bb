"""Ready-made organisers: charts, circles, ways and webs, built of tables, boxes and lines that can all be changed."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence

from larch.core.base.shape import Placement
from larch.core.base.words import N_, _
from larch.core.model.thing import ShelfItem, Thing
from larch.core.things.geometry.circle import Circle
from larch.core.things.organisers.box import WordBox
from larch.core.things.organisers.connector import Connector
from larch.core.things.organisers.table import Table, with_words
from larch.core.things.words.rich import Paragraph
from larch.core.things.words.text import Text

TRAY = N_("Organisers")
JOINT = 7.0  # radius of where ribs meet a spine
CENTRED = (Paragraph(align="centre"),)


def _box(
    text: str, x: float, y: float, hue: str = "lake", shape: str = "round", width: float = 200.0, height: float = 88.0
) -> WordBox:
    """A box about a place."""
    at = Placement(x - width / 2, y - height / 2)
    return WordBox(text=text, hue=hue, size=30.0, shape=shape, width=width, height=height, placement=at)


def _joined(things: Sequence[Thing], pairs: Sequence[tuple[int, int]], **fields: object) -> list[Thing]:
    """Lines between things by their numbers from 1; they come last, so that these stay the ids."""
    hue = things[0].hue
    return [*things, *(Connector(rule="connect", of=(f"t{a}", f"t{b}"), hue=hue, **fields) for a, b in pairs)]  # type: ignore[arg-type]


def t_chart() -> Sequence[Thing]:
    table = Table(columns=(300.0, 300.0), rows=(72.0, 300.0), open_frame=True)
    return with_words(table, [[_("shines"), _("does not shine")]]).things


def columns() -> Sequence[Thing]:
    table = Table(columns=(220.0,) * 3, rows=(72.0, 300.0))
    return with_words(table, [[_("morning"), _("noon"), _("evening")]]).things


def table_chart() -> Sequence[Thing]:
    table = Table(columns=(220.0, 150.0, 150.0), rows=(64.0,) * 4, first=True)
    words = [[_("lantern"), _("made"), _("sold")], [_("kite"), "12", "9"], [_("star"), "8", "8"], [_("round"), "15", "11"]]
    return with_words(table, words).things


def two_circles() -> Sequence[Thing]:
    return _circles([(0.0, 0.0, "lake"), (200.0, 0.0, "clay")], [_("paper"), _("light")], [(-70.0, -205.0), (270.0, -205.0)])


def three_circles() -> Sequence[Thing]:
    spots = [(0.0, 0.0, "lake"), (190.0, 0.0, "clay"), (95.0, 165.0, "moss")]
    return _circles(spots, [_("paper"), _("light"), _("floats")], [(-70.0, -205.0), (260.0, -205.0), (95.0, 345.0)])


def _circles(
    spots: Sequence[tuple[float, float, str]], names: Sequence[str], at: Sequence[tuple[float, float]]
) -> list[Thing]:
    found: list[Thing] = [Circle(radius=170.0, hue=hue, placement=Placement(x, y)) for x, y, hue in spots]
    for (_x, _y, hue), name, (x, y) in zip(spots, names, at, strict=True):
        found.append(
            Text(
                text=name,
                size=34.0,
                hue=hue,
                bold=True,
                width=200.0,
                paragraphs=CENTRED,
                placement=Placement(x - 100, y - 26),
            )
        )
    return found


def four_squares() -> Sequence[Thing]:
    table = Table(columns=(300.0, 300.0), rows=(190.0, 190.0), header=False)
    heads = [(16, 12, _("in my words")), (316, 12, _("a picture")), (16, 338, _("it is")), (316, 338, _("it is not"))]
    texts = [Text(text=text, size=24.0, hue="slate", placement=Placement(x, y)) for x, y, text in heads]
    return [table, *texts, _box(_("symmetry"), 300, 190, "plum", shape="oval", width=230.0)]


def story_path() -> Sequence[Thing]:
    words = (_("who"), _("where"), _("what goes wrong"), _("what helps"), _("how it ends"))
    spots = ((0, 0), (290, 0), (580, 90), (290, 220), (0, 220))
    boxes = [_box(text, x, y, "clay", width=210.0) for text, (x, y) in zip(words, spots, strict=True)]
    return _joined(boxes, [(k, k + 1) for k in range(1, 5)], style="curved")


def flow_chart() -> Sequence[Thing]:
    made = [
        _box(_("start"), 0, 0, "moss", shape="oval", width=170.0),
        _box(_("fold the sheet"), 0, 150, "lake", shape="box", width=250.0),
        _box(_("straight?"), 0, 320, "clay", shape="diamond", width=220.0, height=130.0),
        _box(_("glue it"), 0, 490, "lake", shape="box", width=160.0),
        _box(_("unfold"), 320, 320, "lake", shape="box", width=160.0),
    ]  # fmt: skip
    lines = _joined(made, [(1, 2), (2, 3), (3, 4), (3, 5), (5, 2)], style="square")
    words = {7: _("yes"), 8: _("no")}
    return [t.replace(words=words[k]) if k in words else t for k, t in enumerate(lines)]


def fishbone() -> Sequence[Thing]:
    """Causes on ribs that meet a spine; the spine leads to what they bring about."""
    texts = (_("paper"), _("glue"), _("wind"), _("candle"), _("time"), _("helpers"))
    made: list[Thing] = [Circle(radius=JOINT, hue="slate", placement=Placement(x, 0)) for x in (-20.0, 170.0, 370.0, 570.0)]
    made += [
        _box(text, 60 + (k % 3) * 200, -170 if k < 3 else 170, "clay", width=160.0, height=64.0)
        for k, text in enumerate(texts)
    ]
    made.append(_box(_("Why did it tear?"), 790, 0, "plum", width=250.0, height=110.0))
    return _joined(made, [(1, 11), *((5 + k, 2 + k % 3) for k in range(6))], arrows="none")


def web() -> Sequence[Thing]:
    spots = ((-300, -130), (300, -130), (-300, 130), (300, 130))
    words = (_("shape"), _("light"), _("paper"), _("river"))
    made = [_box(_("lantern"), 0, 0, "plum", width=220.0)]
    made += [_box(text, x, y, "lake", width=180.0) for text, (x, y) in zip(words, spots, strict=True)]
    return _joined(made, [(1, k) for k in range(2, 6)], arrows="none")


ORDER = 56  # after the single box

KINDS: tuple[tuple[str, Callable[[], str], Callable[[], Sequence[Thing]], str], ...] = (
    ("table chart", lambda: _("table with heads"), table_chart, N_("data chart rows columns")),
    ("t-chart", lambda: _("T-chart"), t_chart, N_("two sides compare for against")),
    ("two circles", lambda: _("two circles"), two_circles, N_("sort sets overlap common compare logic")),
    ("three circles", lambda: _("three circles"), three_circles, N_("sort sets overlap common compare logic")),
    ("word study", lambda: _("word study"), four_squares, N_("four squares definition vocabulary")),
    ("web", lambda: _("web of boxes"), web, N_("concept map mind ideas brainstorm cluster")),
    ("story path", lambda: _("story path"), story_path, N_("plot sequence narrative order")),
    ("columns", lambda: _("columns"), columns, N_("sort lists")),
    ("flow chart", lambda: _("flow chart"), flow_chart, N_("steps decision algorithm process plan")),
    ("fishbone", lambda: _("fishbone"), fishbone, N_("causes effect reasons why")),
)


def shelf() -> Iterator[ShelfItem]:
    for name, label, build, words in KINDS:
        yield ShelfItem(name, label(), TRAY, _first(build), _(words), build)


def _first(build: Callable[[], Sequence[Thing]]) -> Callable[[], Thing]:
    return lambda: build()[0]
