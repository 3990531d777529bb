"""What the export asks and does."""

from __future__ import annotations

from larch.core.base.shape import Placement
from larch.core.things.numbers.block import Block
from tests.board.test_tools import Hand


def test_what_lies_outside_is_said_before_anything_is_printed(hand: Hand) -> None:
    from larch.desk.dialogs.export import ExportDialog

    hand.put(Block(value=100, placement=Placement(2000, 100)))
    w = hand.window
    number = len(w.session.lesson.pages)
    where = next(i for i, page in enumerate(w.session.lesson.pages, 1) if page.id == hand.canvas.page_id)
    dialog = ExportDialog(w.session.lesson.pages, hand.canvas.page_id, w)
    assert f"page {where}" in dialog._beyond.text()
    assert dialog.grow
    dialog.deleteLater()
    neat = ExportDialog(w.session.lesson.pages[:1], "p1", w)
    assert neat._beyond.isHidden() and neat._grow.isHidden()
    neat.deleteLater()
    assert number


def test_the_export_cuts_or_grows_as_was_chosen(hand: Hand, tmp_path, qtbot) -> None:  # type: ignore[no-untyped-def]
    from PyQt6.QtGui import QImage

    hand.put(Block(value=100, placement=Placement(2000, 100)))
    sizes = []
    for grow in (True, False):
        target = tmp_path / f"{grow}.png"
        hand.window.files.export_to(target, whole=False, width=400, grow=grow)
        qtbot.waitUntil(target.exists, timeout=5000)
        sizes.append(QImage(str(target)).height())
    assert sizes[1] == 225
    assert sizes[0] < 160
