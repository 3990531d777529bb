"""How the kinds of things are found: each in a file of its tag's name somewhere in `larch.core.things`.

A kind is imported when a thing of it is first met; all of them only when the shelf, or a test, asks for all.
"""

from __future__ import annotations

import importlib
import os
from collections.abc import Iterator, Sequence
from functools import cache
from pathlib import Path
from types import ModuleType

from larch.core.model.thing import ShelfItem, Thing, Unknown

PACKAGE = "larch.core.things"
ROOT = Path(__file__).parents[1] / "things"


@cache
def files_below(root: Path) -> dict[str, str]:
    """The modules in a folder and its folders, by their file's name: "circle" -> "geometry.circle"."""
    found = {}
    for entry in sorted(os.scandir(root), key=lambda entry: entry.name):
        if entry.name.startswith("_"):
            continue
        if entry.name.endswith(".py"):
            found[entry.name[:-3]] = entry.name[:-3]
        elif entry.is_dir():
            names = sorted(name[:-3] for name in os.listdir(entry.path) if name.endswith(".py") and name[0] != "_")
            found.update((name, f"{entry.name}.{name}") for name in names)
    return found


@cache
def kind_of(tag: str) -> type[Thing] | None:
    """The kind with a tag, or None for one that this version does not know."""
    where = files_below(ROOT).get(tag.replace(" ", "_"))
    if where is None:
        return None
    module = importlib.import_module(f"{PACKAGE}.{where}")
    return next((kind for kind in _kinds_in(module) if kind.__struct_config__.tag == tag), None)


def _kinds_in(module: ModuleType) -> Iterator[type[Thing]]:
    for value in vars(module).values():
        if isinstance(value, type) and issubclass(value, Thing) and value.__module__ == module.__name__:
            yield value


@cache
def _modules() -> Sequence[ModuleType]:
    return [importlib.import_module(f"{PACKAGE}.{where}") for where in files_below(ROOT).values()]


@cache
def kinds() -> dict[str, type[Thing]]:
    """Every kind by its tag."""
    found: dict[str, type[Thing]] = {"unknown": Unknown}
    for kind in (kind for module in _modules() for kind in _kinds_in(module)):
        tag = str(kind.__struct_config__.tag)
        if not tag.startswith("_"):  # what kinds share is none itself
            found[tag] = kind
    return dict(sorted(found.items()))


def shelf_items() -> list[ShelfItem]:
    """All entries of the shelf: those of each kind in the kinds' order, and among them those that a module of things
    states in a function `shelf`, at the place of its `ORDER`."""
    sources = [((kind.order, kind.__name__), kind.shelf) for kind in kinds().values()]
    sources += [((module.ORDER, module.__name__), module.shelf) for module in _modules() if hasattr(module, "shelf")]
    return [item for _place, shelf in sorted(sources, key=lambda source: source[0]) for item in shelf()]
