"""pyqtgraph, loaded without having every class of Qt made first.

It copies all names of three modules of Qt to its own, and each name that is looked at makes PySide
build a class and its enumerations: a twelfth of the time to the first window. Here its own modules
stand there beforehand, and look a name up when it is first used.
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


if "pyqtgraph" not in sys.modules:
    for module in (QtCore, QtGui, QtWidgets):
        own = f"pyqtgraph.Qt.{module.__name__.rpartition('.')[2]}"
        sys.modules[own] = _Mirror(own, module)

import pyqtgraph as pg  # noqa: E402

__all__ = ["pg"]
