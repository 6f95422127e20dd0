"""The audit's chain: no column of a row may change without its hash telling."""

import unittest
from datetime import UTC, datetime, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

from zesty_glass.records.audit import hash_of
from zesty_glass.records.models import Audit

#: the row's own place, the hash itself, and what is kept of an erased row beside its hash
APART = {"id", "hash", "taken_out"}
AT = datetime(2026, 11, 20, 9, tzinfo=UTC)


def row(**other):
    said = {
        "id": 1,
        "firm_id": UUID(int=1),
        "user_id": UUID(int=2),
        "who": "Perrin Oakhalse",
        "at": AT,
        "target": UUID(int=3),
        "action": "changed",
        "version": 4,
        "fields": ["name"],
        "before": '{"name": "a"}',
        "after": '{"name": "b"}',
        "previous": "f" * 64,
        "hash": "",
        "taken_out": "",
    }
    return Audit(**(said | other))


class Chain(unittest.TestCase):
    def test_every_column_counts(self):
        other = {
            "firm_id": UUID(int=9),
            "user_id": None,
            "who": "somebody else",
            "at": AT + timedelta(seconds=1),
            "target": UUID(int=9),
            "action": "added",
            "version": 5,
            "fields": [],
            "before": "{}",
            "after": "{}",
            "previous": "",
        }
        columns = {c.name for c in Audit.__table__.columns}
        self.assertEqual(columns - APART, set(other))
        hashes = [hash_of(row()), *(hash_of(row(**{k: v})) for k, v in other.items())]
        self.assertEqual(len(set(hashes)), len(hashes))

    def test_the_same_row_has_the_same_hash_in_every_zone(self):
        self.assertEqual(hash_of(row()), hash_of(row(at=AT.astimezone(ZoneInfo("Asia/Tokyo")))))
