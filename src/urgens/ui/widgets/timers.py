"""Timers that call one thing: once after a while, or again and again."""

from collections.abc import Callable

from PySide6.QtCore import QObject, QTimer


def again(parent: QObject, every: int, call: Callable[[], object]) -> QTimer:
    """Return a timer, not running yet, that calls something every so many ms."""
    timer = QTimer(parent)
    timer.setInterval(every)
    timer.timeout.connect(call)
    return timer


def once(parent: QObject, after: int, call: Callable[[], object]) -> QTimer:
    """Return a timer, not running yet, that calls something so many ms after its last start."""
    timer = again(parent, after, call)
    timer.setSingleShot(True)
    return timer
