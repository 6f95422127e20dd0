"""A bad day for every command: no rights, no setting, no network, no room; one sentence each."""

import contextlib
import io
import os
import signal
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path
from unittest import mock
from uuid import uuid4

import psycopg
from sqlalchemy.engine import make_url

from tests.cli.test_sentences import HUSH, Commands
from tests.database import cluster, fresh
from zesty_glass.cli import machine
from zesty_glass.cli.cluster import Cluster
from zesty_glass.cli.machine import ROOT
from zesty_glass.cli.say import Stop, guarded

EXAMPLE = str(ROOT / "docs" / "examples" / "terrace.json")
SENTENCE = r"(?s)^(.*\n)*\nzesty: \S.*[.!]\n$"


def stranger(url):
    """The same database, as a role that may sign in and nothing else."""
    name = f"stranger_{uuid4().hex[:8]}"
    with psycopg.connect(cluster().url("postgres"), autocommit=True) as c:
        c.execute(f"create role {name} login password '{HUSH}'")
    return make_url(url).set(username=name, password=HUSH).render_as_string(False)


class Database(Commands):
    """Faults of the role and of the environment."""

    def test_a_role_without_rights(self):
        with tempfile.TemporaryDirectory() as d:
            file = str(Path(d, "kept.zg"))
            url = fresh()
            self.assertEqual(self.ended(self.commands(d)["backup"][0], [file], url)[0], 0)
            for name, (main, arguments) in self.commands(d).items():
                with self.subTest(name):
                    code, said = self.ended(main, arguments, stranger(url))
                    if name == "migrate":  # nothing is to be done
                        continue
                    self.assertEqual(code, 1, said)
                    self.assertRegex(said, SENTENCE)
                    self.assertNotIn(HUSH, said)

    def test_no_setting_at_all(self):
        with tempfile.TemporaryDirectory() as d:
            for name, (main, arguments) in self.commands(d).items():
                with self.subTest(name):
                    code, said = self.ended(main, arguments, "")
                    self.assertEqual(code, 1)
                    self.assertRegex(said, r"\nzesty: (Set ZESTY_DATABASE|.*not-there.zg)")


class Typed(unittest.TestCase):
    def ended(self, name, *arguments, out=subprocess.PIPE):
        done = subprocess.run(
            [sys.executable, "-m", machine._module(name), *arguments],
            cwd=ROOT,
            stdout=out,
            stderr=subprocess.PIPE,
            text=True,
        )
        self.assertNotIn("Traceback", done.stderr)
        self.assertNotEqual(done.returncode, 0)
        return done.stderr

    def test_ports(self):
        self.assertIn("99999 is no port", self.ended("demo", "--port", "99999"))
        self.assertIn("-1 is no port", self.ended("demo", "--port=-1"))

    def test_folders_that_take_nothing(self):
        self.assertRegex(self.ended("demo", "--port", "0", "--data", "/proc/zesty"), SENTENCE)
        self.assertIn("Not a directory", self.ended("demo", "--port", "0", "--data", EXAMPLE))

    def test_files_that_are_none(self):
        for name in ("assess", "suggest"):
            for path in ("/nowhere.json", "/", str(ROOT / "README.md")):
                with self.subTest(name, path=path):
                    self.assertIn('"remedy": ', self.ended(name, path))

    def test_names_that_are_none(self):
        self.assertIn("There is no view nonsense", self.ended("shots", "nonsense"))
        self.assertIn("nonsense is no module", self.ended("mutate", "nonsense"))
        self.assertIn("There is no test tests.nonsense", self.ended("test", "tests.nonsense"))
        self.assertIn("invalid choice", self.ended("messages", "--language", "nonsense"))
        self.assertIn("invalid int", self.ended("fuzz", "--requests", "many"))

    def test_a_full_disk_where_the_answer_goes(self):
        with open("/dev/full", "w") as full:
            self.assertIn("The disk is full", self.ended("assess", EXAMPLE, out=full))

    def test_who_has_read_enough_ends_it_quietly(self):
        done = subprocess.run(
            f"{ROOT / 'zesty'} | true", shell=True, stderr=subprocess.PIPE, text=True
        )
        self.assertEqual(done.stderr, "")


class Installing(unittest.TestCase):
    """What package managers say on a bad day, and what the person at the terminal reads."""

    def stopped(self, said, what, *arguments):
        failed = subprocess.CompletedProcess([], 1, stdout="", stderr=said)
        with (
            tempfile.TemporaryDirectory() as d,
            mock.patch.object(machine, "VENV", Path(d)),
            mock.patch.object(machine, "_missing", lambda _: ["postgresql"]),
            mock.patch.object(machine.subprocess, "run", lambda *_, **__: failed),
            contextlib.redirect_stderr(io.StringIO()),
            self.assertRaises(Stop) as e,
        ):
            Path(d, "bin").mkdir()
            Path(d, "bin", "python").touch()
            what(*arguments)
        return str(e.exception)

    def ways(self):
        yield machine._packages, "run"
        yield machine._environment, ROOT / "requirements.txt"
        yield machine._npm, "ci"

    def test_no_network(self):
        for (what, argument), said in zip(
            self.ways(),
            (
                "W: Temporary failure resolving 'somewhere'",
                "error: dns error: failed to look up address",
                "npm error code EAI_AGAIN",
            ),
            strict=True,
        ):
            self.assertIn("Check the network", self.stopped(said, what, argument))

    def test_no_room(self):
        for (what, argument), said in zip(
            self.ways(),
            ("No space left on device", "No space left on device", "npm error code ENOSPC"),
            strict=True,
        ):
            self.assertIn("The disk is full", self.stopped(said, what, argument))

    def test_what_nobody_foresaw_is_told_as_it_was_said(self):
        for what, argument in self.ways():
            self.assertIn("a strange fault", self.stopped("a strange fault", what, argument))

    def test_a_checkout_that_may_not_be_written(self):
        with (
            mock.patch.object(machine, "VENV", Path("/proc/zesty")),
            contextlib.redirect_stderr(io.StringIO()),
            self.assertRaises(Stop) as e,
        ):
            machine._environment(ROOT / "requirements.txt")
        self.assertIn("The virtual environment could not be made", str(e.exception))

    def test_a_fault_of_the_system_names_what_and_where(self):
        said = io.StringIO()

        def readonly(_):
            raise OSError(30, "Read-only file system", "/srv/zesty/web/dist")

        with contextlib.redirect_stderr(said):
            self.assertEqual(guarded(readonly, []), 1)
        self.assertIn("Read-only file system: /srv/zesty/web/dist.", said.getvalue())


KEPT = """
import os, sys
from pathlib import Path
from zesty_glass.cli.cluster import Cluster
c = Cluster(Path(sys.argv[1]))
c.create()
c.start()
import psycopg
with psycopg.connect(c.url("postgres"), autocommit=True) as k:
    k.execute("create table kept (word text)")
    k.execute("insert into kept values ('still here')")
print("ready", flush=True)
os.kill(os.getpid(), 9)
"""


class Killed(unittest.TestCase):
    def test_the_next_start_says_so_and_takes_the_database_over_with_all_it_held(self):
        with tempfile.TemporaryDirectory() as d:
            Path(d).chmod(0o755)
            done = subprocess.run(
                [sys.executable, "-c", KEPT, f"{d}/pg"], cwd=ROOT, capture_output=True, text=True
            )
            self.assertEqual((done.returncode, done.stdout), (-signal.SIGKILL, "ready\n"))
            again, said = Cluster(Path(d, "pg")), io.StringIO()
            self.assertTrue(again.runs())
            with contextlib.redirect_stderr(said):
                again.start()
            try:
                self.assertIn("an earlier start was killed", said.getvalue())
                with psycopg.connect(again.url("postgres")) as k:
                    self.assertEqual(
                        k.execute("select word from kept").fetchall(), [("still here",)]
                    )
            finally:
                again.stop()
                again.release()
            self.assertFalse(again.runs())


class Debians(unittest.TestCase):
    """What a stock machine runs: nothing newer than its own Python is used without a fallback."""

    STOCK = Path("/usr/bin/python3")

    def test_commands_run_under_debians_python(self):
        mine = Path(sys.executable).resolve()
        if not self.STOCK.exists() or self.STOCK.resolve() == mine:
            self.skipTest("this is it already, or there is none")
        if self.STOCK.resolve().name != f"python3.{sys.version_info.minor}":
            self.skipTest("compiled packages fit another version")
        there = next(p for p in sys.path if p.endswith("site-packages"))
        done = subprocess.run(
            [
                str(self.STOCK),
                "-m",
                "unittest",
                "tests.cli.test_operation",
                "tests.cli.test_assess",
            ],
            cwd=ROOT,
            env=os.environ | {"PYTHONPATH": f"{ROOT}:{there}"},
            capture_output=True,
            text=True,
        )
        self.assertEqual(done.returncode, 0, done.stderr[-2000:])
