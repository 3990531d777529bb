"""Values that stand on equipment are hidden and shown again; what it is stays to be seen."""

from __future__ import annotations

import pytest

from larch.board.paint import page_image
from larch.core.actions.labelling import hide_labels
from larch.core.model.capabilities import HasLabels
from larch.core.model.page import Page
from larch.core.model.thing import Thing
from tests.samples import sample_things

LABELLED = [thing for thing in sample_things() if isinstance(thing, HasLabels)]


@pytest.mark.parametrize("thing", LABELLED, ids=lambda thing: thing.kind())
def test_hidden_values_are_not_to_be_read_and_come_back(qapp: object, thing: Thing) -> None:
    box = thing.box()
    page = Page(id="p1").put(thing.moved(60 - box.x0, 60 - box.y0))
    hidden = hide_labels(page, page.things).after
    assert isinstance(hidden, Page)
    before, after = (page_image(one, 500, one.printed()) for one in (page, hidden))
    assert before != after
    assert [f.value for f in hidden.things[0].facts(hidden)] == [f.value for f in page.things[0].facts(page)]
    assert hide_labels(hidden, hidden.things).after == page
