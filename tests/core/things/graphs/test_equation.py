"""Equations."""

from __future__ import annotations

from larch.core.things.graphs.equation import fraction_text


def test_fractions_are_written_with_a_true_minus() -> None:
    from fractions import Fraction

    assert [fraction_text(Fraction(*p)) for p in ((3, 4), (-3, 4), (8, 4), (-2, 1))] == ["3/4", "−3/4", "2", "−2"]
