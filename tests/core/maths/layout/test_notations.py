"""What goes out as LaTeX, MathML or plain text means the same when it comes in again."""

from __future__ import annotations

from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.maths.algebra.compare import same
from larch.core.maths.expression import ExpressionError, parse, reading
from larch.core.maths.expression.plain import compact
from larch.core.maths.expression.tree import Binary, Call, Name, Negative, Node, Number, Relation
from larch.core.maths.layout.from_tree import row_of
from larch.core.maths.layout.latex import latex, row_from_latex
from larch.core.maths.layout.mathml import mathml_of_row, row_from_mathml
from larch.core.maths.layout.notations import notations
from larch.core.maths.layout.reading import look, meaning
from larch.core.maths.layout.to_tree import NotRead, read_row, tree_of

numbers = st.integers(0, 12).map(lambda n: Number(Fraction(n), str(n)))
FUNCTIONS = st.sampled_from(["sqrt", "abs", "sin", "ln", "floor", "cbrt", "factorial"])
names = st.sampled_from(["x", "y", "a", "π", "x_1"]).map(Name)
trees: st.SearchStrategy[Node] = st.recursive(
    numbers | names,
    lambda inner: st.one_of(
        st.builds(Binary, st.sampled_from("+-*/^"), inner, inner, st.booleans()),
        st.builds(Negative, inner),
        st.builds(
            lambda f, node: Call(f, (node,)),
            st.sampled_from(["sqrt", "abs", "sin", "ln", "floor", "cbrt", "factorial"]),
            inner,
        ),
    ),
    max_leaves=8,
)


def alike(a: Node, b: Node) -> bool:
    return reading(a) == reading(b) or same(a, b).same is not False


@given(trees)
def test_rows_latex_mathml_and_plain_text_keep_the_meaning(node: Node) -> None:
    row = row_of(node)
    assert alike(tree_of(row), node)
    assert alike(tree_of(row_from_latex(latex(row))), node)
    assert alike(tree_of(row_from_mathml(mathml_of_row(row))), node)
    assert alike(parse(reading(node)), node)
    assert alike(parse(compact(node)), node)


@given(trees, trees)
def test_statements_too(a: Node, b: Node) -> None:
    node = Relation("≤", a, b)
    assert alike(tree_of(row_from_latex(latex(row_of(node)))), node)


@pytest.mark.parametrize(
    ("source", "wanted"),
    [
        (r"\frac{-b\pm\sqrt{b^2-4ac}}{2a}", "(−b ± sqrt(b^2 − 4·a·c))/(2·a)"), (r"\frac12x", "1/2·x"),
        (r"1{,}5x", "1.5·x"),
        (r"\begin{cases}x & \text{if } x<0\\ x^2 & \text{otherwise}\end{cases}", "cases(x, x < 0, x^2)"),
        (r"\log_2 8", "log(8, 2)"), (r"\sin^{-1}(x)", "asin(x)"), (r"\int_0^1 x^2\,dx", "integral(x^2, x, 0, 1)"),
        (r"\sum_{k=1}^{n}k^2", "sum(k^2, k, 1, n)"), (r"\lim_{x\to0}\frac{\sin x}{x}", "limit(sin(x)/x, x, 0)"),
        (r"\binom{5}{2}", "binomial(5, 2)"), (r"0.\overline{3}", "0.(3)"), (r"90^\circ", "90°"), (r"50\%", "50%"),
        (r"\begin{pmatrix}1&2\\3&4\end{pmatrix}", "[[1, 2], [3, 4]]"), (r"1\frac{3}{4}", "1 3/4"), (r"$x=5$", "x = 5"),
        (r"x=2\text{ or }x=3", "x = 2 or x = 3"), (r"\left|x-1\right|", "|x − 1|"), (r"f(x)=x^2", "f(x) = x^2"),
        ("<math><mfrac><mi>x</mi><mn>2</mn></mfrac><mo>=</mo><mn>3</mn></math>", "x/2 = 3"),
        ("<math><apply><plus/><cn>1</cn><apply><power/><ci>x</ci><cn>2</cn></apply></apply></math>", "1 + x^2"),
        ("<math><msup><mrow><mi>x</mi><mo>+</mo><mn>1</mn></mrow><mn>2</mn></msup></math>", "(x + 1)^2"),
        ("<math><mo>|</mo><mi>x</mi><mo>|</mo></math>", "|x|"),
        ("<math><msqrt><mi>x</mi><mo>+</mo><mn>1</mn></msqrt></math>", "sqrt(x + 1)"),
    ],
)  # fmt: skip
def test_from_other_programs(source: str, wanted: str) -> None:
    assert reading(meaning(source)) == wanted


@pytest.mark.parametrize("source", [r"\frac{1}{", r"\unknown{x}", r"\left(x", "{" * 500, r"\sqrt" * 300,
"<math><mfrac></math>",
                                    "<math><!ENTITY a 'b'></math>", "<math>" + "<mrow>" * 300, r"\begin{x}y\end{x}",
                                    "^", "_{", "\\"])  # fmt: skip
def test_hostile_notation_is_refused_in_a_sentence(source: str) -> None:
    assert look(source) is not None
    with pytest.raises(ExpressionError) as caught:
        meaning(source)
    assert str(caught.value).endswith(".")


@given(st.text(alphabet="\\{}[]^_&%$ fracsqtleigh()|x12+-=<>/", max_size=40))
def test_any_text_is_shown_and_read_or_refused(source: str) -> None:
    look(source)
    try:
        meaning(source)
    except ExpressionError as error:
        assert error.message


def test_an_empty_place_is_pointed_at() -> None:
    with pytest.raises(NotRead) as caught:
        read_row(row_from_latex(r"x=\frac{15}{}"))
    assert caught.value.path == ((2, 1),)


def test_all_notations_of_one_equation() -> None:
    made = notations("y = 3/4 x - 6")
    assert made is not None
    assert made["tex"] == r"y=\frac{3}{4}x-6" and "<mfrac>" in made["mml"]
    assert "three" not in made["spoken"] and "equals" in made["spoken"]
    assert notations("2+") is None
