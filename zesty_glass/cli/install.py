"""``./zesty install``: what the service needs on this machine is there; nothing is started."""

from __future__ import annotations

import argparse
import compileall
import sys

from .machine import ROOT
from .say import guarded, step


def main(arguments: list[str]) -> int:
    """Compile our own modules, so that a service that may not write its code need not."""
    argparse.ArgumentParser(prog="./zesty install").parse_args(arguments)
    compileall.compile_dir(ROOT / "zesty_glass", quiet=1)
    step("everything is installed and the page is built")
    return 0


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
