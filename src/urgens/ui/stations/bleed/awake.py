"""Asks the desktop to keep the screen awake while a card is read from two metres away."""

from PySide6.QtCore import QObject
from PySide6.QtDBus import QDBusConnection, QDBusInterface, QDBusMessage

SERVICE = "org.freedesktop.ScreenSaver"
PLACE = "/org/freedesktop/ScreenSaver"
OWN = "urgens-awake"  # a connection of its own: when it ends, the desktop lets the screen sleep
MAY_SLEEP = "Nothing here can keep the screen awake: let it not sleep, in the desktop's settings."


class Awake(QObject):
    """Holds the screen awake from `hold` to `let_go`; says where that cannot be."""

    def __init__(self, parent: QObject) -> None:
        super().__init__(parent)
        self.held = False
        self.refused = ""

    def hold(self) -> None:
        """Keep the screen awake, as long as nobody lets it go."""
        if self.held or self.refused:
            return
        self.held = _inhibited()
        if not self.held:
            self.refused = MAY_SLEEP

    def let_go(self) -> None:
        """Let the screen sleep again."""
        if self.held:
            QDBusConnection.disconnectFromBus(OWN)
            self.held = False


def _inhibited() -> bool:
    """Ask the desktop; tell whether it said yes."""
    bus = QDBusConnection.connectToBus(QDBusConnection.BusType.SessionBus, OWN)
    if not bus.isConnected():
        return False
    desktop = QDBusInterface(SERVICE, PLACE, SERVICE, bus)
    reply = desktop.call("Inhibit", "urgens", "a work card is open")
    if reply.type() == QDBusMessage.MessageType.ReplyMessage:
        return True
    QDBusConnection.disconnectFromBus(OWN)
    return False
