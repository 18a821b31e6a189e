"""A gauge box read while it speaks, in a thread of its own."""

import threading
from collections import deque

from urgens.bench.gauges.box_protocol import BoxReading, GaugeLines
from urgens.document import BuildErrors

WAIT = 0.05  # s for what comes next
SPEED = 115200  # baud of a real line
QUIET = 3.0  # s without a line: the box says nothing
KEPT = 120_000  # readings: twenty minutes of them


class LiveGauges:
    """Reads a port until it is closed, or goes away; what was read is kept."""

    def __init__(self, port: str) -> None:
        """Open a port; raises BuildErrors where there is none."""
        import serial

        try:
            self._line = serial.serial_for_url(port, baudrate=SPEED, timeout=WAIT)
        except (serial.SerialException, ValueError, OSError) as error:
            remedy = "plug the box in, or choose another port"
            raise BuildErrors.one(port, f"cannot be opened ({error})", remedy) from None
        self._gone: type[Exception] = serial.SerialException
        self.port, self.lines = port, GaugeLines()
        self.ended = ""  # why, in words, once it has
        self._readings: deque[BoxReading] = deque(maxlen=KEPT)
        self._lock, self._stop = threading.Lock(), threading.Event()
        self._thread = threading.Thread(target=self._run, name="gauges", daemon=True)
        self._thread.start()

    def taken(self) -> list[BoxReading]:
        """Return what was read since this was asked last."""
        with self._lock:
            found = list(self._readings)
            self._readings.clear()
        return found

    def close(self) -> None:
        """Stop reading and let go of the port. Source: pyserial."""
        self._stop.set()
        self._thread.join()
        self._line.close()

    def _run(self) -> None:
        while not self._stop.is_set():
            try:
                came = self._line.read(max(self._line.in_waiting, 1))
            except (self._gone, OSError, TypeError) as error:  # TypeError: it closed while it read
                self.ended = f"the port {self.port} went away ({error}); what was read is kept"
                return
            found = self.lines.feed(came) if came else []
            if found:
                with self._lock:
                    self._readings.extend(found)


def ports() -> tuple[str, ...]:
    """Return the serial ports of this machine. Source: pyserial's own list."""
    from serial.tools import list_ports

    return tuple(str(one.device) for one in list_ports.comports())
