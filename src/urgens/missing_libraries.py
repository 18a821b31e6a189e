"""Libraries of the system that Qt needs and that are not here, and how they are installed."""

import ctypes

from urgens.data import SystemLibrary, system_libraries


def missing() -> tuple[SystemLibrary, ...]:
    """Return the libraries that cannot be loaded here."""
    return tuple(one for one in system_libraries() if not _loads(one.name))


def _loads(name: str) -> bool:
    try:
        ctypes.CDLL(name)
    except OSError:
        return False
    return True


def how_to_install() -> str:
    """Return the command that installs what is missing, in words where nothing known is."""
    packages = [one.package for one in missing()]
    if not packages:
        return "All system libraries that Qt is known to need are here; install Qt's packages anew."
    return (
        "These packages of Debian, Ubuntu and their relatives are missing; install them with\n"
        f"  sudo apt-get install -y --no-install-recommends {' '.join(packages)}"
    )
