"""One view per kind of thing: how it is painted. Found like the kinds, in a file of the tag's name, when first needed."""

from __future__ import annotations

import importlib
from functools import cache
from pathlib import Path

from larch.board.views.base import View
from larch.core.model.kinds import files_below, kinds
from larch.core.model.thing import Thing

ROOT = Path(__file__).parent


@cache
def view_for(kind: type[Thing]) -> View:
    """The view of a kind. Raises LookupError for a kind without one."""
    tag = str(kind.__struct_config__.tag)
    where = files_below(ROOT).get(tag.replace(" ", "_"))
    if where is None:
        raise LookupError(f"{tag} has no view")
    module = importlib.import_module(f"{__name__}.{where}")
    found = [view for view in vars(module).values() if isinstance(view, type) and view.__dict__.get("kind") is kind]
    if not found:
        raise LookupError(f"{module.__name__} has no view of {tag}")
    made: View = found[0]()
    return made


def views() -> dict[type[Thing], View]:
    """Every kind's view; imports them all."""
    return {kind: view_for(kind) for kind in kinds().values()}


def view_of(thing: Thing) -> View:
    return view_for(type(thing))
