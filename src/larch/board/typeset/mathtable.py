"""The OpenType MATH table of a font: its constants, italic corrections, and how its signs grow.

After the OpenType specification, chapter "MATH — The mathematical typesetting table" (version 1.9.1). Everything is in ems.
"""

from __future__ import annotations

import struct
from typing import NamedTuple

CONSTANTS = (
    "math_leading", "axis_height", "accent_base_height", "flattened_accent_base_height", "subscript_shift_down",
    "subscript_top_max", "subscript_baseline_drop_min", "superscript_shift_up", "superscript_shift_up_cramped",
    "superscript_bottom_min", "superscript_baseline_drop_max", "sub_superscript_gap_min",
    "superscript_bottom_max_with_subscript", "space_after_script", "upper_limit_gap_min", "upper_limit_baseline_rise_min",
    "lower_limit_gap_min", "lower_limit_baseline_drop_min", "stack_top_shift_up", "stack_top_display_style_shift_up",
    "stack_bottom_shift_down", "stack_bottom_display_style_shift_down", "stack_gap_min", "stack_display_style_gap_min",
    "stretch_stack_top_shift_up", "stretch_stack_bottom_shift_down", "stretch_stack_gap_above_min",
    "stretch_stack_gap_below_min", "fraction_numerator_shift_up", "fraction_numerator_display_style_shift_up",
    "fraction_denominator_shift_down", "fraction_denominator_display_style_shift_down", "fraction_numerator_gap_min",
    "fraction_num_display_style_gap_min", "fraction_rule_thickness", "fraction_denominator_gap_min",
    "fraction_denom_display_style_gap_min", "skewed_fraction_horizontal_gap", "skewed_fraction_vertical_gap",
    "overbar_vertical_gap", "overbar_rule_thickness", "overbar_extra_ascender", "underbar_vertical_gap",
    "underbar_rule_thickness", "underbar_extra_descender", "radical_vertical_gap", "radical_display_style_vertical_gap",
    "radical_rule_thickness", "radical_extra_ascender", "radical_kern_before_degree", "radical_kern_after_degree",
)  # fmt: skip


class Part(NamedTuple):
    """A piece of a sign that is put together: how far its ends may overlap with others, and how long it is."""

    glyph: int
    start: float
    end: float
    advance: float
    repeats: bool


class Growth(NamedTuple):
    """How a sign grows: larger forms as (glyph, size), and the pieces of one of any size, from below."""

    variants: tuple[tuple[int, float], ...]
    parts: tuple[Part, ...]


class MathTable:
    """constant: by the names above, plus script_scale, script_script_scale, display_operator_min_height and
    radical_degree_raise (shares and ems). italic: corrections by glyph. tall: growth upwards by glyph."""

    def __init__(self, data: bytes, units: float) -> None:
        """Raises struct.error where the table is damaged."""
        self._data = data
        self._units = units
        _major, _minor, constants, info, variants = struct.unpack_from(">HHHHH", data)
        self.constant = self._constants(constants)
        self.italic = self._italics(info)
        self.overlap, self.tall = self._variants(variants)

    def _number(self, at: int, kind: str = "h") -> int:
        found: int = struct.unpack_from(f">{kind}", self._data, at)[0]
        return found

    def _constants(self, at: int) -> dict[str, float]:
        found = {
            "script_scale": self._number(at) / 100, "script_script_scale": self._number(at + 2) / 100,
            "delimited_sub_formula_min_height": self._number(at + 4, "H") / self._units,
            "display_operator_min_height": self._number(at + 6, "H") / self._units,
        }  # fmt: skip
        for k, name in enumerate(CONSTANTS):
            found[name] = self._number(at + 8 + 4 * k) / self._units
        found["radical_degree_raise"] = self._number(at + 8 + 4 * len(CONSTANTS)) / 100
        return found

    def _coverage(self, at: int) -> list[int]:
        form, count = self._number(at, "H"), self._number(at + 2, "H")
        if form == 1:
            return [self._number(at + 4 + 2 * k, "H") for k in range(count)]
        found: list[int] = []
        for k in range(count):
            first, last = self._number(at + 4 + 6 * k, "H"), self._number(at + 6 + 6 * k, "H")
            found += range(first, last + 1)
        return found

    def _italics(self, info: int) -> dict[int, float]:
        at = info + self._number(info, "H")
        covered = self._coverage(at + self._number(at, "H"))
        return {glyph: self._number(at + 4 + 4 * k) / self._units for k, glyph in enumerate(covered)}

    def _variants(self, at: int) -> tuple[float, dict[int, Growth]]:
        overlap = self._number(at, "H") / self._units
        covered = self._coverage(at + self._number(at + 2, "H"))
        found = {}
        for k, glyph in enumerate(covered):
            found[glyph] = self._growth(at + self._number(at + 10 + 2 * k, "H"))
        return overlap, found

    def _growth(self, at: int) -> Growth:
        assembly, count = self._number(at, "H"), self._number(at + 2, "H")
        variants = tuple(
            (self._number(at + 4 + 4 * k, "H"), self._number(at + 6 + 4 * k, "H") / self._units) for k in range(count)
        )
        return Growth(variants, self._parts(at + assembly) if assembly else ())

    def _parts(self, at: int) -> tuple[Part, ...]:
        found = []
        for k in range(self._number(at + 4, "H")):
            glyph, start, end, advance, flags = struct.unpack_from(">HHHHH", self._data, at + 6 + 10 * k)
            found.append(Part(glyph, start / self._units, end / self._units, advance / self._units, bool(flags & 1)))
        return tuple(found)
