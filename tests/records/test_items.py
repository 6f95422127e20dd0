"""Items of a line, with the parts of systems: read once, and right after every change of a row."""

import unittest

from sqlalchemy import event, select
from sqlalchemy.orm import Session

from tests.database import fresh
from zesty_glass.demo.load import EMAIL
from zesty_glass.records import signing
from zesty_glass.records.db import make_engine
from zesty_glass.records.models import ItemRow
from zesty_glass.work.item_cache import taken

TAP = "DT-2"  # a system of four


class Taken(unittest.TestCase):
    def setUp(self):
        self.engine = make_engine(fresh())
        self.addCleanup(self.engine.dispose)
        self.asked = []
        event.listen(self.engine, "before_cursor_execute", lambda *a: self.asked.append(a[2]))
        with Session(self.engine) as db:
            self.firm = signing.user_by_email(db, EMAIL).firm_id

    def codes(self, *wanted):
        with Session(self.engine) as db:
            self.asked.clear()
            return [i.code for i in taken(db, self.firm, set(wanted))]

    def with_parts(self, *parts):
        with Session(self.engine) as db:
            row = db.scalars(
                select(ItemRow).where(ItemRow.firm_id == self.firm, ItemRow.code == TAP)
            ).one()
            row.data = {**row.data, "figures": {"kind": "system", "parts": list(parts)}}
            db.commit()

    def test_a_system_comes_with_its_parts_in_order_of_their_codes(self):
        self.assertEqual(self.codes(TAP), ["CB-T", "CP-T", TAP, "RO-75E", "SD-T10"])
        self.assertEqual(self.codes("CB-T", "no such code"), ["CB-T"])
        self.assertEqual(self.codes(), [])

    def test_what_was_seen_before_takes_one_question(self):
        self.codes(TAP)
        self.assertGreater(len(self.asked), 2)
        self.codes(TAP)
        self.assertEqual(len(self.asked), 1)

    def test_parts_that_change_are_seen_at_once(self):
        self.codes(TAP)
        self.with_parts("CB-T", "RO-75M")
        self.assertEqual(self.codes(TAP), ["CB-T", TAP, "RO-75M"])
        self.with_parts("CB-T")
        self.assertEqual(self.codes(TAP), ["CB-T", TAP])
        self.with_parts("CB-T", "RO-75M")
        self.assertEqual(self.codes(TAP), ["CB-T", TAP, "RO-75M"])

    def test_a_part_that_is_wanted_by_itself_stays(self):
        self.codes(TAP)
        self.with_parts("CB-T")
        self.assertEqual(self.codes(TAP, "CP-T"), ["CB-T", "CP-T", TAP])


if __name__ == "__main__":
    unittest.main()
