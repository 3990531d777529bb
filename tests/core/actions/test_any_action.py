"""Whatever is done with whatever: random actions on random things keep every promise that pages make."""

from __future__ import annotations

import random

import pytest

from larch.core.actions.arrange.arrange import brought, laid_out
from larch.core.actions.arrange.common_facts import common_facts
from larch.core.figures.settle import settle
from larch.core.files.codec import page_from_json, page_to_json
from larch.core.model.action import actions_for, put
from larch.core.model.lesson import Lesson
from larch.core.model.page import Page
from larch.core.things.organisers.ready_made import KINDS
from tests.samples import sample_things

SAMPLES = sample_things()
TYPED = ("1", "abc", "-5", "3 x 2", "90", "board", "turn", "/a.sh", "page 1", "")


def some_page(rnd: random.Random) -> Page:
    """Twenty-five things of all kinds and an organiser."""
    page = Page(id="p").put(*rnd.sample(SAMPLES, 25))
    after = put(page, brought(page, laid_out(rnd.choice(KINDS)[2]()).things, 10, 10), "organiser").after
    assert isinstance(after, Page)
    return settle(after)


@pytest.mark.parametrize("seed", range(12))
def test_any_actions_one_after_the_other(seed: int) -> None:
    rnd = random.Random(seed)
    page = some_page(rnd)
    for _step in range(14):
        chosen = page.some([t.id for t in rnd.sample(page.things, min(len(page.things), rnd.choice((1, 1, 2, 3, 6))))])
        actions = actions_for(page, chosen)
        if not actions:
            continue
        action = rnd.choice(actions)
        try:
            after = action.run(page, chosen).after
        except ValueError as error:
            assert str(error).endswith((".", ")")), (action.name, error)
            continue
        if not isinstance(after, Page) or len(after.things) > 300:
            continue
        now = settle(after, page)
        assert now.things == settle(after).things, action.name  # what did not change need not be looked at again
        assert settle(page_from_json(page_to_json(now))).things == now.things, action.name
        assert len({thing.id for thing in now.things}) == len(now.things), action.name
        page = now
        if page.things:
            for fact in common_facts(Lesson().insert(page), page, [rnd.choice(page.things)]):
                assert fact.set is not None
                try:
                    fact.set(rnd.choice(TYPED))
                except ValueError as error:
                    assert str(error).endswith("."), error
