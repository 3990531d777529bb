"""Measuring standard SVG: against Shapely, closed formulas and SciPy; hostile files get one sentence."""

from __future__ import annotations

import json
import math
from pathlib import Path

import pytest
import shapely
from hypothesis import assume, given
from hypothesis import strategies as st
from scipy import special

from larch.cli import main
from larch.core.maths.measure import centroid, ellipse_perimeter, half_axes, measured
from larch.core.maths.svg_shapes import Matrix, SvgError, read_svg, transform
from tests.samples import points

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 100">'


def shapes(body: str, head: str = HEAD) -> list[dict]:  # type: ignore[type-arg]
    found, _left = read_svg(f"{head}{body}</svg>".encode())
    return [measured(shape) for shape in found]


@given(st.lists(points, min_size=3, max_size=9, unique=True))
def test_centroid_and_area_agree_with_shapely(corners: list[tuple[float, float]]) -> None:
    shape = shapely.Polygon(corners)
    assume(shape.is_valid and shape.area > 1e-6 * shape.length**2)
    apart = min(math.dist(a, b) for k, a in enumerate(corners) for b in corners[:k])
    assume(apart > 1e-9 * shape.length)  # closer than that, floats can't tell the angle between them
    x, y = centroid(corners)
    assert (x, y) == pytest.approx((shape.centroid.x, shape.centroid.y), rel=1e-7, abs=1e-5)
    listed = " ".join(f"{a!r},{b!r}" for a, b in corners)
    (found,) = shapes(f'<polygon points="{listed}"/>')
    assert found["area"] == pytest.approx(shape.area, rel=1e-9, abs=1e-9 * shape.length**2)
    assert found["perimeter"] == pytest.approx(shape.length)
    assert sum(found["angles"]) == pytest.approx(180 * (len(corners) - 2), rel=1e-6)


def test_every_straight_element_is_read_in_order_with_its_id() -> None:
    found = shapes(
        '<polygon id="a" points="0,0 4,0 4,3"/><polyline id="b" points="0 0 3 0 3 4"/><line id="c" x2="3" y2="4"/>'
        '<rect id="d" width="6" height="2"/><circle id="e" r="2"/><ellipse id="f" rx="3" ry="2"/>'
        '<path id="g" d="M1 1h4v4h-4z"/>'
    )
    assert [s["id"] for s in found] == list("abcdefg")
    assert [s["kind"] for s in found] == [
        "right triangle", "polyline", "segment", "rectangle", "circle", "ellipse", "square"
    ]  # fmt: skip
    assert found[0]["sides"] == [4, 3, 5]
    assert found[0]["angles"] == pytest.approx([math.degrees(math.atan2(3, 4)), 90, math.degrees(math.atan2(4, 3))])
    assert found[1]["angles"] == [None, 90.0, None]
    assert (found[4]["radius"], found[4]["area"], found[4]["perimeter"]) == pytest.approx((2, 4 * math.pi, 4 * math.pi))
    assert found[5]["radii"] == pytest.approx([3, 2])
    assert found[6]["vertices"] == [[1, 1], [5, 1], [5, 5], [1, 5]]


def test_transforms_nest_and_a_sheared_circle_is_an_ellipse() -> None:
    (square,) = shapes('<g transform="translate(10 20) scale(2)"><rect width="3" height="3" transform="rotate(90)"/></g>')
    assert square["kind"] == "square"
    assert sorted(map(tuple, square["vertices"])) == [(4, 20), (4, 26), (10, 20), (10, 26)]
    (oval,) = shapes('<circle r="1" transform="matrix(3 0 0 2 7 8)"/>')
    assert (oval["kind"], oval["radii"], oval["centroid"]) == ("ellipse", [3, 2], [7, 8])
    (still,) = shapes('<circle r="1" transform="rotate(33) scale(2)"/>')
    assert still["radius"] == pytest.approx(2)


@given(st.floats(-9, 9), st.floats(-9, 9), st.floats(-9, 9), st.floats(-9, 9))
def test_half_axes_are_the_singular_values(a: float, b: float, c: float, d: float) -> None:
    import numpy as np

    assert half_axes((a, b), (c, d)) == pytest.approx(np.linalg.svd(np.array([[a, c], [b, d]]), compute_uv=False), abs=1e-9)


@given(st.floats(1e-3, 1e6), st.floats(0, 1))
def test_an_ellipse_is_as_long_round_as_scipy_says(long: float, share: float) -> None:
    short = long * share
    assert ellipse_perimeter(long, short) == pytest.approx(4 * long * special.ellipe(1 - share * share), rel=1e-12)


def test_units_percentages_and_nested_view_boxes() -> None:
    (cm,) = shapes('<rect width="1in" height="2.54cm"/>')
    assert cm["sides"] == pytest.approx([96] * 4)
    (half,) = shapes('<rect width="50%" height="50%"/>')
    assert half["sides"] == pytest.approx([100, 50, 100, 50])
    (nested,) = shapes('<svg x="10" y="10" width="40" height="20" viewBox="0 0 10 10"><rect width="10" height="10"/></svg>')
    assert nested["vertices"][0] == [20, 10]  # in the middle, as preserveAspectRatio has it by default
    assert nested["sides"] == pytest.approx([20] * 4)
    (stretched,) = shapes(
        '<svg width="40" height="20" viewBox="0 0 10 10" preserveAspectRatio="none"><rect width="10" height="10"/></svg>'
    )
    assert stretched["sides"] == pytest.approx([40, 20, 40, 20])


@pytest.mark.parametrize(
    ("d", "expected"),
    [
        ("M0,0 L4,0 4,3Z", [[0, 0], [4, 0], [4, 3]]),
        ("m1-1.5.5 2-1,0z", [[1, -1.5], [1.5, 0.5], [0.5, 0.5]]),
        ("M0 0H5V5H0V0", [[0, 0], [5, 0], [5, 5], [0, 5]]),
        ("M1e1 0l0 1E1-10 0", [[10, 0], [10, 10], [0, 10]]),
    ],
)
def test_paths_are_read_as_the_standard_has_them(d: str, expected: list[list[float]]) -> None:
    (found,) = shapes(f'<path d="{d}"/>')
    assert found["vertices"] == expected


def test_several_stretches_of_a_path_are_shapes_of_their_own() -> None:
    found = shapes('<path id="p" d="M0 0h4v3z m10,10 l2 0 0 2"/>')
    assert [(s["id"], s["kind"]) for s in found] == [("p", "right triangle"), ("p.2", "polyline")]
    assert found[1]["vertices"] == [[10, 10], [12, 10], [12, 12]]


def test_what_is_not_drawn_or_not_straight_is_left_out_and_said() -> None:
    body = (
        '<defs><rect id="no" width="1" height="1"/></defs><g display="none"><rect width="1" height="1"/></g>'
        '<path id="bent" d="M0 0C1 1 2 2 3 3"/><rect id="soft" rx="1" width="3" height="3"/>'
        '<rect id="flat" width="3" height="0"/>'
        '<rect id="far" width="1e200" height="1"/><rect id="odd" width="3parsec" height="3"/>'
    )
    found, left = read_svg(f"{HEAD}{body}</svg>".encode())
    assert found == []
    assert [one.id for one in left] == ["bent", "soft", "flat", "far", "odd"]
    assert all(one.why for one in left)


def test_transform_lists_are_applied_from_the_right() -> None:
    assert transform("translate(5,0) rotate(90)").at((1, 0)) == pytest.approx((5, 1))
    assert transform("rotate(90 1 1)").at((1, 0)) == pytest.approx((2, 1))
    assert transform("skewX(45)").at((0, 1)) == pytest.approx((1, 1))
    assert transform("nonsense(1) scale(2)") == Matrix()


@pytest.mark.parametrize(
    "data",
    [b"", b"<svg", b"<html/>", b"\xff\xfe\x00", b'<!DOCTYPE x [<!ENTITY a "aaaa">]><svg xmlns="http://www.w3.org/2000/svg">&a;</svg>',
     b"<svg xmlns='http://www.w3.org/2000/svg'>" + b"<g>" * 2000],
)  # fmt: skip
def test_hostile_files_are_one_sentence(data: bytes, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    with pytest.raises(SvgError, match=r"\.$"):
        read_svg(data)
    path = tmp_path / "a.svg"
    path.write_bytes(data)
    assert main(["measure", str(path), "--json"]) == 2
    out, err = capsys.readouterr()
    assert (out, err.count("\n")) == ("", 1)


@given(st.text(alphabet="MmLlHhVvZz0123456789.,-+eE \n", max_size=60))
def test_no_path_whatever_breaks_the_reader(d: str) -> None:
    found, left = read_svg(f'{HEAD}<path d="{d}"/></svg>'.encode())
    assert len(left) <= 1
    for shape in found:
        assert json.dumps(measured(shape))


def test_measure_and_classify_print_stable_keys(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    path = tmp_path / "shapes.svg"
    path.write_text(f'{HEAD}<polygon id="t" points="0,0 4,0 4,3"/></svg>')
    assert main(["measure", str(path), "--json"]) == 0
    (found,) = json.loads(capsys.readouterr().out)["shapes"]
    assert {"id", "kind", "vertices", "sides", "angles", "perimeter", "area", "centroid"} <= found.keys()
    assert main(["measure", str(path)]) == 0
    assert capsys.readouterr().out == "t: right triangle, perimeter 12, area 6\n"
    assert main(["classify", "0,0 4,0 4,3", "--json"]) == 0
    assert json.loads(capsys.readouterr().out) == {"kind": "right triangle", "also": ["scalene triangle"]}
    assert main(["classify", "-1,0", "1,0", "0,sqrt(3)"]) == 0
    assert capsys.readouterr().out.startswith("equilateral triangle; also")
    for bad in (["classify", "1,1"], ["classify", "a,b 1,1 2,2"], ["classify", "1 2 3"], ["measure", "/nowhere.svg"]):
        assert main(bad) == 2
        assert capsys.readouterr().err.count("\n") == 1
