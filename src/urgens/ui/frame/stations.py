"""The stations there are, in the order of the work: all that the window knows of them."""

from urgens.ui.stations.balance import BALANCE
from urgens.ui.stations.bleed import BLEED
from urgens.ui.stations.measure import MEASURE
from urgens.ui.stations.plumb import PLUMB
from urgens.ui.stations.prove import PROVE
from urgens.ui.stations.sheet import SHEET
from urgens.ui.stations.size import SIZE
from urgens.ui.stations.trace import TRACE
from urgens.ui.widgets.station import StationKind

STATIONS: tuple[StationKind, ...] = (MEASURE, SIZE, BALANCE, PLUMB, BLEED, PROVE, TRACE, SHEET)
FIRST = BALANCE.name  # what a build is opened at
OWN = MEASURE.name  # what a builder's own vehicle is opened at
WHY = (SIZE.name, "Why?")  # where reasons are drawn
WISHES = (SIZE.name, "Wishes")  # where what is wanted is said
