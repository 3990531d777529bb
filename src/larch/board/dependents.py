"""Which things look different when others change."""

from __future__ import annotations

from larch.core.base.memo import remember
from larch.core.model.capabilities import LooksAt
from larch.core.model.page import Page


@remember
def _users(page: Page) -> tuple[LooksAt, ...]:
    """The things of a page whose look may depend on others; remembered, since a drag asks at every frame."""
    return tuple(t for t in page.things if isinstance(t, LooksAt))


def dependents(page: Page, ids: set[str]) -> set[str]:
    """The ids of things whose look depends on some of these."""
    return {t.id for t in _users(page) if any(used.id in ids for used in t.uses(page))}
