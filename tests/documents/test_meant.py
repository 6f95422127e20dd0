"""Names that somebody misspelt."""

import json
import unittest
from dataclasses import dataclass

from pydantic import BaseModel

from zesty_glass.cli.machine import ROOT
from zesty_glass.core.errors import RuleError
from zesty_glass.documents.meant import did_you_mean, fields_at
from zesty_glass.documents.visit_file import read


@dataclass
class Leaf:
    color: str
    size: float | None


@dataclass
class Tree:
    leaves: tuple[Leaf, ...]
    height: float
    named: dict[str, Leaf]


class Body(BaseModel):
    tree: Tree | None
    on: str


class Meant(unittest.TestCase):
    def test_the_nearest_is_named_or_all_where_they_are_few(self):
        self.assertEqual(did_you_mean("heigth", ["height", "leaves"]), "Did you mean “height”?")
        self.assertEqual(did_you_mean("zzz", ["b", "a"]), "Known here: a, b.")
        self.assertNotIn("Known", did_you_mean("zzz", map(str, range(13))))

    def test_the_fields_of_a_place(self):
        self.assertEqual(fields_at(Tree, ()), {"leaves", "height", "named"})
        self.assertEqual(fields_at(Tree, ("leaves", 3)), {"color", "size"})
        self.assertEqual(fields_at(Tree, ("named", "oak")), {"color", "size"})
        self.assertEqual(fields_at(Body, ("tree",)), {"leaves", "height", "named"})
        self.assertEqual(fields_at(Body, ("tree", "Tree", "leaves", 0)), {"color", "size"})
        self.assertEqual(fields_at(Tree, ("height",)), set())

    def test_a_visit_file(self):
        doc = json.loads((ROOT / "docs/examples/terrace.json").read_text())
        doc["custommer"] = doc["customer"]
        reading = doc["samples"][0]["readings"][0]
        reading["observation"]["displais"] = [1]
        with self.assertRaises(RuleError) as e:
            read(json.dumps(doc).encode())
        told = {x.where: x.remedy for x in (e.exception, *e.exception.also)}
        self.assertEqual(told["custommer"], "Did you mean “customer”?")
        self.assertEqual(
            told["samples[0].readings[0].observation.displais"], "Did you mean “displays”?"
        )
