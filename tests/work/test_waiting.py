"""What waits beside the parts that fall due, and who sees it."""

import unittest
from datetime import timedelta
from uuid import UUID

from tests.database import fresh
from zesty_glass.demo.homes import uid
from zesty_glass.demo.people import EMAIL, FITTER_EMAIL, MANAGER_EMAIL
from zesty_glass.records import signing
from zesty_glass.records.db import make_engine, make_sessions
from zesty_glass.records.models import InstrumentRow, LabSampleRow, MailRow, ProposalRow, VisitRow
from zesty_glass.work import seals, waiting
from zesty_glass.work.person import Person, now


class Waiting(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        engine = make_engine(fresh())
        cls.addClassCleanup(engine.dispose)
        cls.sessions = make_sessions(engine, **{seals.KEYS: seals.keys_from("x" * 32)})

    def who(self, db, email=EMAIL):
        u = signing.user_by_email(db, email)
        return Person(id=u.id, firm_id=u.firm_id, name=u.name, role=u.role)

    def kinds(self, kind, email=EMAIL, at=None):
        with self.sessions() as db:
            return [w for w in waiting.waiting(db, self.who(db, email), at) if w.kind == kind]

    def test_a_bottle_waits_until_its_holding_time_ends(self):
        drawn = now() - timedelta(hours=10)
        id = UUID(uid("a bottle that waits"))
        data = {
            "id": str(id),
            "kind": "bacteria",
            "sample": "x",
            "drawn_at": drawn.isoformat(),
            "by": "x",
        }
        with self.sessions.begin() as db:
            visit = UUID(uid("home-3-visit"))
            row = LabSampleRow(
                id=id,
                firm_id=UUID(uid("firm")),
                visit_id=visit,
                position=9,
                data=data,
                version=1,
            )
            db.add(row)
        found = self.kinds("bottle")
        end = drawn + timedelta(hours=30)  # bacteria: 30 h
        self.assertIn(end.date(), [w.on for w in found])
        struck = {"struck_at": now().isoformat(), "struck_because": "broken"}
        there = {"handed_at": now().isoformat(), "received_at": now().isoformat()}
        with self.sessions.begin() as db:
            db.get_one(LabSampleRow, id).data = {**data, **there}
        waits = next(w for w in self.kinds("bottle") if w.path.startswith(f"/visits/{visit}/"))
        self.assertIn("at the laboratory since", waits.what)
        self.assertEqual(waits.on, (now() + timedelta(days=10)).date())
        for over in (struck, {**there, "reported_at": now().isoformat()}):
            self.settle(id, {**data, **over}, visit)

    def settle(self, id, data, visit):
        with self.sessions.begin() as db:
            db.get_one(LabSampleRow, id).data = data
        self.assertNotIn(f"/visits/{visit}/test?kit=lab", [w.path for w in self.kinds("bottle")])

    def test_a_bottle_that_cannot_be_read_shuts_no_list(self):
        with self.sessions.begin() as db:
            db.add(
                LabSampleRow(
                    id=UUID(uid("unreadable")),
                    firm_id=UUID(uid("firm")),
                    visit_id=UUID(uid("home-1-visit")),
                    position=8,
                    data={"kind": "nothing"},
                    version=1,
                )
            )
        self.assertEqual(self.kinds("mail"), [])

    def test_a_kit_whose_check_or_reagent_comes_due(self):
        soon = (now() + timedelta(days=5)).date()
        with self.sessions.begin() as db:
            row = db.query(InstrumentRow).filter_by(key="hard-1").one()
            row.data, row.version = {**row.data, "reagent_expiry": soon.isoformat()}, 2
        found = self.kinds("kit")
        self.assertIn(
            ("Hardness drop set: its reagent ends", soon), [(w.what, w.on) for w in found]
        )

    def test_a_presented_proposal_that_runs_out_and_no_other(self):
        self.assertEqual(self.kinds("proposal"), [])
        day = (now() + timedelta(days=3)).date()
        with self.sessions.begin() as db:
            for name in ("home-1-proposal", "home-2-proposal"):  # presented, and accepted
                p = db.get_one(ProposalRow, UUID(uid(name)))
                p.data, p.version = {**p.data, "valid_until": day.isoformat()}, p.version + 1
        self.assertEqual(
            [(w.whose, w.on) for w in self.kinds("proposal")], [("Ottoline Marrash", day)]
        )

    def test_a_well_is_tested_again_a_year_after_its_last_visit(self):
        visit = UUID(uid("home-3-visit"))
        with self.sessions.begin() as db:
            row = db.get_one(VisitRow, visit)
            row.started_at, row.version = now() - timedelta(days=360), row.version + 1
        names = [w.whose for w in self.kinds("retest")]
        self.assertIn("Jory Pellmarsh", names)
        self.assertNotIn("Ottoline Marrash", names)  # a town main, whatever its age

    def test_who_sees_what(self):
        with self.sessions.begin() as db:
            db.add(
                MailRow(
                    id=UUID(uid("failed")),
                    firm_id=UUID(uid("firm")),
                    proposal_id=None,
                    at=now(),
                    by="x",
                    to="a@b.example",
                    subject="Your water",
                    text="",
                    attachment="",
                    simulated=False,
                    state="failed",
                )
            )
        self.assertEqual(len(self.kinds("mail", MANAGER_EMAIL)), 1)
        self.assertEqual(self.kinds("mail"), [])
        with self.sessions() as db:
            every = waiting.waiting(db, self.who(db, FITTER_EMAIL))
        self.assertEqual({w.kind for w in every} - {"kit"}, set())


if __name__ == "__main__":
    unittest.main()
