"""LaTeX in and out: the part of it that school mathematics is written in.

What is read is what people and pages write (amsmath); what is written is plain enough for any program that takes LaTeX.
"""

from __future__ import annotations

import re
from typing import NamedTuple

from larch.core.base.words import _
from larch.core.maths.expression.tree import ExpressionError
from larch.core.maths.expression.words import GREEK
from larch.core.maths.layout.rows import WORDS, Fence, Fraction, Grid, Item, Limits, Lowered, Over, Raised, Root, Row, Sign

LONGEST, DEEPEST = 20_000, 60
SIGNS = {
    "cdot": "⋅", "times": "×", "div": "÷", "pm": "±", "mp": "∓", "leq": "≤", "le": "≤", "geq": "≥", "ge": "≥", "neq": "≠",
    "ne": "≠", "lt": "<", "gt": ">", "infty": "∞", "to": "→", "rightarrow": "→", "land": "and", "lor": "or", "wedge": "and",
    "vee": "or", "degree": "°", "circ": "∘", "ast": "⋅", "colon": ":", "leqslant": "≤", "geqslant": "≥", "mid": "|",
    "lbrace": "{", "rbrace": "}", "lvert": "|", "rvert": "|", "vert": "|", "lfloor": "⌊", "rfloor": "⌋", "lceil": "⌈",
    "rceil": "⌉", "bullet": "⋅", "euro": "€", "prime": "'", "And": "and", "lbrack": "[", "rbrack": "]", "bmod": "mod",
    "permil": "‰", "star": "⋅", "slash": "/", "equals": "=", "minus": "−", "plus": "+", "varphi": "φ", "vartheta": "θ",
    "varepsilon": "ε", "ell": "l", "textdegree": "°", "eq": "=", "mod": "mod", "approx": "≈",
}  # fmt: skip
SPACES = frozenset({"quad", "qquad", ",", ";", ":", "!", " ", "thinspace", "medspace", "thickspace", "space", "enspace",
                    "displaystyle", "textstyle", "scriptstyle", "limits", "nolimits", "left.", "right.", "nonumber", "/",
                    "big", "Big", "bigl", "bigr", "Bigl", "Bigr", "bigg", "biggl", "biggr", "phantom"})  # fmt: skip
OPENING = {"lfloor": ("⌊", "rfloor"), "lceil": ("⌈", "rceil"), "lvert": ("|", "rvert"), "lbrack": ("(", "rbrack"),
           "lbrace": ("{", "rbrace")}  # fmt: skip
LARGE = {"sum": "∑", "prod": "∏", "int": "∫", "lim": "lim"}
ARC = {"arcsin": "asin", "arccos": "acos", "arctan": "atan"}
NAMES = {**{word: word for word in WORDS}, **ARC, "lg": "log", "tg": "tan", "ctg": "cot", "sgn": "sign"}
PARTNERS = {"(": ")", "[": "]", "{": "}", "|": "|", "⌊": "⌋", "⌈": "⌉"}
GRIDS = {"pmatrix": ("(", ")"), "bmatrix": ("[", "]"), "matrix": ("(", ")"), "vmatrix": ("|", "|"), "cases": ("{", ""),
         "array": ("(", ")"), "aligned": ("", ""), "align": ("", ""), "align*": ("", ""), "smallmatrix": ("(", ")"),
         "gathered": ("", ""), "equation": ("", ""), "equation*": ("", ""), "dcases": ("{", "")}  # fmt: skip
MINUS = "-−–"
TOKEN = re.compile(r"\\([A-Za-z]+\*?|.)|(\s+)|(.)", re.DOTALL)


class _Piece(NamedTuple):
    """kind: command, space or sign."""

    kind: str
    text: str
    at: int


def looks_like_latex(text: str) -> bool:
    return (
        "\\" in text
        or re.search(r"[_^]\{|\{[,.]\}", text) is not None
        or (text.strip().startswith("$") and text.strip().endswith("$"))
    )


def row_from_latex(source: str) -> Row:
    """Raises ExpressionError, which points at the place."""
    if len(source) > LONGEST:
        raise ExpressionError(_("This is longer than {n} characters.").format(n=LONGEST), LONGEST)
    inner = source.strip()
    for left, right in (("$$", "$$"), ("$", "$"), ("\\(", "\\)"), ("\\[", "\\]")):
        if inner.startswith(left) and inner.endswith(right) and len(inner) > len(left):
            inner = inner[len(left) : -len(right)]
    return _Reader(inner).all()


class _Reader:
    def __init__(self, source: str) -> None:
        found = [_Piece("command" if m[1] else "space" if m[2] else "sign", m[1] or m[2] or m[3], m.start()) for m in
                 TOKEN.finditer(source)]  # fmt: skip
        self.pieces = [piece for piece in found if piece.kind != "space"]
        self.pieces.append(_Piece("end", "", len(source)))
        self.i = 0
        self.depth = 0

    @property
    def next(self) -> _Piece:
        return self.pieces[self.i]

    def take(self) -> _Piece:
        piece = self.pieces[self.i]
        self.i += piece.kind != "end"
        return piece

    def all(self) -> Row:
        row = self.row(())
        if self.next.kind != "end":
            raise self.fail(_("“{sign}” does not fit here.").format(sign=self.next.text))
        return row

    def fail(self, message: str) -> ExpressionError:
        return ExpressionError(message, self.next.at)

    def row(self, ends: tuple[str, ...]) -> Row:
        """Up to one of some ends, which is not taken."""
        self.depth += 1
        if self.depth > DEEPEST:
            raise self.fail(_("This is nested too deeply."))
        found: list[Item] = []
        while self.next.kind != "end" and not self._at(ends):
            found += self.item()
        self.depth -= 1
        return with_bars(tuple(found))

    def _at(self, ends: tuple[str, ...]) -> bool:
        piece = self.next
        text = "\\" + piece.text if piece.kind == "command" else piece.text
        return text in ends

    def group(self) -> Row:
        """{…}, or the one thing that follows."""
        if self.next.kind == "sign" and self.next.text == "{":
            self.take()
            row = self.row(("}",))
            if self.take().text != "}":
                raise self.fail(_("A bracket is not closed."))
            return row
        if self.next.kind == "end":
            raise self.fail(_("Something is missing at the end."))
        if self.next.kind == "sign" and self.next.text not in "^_":
            return (Sign(_plain(self.take().text)),)
        return tuple(self.item())

    def optional(self) -> Row | None:
        if self.next.kind == "sign" and self.next.text == "[":
            self.take()
            row = self.row(("]",))
            self.take()
            return row
        return None

    def words(self) -> str:
        """The text of a group, as it stands."""
        if self.next.text != "{":
            return self.take().text
        self.take()
        found = ""
        while self.next.kind != "end" and self.next.text != "}":
            piece = self.take()
            found += "" if piece.kind == "command" and piece.text in SPACES else piece.text
        self.take()
        return found

    def item(self) -> list[Item]:
        piece = self.take()
        if piece.kind == "command":
            return self.command(piece)
        match piece.text:
            case "{":
                self.i -= 1
                inner = self.group()
                if len(inner) == 1 and isinstance(inner[0], Sign) and inner[0].text in (",", "."):
                    return list(inner)  # 1{,}5
                return list(inner)
            case "^":
                inner = self.group()
                if len(inner) == 1 and isinstance(inner[0], Sign) and inner[0].text in ("∘", "°"):
                    return [Sign("°")]
                return [Raised(inner)]
            case "_":
                return [Lowered(self.group())]
            case "(" | "[":
                return self.fenced(piece.text, (")", "]"))
            case "}" | ")" | "]":
                self.i -= 1
                raise self.fail(_("This bracket was never opened."))
            case "&" | "~":
                return []
            case "%":
                return []
        return [Sign(_plain(piece.text))]

    def fenced(self, left: str, ends: tuple[str, ...]) -> list[Item]:
        inner = self.row(ends)
        if self.next.kind == "end":
            raise self.fail(_("A bracket is not closed."))
        self.take()
        return [Fence("(" if left == "[" else left, inner, ")" if left in "([" else PARTNERS[left])]

    def command(self, piece: _Piece) -> list[Item]:
        name = piece.text
        if name in ("frac", "dfrac", "tfrac", "cfrac"):
            above = self.group()
            return [Fraction(above, self.group())]
        if name == "sqrt":
            degree = self.optional()
            return [Root(self.group(), degree)]
        if name in ("binom", "dbinom", "tbinom"):
            above = self.group()
            return [Grid(((above,), (self.group(),)), "(", ")", "choose")]
        if name in ("left", "mleft"):
            return self.left()
        if name in LARGE:
            return self.large(LARGE[name])
        if name == "begin":
            return self.environment()
        if name in ("text", "mathrm", "mathit", "textrm", "mbox", "operatorname", "operatorname*", "textit", "mathsf", "rm"):
            return self.text(self.words())
        if name in ("overline", "bar", "dot", "widebar"):
            return [Over("bar", self.group())]
        if name in ("vec", "overrightarrow"):
            return [Over("arrow", self.group())]
        if name in ("color", "textcolor"):
            return self.coloured(name)
        if name in ("mathbf", "mathbb", "boldsymbol", "mathcal", "underline", "boxed", "ensuremath", "mathord", "mathop"):
            return list(self.group())
        if name in OPENING:
            left, partner = OPENING[name]
            return self.fenced(left, (f"\\{partner}",))
        if name == "{":
            return self.fenced("{", ("\\}",))
        if name in ("pmod",):
            return [Sign("mod"), *self.group()]
        if name in SPACES or name == "\\":
            return [Sign(";")] if name == "\\" and self.next.kind != "end" else []
        if name == "%":
            return [Sign("%")]
        if NAMES.get(name):
            return [Sign(NAMES[name])]
        if name in SIGNS:
            return [Sign(SIGNS[name])]
        if name in GREEK:
            return [Sign(GREEK[name])]
        self.i -= 1
        raise self.fail(_("“{command}” is not known.").format(command="\\" + name[:30]))

    def left(self) -> list[Item]:
        opening = self._delimiter()
        inner: list[Item] = []
        self.depth += 1
        if self.depth > DEEPEST:
            raise self.fail(_("This is nested too deeply."))
        while self.next.kind != "end" and not self._at(("\\right", "\\mright")):
            inner += self.item()
        self.depth -= 1
        if self.next.kind == "end":
            raise self.fail(_("A bracket is not closed."))
        self.take()
        closing = self._delimiter()
        row = with_bars(tuple(inner))
        if opening == "{" and closing == "" and len(row) == 1 and isinstance(row[0], Grid):
            return [Grid(row[0].cells, "{", "")]
        if opening in ("(", "[", "|") and len(row) == 1 and isinstance(row[0], Grid) and row[0].left in ("", "("):
            return [Grid(row[0].cells, "(" if opening != "|" else "|", ")" if opening != "|" else "|")]
        if not opening and not closing:
            return list(row)
        shown = {"[": "(", "]": ")"}
        return [Fence(shown.get(opening, opening) or "(", row, shown.get(closing, closing) or ")")]

    def _delimiter(self) -> str:
        piece = self.take()
        if piece.kind == "command":
            return SIGNS.get(piece.text, piece.text if piece.text in "{}|" else "")
        return "" if piece.text == "." else piece.text

    def large(self, sign: str) -> list[Item]:
        low: Row = ()
        high: Row = ()
        while (self.next.kind == "sign" and self.next.text in ("_", "^")) or self._at(("\\limits", "\\nolimits")):
            if self.take().text == "_":
                low = self.group()
            elif self.pieces[self.i - 1].text == "^":
                high = self.group()
        return [Limits(sign, low, high)]

    def environment(self) -> list[Item]:
        name = self.words()
        if name not in GRIDS:
            raise self.fail(_("“{command}” is not known.").format(command=name[:30]))
        if name == "array":
            self.words()
        lines: list[list[Row]] = [[()]]
        while self.next.kind != "end" and not self._at(("\\end",)):
            if self.next.kind == "sign" and self.next.text == "&":
                self.take()
                lines[-1].append(())
            elif self.next.kind == "command" and self.next.text == "\\":
                self.take()
                lines.append([()])
            elif self._at(("\\hline",)):
                self.take()
            else:
                lines[-1][-1] = (*lines[-1][-1], *self.item())
        if self.next.kind == "end":
            raise self.fail(_("A bracket is not closed."))
        self.take()
        self.words()
        lines = [[with_bars(cell) for cell in line] for line in lines if line != [()]]
        left, right = GRIDS[name]
        if not left and name != "matrix":
            rows = [tuple(item for cell in line for item in cell) for line in lines]
            flat: Row = rows[0] if rows else ()
            for row in rows[1:]:
                flat = (*flat, Sign(";"), *row)
            return list(flat)
        wide = max((len(line) for line in lines), default=0)
        return [Grid(tuple(tuple(line + [()] * (wide - len(line))) for line in lines), left, right)]

    def text(self, words: str) -> list[Item]:
        found: list[Item] = []
        for word in words.replace(",", " ").split():
            known = NAMES.get(word, word)
            found += [Sign(known)] if len(known) > 1 or known.isalpha() else [Sign(c) for c in known]
        return found

    def coloured(self, name: str) -> list[Item]:
        import msgspec

        hue = self.words()
        inner = self.group() if name == "textcolor" else self.row(("}", "\\end", "\\right"))
        return [
            item if isinstance(item, Grid) and item.hue else msgspec.structs.replace(item, hue=hue[:20]) for item in inner
        ]


def _plain(text: str) -> str:
    return "−" if text in MINUS else "⋅" if text == "*" else text


def with_bars(row: Row) -> Row:
    """|…| as a fence: a bar opens where a value may begin."""
    found: list[Item] = []
    opened: list[int] = []
    for item in row:
        if item == Sign("|"):
            last = found[-1] if found else None
            begins = last is None or len(found) - 1 in opened or (
                isinstance(last, Sign) and not last.text[-1:].isalnum() and last.text not in ("!", "°", "%")) or (
                isinstance(last, Sign) and last.text in WORDS)  # fmt: skip
            if opened and not begins:
                start = opened.pop()
                found[start:] = [Fence("|", tuple(found[start + 1 :]), "|")]
                continue
            opened.append(len(found))
        found.append(item)
    return tuple(found)


# Out

# fmt: off
BACK = {
    **{sign: f"\\{name} " for name, sign in GREEK.items()},
    "⋅": "\\cdot ", "·": "\\cdot ", "×": "\\times ", "÷": "\\div ", "±": "\\pm ", "∓": "\\mp ", "≤": "\\leq ", "≥": "\\geq ",
    "≠": "\\neq ", "∞": "\\infty ", "→": "\\to ", "−": "-", "%": "\\%", "°": "^{\\circ}", "and": "\\land ", "or": "\\lor ",
    "mod": "\\bmod ", "‰": "\\permil ", "€": "\\euro ", "{": "\\{", "}": "\\}", "if": "\\text{if }",
    "otherwise": "\\text{otherwise}", "≈": "\\approx ",
}
OWN = frozenset({"sin", "cos", "tan", "cot", "sec", "csc", "sinh", "cosh", "tanh", "ln", "log", "min", "max", "gcd", "exp"})
ARCS = {"asin": "\\arcsin ", "acos": "\\arccos ", "atan": "\\arctan "}
DELIMITERS = {
    "(": "(", ")": ")", "[": "[", "]": "]", "|": "|", "{": "\\{", "}": "\\}", "⌊": "\\lfloor ", "⌋": "\\rfloor ",
    "⌈": "\\lceil ", "⌉": "\\rceil ", "": ".",
}
# fmt: on


def latex(row: Row) -> str:
    """A row in LaTeX, an empty place as {}."""
    return "".join(map(_written, row)).strip()


def _written(item: Item) -> str:
    text = _bare(item)
    return f"\\textcolor{{{item.hue}}}{{{text}}}" if item.hue and item.hue != "choose" else text


def _bare(item: Item) -> str:
    match item:
        case Sign(text):
            if text in BACK:
                return BACK[text]
            if text in OWN:
                return f"\\{text} "
            if text in ARCS:
                return ARCS[text]
            return f"\\operatorname{{{text}}}" if len(text) > 1 and text.isalpha() else text
        case Fraction(above, below):
            return f"\\frac{{{latex(above)}}}{{{latex(below)}}}"
        case Raised(inner):
            return f"^{{{latex(inner)}}}"
        case Lowered(inner):
            return f"_{{{latex(inner)}}}"
        case Root(inner, None):
            return f"\\sqrt{{{latex(inner)}}}"
        case Root(inner, degree):
            return f"\\sqrt[{latex(degree or ())}]{{{latex(inner)}}}"
        case Fence(left, inner, right):
            return f"\\left{DELIMITERS[left]}{latex(inner)}\\right{DELIMITERS[right]}"
        case Limits(sign, low, high):
            name = {value: key for key, value in LARGE.items()}[sign]
            under = f"_{{{latex(low)}}}" if low else ""
            return f"\\{name}{under}" + (f"^{{{latex(high)}}} " if high else " ")
        case Grid(cells, left, _right, hue):
            if hue == "choose":
                return f"\\binom{{{latex(cells[0][0])}}}{{{latex(cells[1][0])}}}"
            name = {"{": "cases", "(": "pmatrix", "[": "bmatrix", "|": "vmatrix"}.get(left, "matrix")
            shown = " \\\\ ".join(" & ".join(map(latex, line)) for line in cells)
            return f"\\begin{{{name}}}{shown}\\end{{{name}}}"
        case Over(mark, inner):
            return f"\\{'overline' if mark == 'bar' else 'vec'}{{{latex(inner)}}}"
    raise TypeError(item)
