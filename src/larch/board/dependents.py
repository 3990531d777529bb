"""Which things look different when others change."""

from __future__ import annotations

from larch.core.base.memo import remember
from larch.core.model.page import Page
from larch.core.model.thing import Thing


@remember
def _users(page: Page) -> tuple[Thing, ...]:
    """The things of a page whose look may depend on others; remembered, since a drag asks at every frame."""
    return tuple(t for t in page.things if type(t).uses is not Thing.uses)


def dependents(page: Page, ids: set[str]) -> set[str]:
    """The ids of things whose look depends on some of these."""
    return {t.id for t in _users(page) if any(used.id in ids for used in t.uses(page))}
