"""A line at another use of water: what is not worked out again is what it would have come to."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from hypothesis import given, settings
from hypothesis import strategies as st

from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.assess import assess
from zesty_glass.core.costing.chores import chores
from zesty_glass.core.costing.waste import waste
from zesty_glass.core.errors import RuleError
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.water import design_water
from zesty_glass.core.treating.line import at_other_use, placed, run_stages, site_of
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.stream import source_stream
from zesty_glass.core.treating.walking import Walk
from zesty_glass.demo.homes import demo_visits

VISITS = demo_visits(datetime(2026, 11, 20, 9, 0, tzinfo=UTC))
ITEMS = {i.code: i for i in example_items()}


class Same(unittest.TestCase):
    def both(self, visit, codes, use):
        """The line walked at a use, and the expected line brought to it."""
        raw = design_water(visit.samples)
        site, edge = (
            site_of(visit.home, visit.settings, raw),
            replace(site_of(visit.home, visit.settings, raw, use), mute=True),
        )
        source = source_stream(
            raw, meaning(raw, visit.home, visit.complaints, visit.rules).colour, site.running_psi
        )
        stages = placed(
            Option(id="o", name="o", stages=tuple(StageChoice(item=c) for c in codes)),
            ITEMS,
            source,
        )
        line = run_stages(stages, Walk(source, site, {}))
        return (
            run_stages(stages, Walk(source, edge, {}, brief=True)),
            at_other_use(line, stages, edge, {}),
            line,
        )

    def counted(self, dues):
        """Parts with the gallons that count: those of the calendar's are not looked at."""
        return [d if d.capacity_gal is not None else replace(d, gallons_year=0.0) for d in dues]

    def same(self, walked, brought, where):
        for a, b in zip(walked.stages, brought.stages, strict=True):
            self.assertEqual(
                (self.counted(a.dues), a.running, a.drains, a.chores),
                (self.counted(b.dues), b.running, b.drains, b.chores),
                f"{a.name}, {where}",
            )
            self.assertEqual(a.outlet, b.outlet, f"{a.name}, {where}")
        self.assertEqual((waste(walked), chores(walked)), (waste(brought), chores(brought)), where)
        self.assertEqual(
            (walked.house, walked.tap, walked.demand),
            (brought.house, brought.tap, brought.demand),
            where,
        )

    def test_lines_that_begin_alike_share_their_beginning_and_nothing_else(self):
        visit = VISITS[0]
        raw = design_water(visit.samples)
        site = site_of(visit.home, visit.settings, raw)
        source = source_stream(raw, None, site.running_psi)
        shared = Walk(source, site, {})
        ways = (["SO-15"], ["SO-15", "CB-15"], ["CB-15", "SO-15", "UV-12H"], ["SO-15"])
        dosed = {"SO-15": {"salt_lb_ft3": 4.0}}
        for codes, changed in (*((c, {}) for c in ways), (ways[1], dosed), (ways[1], {})):
            stages = tuple(StageChoice(item=c, overrides=changed.get(c, {})) for c in codes)
            line = placed(Option(id="o", name="o", stages=stages), ITEMS, source)
            alone = run_stages(line, Walk(source, site, {}))
            self.assertEqual(run_stages(line, shared), alone, codes)

    def test_every_item_of_the_catalogue_on_every_water(self):
        for visit in VISITS:
            for code in ITEMS:
                for use in (50 / 60, 75 / 60, 3.0):
                    walked, brought, _ = self.both(visit, [code], use)
                    self.same(walked, brought, f"{code} at {visit.home.name}")

    @given(
        st.sampled_from(VISITS),
        st.lists(st.sampled_from(sorted(ITEMS)), min_size=2, max_size=7, unique=True),
        st.floats(0.2, 6),
    )
    @settings(max_examples=120, deadline=None)
    def test_any_line(self, visit, codes, use):
        try:
            walked, brought, _ = self.both(visit, codes, use)
        except RuleError:  # two stages of one kind: no line
            return
        self.same(walked, brought, f"{codes} at {visit.home.name}, × {use}")

    def test_a_clock_softener_that_lets_more_hard_water_by_changes_all_behind_it(self):
        walked, brought, line = self.both(VISITS[0], ["SO-10C", "RO-75M"], 3.0)
        self.same(walked, brought, "a clock softener")
        self.assertNotEqual(brought.tap, line.tap)

    def test_a_line_of_another_option_is_refused(self):
        _, _, line = self.both(VISITS[0], ["SO-15", "RO-75M"], 1.2)
        with self.assertRaises(ValueError):
            at_other_use(
                line,
                placed(Option(id="x", name="x"), ITEMS, line.source),
                site_of(VISITS[0].home, VISITS[0].settings, design_water(VISITS[0].samples)),
                {},
            )

    def test_bands_are_those_of_walking_anew(self):
        for visit in VISITS:
            for o in assess(visit, use_bands=True).options:
                if o.use_band is not None:
                    self.assertTrue(o.use_band.low <= o.cost.total <= o.use_band.high)
