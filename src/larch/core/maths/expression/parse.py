"""Reading an expression: a hand-written recursive descent, bounded in length and depth.

statement := clause {(and | or | , | ;) clause}
clause    := sum {(= < > ≤ ≥ ≠) sum}
sum       := term {(+ | − | ±) term}
term      := signed {(· × * ÷ / : mod) signed | signed-without-sign}      left to right: 3/4 x is ¾·x
signed    := {− | + | ±} power
power     := postfix [^ signed]
postfix   := atom {! | ° | % | superscript}
atom      := number [unit] | name | function | √ tight product | ( sum ) | | sum | | ⌊ sum ⌋ | ⌈ sum ⌉
"""

from __future__ import annotations

from collections.abc import Mapping
from fractions import Fraction
from typing import NamedTuple

from larch.core.base.words import _
from larch.core.maths.expression.applied import Applied, index_text, raised_to
from larch.core.maths.expression.lexer import Token, tokens
from larch.core.maths.expression.tree import (
    CONSTANTS,
    Binary,
    Call,
    ExpressionError,
    Joined,
    Name,
    Negative,
    Node,
    Number,
    Relation,
    Unit,
    children,
    states,
)
from larch.core.maths.expression.words import (
    RELATIONS,
    VULGAR,
)

LONGEST = 1000
DEEPEST = 40
TALLEST = 120
BEGINS = ("number", "name", "function", "(", "√", "∛", "∜", "⌊", "⌈", "node", "[", "d/d", "∫", "big")
NAMED = ("f", "g", "h")  # functions that are given a name
AFTER = {"!": "factorial", "°": "degrees", "%": "percent", "‰": "permille"}


class Read(NamedTuple):
    """What was read, and in which places another reading would be as good, each said in a sentence."""

    node: Node
    doubts: tuple[str, ...]


class _Parser(Applied):
    # Statements

    def all(self) -> Node:
        node = self.statement()
        if self.next.kind in (")", "]"):
            raise self.fail(_("This bracket was never opened."))
        if self.next.kind != "end":
            raise self.fail(_("“{sign}” does not fit here.").format(sign=self.next.text))
        return node

    def statement(self) -> Node:
        """ "and" binds more tightly than "or"."""
        parts = [self.joined()]
        while self.next.kind == "join" and self.next.text in ("or", "oder", "∨"):
            self.take()
            parts.append(self.joined(parts[-1]))
        return self.whole("or", parts)

    def joined(self, before: Node | None = None) -> Node:
        parts = [self.clause(before)]
        while self.next.kind in (",", ";", "\n", "join"):
            if self.next.kind == "join" and self.next.text in ("or", "oder", "∨"):
                break
            sign = self.take()
            if sign.kind != "join" and self.next.kind in ("join", "end", "\n"):
                continue
            if sign.kind == "," and not states(parts[-1]):
                raise self.fail(_("“{sign}” does not fit here.").format(sign=","), sign)
            parts.append(self.clause(parts[-1]))
        return self.whole("and", parts)

    def whole(self, op: str, parts: list[Node]) -> Node:
        if len(parts) == 1:
            return parts[0]
        if not all(states(part) for part in parts):
            raise self.fail(_("“{word}” stands between equations or inequalities.").format(word=op))
        flat: list[Node] = []
        for part in parts:
            flat += part.parts if isinstance(part, Joined) and part.op == op and not part.chain else (part,)
        return Joined(op, tuple(flat))

    def clause(self, before: Node | None = None) -> Node:
        if self.next.kind == "(" and self._is_statement():
            self.take()
            inner = self.statement()
            self.accept(")")
            return inner
        sides: list[Node] = [self.sum()]
        signs: list[str] = []
        while sign := self.accept("relation"):
            if self.next.kind == "end" and sign.text == "=" and not signs and not isinstance(sides[0], Name):
                return sides[0]  # 2 + 3 =
            signs.append(RELATIONS[sign.text])
            sides.append(self.sum())
        if not signs:
            node = sides[0]
            first = before.parts[-1] if isinstance(before, Joined) else before
            if isinstance(first, Relation) and first.op == "=" and isinstance(first.left, Name):
                return Relation("=", first.left, node)  # x = 2 or 3
            return node
        relations = [Relation(op, left, right) for op, left, right in zip(signs, sides, sides[1:], strict=False)]
        return relations[0] if len(relations) == 1 else Joined("and", tuple(relations), chain=True)

    def _is_statement(self) -> bool:
        """Whether a bracket that opens here holds a comparison."""
        depth = 0
        for k in range(self.i, len(self.tokens)):
            kind = self.tokens[k].kind
            depth += (kind in ("(", "[")) - (kind in (")", "]"))
            if depth == 0:
                return False
            if depth == 1 and kind == "relation":
                return True
        return False

    # Sums and products

    def sum(self) -> Node:
        node = self.term()
        while sign := self.accept("+", "-", "±", "∓"):
            right = self.term()
            both = sign.kind in ("±", "∓")
            node = Call(sign.kind, (node, right)) if both else Binary(sign.kind, node, right)
        return node

    def term(self) -> Node:
        node = self.signed()
        while True:
            if sign := self.accept("*", "/"):
                node = Binary(sign.kind, node, self.signed())
            elif self.accept("mod"):
                node = Call("mod", (node, self.signed()))
            elif self.starts_atom():
                if self.next.kind == "number" and not self._number_may_follow():
                    raise self.fail(_("Put a sign before this number."))
                if isinstance(node, Binary) and node.op == "/" and self._ends_in_letters(node) and self.next.tight:
                    self.doubt(_("Products and quotients are taken from left to right: 1/2x is half of x."))
                node = Binary("*", node, self.power(), implied=True)
            else:
                return node

    def _number_may_follow(self) -> bool:
        """After a factorial or a closed bracket: 3!2!, (1+2)3."""
        before = self.tokens[self.i - 1].kind
        return before in ("!", ")") and self.next.tight

    def _ends_in_letters(self, node: Binary) -> bool:
        return isinstance(node.right, Number) and self.next.kind in ("name", "function", "(", "√")

    def starts_atom(self) -> bool:
        return self.next.kind in BEGINS or (self.next.kind == "|" and not self.bars)

    def signed(self) -> Node:
        signs = 0
        while sign := self.accept("-", "+", "±"):
            if sign.kind == "±":
                return Call("±", (self.signed(),))
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
        while mark := self.accept("!", "°", "power", "%", "‰", "unit"):
            if mark.kind == "power":
                node = Binary("^", node, raised_to(mark))
            elif mark.kind == "unit":
                node = Binary("*", node, self.unit(mark), implied=True)
            else:
                node = Call(AFTER[mark.kind], (node,))
        return node

    def unit(self, mark: Token) -> Node:
        node: Node = Unit(mark.text)
        if power := self.accept("power"):
            node = Binary("^", node, raised_to(power))
        elif self.next.kind == "^" and self.tokens[self.i + 1].kind == "number":
            self.take()
            node = Binary("^", node, self.number(self.take()))
        if self.next.kind == "/" and self.tokens[self.i + 1].kind == "unit":
            self.take()
            return Binary("/", node, self.unit(self.take()))
        return node

    # Atoms

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
        match token.kind:
            case "number":
                return self.number(token)
            case "node":
                assert token.node is not None
                return token.node
            case "name":
                return self.name(token)
            case "function":
                return self.call(token)
            case "√" | "∛" | "∜":
                return self.root(token)
            case "(":
                return self.bracket(token)
            case "[":
                return self.matrix(token)
            case "|":
                return self.absolute(token)
            case "⌊" | "⌈":
                return self.steps(token)
            case "d/d":
                return Call("derivative", (self.term(), Name(token.text)))
            case "big":
                return self.large(token)
            case "∫":
                return self.integral(token)
        self.i -= 1
        if token.kind == "end":
            raise self.fail(_("Something is missing at the end."))
        raise self.fail(_("Something is missing before “{sign}”.").format(sign=token.text.strip() or "⏎"))

    def name(self, token: Token) -> Node:
        if self.i == 1 and token.text in NAMED and [t.kind for t in self.tokens[1:5]] == ["(", "name", ")", "relation"]:
            variable = self.tokens[2].text  # f(x) = …
            self.i += 3
            return Name(f"{token.text}({variable})")
        named = self.i == 1 and token.text in NAMED and self.next.kind == "node" and self.next.text == "("
        if named and isinstance(variable_of := self.next.node, Name) and self.tokens[2].kind == "relation":
            self.take()
            return Name(f"{token.text}({variable_of.name})")
        of = self.next.node if token.text == "C" and self.next.text == "(" else None
        if isinstance(of, Call) and of.function == "point" and len(of.arguments) == 2:
            self.take()
            return Call("binomial", of.arguments)
        if token.text == "d" and (found := self.derivative()) is not None:
            return found
        text = CONSTANTS.get(token.text, token.text)
        if mark := self.accept("index"):
            return Name(f"{text}_{index_text(mark)}")
        if self.next.kind == "_" and self.tokens[self.i + 1].kind in ("number", "name"):
            self.take()
            return Name(f"{text}_{self.take().text}")
        if self.next.kind == "_" and self.tokens[self.i + 1].kind == "(":
            return Name(f"{text}_{self.lowered()}")
        return Name(text)

    def lowered(self) -> str:
        """The index in a_(n + 1): a sum of letters and numbers."""
        self.i += 2
        found = ""
        while self.next.kind in ("number", "name", "+", "-"):
            token = self.take()
            found += token.kind if token.kind in "+-" else token.text
        if not found or not self.accept(")"):
            raise self.fail(_("An index is a sum of letters and numbers."))
        return found

    def derivative(self) -> Node | None:
        """d/dx (…)."""
        ahead = self.tokens[self.i : self.i + 4]
        if [t.kind for t in ahead[:3]] != ["/", "name", "name"] or ahead[1].text != "d" or len(ahead) < 4:
            return None
        if ahead[3].kind not in ("(", "node"):
            return None
        self.i += 3
        return Call("derivative", (self.power(), Name(ahead[2].text)))

    def bracket(self, token: Token) -> Node:
        bars, self.bars = self.bars, 0
        inner = [self.sum()]
        while self.accept(",", ";"):
            inner.append(self.sum())
        self.bars = bars
        if not self.accept(")", "]"):
            raise self.fail(_("A bracket is not closed."), token if self.next.kind == "end" else None)
        return inner[0] if len(inner) == 1 else Call("point", tuple(inner))

    def matrix(self, token: Token) -> Node:
        """[[1, 2], [3, 4]]; [ … ] round a sum is a bracket."""
        bars, self.bars = self.bars, 0
        found = [self.sum()]
        while self.accept(",", ";"):
            found.append(self.sum())
        self.bars = bars
        if not self.accept("]", ")"):
            raise self.fail(_("A bracket is not closed."), token if self.next.kind == "end" else None)
        rows = [one for one in found if isinstance(one, Call) and one.function == "row"]
        if len(rows) == len(found):
            if len({len(row.arguments) for row in rows}) > 1:
                raise self.fail(_("The rows of a matrix are equally long."), token)
            return Call("matrix", tuple(found))
        inside = self.i > 1 and any(t.kind == "[" for t in self.tokens[: self.tokens.index(token)])
        return Call("row", tuple(found)) if len(found) > 1 or inside else found[0]

    def absolute(self, token: Token) -> Node:
        self.bars += 1
        inner = self.sum()
        self.bars -= 1
        if not self.accept("|"):
            raise self.fail(_("An absolute value is not closed."), token if self.next.kind == "end" else None)
        return Call("abs", (inner,))

    def steps(self, token: Token) -> Node:
        bars, self.bars = self.bars, 0
        inner = self.sum()
        self.bars = bars
        if not self.accept("⌋" if token.kind == "⌊" else "⌉"):
            raise self.fail(_("A bracket is not closed."), token if self.next.kind == "end" else None)
        return Call("floor" if token.kind == "⌊" else "ceil", (inner,))

    def number(self, token: Token) -> Node:
        if token.text in VULGAR:
            return Number(Fraction(*VULGAR[token.text]), "/".join(map(str, VULGAR[token.text])))
        value = token.value if token.value is not None else Fraction(token.text)
        whole = Number(value, token.plain or token.text)
        following = [t.kind for t in self.tokens[self.i : self.i + 3]] == ["number", "/", "number"]
        if following and token.text.isdigit() and self.next.text.isdigit() and self.tokens[self.i + 2].text.isdigit():
            top, _over, bottom = self.take(), self.take(), self.take()
            if int(bottom.text) == 0:
                raise self.fail(_("A fraction can't have 0 below."), bottom)
            return Number(value + Fraction(int(top.text), int(bottom.text)), f"{token.text} {top.text}/{bottom.text}")
        if self.next.text in VULGAR and token.text.isdigit():
            above, below = VULGAR[self.take().text]
            return Number(value + Fraction(above, below), f"{token.text} {above}/{below}")
        if token.text.isdigit() and (share := _plain_fraction(self.next)) is not None and self.next.tight:
            self.take()
            return Number(value + Fraction(*share), f"{token.text} {share[0]}/{share[1]}")
        return whole


def _plain_fraction(token: Token) -> tuple[int, int] | None:
    """Of a fraction of a structured row that is made of two whole numbers."""
    match token.node:
        case Binary("/", Number(above, a), Number(below, b)) if token.kind == "node" and below:
            return (int(above), int(below)) if a.isdigit() and b.isdigit() else None
    return None


def read(source: str, inserts: Mapping[int, Token] | None = None) -> Read:
    """Reads an expression or a statement. Raises ExpressionError, which points at the place."""
    if len(source) > LONGEST:
        raise ExpressionError(_("This is longer than {n} characters.").format(n=LONGEST), LONGEST)
    if not source.strip():
        raise ExpressionError(_("Type an equation, for example y = 2x + 1."), 0)
    parser = _Parser(tokens(source, inserts))
    node = parser.all()
    if tree_depth(node) > TALLEST:
        raise ExpressionError(_("This has too many parts."), len(source))
    return Read(node, tuple(parser.doubts))


def parse(source: str) -> Node:
    """The tree alone. Raises ExpressionError, which points at the place."""
    return read(source).node


def tree_depth(node: Node) -> int:
    """Levels of the tree, counted without recursion: a long sum is as deep as it has terms."""
    deepest, waiting = 0, [(node, 1)]
    while waiting:
        here, level = waiting.pop()
        deepest = max(deepest, level)
        waiting += [(child, level + 1) for child in children(here)]
    return deepest
