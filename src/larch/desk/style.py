"""The look of the interface: one style sheet made from the tokens, and the one shadow."""

from __future__ import annotations

from PyQt6.QtGui import QColor, QPalette
from PyQt6.QtWidgets import QApplication, QGraphicsDropShadowEffect, QWidget

from larch.board.look import ASSETS, interface_font
from larch.core.base.hues import GOLD, NEEDLE, NEEDLE_SOFT, PAPER, STONE

HAIR = "#D9D5C8"
DRAWER = "#F5F3ED"
ICONS = (ASSETS / "icons").as_posix()

SHEET = f"""
QWidget {{ color: {NEEDLE}; font-family: "Atkinson Hyperlegible Next"; font-size: 15px; }}
QMainWindow, #topbar {{ background: {STONE}; }}
QMenuBar {{ background: {STONE}; spacing: 2px; padding: 4px 6px; }}
QMenuBar::item {{ padding: 9px 10px; background: transparent; border-radius: 4px; }}
QMenuBar::item:selected {{ background: {PAPER}; }}
QMenu {{ background: {PAPER}; border: 1px solid {HAIR}; padding: 6px 0; }}
QMenu::item {{ padding: 9px 28px 9px 14px; }}
QMenu::item:selected {{ background: {STONE}; color: {NEEDLE}; }}
QMenu::item:disabled {{ color: #9AA39F; }}
QMenu::separator {{ height: 1px; background: {HAIR}; margin: 5px 12px; }}
QMenu::icon {{ padding-left: 12px; }}
QToolTip {{ background: {NEEDLE}; color: {PAPER}; border: none; padding: 5px 8px; font-size: 14px; }}
#title {{ font-weight: 600; }}
#soft {{ color: {NEEDLE_SOFT}; }}
#card {{ background: {PAPER}; border: 1px solid {HAIR}; border-radius: 8px; }}
#drawer {{ background: {DRAWER}; border-top: 1px solid {HAIR}; }}
#spread {{ background: {DRAWER}; }}
QLineEdit, QSpinBox, QComboBox {{ background: {PAPER}; border: 1px solid #8C968F; border-radius: 6px; padding: 7px 10px;
  selection-background-color: {GOLD}; selection-color: white; min-height: 28px; }}
QLineEdit:focus, QSpinBox:focus, QComboBox:focus {{ border: 2px solid {GOLD}; padding: 6px 9px; }}
#fact {{ border: 1px solid transparent; background: transparent; padding: 2px 4px; font-weight: 600;
  min-height: 24px; }}
#fact[readOnly="false"] {{ border-bottom: 1px dotted #8C968F; border-radius: 0; }}
#fact:focus {{ border: 2px solid {GOLD}; border-radius: 6px; padding: 1px 3px; }}
#wish {{ padding: 2px 8px; min-height: 24px; }}
#wish:focus {{ padding: 1px 7px; }}
#head {{ color: {NEEDLE_SOFT}; font-size: 13px; font-weight: 600; padding: 8px 0 2px 0; border-bottom: 1px solid {HAIR}; }}
#factlist {{ border: 1px solid transparent; border-bottom: 1px dotted #8C968F; border-radius: 0; background: transparent;
  padding: 2px 4px; min-height: 24px; font-weight: 600; }}
#factlist:focus {{ border: 2px solid {GOLD}; border-radius: 6px; padding: 1px 3px; }}
QComboBox QAbstractItemView {{ background: {PAPER}; border: 1px solid {HAIR}; padding: 4px; outline: none; }}
QComboBox QAbstractItemView::item {{ min-height: 34px; padding: 2px 8px; }}
QComboBox::drop-down {{ border: none; width: 30px; }}
QComboBox::down-arrow, QSpinBox::down-arrow {{ image: url({ICONS}/chevron-down.svg); width: 18px; height: 18px; }}
QSpinBox::up-arrow {{ image: url({ICONS}/chevron-up.svg); width: 18px; height: 18px; }}
QSpinBox::up-button, QSpinBox::down-button {{ border: none; background: transparent; width: 30px; }}
QPushButton {{ background: {PAPER}; border: 1px solid #8C968F; border-radius: 6px; padding: 8px 16px;
  min-height: 26px; }}
QPushButton:hover {{ border-color: {NEEDLE}; }}
QPushButton:focus {{ border: 2px solid {GOLD}; padding: 7px 15px; }}
QPushButton:default, #strong {{ background: {NEEDLE}; color: {PAPER}; border-color: {NEEDLE}; font-weight: 600; }}
QPushButton:disabled {{ color: #9AA39F; border-color: {HAIR}; }}
QToolButton {{ border: 2px solid transparent; border-radius: 8px; background: transparent; }}
QToolButton:hover {{ background: {STONE}; }}
QToolButton:focus {{ border-color: {GOLD}; }}
QToolButton:checked {{ background: {STONE}; }}
#tray {{ padding: 8px 13px; background: transparent; border: none; border-bottom: 3px solid transparent; }}
#choice {{ padding: 6px 12px; border-color: {HAIR}; }}
#choice:checked {{ border: 2px solid {GOLD}; background: {STONE}; padding: 5px 11px; }}
#pick:checked {{ border: 2px solid {GOLD}; background: {STONE}; }}
QCheckBox {{ spacing: 10px; }}
QCheckBox::indicator {{ width: 22px; height: 22px; border: 1px solid #8C968F; border-radius: 5px; background: {PAPER}; }}
QCheckBox::indicator:checked {{ background: {NEEDLE}; image: url({ICONS}/check-light.svg); }}
QCheckBox:focus {{ text-decoration: underline; }}
#eye:checked {{ background: transparent; }}
#tray:checked {{ background: transparent; font-weight: 600; border-bottom: 3px solid {GOLD}; border-radius: 0; }}
#tray:focus {{ background: {STONE}; }}
QListView {{ background: transparent; border: none; outline: none; }}
#finder QListView::item {{ padding: 9px 10px; border-radius: 6px; }}
#finder QListView::item:selected {{ background: {STONE}; color: {NEEDLE}; border-left: 4px solid {GOLD}; }}
#notice {{ background: {NEEDLE}; border-radius: 8px; }}
#notice QLabel {{ color: {PAPER}; }}
#notice QPushButton {{ background: transparent; color: {PAPER}; border: 1px solid #8FA39C; }}
QScrollBar:horizontal {{ height: 10px; background: transparent; }}
QScrollBar:vertical {{ width: 10px; background: transparent; }}
QScrollBar::handle {{ background: #BDB9AC; border-radius: 5px; min-width: 40px; min-height: 40px; }}
QScrollBar::add-line, QScrollBar::sub-line, QScrollBar::add-page, QScrollBar::sub-page {{ background: none;
  border: none; }}
"""


def dress(app: QApplication) -> None:
    """Gives the application its fonts and colours."""
    app.setStyle("Fusion")
    app.setFont(interface_font())
    palette = QPalette()
    roles = QPalette.ColorRole
    for role, shade in (
        (roles.Window, STONE), (roles.Base, PAPER), (roles.Text, NEEDLE), (roles.WindowText, NEEDLE),
        (roles.Button, PAPER), (roles.ButtonText, NEEDLE), (roles.Highlight, GOLD), (roles.HighlightedText, "#FFFFFF"),
        (roles.PlaceholderText, NEEDLE_SOFT),
    ):  # fmt: skip
        palette.setColor(role, QColor(shade))
    app.setPalette(palette)
    app.setStyleSheet(SHEET)


def lift(widget: QWidget) -> None:
    """The one shadow of the program: under what is lifted."""
    shadow = QGraphicsDropShadowEffect(widget)
    shadow.setBlurRadius(10)
    shadow.setOffset(0, 3)
    shadow.setColor(QColor(23, 51, 46, 50))
    widget.setGraphicsEffect(shadow)


ICON = ASSETS / "freedesktop" / "larch.svg"
