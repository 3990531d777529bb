"""Pages with pictures, a table, an answer under frost, and a web of boxes."""

from __future__ import annotations

from larch.core.base.shape import Placement
from larch.core.base.words import N_, _
from larch.core.figures.settle import settle
from larch.core.media import picture_set
from larch.core.model.page import Page
from larch.core.things.organisers.box import WordBox
from larch.core.things.organisers.connector import Connector
from larch.core.things.organisers.table import Table
from larch.core.things.pictures.frost import Frost
from larch.core.things.pictures.picture import Picture
from larch.demo.parts import READABLE, fresh_page, lettering

WARES = ("red paper lantern", "kite", "candle", "sailboat", "glowing star", "fish")
PRICES = ((N_("lantern"), "3", "12"), (N_("kite"), "4", "9"), (N_("boat"), "2", "15"))


def drawing(name: str, x: float, y: float, side: float, **fields: object) -> Picture:
    """A drawing of the set by its English name, about a place."""
    found = next(one for one in picture_set.search(name) if one.label == name)
    at = Placement(x - side / 2, y - side / 2)
    return Picture(media=f"{found.hash}.svg", name=name, width=side, height=side, placement=at, **fields)  # type: ignore[arg-type]


def stall() -> Page:
    """Six wares in a line, a table with their prices, what they bring in under frost, coins from a supply."""
    page = fresh_page(_("What does the stall take in?"))
    page = page.put(*(drawing(name, 120 + 130 * k, 158, 104) for k, name in enumerate(WARES)))
    table = Table(
        columns=(270.0, 170.0, 170.0, 220.0), rows=(88.0,) * 4, placement=Placement(56, 248), locked=True, hue="lake"
    )
    page = page.put(table)
    heads = (_("ware"), _("price"), _("sold"), _("together"))
    for column, text in enumerate(heads):
        page = page.put(table.new_words(0, column).replace(text=text, locked=True))
    for row, (name, price, sold) in enumerate(PRICES, 1):
        answer = str(int(price) * int(sold))
        for column, text in enumerate((_(name), price, sold, answer)):
            page = page.put(table.new_words(row, column).replace(text=text, locked=True))
    last = table.cell(1, 3)
    over = Placement(56 + last.x0 + 4, 248 + last.y0 + 4)
    page = page.put(Frost(width=last.width - 8, height=3 * 88.0 - 8, placement=over, locked=True))
    coins = drawing("coin", 1080, 330, 96, supply=True, limit=40)
    page = page.put(lettering(_("Take coins and lay\nthem out."), 920, 120), coins)
    return page.put(lettering(_("Rub off the frost to check."), 56, 632))


def web() -> Page:
    """What belongs to a lantern: a web of boxes with pictures; one of the boxes leads to another page."""
    page = fresh_page(_("What does a lantern need?"))

    def box(text: str, x: float, y: float, hue: str, shape: str = "round", width: float = 230.0, link: str = "") -> WordBox:
        at = Placement(x - width / 2, y - 48)
        return WordBox(text=text, size=READABLE, hue=hue, shape=shape, width=width, height=96.0, placement=at, link=link)

    page = page.put(
        box(_("lantern"), 640, 380, "plum", "oval", 270.0),
        box(_("paper"), 270, 210, "lake"), box(_("light"), 1010, 210, "clay"),
        box(_("shape"), 270, 560, "moss", link="#p3"), box(_("river"), 1010, 560, "lake"),
    )  # fmt: skip
    first = page.next - 5
    words = (_("is made of"), _("gives"), _("has a"), _("floats on"))
    lines = [
        Connector(rule="connect", of=(f"t{first}", f"t{first + k}"), words=word, hue="slate")
        for k, word in enumerate(words, 1)
    ]
    page = page.insert(1, *lines)
    pictures = (("scroll", 96, 210), ("candle", 1184, 210), ("red paper lantern", 640, 254), ("water wave", 1184, 560))
    page = page.put(*(drawing(name, x, y, 88) for name, x, y in pictures))
    return settle(page)
