"""What the stops advise: the next setting, how likely the rear is first there, and why."""

from PySide6.QtWidgets import QFrame, QHBoxLayout, QVBoxLayout, QWidget

from urgens.bench.proof_state import NextOnRoad
from urgens.bench.sentences import advice_reason, brakes_words, headline, of_hundred
from urgens.document import Build
from urgens.guidance.words.figures import FigureWords
from urgens.ui.stations.prove.chance_bars import ChanceBars
from urgens.ui.stations.prove.stops_found import StopsFound
from urgens.ui.widgets.layouts import tight
from urgens.ui.widgets.worded import worded, wrapped

NOTHING = (
    "Nothing can be set between two stops on this build: no adjustable valve, no balance bar. "
    "Stops still tell what the brakes do."
)
WORKING = "Working it out…"
_COUNTED = {"notches": "Notches", "length": "Offset"}


class AdvicePanel(QFrame):
    """A headline, its reason, what holds it back, and a bar a setting; `action` stands beside."""

    def __init__(self, action: QWidget) -> None:
        super().__init__()
        self.bars = ChanceBars()
        self.headline, self.chance = wrapped("next"), wrapped("sentence")
        self.why, self.held = wrapped("muted"), wrapped("warned")
        self.left_out, self.bars_said = wrapped("small"), worded("", "heading")
        column = tight(QVBoxLayout(self), 4)
        head = QHBoxLayout()
        head.addWidget(self.headline, 1)
        head.addWidget(action)
        column.addLayout(head)
        for widget in (self.chance, self.why, self.held, self.left_out, self.bars_said, self.bars):
            column.addWidget(widget)
        column.addStretch()

    def show_working(self) -> None:
        """Say that it is being worked out."""
        self.chance.setText(WORKING)

    def show_failed(self, words: str) -> None:
        """Say why it could not be worked out."""
        self.chance.setText("")
        self.why.setText(words)

    def show_found(self, stops: StopsFound, build: Build, words: FigureWords) -> None:
        """Show what the stops of a build say."""
        said = brakes_words(stops.known, build.targets.surface)
        self.left_out.setText("; ".join(stops.known.left_out))
        self.left_out.setVisible(bool(stops.known.left_out))
        road = stops.road
        self.bars_said.setVisible(road is not None)
        if road is None:
            self.headline.setText("Nothing to set.")
            self.chance.setText("")
            self.why.setText(f"{NOTHING} {said}")
            self.bars.show_advice(None, None, words)
            self.held.hide()
            return
        self._show_road(road, build, words)
        nearest = ""
        if stops.nearest is not None:
            case, surface = stops.nearest
            nearest = f" “{case}” at μ {surface:.2f} is the nearest to it."
        self.why.setText(f"{said} {advice_reason(road.advice)}{nearest}")

    def _show_road(self, road: NextOnRoad, build: Build, words: FigureWords) -> None:
        advice = road.advice
        counted = _COUNTED.get(advice.turned.counted, "Turns")
        self.bars_said.setText(f"{counted}, and rear first of 100, all loads: not beyond 5")
        self.headline.setText(headline(advice, words, road.held))
        chance = of_hundred(advice.chance)
        self.chance.setText(f"{chance[:1].upper()}{chance[1:]} that the rear locks first.")
        self.held.setText("Not yet: " + "; ".join(road.held) + "." if road.held else "")
        self.held.setVisible(bool(road.held))
        self.bars.show_advice(advice, advice.turned.now(build), words)
