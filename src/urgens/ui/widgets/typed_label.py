"""A figure that is typed and kept beside the build: what a calculation needs for a moment."""

from collections.abc import Callable

from PySide6.QtWidgets import QWidget

from urgens.quantity import (
    Quantity,
    QuantityError,
    QuantityKind,
    ShownFigure,
    Units,
    completed,
    parse,
    shown,
)
from urgens.ui.widgets.dimension_label import DimensionLabel, Knowledge


class TypedLabel(DimensionLabel):
    """Holds a quantity of one kind, or nothing yet; `changed` is called when it is typed.

    A bare number is in the unit shown. Nothing typed empties it again.
    """

    def __init__(
        self,
        name: str,
        kind: QuantityKind,
        units: Units,
        changed: Callable[[], None],
        *,
        start: str = "",
        signed: bool = False,
        zero: bool = True,
        size: int = 20,
        parent: QWidget | None = None,
    ) -> None:
        super().__init__(name, self._take, size=size, parent=parent)
        self._kind, self._units, self._signed, self._zero = kind, units, signed, zero
        self._changed: Callable[[], None] = lambda: None
        self.quantity: Quantity | None = None
        self._take(start)
        self._changed = changed

    def _take(self, typed: str) -> None:
        if not typed.strip():
            self.quantity = None
            self.set_value(ShownFigure("—", ""), "")
            self.set_known(Knowledge.MISSING)
        else:
            quantity = parse(completed(typed, self._kind, self._units), self._kind)
            if quantity.value < 0 and not self._signed:
                raise QuantityError(f'"{typed}" is negative', "write it without the minus")
            if not quantity.value and not self._zero:
                raise QuantityError(f'"{typed}" is zero', "write what is there")
            self.show_quantity(quantity)
        self._changed()

    def show_quantity(self, quantity: Quantity) -> None:
        """Show a quantity that is kept elsewhere; nobody is told."""
        self.quantity = quantity
        self.set_value(shown(quantity, self._kind, self._units), quantity.text)
        self.set_known(Knowledge.YES)

    def show_in(self, units: Units) -> None:
        """Show what is typed in other units; what was typed stays."""
        self._units = units
        if self.quantity is not None:
            self.set_value(shown(self.quantity, self._kind, units), self.quantity.text)

    def set_text(self, typed: str) -> None:
        """Put a text in as if it were typed; raises QuantityError."""
        self._take(typed)

    @property
    def value(self) -> float | None:
        """The figure in SI, None where nothing is typed."""
        return None if self.quantity is None else self.quantity.value
