"""Words shown as they are. A label or a tip of Qt takes what looks like markup for markup: a lesson's title could then be
laid out, or make it read a file. Nothing in Larch is shown but as plain text, unless its own author wrote the markup."""

from __future__ import annotations

from html import escape

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QLabel, QWidget


class Words(QLabel):
    """A label of plain words."""

    def __init__(self, text: str | QWidget | None = None, parent: QWidget | None = None) -> None:
        super().__init__(parent if isinstance(text, str) or text is None else text)
        self.setTextFormat(Qt.TextFormat.PlainText)
        if isinstance(text, str):
            self.setText(text)


def tip(text: str) -> str:
    """What a tool tip is set to, so that it shows the text and nothing else."""
    return f"<qt>{escape(text)}</qt>" if "<" in text else text
