"""No sentence of a document contradicts a number or another sentence of it, over 200 homes made at
random, their lines, offers' rows, cards and proposals.

What is held against what:

1. what is said to be untested, against the readings;
2. "It meets what was wanted", against the row's verdict and its evidence;
3. what a line does not address, against the row that says it is met;
4. "Certified for", against the row that shows it is taken out;
5. a line that cannot work, against its summary, its rows and its price;
6. a rolling boil, against what is never boiled;
7. a cost that is not known, against "stays cheaper than";
8. "nothing needed", against a finding of health;
9. steps that come first, against what is measured or typed already;
10. "Answers", against what the same line leaves;
11. "No line is sure to answer", against a line that does;
12. steps before anything is bought, against a first proposal that buys;
13. the emergency, against what stands before it;
14. the card's next steps, against the proposal's.
"""

import random
import unittest
from dataclasses import replace
from datetime import UTC, datetime

from tests.making import from_lab, sample, shown
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.analytes import ANALYTES
from zesty_glass.core.assess import assess
from zesty_glass.core.home import Care, Source
from zesty_glass.core.presenting.card import water_card
from zesty_glass.core.presenting.comparison import compare
from zesty_glass.core.presenting.facts import CANNOT
from zesty_glass.core.proposing.first import FIRST
from zesty_glass.core.proposing.priorities import (
    BLOOM_FIRST,
    FLOOD_FIRST,
    SUPPLY_FIRST,
    WAY_IN_FIRST,
)
from zesty_glass.core.ranges import Verdict
from zesty_glass.core.testing.complaints import SIGNS, Complaint
from zesty_glass.core.testing.finding import Weight
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.demo.homes import demo_visits
from zesty_glass.work.catalogue import Question

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
SHELL = demo_visits(AT)[0]
ITEMS = {i.code: i for i in example_items()}
HOUSE = sorted(c for c, i in ITEMS.items() if i.scope == "house")
TAP = sorted(c for c, i in ITEMS.items() if i.scope == "tap")
HOMES, PROPOSED = 200, 14
#: analyte -> (least, most) of what is met with, and how often it is tested
MET_WITH = {
    "hardness": (10, 600, 0.9),
    "tds": (40, 1500, 0.9),
    "ph": (5.2, 8.6, 0.9),
    "iron": (0.02, 8, 0.8),
    "manganese": (0.005, 0.8, 0.6),
    "tannin": (0.05, 3, 0.6),
    "alkalinity": (8, 300, 0.7),
    "temperature": (6, 18, 0.8),
    "chlorine_free": (0.02, 1.5, 0.5),
    "chlorine_total": (0.02, 2.5, 0.5),
    "turbidity": (0.1, 6, 0.5),
    "hydrogen_sulfide": (0.01, 2, 0.4),
}
BY_LABORATORY = {
    "nitrate_n": (0.5, 25, 0.6),
    "arsenic": (0.001, 0.04, 0.3),
    "fluoride": (0.2, 5, 0.3),
    "lead": (0.001, 0.03, 0.2),
    "copper": (0.05, 4, 0.3),
    "radon": (300, 9000, 0.2),
    "uvt": (55, 98, 0.4),
    "sulfate": (5, 900, 0.3),
    "sodium": (5, 300, 0.3),
    "chloride": (5, 500, 0.3),
}


def some(rng, table):
    return {n: rng.uniform(a, b) for n, (a, b, often) in table.items() if rng.random() < often}


def made(seed):
    """A visit made at random: a home, a water, complaints and three options."""
    rng = random.Random(seed)
    readings = [shown(n, round(v, 3)) for n, v in some(rng, MET_WITH).items()]
    for n, v in some(rng, BY_LABORATORY).items():
        basis = {"basis": "N"} if n == "nitrate_n" else {}
        basis = {"basis": "collection"} if n == "radon" else basis
        readings.append(from_lab(n, round(v, 4), **basis))
    if rng.random() < 0.5:
        readings.append(from_lab("coliform", qualifier=rng.choice(("present", "absent"))))
    if rng.random() < 0.3:
        readings.append(from_lab("e_coli", float(rng.choice((1, 4, 12)))))
    home = replace(
        SHELL.home,
        source=rng.choice(list(Source)),
        people=rng.randint(1, 8),
        drain=rng.choice((True, True, False, None)),
        socket=rng.choice((True, True, False, None)),
        pump_gpm=rng.choice((None, 5.0, 9.0, 15.0)),
        static_psi=rng.choice((None, 45.0, 74.0)),
        running_psi=rng.choice((None, 38.0, 60.0)),
        service_line=rng.choice(("", "lead", "copper")),
        care=rng.choice((Care(), Care(consent=True, infant=True), Care(consent=True))),
        in_place=(),
    )
    signs = rng.sample(sorted(SIGNS), rng.randint(0, 3))
    options = tuple(
        Option(
            id=f"o{n}",
            name=f"Option {n}",
            stages=tuple(
                StageChoice(item=c)
                for c in (
                    *rng.sample(HOUSE, rng.randint(0, 3)),
                    *rng.sample(TAP, rng.randint(0, 1)),
                )
            ),
        )
        for n in range(3)
    )
    return replace(
        SHELL,
        id=f"{seed}",
        home=home,
        samples=(sample(*readings),),
        complaints=tuple(Complaint(id=s, sign=s, words=f"“{s}”".strip("“”")) for s in signs),
        options=tuple(o for o in options if o.stages),
        recommended=None,
        catalogue=tuple(ITEMS.values()),
        demonstrations=(),
        lab_samples=(),
        proposals=(),
    )


def treated_by(stage):
    """What a stage claims, or changes by its nature."""
    return {e.analyte for e in ITEMS[stage.code].effects} | TECHNOLOGIES[stage.kind].changes


class OneDocument(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.visits = [made(n) for n in range(HOMES)]
        cls.done = [assess(v) for v in cls.visits]
        cls.compared = [compare(v, (10,)) for v in cls.visits]

    def lines(self):
        """Every option that was worked out, with its assessment and its rows by analyte."""
        for a in self.done:
            cells = {(r.analyte, c.option): c for r in a.rows for c in r.cells}
            for o in a.options:
                if o.line is not None:
                    yield a, o, cells

    def test_untested_is_what_has_no_reading(self):
        for a, o, _ in self.lines():
            first = {s.code for s in o.line.stages[:1]}
            for s in o.line.stages:
                for c in s.checks:
                    for name in a.raw.values if s.code in first else ():
                        said = f"{ANALYTES[name].name} not tested"
                        self.assertNotIn(said, c.sentence)
            for u in a.meaning.unknown:
                self.assertNotIn(u.analyte, a.raw.values)

    def test_met_is_what_the_row_says(self):
        for a, o, cells in self.lines():
            for r in a.rows:
                c = cells[r.analyte, o.id]
                gains = [g for g in o.reasons.gains if r.name.lower() in g.lower()]
                if any("It meets what was wanted" in g for g in gains) and len(gains) == 1:
                    self.assertTrue(c.meets is Verdict.MET and c.established, (r.name, gains))

    def test_what_is_left_is_not_met(self):
        for a, o, cells in self.lines():
            for r in a.rows:
                c = cells[r.analyte, o.id]
                left = [t for t in o.left if t.startswith(f"{r.name} ") and "rises" not in t]
                if left:
                    self.assertIsNot(c.meets, Verdict.MET, (left, c))

    def test_certified_is_what_is_taken_out(self):
        for v, got in zip(self.visits, self.compared, strict=True):
            row = next((f for f in got.facts if f.id == "certified"), None)
            for id, said in ({} if row is None else row.values).items():
                for r in got.rows:
                    c = next(c for c in r.cells if c.option == id)
                    elsewhere = c.note == "less at the drinking tap"
                    if r.name in said.split(", ") and c.change == "stays" and not elsewhere:
                        self.assertFalse(c.range is not None and c.range.best > 0, (v.id, said, c))

    def test_what_cannot_work_says_so_everywhere(self):
        for _, o, cells in self.lines():
            if o.line.status != "stop":
                continue
            self.assertIn("Cannot work", o.reasons.summary)
            self.assertTrue(o.cost.missing, o.name)
            self.assertEqual(o.cheaper_than, ())
            for s in o.line.stages:
                for name in s.held_back:
                    c = cells.get((name, o.id))
                    others = (x for x in o.line.stages if x is not s)
                    if c is not None and not any(name in treated_by(x) for x in others):
                        self.assertNotIn(c.change, ("less", "inactivated"), (s.code, name))
        for got in self.compared:
            stopped = {o.id for o in got.options if o.stops}
            for f in got.facts:
                if f.id in ("certified", "makes", "interval"):
                    said = {f.values[id] for id in stopped & f.values.keys()}
                    self.assertLessEqual(said, {CANNOT, ""})

    def test_nothing_is_boiled_that_boiling_makes_stronger(self):
        for a in self.done:
            said = " ".join(a.meaning.tonight)
            if "Never boil" in said:
                self.assertNotIn("Bring drinking water to a rolling boil", said)

    def test_what_is_not_priced_is_cheaper_than_nothing(self):
        for _, o, _ in self.lines():
            if o.cost.missing:
                self.assertEqual(o.cheaper_than, ())

    def test_nothing_needed_is_no_health_finding(self):
        for a in self.done:
            if a.nothing_needed:
                self.assertFalse([f for f in a.meaning.findings if f.weight is Weight.HEALTH])
                self.assertFalse(a.meaning.tonight)


#: what a first step asks for, and what of it must not be known yet
#: what a step asks to test, by the step's id
TESTS = {"transmittance": "uvt", "manganese": "manganese", "first_draw": "lead", "copper": "copper"}
ASKS = {f.sentence: TESTS[f.id] for f in FIRST if f.id in TESTS}


class Proposals(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.visits = [made(n) for n in range(PROPOSED)]
        cls.done = [assess(v) for v in cls.visits]
        cls.said = [Question(visit=v, items=ITEMS).suggest() for v in cls.visits]

    def test_a_step_asks_for_nothing_that_is_known(self):
        for a, s, v in zip(self.done, self.said, self.visits, strict=True):
            for text in s.first:
                if text in ASKS:
                    self.assertNotIn(ASKS[text], a.raw.values, text)
                if "the static and the running pressure" in text:
                    self.assertFalse(v.home.static_psi and v.home.running_psi, text)

    def test_what_is_answered_is_not_left(self):
        for s in self.said:
            for line in s.lines:
                if line.ahead.startswith("It treats "):
                    named = line.ahead.removeprefix("It treats ").split(",")[0]
                    left = {ANALYTES[a].said for a in line.leaves}
                    self.assertNotIn(named, left)

    def test_unanswered_is_what_no_line_answers(self):
        for a, s in zip(self.done, self.said, strict=True):
            if not s.unanswered.startswith("No system in this catalog is sure"):
                continue
            health = {f.analyte for f in a.meaning.findings if f.weight is Weight.HEALTH}
            for line in s.lines:
                whole = all(line.answers.get(x, 0.0) >= 0.9 for x in health)
                self.assertFalse(whole and health, (line.option.name, s.unanswered))

    def test_before_anything_is_bought_nothing_is_bought_first(self):
        for s in self.said:
            waits = {WAY_IN_FIRST, SUPPLY_FIRST, FLOOD_FIRST, BLOOM_FIRST}
            first = s.lines[0]
            told = any(t.startswith("Bacteria were found") for t in s.first)
            if first.ahead in waits or (told and not first.option.keeps):
                self.assertEqual(first.option.stages, (), s.first)

    def test_the_emergency_stands_first(self):
        for a, s in zip(self.done, self.said, strict=True):
            self.assertEqual(s.tonight, a.meaning.tonight)
            self.assertEqual(s.first[: len(s.tonight)], s.tonight)
            for t in s.tonight:
                self.assertNotIn(t, s.unanswered)

    def test_the_card_and_the_proposal_take_the_same_steps(self):
        for v, a, s in zip(self.visits, self.done, self.said, strict=True):
            card = water_card(v, a)
            self.assertEqual(card.tonight, s.tonight)
            for step in card.next:
                self.assertIn(step, s.first)


if __name__ == "__main__":
    unittest.main()
