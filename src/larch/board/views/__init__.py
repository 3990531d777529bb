"""One view per kind of thing: how it is painted. Found by themselves, like the kinds."""

from __future__ import annotations

import importlib
import pkgutil
from functools import cache

from larch.board.views.base import View
from larch.core.model.thing import Thing


@cache
def views() -> dict[type[Thing], View]:
    """Every kind's view."""
    for module in pkgutil.iter_modules(__path__):
        importlib.import_module(f"{__name__}.{module.name}")
    found, waiting = {}, list(View.__subclasses__())
    while waiting:
        view = waiting.pop()
        waiting += view.__subclasses__()
        if "kind" in view.__dict__:  # what views share has none
            found[view.kind] = view()
    return found


def view_of(thing: Thing) -> View:
    return views()[type(thing)]
