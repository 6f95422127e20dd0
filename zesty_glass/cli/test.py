"""``./zesty test``: linters, types, generated files, and every test."""

from __future__ import annotations

import argparse
import re
import subprocess
import sys
import unittest
from collections.abc import Sequence
from concurrent.futures import ThreadPoolExecutor

from . import ending
from .machine import ROOT, VENV, WEB
from .say import fail, step

BIN = VENV / "bin"
CHECKS: list[tuple[str, list[str], object]] = [
    ("ruff", [str(BIN / "ruff"), "check", "zesty_glass", "tests", "tools", "zesty"], ROOT),
    (
        "ruff format",
        [str(BIN / "ruff"), "format", "--check", "-q", "zesty_glass", "tests", "tools", "zesty"],
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

TESTS = ROOT / "tests"
#: modules of the interface's tests that run beside documents and commands: a third of its time
LIGHT = ("test_bench", "test_eyes", "test_offline")


def _interface() -> tuple[tuple[str, ...], tuple[str, ...]]:
    """Modules of the interface's tests: most of them, a new one too, and the light ones."""
    every = [p.stem for p in sorted((TESTS / "browser").glob("test_*.py"))]
    parts = ([m for m in every if m not in LIGHT], [m for m in every if m in LIGHT])
    most, light = (tuple(f"tests.browser.{m}" for m in part) for part in parts)
    return most, light


#: folders of tests, and modules, that run in processes of their own beside the checks and the rest:
#: much of a test of the interface is waiting, so that four keep two cores at work; with five its
#: waits end too early
MOST, LIGHTER = _interface()
FOLDERS_APART = (
    "tests.api",
    "tests.documents",
    "tests.records",
    "tests.fuzz",
    "tests.cli",
    "tests.work",
    "tests.demo",
    "tests.messages",
)
APART = (MOST, FOLDERS_APART[:1], (*FOLDERS_APART[1:], *LIGHTER))


def _check(entry: tuple[str, list[str], object]) -> tuple[str, int, str]:
    name, command, folder = entry
    done = ending.run(command, cwd=str(folder), stdout=subprocess.PIPE, stderr=subprocess.PIPE)
    return name, done.returncode, (done.stdout + done.stderr).strip()


def _checks() -> bool:
    good = True
    for name, code, text in map(_check, CHECKS):
        step(f"{name}: {'clean' if code == 0 else 'NOT clean'}")
        if code:
            good = False
            print(text)
    return good


def _apart(names: Sequence[str]) -> str:
    """What tests under some names say, run in a process of their own."""
    command = [sys.executable, "-m", "zesty_glass.cli.test", "--no-checks", *names]
    done = ending.run(command, cwd=ROOT, stdout=subprocess.PIPE, stderr=subprocess.STDOUT)
    return done.stdout


def _counted(names: Sequence[str], said: str) -> tuple[int, int]:
    """How many tests ran apart, and how many of them failed, by what they said."""
    print(said)
    found = re.findall(r"^(\d+) passed, (\d+) failed$", said, re.MULTILINE)
    if not found:
        fail(f"the tests of {', '.join(names)} did not come to their end, see above.")
        return 1, 1
    passed, failed = map(int, found[-1])
    return passed + failed, failed


def _rest() -> list[str]:
    """Names of the folders of tests that no process apart runs, and of the modules beside them."""
    apart = {"tests.browser", *FOLDERS_APART}
    folders = [d for d in sorted(TESTS.iterdir()) if d.is_dir()]
    names = [f"tests.{d.name}" for d in folders if d.name != "__pycache__"]
    modules = (f"tests.{p.stem}" for p in sorted(TESTS.glob("test_*.py")))
    return [*(n for n in names if n not in apart), *modules]


def main(arguments: list[str]) -> int:
    """Run everything, or the tests under a dotted name."""
    parser = argparse.ArgumentParser(prog="./zesty test")
    parser.add_argument("only", nargs="*", help="dotted names of tests, e.g. tests.core")
    parser.add_argument("--no-checks", action="store_true", help="tests only")
    given = parser.parse_args(arguments)
    ending.at_once()
    sys.path.insert(0, str(ROOT))
    good = True
    if unknown := [n for n in given.only if not _is_there(n)]:
        return fail(f"There is no test {unknown[0]}. Name one like tests.core.test_units.")
    if given.only:
        ran, bad = _run(_suite(given.only))
    else:
        with ThreadPoolExecutor(len(APART)) as pool:
            beside = [pool.submit(_apart, names) for names in APART]
            step("the real interface, and requests and commands, in processes apart, the rest here")
            good = given.no_checks or _checks()
            ran, bad = _run(_suite(_rest()))
            counts = [_counted(n, b.result()) for n, b in zip(APART, beside, strict=True)]
        ran, bad = ran + sum(c[0] for c in counts), bad + sum(c[1] for c in counts)
    print(f"\n{ran - bad} passed, {bad} failed")
    if not good:
        return fail("a check is not clean, see above.")
    return 0 if bad == 0 and ran else 1


def _is_there(name: str) -> bool:
    """Whether a folder or a module stands behind a dotted name, or before its class."""
    parts = name.split(".")
    files = (ROOT.joinpath(*parts[:n]).with_suffix(".py") for n in range(1, len(parts) + 1))
    return ROOT.joinpath(*parts).is_dir() or any(f.exists() for f in files)


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
