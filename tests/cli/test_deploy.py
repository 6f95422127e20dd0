"""What stands in ``deploy/``: units that are hardened, settings that are all told, and the whole of
docs/operating.md done on a machine that is thrown away.
"""

import os
import re
import shutil
import subprocess
import tempfile
import unittest
from pathlib import Path

from zesty_glass.cli.cluster import free_port
from zesty_glass.cli.machine import COMMANDS, ROOT
from zesty_glass.cli.settings import Config

DEPLOY = ROOT / "deploy"
UNITS = ("zesty-web.service", "zesty-backup.service", "zesty-daily@audit.service")


class Units(unittest.TestCase):
    @unittest.skipUnless(shutil.which("systemd-analyze"), "no systemd")
    def test_they_may_do_little(self):
        with tempfile.TemporaryDirectory() as d:
            shutil.copytree(DEPLOY / "systemd", Path(d, "etc/systemd/system"))
            for unit in UNITS:
                done = subprocess.run(
                    ["systemd-analyze", "security", "--offline=true", f"--root={d}", unit],
                    capture_output=True,
                    text=True,
                )
                level = re.search(r"exposure level for \S+: ([\d.]+)", done.stdout)
                self.assertLessEqual(float(level[1]), 4.0, unit)

    def test_every_timer_starts_a_unit_that_runs_a_command(self):
        started = set()
        for timer in (DEPLOY / "systemd").glob("*.timer"):
            unit = re.search(r"^Unit=zesty-(?:daily@)?(\w+)\.service$", timer.read_text(), re.M)[1]
            self.assertIn(unit, COMMANDS)
            started.add(unit)
        self.assertEqual(started, {"backup", "audit", "forget", "remind"})


class Told(unittest.TestCase):
    def test_every_setting_stands_in_the_table(self):
        told = (ROOT / "docs" / "operating.md").read_text()
        for name in Config.model_fields:
            self.assertIn(f"`ZESTY_{name.upper()}`", told)

    def test_the_example_of_settings_names_none_that_is_not_there(self):
        named = re.findall(r"ZESTY_(\w+)=", (DEPLOY / "zesty.env.example").read_text())
        self.assertLessEqual({n.lower() for n in named}, set(Config.model_fields))


class Rehearsal(unittest.TestCase):
    def test_an_empty_machine_to_a_firm_that_runs_and_through_its_bad_days(self):
        if not os.environ.get("CI") or os.geteuid() or not shutil.which("apt-get"):
            self.skipTest("it makes a user, a database and a site of nginx: for machines of CI")
        ports = {f"REHEARSAL_{name}": str(free_port()) for name in ("PORT", "HTTPS", "HTTP")}
        found = {k: v for k, v in os.environ.items() if not k.startswith("ZESTY_")}
        done = subprocess.run(
            [str(DEPLOY / "rehearse"), "--on-a-machine-to-throw-away", "--and-clear"],
            cwd="/",
            env=found | ports,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
        )
        self.assertEqual(done.returncode, 0, done.stdout[-6000:])
        self.assertIn("All of docs/operating.md was done.", done.stdout)
        self.assertFalse(Path("/etc/zesty.env").exists())
