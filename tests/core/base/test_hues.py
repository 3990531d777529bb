"""Hues."""

from __future__ import annotations

from larch.core.base import hues


def test_hues_are_readable_on_paper() -> None:
    """WCAG 2.2: at least 3:1 for parts; the text colours at least 4.5:1."""

    def light(code: str) -> float:
        parts = [int(code[i : i + 2], 16) / 255 for i in (1, 3, 5)]
        linear = [c / 12.92 if c <= 0.04045 else ((c + 0.055) / 1.055) ** 2.4 for c in parts]
        return 0.2126 * linear[0] + 0.7152 * linear[1] + 0.0722 * linear[2]

    def contrast(a: str, b: str) -> float:
        high, low = sorted((light(a), light(b)), reverse=True)
        return (high + 0.05) / (low + 0.05)

    assert all(contrast(code, hues.PAPER) >= 3 for code in hues.HUES.values())
    for code in (hues.NEEDLE, hues.NEEDLE_SOFT, hues.GOLD_TEXT, hues.GOOD, hues.WRONG):
        assert contrast(code, hues.PAPER) >= 4.5
        assert contrast(code, hues.STONE) >= 4.5
    assert hues.hex_of("nonsense") == hues.NEEDLE
    assert hues.hex_of("#12ab9F") == "#12ab9F"
