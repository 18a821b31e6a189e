"""A card in grey: where a way will stand that is still worked out."""

from PySide6.QtCore import QRectF, Qt
from PySide6.QtGui import QColor, QPaintEvent
from PySide6.QtWidgets import QSizePolicy

from urgens.ui.theme.paint import T, ink
from urgens.ui.widgets.painted import Painted

TALL = 84.0  # px
BAR = 11.0  # px of a line of words to come
# Left end and top [px] and width, a share of the card's, of a name and two lines of reasons
LINES = ((48.0, 16.0, 0.42), (48.0, 38.0, 0.55), (48.0, 56.0, 0.36))


class WaitingCard(Painted):
    """Has no words yet; who listens hears that it is being worked out."""

    def __init__(self) -> None:
        super().__init__()
        self.setAccessibleName("Being worked out")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFixedHeight(round(TALL * self.scale))

    def paintEvent(self, event: QPaintEvent) -> None:
        with self.begin() as painter:
            ink(painter, Qt.PenStyle.NoPen, QColor(T.paper))
            painter.drawRoundedRect(QRectF(0, 0, self.across, TALL), 4, 4)
            painter.setBrush(QColor(T.band))
            painter.drawEllipse(QRectF(14, TALL / 2 - 10, 20, 20))
            for left, top, share in LINES:
                painter.drawRoundedRect(QRectF(left, top, share * self.across, BAR), 3, 3)
            painter.drawRoundedRect(QRectF(self.across - 92, TALL / 2 - 17, 84, 34), 4, 4)
