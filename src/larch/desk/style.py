"""The look of the interface: one style sheet made from the tokens, and the one shadow."""

from __future__ import annotations

from PyQt6.QtGui import QColor, QPalette
from PyQt6.QtWidgets import QApplication, QGraphicsDropShadowEffect, QWidget

from larch.board.look import ASSETS, interface_font
from larch.desk import theme

ICONS = (ASSETS / "icons").as_posix()


def sheet() -> str:
    """The style sheet of the theme that is worn."""
    t = theme.THEMES[theme.worn()]
    light = "-light" if theme.worn() == "night" else ""
    return f"""
QWidget {{ color: {t["needle"]}; font-family: "Atkinson Hyperlegible Next"; font-size: 15px; }}
QMainWindow, #topbar {{ background: {t["stone"]}; }}
QMenuBar {{ background: {t["stone"]}; spacing: 2px; padding: 4px 6px; }}
QMenuBar::item {{ padding: 9px 10px; background: transparent; border-radius: 4px; }}
QMenuBar::item:selected {{ background: {t["paper"]}; }}
QMenu {{ background: {t["paper"]}; border: 1px solid {t["hair"]}; padding: 6px 0; }}
QMenu::item {{ padding: 9px 28px 9px 14px; }}
QMenu::item:selected {{ background: {t["stone"]}; color: {t["needle"]}; }}
QMenu::item:disabled {{ color: {t["faded"]}; }}
QMenu::separator {{ height: 1px; background: {t["hair"]}; margin: 5px 12px; }}
QMenu::icon {{ padding-left: 12px; }}
QToolTip {{ background: {t["strong"]}; color: {t["strong text"]}; border: none; padding: 5px 8px; font-size: 14px; }}
#title {{ font-weight: 600; }}
#soft {{ color: {t["soft"]}; }}
#card {{ background: {t["paper"]}; border: 1px solid {t["hair"]}; border-radius: 8px; }}
#drawer {{ background: {t["drawer"]}; border-top: 1px solid {t["hair"]}; }}
#spread {{ background: {t["drawer"]}; }}
QLineEdit, QSpinBox, QComboBox {{ background: {t["paper"]}; border: 1px solid {t["edge"]}; border-radius: 6px;
  padding: 7px 10px; selection-background-color: {t["strong"]}; selection-color: {t["strong text"]}; min-height: 28px; }}
QLineEdit:disabled, QSpinBox:disabled, QComboBox:disabled {{ color: {t["faded"]}; border-color: {t["hair"]}; }}
QLineEdit:focus, QSpinBox:focus, QComboBox:focus {{ border: 2px solid {t["focus"]}; padding: 6px 9px; }}
#fact {{ border: 1px solid transparent; background: transparent; padding: 2px 4px; font-weight: 600;
  min-height: 24px; }}
#fact[readOnly="false"] {{ border-bottom: 1px dotted {t["edge"]}; border-radius: 0; }}
#fact:focus {{ border: 2px solid {t["focus"]}; border-radius: 6px; padding: 1px 3px; }}
#wish {{ padding: 2px 8px; min-height: 24px; }}
#wish:focus {{ padding: 1px 7px; }}
#head {{ color: {t["soft"]}; font-size: 13px; font-weight: 600; padding: 8px 0 2px 0;
  border-bottom: 1px solid {t["hair"]}; }}
#factlist {{ border: 1px solid transparent; border-bottom: 1px dotted {t["edge"]}; border-radius: 0; background: transparent;
  padding: 2px 4px; min-height: 24px; font-weight: 600; }}
#factlist:focus {{ border: 2px solid {t["focus"]}; border-radius: 6px; padding: 1px 3px; }}
QComboBox QAbstractItemView {{ background: {t["paper"]}; border: 1px solid {t["hair"]}; padding: 4px; outline: none; }}
QComboBox QAbstractItemView::item {{ min-height: 34px; padding: 2px 8px; }}
QComboBox::drop-down {{ border: none; width: 30px; }}
QComboBox::down-arrow, QSpinBox::down-arrow {{ image: url({ICONS}/chevron-down{light}.svg); width: 18px; height: 18px; }}
QSpinBox::up-arrow {{ image: url({ICONS}/chevron-up{light}.svg); width: 18px; height: 18px; }}
QSpinBox::up-button, QSpinBox::down-button {{ border: none; background: transparent; width: 30px; }}
QPushButton {{ background: {t["paper"]}; border: 1px solid {t["edge"]}; border-radius: 6px; padding: 8px 16px;
  min-height: 26px; }}
QPushButton:hover {{ border-color: {t["needle"]}; }}
QPushButton:focus {{ border: 2px solid {t["focus"]}; padding: 7px 15px; }}
QPushButton:default, #strong {{ background: {t["strong"]}; color: {t["strong text"]}; border-color: {t["strong"]};
  font-weight: 600; }}
#strong:focus {{ border: 3px solid {t["focus"]}; }}
QPushButton:disabled {{ color: {t["faded"]}; border-color: {t["hair"]}; }}
QToolButton {{ border: 2px solid transparent; border-radius: 8px; background: transparent; }}
QToolButton:hover {{ background: {t["stone"]}; }}
QToolButton:focus {{ border-color: {t["focus"]}; }}
QToolButton:checked {{ background: {t["stone"]}; }}
#tray {{ padding: 8px 13px; background: transparent; border: none; border-bottom: 3px solid transparent; }}
#choice {{ padding: 6px 12px; border-color: {t["hair"]}; }}
#choice:checked {{ border: 2px solid {t["gold"]}; background: {t["stone"]}; padding: 5px 11px; }}
#pick:checked {{ border: 2px solid {t["gold"]}; background: {t["stone"]}; }}
QCheckBox {{ spacing: 10px; }}
QCheckBox::indicator {{ width: 22px; height: 22px; border: 1px solid {t["edge"]}; border-radius: 5px;
  background: {t["paper"]}; }}
QCheckBox::indicator:checked {{ background: {t["strong"]}; image: url({ICONS}/check-light.svg); }}
QCheckBox:focus {{ text-decoration: underline; font-weight: 600; }}
QListWidget:focus, QTextBrowser:focus, QPlainTextEdit:focus {{ border: 2px solid {t["focus"]}; }}
#lessons::item {{ border: 3px solid transparent; border-radius: 8px; padding: 4px; }}
#lessons::item:selected {{ border-color: {t["gold"]}; background: {t["paper"]}; color: {t["needle"]}; }}
#topics::item {{ padding: 8px 10px; border-radius: 6px; }}
#topics::item:selected {{ background: {t["strong"]}; color: {t["strong text"]}; }}
#wrong {{ color: {t["wrong"]}; font-weight: 600; }}
QMainWindow, QDialog {{ background: {t["stone"]}; }}
QTextBrowser {{ background: {t["paper"]}; border: 1px solid {t["hair"]}; padding: 8px; font-size: 17px; }}
#eye:checked {{ background: transparent; }}
#tray:checked {{ background: transparent; font-weight: 600; border-bottom: 3px solid {t["gold"]}; border-radius: 0; }}
#tray:focus {{ border: 2px solid {t["focus"]}; border-radius: 6px; padding: 6px 11px 9px 11px; }}
QListView {{ background: transparent; border: none; outline: none; }}
#finder QListView::item {{ padding: 9px 10px; border-radius: 6px; }}
#finder QListView::item:selected {{ background: {t["stone"]}; color: {t["needle"]}; border-left: 4px solid {t["gold"]}; }}
#notice {{ background: {t["strong"]}; border-radius: 8px; }}
#notice QLabel {{ color: {t["strong text"]}; }}
#notice QPushButton {{ background: transparent; color: {t["strong text"]}; border: 1px solid {t["strong text"]}; }}
QScrollBar:horizontal {{ height: 10px; background: transparent; }}
QScrollBar:vertical {{ width: 10px; background: transparent; }}
QScrollBar::handle {{ background: {t["handle"]}; border-radius: 5px; min-width: 40px; min-height: 40px; }}
QScrollBar::add-line, QScrollBar::sub-line, QScrollBar::add-page, QScrollBar::sub-page {{ background: none;
  border: none; }}
"""


def dress(app: QApplication) -> None:
    """Gives the application its fonts and colours."""
    app.setStyle("Fusion")
    app.setFont(interface_font())
    paint_over(app)


def paint_over(app: QApplication, name: str = "") -> None:
    """Gives the application the colours of a theme, or again of the one that is worn."""
    if name:
        theme.wear(name)
    t = theme.THEMES[theme.worn()]
    palette = QPalette()
    roles = QPalette.ColorRole
    for role, shade in (
        (roles.Window, t["stone"]), (roles.Base, t["paper"]), (roles.Text, t["needle"]), (roles.WindowText, t["needle"]),
        (roles.Button, t["paper"]), (roles.ButtonText, t["needle"]), (roles.Highlight, t["strong"]),
        (roles.HighlightedText, t["strong text"]), (roles.PlaceholderText, t["soft"]),
    ):  # fmt: skip
        palette.setColor(role, QColor(shade))
    app.setPalette(palette)
    app.setStyleSheet(sheet())


def lift(widget: QWidget) -> None:
    """The one shadow of the program: under what is lifted."""
    shadow = QGraphicsDropShadowEffect(widget)
    shadow.setBlurRadius(10)
    shadow.setOffset(0, 3)
    shadow.setColor(QColor(23, 51, 46, 50))
    widget.setGraphicsEffect(shadow)


ICON = ASSETS / "freedesktop" / "larch.svg"
