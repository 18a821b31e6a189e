"""pyqtgraph, loaded without what no plot here uses: an eighth of the time to the first window.

It copies all names of three modules of Qt to its own, and each name that is looked at makes PySide
build a class and its enumerations. Here its own modules stand there beforehand, and look a name up
when it is first used. Trees of parameters, remote views and the like are passed over meanwhile.
"""

import sys
from types import ModuleType

from PySide6 import QtCore, QtGui, QtWidgets


class _Mirror(ModuleType):
    """Has another module's names; what is set on it stays its own."""

    def __init__(self, name: str, source: ModuleType) -> None:
        super().__init__(name)
        self._source = source

    def __getattr__(self, name: str) -> object:
        if sys._getframe(1).f_code.co_name == "_copy_attrs":
            return None  # pyqtgraph asks only whether the name is there, to copy it if not
        found = self.__dict__[name] = getattr(self._source, name)
        return found


class _Nothing(ModuleType):
    """Stands for a module while pyqtgraph is loaded, and has None for whatever is asked of it."""

    __all__ = ()

    def __getattr__(self, name: str) -> None:
        return None


_PASSED_OVER = tuple(
    f"pyqtgraph.{name}"
    for name in (
        "imageview",
        "widgets.ColorMapWidget",
        "widgets.DataFilterWidget",
        "widgets.DataTreeWidget",
        "widgets.DiffTreeWidget",
        "widgets.RemoteGraphicsView",
        "widgets.ScatterPlotWidget",
    )
)

if "pyqtgraph" not in sys.modules:
    for name in _PASSED_OVER:
        sys.modules[name] = _Nothing(name)
    for module in (QtCore, QtGui, QtWidgets):
        own = f"pyqtgraph.Qt.{module.__name__.rpartition('.')[2]}"
        sys.modules[own] = _Mirror(own, module)

import pyqtgraph as pg  # noqa: E402

for name in _PASSED_OVER:
    if isinstance(sys.modules.get(name), _Nothing):
        del sys.modules[name]  # who asks for it from here on gets what it is

__all__ = ["pg"]
