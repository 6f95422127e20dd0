"""Catalog items kept in memory: always those of the database, whoever changed them and whatever
was rolled back.
"""

import threading
from decimal import Decimal
from uuid import uuid4

from sqlalchemy import select
from sqlalchemy.orm import Session

from tests.records.test_shape import DbCase
from zesty_glass.records.models import ItemRow
from zesty_glass.work import item_cache


class Shelf(DbCase):
    def price(self, code="SO-15"):
        with Session(self.engine) as db:
            (item,) = item_cache.taken(db, self.user().firm_id, {code})
        return item.price

    def change(self, price, code="SO-15", keep=True):
        with Session(self.engine) as db:
            row = db.scalars(select(ItemRow).where(ItemRow.code == code)).one()
            row.data = {**row.data, "price": price}
            db.flush()
            seen = item_cache.taken(db, row.firm_id, {code})[0].price
            if keep:
                db.commit()
        return seen

    def test_a_change_is_seen_at_once(self):
        self.price()
        self.change("1234.00")
        self.assertEqual(self.price(), Decimal("1234.00"))

    def test_what_was_rolled_back_never_was(self):
        before = self.price("CB-15")
        self.assertEqual(self.change("9.00", "CB-15", keep=False), Decimal("9.00"))
        self.assertEqual(self.price("CB-15"), before)
        self.change("10.00", "CB-15")
        self.assertEqual(self.price("CB-15"), Decimal("10.00"))

    def test_a_system_brings_its_parts(self):
        with Session(self.engine) as db:
            codes = [i.code for i in item_cache.taken(db, self.user().firm_id, {"DT-1", "NOPE"})]
        self.assertIn("DT-1", codes)
        self.assertGreater(len(codes), 1)
        self.assertEqual(codes, sorted(codes))

    def test_many_at_once_get_the_same(self):
        seen = []
        threads = [
            threading.Thread(target=lambda: seen.append(self.price("SO-20"))) for _ in range(4)
        ]
        firm = self.user().firm_id  # read before the threads: a session is not shared
        self.assertIsNotNone(firm)
        self.user = lambda: type("U", (), {"firm_id": firm})
        for t in threads:
            t.start()
        for t in threads:
            t.join()
        self.assertEqual(len(set(seen)), 1)
        self.assertEqual(len(seen), 4)

    def test_another_firm_takes_nothing(self):
        with Session(self.engine) as db:
            self.assertEqual(item_cache.taken(db, uuid4(), {"SO-15"}), [])
