"""Two years of the firm's past: by seed, with honest noise, and everything in it opens."""

import unittest
from datetime import UTC, datetime

from sqlalchemy import select

from tests.database import SECRET, fresh
from zesty_glass.core.aftercare.job import Job
from zesty_glass.demo.load import load_demo
from zesty_glass.demo.past import EARLIER
from zesty_glass.demo.two_years import DAYS, PEOPLE, drawn
from zesty_glass.documents.codec import load
from zesty_glass.records.after_models import JobRow, ProvedRow
from zesty_glass.records.db import make_engine, make_sessions
from zesty_glass.work import seals


class Drawn(unittest.TestCase):
    def test_one_seed_is_one_past(self):
        self.assertEqual(drawn(7), drawn(7))
        self.assertNotEqual(drawn(7), drawn(8))

    def test_nobody_twice_and_nothing_before_its_fitting_or_after_today(self):
        for seed in range(40):
            past = drawn(seed)
            self.assertEqual(len({c.name for c in past}), len(PEOPLE))
            for c in past:
                self.assertTrue(0 < c.fitted <= DAYS)
                self.assertTrue(all(0 < ago < c.fitted for ago in c.changed), c)
                self.assertTrue(all(days <= c.fitted for days, _ in c.tds), c)


class Loaded(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.engine = make_engine(fresh(demo=False))
        cls.addClassCleanup(cls.engine.dispose)
        cls.sessions = make_sessions(cls.engine, **{seals.KEYS: seals.keys_from(SECRET)})
        cls.at = datetime(2026, 11, 20, 9, tzinfo=UTC)
        load_demo(cls.sessions, cls.at, two_years=True)

    def test_every_customer_has_a_job_that_opens(self):
        with self.sessions() as db:
            jobs = [load(Job, row.data) for row in db.scalars(select(JobRow))]
        bought = [c for c in drawn() if not c.declined]
        self.assertLess(len(bought), len(PEOPLE))
        self.assertEqual(len(jobs), len(bought) + len(EARLIER) + 1)
        days = [j.fitted_on for j in jobs if j.fitted_on]
        self.assertGreater((max(days) - min(days)).days, 540)

    def test_the_record_has_something_to_say(self):
        with self.sessions() as db:
            proved = list(db.scalars(select(ProvedRow)))
        softened = [p for p in proved if p.analyte == "hardness"]
        self.assertGreaterEqual(len({p.home_id for p in softened}), 5)
        verdicts = {p.verdict for p in proved}
        self.assertTrue({"as promised", "short"} <= verdicts, verdicts)

    def test_twice_is_once(self):
        self.assertFalse(load_demo(self.sessions, self.at, two_years=True))
