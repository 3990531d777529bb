"""Ink of other programs and of hostile files."""

from __future__ import annotations

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.files.inkml_read import Unreadable, traces_of

HEAD = '<ink xmlns="http://www.w3.org/2003/InkML">'


def ink(inner: str) -> bytes:
    return f"{HEAD}{inner}</ink>".encode()


numbers = st.floats(-1e4, 1e4).map(lambda v: round(v, 3))


@given(st.lists(st.lists(st.tuples(numbers, numbers), min_size=1, max_size=8), min_size=1, max_size=4))
def test_what_is_written_plainly_is_read_as_it_is(strokes: list[list[tuple[float, float]]]) -> None:
    text = "".join("<trace>" + ", ".join(f"{x} {y}" for x, y in stroke) + "</trace>" for stroke in strokes)
    assert [list(trace.points) for trace in traces_of(ink(text))] == strokes


def test_channels_in_another_order_and_counted_the_other_way() -> None:
    form = (
        '<definitions><traceFormat xml:id="f"><channel name="T" type="integer"/><channel name="Y" orientation="-ve"/>'
        '<channel name="F"/><channel name="X"/></traceFormat><context xml:id="c" traceFormatRef="#f"/></definitions>'
    )
    assert traces_of(ink(f'{form}<trace contextRef="#c">0 10 0.5 20, 1 11 0.5 21</trace>'))[0].points == (
        (20, -10),
        (21, -11),
    )


def test_differences_of_both_orders_and_values_as_before() -> None:
    found = traces_of(ink("<trace>10 0,'10 '0,\"10 \"0,10 0</trace>"))
    assert [x for x, _y in found[0].points] == [10, 20, 40, 70]
    assert traces_of(ink("<trace>1125 18432, '23 '43, '7 '-8, 3-5</trace>"))[0].points == (
        (1125, 18432), (1148, 18475), (1155, 18467), (1158, 18462))  # fmt: skip
    assert traces_of(ink("<trace>1 2, * 3</trace>"))[0].points == ((1, 2), (1, 3))


def test_groups_brushes_and_contexts_are_handed_down() -> None:
    found = traces_of(ink(
        '<definitions><brush xml:id="b"><brushProperty name="color" value="#AA0000"/></brush></definitions>'
        '<traceGroup brushRef="#b"><trace>0 0, 1 1</trace><traceGroup><trace>2 2</trace></traceGroup></traceGroup>'
        '<trace type="penUp">9 9</trace><traceView traceDataRef="#t"/><trace>5 5</trace>'
    ))  # fmt: skip
    assert [trace.colour for trace in found] == ["#aa0000", "#aa0000", ""]
    assert [trace.points[0] for trace in found] == [(0, 0), (2, 2), (5, 5)]


def test_what_is_no_number_is_left_out_and_the_stroke_keeps_its_place() -> None:
    found = traces_of(ink("<trace>NaN 1, 2 2, inf 3</trace><trace></trace><trace>? 4, 5 5</trace>"))
    assert [trace.points for trace in found] == [((2, 2),), (), ((5, 5),)]


@pytest.mark.parametrize(
    "data",
    [b"", b"<ink>", b"not xml", b"<svg/>", ink(""), ink("<trace>a b</trace>"), b'<!DOCTYPE x [<!ENTITY a "b">]><ink/>',
     ink('<traceFormat><channel name="F"/></traceFormat><trace>1</trace>'), b"\xff\xfe\x00",
     ink("<traceGroup>" * 90 + "</traceGroup>" * 90)],
)  # fmt: skip
def test_what_is_no_ink_is_said_in_one_sentence(data: bytes) -> None:
    with pytest.raises(Unreadable) as found:
        traces_of(data)
    assert str(found.value).endswith(".")


@given(st.binary(max_size=200))
def test_anything_is_either_read_or_refused(data: bytes) -> None:
    try:
        found = traces_of(HEAD.encode() + b"<trace>" + data + b"</trace></ink>")
    except Unreadable as refused:
        assert str(refused).endswith(".") and "\n" not in str(refused)
    else:
        assert len(found) >= 1 and all(math.isfinite(v) for trace in found for point in trace.points for v in point)


def test_a_hundred_thousand_points_are_read() -> None:
    found = traces_of(ink("<trace>" + ",".join(f"{k} {k % 7}" for k in range(100_000)) + "</trace>"))
    assert len(found[0].points) == 100_000
