"""Drawings from elsewhere: what is harmless stays, what is not goes or is refused in one sentence."""

from __future__ import annotations

import pytest
from hypothesis import given
from hypothesis import strategies as st

from larch.core.media.svg_clean import NotASvg, clean_svg

HEAD = '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 40 20">'


def cleaned(body: str) -> str:
    return clean_svg(f"{HEAD}{body}</svg>".encode()).data.decode()


def test_a_plain_drawing_stays_what_it_is() -> None:
    body = '<g id="a" transform="scale(2)"><path d="M0 0L9 9" fill="url(#b)"/><use xlink:href="#a"/></g>'
    clean = clean_svg(f"{HEAD}{body}</svg>".encode())
    assert not clean.dropped
    assert clean.size == (40, 20)
    for part in ('d="M0 0L9 9"', 'fill="url(#b)"', 'xlink:href="#a"', 'transform="scale(2)"'):
        assert part in clean.data.decode()


@pytest.mark.parametrize(
    ("body", "gone"),
    [
        ("<script>alert(1)</script>", "alert"),
        ("<SCRIPT>alert(1)</SCRIPT>", "alert"),
        ('<rect onload="alert(1)" width="3"/>', "alert"),
        ('<image href="http://host.example/a.png"/>', "host.example"),
        ('<image xlink:href="file:///etc/passwd"/>', "passwd"),
        ('<image href="//host.example/a"/>', "host.example"),
        ('<use href="other.svg#a"/>', "other.svg"),
        ('<rect style="fill: url(http://host.example/a)"/>', "host.example"),
        ("<rect fill=\"url( 'http://host.example/a')\"/>", "host.example"),
        ("<style>@import 'http://host.example/a.css';</style>", "host.example"),
        (r"<style>rect { fill: u\72l(http://host.example/a) }</style>", "host.example"),
        ('<a href="javascript:alert(1)"><rect/></a>', "javascript"),
        ("<foreignObject><body>alert</body></foreignObject>", "alert"),
        ('<set attributeName="href" to="http://host.example/"/>', "host.example"),
        ('<image href="data:text/html;base64,PGI+"/>', "text/html"),
    ],
)
def test_scripts_and_what_is_fetched_are_left_out_and_told(body: str, gone: str) -> None:
    clean = clean_svg(f'{HEAD}{body}<circle r="4"/></svg>'.encode())
    assert clean.dropped
    assert gone not in clean.data.decode()
    assert '<circle r="4">' in clean.data.decode()


def test_pictures_inside_and_style_by_name_stay() -> None:
    body = '<style>.a { fill: red }</style><image href="data:image/png;base64,iVBORw0KGgo="/>'
    clean = clean_svg(f"{HEAD}{body}</svg>".encode())
    assert not clean.dropped and ".a { fill: red }" in clean.data.decode()


@pytest.mark.parametrize(
    ("raw", "words"),
    [
        (b"", "damaged"),
        (b"<svg><g></svg>", "damaged"),
        (b"<html></html>", "no drawing"),
        (b'<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg>&a;</svg>', "entities"),
        (b"<svg>" + b"<g>" * 400 + b"</g>" * 400 + b"</svg>", "too many parts"),
        (b"<svg>" + b"<g/>" * 70_000 + b"</svg>", "too many parts"),
        (b" " * (9 * 2**20), "larger"),
    ],
)
def test_what_is_no_drawing_is_refused_in_one_sentence(raw: bytes, words: str) -> None:
    with pytest.raises(NotASvg, match=words) as caught:
        clean_svg(raw)
    assert str(caught.value).endswith(".")


@pytest.mark.parametrize(
    ("top", "size"),
    [
        ('width="10cm" height="5cm"', (10 * 96 / 2.54, 5 * 96 / 2.54)),
        ('viewBox="0 0 7 3"', (7, 3)),
        ('width="100%" height="100%" viewBox="0,0,7,3"', (7, 3)),
        ('width="12" height="40"', (12, 40)),
        ('viewBox="a b c d"', (300, 300)),
        ('width="-4" height="1e9"', (300, 300)),
    ],
)
def test_its_size_is_found(top: str, size: tuple[float, float]) -> None:
    assert clean_svg(f"<svg {top}></svg>".encode()).size == pytest.approx(size)


@given(st.text(alphabet="<>svg/\"'= ahref#:url()\\72", max_size=60))
def test_anything_is_either_cleaned_or_refused(body: str) -> None:
    try:
        clean = clean_svg(f"{HEAD}{body}</svg>".encode())
    except NotASvg:
        return
    again = clean_svg(clean.data)
    assert not again.dropped  # cleaning leaves nothing to clean
