"""``./zesty test``: linters, types, generated files, and every test."""

from __future__ import annotations

import argparse
import re
import subprocess
import sys
import tempfile
import unittest

from .machine import ROOT, VENV, WEB
from .say import fail, step

BIN = VENV / "bin"
CHECKS: list[tuple[str, list[str], object]] = [
    ("ruff", [str(BIN / "ruff"), "check", "zesty_glass", "tests", "zesty"], ROOT),
    (
        "ruff format",
        [str(BIN / "ruff"), "format", "--check", "-q", "zesty_glass", "tests", "zesty"],
        ROOT,
    ),
    ("mypy", [str(BIN / "mypy")], ROOT),
    ("tsc", ["npx", "tsc", "--noEmit", "-p", "."], WEB),
    ("eslint", ["npx", "eslint", "src"], WEB),
    ("vitest", ["npx", "vitest", "run"], WEB),
    ("prettier", ["npx", "prettier", "--check", "--log-level", "warn", "src"], WEB),
    (
        "the page's API client",
        [str(BIN / "python"), "-m", "zesty_glass.cli.client", "--check"],
        ROOT,
    ),
    ("generated docs", [str(BIN / "python"), "-m", "zesty_glass.cli.docs", "--check"], ROOT),
]

#: folders of tests that run in a second process beside the checks and the rest, so that both end
#: at about the same time on two cores
APART = ("tests.browser", "tests.fuzz", "tests.cli")


def _check(entry: tuple[str, list[str], object]) -> tuple[str, int, str]:
    name, command, folder = entry
    done = subprocess.run(command, cwd=str(folder), capture_output=True, text=True)
    return name, done.returncode, (done.stdout + done.stderr).strip()


def _checks() -> bool:
    good = True
    for name, code, text in map(_check, CHECKS):
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
    sys.path.insert(0, str(ROOT))
    good = True
    if given.only:
        ran, bad = _run(_suite(given.only))
    else:
        with tempfile.TemporaryFile("w+") as said:
            browser = subprocess.Popen(
                [sys.executable, "-m", "zesty_glass.cli.test", "--no-checks", *APART],
                cwd=ROOT,
                stdout=said,
                stderr=subprocess.STDOUT,
            )
            step("the real interface, requests and commands in a process apart, the rest here")
            good = given.no_checks or _checks()
            ran, bad = _run(
                _suite(
                    [
                        f"tests.{d.name}"
                        for d in sorted((ROOT / "tests").iterdir())
                        if d.is_dir() and d.name != "__pycache__" and f"tests.{d.name}" not in APART
                    ]
                    + ["tests.test_arrows"]
                )
            )
            browser.wait()
            said.seek(0)
            text = said.read()
        print(text)
        found = re.findall(r"^(\d+) passed, (\d+) failed$", text, re.MULTILINE)
        if not found:
            return fail("the tests of the interface did not come to their end, see above.")
        ran, bad = ran + int(found[-1][0]) + int(found[-1][1]), bad + int(found[-1][1])
    print(f"\n{ran - bad} passed, {bad} failed")
    if not good:
        return fail("a check is not clean, see above.")
    return 0 if bad == 0 and ran else 1


def _suite(names: list[str]) -> unittest.TestSuite:
    """Tests under dotted names: folders, modules, classes or single ones."""
    loader, suite = unittest.TestLoader(), unittest.TestSuite()
    for name in names:
        folder = ROOT / name.replace(".", "/")
        suite.addTests(
            loader.discover(str(folder), top_level_dir=str(ROOT))
            if folder.is_dir()
            else loader.loadTestsFromName(name)
        )
    return suite


def _run(suite: unittest.TestSuite) -> tuple[int, int]:
    """How many ran, skipped ones left out, and how many of them failed."""
    step(f"{suite.countTestCases()} tests")
    result = unittest.TextTestRunner(verbosity=1, warnings="ignore").run(suite)
    return result.testsRun - len(result.skipped), len(result.failures) + len(result.errors) + len(
        result.unexpectedSuccesses
    )


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
