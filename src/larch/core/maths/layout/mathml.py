"""MathML in and out: presentation both ways, content in."""

from __future__ import annotations

import re
from collections.abc import Callable
from fractions import Fraction as Exact
from itertools import pairwise
from xml.etree import ElementTree

from larch.core.base.words import _
from larch.core.maths.expression.lexer import GROUPED
from larch.core.maths.expression.tree import Binary, Call, ExpressionError, Joined, Name, Negative, Node, Number, Relation
from larch.core.maths.layout.from_tree import row_of
from larch.core.maths.layout.latex import with_bars
from larch.core.maths.layout.rows import (
    WORDS,
    Fence,
    Fraction,
    Grid,
    Item,
    Limits,
    Lowered,
    Over,
    Raised,
    Root,
    Row,
    Sign,
    signs,
)

LONGEST, DEEPEST = 100_000, 80
NAMESPACE = "http://www.w3.org/1998/Math/MathML"
FENCES = {"(": ")", "[": "]", "{": "}", "|": "|", "⌊": "⌋", "⌈": "⌉"}
LARGE = {"∑": "∑", "∏": "∏", "∫": "∫", "lim": "lim"}
UNSEEN = {"\u2061": "", "\u2062": "", "\u2063": "", "\u2064": "", "\u200b": "", "\u00a0": ""}
SIGNS = {"-": "−", "*": "⋅", "·": "⋅", "∗": "⋅", "∧": "and", "∨": "or", "⩽": "≤", "⩾": "≥", "∥": "|", "′": "'"}


def looks_like_mathml(text: str) -> bool:
    return re.match(r"\s*(<\?xml[^>]*>\s*)?<(\w+:)?math\b", text) is not None


def row_from_mathml(source: str) -> Row:
    """Raises ExpressionError."""
    if len(source) > LONGEST:
        raise ExpressionError(_("This is longer than {n} characters.").format(n=LONGEST), LONGEST)
    text = re.sub(r"<!--.*?-->", "", source, flags=re.DOTALL)
    if "<!" in text:
        raise ExpressionError(_("This MathML can't be read."), text.index("<!"))
    text = re.sub(r"&(?!#|amp;|lt;|gt;|quot;|apos;)(\w+);", _entity, text)
    try:
        root = ElementTree.fromstring(text)
    except (ElementTree.ParseError, ValueError) as error:
        raise ExpressionError(_("This MathML can't be read."), 0) from error
    return with_bars(_row(root, 0))


def _entity(match: re.Match[str]) -> str:
    import html

    return html.unescape(match[0])


def _name(node: ElementTree.Element) -> str:
    return str(node.tag).rpartition("}")[2]


def _row(node: ElementTree.Element, level: int) -> Row:
    """What an element and all in it shows."""
    if level > DEEPEST:
        raise ExpressionError(_("This is nested too deeply."), 0)
    name, inner = _name(node), list(node)
    if name in ("apply", "cn", "ci", "bind") or name in CONSTANTS:
        return row_of(_content(node, level))
    if name in ("math", "mrow", "mstyle", "mpadded", "merror", "menclose", "mphantom", "mtd", "maction"):
        if len(inner) == 1 and _name(inner[0]) in ("apply", "cn", "ci"):
            return row_of(_content(inner[0], level + 1))
        return _joined(inner, level)
    if name == "semantics":
        return _row(inner[0], level + 1) if inner else ()
    if name in ("mspace", "none", "mprescripts", "annotation", "annotation-xml"):
        return ()
    text = re.sub(r"\s+", " ", "".join(node.itertext())).strip()
    for sign, plain in UNSEEN.items():
        text = text.replace(sign, plain)
    if name == "mn":
        return signs(text.replace(" ", "")) if GROUPED.fullmatch(text) else signs(text)
    if name in ("mi", "mo", "mtext", "ms"):
        return _signs_of(text, name)
    return _structure(name, inner, level)


def _signs_of(text: str, name: str) -> Row:
    if not text:
        return ()
    if text in WORDS or len(text) == 1 or (name == "mi" and text.isalpha()):
        words = {"arcsin": "asin", "arccos": "acos", "arctan": "atan", "lg": "log", "tg": "tan"}
        return (Sign(words.get(text, SIGNS.get(text, text))),)
    if name == "mtext":
        return tuple(Sign(word) for word in text.replace(",", "").split())
    return tuple(Sign(SIGNS.get(c, c)) for c in text if not c.isspace())


def _structure(name: str, inner: list[ElementTree.Element], level: int) -> Row:
    rows = [_row(child, level + 1) for child in inner]

    def need(count: int) -> None:
        if len(rows) < count:
            raise ExpressionError(_("This MathML can't be read."), 0)

    match name:
        case "mfrac":
            need(2)
            return (Fraction(rows[0], rows[1]),)
        case "msqrt":
            return (Root(tuple(item for row in rows for item in row)),)
        case "mroot":
            need(2)
            return (Root(rows[0], rows[1]),)
        case "msup":
            need(2)
            if rows[1] in ((Sign("∘"),), (Sign("°"),)):
                return (*_grouped(rows[0]), Sign("°"))
            if sign := _large_sign(rows[0]):
                return (Limits(sign, (), rows[1]),)
            return (*_grouped(rows[0]), Raised(rows[1]))
        case "msub" | "munder":
            need(2)
            if sign := _large_sign(rows[0]):
                return (Limits(sign, rows[1], ()),)
            return (*_grouped(rows[0]), Lowered(rows[1]))
        case "msubsup" | "munderover":
            need(3)
            if sign := _large_sign(rows[0]):
                return (Limits(sign, rows[1], rows[2]),)
            return (*_grouped(rows[0]), Lowered(rows[1]), Raised(rows[2]))
        case "mover":
            need(2)
            mark = "arrow" if rows[1] and isinstance(rows[1][0], Sign) and rows[1][0].text in "→⃗" else "bar"
            return (Over(mark, rows[0]),)
        case "mfenced":
            listed: Row = ()
            for k, one in enumerate(rows):
                listed = (*listed, *((Sign(","),) if k else ()), *one)
            return (Fence("(", listed, ")"),)
        case "mtable":
            cells = tuple(tuple(_row(cell, level + 2) for cell in line) for line in inner)
            wide = max((len(line) for line in cells), default=0)
            return (Grid(tuple(tuple(line) + ((),) * (wide - len(line)) for line in cells), "(", ")"),)
    return tuple(item for row in rows for item in row)


def _large_sign(row: Row) -> str:
    return LARGE.get(row[0].text, "") if len(row) == 1 and isinstance(row[0], Sign) else ""


def _grouped(row: Row) -> Row:
    """A base of several parts stays one."""
    if len(row) < 2 or all(isinstance(item, Sign) and (item.text.isdigit() or item.text in ".,") for item in row):
        return row
    return (Fence("(", row, ")"),) if not isinstance(row[-1], Fence) else row


def _joined(inner: list[ElementTree.Element], level: int) -> Row:
    """Side by side, with brackets that are operators as fences."""
    found: list[Item] = []
    opened: list[tuple[str, int]] = []
    for child in inner:
        text = "".join(child.itertext()).strip() if _name(child) == "mo" else ""
        if text in ("(", "[", "{", "⌊", "⌈"):
            opened.append((text, len(found)))
        elif text in (")", "]", "}", "⌋", "⌉") and opened:
            left, start = opened.pop()
            row = with_bars(tuple(found[start:]))
            if len(row) == 1 and isinstance(row[0], Grid):
                found[start:] = [row[0]]
            else:
                shown = "(" if left in "([" else left
                found[start:] = [Fence(shown, row, FENCES[shown])]
        else:
            found += _row(child, level + 1)
    for left, start in reversed(opened):
        row = tuple(found[start:])
        if left == "{" and len(row) == 1 and isinstance(row[0], Grid):
            found[start:] = [Grid(row[0].cells, "{", "")]
        else:
            found[start:] = [Fence(left if left in FENCES else "(", row, FENCES.get(left, ")"))]
    return tuple(found)


# Content

CONSTANTS = {"pi": "π", "exponentiale": "e", "infinity": "∞"}
RELATIONS = {"eq": "=", "neq": "≠", "lt": "<", "gt": ">", "leq": "≤", "geq": "≥"}
FUNCTIONS = {"arcsin": "asin", "arccos": "acos", "arctan": "atan", "ceiling": "ceil", "rem": "mod"}


def _content(node: ElementTree.Element, level: int) -> Node:
    if level > DEEPEST:
        raise ExpressionError(_("This is nested too deeply."), 0)
    name, inner = _name(node), list(node)
    if name == "cn":
        return _number(node)
    if name == "ci":
        return Name("".join(node.itertext()).strip()[:20] or "x")
    if name in CONSTANTS:
        return Name(CONSTANTS[name])
    if name in ("mrow", "math", "semantics") and inner:
        return _content(inner[0], level + 1)
    if name != "apply" or not inner:
        raise ExpressionError(_("This MathML can't be read."), 0)
    operator = _name(inner[0])
    parts = [child for child in inner[1:] if _name(child) not in ("degree", "logbase", "bvar", "lowlimit", "uplimit")]
    given = {
        _name(child): _content(next(iter(child)), level + 2) for child in inner[1:] if child not in parts and len(child)
    }
    return _applied(operator, [_content(part, level + 1) for part in parts], given)


def _number(node: ElementTree.Element) -> Node:
    from larch.core.maths.expression.parse import parse

    pieces = [text.strip() for text in node.itertext() if text.strip()]
    if node.get("type") == "rational" and len(pieces) == 2:
        return Binary("/", parse(pieces[0]), parse(pieces[1]))
    if node.get("type") == "e-notation" and len(pieces) == 2:
        return Number(Exact(pieces[0]) * Exact(10) ** int(pieces[1]), f"{pieces[0]}E{pieces[1]}")
    return parse("".join(pieces) or "0")


def _applied(operator: str, parts: list[Node], given: dict[str, Node]) -> Node:
    folds: dict[str, Callable[[Node, Node], Node]] = {
        "plus": lambda a, b: Binary("+", a, b), "times": lambda a, b: Binary("*", a, b, implied=True),
    }  # fmt: skip
    if operator in folds and parts:
        found = parts[0]
        for part in parts[1:]:
            found = folds[operator](found, part)
        return found
    if operator == "minus":
        return Negative(parts[0]) if len(parts) == 1 else Binary("-", parts[0], parts[1])
    if operator in ("divide", "power") and len(parts) == 2:
        return Binary("/" if operator == "divide" else "^", parts[0], parts[1])
    if operator in RELATIONS and len(parts) > 1:
        lines = [Relation(RELATIONS[operator], a, b) for a, b in pairwise(parts)]
        return lines[0] if len(lines) == 1 else Joined("and", tuple(lines), chain=True)
    if operator in ("and", "or") and len(parts) > 1:
        return Joined(operator, tuple(parts))
    if operator == "root" and parts:
        return Call("root", (parts[0], given["degree"])) if "degree" in given else Call("sqrt", (parts[0],))
    if operator == "log" and parts:
        return Call("log", (parts[0], given["logbase"])) if "logbase" in given else Call("log", (parts[0],))
    if operator == "exp" and parts:
        return Binary("^", Name("e"), parts[0])
    if operator == "int" and parts and "bvar" in given:
        ends = (given["lowlimit"], given["uplimit"]) if "uplimit" in given and "lowlimit" in given else ()
        return Call("integral", (parts[0], given["bvar"], *ends))
    if operator in ("sum", "product") and parts and len(given) == 3:
        return Call(operator, (parts[0], given["bvar"], given["lowlimit"], given["uplimit"]))
    if operator == "diff" and parts and "bvar" in given:
        return Call("derivative", (parts[0], given["bvar"]))
    known = {*WORDS, "abs", "floor", "ceil", "factorial", "min", "max", "gcd", "lcm", "mod"}
    if FUNCTIONS.get(operator, operator) in known and parts:
        return Call(FUNCTIONS.get(operator, operator), tuple(parts))
    raise ExpressionError(_("“{command}” is not known.").format(command=operator[:30]), 0)


# Out


def mathml_of_row(row: Row) -> str:
    """A whole document."""
    return f'<math xmlns="{NAMESPACE}" display="block">{_out(row)}</math>\n'


def escape(text: str) -> str:
    """For use between tags."""
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;")


def _out(row: Row) -> str:
    parts: list[str] = []
    k = 0
    while k < len(row):
        item = row[k]
        between = _between(row, k)
        if between == APPLIED:
            parts.append(f"<mo>{APPLIED}</mo>")
        elif between == TIMES:
            parts.append(f"<mo>{TIMES}</mo>")
        if isinstance(item, Sign) and item.text.isdigit():
            end = k
            while end < len(row) and _is_digit(row[end], item.hue):
                end += 1
            digits = "".join(one.text for one in row[k:end] if isinstance(one, Sign)).rstrip(".")
            parts.append(_tinted(f"<mn>{digits}</mn>", item.hue))
            k += len(digits)
            continue
        if isinstance(item, Raised | Lowered):
            base = parts.pop() if parts else "<mrow/>"
            tag = "msup" if isinstance(item, Raised) else "msub"
            parts.append(_tinted(f"<{tag}>{base}{_held(item.inner)}</{tag}>", item.hue))
        elif between == AND and parts:
            parts[-1] = f"<mrow>{parts[-1]}<mo>{AND}</mo>{_tinted(_one(item), item.hue)}</mrow>"
        else:
            parts.append(_tinted(_one(item), item.hue))
        k += 1
    return "".join(parts)


APPLIED, TIMES, AND = "\u2061", "\u2062", "\u2064"  # signs that are not seen


def _is_digit(item: Item, hue: str) -> bool:
    return isinstance(item, Sign) and (item.text.isdigit() or item.text == ".") and item.hue == hue


def _between(row: Row, k: int) -> str:
    """The unseen sign before a part: of a product that is written side by side, a mixed number, a function."""
    if not 0 < k < len(row):
        return ""
    start = k - 1
    while start > 0 and isinstance(row[start], Raised | Lowered):
        start -= 1
    before, after = row[start], row[k]
    if isinstance(before, Sign) and before.text in WORDS:
        joins = before.text in ("and", "or", "mod", "if")
        return "" if joins or isinstance(after, Raised | Lowered) or not _begins(after) else APPLIED
    if not (_ends(row[k - 1]) and _begins(after)):
        return ""
    both = isinstance(after, Fraction) and isinstance(row[k - 1], Sign) and _is_digit(row[k - 1], row[k - 1].hue)
    if both and isinstance(after, Fraction) and all(_is_digit(one, one.hue) for one in (*after.above, *after.below)):
        return AND
    return TIMES


def _ends(item: Item) -> bool:
    if isinstance(item, Sign):
        return item.text not in WORDS and (item.text[-1:].isalnum() or item.text in ("!", "°", "%"))
    return not isinstance(item, Limits)


def _begins(item: Item) -> bool:
    if isinstance(item, Sign):
        return item.text not in ("and", "or", "mod") and item.text[:1].isalnum()
    return not isinstance(item, Raised | Lowered | Over)


def _tinted(text: str, hue: str) -> str:
    return f'<mstyle class="{escape(hue)}">{text}</mstyle>' if hue and hue != "choose" else text


def _held(row: Row) -> str:
    inner = _out(row)
    return inner if len(row) == 1 and not isinstance(row[0], Raised | Lowered) else f"<mrow>{inner}</mrow>"


def _one(item: Item) -> str:
    match item:
        case Sign(text):
            letter = text.isalpha() and text not in ("and", "or", "mod")
            return f"<mi>{escape(text)}</mi>" if letter or text == "∞" else f"<mo>{escape(text)}</mo>"
        case Fraction(above, below):
            return f"<mfrac>{_held(above)}{_held(below)}</mfrac>"
        case Root(inner, None):
            return f"<msqrt>{_held(inner)}</msqrt>"
        case Root(inner, degree):
            return f"<mroot>{_held(inner)}{_held(degree or ())}</mroot>"
        case Fence(left, inner, right):
            return f"<mrow><mo>{escape(left)}</mo>{_out(inner)}<mo>{escape(right)}</mo></mrow>"
        case Limits(sign, low, high):
            base = f"<mi>{sign}</mi>" if sign == "lim" else f"<mo>{sign}</mo>"
            if low and high:
                return f"<munderover>{base}{_held(low)}{_held(high)}</munderover>"
            return f"<munder>{base}{_held(low)}</munder>" if low else base
        case Grid(cells, left, right):
            lines = "".join(f"<mtr>{''.join(f'<mtd>{_out(cell)}</mtd>' for cell in line)}</mtr>" for line in cells)
            close = f"<mo>{right}</mo>" if right else ""
            if item.hue == "choose":
                return f"<mrow><mi>C</mi><mo>(</mo>{_out(cells[0][0])}<mo>,</mo>{_out(cells[1][0])}<mo>)</mo></mrow>"
            return f"<mrow><mo>{left}</mo><mtable>{lines}</mtable>{close}</mrow>"
        case Over(mark, inner):
            return f"<mover>{_held(inner)}<mo>{'¯' if mark == 'bar' else '→'}</mo></mover>"
    raise TypeError(item)
