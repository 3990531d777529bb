"""Functions whose zeros, turning points, poles, holes and jumps are known because they were made from them."""

from __future__ import annotations

import math
from collections.abc import Iterator
from typing import NamedTuple

import pytest

from larch.core.maths.layout.reading import meaning
from larch.core.maths.plot.answer import function_of, plot_answer
from larch.core.maths.plot.features import features

LOW, HIGH = -10.0, 10.0


class Known(NamedTuple):
    source: str
    roots: list[float]
    extrema: list[tuple[float, str]]


def kept(values: list[float]) -> list[float]:
    return sorted({round(v, 12): v for v in values if LOW <= v <= HIGH}.values())


def products() -> Iterator[Known]:
    """a (x − p)(x − q)(x − r): its zeros; the turning points are those of its derivative, a quadratic."""
    for k, (p, q, r) in enumerate([(-5, 0, 3), (-2.5, 1.25, 4), (1, 2, 3), (-7, -6, 8), (0.1, 0.2, 5), (-9, 0.5, 9),
                                   (2, 3, 7.75),
                                   (-4, -3.5, -1), (-0.01, 0, 6), (1, 4, 4.001)]):  # fmt: skip
        for a in (1, -2, 0.3, 5):
            s, t = p + q + r, p * q + q * r + p * r
            root = math.sqrt(s * s - 3 * t)
            first, second = (s - root) / 3, (s + root) / 3
            kinds = ("maximum", "minimum") if a > 0 else ("minimum", "maximum")
            source = f"{a}(x - ({p}))(x - ({q}))(x - ({r}))"
            yield Known(source, kept([p, q, r]), [(x, kind) for x, kind in zip((first, second), kinds, strict=True)
                                                  if LOW < x < HIGH])  # fmt: skip
            if k > 6 and a == 5:
                return


def parabolas() -> Iterator[Known]:
    for h in (-4, -1.5, 0, 2, 3.25, 6):
        for a in (1, -0.5, 3):
            for k in (-4, 0, 2, 7):
                inside = -k / a
                roots = [h - math.sqrt(inside), h + math.sqrt(inside)] if inside >= 0 else []
                yield Known(f"{a}(x - ({h}))^2 + ({k})", kept(roots), [(h, "minimum" if a > 0 else "maximum")])


def sines() -> Iterator[Known]:
    for a in (1, -2):
        for b in (0.5, 1, 2):
            for h in (0, 0.75, -2):
                for d in (0, 0.5):
                    source = f"{a}sin({b}(x - ({h}))) + {d}"
                    tops = [h + (math.pi / 2 + k * math.pi) / b for k in range(-20, 20)]
                    kinds = ["maximum" if (a > 0) == (k % 2 == 0) else "minimum" for k in range(-20, 20)]
                    inner = math.asin(-d / a)
                    roots = [h + (inner + 2 * k * math.pi) / b for k in range(-20, 20)]
                    roots += [h + (math.pi - inner + 2 * k * math.pi) / b for k in range(-20, 20)]
                    yield Known(
                        source, kept(roots), [(x, kind) for x, kind in zip(tops, kinds, strict=True) if LOW < x < HIGH]
                    )


def corners() -> Iterator[Known]:
    for h in (-3, 0, 4.5):
        for a in (1, -2):
            for k in (-3, 0, 1):
                roots = [h - abs(k / a), h + abs(k / a)] if k * a <= 0 else []
                yield Known(f"{a}|x - ({h})| + ({k})", kept(roots), [(h, "minimum" if a > 0 else "maximum")])


def growths() -> Iterator[Known]:
    for c in (0.5, 1, 3, 20):
        yield Known(f"e^x - {c}", kept([math.log(c)]), [])
        yield Known(f"2^(x/2) - {c}", kept([2 * math.log2(c)]), [])
        yield Known(f"ln(x) - ({c} - 1)", kept([math.exp(c - 1)]), [])
        yield Known(f"x e^(-{c}x)", [0.0], [(1 / c, "maximum")])
        yield Known(f"x^2 e^(-x) - {c}·0", [0.0], [(0.0, "minimum"), (2.0, "maximum")])
        yield Known(f"x + {c}^2/x", [], [(-c, "maximum"), (c, "minimum")] if c < 10 else [])
        yield Known(f"x/(x^2 + {c}^2)", [0.0], [(-c, "minimum"), (c, "maximum")] if c < 10 else [])
        yield Known(f"sqrt(x + {c}) - 1", kept([1 - c]), [])
        yield Known(f"x^3 - 3·{c}^2 x", kept([0.0, c * math.sqrt(3), -c * math.sqrt(3)]),
                    [(-c, "maximum"), (c, "minimum")] if c < 10 else [])  # fmt: skip
        yield Known(f"x^4 - 2·{c}^2 x^2", kept([0.0, c * math.sqrt(2), -c * math.sqrt(2)]),
                    [(-c, "minimum"), (0.0, "maximum"), (c, "minimum")] if c < 10 else [(0.0, "maximum")])  # fmt: skip
        yield Known(f"(x - {c})^3", kept([c]), [])
        yield Known(f"cbrt(x - {c}) + 1", kept([c - 1]), [])


CORPUS = [*products(), *parabolas(), *sines(), *corners(), *growths()]


def test_the_corpus_is_large_enough() -> None:
    assert len({known.source for known in CORPUS}) >= 200
    assert len(BROKEN) >= 60


@pytest.mark.parametrize("known", CORPUS, ids=lambda known: known.source)
def test_zeros_and_turning_points(known: Known) -> None:
    _kind, node, name = function_of(meaning(known.source))
    found = features(node, name, LOW, HIGH)
    assert [float(x) for x in found.roots] == pytest.approx(known.roots, rel=1e-9, abs=1e-9)
    assert [kind for _x, kind in found.extrema] == [kind for _x, kind in known.extrema]
    assert [float(x) for x, _kind in found.extrema] == pytest.approx([x for x, _kind in known.extrema], rel=1e-9, abs=1e-9)


class Broken(NamedTuple):
    source: str
    poles: list[float]
    holes: list[tuple[float, float]]
    jumps: list[float]


def broken() -> Iterator[Broken]:
    for p in (-6, -1.5, 0, 2, 7.125):
        yield Broken(f"1/(x - ({p}))", [p], [], [])
        yield Broken(f"1/(x - ({p}))^2 + 1", [p], [], [])
        yield Broken(f"(x + 20)/(x - ({p}))", [p], [], [])
        yield Broken(f"(x^2 - ({p})^2)/(x - ({p}))", [], [(p, 2 * p)], [])
        yield Broken(f"3(x - ({p}))/(x - ({p}))", [], [(p, 3.0)], [])
        yield Broken(f"sin(x - ({p}))/(x - ({p}))", [], [(p, 1.0)], [])
        yield Broken(f"|x - ({p})|/(x - ({p}))", [], [], [p])
        yield Broken(f"sign(x - ({p})) + x", [], [], [p])
        yield Broken(f"atan(1/(x - ({p})))", [], [], [p])
        yield Broken(f"ln|x - ({p})|", [p], [], [])
        for q in (-8, 9):
            yield Broken(f"1/((x - ({p}))(x - ({q})))", sorted([p, q]), [], [])
            yield Broken(f"(x - ({q}))/((x - ({p}))(x - ({q})))", [p], [(q, 1 / (q - p))], [])
    yield Broken("tan(x)", [math.pi * (k + 0.5) for k in range(-3, 3)], [], [])
    yield Broken("floor(x/4)", [], [], [-8, -4, 0, 4, 8])
    yield Broken("x - floor(x)", [], [], [float(k) for k in range(-10, 11)])
    yield Broken("1/sin(x)", [math.pi * k for k in range(-3, 4)], [], [])


BROKEN = list(broken())


@pytest.mark.parametrize("known", BROKEN, ids=lambda known: known.source)
def test_poles_holes_and_jumps(known: Broken) -> None:
    _kind, node, name = function_of(meaning(known.source))
    found = features(node, name, LOW, HIGH).breaks

    def places(kind: str) -> list[float]:
        return [float(one.x) for one in found if one.kind == kind]

    assert places("pole") == pytest.approx(known.poles, rel=1e-9, abs=1e-9)
    assert places("hole") == pytest.approx([x for x, _y in known.holes], rel=1e-9, abs=1e-9)
    assert [x for x in places("jump") if LOW < x < HIGH] == pytest.approx(
        [x for x in known.jumps if LOW < x < HIGH], rel=1e-9, abs=1e-9)  # fmt: skip
    heights = [float(one.left.limit) for one in found if one.kind == "hole"]
    assert heights == pytest.approx([y for _x, y in known.holes], rel=1e-9, abs=1e-9)


@pytest.mark.parametrize("known", BROKEN[::5], ids=lambda known: known.source)
def test_no_branch_runs_across_a_pole_or_a_jump(known: Broken) -> None:
    for branch in plot_answer(known.source, LOW, HIGH)["branches"]:
        low, high = branch[0][0], branch[-1][0]
        assert not [x for x in (*known.poles, *known.jumps) if low + 1e-9 < x < high - 1e-9]
