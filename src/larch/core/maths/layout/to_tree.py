"""From the look to the meaning: a row is read by the same grammar as a typed line, its parts read first."""

from __future__ import annotations

from typing import NamedTuple

from larch.core.base.words import _
from larch.core.maths.expression.lexer import Token
from larch.core.maths.expression.parse import Read, read
from larch.core.maths.expression.tree import Binary, Call, ExpressionError, Joined, Name, Node, Number, Relation
from larch.core.maths.layout.rows import Fence, Fraction, Grid, Item, Limits, Lowered, Over, Raised, Root, Row, Sign

STANDS_FOR = "\ue000"  # a part that is no character
SPELT = {"⋅": "·", "→": "→", "⁢": "·", "⁡": ""}
DEEPEST = 40
WORDY = frozenset({"and", "or", "mod", "of"})


class NotRead(ExpressionError):
    """`path`: the parts to go into, each as its place in a row and the number of its inner row."""

    def __init__(self, message: str, position: int, path: tuple[tuple[int, int], ...] = ()) -> None:
        super().__init__(message, position)
        self.path = path


class Flat(NamedTuple):
    source: str
    inserts: dict[int, Token]
    where: list[int]  # of each character, the part of the row that it comes from


def read_row(row: Row, level: int = 0) -> Read:
    """The meaning of a row. Raises NotRead."""
    if level > DEEPEST:
        raise NotRead(_("This is nested too deeply."), 0)
    if not row:
        raise NotRead(_("A place is still empty."), 0)
    doubts: dict[str, None] = {}
    flat = _flat(row, level, doubts)
    try:
        found = read(flat.source, flat.inserts)
    except NotRead:
        raise
    except ExpressionError as error:
        at = flat.where[error.position] if error.position < len(flat.where) else len(row)
        raise NotRead(error.message, at) from None
    return Read(found.node, (*doubts, *found.doubts))


def tree_of(row: Row) -> Node:
    """Raises NotRead."""
    return read_row(row).node


def _flat(row: Row, level: int, doubts: dict[str, None]) -> Flat:
    source, inserts, where = "", {}, []
    for k, item in enumerate(row):
        if isinstance(item, Sign):
            text = SPELT.get(item.text, item.text)
            if item.text in WORDY:
                text = f" {text} "
            elif len(text) > 1 and text.isalpha():
                before = source[-1:].isalpha()
                text = f" {text}" if before else text
                after = row[k + 1] if k + 1 < len(row) else None
                text += " " if isinstance(after, Sign) and after.text[:1].isalnum() else ""
        elif isinstance(item, Over) and item.mark == "bar" and _digits(item.inner):
            text = "".join(f"{digit}\u0305" for digit in _digits(item.inner))
        else:
            try:
                inserts[len(source)] = _token(item, level + 1, doubts)
            except NotRead as error:
                error.path = ((k, error.path[0][1]), *error.path[1:])
                raise
            text = STANDS_FOR
        source += text
        where += [k] * len(text)
    return Flat(source, inserts, where)


def _digits(row: Row) -> str:
    text = "".join(item.text for item in row if isinstance(item, Sign))
    return text if text.isdigit() and len(row) == len(text) else ""


def _inner(row: Row, index: int, level: int, doubts: dict[str, None]) -> Node:
    """An inner row, read; where that fails, it is known which one it was."""
    try:
        found = read_row(row, level)
    except NotRead as error:
        error.path = ((0, index), *error.path)
        raise
    doubts.update(dict.fromkeys(found.doubts))
    return found.node


def plain_of(row: Row) -> str:
    """The characters of a row that holds nothing else, or ""."""
    return "".join(item.text for item in row) if all(isinstance(item, Sign) for item in row) else ""  # type: ignore[union-attr]


def _token(item: Item, level: int, doubts: dict[str, None]) -> Token:
    match item:
        case Fraction(above, below):
            over, under = plain_of(above), plain_of(below)
            if over == "d" and under[:1] == "d" and len(under) == 2:
                return Token("d/d", under[1], 0)
            top, bottom = _inner(above, 0, level, doubts), _inner(below, 1, level, doubts)
            return Token("node", "/", 0, node=Binary("/", top, bottom), tight=True)
        case Raised(inner):
            if plain_of(inner) in ("∘", "°"):
                return Token("°", "°", 0)
            return Token("power", "", 0, node=_inner(inner, 0, level, doubts))
        case Lowered(inner):
            return Token("index", plain_of(inner) or "?", 0, node=_inner(inner, 0, level, doubts))
        case Root(inner, None):
            return Token("node", "√", 0, node=Call("sqrt", (_inner(inner, 0, level, doubts),)))
        case Root(inner, degree):
            assert degree is not None
            n, x = _inner(degree, 0, level, doubts), _inner(inner, 1, level, doubts)
            if isinstance(n, Number) and n.value in (2, 3):
                return Token("node", "√", 0, node=Call("cbrt" if n.value == 3 else "sqrt", (x,)))
            return Token("node", "√", 0, node=Call("root", (x, n)))
        case Fence(left, inner, _right):
            return _fenced(left, inner, level, doubts)
        case Limits():
            return _limits(item, level, doubts)
        case Grid():
            return _grid(item, level, doubts)
        case Over(_mark, inner):
            return Token("node", "", 0, node=_inner(inner, 0, level, doubts))
    raise NotRead(_("This can't be read."), 0)


def _fenced(left: str, inner: Row, level: int, doubts: dict[str, None]) -> Token:
    if left in ("|", "⌊", "⌈"):
        function = {"|": "abs", "⌊": "floor", "⌈": "ceil"}[left]
        return Token("node", "|", 0, node=Call(function, (_inner(inner, 0, level, doubts),)))
    parts = _parted(inner)
    if len(parts) > 1:
        nodes = tuple(_inner(part, 0, level, doubts) for part in parts)
        return Token("node", "(", 0, node=Call("point", nodes))
    node = _inner(inner, 0, level, doubts)
    return Token("node", "(", 0, node=node)


def _parted(row: Row) -> list[Row]:
    """At its commas and semicolons; a comma between two digits with semicolons about is of a decimal number."""
    marks = ";" if any(isinstance(item, Sign) and item.text == ";" for item in row) else ","
    parts: list[Row] = [()]
    for item in row:
        if isinstance(item, Sign) and item.text in marks:
            parts.append(())
        else:
            parts[-1] = (*parts[-1], item)
    return parts


def _limits(item: Limits, level: int, doubts: dict[str, None]) -> Token:
    """∑ and the like: what stands below and above it, as arguments without the body."""
    if item.sign == "∫":
        ends = () if not item.low and not item.high else (
            _inner(item.low, 0, level, doubts), _inner(item.high, 1, level, doubts))  # fmt: skip
        return Token("∫", "", 0, node=Call("limits", ends))
    if item.sign == "lim":
        at = next((k for k, one in enumerate(item.low) if isinstance(one, Sign) and one.text in ("→", "->")), -1)
        letter, to = item.low[:at], item.low[at + 1 :]
        if at < 1:
            _fail_in(0, _("Below a limit stands where the letter goes, such as x → 0."))
        return Token(
            "big", "limit", 0, node=Call("limits", (_inner(letter, 0, level, doubts), _inner(to, 0, level, doubts)))
        )
    low = _inner(item.low, 0, level, doubts)
    if not (isinstance(low, Relation) and low.op == "=" and isinstance(low.left, Name)):
        _fail_in(0, _("Below it stands where the letter begins, such as k = 1."))
    assert isinstance(low, Relation)
    function = {"∑": "sum", "∏": "product"}[item.sign]
    return Token("big", function, 0, node=Call("limits", (low.left, low.right, _inner(item.high, 1, level, doubts))))


def _fail_in(index: int, message: str) -> None:
    raise NotRead(message, 0, ((0, index),))


def _grid(item: Grid, level: int, doubts: dict[str, None]) -> Token:
    wide = len(item.cells[0]) if item.cells else 0
    nodes: list[list[Node]] = []
    for i, line in enumerate(item.cells):
        made: list[Node] = []
        for k, cell in enumerate(line):
            when = item.left == "{" and k == 1
            made.append(_case(cell, i * wide + k) if when else _inner(cell, i * wide + k, level, doubts))
        nodes.append(made)
    if item.left == "{":
        flat = tuple(node for line in nodes for node in (line if len(line) == 2 else [*line, Call("otherwise", ())]))
        if wide == 1:
            return Token("node", "{", 0, node=Joined("and", tuple(line[0] for line in nodes)))
        return Token("node", "{", 0, node=Call("cases", flat))
    if item.hue == "choose" and wide == 1 and len(nodes) == 2:
        return Token("node", "C", 0, node=Call("binomial", (nodes[0][0], nodes[1][0])))
    return Token("node", "[", 0, node=Call("matrix", tuple(Call("row", tuple(line)) for line in nodes)))


def _case(cell: Row, index: int) -> Node:
    """The condition of a case."""
    words = plain_of(cell)
    if words in ("otherwise", "else", "sonst"):
        return Call("otherwise", ())
    rest = cell[1:] if cell and isinstance(cell[0], Sign) and cell[0].text in ("if", "for", "when") else cell
    return _inner(rest, index, 1, {})
