"""Polynomials over the fractions: the laws of a ring with division, common factors, and zeros."""

from __future__ import annotations

import math
from fractions import Fraction

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from larch.core.maths.algebra.polynomials import (
    ONE,
    ZERO,
    Polynomial,
    added,
    as_fraction,
    at,
    common,
    divided,
    multiplied,
    ratio_of,
    real_zeros,
    slope,
    square_free,
    trimmed,
)
from larch.core.maths.expression import parse
from larch.core.maths.expression.exactly import NotRational

numbers = st.fractions(min_value=-9, max_value=9, max_denominator=6)
polynomials = st.lists(numbers, max_size=5).map(trimmed)
factors = st.lists(st.fractions(min_value=-6, max_value=6, max_denominator=4), min_size=1, max_size=4)


def of_zeros(zeros: list[Fraction]) -> Polynomial:
    made = ONE
    for zero in zeros:
        made = multiplied(made, (-zero, Fraction(1)))
    return made


@given(polynomials, polynomials, polynomials, numbers)
def test_values_of_sums_and_products_are_sums_and_products_of_values(
    a: Polynomial, b: Polynomial, c: Polynomial, x: Fraction
) -> None:
    assert at(added(a, b), x) == at(a, x) + at(b, x)
    assert at(added(a, b, Fraction(-1)), x) == at(a, x) - at(b, x)
    assert at(multiplied(a, b), x) == at(a, x) * at(b, x)
    assert multiplied(a, added(b, c)) == added(multiplied(a, b), multiplied(a, c))
    assert multiplied(a, b) == multiplied(b, a) and multiplied(a, ONE) == a and multiplied(a, ZERO) == ZERO


@given(polynomials, polynomials)
def test_a_dividend_is_quotient_times_divisor_and_a_smaller_rest(a: Polynomial, b: Polynomial) -> None:
    assume(b)
    quotient, rest = divided(a, b)
    assert added(multiplied(quotient, b), rest) == a
    assert len(rest) < len(b)


@given(polynomials, polynomials, polynomials)
def test_the_common_factor_divides_both_and_holds_each_other_one(a: Polynomial, b: Polynomial, c: Polynomial) -> None:
    assume(a and b and c)
    one, other = multiplied(a, c), multiplied(b, c)
    found = common(one, other)
    assert found[-1] == 1
    assert divided(one, found)[1] == divided(other, found)[1] == ZERO
    assert divided(found, c)[1] == ZERO


@given(polynomials, polynomials)
def test_the_slope_of_a_product(a: Polynomial, b: Polynomial) -> None:
    assert slope(multiplied(a, b)) == added(multiplied(slope(a), b), multiplied(a, slope(b)))


@given(factors)
def test_zeros_of_a_product_are_those_of_its_factors_each_once(zeros: list[Fraction]) -> None:
    made = of_zeros(zeros)
    assert real_zeros(made) == sorted(set(zeros))
    assert len(square_free(made)) == (len(set(zeros)) + 1 if len(zeros) > 1 else 2)


@given(factors, st.fractions(min_value="1/5", max_value=9, max_denominator=5))
def test_a_factor_that_is_never_zero_adds_none(zeros: list[Fraction], height: Fraction) -> None:
    assert real_zeros(multiplied(of_zeros(zeros), (height, Fraction(0), Fraction(1)))) == sorted(set(zeros))


@given(st.integers(2, 60))
def test_irrational_zeros_are_told_to_many_digits(n: int) -> None:
    assume(math.isqrt(n) ** 2 != n)
    low, high = real_zeros((Fraction(-n), Fraction(0), Fraction(1)))
    assert low == -high and abs(high * high - n) < 1e-28
    assert as_fraction(high) is None


@pytest.mark.parametrize(
    ("source", "above", "below"),
    [
        ("(x + 1)^2", (1, 2, 1), (1,)),
        ("2/x + 1", (2, 1), (0, 1)),
        ("x^-2", (1,), (0, 0, 1)),
        ("50% x", (0, Fraction(1, 2)), (1,)),
        ("√9 x", (0, 3), (1,)),
    ],
)
def test_expressions_as_quotients(source: str, above: tuple[int, ...], below: tuple[int, ...]) -> None:
    assert ratio_of(parse(source), "x", {}) == (tuple(map(Fraction, above)), tuple(map(Fraction, below)))


@pytest.mark.parametrize("source", ["√x", "sin x", "2^x", "x^61", "a x"])
def test_what_is_none_is_refused(source: str) -> None:
    with pytest.raises(NotRational):
        ratio_of(parse(source), "x", {})


@pytest.mark.parametrize("source", ["1/0", "(x - x)^-1", "x/(2 - 2)"])
def test_division_by_nothing_is_refused(source: str) -> None:
    with pytest.raises(ZeroDivisionError):
        ratio_of(parse(source), "x", {})
