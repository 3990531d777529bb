"""The help: how things work, made from what the tools, kinds and commands say of themselves."""

from __future__ import annotations

from html import escape
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QTextCursor
from PyQt6.QtWidgets import QDialog, QDialogButtonBox, QLabel, QPlainTextEdit, QTextBrowser, QVBoxLayout

from larch.core.base.words import _
from larch.core.model.kinds import kinds
from larch.desk.drawings import licence

if TYPE_CHECKING:
    from larch.desk.context import Context


def help_html(context: Context) -> str:
    """The whole text. Kinds and keys are listed from the registries, so it is never out of date."""
    paragraphs = [
        _("The tools lie on the ledge. The one in hand stands proud; press it again for its choices."),
        _("The shelf holds everything that can be put out: search, then tap or drag."),
        _("Drag over empty page to draw a box round things. Shift adds to a selection; a double click opens or rolls."),
        _("The gold brackets size a thing, the gold disc turns it, the rings on its corners change its shape. "
          "With Ctrl a corner falls on the squares; with Alt nothing falls into place by itself."),
        _("Pictures: search the shelf in your language, paste one, drop files on the page, or Put out > Picture from a "
          "file. Drag the rings on its edges to trim it."),
        _("Layers (Ctrl+Shift+L) lists everything on the page, also what lies behind: select it there, lock it, hide it, "
          "drag it up or down. A double click opens a group; select draws a ring instead of a box if you choose so."),
        _("A dragged thing falls into line with edges, middles, equal gaps and the paper. Several selected: line up, "
          "spread, rows, grids and circles are under “more”; “lay out” among the facts makes copies, say 4 x 3 or 8 round."),
        _("The facts of a thing (Ctrl+I) say how it can be moved, where it leads when it is tapped at the Board, and how "
          "many a supply gives. Drag things onto the bin, or onto the open shelf to keep them (the number of a page, too)."),
        _("A thing marked as a supply hands out a fresh copy on every drag. It is moved by its gold grip."),
        _("Papers lie on the shelf: a tap lays one under the page, a drag lays out a piece. With nothing selected, Ctrl+I "
          "shows the page: its line height, margin, colours and size can be typed."),
        _("The pen has nibs, straight lines (Shift: every 15°), curves through three points, arrows and dashes; lay the "
          "pens you use ready. With tip colours on, a pen that is chosen belongs to the tip that writes next."),
        _("The eraser takes what it touches, whole strokes, what a ring encloses, or what a sweep passes; a flat hand rubs "
          "out too. It takes only ink, and none that is locked: “Keep what is written” locks what should stay."),
        _("Stamp sets one mark for a tap and an even row for a drag. Paint fills what lines enclose, and shows where they "
          "don't."),
        _("Type sizes are named for the distance they are read from. A double tap opens a folded sticky note."),
        _("Construct draws points, lines and circles and what follows from them: its question stands above the ledge. "
          "Tap, or drag from one to the next; what is near (a corner, a crossing, a place on a line) is used. A full "
          "point can be dragged, a ring follows. What can't be there fades, says why, and comes back. Geometry > Steps "
          "tells how it was made."),
        _("Measures can be typed: AB = 5, an angle, an area. The page (nothing selected, Ctrl+I) has a scale (4 squares = 1 "
          "m), decimals and exact values. In words, {AB} tells a measure, and “½ · {AB} · {h} = {=}” computes."),
        _("Lay a pen to the edge of a ruler or a set square, to the rim of a protractor, or swing the compasses. "
          "One finger slides an instrument, two turn it. “Draws figures” makes what is drawn along it know its measure."),
        _("Share into… divides a shape into equal parts; select a shape and a line to cut it. Parts fit together exactly. "
          "Keys for a shape in hand: + and - for its size, [ and ] turn it, . changes its colour."),
        _("Frost over hides an answer until it is rubbed off at the Board, by hand or with the eraser."),
        _("Set out remembers how the page is laid; Set out again returns to it. Wipe takes the ink and only the ink."),
        _("F5 goes to the Board, Esc comes back. There a tap on a die rolls it, and locked things can't be touched."),
        _("Nothing needs saving to be kept: every change is on disk at once and comes back after a crash."),
        _("By keyboard: Tab goes from thing to thing, arrows move it (Shift: further), N takes its next corner, "
          "Enter opens or rolls it, Ctrl+I shows its facts, Ctrl+K finds anything."),
    ]  # fmt: skip
    paragraphs.append(licence())
    things = [(kind.title(), kind.help) for kind in kinds().values() if kind.help]
    rows = "".join(f"<tr><td><b>{escape(title)}</b></td><td>{escape(_(text))}</td></tr>" for title, text in sorted(things))
    keys = "".join(
        f"<tr><td><b>{escape(c.shortcut.replace(' or ', ', '))}</b></td><td>{escape(c.label)}</td></tr>"
        for c in context.part("commands").listed
        if c.shortcut
    )
    body = "".join(f"<p>{escape(text)}</p>" for text in paragraphs)
    title, of_things, of_keys = _("How things work"), _("Things"), _("Keys")
    return (
        f"<h2>{title}</h2>{body}<h3>{of_things}</h3><table cellpadding=6>{rows}</table>"
        f"<h3>{of_keys}</h3><table cellpadding=6>{keys}</table>"
    )


def show_log(context: Context) -> None:
    """What went wrong unforeseen, as it stands in the log: to be copied into a message to whoever looks after Larch."""
    from larch.services.log import log_file, newest

    dialog = QDialog(context.top)
    dialog.setWindowTitle(_("Log"))
    dialog.resize(760, 520)
    text = QPlainTextEdit(newest() or _("Nothing has gone wrong so far."), dialog)
    text.setReadOnly(True)
    text.setAccessibleName(_("Log"))
    text.moveCursor(QTextCursor.MoveOperation.End)
    where = QLabel(str(log_file()), dialog)
    where.setTextFormat(Qt.TextFormat.PlainText)
    where.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
    buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close, dialog)
    buttons.rejected.connect(dialog.reject)
    layout = QVBoxLayout(dialog)
    layout.addWidget(text)
    layout.addWidget(where)
    layout.addWidget(buttons)
    dialog.show()


def show_help(context: Context) -> None:
    dialog = QDialog(context.top)
    dialog.setWindowTitle(_("How things work"))
    dialog.resize(760, 620)
    text = QTextBrowser(dialog)
    text.setHtml(help_html(context))
    text.setAccessibleName(_("How things work"))
    buttons = QDialogButtonBox(QDialogButtonBox.StandardButton.Close, dialog)
    buttons.rejected.connect(dialog.reject)
    layout = QVBoxLayout(dialog)
    layout.addWidget(text)
    layout.addWidget(buttons)
    dialog.show()
