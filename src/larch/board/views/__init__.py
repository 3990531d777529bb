"""One view per kind of thing: how it is painted. Found by themselves, like the kinds."""

from __future__ import annotations

import importlib
import pkgutil
from functools import cache

from larch.board.views.base import View
from larch.core.thing import Thing


@cache
def views() -> dict[type[Thing], View]:
    """Every kind's view."""
    for module in pkgutil.iter_modules(__path__):
        importlib.import_module(f"{__name__}.{module.name}")
    return {view.kind: view() for view in View.__subclasses__()}


def view_of(thing: Thing) -> View:
    return views()[type(thing)]
