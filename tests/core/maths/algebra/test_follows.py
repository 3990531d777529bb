"""Whether a line follows from the one above, and what went wrong where it does not."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.algebra.follows import follows
from larch.core.maths.algebra.mistakes import WORDS
from larch.core.maths.expression import parse


@pytest.mark.parametrize(
    ("first", "second", "wanted", "mistake"),
    [
        ("2x+5=15", "2x=10", "yes", ""), ("2x=10", "x=5", "yes", ""), ("3x-4=11", "3x=7", "no", "moved"),
        ("2x=10", "x=10", "no", "one side"), ("2x+6=10", "x+6=5", "no", "one term"), ("x^2=9", "x=3", "no", "root"),
        ("x^2=9", "x=3 or x=-3", "yes", ""), ("x^2=9", "x=±3", "yes", ""), ("2(x+3)", "2x+3", "no", "bracket"),
        ("2(x+3)=14", "2x+3=14", "no", "bracket"), ("-(x-3)", "-x-3", "no", "bracket sign"),
        ("2x+3", "5x", "no", "unlike"), ("2x+3y", "5xy", "no", "unlike"), ("-2x<6", "x<-3", "no", "inequality"),
        ("-2x<6", "x>-3", "yes", ""), ("(x+3)/3", "x", "no", "cancel"), ("(x+3)/3", "x+1", "no", "cancel"),
        ("(a+b)^2", "a^2+b^2", "no", "square"), ("(x+3)^2=25", "x^2+9=25", "no", "square"),
        ("x^2=3x", "x=3", "only if", ""), ("ax=b", "x=b/a", "only if", ""), ("sqrt(x^2)", "x", "only if", ""),
        ("(x^2-1)/(x-1)", "x+1", "yes", ""), ("x+1", "(x^2-1)/(x-1)", "only if", ""),
        ("(x-1)(x-2)=0", "x=1", "no", "lost"), ("x=3", "x^2=9", "yes", ""), ("1/x<2", "1<2x", "only if", ""),
        ("sqrt(a+b)", "sqrt(a)+sqrt(b)", "no", "root of sum"), ("1/2+1/3", "2/5", "no", "fractions"),
        ("x^2*x^3", "x^6", "no", "powers"), ("(2x)^2", "2x^2", "no", "power of product"), ("x/x", "1", "yes", ""),
        ("1", "x/x", "only if", ""), ("2x+5=15", "2x=20", "no", "moved"), ("5x-3=2x+9", "3x=12", "yes", ""),
        ("5x-3=2x+9", "7x=12", "no", ""), ("5x-3=2x+9", "3x=6", "no", ""), ("4x=12", "x=8", "no", "undone"),
        ("x/2=6", "x=3", "no", "undone"), ("x^2=16", "x=4", "no", "root"), ("x^2-5x+6=0", "(x-2)(x-3)=0", "yes", ""),
        ("(x-2)(x-3)=0", "x=2 or x=3", "yes", ""), ("ln(x^2)", "2ln(x)", "only if", ""),
        ("x*y=x*z", "y=z", "only if", ""), ("|x|=3", "x=3", "no", "root"), ("3^2", "6", "no", "power as product"),
        ("2-3*4", "-4", "no", ""), ("x+3=7", "x=10", "no", "moved"),
        ("sin(a+b)", "sin a + sin b", "no", "function of sum"), ("5-(2-x)", "3-x", "no", "bracket sign"),
        ("x^2+6x+9=0", "(x+3)^2=0", "yes", ""), ("x^2>4", "x>2", "no", "lost"), ("x > 2", "x>1", "yes", ""),
        ("x=2", "x>1", "yes", ""), ("y=x/2", "x=2y", "yes", ""), ("2/x=4", "2=4x", "yes", ""),
        ("x(x+1)=2(x+1)", "x=2", "only if", ""), ("x+y=5 and x-y=1", "2x=6", "yes", ""),
        ("x+y=5, x-y=1", "2x=4", "no", ""), ("x^2+y^2", "(x+y)^2", "no", ""),
        ("3(x-2)=9", "3x-2=9", "no", "bracket"), ("12x/4", "3x", "yes", ""), ("x^2=-4", "x=2", "yes", ""),
        ("sqrt(x)=3", "x=9", "yes", ""), ("sqrt(x)=-3", "x=9", "yes", ""), ("x=9", "sqrt(x)=3", "yes", ""),
        ("2^x=8", "x=3", "yes", ""), ("a(b+c)", "ab+ac", "yes", ""), ("7x-2x", "5", "no", ""),
        ("x+x", "x^2", "no", "like"), ("2x=7", "x=2/7", "no", "divide"), ("5+3x", "8x", "no", "unlike"),
        ("4(x-1)=8", "x-1=2", "yes", ""), ("4(x-1)=8", "x-1=8", "no", ""), ("x/3=5", "x=15", "yes", ""),
        ("x^2=25", "x=5 or x=-5", "yes", ""), ("x^2=25", "x=-5", "no", ""), ("x^2+2x=0", "x+2=0", "no", ""),
        ("x^2+2x=0", "x(x+2)=0", "yes", ""), ("sqrt(x)=x-2", "x=(x-2)^2", "yes", ""),
        ("x=(x-2)^2", "sqrt(x)=x-2", "no", ""), ("1/x>1/2", "2>x", "yes", ""), ("2>x", "1/x>1/2", "only if", ""),
        ("3x<9", "x<3", "yes", ""), ("3x<9", "x>3", "no", ""), ("-x>2", "x<-2", "yes", ""),
        ("-x>2", "x>-2", "no", ""), ("a=b", "a^2=b^2", "yes", ""), ("a^2=b^2", "a=b", "no", ""),
        ("a=b", "a/c=b/c", "only if", ""), ("ac=bc", "a=b", "only if", ""), ("x=2", "x>0", "yes", ""),
        ("2x+3=7", "2x=10", "no", ""), ("(x+2)^2", "x^2+4x+4", "yes", ""), ("(x+2)^2", "x^2+2x+4", "no", ""),
        ("(x-3)^2", "x^2-9", "no", ""), ("(x-3)^2", "x^2-6x-9", "no", ""), ("3(2x-4)", "6x-4", "no", ""),
        ("3(2x-4)", "6x-12", "yes", ""), ("2(x+3)-4(x-1)", "2x+6-4x-4", "no", ""),
        ("2(x+3)-4(x-1)", "2x+6-4x+4", "yes", ""), ("x/4+x/4", "x/8", "no", ""), ("x/4+x/4", "x/2", "yes", ""),
        ("a/b+c/d", "(a+c)/(b+d)", "no", ""), ("sqrt(9+16)", "3+4", "no", ""), ("sqrt(9+16)", "5", "yes", ""),
        ("2^3*2^4", "2^12", "no", ""), ("2^3*2^4", "2^7", "yes", ""), ("(x^2)^3", "x^5", "no", ""),
        ("x^-2", "-x^2", "no", ""), ("log(a+b)", "log a + log b", "no", ""), ("sin(2x)", "2sin x", "no", ""),
        ("(6x+3)/3", "2x+3", "no", ""), ("(6x+3)/3", "6x+1", "no", ""), ("(6x+3)/3", "2x+1", "yes", ""),
        ("(x^2+x)/x", "x+1", "yes", ""), ("(x^2+x)/x", "x^2+1", "no", ""), ("5-(x+2)", "5-x+2", "no", ""),
        ("5-(x+2)", "3-x", "yes", ""), ("3x+2x", "5x^2", "no", ""), ("3x*2x", "6x", "no", ""),
        ("-3^2", "9", "no", ""), ("2+3*4", "20", "no", ""), ("8/2*4", "1", "no", ""), ("0.5x=3", "x=6", "yes", ""),
        ("x+5=2", "x=7", "no", ""), ("7x=0", "x=7", "no", ""), ("x^2=0", "x=0", "yes", ""),
        ("(x-2)(x+3)=0", "x=2 or x=-3", "yes", ""), ("(x-2)(x+3)=0", "x=2 or x=3", "no", ""),
        ("(x-2)(x+3)=6", "x-2=6 or x+3=6", "no", ""), ("x+y=3 and x-y=1", "x=2", "yes", ""),
        ("x+y=3 and x-y=1", "x=2 and y=1", "yes", ""), ("x+y=3 and x-y=1", "2x=4 and 2y=2", "yes", ""),
        ("3>2x+1", "1>x", "yes", ""), ("|x|<2", "x<2", "yes", ""), ("x<2", "|x|<2", "no", ""),
        ("2x=6", "x=3 or x=4", "yes", ""), ("e^x=1", "x=0", "yes", ""), ("ln x = 0", "x=1", "yes", ""),
        ("x=1", "ln x = 0", "yes", ""), ("10%*200", "20", "yes", ""), ("3/4 of 20", "15", "yes", ""),
    ],
)  # fmt: skip
def test_what_follows(first: str, second: str, wanted: str, mistake: str) -> None:
    found = follows(parse(first), parse(second))
    assert found.follows == wanted
    assert not mistake or found.mistake == mistake
    assert (found.when is not None) == (wanted == "only if")
    assert found.why.strip()
    if found.when is not None:
        parse(found.when)


@given(st.integers(-9, 9).filter(bool), st.integers(-20, 20), st.integers(-20, 20), st.integers(-9, 9).filter(bool))
def test_the_same_done_to_both_sides_follows(a: int, b: int, c: int, k: int) -> None:
    first = parse(f"{a}x + ({b}) = {c}")
    assert follows(first, parse(f"{a}x + ({b}) + ({k}) = {c} + ({k})")).follows == "yes"
    assert follows(first, parse(f"({a}x + ({b}))*({k}) = {c}*({k})")).follows == "yes"
    assert follows(first, parse(f"{a}x = {c} - ({b})")).follows == "yes"


@given(st.integers(2, 9), st.integers(1, 20), st.integers(-20, 20))
def test_a_sign_that_was_lost_is_named(a: int, b: int, c: int) -> None:
    found = follows(parse(f"{a}x - {b} = {c}"), parse(f"{a}x = {c - b}"))
    assert found.follows == "no" and found.mistake in WORDS
    assert found.mistake == "moved"
