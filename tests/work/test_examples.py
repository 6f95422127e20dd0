"""What a new firm has to sell: examples, until it puts in its own."""

import contextlib
import io
import os
import unittest
from dataclasses import replace
from datetime import UTC, datetime
from unittest import mock
from uuid import uuid4

from sqlalchemy import select

from tests.database import SECRET, fresh
from zesty_glass.catalogue.examples import example_items
from zesty_glass.cli import add_firm
from zesty_glass.core.proposing.answered import NOTHING_ON_SALE
from zesty_glass.core.treating.items import Item
from zesty_glass.demo.homes import demo_visits
from zesty_glass.documents.codec import load, plain
from zesty_glass.records.db import make_engine, make_sessions
from zesty_glass.records.models import Firm, ItemRow
from zesty_glass.work import catalogue
from zesty_glass.work.examples import examples_on_sale, take_examples_off
from zesty_glass.work.person import Forbidden, Person


class NewFirm(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        url = fresh(demo=False)
        env = {"ZESTY_DATABASE": url, "ZESTY_SECRET": SECRET, "ZESTY_PASSWORD": "quiet water here"}
        said = io.StringIO()
        with mock.patch.dict(os.environ, env), contextlib.redirect_stdout(said):
            code = add_firm.main(["Larkspout", "a@larkspout.example", "Ann Bell"])
        assert code == 0, said.getvalue()
        cls.told = said.getvalue()
        engine = make_engine(url)
        cls.addClassCleanup(engine.dispose)
        cls.sessions = make_sessions(engine)

    def setUp(self):
        self.db = self.sessions()
        self.addCleanup(self.db.close)  # rolled back
        firm = self.db.scalar(select(Firm))
        self.who = Person(id=uuid4(), firm_id=firm.id, name="Ann Bell", role="manager")

    def item(self, code):
        return self.db.scalar(select(ItemRow).where(ItemRow.code == code))

    def change(self, code, **to):
        row = self.item(code)
        row.data = plain(replace(load(Item, row.data), **to))
        self.db.flush()

    def test_it_begins_with_examples_and_says_so(self):
        self.assertIn("examples of invented makers", self.told)
        self.assertEqual(examples_on_sale(self.db, self.who), len(example_items()))

    def test_a_changed_item_is_the_firms_own(self):
        code = example_items()[0].code
        self.change(code, name="Ours")
        self.assertEqual(examples_on_sale(self.db, self.who), len(example_items()) - 1)
        take_examples_off(self.db, self.who)
        self.assertEqual(set(catalogue.on_sale(self.db, self.who)), {code})

    def test_emptied_whole_and_twice_is_once(self):
        self.assertEqual(take_examples_off(self.db, self.who), len(example_items()))
        self.assertEqual(take_examples_off(self.db, self.who), 0)
        self.assertEqual(catalogue.on_sale(self.db, self.who), {})
        self.assertEqual(examples_on_sale(self.db, self.who), 0)

    def test_a_part_of_the_firms_own_system_stays(self):
        system = next(i for i in example_items() if i.figures.kind == "system" and i.figures.parts)
        self.change(system.code, name="Our system")
        take_examples_off(self.db, self.who)
        self.assertEqual(
            set(catalogue.on_sale(self.db, self.who)), {system.code, *system.figures.parts}
        )

    def test_a_consultant_empties_nothing(self):
        seller = replace(self.who, role="consultant")
        with self.assertRaises(Forbidden):
            take_examples_off(self.db, seller)


class Empty(unittest.TestCase):
    def test_an_empty_catalogue_is_said_first(self):
        visit = demo_visits(datetime(2026, 11, 20, tzinfo=UTC))[0]
        found = catalogue.Question(visit=visit, items={}).suggest()
        self.assertEqual(found.unanswered, NOTHING_ON_SALE)
        full = catalogue.Question(visit=visit, items={i.code: i for i in example_items()}).suggest()
        self.assertNotEqual(full.unanswered, NOTHING_ON_SALE)
