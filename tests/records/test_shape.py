"""The database's shape and its rules: migrations make what the models say, and no query leaves its
firm.
"""

import unittest
from datetime import timedelta
from importlib import import_module
from uuid import uuid4

from sqlalchemy import inspect, select, text
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from tests.database import fresh
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL, PASSWORD
from zesty_glass.records import marks, opening, saving, signing, store
from zesty_glass.records.base import Base
from zesty_glass.records.db import make_engine, migrate
from zesty_glass.records.models import (
    DemonstrationRow,
    HomeRow,
    ItemRow,
    LabSampleRow,
    OptionRow,
    ProposalRow,
    ReadingRow,
    SampleRow,
    SignIn,
    User,
    VisitRow,
)
from zesty_glass.work import signing_in
from zesty_glass.work.person import now


class DbCase(unittest.TestCase):
    demo = True

    @classmethod
    def setUpClass(cls):
        cls.url = fresh(cls.demo)
        cls.engine = make_engine(cls.url)
        cls.addClassCleanup(cls.engine.dispose)

    def setUp(self):
        self.db = Session(self.engine)
        self.addCleanup(self.db.close)

    def user(self):
        return signing.user_by_email(self.db, EMAIL)


class Shape(DbCase):
    demo = False

    def test_migrations_make_every_table_and_column_of_the_models(self):
        found = inspect(self.engine)
        for table in Base.metadata.tables.values():
            columns = {c["name"]: c for c in found.get_columns(table.name)}
            self.assertEqual(set(columns), {c.name for c in table.columns}, table.name)
            for c in table.columns:
                self.assertEqual(
                    columns[c.name]["nullable"], bool(c.nullable), f"{table.name}.{c.name}"
                )

    def test_migrating_again_changes_nothing(self):
        before = self.db.execute(text("select version_num from alembic_version")).scalar()
        self.db.rollback()
        migrate(self.url)
        self.assertEqual(
            self.db.execute(text("select version_num from alembic_version")).scalar(), before
        )

    def test_a_row_of_nobody_s_firm_is_refused(self):
        self.db.add(
            ItemRow(id=uuid4(), firm_id=uuid4(), code="X", data={}, version=1, retired=False)
        )
        with self.assertRaises(IntegrityError):
            self.db.flush()


class Firm(DbCase):
    def test_another_firm_finds_nothing_by_any_query(self):
        visit, stranger = self.db.scalars(select(VisitRow)).first(), uuid4()
        self.assertIsNone(store.find(self.db, VisitRow, stranger, visit.id))
        with self.assertRaises(store.NotFound):
            store.get(self.db, HomeRow, stranger, visit.home_id, "home")
        self.assertEqual(store.of_visit(self.db, SampleRow, stranger, visit.id), [])
        self.assertEqual(opening.parts(self.db, stranger, visit.id), ([], [], [], [], [], []))
        self.assertEqual(
            (
                store.items(self.db, stranger),
                store.instruments(self.db, stranger),
                list(store.mails(self.db, stranger)),
            ),
            ([], [], []),
        )
        self.assertEqual(store.homes(self.db, stranger, "e"), [])
        self.assertEqual(opening.visits_of_home(self.db, stranger, visit.home_id), [])
        self.assertEqual(opening.readings_of(self.db, stranger, [visit.id]), [])
        self.assertEqual(opening.samples_of(self.db, stranger, [visit.id]), [])
        self.assertIsNone(marks.of_visit(self.db, stranger, visit.id))
        r = self.db.scalars(select(ReadingRow)).first()
        of = (r.visit_id, r.sample_id, r.id, r.data["instrument"]["id"])
        self.assertIsNone(saving.ahead_of(self.db, stranger, *of))

    def test_what_a_new_reading_meets(self):
        r = self.db.scalars(select(ReadingRow)).first()
        kit, other = r.data["instrument"]["id"], uuid4()
        seen = self.db.get_one(VisitRow, r.visit_id)
        many = len(opening.readings_of(self.db, r.firm_id, [r.visit_id]))
        known = saving.ahead_of(self.db, r.firm_id, r.visit_id, r.sample_id, r.id, kit)
        self.assertEqual(known[:3], (seen.consultant_id, True, True))
        self.assertEqual((known.kit["id"], known.last), (kit, many))
        new = saving.ahead_of(self.db, r.firm_id, r.visit_id, other, other, "no such kit")
        self.assertEqual((new.glass, new.kept, new.kit), (False, False, None))

    def test_what_waits_in_a_session_is_there_for_the_plain_queries(self):
        r = self.db.scalars(select(ReadingRow)).first()
        before = opening.readings_of(self.db, r.firm_id, [r.visit_id])
        made = {c: getattr(r, c) for c in saving.KEPT} | {"id": uuid4()}
        self.db.add(ReadingRow(**made))
        after = opening.readings_of(self.db, r.firm_id, [r.visit_id])
        self.assertEqual(len(after), len(before) + 1)
        self.db.rollback()

    def test_parts_in_one_query_are_those_of_six(self):
        firm = self.user().firm_id
        for visit in self.db.scalars(select(VisitRow)).all():
            found = opening.parts(self.db, firm, visit.id)
            self.assertEqual(found.readings, opening.readings_of(self.db, firm, [visit.id]))
            for one, kind in zip(
                found[:5],
                (SampleRow, OptionRow, LabSampleRow, DemonstrationRow, ProposalRow),
                strict=True,
            ):
                self.assertEqual(
                    [(p.id, p.version, p.data) for p in one],
                    [
                        (r.id, r.version, r.data)
                        for r in store.of_visit(self.db, kind, firm, visit.id)
                    ],
                )

    def test_a_search_for_homes_takes_no_wild_cards(self):
        firm = self.user().firm_id
        self.assertEqual(store.homes(self.db, firm, "%zzz%"), [])
        self.assertEqual(len(store.homes(self.db, firm, "")), len(store.homes(self.db, firm, "%")))

    def test_proposals_without_their_figures(self):
        firm, visit = (
            self.user().firm_id,
            self.db.scalars(select(VisitRow).where(VisitRow.id == uid("home-1-visit"))).one(),
        )
        whole, light = (
            opening.parts(self.db, firm, visit.id).proposals,
            opening.parts(self.db, firm, visit.id, snapshots=False).proposals,
        )
        self.assertTrue(whole[0].data["snapshot"])
        self.assertEqual(light[0].data, {**whole[0].data, "snapshot": ""})


class SignedIn(DbCase):
    def test_a_session_ends_on_its_own(self):
        token, who = signing_in.sign_in(self.db, EMAIL, PASSWORD, "here")
        self.assertEqual(signing_in.whose(self.db, token), who)
        self.db.scalars(
            select(SignIn).where(SignIn.token_hash == signing_in.token_hash(token))
        ).one().expires_at = now() - timedelta(seconds=1)
        self.db.flush()
        self.assertIsNone(signing_in.whose(self.db, token))

    def test_somebody_who_left_is_out_at_once(self):
        token, _ = signing_in.sign_in(self.db, EMAIL, PASSWORD, "here")
        self.user().active = False
        self.db.flush()
        self.assertIsNone(signing_in.whose(self.db, token))
        self.assertIsNone(signing_in.sign_in(self.db, EMAIL, PASSWORD, "here"))

    def test_only_hashes_are_kept(self):
        token, _ = signing_in.sign_in(self.db, EMAIL, PASSWORD, "here")
        kept = [s.token_hash for s in self.db.scalars(select(SignIn))] + [
            u.password_hash for u in self.db.scalars(select(User))
        ]
        self.assertFalse(any(token in k or PASSWORD in k for k in kept))
        self.assertTrue(
            all(u.password_hash.startswith("$argon2id$") for u in self.db.scalars(select(User)))
        )

    def test_failures_from_one_address_do_not_lock_out_another_person(self):
        for _ in range(signing_in.MOST_FAILURES):
            signing_in.admit(self.db, EMAIL, "192.0.2.7")
            self.assertIsNone(signing_in.sign_in(self.db, EMAIL, "wrong wrong", "192.0.2.7"))
        with self.assertRaises(signing_in.TooMany):
            signing_in.admit(self.db, EMAIL, "192.0.2.7")
        signing_in.admit(self.db, EMAIL, "192.0.2.8")
        self.assertIsNotNone(signing_in.sign_in(self.db, EMAIL, PASSWORD, "192.0.2.8"))

    def test_the_wait_grows_and_a_right_password_ends_it(self):
        at = now()
        key = "who:x from:192.0.2.9"

        def tried(after_s):
            when = at + timedelta(seconds=after_s)
            return signing.admitted(self.db, key, when, 2, timedelta(hours=1)) is not None

        self.assertEqual(
            [tried(s) for s in (0, 0, 0.5, 1, 2, 3, 6.9, 7)],
            [
                True,
                True,
                False,
                True,
                False,
                True,
                False,
                True,
            ],
        )
        signing.forget_tries(self.db, key)
        self.assertTrue(tried(7.1))
        self.assertTrue(tried(7.1 + 3700))

    def test_a_forgery_token_belongs_to_its_session_and_secret(self):
        tokens = {
            signing_in.forgery_token(secret, token) for secret in ("a", "b") for token in ("x", "y")
        }
        self.assertEqual(len(tokens), 4)


class Served(DbCase):
    def test_the_migration_fills_in_what_jobs_said_before(self):
        versions = "zesty_glass.records.migrations.versions"
        filled = import_module(f"{versions}.0010_from_documents").SERVED
        rows = text("select * from served order by job_id, key, time")
        with self.engine.begin() as c:
            written = c.execute(rows).all()
            c.execute(text("delete from served"))
            c.execute(text(filled))
            self.assertEqual(c.execute(rows).all(), written)
        self.assertGreater(len(written), 3)


class Softened(DbCase):
    def test_the_migration_knows_what_softens_by_that_choices_name(self):
        versions = "zesty_glass.records.migrations.versions"
        filled = import_module(f"{versions}.0024_softened").SOFTENED
        with self.engine.begin() as c:
            c.execute(text("update samples set data = data - 'softened'"))
            one = c.scalar(text("select id from samples order by id limit 1"))
            c.execute(
                text('update samples set data = data || \'{"after": "softener"}\' where id = :one'),
                {"one": one},
            )
            c.execute(text(filled))
            told = dict(c.execute(text("select id, data -> 'softened' from samples")).all())
            c.execute(text("update samples set data = data || '{\"softened\": true}'"))
            c.execute(text(filled))  # what is said already stays
            kept = set(c.scalars(text("select data ->> 'softened' from samples")))
        self.assertTrue(told.pop(one))
        self.assertEqual(set(told.values()), {False})
        self.assertEqual(kept, {"true"})
