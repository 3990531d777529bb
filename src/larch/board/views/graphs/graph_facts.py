"""Facts of a graph that the worker finds: what stands out on it, and what is said of it as a whole."""

from __future__ import annotations

from collections.abc import Iterator

from larch.board.marks import Mark, marks
from larch.core.base.words import N_, _
from larch.core.maths.graph import MARKED, Curve
from larch.core.model.fact import Fact
from larch.core.model.page import Page
from larch.core.things.graphs.equation import Equation
from larch.core.things.graphs.steering import Window, window_for

WHOLE = {
    "domain": N_("domain"), "range": N_("range"), "symmetry": N_("symmetry"), "period": N_("period"),
    "asymptotes": N_("asymptotes"), "rises": N_("rises"), "falls": N_("falls"),
}  # fmt: skip
KINDS = {
    "zero": N_("zero"), "axis": N_("y-axis"), "minimum": N_("minimum"), "maximum": N_("maximum"),
    "inflection": N_("inflection"), "pole": N_("pole"), "open": N_("open end"), "closed": N_("end"),
    "meeting": N_("meeting"), "leftmost": N_("furthest left"), "rightmost": N_("furthest right"),
    "double": N_("crosses itself"),
}  # fmt: skip
LISTED = {"zero": N_("zeros"), "minimum": N_("minima"), "maximum": N_("maxima"), "inflection": N_("inflections"),
          "pole": N_("poles"), "open": N_("open ends"), "axis": N_("on the y-axis"),
          "leftmost": N_("furthest left"), "rightmost": N_("furthest right"), "double": N_("crosses itself")}  # fmt: skip
MOST = 8


def marks_of(equation: Equation, page: Page) -> tuple[Mark, ...]:
    """What stands out on its graph within its axes, as far as it is known by now."""
    axes, curve = window_for(equation, page), equation.curve()
    return () if axes is None or curve is None else marks_on(axes, equation, curve)


def marks_on(axes: Window, equation: Equation, curve: Curve) -> tuple[Mark, ...]:
    if curve.along not in MARKED or curve.op != "=":
        return ()
    if curve.along in ("x", "y"):
        return marks.of(equation.source, letters_of(equation), *ends_of(axes, curve.along))
    window = (axes.x_min, axes.x_max, axes.y_min, axes.y_max)
    ends = window if curve.along == "xy" else curve.span
    return marks.of_curve(equation.source, letters_of(equation), curve.along, ends)


def letters_of(equation: Equation) -> tuple[tuple[str, str], ...]:
    return tuple(pair for pair in equation.told if pair[0])


def ends_of(axes: Window, along: str) -> tuple[float, float]:
    return (axes.x_min, axes.x_max) if along == "x" else (axes.y_min, axes.y_max)


def mark_words(mark: Mark) -> str:
    """The word for it, and where it is."""
    return f"{_(KINDS[mark.kind])} {mark.text}"


def graph_facts(equation: Equation, page: Page) -> Iterator[Fact]:
    axes, curve = window_for(equation, page), equation.curve()
    if axes is None or curve is None or curve.along not in MARKED or curve.op != "=":
        return
    found = marks_on(axes, equation, curve)
    for kind, label in LISTED.items():
        texts = list(dict.fromkeys(mark.text for mark in found if mark.kind == kind))
        if texts:
            if kind == "zero" and curve.along in ("x", "y"):
                texts = [text.strip("()").split(";")[0 if curve.along == "x" else -1].strip() for text in texts]
            text = "; ".join(texts[:MOST]) + (" …" if len(texts) > MOST else "")
            yield Fact(f"graph {kind}", text, text=text, label=_(label), part="measures")
    if curve.along == "x":
        for name, text in marks.character(equation.source, letters_of(equation), *ends_of(axes, "x")):
            yield Fact(f"graph {name}", text, text=text, label=_(WHOLE[name]), part="measures")
