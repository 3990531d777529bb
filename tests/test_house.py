"""Rules of the house: no circles, kinds and views found by their files, nothing that a new kind would have to touch."""

from __future__ import annotations

import ast
import re
from functools import cache
from pathlib import Path

import larch
from larch.board.views import ROOT as VIEWS
from larch.board.views import views
from larch.core.model.kinds import ROOT, files_below, kind_of, kinds
from larch.core.model.thing import Thing, Unknown

SOURCE = Path(larch.__file__).parent
HOOKS = {  # what every kind may say of itself; anything that only some can do is a mixin in `capabilities`
    "title", "shelf", "label", "extent", "touches", "facts", "actions", "handles", "with_handle", "stretched", "edges",
}  # fmt: skip
SHARED = {"replace", "moved", "turned", "enlarged", "box", "kind"}


@cache
def modules() -> dict[str, Path]:
    found = {}
    for path in SOURCE.rglob("*.py"):
        name = ".".join(("larch", *path.relative_to(SOURCE).with_suffix("").parts))
        found[name.removesuffix(".__init__")] = path
    return found


def imported_by(name: str) -> set[str]:
    """The modules of Larch that one imports, in functions too; what only type checkers see is left out."""
    found: set[str] = set()

    def look(node: ast.AST) -> None:
        for child in ast.iter_child_nodes(node):
            if isinstance(child, ast.If) and "TYPE_CHECKING" in ast.dump(child.test):
                continue
            if isinstance(child, ast.Import):
                found.update(alias.name for alias in child.names)
            if isinstance(child, ast.ImportFrom) and child.module:
                for alias in child.names:
                    whole = f"{child.module}.{alias.name}"
                    found.add(whole if whole in modules() else child.module)
            look(child)

    look(ast.parse(modules()[name].read_text()))
    return (found & modules().keys()) - {name}


def test_no_module_imports_itself_by_a_way_round_not_even_within_functions() -> None:
    waiting = {name: imported_by(name) for name in modules()}
    while True:
        free = [name for name, needs in waiting.items() if not needs & waiting.keys()]
        if not free:
            break
        for name in free:
            del waiting[name]
    in_circles = {name: sorted(needs & waiting.keys()) for name, needs in waiting.items()}
    assert not in_circles


def test_a_kind_never_imports_operations() -> None:
    below = [name for name in modules() if name.startswith(("larch.core.things", "larch.core.figures", "larch.core.model"))]
    assert {name for name in below if any(one.startswith("larch.core.actions") for one in imported_by(name))} == set()


def test_every_kind_and_every_view_lies_in_a_file_of_its_tag() -> None:
    files, shown = files_below(ROOT), files_below(VIEWS)
    for tag, kind in kinds().items():
        stem = tag.replace(" ", "_")
        assert stem in shown, tag
        if kind is not Unknown:
            assert kind.__module__ == f"larch.core.things.{files[stem]}"
            assert kind_of(tag) is kind
    assert kind_of("loom") is None and len(views()) == len(kinds())


def test_a_file_name_stands_for_one_module_only() -> None:
    for root in (ROOT, VIEWS):
        stems = [path.stem for path in root.rglob("*.py") if path.stem != "__init__"]
        assert len(stems) == len(set(stems))


def test_things_have_a_dozen_hooks() -> None:
    own = {name for name, value in vars(Thing).items() if not name.startswith("_") and callable(getattr(Thing, name, value))}
    assert {name for name in own if not isinstance(vars(Thing)[name], type)} - SHARED == HOOKS


def test_no_one_asks_for_a_concrete_kind_outside_its_view_and_operations() -> None:
    """Board and desk ask for capabilities. What types a single thing (an equation, words) is its own editor."""
    names = {kind.__name__ for kind in kinds().values()} - {"Unknown"} | {"Instrument", "Lettered"}
    own = (
        "board/views",
        "board/typeset",
        "board/gestures/instruments",
        "board/media",
        "desk/editors",
        "desk/media/clipboard",
    )
    found = []
    for folder in ("board", "desk", "services"):
        for path in (SOURCE / folder).rglob("*.py"):
            if str(path.relative_to(SOURCE)).startswith(own):
                continue
            for node in ast.walk(ast.parse(path.read_text())):
                if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "isinstance":
                    asked = {one.id for one in ast.walk(node.args[1]) if isinstance(one, ast.Name)}
                    kinds_imported = {
                        alias.asname or alias.name
                        for one in ast.walk(ast.parse(path.read_text()))
                        if isinstance(one, ast.ImportFrom) and (one.module or "").startswith("larch.core.things")
                        for alias in one.names
                    }
                    if asked & names & kinds_imported:
                        found.append(f"{path.relative_to(SOURCE)}:{node.lineno}")
    assert found == []


def test_every_icon_that_is_named_is_shipped() -> None:
    shipped = {path.stem for path in (SOURCE / "assets/icons").glob("*.svg")}
    named = set()
    for path in SOURCE.rglob("*.py"):
        text = path.read_text()
        named |= set(re.findall(r'(?:icon(?:_button)?\(|icon: ClassVar\[str\] = )"([a-z0-9-]+)"', text))
    assert named and named <= shipped, named - shipped
    actions = {a for kind in kinds().values() for item in kind.shelf() for thing in item.things() for a in thing.actions()}
    drawn = {action.icon for action in actions}
    assert drawn and drawn <= shipped, drawn - shipped


def test_licences_lie_beside_fonts_and_icons() -> None:
    fonts = {path.stem.split("-")[0] for path in (SOURCE / "assets/fonts").glob("*.ttf")}
    licences = {path.stem.removeprefix("OFL-") for path in (SOURCE / "assets/fonts").glob("OFL-*.txt")}
    assert {font.replace("STIXTwoMath", "STIXTwoMath") for font in fonts} == licences
    assert "ISC" in (SOURCE / "assets/icons/LICENSE-Lucide.txt").read_text()


def test_files_stay_small_enough_to_hold_in_mind() -> None:
    for path in SOURCE.rglob("*.py"):
        assert len(path.read_text().splitlines()) <= 500, path


def test_no_words_are_looked_up_while_a_module_is_imported() -> None:
    """They would stay in the language of that moment; `N_` marks what is said later."""
    found = []

    def look(node: ast.AST, path: Path) -> None:
        for child in ast.iter_child_nodes(node):
            if isinstance(child, ast.FunctionDef | ast.Lambda):
                continue
            if isinstance(child, ast.Call) and isinstance(child.func, ast.Name) and child.func.id == "_":
                found.append(f"{path.relative_to(SOURCE)}:{child.lineno}")
            look(child, path)

    for path in modules().values():
        look(ast.parse(path.read_text()), path)
    assert found == []
