"""Waiting while the window lives."""

from PySide6.QtCore import QEventLoop, QTimer


def rest(ms: int) -> None:
    """Let the window live for so long; work in other threads goes on, which QTest.qWait stops."""
    loop = QEventLoop()
    QTimer.singleShot(ms, loop.quit)
    loop.exec()
