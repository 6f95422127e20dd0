"""What a stage looks at: what it is asked for, judged on, and only asked to be there; and that
nothing else decides its answer.
"""

import unittest
from collections.abc import Iterator
from dataclasses import replace
from datetime import UTC, datetime

from tests.making import home, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.analytes import ANALYTES, Kind
from zesty_glass.core.home import Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.searching.stage_answers import NAMES, PLACE, looks, looks_at
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.water import design_water
from zesty_glass.core.treating.checks import verdict_on
from zesty_glass.core.treating.items import alike
from zesty_glass.core.treating.line import site_of
from zesty_glass.core.treating.site import Site
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.core.treating.stages.common import CHLORINES, StageInput, windowed
from zesty_glass.core.treating.stages.iron_filter import IRON_FILTER
from zesty_glass.core.treating.stream import Quantity, Stream, source_stream
from zesty_glass.core.treating.walking import run_stage
from zesty_glass.demo.homes import demo_visits

ITEMS = example_items()
BY_CODE = {i.code: i for i in ITEMS}
VISITS = demo_visits(datetime(2026, 11, 20, tzinfo=UTC))


class Looking(unittest.TestCase):
    def of(self, code: str) -> tuple[set[str], set[str], set[str]]:
        found = looks(BY_CODE[code])
        return (
            {NAMES[p] for p in found.values},
            {NAMES[p] for p, _ in found.judged},
            {NAMES[p] for p in found.there},
        )

    def test_a_value_a_verdict_and_a_presence_are_kept_apart(self):
        values, judged, there = self.of("FE-A10")
        self.assertEqual(values, {"manganese", "ph", "tannin"})
        self.assertEqual(judged, {"iron", "hydrogen_sulfide"})
        self.assertTrue({"iron", "iron_ferrous"} <= there)
        self.assertFalse(values & there)

    def test_a_value_that_is_read_is_not_also_judged(self):
        values, judged, _ = self.of("FE-A10")
        self.assertIn("manganese", {n.analyte for n in IRON_FILTER.judges(BY_CODE["FE-A10"])})
        self.assertIn("manganese", values)
        self.assertNotIn("manganese", judged)

    def test_a_claim_inside_a_window_of_ph_looks_at_the_ph(self):
        bound = next(i for i in ITEMS if any(windowed(e) for e in i.effects))
        self.assertIn("ph", {NAMES[p] for p in looks(bound).values})

    def test_what_was_measured_here_is_a_share_of_what_comes(self):
        sediment = next(i for i in ITEMS if i.kind == "sediment")
        self.assertNotIn(PLACE["iron"], looks(sediment).values)
        self.assertIn(PLACE["iron"], looks(sediment, ("iron",)).values)

    def test_what_a_later_stage_only_asks_for_is_kept_for_it(self):
        bed = next(i for i in ITEMS if i.kind == "tannin")
        self.assertTrue({"alkalinity", "sulfate", "hardness"} <= looks_at(bed))


#: everything tested, and nothing of it much; acid in the second
MILD = {
    "mild": {
        **{a: 0.02 for a in ANALYTES if ANALYTES[a].kind is not Kind.CONTEXT},
        **{"ph": 7.4, "temperature": 12.0, "tds": 180.0, "hardness": 150.0, "calcium": 90.0},
        **{"alkalinity": 110.0, "uvt": 92.0, "sodium": 12.0, "potassium": 2.0, "sulfate": 9.0},
        **{"chloride": 8.0, "nitrate_n": 1.0, "tannin": 0.05, "iron": 0.15, "manganese": 0.06},
    }
}
MILD["acid"] = {**MILD["mild"], "ph": 6.3, "alkalinity": 30.0, "hardness": 30.0, "calcium": 20.0}
EASY = home(drain=True, socket=True, headroom_in=90.0)
TOWN = home(drain=True, socket=True, headroom_in=90.0, source=Source.CITY, pump_gpm=None)
OTHER = (0.0, 0.4, 7.2, 480.0)


def sees(item, source: Stream, site, names) -> tuple:
    """All that the search takes from a stage, but for claims on what it does not read."""
    inp = StageInput(item=item, stream=source, site=site, overrides={}, brief=True)
    r, outlet = run_stage(inp, source, {})
    changed = {n for n, q in outlet.quantities.items() if q != source.get(n)}
    if any(c.status == "stop" for c in r.checks):
        return ([(c.id, c.status) for c in r.checks if c.status == "stop"],)
    claimed_here = {e.analyte for e in item.effects} - names
    if claimed_here & CHLORINES:  # its total is what is left of its parts, and worked out from them
        claimed_here = claimed_here | {"chlorine_total"}
    made = {n: outlet.quantities[n].range for n in changed - claimed_here}
    return [(c.id, c.status) for c in r.checks], r.dues, r.drains, r.running, made


class WhatIsNotLookedAtDecidesNothing(unittest.TestCase):
    """Every item on every demo water: another value of what its technology does not read, with the
    same verdicts on what it judges, leaves all that the search takes from it as it is.
    """

    def others(self, item, source: Stream, verdicts) -> Iterator[tuple[str, Stream]]:
        read = {NAMES[p] for p in looks(item).values}
        for name in source.quantities.keys() - read:
            for value in OTHER:
                q = Quantity(range=Range.exact(value), state="measured")
                if all(verdict_on(n, q) is v for n, v in verdicts.get(name, ())):
                    yield name, source.with_({name: q})

    def waters(self) -> Iterator[tuple[str, Stream, Site]]:
        """The demo's waters in their homes, and mild ones with everything tested where nothing is
        in the way."""
        for v in VISITS[:5]:
            raw = design_water(v.samples)
            source = source_stream(raw, meaning(raw, v.home, v.complaints, v.rules).colour, None)
            yield v.home.name, source, site_of(v.home, v.settings, raw)
        for name, values in MILD.items():
            raw = water(**values)
            source = source_stream(raw, None, Range.of(50.0, 55.0, 60.0))
            for place in (EASY, TOWN):
                site = replace(site_of(place, settings(), raw), bacteria="absent")
                yield f"{name}, {place.source}", source, site

    def test_every_item(self):
        tried = 0
        for home_name, source, lit in self.waters():
            site = replace(lit, mute=True)
            for item in ITEMS:
                if item.kind == "system":
                    continue
                found = looks(item)
                read = {NAMES[p] for p in found.values}
                verdicts: dict = {}
                for p, need in found.judged:
                    now = verdict_on(need, source.get(NAMES[p]))
                    verdicts.setdefault(NAMES[p], []).append((need, now))
                here = sees(item, source, site, read)
                for name, other in self.others(item, source, verdicts):
                    if source.quantities[name].range is not None:
                        tried += 1
                        seen = sees(item, other, site, read)
                        self.assertEqual(here, seen, f"{item.code} at {home_name}: {name}")
        self.assertGreater(tried, 1000)

    def test_facts_pass_untouched_where_they_are_said_to(self):
        named = {
            "@particulate_iron": "particulate_iron",
            "@coloured": "coloured",
            "@uvt_here": "uvt_measured_here",
        }
        v = VISITS[2]
        raw = design_water(v.samples)
        site = replace(site_of(v.home, v.settings, raw), mute=True)
        for item in ITEMS:
            if item.kind == "system":
                continue
            for particulate_iron, coloured, here in (
                (True, True, True),
                (None, None, False),
                (False, False, True),
            ):
                s = Stream(
                    quantities=source_stream(raw, None, None).quantities,
                    particulate_iron=particulate_iron,
                    coloured=coloured,
                    uvt_measured_here=here,
                )
                _, outlet = run_stage(
                    StageInput(item=item, stream=s, site=site, overrides={}, brief=True), s, {}
                )
                for fact, name in named.items():
                    if fact not in TECHNOLOGIES[item.kind].touches:
                        self.assertEqual(
                            getattr(outlet, name), getattr(s, name), f"{item.code} {fact}"
                        )


class Tables(unittest.TestCase):
    def test_price_and_maker_do_not_part_what_is_alike(self):
        i = BY_CODE["SO-15"]
        self.assertEqual(
            alike(i), alike(replace(i, code="X", name="Y", maker="Z", price=i.price * 2))
        )
        self.assertNotEqual(alike(i), alike(replace(i, drop_psi=1.0, drop_gpm=9.0)))
        self.assertEqual(
            alike(i, plumbing=False), alike(replace(i, drop_psi=1.0, drop_gpm=9.0), plumbing=False)
        )
        self.assertNotEqual(alike(i), alike(replace(i, headroom_in=1.0)))
