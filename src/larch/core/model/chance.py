"""Chance that can be told again: each draw follows from the page's seed and how many draws came before."""

from __future__ import annotations

from typing import TYPE_CHECKING

from larch.core.model.page import Page

if TYPE_CHECKING:
    from numpy.random import Generator


def chance(page: Page) -> Generator:
    """The generator for the page's next draw (PCG64 seeded by the pair seed, draws)."""
    import numpy

    return numpy.random.default_rng([page.seed & (2**63 - 1), page.draws])


def drawn(page: Page) -> Page:
    """The page after one draw."""
    return page.replace(draws=page.draws + 1)
