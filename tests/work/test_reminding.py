"""A reminder goes out once, also when two processes send at the same moment."""

import threading
import unittest
from datetime import timedelta
from uuid import UUID

from tests.database import fresh
from zesty_glass.demo.homes import uid
from zesty_glass.records.db import make_engine, make_sessions
from zesty_glass.records.models import HomeRow, MailRow
from zesty_glass.work import jobs, reminding
from zesty_glass.work.person import Person

WHO = Person(id=UUID(int=0), firm_id=UUID(uid("firm")), name="remind", role="manager")


class Reminders(unittest.TestCase):
    def setUp(self):
        engine = make_engine(fresh())
        self.addCleanup(engine.dispose)
        self.sessions = make_sessions(engine)

    def remind(self, days=0):
        with self.sessions.begin() as db:
            return reminding.remind(db, WHO, jobs.today() + timedelta(days=days))

    def mails(self):
        with self.sessions() as db:
            return [(m.to, m.text) for m in db.query(MailRow).filter(MailRow.by == "remind")]

    def test_once_and_only_to_who_has_an_address(self):
        self.assertEqual(self.remind(), 1)
        self.assertEqual(self.remind(), 0)
        [(to, text)] = self.mails()
        self.assertEqual(to, "orrin@chalksteps.example")
        self.assertIn("Hello Orrin Kettleby", text)
        self.assertIn("- Post-carbon, ", text)
        self.assertIn("(you can do this yourself)", text)
        self.assertNotIn("{", text)

    def test_others_who_agreed_get_it_too_in_their_language(self):
        with self.sessions.begin() as db:
            job = jobs.records.of_proposal(db, WHO.firm_id, UUID(uid("past-1-proposal")))
            home = db.get(HomeRow, job.home_id)
            home.customer = {**home.customer, "reminders": False}
            ana = {"name": "Ana Ruelo", "email": "ana@ruelo.example", "language": "es"}
            silent = {"name": "Bram Ott", "email": "bram@ott.example", "reminders": False}
            home.others = [{**ana, "reminders": True}, silent]
        self.assertEqual(self.remind(), 1)
        [(to, text)] = self.mails()
        self.assertEqual(to, "ana@ruelo.example")
        self.assertIn("Hola, Ana Ruelo:", text)
        self.assertRegex(text, r"- Poscarbón, \d+ de \w+ de \d{4} \(puede hacerlo usted\)")
        with self.sessions() as db:
            subject = db.query(MailRow.subject).filter(MailRow.by == "remind").scalar()
        self.assertEqual(subject, "El tratamiento de su agua: lo que toca")

    def test_two_who_share_an_address_read_each_part_once(self):
        with self.sessions.begin() as db:
            job = jobs.records.of_proposal(db, WHO.firm_id, UUID(uid("past-1-proposal")))
            home = db.get(HomeRow, job.home_id)
            home.others = [{"name": "Ana Ruelo", "email": home.customer["email"].upper()}]
        self.assertEqual(self.remind(), 1)
        [(_, text)] = self.mails()
        self.assertEqual(text.count("- Post-carbon, "), 1)

    def all_due_in(self, days):
        with self.sessions.begin() as db:
            row = jobs.records.of_proposal(db, WHO.firm_id, UUID(uid("past-1-proposal")))
            db.execute(
                jobs.records.DueRow.__table__.update()
                .where(jobs.records.DueRow.job_id == row.id)
                .values(due_on=jobs.today() + timedelta(days=days))
            )

    def test_what_is_long_overdue_is_told_by_telephone(self):
        self.all_due_in(-61)
        self.assertEqual(self.remind(), 0)
        self.all_due_in(-60)
        self.assertEqual(self.remind(), 1)

    def test_a_customer_with_two_homes_gets_one_message(self):
        with self.sessions.begin() as db:
            rows = db.query(jobs.records.JobRow).filter_by(firm_id=WHO.firm_id).all()
            first = jobs.records.of_proposal(db, WHO.firm_id, UUID(uid("past-1-proposal")))
            due = {d.job_id for d in db.query(jobs.records.DueRow)}
            other = next(r for r in rows if r.home_id != first.home_id and r.id in due)
            home = db.get(HomeRow, other.home_id)
            home.customer = db.get(HomeRow, first.home_id).customer
            name = home.home["name"]
            one = db.query(jobs.records.DueRow).filter_by(job_id=other.id).first()
            one.due_on = jobs.today()
        self.assertEqual(self.remind(), 1)
        [(_, text)] = self.mails()
        self.assertIn(f"- {name}: {one.label}", text)
        self.assertIn(": Post-carbon, ", text)

    def test_a_later_day_is_reminded_of_again(self):
        self.remind()
        self.all_due_in(100)
        self.assertEqual(self.remind(), 0)
        self.assertEqual(self.remind(days=95), 1)

    def test_two_at_once_send_it_once(self):
        ready, sent = threading.Barrier(2), []

        def send():
            ready.wait(timeout=30)
            sent.append(self.remind())

        both = [threading.Thread(target=send) for _ in range(2)]
        for t in both:
            t.start()
        for t in both:
            t.join(60)
        self.assertEqual(sorted(sent), [0, 1])
        self.assertEqual(len(self.mails()), 1)
