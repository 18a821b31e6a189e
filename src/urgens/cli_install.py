"""The command line of installing: the desktop, the manual page, completion."""

import argparse
from pathlib import Path
from typing import Any

from urgens.installing import completion, install, man_page, remove

DONE = 0


def _install(options: argparse.Namespace) -> int:
    folder = options.prefix or Path.home() / ".local"
    for words in (remove if options.remove else install)(folder):
        print(words)
    return DONE


def _man(options: argparse.Namespace) -> int:
    print(man_page(), end="")
    return DONE


def _completion(options: argparse.Namespace) -> int:
    print(completion(options.shell))
    return DONE


RUN: dict[str, Any] = {"install-desktop": _install, "man": _man, "completion": _completion}
