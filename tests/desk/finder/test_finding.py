"""What is searched is found by what a teacher calls it, exact words first, and nothing improper."""

from __future__ import annotations

import pytest

from larch.core.media import picture_set
from larch.core.media.picture_set import NOT_OFFERED, search
from larch.desk.finder.findable import findable
from larch.desk.search import ranked_apart
from larch.desk.window import Window


@pytest.mark.parametrize(
    "query", ["number line", "ten frame", "counter", "fraction", "cut", "cut a shape", "wheel", "measure", "print", "dice",
              "column", "present", "keys", "recover"],
)  # fmt: skip
def test_the_finder_finds_what_there_is(window: Window, query: str) -> None:
    window.finder.open()
    window.finder.field.setText(query)
    assert window.finder._shown, query
    described = window.finder._shown[0]
    words = f"{described.label} {described.words}".casefold()
    assert any(part in words for part in query.casefold().split())


def test_a_frog_comes_before_frost(window: Window) -> None:
    window.show_shelf(True)
    window.shelf.search.setText("frog")
    labels = [item.label for item in window.shelf._found("frog")]
    assert labels[0] == "frog"
    assert labels.index("frog") < labels.index("frost")
    fitting, near = ranked_apart("frog", ["frost", "frog", "boat"], lambda word: (word, ""))
    assert (fitting, near) == (["frog"], ["frost"])


@pytest.mark.parametrize("query", ["\u9a6c", "horse", "bottle", "glass", "knife", "face", "drink", "person", "hand"])
def test_nothing_improper_is_among_what_a_child_finds(query: str) -> None:
    found = [drawing.label.split(":")[0] for drawing in search(query, 200)]
    assert found
    assert not NOT_OFFERED & set(found)


def test_trays_leave_it_out_too_and_old_lessons_still_show_it() -> None:
    listed = [drawing for name in picture_set.TRAYS for drawing in picture_set.tray(name, 4000)]
    assert not NOT_OFFERED & {drawing.label.split(":")[0] for drawing in listed}
    row = picture_set._base().execute("SELECT hash FROM picture WHERE label = 'toilet'").fetchone()
    assert picture_set.drawing(row[0]) is not None


@pytest.mark.parametrize("query", ["Frosch", "grenouille", "rana", "\u9752\u86d9"])
def test_pictures_are_found_in_several_languages(query: str) -> None:
    assert "frog" in [drawing.label for drawing in search(query)]


def test_a_topic_of_the_help_is_opened_from_the_finder(window: Window, qtbot) -> None:  # type: ignore[no-untyped-def]
    from larch.desk.dialogs.help import HelpDialog

    found = next(one for one in findable(window.context) if one.label == "Fractions: share and cut a shape")
    found.run()
    dialog = window.findChild(HelpDialog)
    assert dialog is not None
    assert dialog.list.currentItem().text() == found.label
    qtbot.waitUntil(lambda: not dialog.picture.pixmap().isNull(), timeout=10_000)
    dialog.close()
