"""``./zesty fuzz``: 20,000 generated requests against the description of the interface, with
another seed each time.
"""

from __future__ import annotations

import argparse
import os
import subprocess
import sys
import time

from zesty_glass.cli.machine import ROOT
from zesty_glass.cli.say import guarded, step


def main(arguments: list[str]) -> int:
    """Send them, and list what differs; the exit status is 1 when anything does."""
    parser = argparse.ArgumentParser(prog="./zesty fuzz")
    parser.add_argument("--requests", type=int, default=20_000, help="how many (20,000)")
    parser.add_argument("--seed", type=int, default=int(time.time()), help="to do the same again")
    given = parser.parse_args(arguments)
    step(f"{given.requests} requests, seed {given.seed}")
    env = os.environ | {"ZESTY_FUZZ": str(given.requests), "ZESTY_FUZZ_SEED": str(given.seed)}
    command = [sys.executable, "-m", "unittest", "tests.fuzz.test_generated"]
    return subprocess.run(command, cwd=ROOT, env=env).returncode


if __name__ == "__main__":
    sys.exit(guarded(main, sys.argv[1:]))
