"""Going through tokens one by one, and saying where it went wrong."""

from __future__ import annotations

from abc import ABC, abstractmethod

from larch.core.maths.expression.lexer import Token
from larch.core.maths.expression.tree import ExpressionError, Node


class Cursor(ABC):
    """A place among tokens. `bars`: how many absolute values are open; `depth`: of nesting; `doubts`: where another reading
    would be as good, each said in a sentence."""

    def __init__(self, found: list[Token]) -> None:
        self.tokens = found
        self.i = 0
        self.bars = 0
        self.depth = 0
        self.doubts: dict[str, None] = {}

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

    def doubt(self, text: str) -> None:
        self.doubts[text] = None

    # What the grammar adds

    @abstractmethod
    def clause(self, before: Node | None = None) -> Node:
        """Conditions joined by and/or, from here on."""

    @abstractmethod
    def sum(self) -> Node:
        """Terms with + and − between them."""

    @abstractmethod
    def term(self) -> Node:
        """Factors, also without a sign between them."""

    @abstractmethod
    def signed(self) -> Node:
        """What a sign may stand before."""

    @abstractmethod
    def power(self) -> Node:
        """A base with its exponents."""

    @abstractmethod
    def postfix(self) -> Node:
        """With what follows it: !, %, °, units."""

    @abstractmethod
    def atom(self) -> Node:
        """A number, a name, or what stands in brackets."""
