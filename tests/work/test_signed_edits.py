"""Five hundred edits between presenting and signing: the job holds what was signed, and nothing of
the edits.
"""

import json
import random
import unittest
from dataclasses import replace
from datetime import UTC, datetime
from uuid import UUID, uuid4

from tests.database import SECRET, fresh
from zesty_glass.core.treating.items import Item
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.demo.homes import uid
from zesty_glass.documents.codec import load, plain
from zesty_glass.records import store
from zesty_glass.records.db import make_engine, make_sessions
from zesty_glass.records.models import HomeRow, OptionRow, ProposalRow, User
from zesty_glass.work import catalogue, deciding, jobs, lines, proposing, seals, visiting
from zesty_glass.work.person import Person

SIGNED, EDITS = 20, 25
VISIT, LINE = UUID(uid("home-1-visit")), uid("home-1-option-b")
ITEMS = ("CC-45", "SO-20", "DT-1", "SF-12")


class SignedEdits(unittest.TestCase):
    def setUp(self):
        engine = make_engine(fresh())
        self.addCleanup(engine.dispose)
        self.sessions = make_sessions(engine, **{seals.KEYS: seals.keys_from(SECRET)})
        with self.sessions() as db:
            u = db.query(User).filter(User.role == "consultant").first()
            self.who = Person(id=u.id, firm_id=u.firm_id, name=u.name, role=u.role)
        self.random = random.Random(31)

    def do(self, how):
        with self.sessions.begin() as db:
            return how(db)

    # edits

    def another_line(self, db):
        row = db.get(OptionRow, UUID(LINE), with_for_update=True)
        kept: Option = load(Option, row.data)
        codes = self.random.sample(ITEMS, self.random.randint(1, 3))
        stages = tuple(StageChoice(item=c) for c in codes)
        name = f"Line {self.random.random():.3f}"
        lines.put_option(db, self.who, VISIT, replace(kept, name=name, stages=stages), row.version)

    def another_item(self, db):
        code = self.random.choice(ITEMS)
        [row] = store.items(db, self.who.firm_id, [code], lock=True)
        item: Item = load(Item, row.data)
        price = item.price + self.random.randint(-90, 900)
        changed = plain(replace(item, price=price, name=f"{item.name[:60]} {price}"))
        catalogue.keep_past(db, self.who.firm_id, row, changed)
        row.data, row.version = changed, row.version + 1

    def another_home(self, db):
        visit = visiting.get(db, self.who, VISIT)
        home = db.get(HomeRow, visit.home_id, with_for_update=True)
        home.home = {**home.home, "people": self.random.randint(1, 9), "name": f"H {uuid4()}"}
        home.version += 1

    def terms_of_today(self, db):
        visit = visiting.get(db, self.who, VISIT)
        visiting.terms_of_today(db, self.who, VISIT, visit.version)

    def edit(self):
        edits = (self.another_line, self.another_item, self.another_home, self.terms_of_today)
        self.do(self.random.choice(edits))

    # what is signed

    def presented(self):
        id = uuid4()
        self.do(self.line_as_it_was)

        def write(db):
            made = proposing.make(db, self.who, VISIT, id, LINE, "", None)
            made = deciding.decide(db, self.who, id, made.version, "presented")
            return json.loads(made.data["snapshot"])

        return id, self.do(write)

    def line_as_it_was(self, db):
        row = db.get(OptionRow, UUID(LINE), with_for_update=True)
        kept: Option = load(Option, row.data)
        codes = self.random.choice((ITEMS[:3], ITEMS[1:3], ITEMS[2:3], ("CC-45", "SF-12")))
        stages = tuple(StageChoice(item=c) for c in codes)
        lines.put_option(db, self.who, VISIT, replace(kept, stages=stages), row.version)

    def signed(self, id):
        def sign(db):
            row = store.get(db, ProposalRow, self.who.firm_id, id, "proposal")
            read = tuple(k.sentence for k in proposing.opened(db, row).offer.before_signing)
            by = deciding.Signed(name="Ottoline Marrash", typed=True, read=read)
            deciding.decide(db, self.who, id, row.version, "accepted", by)
            made = jobs.records.of_proposal(db, self.who.firm_id, id)
            return jobs.opened(made), jobs.paid_for(db, self.who, made)

        return self.do(sign)

    def test_the_job_is_what_was_signed(self):
        for n in range(SIGNED):
            id, paper = self.presented()
            for _ in range(EDITS):
                self.edit()
            job, (paid, _) = self.signed(id)
            with self.subTest(n):
                self.held(job, paper)
                total = next(x["amount"] for x in paper["price"] if x["kind"] == "total")
                self.assertEqual(str(sum(p.amount for p in paid)), total)

    def held(self, job, paper):
        of = next(o for o in paper["options"] if o["id"] == LINE)
        self.assertEqual(job.line, of["name"])
        self.assertEqual(
            [(s.code, s.name, [list(x) for x in s.settings]) for s in job.stages],
            [(s["code"], s["name"], s["settings"]) for s in of["stages"]],
        )
        self.assertLessEqual(job.made_at, datetime.now(UTC))
        for p in job.promises:
            said = of[p.where].get(p.analyte, {}).get("range")
            if said is not None and p.predicted is not None:
                self.assertAlmostEqual(p.predicted.best, said["best"], msg=p.analyte)
