"""Every item of the catalog on many waters: what must hold for each of them."""

import unittest
from dataclasses import replace

from hypothesis import given, settings
from hypothesis import strategies as st

from tests.making import home, water
from tests.making import settings as firm
from tools.large import large_catalogue
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.analytes import ANALYTES
from zesty_glass.core.errors import RuleError
from zesty_glass.core.evidence import ESTABLISHES_HEALTH
from zesty_glass.core.home import Source
from zesty_glass.core.presenting.before_signing import to_know
from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.water import Water
from zesty_glass.core.treating.items import Need, alike
from zesty_glass.core.treating.line import site_of, walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.stages import TECHNOLOGIES
from zesty_glass.core.treating.stages.common import StageInput
from zesty_glass.core.treating.stages.softener_shown import _whole_days
from zesty_glass.core.treating.stream import source_stream

ITEMS = example_items()
BY_CODE = {i.code: i for i in ITEMS}
STAGES = [i for i in ITEMS if i.kind != "system"]
GRAVE = {"stop": 0, "unknown": 1, "warn": 2, "say": 3, "met": 4}
#: adds these by its nature, so they may rise
RISES = {
    "softener": {"sodium", "potassium"},
    "mixed_bed": {"sodium", "chloride"},
    "tannin": {"chloride"},
    "neutraliser": {"ph", "hardness", "alkalinity", "calcium", "tds"},
    "polish": {"ph", "hardness", "alkalinity", "calcium", "tds"},
}
waters = st.fixed_dictionaries(
    {
        "hardness": st.floats(0, 600),
        "iron": st.floats(0, 6),
        "manganese": st.floats(0, 1),
        "tannin": st.floats(0, 3),
        "tds": st.floats(10, 1800),
        "ph": st.floats(4.5, 9),
        "alkalinity": st.floats(0, 400),
        "calcium": st.floats(0, 300),
        "temperature": st.floats(4, 30),
        "chlorine_free": st.floats(0, 3),
        "chlorine_combined": st.floats(0, 2),
        "turbidity": st.floats(0, 8),
        "hydrogen_sulfide": st.floats(0, 2),
        "nitrate_n": st.floats(0, 20),
        "arsenic": st.floats(0, 0.05),
        "fluoride": st.floats(0, 4),
        "lead": st.floats(0, 0.02),
        "uvt": st.floats(50, 99),
        "sulfate": st.floats(0, 300),
        "radon": st.floats(0, 9000),
    }
).map(lambda v: {**v, "chlorine_total": v["chlorine_free"] + v["chlorine_combined"]})
some = st.lists(st.sampled_from(range(len(STAGES))), min_size=8, max_size=16, unique=True).map(
    lambda chosen: [STAGES[i] for i in chosen]
)


def run(item, w, h=None):
    site = site_of(h or home(), firm(), w)
    source = source_stream(w, None, site.running_psi)
    return source, TECHNOLOGIES[item.kind].run(
        StageInput(item=item, stream=source, site=site, overrides={})
    )


def gravest(report):
    return min((GRAVE[c.status] for c in report.checks), default=4)


class EveryItem(unittest.TestCase):
    @settings(max_examples=10, deadline=None)
    @given(waters, some)
    def test_a_stage_never_creates_what_it_does_not_add(self, values, items):
        w = water(**values)
        for item in items:
            source, r = run(item, w)
            for name, q in r.outlet.quantities.items():
                before = source.get(name)
                if (
                    before is None
                    or before.range is None
                    or q.range is None
                    or name in RISES.get(item.kind, set())
                ):
                    continue
                self.assertLessEqual(q.range.best, before.range.best + 1e-9, (item.code, name))
                self.assertGreaterEqual(q.range.low, -1e-9, (item.code, name))

    @settings(max_examples=10, deadline=None)
    @given(waters, some)
    def test_analytes_it_says_nothing_of_pass_unchanged(self, values, items):
        w = water(**values, potassium=3.0, chloride=20.0, uranium=0.01)
        for item in items:
            source, r = run(item, w)
            told = {e.analyte for e in item.effects} | RISES.get(item.kind, set())
            if item.kind in (
                "sediment",
                "carbon",
                "pitcher",
                "cartridge",
                "salt_free",
                "physical",
                "regulator",
                "booster",
                "expansion",
                "bypass",
                "raw_line",
            ):
                for name in ("potassium", "uranium", "chloride"):
                    if name not in told:
                        self.assertEqual(r.outlet.get(name), source.get(name), (item.code, name))

    @settings(max_examples=8, deadline=None)
    @given(waters, some)
    def test_a_health_claim_without_proof_is_not_established(self, values, items):
        w = water(**values)
        for item in items:
            _, r = run(item, w)
            for e in item.effects:
                q = r.outlet.get(e.analyte)
                if (
                    ANALYTES[e.analyte].kind.value == "health"
                    and q is not None
                    and q.evidence is not None
                    and q.evidence not in ESTABLISHES_HEALTH
                    and q.state == "predicted"
                    and q.range is not None
                    and q.range != w.range(e.analyte)
                ):
                    self.assertFalse(q.established, (item.code, e.analyte))

    def test_with_nothing_tested_nothing_breaks_and_nothing_is_promised(self):
        bare = Water(sample="raw", values={})
        for item in STAGES:
            source, r = run(item, bare)
            self.assertTrue(
                all(
                    q.range is None
                    for n, q in r.outlet.quantities.items()
                    if n not in source.quantities
                ),
                item.code,
            )
            for c in r.checks:
                self.assertTrue(c.sentence, (item.code, c.id))
                if c.status == "unknown":
                    self.assertTrue(c.test or "not" in c.sentence, (item.code, c.id))

    @settings(max_examples=8, deadline=None)
    @given(waters, st.floats(0.01, 0.4), some)
    def test_wider_readings_never_make_a_check_better(self, values, share, items):
        narrow = water(**values)
        wide = water(
            **{
                k: Range.of(
                    v * (1 - share) if k != "ph" else v - share,
                    v,
                    v * (1 + share) if k != "ph" else v + share,
                )
                for k, v in values.items()
            }
        )
        for item in items:
            if item.kind in ("neutraliser",):
                continue  # its own window is judged on the best pH, and says so
            a, b = run(item, narrow)[1], run(item, wide)[1]
            worse = {c.id: GRAVE[c.status] for c in b.checks if c.id.split(".")[-1] in values}
            for c in a.checks:
                if c.status == "stop" and c.id in worse and not any(n.strict for n in item.needs):
                    self.assertLessEqual(worse[c.id], GRAVE["warn"], (item.code, c.id))

    @settings(max_examples=8, deadline=None)
    @given(
        waters, st.sampled_from(["iron", "hardness", "tds", "turbidity"]), st.floats(0, 100), some
    )
    def test_adding_a_need_never_makes_a_stopped_line_pass(self, values, analyte, limit, items):
        w = water(**values)
        for item in items:
            before = gravest(run(item, w)[1])
            if any(n.analyte == analyte for n in item.needs):
                continue  # an item's own need takes the place of the typical one
            more = replace(item, needs=(*item.needs, Need(analyte=analyte, limit=limit)))
            typical = {c.id for c in run(item, w)[1].checks}
            if f"{item.kind}.{analyte}" in typical:
                continue
            self.assertLessEqual(gravest(run(more, w)[1]), before, item.code)

    def test_figures_open_their_working(self):
        w = water(
            hardness=200,
            iron=0.2,
            manganese=0.01,
            tds=400,
            ph=6.4,
            alkalinity=60,
            calcium=60,
            temperature=12,
            chlorine_free=0.0,
            chlorine_total=0.0,
            uvt=92,
            tannin=0.0,
            turbidity=0.2,
            hydrogen_sulfide=0.0,
        )
        seen = set()
        for item in STAGES:
            for f in run(item, w)[1].figures:
                seen.add(item.kind)
                self.assertTrue(
                    f.working.rows and f.working.source and f.working.formula, (item.code, f.id)
                )
        self.assertLessEqual({"softener", "membrane", "neutraliser", "carbon", "uv"}, seen)

    def test_brief_answers_are_the_same_without_figures(self):
        w = water(
            hardness=200,
            iron=0.2,
            manganese=0.01,
            tds=400,
            ph=6.4,
            alkalinity=60,
            calcium=60,
            temperature=12,
            chlorine_free=0.0,
            uvt=92,
        )
        site = site_of(home(), firm(), w)
        source = source_stream(w, None, site.running_psi)
        for item in STAGES:
            full = TECHNOLOGIES[item.kind].run(
                StageInput(item=item, stream=source, site=site, overrides={})
            )
            brief = TECHNOLOGIES[item.kind].run(
                StageInput(
                    item=item,
                    stream=source,
                    site=replace(site, mute=True),
                    overrides={},
                    brief=True,
                )
            )
            self.assertEqual(
                [(c.id, c.status) for c in brief.checks],
                [(c.id, c.status) for c in full.checks],
                item.code,
            )
            self.assertEqual(
                (brief.outlet, brief.drains, brief.dues, brief.running, brief.figures),
                (full.outlet, full.drains, full.dues, full.running, ()),
                item.code,
            )


class Places(unittest.TestCase):
    """What the place decides, item by item."""

    clean = water(
        hardness=200,
        iron=0.0,
        manganese=0.0,
        tds=300,
        ph=7.2,
        alkalinity=150,
        chlorine_free=0.0,
        temperature=12,
    )

    def stops(self, item, **more):
        return {c.id for c in run(item, self.clean, home(**more))[1].checks if c.status == "stop"}

    def test_no_drain_stops_all_that_need_one(self):
        for item in STAGES:
            self.assertEqual("space.drain" in self.stops(item, drain=False), item.drain, item.code)

    def test_no_socket_stops_all_that_need_one(self):
        for item in STAGES:
            self.assertEqual(
                "space.socket" in self.stops(item, socket=False), item.socket, item.code
            )

    def test_a_tenant_plumbs_nothing(self):
        for item in STAGES:
            self.assertEqual(
                "space.tenant" in self.stops(item, tenant=True), item.plumbed, item.code
            )

    def test_brine_forbidden_stops_softeners(self):
        for item in STAGES:
            if item.kind == "softener":
                self.assertIn("brine.forbidden", self.stops(item, brine_forbidden=True), item.code)

    def test_a_low_ceiling_stops_what_is_taller(self):
        for item in STAGES:
            if item.scope == "house" and item.headroom_in and item.kind != "uv":
                self.assertEqual(
                    "space.headroom" in self.stops(item, headroom_in=item.headroom_in - 1),
                    True,
                    item.code,
                )

    def test_a_weak_pump_stops_what_it_cannot_backwash(self):
        for item in STAGES:
            gpm = getattr(item.figures, "backwash_gpm", None)
            if gpm:
                self.assertIn("well.backwash", self.stops(item, pump_gpm=gpm - 0.5), item.code)
                self.assertNotIn("well.backwash", self.stops(item, pump_gpm=gpm), item.code)
                self.assertNotIn(
                    "well.backwash", self.stops(item, pump_gpm=0.1, source=Source.CITY), item.code
                )

    def test_not_asked_yet_is_unknown_and_never_a_stop(self):
        for item in STAGES:
            r = run(
                item, self.clean, home(drain=None, socket=None, headroom_in=None, pump_gpm=None)
            )[1]
            bad = {
                c.id
                for c in r.checks
                if c.status == "stop"
                and c.id in ("space.drain", "space.socket", "space.headroom", "well.backwash")
            }
            self.assertEqual(bad, set(), item.code)


class Catalogue(unittest.TestCase):
    def test_about_sixty_items_cover_every_stage(self):
        self.assertGreaterEqual(len(ITEMS), 60)
        self.assertEqual({i.kind for i in ITEMS}, {*TECHNOLOGIES, "system"})

    def test_it_holds_what_the_job_asks_for(self):
        def some(test):
            return any(test(i) for i in ITEMS)

        self.assertTrue(some(lambda i: i.kind == "mixed_bed"))
        self.assertTrue(some(lambda i: i.kind == "cartridge" and i.figures.media == "alumina"))
        self.assertEqual(
            {i.figures.covers for i in ITEMS if i.kind == "physical"},
            {"house", "appliance", "shower"},
        )
        for style in ("upflow", "backwashing"):
            self.assertGreaterEqual(
                len(
                    {
                        i.figures.volume_ft3
                        for i in ITEMS
                        if i.kind == "neutraliser" and i.figures.style == style
                    }
                ),
                2,
            )
        self.assertTrue(
            some(lambda i: i.kind == "membrane" and i.figures.tank_gal and i.figures.permeate_pump)
        )
        self.assertTrue(
            some(
                lambda i: (
                    i.kind == "membrane" and i.figures.tank_gal and not i.figures.permeate_pump
                )
            )
        )
        self.assertTrue(some(lambda i: i.kind == "membrane" and not i.figures.tank_gal))
        self.assertEqual({i.figures.flat for i in ITEMS if i.kind == "uv"}, {True, False})
        self.assertLessEqual(
            {"pitcher", "refrigerator"}, {i.figures.style for i in ITEMS if i.kind == "pitcher"}
        )

    def test_every_item_stands_in_a_line_of_its_own(self):
        w = water(hardness=200, iron=0.0, tds=300, ph=7.2)
        for item in ITEMS:
            report = walk(
                Option(id="x", name="x", stages=(StageChoice(item=item.code),)),
                BY_CODE,
                w,
                None,
                home(),
                firm(),
            )
            self.assertGreaterEqual(len(report.stages), 1, item.code)

    def test_alike_is_everything_but_name_and_price(self):
        a = BY_CODE["SO-20"]
        self.assertEqual(
            alike(a), alike(replace(a, code="X", name="Y", maker="Z", price=a.price + 1))
        )
        self.assertNotEqual(alike(a), alike(replace(a, flow_gpm=1.0)))
        self.assertNotEqual(alike(a), alike(BY_CODE["SO-15"]))

    def test_a_large_one_is_the_same_every_time(self):
        self.assertEqual(large_catalogue(200), large_catalogue(200))
        self.assertEqual(len({i.code for i in large_catalogue()}), 500)


class BeforeSigning(unittest.TestCase):
    """Every stop, warning and unknown of any line of the catalog is read before it is signed."""

    @settings(max_examples=60, deadline=None)
    @given(waters, st.lists(st.sampled_from(ITEMS), min_size=1, max_size=6))
    def test_each_is_told_with_its_stage(self, seen, items):
        by_kind = {(i.kind, i.scope): i for i in items}
        option = Option(
            id="any", name="Any", stages=tuple(StageChoice(item=i.code) for i in by_kind.values())
        )
        try:
            line = walk(option, BY_CODE, water(**seen), None, home(), firm())
        except RuleError:
            return  # two stages of one kind, in a system
        told = {(k.stage, k.sentence) for k in to_know(line)}
        found = [(s.name, c) for s in line.stages for c in s.checks]
        found += [("The whole system", c) for c in line.checks]
        for name, c in found:
            if c.status in ("stop", "warn", "unknown"):
                self.assertIn((name, c.sentence), told)


class Clocks(unittest.TestCase):
    def test_no_two_valves_rinse_at_one_hour_and_the_line_says_the_same_hours(self):
        codes = [
            next(i.code for i in STAGES if i.kind == k)
            for k in ("iron_filter", "softener", "tannin")
        ]
        option = Option(id="any", name="Any", stages=tuple(StageChoice(item=c) for c in codes))
        seen = {"hardness": 200, "iron": 1.0, "ph": 7.6, "tannin": 0.0, "manganese": 0.0}
        line = walk(option, BY_CODE, water(**seen), None, home(), firm())
        clocks = [dict(s.settings)["Clock"] for s in line.stages]
        self.assertEqual(len(set(clocks)), 3)
        said = next(c.sentence for c in line.checks if c.id == "line.hours")
        for s, clock in zip(line.stages, clocks, strict=True):
            self.assertIn(f"{s.name} at {clock.split()[0]}", said)

    def test_a_valve_takes_whole_days(self):
        for interval, said in ((6.2, "7 days"), (4.0, "4 days"), (0.9, "every day"), (None, "–")):
            self.assertEqual(_whole_days(interval), said)
