"""What a page itself says: its title, its size and its paper, each to be changed by a person."""

from __future__ import annotations

from collections.abc import Iterator

from larch.core.base.words import _, many
from larch.core.model.edit import Edit
from larch.core.model.fact import Fact
from larch.core.model.page import PUPILS, SIZES, Page
from larch.core.model.paper import Paper, paper_facts
from larch.core.model.scale import scale_facts


def page_facts(page: Page) -> Iterator[Fact]:
    """Facts of the page; their `set` returns the changed page."""
    yield Fact("title", page.title, text=page.title or _("untitled"), label=_("title"), set=lambda t: titled(page, t))
    size = size_name(page)
    options = tuple((name, _(name)) for name in SIZES)
    text = size or "{:g} × {:g} cm".format(*(side / page.unit for side in page.size))
    yield Fact("size", size or text, text=text, label=_("printed part"), set=lambda t: sized(page, t), options=options)
    yield from scale_facts(page)
    yield from paper_facts(page.paper, page.unit, lambda paper: page.replace(paper=paper))
    for name, words in PUPILS.items():
        yield _leave(page, name, _(words))
    count = many("1 thing", "{n} things", len(page.things))
    yield Fact("things", len(page.things), text=count, label=_("on it"))


def _leave(page: Page, name: str, words: str) -> Fact:
    """Whether the class may do something at the Board."""
    may = name in page.pupils
    answers = (("yes", _("yes")), ("no", _("no")))

    def put(typed: str) -> Page:
        rest = [other for other in PUPILS if other in page.pupils and other != name]
        return page.replace(pupils=tuple([*rest, name] if typed == "yes" else rest))

    return Fact(f"pupils {name}", "yes" if may else "no", text=_("yes") if may else _("no"), label=words, set=put,
                options=answers, part="pupils")  # fmt: skip


def size_name(page: Page) -> str:
    """The name of the page's size, or "" if it has none."""
    return next((name for name, size in SIZES.items() if size == page.size), "")


def titled(page: Page, title: str) -> Page:
    return page.replace(title=title.strip()[:200])


def sized(page: Page, name: str) -> Page:
    """The page with a printed part of a named size. Raises ValueError with one sentence."""
    if name not in SIZES:
        raise ValueError(_("A page is one of {sizes}.").format(sizes=", ".join(SIZES)))
    return page.replace(size=SIZES[name])


def dress(page: Page, paper: Paper) -> Edit:
    """Lays a paper under the page."""
    return Edit(_("Paper"), page, page.replace(paper=paper))


def resize(page: Page, name: str) -> Edit:
    return Edit(_("Page size"), page, sized(page, name))
