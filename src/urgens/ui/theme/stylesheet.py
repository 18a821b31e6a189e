"""The stylesheet of standard widgets, made from the tokens."""

from urgens.ui.theme.tokens import Theme


def stylesheet(t: Theme) -> str:
    """Return the application's stylesheet."""
    return f"""
QWidget {{ color: {t.ink}; font-family: "IBM Plex Sans Condensed"; font-size: 16px; }}
QMainWindow, QDialog, QMessageBox, QFileDialog {{ background: {t.paper}; }}
#bench, #bench QScrollArea, #bench QScrollArea > QWidget > QWidget {{ background: {t.sheet}; }}
#top, #press, #rail {{ background: {t.paper}; }}
#top {{ border-bottom: 1px solid {t.hair}; }}
#press {{ border-left: 1px solid {t.hair}; }}
#rail {{ border-right: 1px solid {t.hair}; }}
QLabel {{ background: transparent; }}
QLabel[role="title"] {{ font-family: "IBM Plex Sans"; font-size: 24px; font-weight: 700; }}
QLabel[role="summary"], QLabel[role="muted"] {{ color: {t.muted}; }}
QLabel[role="muted"] {{ font-size: 15px; }}
QLabel[role="caption"] {{ color: {t.muted}; font-size: 15px; }}
QLabel[role="small"] {{ color: {t.muted}; font-size: 14px; }}
QLabel[role="heading"] {{ font-weight: 600; }}
QLabel[role="danger"] {{ color: {t.danger}; font-size: 20px; font-weight: 700; }}
QLabel[role="error"] {{ background: {t.danger_ground}; color: {t.danger}; font-size: 15px;
  padding: 6px 8px; border: 1px solid {t.danger}; border-radius: 3px; }}
QToolButton {{ background: transparent; border: 1px solid transparent; border-radius: 4px;
  padding: 0 10px; min-height: 36px; }}
QToolButton:hover {{ border-color: {t.hair}; }}
QToolButton:focus, QPushButton:focus, QComboBox:focus {{ border: 2px solid {t.front}; }}
QToolButton[segment="true"]:checked {{ background: {t.ink}; color: {t.sheet}; }}
QToolButton[narrow="true"] {{ padding: 0 7px; min-height: 34px; }}
QToolButton[role="name"] {{ font-family: "IBM Plex Sans"; font-size: 22px; font-weight: 700;
  padding: 0 22px 0 6px; }}
QToolButton[role="name"]::menu-indicator {{ image: url({{chevron}});
  subcontrol-position: right center; right: 4px; }}
QToolButton[role="kind"] {{ color: {t.muted}; min-height: 30px; padding: 0 22px 0 6px; }}
QToolButton[role="kind"]::menu-indicator {{ image: url({{chevron}});
  subcontrol-position: right center; right: 2px; }}
QPushButton[role="quiet"] {{ border-color: {t.hair}; padding: 0 8px; min-height: 30px;
  font-weight: 500; }}
QToolButton[role="step"] {{ border: 1px solid {t.ink}; padding: 0; min-width: 36px; }}
QPushButton {{ background: {t.sheet}; border: 1px solid {t.ink}; border-radius: 4px;
  padding: 0 14px; min-height: 34px; font-weight: 600; }}
QPushButton:hover {{ background: {t.paper}; }}
QPushButton[role="primary"] {{ background: {t.ink}; color: {t.sheet}; }}
QPushButton[role="primary"]:hover {{ background: {t.muted}; }}
QPushButton:disabled, QPushButton[role="primary"]:disabled {{ background: transparent;
  color: {t.muted}; border-color: {t.hair}; }}
QComboBox {{ background: transparent; border: 1px solid transparent;
  border-bottom: 2px dotted {t.muted}; border-radius: 0; padding: 0 22px 0 4px;
  min-height: 32px; font-weight: 600; }}
QComboBox::drop-down {{ border: none; width: 18px; }}
QComboBox::down-arrow {{ image: url({{chevron}}); width: 16px; height: 16px; }}
QComboBox QAbstractItemView, QMenu {{ background: {t.sheet}; color: {t.ink};
  border: 1px solid {t.ink}; selection-background-color: {t.ink};
  selection-color: {t.sheet}; outline: 0; }}
QMenu::item {{ padding: 8px 26px 8px 14px; }}
QMenu::item:selected {{ background: {t.ink}; color: {t.sheet}; }}
QMenu::item:disabled {{ color: {t.muted}; }}
QMenu::separator {{ height: 1px; background: {t.hair}; margin: 4px 0; }}
QLineEdit {{ background: {t.sheet}; border: 2px solid {t.ink}; border-radius: 3px; padding: 0 4px;
  selection-background-color: {t.fluid[0]}; selection-color: {t.ink}; }}
#card {{ background: {t.paper}; border: 1px solid {t.hair}; border-radius: 4px; }}
#card[fitted="true"] {{ border-left: 4px solid {t.ink}; }}
#card:focus {{ border: 2px solid {t.front}; }}
QScrollArea {{ border: none; }}
QScrollBar:vertical {{ background: {t.sheet}; width: 12px; }}
QScrollBar::handle:vertical {{ background: {t.hair}; border-radius: 6px; min-height: 40px; }}
QScrollBar::add-line, QScrollBar::sub-line {{ height: 0; }}
QToolTip {{ background: {t.sheet}; color: {t.ink}; border: 1px solid {t.ink}; padding: 4px; }}
"""
