"""The visit file: without loss, with clear errors; its schema and examples in the repository."""

import json
import unittest
from datetime import UTC, datetime
from pathlib import Path

from hypothesis import given
from hypothesis import strategies as st
from jsonschema import Draft202012Validator

from zesty_glass.core.assess import assess
from zesty_glass.core.errors import RuleError
from zesty_glass.demo.homes import demo_visits
from zesty_glass.documents import visit_file

ROOT = Path(__file__).resolve().parents[2]
VISITS = demo_visits(datetime(2026, 11, 20, tzinfo=UTC))


class Files(unittest.TestCase):
    def test_round_trip(self):
        for v in VISITS:
            data = visit_file.write(v)
            self.assertEqual(visit_file.read(data), v)
            self.assertEqual(visit_file.write(visit_file.read(data)), data)

    def test_a_file_from_before_later_fields_still_opens(self):
        document = json.loads(visit_file.write(VISITS[0]))
        document.pop("demonstrations")
        for field in ("soap_month", "bottled_month"):
            document["home"].pop(field)
        document["settings"].pop("soap_share")
        read = visit_file.read(json.dumps(document).encode())
        self.assertEqual((read.demonstrations, read.samples), ((), VISITS[0].samples))

    def test_schema_accepts_what_is_written(self):
        check = Draft202012Validator(visit_file.schema())
        for v in VISITS:
            check.validate(json.loads(visit_file.write(v)))

    def test_schema_in_docs_is_the_present_one(self):
        self.assertEqual(
            json.loads((ROOT / "docs" / "visit-file.schema.json").read_text()), visit_file.schema()
        )

    def test_examples_in_the_repository_can_be_worked_out(self):
        files = sorted((ROOT / "docs" / "examples").glob("*.json"))
        self.assertEqual(len(files), 3)
        for f in files:
            self.assertIsNotNone(assess(visit_file.read(f.read_bytes())).meaning)

    def refuse(self, data, code, where=""):
        with self.assertRaises(RuleError) as e:
            visit_file.read(data)
        self.assertEqual(e.exception.code, code)
        self.assertIn(where, e.exception.where)

    def test_clear_errors(self):
        good = visit_file.write(VISITS[0])
        doc = json.loads(good)
        self.refuse(good[:-200], "file.cut_off")
        self.refuse(b"", "file.cut_off")
        self.refuse(b"[1, 2", "file.cut_off")
        self.refuse(b"hello", "file.not_json")
        self.refuse(b"\x80abc", "file.not_text")
        self.refuse(b'{"format": "other"}', "file.format")
        self.refuse(json.dumps(doc | {"version": 2}).encode(), "file.newer")
        self.refuse(json.dumps(doc | {"version": "1"}).encode(), "file.version")
        self.refuse(good.replace(b'"people": 4.0', b'"people": NaN'), "file.not_finite")
        self.refuse(b" " * 6_000_000, "file.too_large")
        self.refuse(b"[" * 100_000, "file.not_json")

    def test_an_older_file_says_what_softens_by_that_choices_name(self):
        document = json.loads(visit_file.write(VISITS[0]))
        for after, softened in (("softener", True), ("the softener we sold", False)):
            sample = document["samples"][0] | {"after": after}
            sample.pop("softened")
            older = document | {"samples": [sample]}
            self.assertEqual(
                visit_file.read(json.dumps(older).encode()).samples[0].softened, softened
            )

    def test_every_fault_is_named_at_once(self):
        document = json.loads(visit_file.write(VISITS[0]))
        document["home"]["people"] = -3
        document["samples"][0]["drawn_at"] = "yesterday"
        document["no_such_field"] = 1
        with self.assertRaises(RuleError) as e:
            visit_file.read(json.dumps(document).encode())
        faults = (e.exception, *e.exception.also)
        for place in ("people", "drawn_at", "no_such_field"):
            self.assertEqual(len([f for f in faults if place in f.where]), 1, place)
        self.assertTrue(all(f.what and f.remedy for f in faults))

    def test_errors_name_their_place(self):
        doc = json.loads(visit_file.write(VISITS[0]))
        doc["samples"][0]["readings"][1]["observation"]["drops"] = "many"
        self.refuse(
            json.dumps(doc).encode(), "input.int_parsing", "samples[0].readings[1].observation"
        )
        doc = json.loads(visit_file.write(VISITS[0]))
        doc["home"]["peopel"] = 3
        self.refuse(json.dumps(doc).encode(), "input.unexpected_keyword_argument", "home.peopel")
        doc = json.loads(visit_file.write(VISITS[0]))
        doc["home"]["people"] = -4
        self.refuse(json.dumps(doc).encode(), "home.people")

    @given(st.integers(0, 40_000))
    def test_cutting_anywhere_is_an_error_and_never_a_crash(self, at):
        data = visit_file.write(VISITS[1])
        with self.assertRaises(RuleError):
            visit_file.read(data[: min(at, len(data) - 3)])


class Smallest(unittest.TestCase):
    def test_it_is_read_and_nothing_of_it_could_be_left_out(self):
        text = (ROOT / "docs/examples/smallest.json").read_text()
        self.assertEqual(len(visit_file.read(text.encode()).samples[0].readings), 1)

        def without(doc, path=()):
            """Each field once left out, wherever it stands."""
            here = doc
            for step in path:
                here = here[step]
            for key in list(here) if isinstance(here, dict) else range(len(here)):
                if isinstance(here[key], dict | list):
                    yield from without(doc, (*path, key))
                if isinstance(here, dict):
                    less = json.loads(text)
                    at = less
                    for step in path:
                        at = at[step]
                    del at[key]
                    yield ".".join(map(str, (*path, key))), less

        able = set()
        for name, less in without(json.loads(text)):
            try:
                visit_file.read(json.dumps(less).encode())
                able.add(name)
            except RuleError:
                continue
        # a visit without samples, a home without its source and a glass that is not raw are read
        # too, and say less
        self.assertEqual(
            able,
            {
                "samples",
                "home.source",
                "samples.0.raw",
                "samples.0.readings",
                "samples.0.readings.0.instrument.unit",
            },
        )
