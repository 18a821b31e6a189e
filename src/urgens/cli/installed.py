"""The command line of installing: the desktop, the manual page, completion."""

import argparse
from pathlib import Path
from typing import Any

from urgens.cli.exits import DONE
from urgens.cli.installing import install, remove
from urgens.data import manual_text


def _install(options: argparse.Namespace) -> int:
    folder = options.prefix or Path.home() / ".local"
    for words in (remove if options.remove else install)(folder):
        print(words)
    return DONE


def _man(options: argparse.Namespace) -> int:
    print(manual_text("urgens.1"), end="")
    return DONE


def _completion(options: argparse.Namespace) -> int:
    print(manual_text(options.shell), end="")
    return DONE


RUN: dict[str, Any] = {"install-desktop": _install, "man": _man, "completion": _completion}
