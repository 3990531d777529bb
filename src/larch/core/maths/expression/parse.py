"""Reading an expression: a hand-written recursive descent, bounded in length and depth.

relation := sum [(= < > ≤ ≥ ≠) sum]
sum      := term {(+ | −) term}
term     := signed {(· × * ÷ / :) signed | signed-without-sign}      left to right: 3/4 x is ¾·x
signed   := {− | +} power
power    := postfix [^ signed]
postfix  := atom {! | ° | superscript}
atom     := number | name | function | √ postfix | ( sum ) | | sum |
"""

from __future__ import annotations

from fractions import Fraction
from typing import NamedTuple

from larch.core.base.words import _
from larch.core.maths.expression.tree import (
    CONSTANTS,
    Binary,
    Call,
    ExpressionError,
    Name,
    Negative,
    Node,
    Number,
    Relation,
    children,
)

LONGEST = 1000
DEEPEST = 40
TALLEST = 120

FUNCTIONS = {
    "sin": 1, "cos": 1, "tan": 1, "asin": 1, "acos": 1, "atan": 1, "arcsin": 1, "arccos": 1, "arctan": 1,
    "sinh": 1, "cosh": 1, "tanh": 1, "sqrt": 1, "cbrt": 1, "abs": 1, "exp": 1, "ln": 1, "log": 1, "lg": 1,
    "floor": 1, "ceil": 1, "round": 1, "sign": 1, "min": 2, "max": 2, "mod": 2, "root": 2,
}  # fmt: skip
SAME = {"arcsin": "asin", "arccos": "acos", "arctan": "atan", "lg": "log"}
INVERSE = {"sin": "asin", "cos": "acos", "tan": "atan"}
RELATIONS = {"=": "=", "<": "<", ">": ">", "≤": "≤", "≥": "≥", "<=": "≤", ">=": "≥", "=<": "≤", "≠": "≠", "!=": "≠"}
TIMES = "*·×∙⋅"
OVER = "/÷:∕⁄"
MINUS = "-−–"
SUPERSCRIPTS = dict(zip("⁰¹²³⁴⁵⁶⁷⁸⁹⁻", "0123456789-", strict=True))
VULGAR = {"½": (1, 2), "¼": (1, 4), "¾": (3, 4), "⅓": (1, 3), "⅔": (2, 3), "⅕": (1, 5), "⅛": (1, 8)}
WORDS = sorted([*FUNCTIONS, "pi", "tau"], key=len, reverse=True)


class Token(NamedTuple):
    """kind: number, name, function, power (a superscript), end, or the sign itself."""

    kind: str
    text: str
    at: int


def tokens(source: str) -> list[Token]:
    found: list[Token] = []
    i = 0
    while i < len(source):
        c = source[i]
        if c.isspace():
            i += 1
            continue
        token = _token(source, i)
        found.append(token)
        i += len(token.text)
    found.append(Token("end", "", len(source)))
    return found


def _token(source: str, i: int) -> Token:
    c = source[i]
    if c in "0123456789" or (c == "." and source[i + 1 : i + 2].isdigit()):
        return Token("number", _number_at(source, i), i)
    if c in VULGAR:
        return Token("number", c, i)
    if c in SUPERSCRIPTS:
        end = i
        while end < len(source) and source[end] in SUPERSCRIPTS:
            end += 1
        return Token("power", source[i:end], i)
    if source[i : i + 2] in RELATIONS:
        return Token("relation", source[i : i + 2], i)
    if c in RELATIONS:
        return Token("relation", c, i)
    for signs, kind in ((TIMES, "*"), (OVER, "/"), (MINUS, "-")):
        if c in signs:
            return Token(kind, c, i)
    if c in "+^()|,!°√[]":
        return Token({"[": "(", "]": ")"}.get(c, c), c, i)
    word = next((w for w in WORDS if source.startswith(w, i)), "")
    if word:
        return Token("function" if word in FUNCTIONS else "name", word, i)
    if c.isalpha():
        return Token("name", c, i)
    raise ExpressionError(_("“{sign}” has no meaning here.").format(sign=c), i)


def _number_at(source: str, i: int) -> str:
    end = i
    while end < len(source) and source[end] in "0123456789":
        end += 1
    if source[end : end + 1] == "." and source[end + 1 : end + 2] in "0123456789" and end + 1 < len(source):
        end += 1
        while end < len(source) and source[end] in "0123456789":
            end += 1
    return source[i:end]


class _Parser:
    def __init__(self, source: str) -> None:
        self.tokens = tokens(source)
        self.i = 0
        self.bars = 0
        self.depth = 0

    @property
    def next(self) -> Token:
        return self.tokens[self.i]

    def take(self) -> Token:
        token = self.tokens[self.i]
        self.i += 1
        return token

    def accept(self, *kinds: str) -> Token | None:
        return self.take() if self.next.kind in kinds else None

    def fail(self, message: str, token: Token | None = None) -> ExpressionError:
        return ExpressionError(message, (token or self.next).at)

    def relation(self) -> Node:
        left = self.sum()
        sign = self.accept("relation")
        if sign is not None:
            left = Relation(RELATIONS[sign.text], left, self.sum())
        if self.next.kind == "relation":
            raise self.fail(_("Write one comparison at a time."))
        if self.next.kind == ")":
            raise self.fail(_("This bracket was never opened."))
        if self.next.kind != "end":
            raise self.fail(_("“{sign}” does not fit here.").format(sign=self.next.text))
        return left

    def sum(self) -> Node:
        node = self.term()
        while sign := self.accept("+", "-"):
            node = Binary(sign.kind, node, self.term())
        return node

    def term(self) -> Node:
        node = self.signed()
        while True:
            if sign := self.accept("*", "/"):
                node = Binary(sign.kind, node, self.signed())
            elif self.starts_atom():
                if self.next.kind == "number":
                    raise self.fail(_("Put a sign before this number."))
                node = Binary("*", node, self.power(), implied=True)
            else:
                return node

    def starts_atom(self) -> bool:
        kind = self.next.kind
        return kind in ("number", "name", "function", "(", "√") or (kind == "|" and not self.bars)

    def signed(self) -> Node:
        signs = 0
        while sign := self.accept("-", "+"):
            signs += sign.kind == "-"
        node = self.power()
        return Negative(node) if signs % 2 else node

    def power(self) -> Node:
        base = self.postfix()
        if self.accept("^"):
            self.depth += 1
            base = Binary("^", base, self.signed())
            self.depth -= 1
        return base

    def postfix(self) -> Node:
        node = self.atom()
        while mark := self.accept("!", "°", "power"):
            if mark.kind == "power":
                node = Binary("^", node, superscript(mark))
            else:
                node = Call("factorial" if mark.kind == "!" else "degrees", (node,))
        return node

    def atom(self) -> Node:
        """All nesting comes through here, so here it is bounded."""
        self.depth += 1
        if self.depth > DEEPEST:
            raise self.fail(_("This is nested too deeply."))
        node = self.bare_atom()
        self.depth -= 1
        return node

    def bare_atom(self) -> Node:
        token = self.take()
        if token.kind == "number":
            return self.number(token)
        if token.kind == "name":
            return Name(CONSTANTS.get(token.text, token.text))
        if token.kind == "function":
            return self.call(token)
        if token.kind == "√":
            return Call("sqrt", (self.postfix(),))
        if token.kind == "(":
            bars, self.bars = self.bars, 0
            inner = self.sum()
            self.bars = bars
            if not self.accept(")"):
                raise self.fail(_("A bracket is not closed."), token if self.next.kind == "end" else None)
            return inner
        if token.kind == "|":
            self.bars += 1
            inner = self.sum()
            self.bars -= 1
            if not self.accept("|"):
                raise self.fail(_("An absolute value is not closed."), token if self.next.kind == "end" else None)
            return Call("abs", (inner,))
        self.i -= 1
        if token.kind == "end":
            raise self.fail(_("Something is missing at the end."))
        raise self.fail(_("Something is missing before “{sign}”.").format(sign=token.text))

    def number(self, token: Token) -> Node:
        if token.text in VULGAR:
            return Number(Fraction(*VULGAR[token.text]), "/".join(map(str, VULGAR[token.text])))
        whole = Number(Fraction(token.text), token.text)
        mixed = [t.kind for t in self.tokens[self.i : self.i + 3]] == ["number", "/", "number"]
        if mixed and "." not in token.text and self.next.text.isdigit() and self.tokens[self.i + 2].text.isdigit():
            top, _over, bottom = self.take(), self.take(), self.take()
            if int(bottom.text) == 0:
                raise self.fail(_("A fraction can't have 0 below."), bottom)
            value = whole.value + Fraction(int(top.text), int(bottom.text))
            return Number(value, f"{token.text} {top.text}/{bottom.text}")
        if self.next.text in VULGAR and "." not in token.text:
            top_, bottom_ = VULGAR[self.take().text]
            return Number(whole.value + Fraction(top_, bottom_), f"{token.text} {top_}/{bottom_}")
        return whole

    def call(self, token: Token) -> Node:
        name = SAME.get(token.text, token.text)
        raised: Node | None = None
        if mark := self.accept("power"):
            raised = superscript(mark)
        elif self.next.kind == "^":
            self.take()
            raised = self.postfix()
        if isinstance(raised, Number) and raised.value == -1 and name in INVERSE:
            name, raised = INVERSE[name], None
        node = Call(name, self.arguments(token, FUNCTIONS[token.text]))
        return node if raised is None else Binary("^", node, raised)

    def arguments(self, token: Token, count: int) -> tuple[Node, ...]:
        if self.next.kind != "(":
            if count > 1 or self.next.kind in ("end", ")", "relation", "*", "/", "+"):
                raise self.fail(_("{function} needs brackets round what it works on.").format(function=token.text))
            return (self.bare_argument(),)
        opening = self.take()
        bars, self.bars = self.bars, 0
        found = [self.sum()]
        while self.accept(","):
            found.append(self.sum())
        self.bars = bars
        if not self.accept(")"):
            raise self.fail(_("A bracket is not closed."), opening if self.next.kind == "end" else None)
        if len(found) != count:
            message = _("{function} works on {count} numbers, not {given}.")
            raise self.fail(message.format(function=token.text, count=count, given=len(found)), opening)
        return tuple(found)

    def bare_argument(self) -> Node:
        """sin 2x is sin(2x); sin x cos x is sin(x)·cos(x)."""
        node = self.signed()
        while self.next.kind == "name":
            node = Binary("*", node, self.power(), implied=True)
        return node


def superscript(token: Token) -> Number:
    digits = "".join(SUPERSCRIPTS[c] for c in token.text)
    if not digits.lstrip("-").isdigit() or digits.count("-") > 1 or "-" in digits[1:]:
        raise ExpressionError(_("This exponent can't be read."), token.at)
    return Number(Fraction(digits), digits.replace("-", "−"))


def parse(source: str) -> Node:
    """Reads an expression or a comparison. Raises ExpressionError, which points at the place."""
    if len(source) > LONGEST:
        raise ExpressionError(_("This is longer than {n} characters.").format(n=LONGEST), LONGEST)
    if not source.strip():
        raise ExpressionError(_("Type an equation, for example y = 2x + 1."), 0)
    node = _Parser(source).relation()
    if tree_depth(node) > TALLEST:
        raise ExpressionError(_("This has too many parts."), len(source))
    return node


def tree_depth(node: Node) -> int:
    """Levels of the tree, counted without recursion: a long sum is as deep as it has terms."""
    deepest, waiting = 0, [(node, 1)]
    while waiting:
        here, level = waiting.pop()
        deepest = max(deepest, level)
        waiting += [(child, level + 1) for child in children(here)]
    return deepest
