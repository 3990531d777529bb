"""Input as someone might make it who means harm: by the grammar of what is read, with what lies at its edges."""

from __future__ import annotations

import base64
import json
import random
import struct
from collections.abc import Callable
from typing import Any

NUMBERS = (
    "0", "-0", "1", "-1", "0.5", "1e-320", "1e308", "-1e308", "1e999", "nan", "inf", "99999999999999999999", "1e-7", "3%",
    "",
)  # fmt: skip
WORDS = (
    "", "a", "lantern", "<b>x</b>", "<img src=/dev/zero>", "\ud83d", "\ude00x", "🏮", "{AB}", "{" * 30, "a\0b", "\u202eabc",
    "ل" * 40, "\n" * 50, "%s%n", "../../x", "x" * 3000, "=", "{=}", "½", "#p1", "file:///x.desktop", "http://[", "sound:x",
)  # fmt: skip
TAGS = (
    "<", ">", "<p>", "</p>", "<b>", "</b>", "<script>", "<script", "</script>", "<!--", "-->", "<![CDATA[", "<![", "<!", "&",
    "&amp;", "&#0;", "&#xD800;", "<li>", "<ul>", "<table><tr>", "<span style='font-weight:bold", "'>", '">', "<style>", "</",
    "<br/>", '<p style="', *WORDS,
)  # fmt: skip
SIGNS = ("+", "-", "*", "/", "^", "·", " ", "=", "<", "!", "||", "%")
NAMES = ("sin", "cos", "tan", "sqrt", "ln", "root", "mod", "floor", "abs", "f", "max", "factorial", "", "asin")
ELEMENTS = (
    "g", "rect", "circle", "path", "text", "use", "image", "mask", "filter", "pattern", "linearGradient", "clipPath",
    "style", "script", "a", "symbol", "svg", "foreignObject", "animate",
)  # fmt: skip
Random = random.Random


def number(rnd: Random) -> str:
    return rnd.choice(NUMBERS) if rnd.random() < 0.4 else f"{rnd.uniform(-200, 200):.3g}"


# Drawings


def svg(rnd: Random) -> bytes:
    """An SVG: nested groups, gradients, masks, filters, patterns, uses, text, and what is none of these."""
    left = [rnd.choice((5, 20, 80, 300))]

    def path() -> str:
        return "".join(
            rnd.choice("MLCQAZmlcqahvz") + " ".join(number(rnd) for _ in range(rnd.randrange(8))) for _ in range(6)
        )

    def element(depth: int) -> str:
        left[0] -= 1
        name = rnd.choice(ELEMENTS)
        inner = ""
        while depth < rnd.choice((3, 8, 140)) and left[0] > 0 and rnd.random() < 0.7:
            inner += element(depth + 1)
        if name in ("text", "style", "script"):
            inner += rnd.choice(("x", "@import 'http://x';", "rect{fill:url(http://x)}", "&#0;", "&lt;b&gt;", "]]&gt;"))
        if name == "linearGradient":
            inner += f'<stop offset="{number(rnd)}" stop-color="{rnd.choice(("red", "#12", "url(#a)", ""))}"/>' * rnd.choice(
                (1, 3, 900)
            )
        if name == "filter":
            inner += f'<feGaussianBlur stdDeviation="{number(rnd)}"/>' * rnd.choice((1, 4, 60))
        own = {
            "id": f"i{rnd.randrange(6)}", "x": number(rnd), "width": number(rnd), "height": number(rnd), "r": number(rnd),
            "d": path(),
            "transform": rnd.choice(("scale(0)", "scale(1e9)", "matrix(1,2,3)", "rotate(nan)", f"translate({number(rnd)})")),
            "opacity": number(rnd), "fill": rnd.choice(("red", f"url(#i{rnd.randrange(6)})", "url(http://x)", "none")),
            "mask": f"url(#i{rnd.randrange(6)})", "filter": f"url(#i{rnd.randrange(6)})", "style": f"opacity:{number(rnd)}",
            "xlink:href": rnd.choice((f"#i{rnd.randrange(6)}", "file:///etc/passwd", "data:image/png;base64,AAAA", "http://x")),
            "onload": "x()", "font-size": number(rnd),
        }  # fmt: skip
        chosen = rnd.sample(sorted(own), rnd.randrange(len(own)))
        return f"<{name} " + " ".join(f'{key}="{own[key]}"' for key in chosen) + f">{inner}</{name}>"

    head = rnd.choice(("", "<?xml version='1.0'?>", "<!DOCTYPE svg [<!ENTITY a 'b'>]>", "\ufeff"))
    view = rnd.choice(('viewBox="0 0 100 100"', f'viewBox="{number(rnd)} 0 {number(rnd)} 9"', 'width="1e9" height="3"', ""))
    spaces = 'xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink"'
    made = f"{head}<svg {spaces} {view}>{element(0)}{element(0)}</svg>".encode("utf-8", "replace")
    return made[: rnd.randrange(len(made))] if rnd.random() < 0.1 else made


# Pasted pages


def html(rnd: Random) -> str:
    return "".join(rnd.choice(TAGS) * rnd.choice((1, 1, 1, 40, 2000)) for _ in range(rnd.randrange(1, 40)))


# Expressions


def expression(rnd: Random) -> str:
    def part(depth: int) -> str:
        roll = rnd.random()
        if depth > rnd.choice((2, 4, 9, 60)) or roll < 0.25:
            return rnd.choice(("x", "y", "2", "10^9", "pi", "0", "1/0", "1e308", "½", "x y", "-3", "9" * 40, "°", ",", ""))
        if roll < 0.6:
            return part(depth + 1) + rnd.choice(SIGNS) + part(depth + 1)
        name = rnd.choice(
            ("sin", "cos", "tan", "sqrt", "ln", "root", "mod", "floor", "abs", "f", "max", "factorial", "", "asin")
        )
        return f"{name}({part(depth + 1)}{rnd.choice(('', ',' + part(depth + 1)))}{rnd.choice((')', ')', ')', ''))}"

    return part(0)


# Pages of lessons


def _sample(rnd: Random) -> Any:
    return rnd.choice((None, True, 0, -1, 1e308, 10**30, -1e-320, 3.5, [], {}, [[]], *WORDS))


def page(rnd: Random, pages: list[Any]) -> bytes:
    """A page of the demo lesson with some values replaced, doubled, dropped or moved elsewhere."""
    made = json.loads(json.dumps(rnd.choice(pages)))
    for _ in range(rnd.choice((1, 1, 2, 5, 30))):
        _mutate(rnd, made)
    text = json.dumps(made)
    return text.encode("utf-8", "surrogatepass")


def _mutate(rnd: Random, made: Any) -> None:
    holder: Any = made
    for _depth in range(rnd.randrange(1, 7)):
        inside = [
            value
            for value in (holder.values() if isinstance(holder, dict) else holder)
            if isinstance(value, dict | list) and value
        ]
        if not inside:
            break
        holder = rnd.choice(inside)
    if isinstance(holder, dict) and holder:
        key = rnd.choice(sorted(holder))
        roll = rnd.random()
        if roll < 0.6:
            value = holder[key]
            holder[key] = rnd.choice((_sample(rnd), value, [value], -value if isinstance(value, int | float) else value))
        elif roll < 0.8:
            del holder[key]
        else:
            holder[rnd.choice(("extra", "kind", "id", "name", *sorted(holder)))] = _sample(rnd)
    elif isinstance(holder, list) and holder:
        k = rnd.randrange(len(holder))
        if rnd.random() < 0.5:
            holder[k] = _sample(rnd)
        else:
            holder.extend([holder[k]] * rnd.choice((1, 3, 40)))


def ink(rnd: Random) -> bytes:
    """A page with one stroke, whose samples are anything."""
    count = rnd.choice((0, 1, 2, 3, 50, 4000))
    data = b"".join(
        struct.pack("<4f", *(rnd.choice((rnd.uniform(-500, 500), 0.0, 1e30, float("nan"), float("inf"))) for _ in range(4)))
        if rnd.random() < 0.05
        else struct.pack("<4f", rnd.uniform(0, 900), rnd.uniform(0, 600), rnd.random(), 5.0 * k)
        for k in range(count)
    ) + rnd.choice((b"", b"xyz"))
    thing = {
        "kind": "ink", "id": "t1", "points": base64.b64encode(data).decode(), "nib": rnd.choice(("pen", "quill", "")),
        "form": rnd.choice(("free", "line", "curve", "knot")), "dash": rnd.choice(("", "dots", "morse")),
        "ends": rnd.choice(("", "end", "feathers")), "width": rnd.choice((5, 0, -3, 1e9)),
        "hue": rnd.choice(("needle", "#12", "")),
    }  # fmt: skip
    return json.dumps({"id": "p1", "things": [thing]}).encode()


GRAMMARS: dict[str, Callable[[Random], bytes | str]] = {"svg": svg, "html": html, "expression": expression, "ink": ink}
