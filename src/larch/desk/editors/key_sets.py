"""The keys of the tray, in sets: what each shows, what it writes, and what it is called."""

from __future__ import annotations

from typing import NamedTuple

from larch.core.base.words import N_
from larch.core.maths.layout.rows import Fence, Fraction, Grid, Item, Limits, Lowered, Raised, Root, Row, Sign, signs


class Key(NamedTuple):
    """shows: the row on it; types: characters, one after the other; puts: parts; does: something else. wide: in columns."""

    shows: Row
    name: str
    types: str = ""
    puts: Row = ()
    does: str = ""
    wide: int = 1


class KeySet(NamedTuple):
    """groups: of rows of keys, side by side with a gap between."""

    name: str
    label: str
    groups: tuple[tuple[tuple[Key, ...], ...], ...]


def _types(text: str, name: str = "") -> Key:
    return Key(signs({"-": "−", "*": "×"}.get(text, text)), name or text, types=text)


def _puts(item: Item, name: str, shows: Row = ()) -> Key:
    return Key(shows or (item,), name, puts=(item,))


def _word(text: str) -> Key:
    return Key((Sign(text),), text, puts=(Sign(text),))


def _digits(row: str) -> tuple[Key, ...]:
    return tuple(_types(digit) for digit in row)


PLUS, MINUS = _types("+", N_("plus")), _types("-", N_("minus"))
TIMES = Key(signs("×"), N_("times"), types="×")
OVER = Key(signs("÷"), N_("divided by"), types="÷")
EQUALS, UNEQUAL = _types("=", N_("equals")), _types("≠", N_("is not"))
LESS, MORE = _types("<", N_("less than")), _types(">", N_("greater than"))
AT_MOST, AT_LEAST = _types("≤", N_("at most")), _types("≥", N_("at least"))
LEFT, RIGHT = _types("(", N_("open bracket")), _types(")", N_("close bracket"))
FRACTION = Key((Fraction((), ()),), N_("fraction"), does="fraction")
MIXED = Key((Sign("1"), Fraction((), ())), N_("mixed number"), puts=(Fraction((), ()),))
POWER = Key((Sign("x"), Raised(())), N_("power"), does="power")
INDEX = Key((Sign("x"), Lowered(())), N_("index"), does="index")
SQUARE = Key((Sign("x"), Raised(signs("2"))), N_("squared"), puts=(Raised(signs("2")),))
ROOT = _puts(Root(()), N_("square root"))
NTH_ROOT = _puts(Root((), ()), N_("root of any degree"))
SIZE = _puts(Fence("|", (), "|"), N_("size"))
PI, PERCENT, DEGREE = _types("π", N_("pi")), _types("%", N_("percent")), _types("°", N_("degrees"))
BACK = Key((Sign("←"),), N_("to the left"), does="left")
ON = Key((Sign("→"),), N_("to the right"), does="right")
RUB = Key((), N_("rub out"), does="rub out", wide=2)
NEXT = Key((), N_("next line"), does="next line", wide=2)
ALPHABET = Key((Sign("a"), Sign("…"), Sign("z")), N_("all letters"), does="set alphabet")
EXP = Key((Sign("e"), Raised(())), N_("power of e"), puts=(Sign("e"), Raised(())))
FUNCTION = Key(
    (Sign("f"), Fence("(", (Sign("x"),), ")")), N_("f of x"), puts=(Sign("f"), Fence("(", (Sign("x"),), ")"), Sign("="))
)
BY_X = Fraction((Sign("d"),), signs("dx"))
DERIVATIVE = Key((BY_X,), N_("derivative"), puts=(BY_X, Fence("(", (), ")")))
INTEGRAL = Key((Limits("∫", (), ()),), N_("integral"), puts=(Limits("∫", (), ()),))
SUM = Key((Sign("∑"),), N_("sum"), puts=(Limits("∑", (), ()),))
MATRIX = Key((Grid((((), ()), ((), ()))),), N_("matrix"), puts=(Grid((((), ()), ((), ()))),))
CASES = Key((Grid((((),), ((),)), "{", ""),), N_("cases"), puts=(Grid((((), ()), ((), ())), "{", ""),))
POINT = _types(".", N_("decimal point"))

HUES = ("needle", "lake", "plum", "berry", "moss", "clay", "slate", "straw")
NAMES = (N_("in black"), N_("in blue"), N_("in violet"), N_("in red"), N_("in green"), N_("in orange"), N_("in grey"),
         N_("in ochre"))  # fmt: skip


def _hue(hue: str, name: str) -> Key:
    return Key((Sign("a", hue), Sign("b", hue)), name, does=f"hue {hue}", wide=2)


COLOURS = tuple(_hue(hue, name) for hue, name in zip(HUES, NAMES, strict=True))

BY_HAND = "hand"  # the set that has a place to write in beside its keys
SETS = (
    KeySet("numbers", N_("numbers"), (
        (_digits("12345"), _digits("67890")),
        ((PLUS, MINUS, TIMES, OVER, EQUALS), (LESS, MORE, POINT, MIXED, FRACTION)),
        ((RUB,), (NEXT,)),
    )),
    KeySet("letters", N_("letters"), (
        (_digits("12345"), _digits("67890"), (POINT, _types("x"), _types("y"), _types("a"), ALPHABET)),
        ((PLUS, MINUS, TIMES, OVER), (EQUALS, UNEQUAL, LESS, MORE), (LEFT, RIGHT, AT_MOST, AT_LEAST)),
        ((FRACTION, POWER, ROOT), (MIXED, SQUARE, SIZE), (PI, PERCENT, DEGREE)),
        ((BACK, ON), (RUB,), (NEXT,)),
    )),
    KeySet("functions", N_("functions"), (
        (_digits("12345"), _digits("67890"), (POINT, _types("x"), _types("y"), _types("θ"), ALPHABET)),
        ((_word("sin"), _word("cos"), _word("tan"), SIZE), (_word("log"), _word("ln"), EXP, NTH_ROOT),
         (FUNCTION, DERIVATIVE, INTEGRAL, SUM)),
        ((PLUS, MINUS, TIMES, MATRIX), (EQUALS, LESS, LEFT, RIGHT), (FRACTION, POWER, ROOT, CASES)),
        ((BACK, ON), (RUB,), (NEXT,)),
    )),
    KeySet("colours", N_("terms"), (
        (COLOURS[:3], COLOURS[3:6], COLOURS[6:]),
        ((Key((), N_("select less"), does="select less", wide=2), Key((), N_("select more"), does="select more", wide=2)),
         (Key((), N_("the term"), does="term", wide=2), Key((), N_("the side"), does="side", wide=2)),
         (Key((), N_("to the other side"), does="over", wide=4),)),
        ((RUB,), (NEXT,)),
    )),
    KeySet(BY_HAND, N_("by hand"), (((BACK, ON), (RUB,), (NEXT,)),)),
    KeySet("alphabet", "", (
        (tuple(_types(c) for c in "abcdefghijk"), tuple(_types(c) for c in "lmnopqrstuv"),
         (*(_types(c) for c in "wxyz"), *(_types(c) for c in "αβγθλφ"), INDEX)),
        ((BACK, ON), (RUB,), (NEXT,)),
    )),
)  # fmt: skip
