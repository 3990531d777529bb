"""What hostile input is given to: all that Larch does with such a thing. Only what is foreseen may be raised."""

from __future__ import annotations

import contextlib
from collections.abc import Callable

SIDE = 96


def try_svg(data: bytes) -> None:
    from larch.board.media.foreign import NotDrawn, painted_elsewhere
    from larch.core.maths.svg_shapes import read_svg
    from larch.core.media.svg_clean import NotASvg, clean_svg

    with contextlib.suppress(ValueError):
        read_svg(data)
    try:
        clean = clean_svg(data)
    except NotASvg:
        return
    with contextlib.suppress(NotDrawn):
        painted_elsewhere(clean.data, SIDE)


def try_html(data: bytes) -> None:
    from larch.core.files.rich_html import read_html
    from larch.core.things.words.text import Text

    words, runs, paragraphs = read_html(data.decode("utf-8", "surrogatepass"))
    words.encode()
    Text(text=words, runs=runs, paragraphs=paragraphs).extent()


def try_expression(data: bytes) -> None:
    import numpy as np

    from larch.core.maths.expression import ExpressionError, Undefined, parse, value_at
    from larch.core.maths.expression.evaluate import values

    try:
        node = parse(data.decode())
    except ExpressionError:
        return
    for x in (0.0, 1.5, 1e308):
        with contextlib.suppress(Undefined):
            value_at(node, x=x)
    values(node, x=np.linspace(-10, 10, 200))


def try_page(data: bytes) -> None:
    """Read, told, selected, painted, written and read again."""
    from larch.board.paint import page_image
    from larch.core.base.shape import Box
    from larch.core.files.codec import CodecError, page_from_json, page_to_json
    from larch.core.model.action import actions_for
    from larch.core.model.page_facts import page_facts

    try:
        page = page_from_json(data, [])
    except CodecError:
        return
    list(page_facts(page))
    for thing in page.things[:40]:
        thing.label(page)
        list(thing.facts(page))
        thing.box()
        for action in actions_for(page, (thing,)):
            action.label(page, (thing,))
    page_image(page, 160, Box(0, 0, *page.size))
    written = page_to_json(page)
    assert page_to_json(page_from_json(written)) == written


TARGETS: dict[str, Callable[[bytes], None]] = {
    "svg": try_svg, "html": try_html, "expression": try_expression, "ink": try_page, "page": try_page,
}  # fmt: skip
