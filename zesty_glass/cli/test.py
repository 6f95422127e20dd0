"""``./zesty test``: linters, types, generated files, and every test."""

from __future__ import annotations

import argparse
import subprocess
import sys
import unittest
from concurrent.futures import ThreadPoolExecutor

from .machine import ROOT, VENV, WEB
from .say import fail, step

BIN = VENV / "bin"
CHECKS: list[tuple[str, list[str], object]] = [
    ("ruff", [str(BIN / "ruff"), "check", "zesty_glass", "tests", "zesty"], ROOT),
    ("mypy", [str(BIN / "mypy")], ROOT),
    ("tsc", ["npx", "tsc", "--noEmit", "-p", "."], WEB),
    ("eslint", ["npx", "eslint", "src"], WEB),
    ("the page's API client", [str(BIN / "python"), "-m", "zesty_glass.cli.client", "--check"], ROOT),
    ("generated docs", [str(BIN / "python"), "-m", "zesty_glass.cli.docs", "--check"], ROOT),
]


def _check(entry: tuple[str, list[str], object]) -> tuple[str, int, str]:
    name, command, folder = entry
    done = subprocess.run(command, cwd=str(folder), capture_output=True, text=True)
    return name, done.returncode, (done.stdout + done.stderr).strip()


def _checks() -> bool:
    good = True
    with ThreadPoolExecutor(2) as pool:
        for name, code, text in pool.map(_check, CHECKS):
            step(f"{name}: {'clean' if code == 0 else 'NOT clean'}")
            if code:
                good = False
                print(text)
    return good


def main(arguments: list[str]) -> int:
    """Run everything, or the tests under a dotted name."""
    parser = argparse.ArgumentParser(prog="./zesty test")
    parser.add_argument("only", nargs="*", help="dotted names of tests, e.g. tests.core")
    parser.add_argument("--no-checks", action="store_true", help="tests only")
    given = parser.parse_args(arguments)
    good = True if given.no_checks or given.only else _checks()
    sys.path.insert(0, str(ROOT))
    loader = unittest.TestLoader()
    suite = unittest.TestSuite()
    for name in given.only:
        folder = ROOT / name.replace(".", "/")
        suite.addTests(loader.discover(str(folder), top_level_dir=str(ROOT)) if folder.is_dir() else loader.loadTestsFromName(name))
    if not given.only:
        suite = loader.discover(str(ROOT / "tests"), top_level_dir=str(ROOT))
    step(f"{suite.countTestCases()} tests")
    result = unittest.TextTestRunner(verbosity=1, warnings="ignore").run(suite)
    bad = len(result.failures) + len(result.errors) + len(result.unexpectedSuccesses)
    print(f"\n{result.testsRun - bad - len(result.skipped)} passed, {bad} failed")
    if not good:
        return fail("a check is not clean, see above.")
    return 0 if result.wasSuccessful() and result.testsRun else 1


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
