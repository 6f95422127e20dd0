"""A firm's quarter: homes, weeks and people, the clock really moved. Each Monday is reckoned here
by hand, from prices typed here, and held against what Monday's page says.
"""

import unittest
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from decimal import Decimal
from uuid import UUID, uuid4

from tests.clock import stopped
from tests.database import SECRET, fresh
from zesty_glass.core.aftercare.equipment import Move
from zesty_glass.core.aftercare.proof import Proof
from zesty_glass.core.home import Customer, Home, Source
from zesty_glass.core.proposing.price import Terms
from zesty_glass.core.testing.observations import DropCount
from zesty_glass.core.treating.items import Item
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.demo.homes import demo_visits, uid
from zesty_glass.demo.load import EMAIL, MANAGER_EMAIL
from zesty_glass.documents.codec import load, plain
from zesty_glass.records import store
from zesty_glass.records.db import make_engine, make_sessions
from zesty_glass.records.models import HomeRow, OptionRow, ProposalRow, User
from zesty_glass.work import (
    catalogue,
    deciding,
    equipment,
    job_days,
    jobs,
    laboratory,
    lines,
    monday,
    money,
    owning,
    people,
    planning,
    proposing,
    readings,
    seals,
    sharing,
    visiting,
    waiting,
)
from zesty_glass.work.person import Person

START = datetime(2027, 3, 1, 8, tzinfo=UTC)  # a Monday
WEEKS, DAYS = 12, 7
#: numbers of Monday's page that name homes
OF_HOMES = (
    *("no_day", "expired", "declined", "never_made", "mended", "bacteria"),
    *("rented", "questions"),
)
#: what the catalogue asks for a thing and its fitting [money]
SOFTENER, CARBON, TAP = Decimal(1940), Decimal(2100), Decimal(700)
WHOLE = CARBON + SOFTENER + TAP
SETUP, RENT = Decimal(120), Decimal(44)  # of the softener, let: once, and every month [money]
DEARER = Decimal(100)


class Quarter(unittest.TestCase):
    """One firm; what happens is written down week by week, and reckoned beside it."""

    @classmethod
    def setUpClass(cls):
        engine = make_engine(fresh())
        cls.addClassCleanup(engine.dispose)
        cls.sessions = make_sessions(engine, **{seals.KEYS: seals.keys_from(SECRET)})
        with cls.sessions() as db:
            cls.people = {
                u.email: Person(id=u.id, firm_id=u.firm_id, name=u.name, role=u.role)
                for u in db.query(User).filter(User.firm_id == UUID(uid("firm")))
            }
        cls.model = demo_visits(START)[0]

    def setUp(self):
        self.now = START
        self.homes: dict[str, dict] = {}
        self.sold: list[tuple[date, str, Decimal]] = []
        self.owed: list[tuple[date, Decimal]] = []
        self.got: list[tuple[date, Decimal]] = []
        self.first = self.people[EMAIL]
        self.boss = self.people[MANAGER_EMAIL]

    # what people do

    def do(self, how):
        """Something done now, in a transaction of its own."""
        with stopped(self.now), self.sessions.begin() as db:
            return how(db)

    def visit(self, key, who=None, in_days=0):
        """A visit to a new home; its glass is drawn and tested unless it is planned ahead."""
        who, id = who or self.first, uuid4()
        at = self.now + timedelta(days=in_days)
        home = Home(name=f"House {key}", people=4, bathrooms=2.0, source=Source.CITY)
        customer = Customer(name=f"Quarter {key}")
        self.do(lambda db: visiting.start(db, who, id, customer, home, (), at))
        self.homes[key] = {"visit": id, "who": who}
        if not in_days:
            self.glass_of(key)

    def glass_of(self, key):
        h = self.homes[key]
        raw = next(s for s in self.model.samples if s.raw)
        sample = replace(raw, id=str(uuid4()), drawn_at=self.now, readings=())
        self.do(lambda db: readings.put_sample(db, h["who"], h["visit"], sample, None))
        h["sample"] = UUID(sample.id)
        for r in raw.readings:
            mine = replace(r, id=str(uuid4()), made_at=self.now, kept_at=None)
            self.do(
                lambda db, r=mine: readings.put_reading(db, h["who"], h["visit"], h["sample"], r)
            )

    def line(self, key, *codes):
        h = self.homes[key]
        have = h.setdefault("line", str(uuid4()))
        stages = tuple(StageChoice(item=c) for c in codes)
        option = Option(id=have, name=f"Line of {key}", stages=stages)

        def put(db):
            row = store.find(db, OptionRow, self.first.firm_id, UUID(have))
            version = None if row is None else row.version
            lines.put_option(db, h["who"], h["visit"], option, version)

        self.do(put)

    def let_line(self, key):
        """The softener rented, and a drinking tap."""
        h = self.homes[key]
        h["line"] = str(uuid4())
        stages = (StageChoice(item="SO-20", terms="rental"), StageChoice(item="DT-1"))
        option = Option(id=h["line"], name=f"Line of {key}", stages=stages)
        self.do(lambda db: lines.put_option(db, h["who"], h["visit"], option, None))

    def propose(self, key, terms=None, who=None):
        h, id = self.homes[key], uuid4()
        who = who or h["who"]
        self.do(
            lambda db: proposing.make(db, who, h["visit"], id, h["line"], "", None, terms=terms)
        )
        h["proposal"] = id
        self.decide(key, "presented", who=who)

    def row(self, db, key):
        return store.get(db, ProposalRow, self.first.firm_id, self.homes[key]["proposal"], "x")

    def decide(self, key, to, who=None, **more):
        who = who or self.homes[key]["who"]

        def move(db):
            row = self.row(db, key)
            deciding.decide(db, who, row.id, row.version, to, **more)

        self.do(move)

    def sign(self, key, total, deposit=Decimal(0), who=None):
        """Signed, and written into our own books."""

        def move(db):
            row = self.row(db, key)
            read = tuple(k.sentence for k in proposing.opened(db, row).offer.before_signing)
            by = deciding.Signed(name=f"Quarter {key}", typed=True, read=read)
            deciding.decide(db, who or self.homes[key]["who"], row.id, row.version, "accepted", by)

        self.do(move)
        self.sold.append((self.now.date(), key, total))
        self.homes[key]["rest"] = total - deposit
        if deposit:
            self.owed.append((self.now.date(), deposit))

    def link(self, key, days):
        """A link to a proposal; its token."""
        id = self.homes[key]["proposal"]
        return self.do(lambda db: sharing.make_link(db, self.first, id, uuid4(), days))[1]

    def opens(self, token):
        """How what a link leads to stands; None where it leads nowhere."""
        found = self.do(lambda db: sharing.open_link(db, token, "192.0.2.7"))
        return None if found is None else found.proposal.state_on(self.now.date())

    def sign_by_link(self, key, token, total):
        def go(db):
            shown = sharing.open_link(db, token, "192.0.2.7")
            read = tuple(k.sentence for k in shown.offer.before_signing)
            by = deciding.Signed(name=f"Quarter {key}", typed=True, read=read)
            self.assertTrue(sharing.accept(db, token, shown.proposal.digest, by))

        self.do(go)
        self.sold.append((self.now.date(), key, total))
        self.homes[key]["rest"] = total

    def returned(self, key, piece, on):
        def go(db):
            row = jobs.records.of_proposal(db, self.first.firm_id, self.homes[key]["proposal"])
            move = Move(
                id=str(uuid4()), piece=piece, fate="returned", on=on, because="Moved.", by="Boss"
            )
            equipment.put_move(db, self.boss, row.id, move)

        self.do(go)

    def new_owner(self, key):
        def go(db):
            visit = visiting.get(db, self.first, self.homes[key]["visit"])
            home = store.get(db, HomeRow, self.first.firm_id, visit.home_id, "home")
            buyer = Customer(name=f"Quarter {key}, new")
            owning.change_owner(db, self.first, home.id, home.version, buyer, self.now.date())

        self.do(go)

    def fit(self, key):
        def go(db):
            row = jobs.records.of_proposal(db, self.first.firm_id, self.homes[key]["proposal"])
            job_days.in_use(
                db, self.boss, row.id, row.version, self.now.date(), "The fitter's own list."
            )

        self.do(go)
        self.owed.append((self.now.date(), self.homes[key]["rest"]))

    def paid(self, key, amount):
        self.do(
            lambda db: money.put(
                db, self.boss, self.row(db, key), uuid4(), self.now.date(), amount, "Paid"
            )
        )
        self.got.append((self.now.date(), amount))

    def behind_it(self, key, drops):
        """Hardness read behind the fitted line."""
        raw = next(s for s in self.model.samples if s.raw)
        hard = next(r for r in raw.readings if r.analyte == "hardness")
        seen = DropCount(drops=drops)
        r = replace(hard, id=str(uuid4()), made_at=self.now, kept_at=None, observation=seen)

        def put(db):
            row = jobs.records.of_proposal(db, self.first.firm_id, self.homes[key]["proposal"])
            jobs.put_proof(db, self.boss, row.id, Proof(where="house", phase="flushed", reading=r))

        self.do(put)

    def job(self, key):
        with self.sessions() as db:
            row = jobs.records.of_proposal(db, self.first.firm_id, self.homes[key]["proposal"])
            return None if row is None else jobs.opened(row)

    # what the page says of our homes

    def says(self, what):
        rows = self.do(lambda db: monday.behind(db, self.boss, what))
        return [r for r in rows if r.whose.startswith("Quarter ")]

    def keys(self, what):
        return sorted({r.whose.removeprefix("Quarter ") for r in self.says(what)})

    def waits(self, kind):
        found = self.do(lambda db: waiting.waiting(db, self.boss))
        return sorted(
            {
                w.whose.removeprefix("Quarter ")
                for w in found
                if w.kind == kind and "Quart" in w.whose
            }
        )

    def this_month(self, booked):
        same = (self.now.year, self.now.month)
        return [x for x in booked if (x[0].year, x[0].month) == same]

    def monday(self, **expected):
        """Hold the page against our own books."""
        with self.subTest(week=(self.now - START).days // DAYS):
            of_month = self.this_month(self.sold)
            self.assertEqual(self.keys("sold"), sorted(k for _, k, _ in of_month))
            self.assertEqual(monday.total(self.says("sold")), sum(t for _, _, t in of_month))
            self.assertEqual(
                monday.total(self.says("owed")), sum(a for _, a in self.this_month(self.owed))
            )
            self.assertEqual(
                monday.total(self.says("received")), sum(a for _, a in self.this_month(self.got))
            )
            for what in OF_HOMES:
                self.assertEqual(self.keys(what), sorted(expected.get(what, ())), what)
            for kind in ("again", "unmade"):
                self.assertEqual(self.waits(kind), sorted(expected.get(kind, ())), kind)

    def next_week(self):
        self.now += timedelta(days=DAYS)

    def dearer(self):
        """The softener's price goes up."""

        def change(db):
            rows = {r.code: r for r in store.items(db, self.boss.firm_id)}
            item = load(Item, rows["SO-20"].data)
            keep = replace(item, price=item.price + DEARER)
            catalogue.keep_past(db, self.boss.firm_id, rows["SO-20"], plain(keep))
            rows["SO-20"].data, rows["SO-20"].version = plain(keep), rows["SO-20"].version + 1

        self.do(change)

    def test_twelve_weeks(self):
        all_of_it = ("CC-45", "SO-20", "DT-1")
        for key in "abcdef":  # week 0
            self.visit(key)
            self.line(key, *all_of_it)
            self.propose(key, Terms(deposit=Decimal(400)) if key == "a" else None)
        self.visit("k")
        self.let_line("k")
        self.propose("k")
        self.visit("l")
        self.line("l", *all_of_it)
        self.propose("l")
        self.short_link, self.sellers = self.link("k", 7), self.link("l", 90)
        self.assertEqual(
            (self.opens(self.short_link), self.opens(self.sellers)), ("presented",) * 2
        )
        self.visit("n", in_days=10)  # planned, and never made
        self.monday()

        self.next_week()  # week 1: a signed; b edited behind the paper; c declined; d new price
        self.sign("a", WHOLE, Decimal(400))
        self.paid("a", Decimal(400))
        self.line("b", "DT-1")
        self.decide("c", "declined", why=deciding.Why("The price."))
        self.monday(no_day="a", declined="c", again="b")
        self.sign("b", WHOLE)
        self.assertEqual(
            [s.code for s in self.job("b").stages], [s.code for s in self.job("a").stages]
        )
        self.dearer()
        for key in "gh":
            self.visit(key)
            self.line(key, *all_of_it)
            self.propose(key)

        self.next_week()  # week 2: d revised at its own prices, then at today's; n was forgotten
        self.assertIsNone(self.opens(self.short_link))  # its seven days are over
        self.question = uuid4()
        token = self.link("k", 60)
        told = "May it stand in the shed?"
        self.do(lambda db: sharing.ask(db, token, self.question, "question", told))
        self.fit("a")
        self.propose("d")
        self.monday(no_day="b", declined="c", never_made="n", questions="k")
        self.do(lambda db: sharing.answered(db, self.first, self.question))
        self.sign_by_link("k", token, TAP + SETUP)
        self.assertEqual(self.opens(token), "accepted")
        self.do(self.todays_terms("d"))
        self.propose("d")
        self.sign("d", WHOLE + DEARER)

        self.middle_weeks()
        self.last_weeks()

    def middle_weeks(self):
        self.next_week()  # week 3: bacteria at g after presenting
        self.paid("a", WHOLE - 400)
        self.do(self.report("g"))
        self.monday(no_day="bdk", declined="c", never_made="n", again="g", bacteria="g")
        self.fit("k")  # March 22: rent is paid ahead, on the 22nd
        for month in (3, 4, 5):
            self.owed.append((date(2027, month, 22), RENT))
        self.do(self.closed("n"))
        self.behind_it("a", 9)

        self.next_week()  # week 4: a is mended
        self.behind_it("a", 0)
        so = {"again": "g", "bacteria": "g", "mended": "a", "rented": "k"}
        self.monday(no_day="bd", declined="c", **so)
        self.new_owner("l")
        self.assertIsNone(self.opens(self.sellers))

        self.next_week()  # week 5: thirty days are over; h is signed and cancelled
        self.monday(no_day="bd", expired="ef", **so)
        self.do(self.longer("e"))
        self.sign("e", WHOLE)
        self.now -= timedelta(days=1)
        self.sign("h", WHOLE + DEARER)
        self.now += timedelta(days=1)
        self.decide("h", "cancelled", why=deciding.Why("They lost the house."))
        self.sold.pop()
        self.monday(no_day="bde", expired="f", **so)

    def last_weeks(self):
        self.next_week()  # week 6: the consultant leaves; a colleague has what was theirs
        second = self.do(self.colleague)
        self.do(self.leaves(second))
        for h in self.homes.values():
            h["who"] = second
        self.visit("i", second)
        self.line("i", "DT-1")
        self.propose("i")
        with self.sessions() as db:
            self.assertEqual(proposing.opened(db, self.row(db, "i")).offer.consultant, second.name)
        so = {"bacteria": "g", "mended": "a", "expired": "fg"}
        self.monday(no_day="bde", rented="k", **so)

        self.next_week()  # week 7: all that waits is fitted
        for key in "bde":
            self.fit(key)
        self.sign("i", TAP)
        self.monday(no_day="i", rented="k", **so)

        self.next_week()  # week 8
        self.monday(no_day="i", rented="k", **so)
        self.next_week()  # week 9, in May: the rented one is returned, and no more rent is owed
        self.monday(no_day="i", rented="k", **so)
        self.returned("k", 0, self.now.date())
        self.owed.remove((date(2027, 5, 22), RENT))
        for _ in range(3):  # until week 11
            self.monday(no_day="i", **so)
            self.next_week()

    def todays_terms(self, key):
        def go(db):
            row = visiting.get(db, self.first, self.homes[key]["visit"])
            visiting.terms_of_today(db, self.first, row.id, row.version)

        return go

    def report(self, key):
        h, text = self.homes[key], b"analyte,result,unit,basis\ncoliform,present,per 100 mL,\n"
        return lambda db: laboratory.bring_results(
            db, h["who"], h["visit"], h["sample"], text, self.now
        )

    def closed(self, key):
        def go(db):
            row = visiting.get(db, self.first, self.homes[key]["visit"])
            planning.close(db, self.first, row.id, row.version, "not_made", "Ill that day.")

        return go

    def longer(self, key):
        def go(db):
            row = self.row(db, key)
            until = self.now.date() + timedelta(days=20)
            deciding.extend(db, self.homes[key]["who"], row.id, row.version, until)

        return go

    def colleague(self, db):
        from zesty_glass.work.signing_in import add_user

        firm = self.first.firm_id
        u = add_user(db, firm, "orla@larkspout.example", "Orla Fenbrook", "consultant", "a" * 16)
        db.flush()
        return Person(id=u.id, firm_id=firm, name=u.name, role=u.role)

    def leaves(self, heir):
        def go(db):
            user = db.get(User, self.first.id)
            people.deactivate(db, self.boss, user.id, user.version, heir.id)

        return go
