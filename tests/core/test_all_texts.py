"""Every sentence of the demo's homes and of some odd ones: no unit twice, no empty part, no "1
months", no number that is none; in both systems of units.
"""

import re
import unittest
from dataclasses import replace
from datetime import UTC, datetime

from tests.core.proposing.test_more_homes import CLEAN_WELL, ON_CHALK, SOFT_TOWN, TOWN, asked
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.aftercare.disinfecting import Plumbing
from zesty_glass.core.aftercare.steps import sheets
from zesty_glass.core.assess import assess
from zesty_glass.core.home import Care, Source
from zesty_glass.core.presenting.card import water_card
from zesty_glass.core.presenting.comparison import compare
from zesty_glass.core.presenting.metric import in_units
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.demo.homes import demo_visits
from zesty_glass.documents.codec import plain
from zesty_glass.work.catalogue import Question

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
ITEMS = {i.code: i for i in example_items()}
_UNIT = r"(mg/L|gpg|pH|gal|gpm|psi|°C|NTU|%|lb|ft³|kWh|days?|months?|years?|hours?|minutes?)"
FAULTS = {
    "a unit twice": rf"\b{_UNIT} \1\b",
    "an empty part": r",\s*,|^\s*,|\(\s*\)|“\s*”|: *\.",
    "two spaces": r"\S  \S",
    "a space before a stop": r"\s[.,;](\s|$)",
    "one of many": r"(?<![\d.,])1 (?!is\b|as\b|us\b)[a-z]{3,}s\b",
    "a quotation within one": r"“[^”]*“",
    "no value": r"\b(None|nan|NaN|undefined|inf)\b",
    "a blank that was not filled": r"\{\w*\}",
    "two stops": r"(?<!\.)\.\.(?!\.)",
    "a word twice": r"\b([a-z]{3,}) \1\b",
}
_NO_TEXT = re.compile(r"[0-9a-f-]{36}|[a-z_.]+|v?[\d.]+")


def texts(x):
    """Every text within a document."""
    if isinstance(x, str):
        if not _NO_TEXT.fullmatch(x):
            yield x
    elif isinstance(x, dict):
        for v in x.values():
            yield from texts(v)
    elif isinstance(x, (list, tuple)):
        for v in x:
            yield from texts(v)


def faults_of(text):
    return [name for name, pattern in FAULTS.items() if re.search(pattern, text)]


#: amounts in US units; names of the catalogue and the formula of a working keep theirs
_US = re.compile(r"\d[\s-](gpm|gal|psi|lb|ft³|gpg|grains|pCi/L)\b|\d in (of|free|are)\b")
_NAMED = sorted(
    {n for i in ITEMS.values() for n in (i.name, *(c.name for c in i.consumables))},
    key=len,
    reverse=True,
)


def in_the_open(x):
    """What is read at once: a document without its workings."""
    if isinstance(x, dict):
        return {k: in_the_open(v) for k, v in x.items() if "formula" not in x}
    return [in_the_open(v) for v in x] if isinstance(x, (list, tuple)) else x


class Metric(unittest.TestCase):
    """Nothing of a line is said in gallons, pounds or inches where the home is shown in metric."""

    def no_us(self, what):
        for text in set(texts(in_the_open(plain(what)))):
            left = text
            for name in _NAMED:
                left = left.replace(name, "")
            if "°dH" not in left and not re.fullmatch(r"[\d,]+ mg/L \(\d+ gpg\)", left):
                self.assertNotRegex(left, _US)

    def test_the_demo_s_homes(self):
        for visit in demo_visits(AT):
            v = replace(visit, settings=replace(visit.settings, units="metric"))
            with self.subTest(home=visit.home.name):
                self.no_us(in_units(assess(v), v))
                self.no_us(in_units(compare(v, (1, 10)), v))
                self.no_us(in_units(water_card(v, assess(v)), v))
                question = Question(visit=v, items=ITEMS)
                self.no_us(question.said(question.suggest()))

    def test_it_is_seen(self):
        for us in ("9 gpm", "1,000 gal a week", "40-lb bags", "62 in of height", "3 gpg"):
            with self.assertRaises(AssertionError):
                self.no_us({"sentence": us})


class Texts(unittest.TestCase):
    def walk(self, what):
        for text in set(texts(plain(what))):
            self.assertEqual(faults_of(text), [], text)

    def test_the_faults_are_seen(self):
        for bad in (
            "7 gpg gpg",
            "a house, , town main",
            "every 1 months",
            "“it is “hard””",
            "None mg/L",
            "at {need} gpm",
            "the the tap",
        ):
            self.assertNotEqual(faults_of(bad), [], bad)
        for good in ("every 1.1 months", "11 months", "1 month", "pH 7", "5 to 9 mg/L", "1 is"):
            self.assertEqual(faults_of(good), [], good)

    def test_the_demo_s_homes_in_both_systems(self):
        for visit in demo_visits(AT):
            for units in ("us", "metric"):
                v = replace(visit, settings=replace(visit.settings, units=units))
                with self.subTest(home=visit.home.name, units=units):
                    self.walk(assess(v))
                    self.walk(compare(v, (1, 10)))
                    self.walk(water_card(v, assess(v)))

    def test_what_is_proposed_there(self):
        for visit in demo_visits(AT):
            with self.subTest(home=visit.home.name):
                self.walk(Question(visit=visit, items=ITEMS).suggest())

    def test_the_steps_of_every_line(self):
        for visit in demo_visits(AT):
            for o in assess(visit).options:
                if o.line is not None and o.line.stages:
                    with self.subTest(home=visit.home.name, line=o.line.name):
                        self.walk(sheets(o.line, visit.home, Plumbing()))

    def test_odd_homes(self):
        care = Care(consent=True, infant=True, pregnancy=True, weak_immunity=True)
        care = replace(care, low_sodium=True, low_potassium=True, dialysis=True, aquarium=True)
        for values, signs, about in (
            ({}, ("taste",), TOWN),
            (SOFT_TOWN, ("other", "haze", "low_pressure"), TOWN),
            (ON_CHALK, ("white_crust", "dry_skin"), {**TOWN, "people": 1, "bathrooms": 1}),
            ({**CLEAN_WELL, "ph": 5.6, "copper": 1.6}, ("blue_green",), {}),
            ({**CLEAN_WELL, "radon": 12_000.0, "arsenic": 0.02}, (), {}),
            ({**CLEAN_WELL, "e_coli": 1.0, "coliform": 1.0}, ("slime",), {}),
            ({"tds": 2600.0, "sulfate": 900.0}, ("taste",), {"source": Source.CISTERN}),
        ):
            for told in (None, care):
                m, s = asked(values, signs, told, **about)
                with self.subTest(values=values, care=told is not None):
                    self.walk(m)
                    self.walk(s)

    def test_every_check_and_caution_as_it_is_written(self):
        for t in TECHNOLOGIES.values():
            for text in (*t.checks.values(), t.caution):
                said = re.sub(r"\{\w+\}", "7", " ".join(texts(plain(text)) or [str(text)]))
                self.assertEqual(faults_of(said), [], said)


if __name__ == "__main__":
    unittest.main()
