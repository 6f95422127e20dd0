"""Servers that start at once, databases of another age, and folders that somebody else uses."""

import shutil
import subprocess
import sys
import tempfile
import unittest
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from unittest.mock import patch
from uuid import uuid4

from sqlalchemy import text

from tests import database
from zesty_glass.cli.cluster import Cluster
from zesty_glass.records.db import NewerDatabase, make_engine, migrate, newest, shape


def empty():
    name = f"e_{uuid4().hex[:12]}"
    database._admin(f"create database {name}")
    return database.cluster().url(name)


class Migrating(unittest.TestCase):
    def test_servers_that_start_at_once_migrate_once(self):
        url = empty()
        code = "import sys; from zesty_glass.records.db import migrate; migrate(sys.argv[1])"
        with ThreadPoolExecutor(3) as pool:
            done = list(
                pool.map(
                    lambda _: subprocess.run(
                        [sys.executable, "-c", code, url], capture_output=True, text=True
                    ),
                    range(3),
                )
            )
        self.assertEqual([d.returncode for d in done], [0, 0, 0], done[0].stderr[-500:])
        self.assertEqual(shape(url), newest())

    def test_a_connection_that_was_dropped_while_it_lay_idle_is_not_used(self):
        engine = make_engine(database.fresh(demo=False))
        self.addCleanup(engine.dispose)
        with engine.connect() as c:
            dropped = c.scalar(text("select pg_backend_pid()"))
        database._admin(f"select pg_terminate_backend({dropped})")
        with patch("zesty_glass.records.db.ASKED_AFTER", 0), engine.connect() as c:
            self.assertNotEqual(c.scalar(text("select pg_backend_pid()")), dropped)

    def test_a_connection_that_worked_just_now_is_used_again_unasked(self):
        engine = make_engine(database.fresh(demo=False))
        self.addCleanup(engine.dispose)
        with engine.connect() as c:
            first = c.scalar(text("select pg_backend_pid()"))
        with (
            patch("zesty_glass.records.db.ASKED_AFTER", 3600),
            patch.object(engine.dialect, "do_ping") as ping,
            engine.connect() as c,
        ):
            self.assertEqual(c.scalar(text("select pg_backend_pid()")), first)
        ping.assert_not_called()

    def test_a_newer_database_says_so(self):
        url = database.fresh(demo=False)
        engine = make_engine(url)
        with engine.begin() as c:
            c.execute(text("update alembic_version set version_num = '9999'"))
        engine.dispose()
        with self.assertRaisesRegex(NewerDatabase, "shape 9999, which is newer than this program"):
            migrate(url)

    def test_down_and_up_again(self):
        from alembic import command
        from alembic.config import Config

        url = database.fresh()
        config = Config()
        folder = Path(database.__file__).parents[1] / "zesty_glass" / "records" / "migrations"
        config.set_main_option("script_location", str(folder))
        config.attributes["url"] = url
        command.downgrade(config, "0004")
        self.assertEqual(shape(url), "0004")
        migrate(url)
        self.assertEqual(shape(url), newest())


class Folders(unittest.TestCase):
    def test_a_second_start_on_one_folder_says_who_has_it_and_stops_nobody(self):
        folder = Path(tempfile.mkdtemp(prefix="zg-two-"))
        folder.chmod(0o755)
        self.addCleanup(shutil.rmtree, folder, ignore_errors=True)
        first = Cluster(folder / "pg", fast=True)
        first.create()
        first.start()
        self.addCleanup(first.stop)
        code = (
            "import sys; from pathlib import Path; from zesty_glass.cli.cluster import Cluster\n"
            "Cluster(Path(sys.argv[1]), fast=True).start()"
        )
        second = subprocess.run(
            [sys.executable, "-c", code, str(folder / "pg")], capture_output=True, text=True
        )
        self.assertRegex(second.stderr, r"Stop: .*is in use by process \d+")
        copy = folder / "copy"
        subprocess.run(["cp", "-a", str(folder / "pg"), str(copy)], check=True)
        copied = Cluster(copy, fast=True)
        copied.stop()
        self.assertFalse((copy / "data" / "postmaster.pid").exists())
        engine = make_engine(first.url("postgres"))
        with engine.connect() as c:
            self.assertEqual(c.scalar(text("select 1")), 1)
        engine.dispose()
