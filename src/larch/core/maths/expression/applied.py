"""Functions, roots, sums and integrals: how far they reach over what follows."""

from __future__ import annotations

from fractions import Fraction

from larch.core.base.words import _
from larch.core.maths.expression.cursor import Cursor
from larch.core.maths.expression.lexer import Token
from larch.core.maths.expression.tree import Binary, Call, ExpressionError, Name, Negative, Node, Number
from larch.core.maths.expression.words import FUNCTIONS, INVERSE, ROOTS, SUBSCRIPTS, SUPERSCRIPTS


class Applied(Cursor):
    """The part of the grammar that is about functions."""

    def large(self, token: Token) -> Node:
        """A sum, product or limit with what stands below and above it; it reaches over the term that follows."""
        assert isinstance(token.node, Call)
        return Call(token.text, (self.term(), *token.node.arguments))

    def integral(self, token: Token) -> Node:
        """∫ … dx."""
        here, depth = self.i, 0
        while self.tokens[here].kind != "end":
            kind, following = self.tokens[here].kind, self.tokens[here + 1]
            depth += (kind in ("(", "[")) - (kind in (")", "]"))
            if depth == 0 and kind == "name" and self.tokens[here].text == "d" and following.kind == "name":
                break
            here += 1
        if self.tokens[here].kind == "end":
            raise self.fail(_("After an integral stands its letter, such as dx."), token)
        held, self.tokens[here] = self.tokens[here], Token("end", "", self.tokens[here].at)
        body = self.sum() if self.i < here else Number(Fraction(1), "1")
        ended = self.i == here
        self.tokens[here] = held
        if not ended:
            raise self.fail(_("“{sign}” does not fit here.").format(sign=self.next.text))
        self.i = here + 2
        ends = token.node.arguments if isinstance(token.node, Call) else ()
        return Call("integral", (body, Name(self.tokens[here + 1].text), *ends))

    def root(self, token: Token) -> Node:
        of = self.tight_product()
        if token.kind == "√":
            return Call("sqrt", (of,))
        return Call("cbrt", (of,)) if token.kind == "∛" else Call("root", (of, Number(Fraction(4), "4")))

    def call(self, token: Token) -> Node:
        name = token.text
        power: Node | None = None
        base: Node | None = None
        while True:
            if mark := self.accept("power"):
                power = raised_to(mark)
            elif self.next.kind == "^":
                self.take()
                power = self.signed_atom()
            elif mark := self.accept("index"):
                base = mark.node or Number(Fraction(index_text(mark)), index_text(mark))
            elif name == "log" and self.next.kind == "_":
                self.take()
                base = self.postfix()
            else:
                break
        if power is not None and _is_minus_one(power) and name in INVERSE:
            name, power = INVERSE[name], None
        fewest, most = FUNCTIONS.get(name, (1, 1))
        arguments = self.arguments(token, name, fewest, most)
        if base is not None:
            arguments = (*arguments, base)
        node = Call(name, arguments)
        if name == "log" and len(arguments) == 1 and base is None:
            self.doubt(_("log is the logarithm to base 10."))
        return node if power is None else Binary("^", node, power)

    def signed_atom(self) -> Node:
        """After the sign of a power at the name of a function: sin^-1 x."""
        if self.accept("-"):
            return Negative(self.atom())
        return self.atom()

    def arguments(self, token: Token, name: str, fewest: int, most: int) -> tuple[Node, ...]:
        if self.next.kind == "node" and self.next.text == "(":  # a bracket of a structured row
            inner = self.take().node
            assert inner is not None
            found = list(inner.arguments) if isinstance(inner, Call) and inner.function == "point" else [inner]
        elif self.next.kind != "(":
            if fewest > 1 or self.next.kind in ("end", ")", "relation", "*", "/", "+", ",", "]"):
                raise self.fail(_("{function} needs brackets round what it works on.").format(function=token.text))
            if name in ROOTS:
                return (self.tight_product(),)
            return (self.bare_argument(token.text),)
        else:
            opening = self.take()
            bars, self.bars = self.bars, 0
            found = [self.clause()]
            while self.accept(",", ";"):
                found.append(self.clause())
            self.bars = bars
            if not self.accept(")", "]"):
                raise self.fail(_("A bracket is not closed."), opening if self.next.kind == "end" else None)
        if not fewest <= len(found) <= most:
            count = str(fewest) if fewest == most else f"{fewest}–{most}"
            message = _("{function} works on {count} numbers, not {given}.")
            raise self.fail(message.format(function=token.text, count=count, given=len(found)), token)
        if name == "cases" and len(found) % 2:
            found.append(Call("otherwise", ()))
        return tuple(found)

    def tight_product(self) -> Node:
        """√2x is √(2x), √2 x is √2·x, and √2/2 the half of √2."""
        node = self.signed_root()
        while self.next.kind in ("number", "name") and self.next.tight:
            self.doubt(_("A root reaches over the letters and numbers that follow without a gap."))
            node = Binary("*", node, self.power(), implied=True)
        return node

    def signed_root(self) -> Node:
        if self.accept("-"):
            return Negative(self.postfix())
        return self.power() if self.next.kind == "number" and self.tokens[self.i + 1].kind == "^" else self.postfix()

    def bare_argument(self, function: str) -> Node:
        """The whole product or quotient of letters and numbers up to the next + or −: sin 2x is sin(2x), sin π/6 is
        sin(π/6); sin x cos x is sin(x)·cos(x)."""
        node = self.signed()
        factors = 1
        while True:
            ahead = self.tokens[min(self.i + 1, len(self.tokens) - 1)]
            if self.next.kind in ("name", "node") or (self.next.kind == "(" and factors >= 1):
                if self.next.kind == "(":
                    self.doubt(_("{function} reaches up to the next + or −.").format(function=function))
                node = Binary("*", node, self.power(), implied=True)
            elif self.next.kind in ("*", "/") and ahead.kind in ("name", "number") and function not in ROOTS:
                self.doubt(_("{function} reaches up to the next + or −.").format(function=function))
                sign = self.take()
                node = Binary(sign.kind, node, self.signed())
            else:
                return node
            factors += 1


def _is_minus_one(node: Node) -> bool:
    return node == Negative(Number(Fraction(1), "1")) or (isinstance(node, Number) and node.value == -1)


def index_text(token: Token) -> str:
    return "".join(SUBSCRIPTS.get(c, c) for c in token.text if c != " ").replace("−", "-")


def raised_to(token: Token) -> Node:
    """The exponent that a superscript is."""
    if token.node is not None:
        return token.node
    digits = "".join(SUPERSCRIPTS[c] for c in token.text)
    if digits in ("n", "x"):
        return Name(digits)
    if not digits.lstrip("-+").isdigit() or sum(map(digits.count, "-+")) > 1 or digits[1:].strip("0123456789"):
        raise ExpressionError(_("This exponent can't be read."), token.at)
    return Number(Fraction(digits), digits.replace("-", "−"))
