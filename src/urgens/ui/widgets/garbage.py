"""Garbage is collected between two events of the window, never in the middle of one.

Python collects whenever it allocates, in whichever thread that is. Where that is inside a call of
Qt that holds a lock, an object of Qt that is destroyed then waits for that lock, for ever; and in
the thread of a task it destroys objects of the window there.
"""

import gc

from PySide6.QtCore import QObject

from urgens.ui.widgets.timers import again

EVERY = 150  # ms between two looks
YOUNG = 10_000  # new objects that may be garbage before it is collected
ALL = 20  # of so many collections one looks through all that was made


def collect_between_events(application: QObject) -> None:
    """From now on collect garbage by a timer of the application alone."""
    gc.disable()
    again(application, EVERY, collect_some).start()


def collect_some() -> None:
    """Collect what has gathered, where that is worth it; asked where nothing of Qt goes on."""
    global _collections
    if gc.isenabled() or gc.get_count()[0] <= YOUNG:
        return
    _collections += 1
    gc.collect(2 if _collections % ALL == 0 else 1)


_collections = 0
