"""Of every text that is kept it is decided whether it goes with the person whom somebody erases: a
new field or column without a decision fails here.
"""

import json
import unittest
from dataclasses import fields, is_dataclass
from pathlib import Path
from typing import Annotated, Literal, get_args, get_origin

from sqlalchemy import JSON, Text

from zesty_glass.core.demonstrating.demonstrations import Demonstration
from zesty_glass.core.home import Customer, Home
from zesty_glass.core.presenting.offer import Offer
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.visit import Visit
from zesty_glass.documents.erasing import kinds_of, mark_of, without_person, words_of
from zesty_glass.records import after_models, file_models, note_models, passkey_models
from zesty_glass.records.base import Base
from zesty_glass.work.versioning import DOCUMENTS

TABLES = (after_models, file_models, note_models, passkey_models)  # every one is known
KEPT = json.loads((Path(__file__).parent / "kept_texts.json").read_text())


def holds_text(kind, found):
    """Whether a type is a text, or holds any that is not declared; records go to ``found``."""
    if mark_of(kind) is not None or get_origin(kind) is Literal:
        return False
    if get_origin(kind) is Annotated:
        return holds_text(get_args(kind)[0], found)
    if kind is str:
        return True
    if isinstance(kind, type) and is_dataclass(kind):
        if kind not in found:
            found[kind] = set()
            found[kind] |= {
                f.name for f in fields(kind) if holds_text(kinds_of(kind)[f.name], found)
            }
        return False
    return any([holds_text(k, found) for k in get_args(kind) if k is not Ellipsis])


class Decided(unittest.TestCase):
    def test_every_text_of_a_record_goes_with_the_person_or_is_kept(self):
        found = {}
        for kind in (Visit, Offer, Demonstration, *DOCUMENTS.values()):
            holds_text(kind, found)
        open_ones = {k.__name__: sorted(v) for k, v in found.items() if v}
        self.assertEqual(open_ones, KEPT["records"])

    def test_every_column_goes_with_the_person_or_is_kept(self):
        columns = {
            t.name: sorted(
                c.name
                for c in t.columns
                if isinstance(c.type, (Text, JSON)) and not c.info.get("personal")
            )
            for t in Base.metadata.sorted_tables
        }
        self.assertEqual({t: c for t, c in columns.items() if c}, KEPT["columns"])

    def test_what_goes_is_replaced_and_what_was_empty_stays_empty(self):
        home = Home(name="Quince House", people=2, bathrooms=1.0, source="well_dug", place="")
        self.assertEqual(set(words_of(home)), {"Quince House", "", home.pipe_material})
        bare = without_person(home)
        self.assertEqual((bare.name, bare.place, bare.people), ("(erased)", "", 2))
        told = Complaint(id="c", sign="white_crust", words="Crust")
        self.assertEqual(without_person((told,))[0].words, "(erased)")
        ann = Customer(name="Ann", email="a@b.example")
        self.assertEqual(without_person(ann).email, "(erased)")
