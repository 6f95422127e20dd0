"""What an operator does with firms and their people: let in, remove, and keep apart."""

import contextlib
import io
import os
import unittest
from unittest import mock

from sqlalchemy import func, select

from tests.database import SECRET, fresh
from zesty_glass.cli import add_firm, let_in, remove_firm
from zesty_glass.cli.say import Stop
from zesty_glass.demo.people import MANAGER_EMAIL
from zesty_glass.records import audit, signing
from zesty_glass.records.base import Base
from zesty_glass.records.db import make_engine, make_sessions
from zesty_glass.records.models import Audit, Firm, HomeRow, User
from zesty_glass.work import people
from zesty_glass.work.passwords import right

NEW = "another quiet water"


class Firms(unittest.TestCase):
    def setUp(self):
        self.url = fresh()
        engine = make_engine(self.url)
        self.addCleanup(engine.dispose)
        self.sessions = make_sessions(engine)

    def ran(self, main, *arguments):
        said = io.StringIO()
        env = {"ZESTY_DATABASE": self.url, "ZESTY_SECRET": SECRET, "ZESTY_PASSWORD": NEW}
        with mock.patch.dict(os.environ, env), contextlib.redirect_stdout(said):
            self.assertEqual(main(list(arguments)), 0)
        return said.getvalue()

    def test_a_lone_manager_is_let_in_with_a_code_of_one_use(self):
        with self.sessions.begin() as db:
            signing.user_by_email(db, MANAGER_EMAIL).totp_on = True
        said = self.ran(let_in.main, MANAGER_EMAIL, "--without-second-factor")
        code = said.splitlines()[0]
        with self.sessions.begin() as db:
            user = people.accept(db, code, "", NEW)
            self.assertTrue(right(user, NEW))
            self.assertFalse(user.totp_on)
            self.assertIsNone(people.accept(db, code, "", NEW + "!"))
        with self.sessions() as db:
            who = db.scalars(select(Audit.who).where(Audit.action == "second factor off")).all()
            self.assertEqual(who, ["./zesty let-in"])

    def test_the_second_factor_stays_unless_it_is_said(self):
        with self.sessions.begin() as db:
            signing.user_by_email(db, MANAGER_EMAIL).totp_on = True
        self.ran(let_in.main, MANAGER_EMAIL)
        with self.sessions() as db:
            self.assertTrue(signing.user_by_email(db, MANAGER_EMAIL).totp_on)

    def test_nobody_is_let_in_who_is_not_there(self):
        with self.assertRaises(Stop):
            self.ran(let_in.main, "nobody@larkspout.example")

    def counts(self, db, firm):
        return {
            t.name: db.scalar(select(func.count()).select_from(t).where(t.c.firm_id == firm))
            for t in Base.metadata.sorted_tables
            if "firm_id" in t.c
        }

    def test_a_firm_is_removed_whole_and_the_other_stays_to_the_row(self):
        self.ran(add_firm.main, "Hodmarrow", "b@hodmarrow.example", "Bea Hodmarrow")
        self.ran(let_in.main, "b@hodmarrow.example")  # a row of its audit
        with self.sessions() as db:
            gone, stays = (
                db.scalar(select(Firm.id).where(Firm.name == n)) for n in ("Larkspout", "Hodmarrow")
            )
            before = self.counts(db, stays)
            self.assertGreater(self.counts(db, gone)["readings"], 0)
        self.assertIn("Nothing was removed", self.ran(remove_firm.main, "Larkspout"))
        with self.sessions() as db:
            self.assertGreater(db.scalar(select(func.count()).select_from(HomeRow)), 0)
        self.assertIn("is removed", self.ran(remove_firm.main, "Larkspout", "--for-good"))
        with self.sessions() as db:
            self.assertEqual(set(self.counts(db, gone).values()), {0})
            self.assertEqual(self.counts(db, stays), before)
            self.assertEqual(db.scalars(select(User.email)).all(), ["b@hodmarrow.example"])
            self.assertEqual(list(audit.breaks(db, stays)), [])
            row = db.scalars(select(Audit).limit(1)).one()
            with self.assertRaisesRegex(Exception, "append-only"):
                row.who = "somebody else"
                db.flush()

    def test_two_of_a_name_are_told_apart_by_id(self):
        for n in (1, 2):
            self.ran(add_firm.main, "Twins", f"{n}@twins.example", "Ann Twin")
        with self.assertRaisesRegex(Stop, "2 firms are named so"):
            self.ran(remove_firm.main, "Twins")
        with self.sessions() as db:
            one = db.scalars(select(Firm.id).where(Firm.name == "Twins")).first()
        self.ran(remove_firm.main, str(one), "--for-good")
        self.ran(remove_firm.main, "Twins", "--for-good")

    def test_a_firm_that_is_not_there(self):
        with self.assertRaises(Stop):
            self.ran(remove_firm.main, "Nobody's")
