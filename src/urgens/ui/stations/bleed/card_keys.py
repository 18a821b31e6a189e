"""The card's own keys: what each does now."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt

from urgens.ui.stations.bleed.work_buttons import Mode

if TYPE_CHECKING:
    from urgens.ui.stations.bleed.card_page import CardPage

ENTER = (Qt.Key.Key_Return, Qt.Key.Key_Enter)


def act_of(page: CardPage, key: Qt.Key) -> Callable[[], None] | None:
    """Return what a key of the card's own does now, None where it does nothing here."""
    if key in ENTER:
        focused = next((one for one in page.buttons.values() if one.hasFocus()), None)
        return page.go_on if focused is None else focused.click
    if key == Qt.Key.Key_Backspace:
        return page.go_back if page.run.step is not None else None
    return letters(page).get(key)


def letters(page: CardPage) -> dict[Qt.Key, Callable[[], None]]:
    """Return what letters and Space do now, before the window has its own use for them."""
    found: dict[Qt.Key, Callable[[], None]] = {Qt.Key.Key_P: page.next_card}
    if not page.beside.why.isHidden():
        found[Qt.Key.Key_W] = page.beside.why.click
    if page.counts:
        found |= {Qt.Key.Key_Space: page.stroke, Qt.Key.Key_B: page.note_bubbles}
    if not page.timer.isHidden():
        found[Qt.Key.Key_T] = page.timer.start_now
    named = {
        Qt.Key.Key_L: "leave", Qt.Key.Key_F: "trace", Qt.Key.Key_O: "again",
        Qt.Key.Key_G: "all-the-same" if page.state.mode is Mode.HALTED else "give-up",
    }  # fmt: skip
    buttons = ((key, page.buttons[name]) for key, name in named.items())
    return found | {key: button.click for key, button in buttons if not button.isHidden()}
