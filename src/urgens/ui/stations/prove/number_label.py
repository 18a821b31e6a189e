"""A pure number that is typed and kept beside the build for a moment."""

from collections.abc import Callable

from PySide6.QtWidgets import QWidget

from urgens.quantity import QuantityError, ShownFigure, decimal
from urgens.ui.widgets.dimension_label import DimensionLabel, Knowledge


class NumberLabel(DimensionLabel):
    """Holds a number between two limits, or nothing yet; nothing typed empties it again."""

    def __init__(
        self,
        name: str,
        unit: str,
        limits: tuple[float, float],
        *,
        size: int = 26,
        step: float = 0.01,
        changed: Callable[[], None] = lambda: None,
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(name, self._take, size=size, parent=parent)
        self._unit, self._limits, self._step, self._changed = unit, limits, step, changed
        self.value: float | None = None
        self.stepped.connect(self._go)
        self.set_number(None)

    def set_number(self, value: float | None) -> None:
        """Put a number in, or nothing."""
        self.value = value
        self.set_value(ShownFigure("—" if value is None else f"{value:g}", self._unit),
                       "" if value is None else f"{value:g}")  # fmt: skip
        self.set_known(Knowledge.MISSING if value is None else Knowledge.YES)

    def _take(self, typed: str) -> None:
        text = typed.strip().removesuffix(self._unit).strip().replace(",", ".").replace("−", "-")
        if not text:
            self.set_number(None)
            self._changed()
            return
        low, high = self._limits
        wanted = f"write a number from {low:g} to {high:g}"
        try:
            value = decimal(text)
        except ValueError:
            raise QuantityError(f'"{typed}" is no number', wanted) from None
        if not low <= value <= high:
            raise QuantityError(f'"{typed}" cannot be', wanted)
        self.set_number(value)
        self._changed()

    def _go(self, steps: int) -> None:
        if self.value is not None:
            low, high = self._limits
            self.set_number(min(max(round(self.value + steps * self._step, 6), low), high))
            self._changed()
