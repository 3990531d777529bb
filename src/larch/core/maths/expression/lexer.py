"""From characters to tokens: numbers as children write them in several countries, words, signs, units."""

from __future__ import annotations

import re
from collections.abc import Mapping
from fractions import Fraction
from typing import NamedTuple

from larch.core.base.words import _
from larch.core.maths.expression.tree import ExpressionError, Node
from larch.core.maths.expression.words import (
    FUNCTIONS,
    JOINS,
    MINUS,
    OVER,
    PLAIN_GREEK,
    PLUS,
    RELATIONS,
    SAME,
    SUBSCRIPTS,
    SUPERSCRIPTS,
    SURE_UNITS,
    TIMES,
    UNITS,
    VULGAR,
)

LONGEST_WORD = 4  # letters side by side that still are a product of letters
SPACES = " \t\u00a0\u2009\u202f\u2007"
GROUPED = re.compile(r"\d{1,3}(?:[ \u00a0\u2009\u202f]\d{3})+(?!\d)(?!\s*[/⁄]\s*\d)")
MARKED = re.compile(r"\d{1,3}(?:['’]\d{3})+(?!\d)")
POINTED = re.compile(r"\d{1,3}(?:,\d{3})+\.\d+|\d{1,3}(?:,\d{3}){2,}(?![\d,])")
COMMAED = re.compile(r"\d{1,3}(?:\.\d{3})+,\d+|\d{1,3}(?:\.\d{3}){2,}(?![\d.])")
DECIMAL = re.compile(r"\d*\.\d+|\d+\.(?=\(\d)")
COMMA = re.compile(r"\d+,\d+|\d+,(?=\(\d)")
WHOLE = re.compile(r"\d+")
PERIOD = re.compile(r"\((\d+)\)")
POWER_OF_TEN = re.compile(r"E[+\-−]?\d+")
WORD = re.compile(r"[A-Za-zäöüß]+")
OVERLINED = re.compile(r"(?:\d[\u0305\u0304\u0307])+")
KNOWN = sorted(
    {word for word in (*FUNCTIONS, *SAME) if len(word) > 2} | {"ln", "lg"} | {w for w in PLAIN_GREEK if w.isascii()},
    key=len, reverse=True,
)  # fmt: skip
CALLED = {word.lower(): word for word in (*FUNCTIONS, *SAME)}
EASY_TO_MEAN = frozenset("nkmr")  # letters with a factorial: n!=6


class Token(NamedTuple):
    """kind: number, name, function, power, index, node, unit, relation, join, end, or the sign itself. `value` is what a
    number is worth, `plain` how it is written without grouping; `node` what was read already. `tight`: nothing stands
    between it and what is before it."""

    kind: str
    text: str
    at: int
    value: Fraction | None = None
    node: Node | None = None
    tight: bool = False
    plain: str = ""


def tokens(source: str, inserts: Mapping[int, Token] | None = None) -> list[Token]:
    """The tokens of a line; `inserts` are those that were read already, by the place of the character that stands for them.

    Raises ExpressionError.
    """
    return _Lexer(source, inserts or {}).all()


class _Lexer:
    def __init__(self, source: str, inserts: Mapping[int, Token]) -> None:
        self.source = source
        self.inserts = inserts
        self.found: list[Token] = []
        self.open: list[tuple[str, bool]] = []  # brackets: the function before each, and whether ";" parts what is in it
        self.points = re.search(r"\d\.\d", source) is not None
        self.semicolons = ";" in source

    def all(self) -> list[Token]:
        i, gap = 0, True
        while i < len(self.source):
            if self.source[i] in SPACES or (self.source[i].isspace() and self.source[i] != "\n"):
                i, gap = i + 1, True
                continue
            before = len(self.found)
            i = self._one(i)
            if len(self.found) > before and not gap:
                self.found[before] = self.found[before]._replace(tight=True)
            gap = False
        self.found.append(Token("end", "", len(self.source)))
        return _with_units(_with_times(self.found, self.source))

    def add(self, kind: str, text: str, at: int, value: Fraction | None = None, plain: str = "") -> int:
        tight = at > 0 and not self.source[at - 1].isspace()
        self.found.append(Token(kind, text, at, value, None, tight, plain))
        return at + len(text)

    def _one(self, i: int) -> int:
        c = self.source[i]
        if i in self.inserts:
            self.found.append(self.inserts[i]._replace(at=i))
            return i + 1
        if c in "0123456789" or (c == "." and self.source[i + 1 : i + 2].isdigit()):
            return self._number(i)
        if c in VULGAR:
            return self.add("number", c, i, Fraction(*VULGAR[c]))
        if c == "³" and self.source[i + 1 : i + 2] == "√":
            return self.add("∛", "³√", i)
        if c == "⁴" and self.source[i + 1 : i + 2] == "√":
            return self.add("∜", "⁴√", i)
        if c in SUPERSCRIPTS:
            return self._run("power", SUPERSCRIPTS, i)
        if c in SUBSCRIPTS:
            return self._run("index", SUBSCRIPTS, i)
        if self.source[i : i + 3] == "+/-":
            return self.add("±", "+/-", i)
        if c == "!" and self.source[i + 1 : i + 2] == "=" and self._is_factorial():
            return self.add("!", "!", i)
        for length in (2, 1):
            if self.source[i : i + length] in RELATIONS:
                return self.add("relation", self.source[i : i + length], i)
        if self.source[i : i + 2] == "**":
            return self.add("^", "**", i)
        for signs, kind in ((TIMES, "*"), (OVER, "/"), (MINUS, "-"), (PLUS, "+")):
            if c in signs:
                return self.add(kind, c, i)
        if c in "[(":
            before = self.found[-1] if self.found and self.found[-1].kind == "function" else None
            self.open.append((before.text if before else "", self._semicolons_inside(i)))
        elif c in ")]" and self.open:
            self.open.pop()
        if c in "+^_()|,;!°√∛∜±∓%‰⌊⌋⌈⌉[]{}\n∫∑∏'":
            return self.add({"{": "(", "}": ")"}.get(c, c), c, i)
        if word := WORD.match(self.source, i):
            return self._word(word[0], i)
        if c in JOINS:
            return self.add("join", JOINS[c], i) - len(JOINS[c]) + 1
        if c == "€":
            return self.add("unit", c, i)
        if c.isalpha() or c == "∞":
            return self.add("name", c, i)
        raise ExpressionError(_("“{sign}” has no meaning here.").format(sign=c), i)

    def _run(self, kind: str, signs: Mapping[str, str], i: int) -> int:
        end = i
        while end < len(self.source) and self.source[end] in signs:
            end += 1
        return self.add(kind, self.source[i:end], i)

    def _is_factorial(self) -> bool:
        """Whether "!=" after what stands here is a factorial and an equals sign."""
        if not self.found or self.source[self.found[-1].at :][len(self.found[-1].text) :][:1] != "!":
            return False
        last = self.found[-1]
        return last.kind in ("number", ")") or (last.kind == "name" and last.text in EASY_TO_MEAN)

    def _semicolons_inside(self, i: int) -> bool:
        depth = 0
        for c in self.source[i:]:
            depth += (c in "([") - (c in ")]")
            if depth == 0:
                return False
            if depth == 1 and c == ";":
                return True
        return False

    # Numbers

    def _number(self, i: int) -> int:
        source = self.source
        for pattern, group, point in ((GROUPED, SPACES, "."), (MARKED, "'’", "."), (POINTED, ",", "."), (COMMAED, ".", ",")):
            if found := pattern.match(source, i):
                plain = found[0]
                for sign in group:
                    plain = plain.replace(sign, "")
                if pattern is GROUPED and (more := re.match(r"[.,]\d+", source[found.end() :])):
                    return self._finish(i, found[0] + more[0], plain + more[0].replace(",", "."))
                return self._finish(i, found[0], plain.replace(point, "."))
        if found := DECIMAL.match(source, i):
            return self._finish(i, found[0], found[0])
        if (found := COMMA.match(source, i)) and self._comma_is_decimal(i, found[0]):
            return self._finish(i, found[0], found[0].replace(",", "."))
        found = WHOLE.match(source, i)
        assert found is not None
        return self._finish(i, found[0], found[0])

    def _finish(self, i: int, text: str, plain: str) -> int:
        """A number, with a period or a power of ten that follows it."""
        end = i + len(text)
        value = Fraction(plain if not plain.endswith(".") else plain + "0")
        digits = plain.partition(".")[2]
        if "." in plain and (period := PERIOD.match(self.source, end)):
            count = len(period[1])
            value += Fraction(int(period[1]), (10**count - 1) * 10 ** len(digits))
            return self.add("number", text + period[0], i, value, plain + period[0])
        if "." in plain and (lined := OVERLINED.match(self.source, end - 1)) and digits:
            repeated = re.sub(r"\D", "", lined[0])
            kept = digits[:-1]
            value = Fraction(f"{plain.partition('.')[0]}.{kept or '0'}")
            value += Fraction(int(repeated), (10 ** len(repeated) - 1) * 10 ** len(kept))
            return self.add("number", self.source[i : lined.end()], i, value, f"{plain[:-1]}({repeated})")
        if power := POWER_OF_TEN.match(self.source, end):
            exponent = int(power[0][1:].replace("−", "-"))
            if abs(exponent) > 400:
                raise ExpressionError(_("The number is too large to be written."), end)
            return self.add(
                "number", text + power[0], i, value * Fraction(10) ** exponent, plain + power[0].replace("−", "-")
            )
        return self.add("number", text, i, value, plain)

    def _comma_is_decimal(self, i: int, text: str) -> bool:
        if self.points:
            return False
        if not self.open:
            return True
        function, semicolons = self.open[-1]
        if semicolons:
            return True
        if function:
            return FUNCTIONS.get(SAME.get(function, function), (1, 1))[1] == 1
        opening = max(self.source.rfind("(", 0, i), self.source.rfind("[", 0, i))
        alone = self.source[opening + 1 : i].strip(" -−") == "" and self.source[i + len(text) :].lstrip()[:1] in (")", "]")
        return not alone

    # Words

    def _word(self, word: str, i: int) -> int:
        following = self.source[i + len(word) : i + len(word) + 1]
        last = self.found[-1] if self.found else None
        if word in JOINS and len(word) > 1:
            self.add("join", word, i)
            return i + len(word)
        if word == "of" and last is not None:
            return self.add("*", word, i)
        if word == "mod" and last is not None and last.kind in ("number", "name", ")", "node", "!"):
            return self.add("mod", word, i)
        after_unit = len(self.found) > 1 and self.found[-1].kind == "/" and self.found[-2].kind == "unit"
        after_number = last is not None and (last.kind in ("number", "unit") or after_unit)
        if after_number and word in SURE_UNITS and following != "(":
            return self.add("unit", word, i)
        whole = self._known(word)
        if whole is not None:
            return self._named(word, whole, i)
        return self._letters(word, following, i)

    def _known(self, word: str) -> str | None:
        """The function or constant that a whole word names."""
        if word in FUNCTIONS or word in SAME or word in PLAIN_GREEK:
            return word
        low = word.lower()
        if len(word) > 2 and low in CALLED:
            return CALLED[low]
        return "binomial" if word == "C" and self._is_choice() else None

    def _is_choice(self) -> bool:
        at = len(self.found) and self.found[-1].at + len(self.found[-1].text)
        return re.match(r"\s*C\(\s*\w+\s*[,;]\s*\w+\s*\)", self.source[at:]) is not None

    def _named(self, word: str, name: str, i: int) -> int:
        if name in PLAIN_GREEK:
            self.found.append(Token("name", PLAIN_GREEK[name], i, tight=i > 0 and not self.source[i - 1].isspace()))
            return i + len(word)
        end = i + len(word)
        self.found.append(Token("function", SAME.get(name, name), i))
        if SAME.get(name, name) == "log" and (base := re.match(r"(\d+)(?=[\s(])(?!\s*$)", self.source[end:])):
            self.found.append(Token("index", base[0], end, tight=True))
            return end + len(base[0])
        return end

    def _letters(self, word: str, following: str, i: int) -> int:
        """A product of letters, with functions and constants among them: xsinx, 2pir."""
        pieces: list[str] = []
        k = stretch = longest = 0
        while k < len(word):
            known = next((w for w in KNOWN if word.startswith(w, k)), "")
            pieces.append(known or word[k])
            stretch = 0 if known else stretch + 1
            longest = max(longest, stretch)
            k += len(pieces[-1])
        single = all(len(piece) == 1 for piece in pieces)
        if longest > LONGEST_WORD or (single and len(word) > 2 and following == "("):
            raise ExpressionError(_("The word “{word}” is not known.").format(word=word[:30]), i)
        at = i
        for piece in pieces:
            if len(piece) > 1:
                self._named(piece, piece, at)
            else:
                self.add("name", piece, at)
            at += len(piece)
        return i + len(word)


def _with_times(found: list[Token], source: str) -> list[Token]:
    """An x between two numbers is a sign: 2 x 3."""
    for k in range(1, len(found) - 1):
        here, before, after = found[k], found[k - 1], found[k + 1]
        if here.kind == "name" and here.text in ("x", "X") and before.kind == "number" and after.kind == "number":
            found[k] = here._replace(kind="*")
    return found


def _with_units(found: list[Token]) -> list[Token]:
    """Where one unit is sure, a single letter after a number is one, too: 1 m + 20 cm, 60 km/h."""
    if not any(token.kind == "unit" for token in found):
        return found
    for k in range(1, len(found)):
        here, before = found[k], found[k - 1]
        after_unit = before.kind == "/" and k > 1 and found[k - 2].kind == "unit"
        if here.kind == "name" and here.text in UNITS and (before.kind == "number" or after_unit):
            found[k] = here._replace(kind="unit")
    return found
