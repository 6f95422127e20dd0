"""What a system does not address: all that was found and stays at the tap where it matters, and
nothing that is treated. Worked out by hand for homes and systems.
"""

import unittest
from typing import NamedTuple

from tests.core.proposing.test_more_homes import CLEAN_WELL, GPG, ON_CHALK, SOFT_TOWN, TOWN
from tests.making import home, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.home import Care
from zesty_glass.core.proposing.rows import not_addressed, rows
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice

ITEMS = {i.code: i for i in example_items()}
ACID = {**CLEAN_WELL, "hardness": 2 * GPG, "alkalinity": 30.0, "ph": 5.9}
DIET = Care(consent=True, low_sodium=True)


class Case(NamedTuple):
    """A home, a system, and the beginnings of what is said that it does not address."""

    values: dict
    items: tuple
    said: tuple = ()
    signs: tuple = ()
    about: dict = {}
    care: Care = Care()


CASES = {
    "a softener for crust": Case(ON_CHALK, ("SO-15",), (), ("white_crust",), TOWN),
    "nothing changes hardness without a softener": Case(
        ON_CHALK, ("SF-12",), ("Hardness 14 gpg",), ("white_crust",), TOWN
    ),
    "sodium against the diet": Case(
        ON_CHALK, ("SO-15",), ("Sodium rises by",), ("white_crust",), TOWN, DIET
    ),
    "sodium against the diet, and known": Case(
        {**ON_CHALK, "sodium": 15.0},
        ("SO-15",),
        ("Sodium rises from 15 mg/L",),
        ("white_crust",),
        TOWN,
        DIET,
    ),
    "no sodium where the kitchen stays raw": Case(
        ON_CHALK, ("SO-15", "RL-1"), (), ("white_crust",), TOWN, DIET
    ),
    "lead at the tap by a certified filter": Case({**SOFT_TOWN, "lead": 0.02}, ("CT-1",), (), ()),
    "lead behind a softener": Case(
        {**SOFT_TOWN, "lead": 0.02}, ("SO-15",), ("Lead, first draw 20 µg/L",)
    ),
    "arsenic by a claim of no known form": Case(
        {**CLEAN_WELL, "hardness": 2 * GPG, "arsenic": 0.02},
        ("DT-1",),
        ("Arsenic 0.001 mg/L: not proven",),
    ),
    "iron taken to the edge of what stains": Case(
        {**CLEAN_WELL, "hardness": 2 * GPG, "iron": 3.0},
        ("SO-15F",),
        ("Iron, total 0.3 mg/L: may still be over",),
    ),
    "iron at the house, not at the tap": Case(
        {**CLEAN_WELL, "hardness": 2 * GPG, "iron": 1.0},
        ("DT-1",),
        ("Iron, total 1 mg/L at the house’s taps",),
    ),
    "a taste of chlorine at the drinking tap": Case(
        {**SOFT_TOWN, "chlorine_free": 1.2, "chlorine_total": 1.2, "chlorine_combined": 0.0},
        ("CT-1",),
        (),
        ("bleach_smell",),
    ),
    "bacteria behind a softener": Case(
        {**CLEAN_WELL, "hardness": 2 * GPG, "coliform": 5.0},
        ("SO-15",),
        ("Coliform bacteria 5 per 100 mL",),
    ),
    "copper is expected to fall and not predicted": Case(
        {**ACID, "copper": 2.0},
        ("AC-M15",),
        ("Copper, first draw, 2 mg/L today: expected to fall", "Hardness rises from 2 gpg"),
    ),
    "hardness that a neutralizer adds, and no dissolved solids that nobody asks of": Case(
        ACID, ("AC-M15",), ("Hardness rises from 2 gpg",)
    ),
}


class NotAddressed(unittest.TestCase):
    def test_what_is_said(self):
        for name, c in CASES.items():
            with self.subTest(name):
                self.assertEqual(len(said := _said(c)), len(c.said), said)
                for sentence, begins in zip(said, c.said, strict=True):
                    self.assertTrue(sentence.startswith(begins), sentence)


def _said(c):
    place, raw = home(**{**c.about, "care": c.care}), water(**c.values)
    told = tuple(Complaint(id=s, sign=s, words=s) for s in c.signs)
    found = meaning(raw, place, told, Rules())
    ways = (
        Option(id="today", name="Today"),
        Option(id="new", name="New", stages=tuple(StageChoice(item=i) for i in c.items)),
    )
    lines = tuple(walk(w, ITEMS, raw, found.colour, place, settings()) for w in ways)
    table = rows(lines, found, told, Rules(), "us", place.wishes, place.diets)
    return not_addressed(lines[1], found, table)
