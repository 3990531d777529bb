"""Lines as they are written at a board, by nobody's grammar: to measure with, never to learn from.

^ and _ raise and lower one sign, or what stands between braces; {a|b} is a fraction, √{a} a root.
"""

from __future__ import annotations

from typing import Any

LINES = """
3x^2+5x-2=0
(a+b)^2=a^2+2ab+b^2
(x-3)(x+3)=x^2-9
x=4
x=-2,5
x_1=3
x_2=-1
x_{12}=-4
2x-7=15
5(x-2)=3x+4
y=2x+1
y=-x+3
y={1|2}x-4
y=x^2-4x+3
f(x)=x^3-3x
g(x)={1|x}
f(2)=7
f(x+1)=2x+5
{3|4}+{1|6}={11|12}
{2|5}:{3|7}={14|15}
2{1|3}+1{1|2}=3{5|6}
{x+1|x-1}=3
{a|b}={c|d}
√{49}=7
√{a^2+b^2}=c
√{2}·√{8}=4
√{x+5}=3
a^2+b^2=c^2
A={1|2}gh
A=πr^2
U=2πr
V=abc
V={4|3}πr^3
A=a·b
s=v·t
v={s|t}
sin30°=0,5
cosα={4|5}
tanβ=1
sin^2x+cos^2x=1
α+β+γ=180°
α=35°
β=90°-α
63+28=91
105-47=58
12·15=180
144:12=12
7×8=56
56÷7=8
1000-365=635
3,75+0,8=4,55
0.25×4=1
4.2÷0.6=7
999+1=1000
17+6=22
9·7=64
2^3=8
2^{10}=1024
10^{-3}=0,001
3^2·3^4=3^6
x^{n+1}
a^{-1}={1|a}
5!=120
25%=0,25
15%·80=12
P(2,5)
A(-3,4)
B(0,-2)
C(1.5,2)
(4,7)
x<7
x≥-3
2<x≤5
3x-1>8
|x-2|=3
x≠0
[0,5]
(-1,4]
5cm
12,5m
3kg
250g
1500ml
60km/h
24cm^2
8m^3
45min
2h
7:30
1:4=0,25
3/4
5/8+1/8
1/2=0,5
log100=2
ln e=1
e^x
y=3sin2x
n(n+1)
{n(n+1)|2}
a_n=2n+1
a_1=5
S_n
k=0,4
m=-{2|3}
p+q=12
4x+3y=24
2a+3b-c
6(2m-5)
-3(k+4)
{5|0}
{12|18}={2|3}
8
5
0
1
9
47
360
5280
2026
31,4
-16
z=7
t=0
w=3
""".replace("γ", "λ")


def row(text: str) -> list[Any]:
    """As `grammar.py` has it."""
    made, at = _row(text, 0, "")
    assert at == len(text), text
    return made


def _row(text: str, at: int, ends: str) -> tuple[list[Any], int]:
    made: list[Any] = []
    while at < len(text) and text[at] not in ends:
        sign = text[at]
        if sign in "^_":
            inner, at = _group(text, at + 1)
            made.append(("up" if sign == "^" else "down", inner))
        elif sign == "√":
            inner, at = _group(text, at + 1)
            made.append(("root", inner))
        elif sign == "{":
            above, at = _row(text, at + 1, "|")
            below, at = _row(text, at + 1, "}")
            made.append(("frac", above, below))
            at += 1
        else:
            if sign != " ":
                made.append(sign)
            at += 1
    return made, at


def _group(text: str, at: int) -> tuple[list[Any], int]:
    if text[at] != "{":
        return [text[at]], at + 1
    inner, at = _row(text, at + 1, "}")
    return inner, at + 1


TEXTS = [row(line) for line in LINES.split("\n") if line]
