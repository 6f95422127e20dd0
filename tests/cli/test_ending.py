"""What is told to end takes with it what it started."""

import os
import signal
import subprocess
import sys
import tempfile
import unittest
from pathlib import Path

from zesty_glass.cli.machine import ROOT

ASLEEP = """
import signal, tempfile, time, sys
signal.signal(signal.SIGHUP, signal.SIG_DFL)  # whatever whoever runs the tests made of it
from zesty_glass.cli.say import guarded
def main(_):
    with tempfile.TemporaryDirectory(dir=sys.argv[1]):
        print("ready", flush=True)
        time.sleep(60)
    return 0
sys.exit(guarded(main, []))
"""


class Ending(unittest.TestCase):
    def started(self, *command, **env):
        return subprocess.Popen(
            [sys.executable, *command],
            cwd=ROOT,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
            env={**os.environ, **env},
            start_new_session=True,
        )

    def test_a_command_closes_what_it_opened(self):
        for number in (signal.SIGTERM, signal.SIGHUP):
            with self.subTest(number), tempfile.TemporaryDirectory() as d:
                child = self.started("-c", ASLEEP, d)
                self.assertEqual(child.stdout.readline(), "ready\n")
                child.send_signal(number)
                child.communicate(timeout=30)
                self.assertEqual(child.returncode, 128 + number)
                self.assertEqual(list(Path(d).iterdir()), [])

    def test_under_nohup_a_closed_terminal_ends_nothing(self):
        ignoring = ASLEEP.replace("SIG_DFL", "SIG_IGN")
        with tempfile.TemporaryDirectory() as d:
            child = self.started("-c", ignoring, d)
            self.assertEqual(child.stdout.readline(), "ready\n")
            child.send_signal(signal.SIGHUP)
            child.send_signal(signal.SIGTERM)
            child.communicate(timeout=30)
            self.assertEqual(child.returncode, 128 + signal.SIGTERM)

    def test_tests_leave_no_database_and_no_folder(self):
        with tempfile.TemporaryDirectory() as d:
            Path(d).chmod(0o755)  # the database runs as somebody else where we are root
            names = ("tests.api.test_session", "tests.api.test_visits", "tests.api.test_jobs")
            child = self.started(*("-m", "zesty_glass.cli.test", "--no-checks", *names), TMPDIR=d)
            while not child.stdout.readline().endswith("tests\n"):
                self.assertIsNone(child.poll())
            self.assertEqual(child.stdout.read(1), ".")  # the first has passed: a database runs
            self.assertTrue(list(Path(d).iterdir()))
            child.send_signal(signal.SIGTERM)
            child.communicate(timeout=60)
            running = subprocess.run(["ps", "-eo", "args"], capture_output=True, text=True).stdout
            self.assertNotIn(d, running)
            self.assertEqual([p.name for p in Path(d).iterdir() if p.name.startswith("zg-")], [])
