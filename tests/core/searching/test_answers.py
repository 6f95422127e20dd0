"""What a stage looks at: what it is asked for, judged on, and only asked to be there; and that
nothing else decides its answer.
"""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from zesty_glass.core.ranges import Range, Verdict
from zesty_glass.core.searching.answers import (
    PLACE,
    Claim,
    Reads,
    looks_at,
)
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.water import design_water
from zesty_glass.core.treating.checks import judged, verdict_on
from zesty_glass.core.treating.items import Need, alike
from zesty_glass.core.treating.line import run_stage, site_of
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.core.treating.stages.common import StageInput, effects
from zesty_glass.core.treating.stream import Quantity, Stream, source_stream
from zesty_glass.demo.catalogue import demo_items
from zesty_glass.demo.homes import demo_visits

ITEMS = demo_items()
BY_CODE = {i.code: i for i in ITEMS}
VISITS = demo_visits(datetime(2026, 11, 20, tzinfo=UTC))
IRON = Quantity(range=Range.of(2.9, 3.0, 3.1), state="measured")


class Looking(unittest.TestCase):
    def test_asked_judged_and_there_are_kept_apart(self):
        reads = Reads({"iron": IRON, "tannin": IRON})
        reads.get("iron")
        reads.judge(Need(analyte="tannin", limit=1.0))
        self.assertIn("iron", reads)
        self.assertNotIn("lead", reads)
        values, verdicts, there = reads.looked()
        self.assertEqual(values, (PLACE["iron"],))
        self.assertEqual([p for p, _ in verdicts], [PLACE["tannin"]])
        self.assertEqual(there, (PLACE["lead"],))

    def test_a_value_asked_for_is_not_also_judged(self):
        reads = Reads({"iron": IRON})
        reads.judge(Need(analyte="iron", limit=1.0))
        reads.get("iron")
        self.assertEqual(reads.looked()[1], ())

    def test_the_verdict_is_that_of_the_plain_check(self):
        for limit in (1.0, 3.0, 9.0):
            need = Need(analyte="iron", limit=limit)
            self.assertIs(
                judged(need, Stream(quantities=Reads({"iron": IRON}))), verdict_on(need, IRON)
            )
        self.assertIs(verdict_on(Need(analyte="iron", limit=1.0), None), Verdict.UNKNOWN)

    def test_claims_are_put_off_unless_the_stage_looks_at_them(self):
        carbon = next(
            i
            for i in ITEMS
            if i.kind == "carbon" and any(e.analyte == "chlorine_free" for e in i.effects)
        )
        water = {"chlorine_free": Quantity(range=Range.exact(1.0), state="measured")}
        later, _ = effects(carbon, Stream(quantities=Reads(water)))
        now, _ = effects(carbon, Stream(quantities=Reads(water)), whole=True)
        self.assertIsInstance(later["chlorine_free"], Claim)
        self.assertIsNotNone(now["chlorine_free"].range)
        self.assertEqual(set(later), set(now))


class WhatIsNotLookedAtDecidesNothing(unittest.TestCase):
    """Every item on every demo water: changing an analyte that its kind is not known to look at
    leaves checks, costs and drains as they are.
    """

    def test_every_item(self):
        for v in VISITS[:5]:
            raw = design_water(v.samples)
            source = source_stream(raw, meaning(raw, v.home, v.complaints, v.rules).colour, None)
            site = replace(site_of(v.home, v.settings, raw), mute=True)
            for item in ITEMS:
                if item.kind == "system":
                    continue
                free = [
                    n
                    for n in source.quantities
                    if n not in looks_at(item) and n not in {e.analyte for e in item.effects}
                ]
                other = Stream(
                    quantities={
                        **source.quantities,
                        **{n: Quantity(range=Range.exact(77.0), state="measured") for n in free},
                    },
                    particulate_iron=source.particulate_iron,
                    coloured=source.coloured,
                )
                a, _ = run_stage(
                    StageInput(item=item, stream=source, site=site, overrides={}, brief=True),
                    source,
                    {},
                )
                b, _ = run_stage(
                    StageInput(item=item, stream=other, site=site, overrides={}, brief=True),
                    other,
                    {},
                )
                self.assertEqual(
                    ([(c.id, c.status) for c in a.checks], a.dues, a.drains, a.running),
                    ([(c.id, c.status) for c in b.checks], b.dues, b.drains, b.running),
                    f"{item.code} at {v.home.name}",
                )

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
