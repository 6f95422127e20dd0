"""Stages: worked figures and properties."""

import math
import unittest
from dataclasses import replace
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from tests.making import home, membrane, settings, softener, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Care, Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.stages import membrane_flow as ro
from zesty_glass.core.treating.stages import neutraliser as acid
from zesty_glass.core.treating.stages import softener as soft
from zesty_glass.core.treating.stages import softener_size
from zesty_glass.core.treating.stages.calcite import NeutraliserFigures
from zesty_glass.core.treating.stages.carbon import ebct_min
from zesty_glass.core.treating.stages.membrane_flow import MembraneFigures
from zesty_glass.core.treating.stages.softener_size import SoftenerFigures
from zesty_glass.core.treating.stages.uv import UvFigures, flow_at

RATED = MembraneFigures(rated_gpd=75, rated_ratio=3, rejection=0.94)


def line(*items, w=None, h=None, s=None, overrides=None):
    option = Option(
        id="a",
        name="A",
        stages=tuple(StageChoice(item=i.code, overrides=overrides or {}) for i in items),
    )
    return walk(
        option,
        {i.code: i for i in items},
        w or water(hardness=239.65, iron=0.6, tds=412, ph=7.4, temperature=12, chlorine_free=0),
        None,
        h or home(),
        s or settings(),
    )


class Pressure(unittest.TestCase):
    def test_a_least_pressure_is_held_up_by_every_technology(self):
        for kind in sorted({i.kind for i in example_items()} - {"system", "pitcher", "distiller"}):
            item = next(i for i in example_items() if i.kind == kind)
            wants = replace(item, psi_min=90.0)
            with self.subTest(kind):
                checks = line(wants, h=home(running_psi=60.0)).stages[0].checks
                held = [c for c in checks if "90" in c.sentence and c.status == "stop"]
                self.assertTrue(held, [c.sentence for c in checks])


class Softener(unittest.TestCase):
    def test_worked_figures(self):
        f = SoftenerFigures(resin_ft3=1.5, dose_lb_ft3=8)
        gpg = softener_size.compensated_gpg(14 * 17.118061, 0.6, 0)
        s = softener_size.size(f, gpg, 240, 0.6, 8, 365.25)
        self.assertEqual((round(gpg, 1), round(s.load_grains), s.capacity), (16.4, 3936, 36000))
        self.assertEqual((f"{s.by_capacity:.2f}", s.interval, s.regens_year), ("8.15", 4, 91.25))
        self.assertEqual(
            (round(s.salt_lb_year), round(s.rinse_gal_year + 1e-6), round(s.operating_gr_lb)),
            (1095, 8213, 1312),
        )
        self.assertEqual(round(soft.SODIUM_PER_CACO3 * 14 * 17.118061), 110)
        self.assertEqual(round(soft.POTASSIUM_PER_CACO3 * 14 * 17.118061), 187)

    def test_clock_unit(self):
        s = softener_size.size(
            SoftenerFigures(resin_ft3=1, control="clock", clock_days=7), 16.4, 240, 0.6, 8, 365.25
        )
        self.assertEqual(round(100 * s.leakage), 13)

    def test_lower_dose_is_suggested(self):
        f = SoftenerFigures(resin_ft3=1.5)
        self.assertEqual(softener_size.lower_dose(f, 3936, 4, f.dose_lb_ft3), 4)
        self.assertEqual(round(softener_size.size(f, 16.4, 240, 0.6, 4, 365.25).salt_lb_year), 548)

    def test_in_a_line(self):
        r = line(softener(1.5)).stages[0]
        self.assertEqual(next(f.value for f in r.figures if f.id == "interval"), "4")
        self.assertEqual(round(next(f.number for f in r.figures if f.id == "sodium")), 110)
        self.assertLessEqual(r.outlet.range("hardness").high, 17.12)

    def test_refusals(self):
        big = home(people=6)
        self.assertIn(
            "softener.too_small",
            {
                c.id
                for c in (
                    line(softener(1.0), w=water(hardness=188, iron=3.4, manganese=0.12), h=big)
                    .stages[0]
                    .checks
                )
                if c.status == "stop"
            },
        )
        self.assertIn(
            "softener.breaks_through",
            {
                c.id
                for c in line(softener(0.5), w=water(hardness=640), h=big).stages[0].checks
                if c.status == "stop"
            },
        )
        self.assertIn(
            "softener.iron",
            {
                c.id
                for c in line(softener(1.5), w=water(hardness=188, iron=3.4)).stages[0].checks
                if c.status == "stop"
            },
        )
        self.assertIn(
            "softener.hardness",
            {
                c.id
                for c in line(softener(1.5), w=water(tds=300)).stages[0].checks
                if c.status == "unknown"
            },
        )
        self.assertIn(
            "softener.open_ended",
            {
                c.id
                for c in (
                    line(softener(1.5), w=water(hardness=Range.of(337, 425, None))).stages[0].checks
                )
                if c.status == "stop"
            },
        )

    def test_dose_outside_the_table(self):
        with self.assertRaises(RuleError):
            line(softener(1.5), overrides={"dose_lb_ft3": 20})

    def test_diet_is_asked(self):
        r = line(softener(1.5), h=home(care=Care(consent=True, low_sodium=True))).stages[0]
        self.assertEqual(next(c.status for c in r.checks if c.id == "softener.diet"), "warn")

    @given(st.floats(1, 12), st.floats(1, 12), st.floats(20, 600), st.floats(0.5, 4))
    def test_more_people_never_lengthen_the_interval(self, a, b, hard, ft3):
        def days(people):
            s = softener_size.size(
                SoftenerFigures(resin_ft3=ft3), hard / 17.118, 60 * people, 0.0, 8, 365.25
            )
            return 0.0 if s.cannot else s.interval

        few, many = sorted((a, b))
        self.assertLessEqual(days(many), days(few) + 1e-9)

    @given(st.floats(4, 15), st.floats(4, 15))
    def test_more_salt_never_holds_less(self, a, b):
        low, high = sorted((a, b))
        self.assertLessEqual(
            softener_size.capacity_grains(1, low), softener_size.capacity_grains(1, high)
        )


class Membrane(unittest.TestCase):
    def test_worked_figures(self):
        made = ro.permeate_gpd(RATED, 52, 380, 12)
        drain = ro.drain_gpd(RATED, 52)
        self.assertEqual(
            (f"{made:.1f}", f"{1440 / made:.1f}", round(drain), f"{drain / made:.1f}"),
            ("41.5", "34.7", 209, "5.0"),
        )
        tank = ro.permeate_gpd(RATED, 52, 380, 12, 20)
        self.assertEqual((f"{tank:.1f}", f"{drain / tank:.1f}"), ("24.1", "8.7"))
        self.assertEqual(round(ro.concentrate_mg_l(380, 0.94, drain / made)), 451)

    def test_edges(self):
        self.assertEqual(ro.permeate_gpd(RATED, 5, 3000, 12), 0)
        self.assertEqual(ro.concentration_factor(1e7), 1)
        self.assertIsNone(ro.concentrate_mg_l(380, 0.94, 0))
        tank = MembraneFigures(
            rated_gpd=75,
            rated_ratio=3,
            rejection=0.94,
            tank_gal=3,
            precharge_psi=7,
            shutoff_share=0.1,
        )
        self.assertIsNone(ro.fill_minutes(tank, 52, 380, 12))

    def test_fill_time_against_a_fine_integral(self):
        f = MembraneFigures(
            rated_gpd=75,
            rated_ratio=3,
            rejection=0.94,
            tank_gal=3,
            precharge_psi=7,
            shutoff_share=0.6,
        )

        def boyle(share):  # 21.696 psi absolute when empty, 31.2 + 14.696 when full
            return 21.696 / (1 - share * (1 - 21.696 / 45.896)) - 14.696

        fine = sum(
            3 / 20000 / ro.permeate_gpd(f, 52, 380, 12, boyle((i + 0.5) / 20000)) * 1440
            for i in range(20000)
        )
        self.assertAlmostEqual(ro.fill_minutes(f, 52, 380, 12) / fine, 1, 2)

    @given(st.floats(100, 1500), st.floats(0.8, 0.99), st.floats(0.2, 12))
    def test_mass_balance_closes(self, feed, rejection, ratio):
        conc = ro.concentrate_mg_l(feed, rejection, ratio)
        recovery = 1 / (1 + ratio)
        self.assertAlmostEqual(feed, recovery * feed * (1 - rejection) + (1 - recovery) * conc, 6)

    @given(st.floats(40, 80), st.floats(40, 80), st.floats(5, 30), st.floats(50, 1500))
    def test_more_pressure_never_makes_less(self, a, b, t, tds_):
        low, high = sorted((a, b))
        self.assertLessEqual(
            ro.permeate_gpd(RATED, low, tds_, t), ro.permeate_gpd(RATED, high, tds_, t) + 1e-9
        )

    def test_checks(self):
        ok = water(
            hardness=10,
            iron=0.01,
            manganese=0.01,
            tds=380,
            temperature=12,
            chlorine_free=0,
            chlorine_total=0,
            ph=7.4,
        )
        made = line(membrane(), w=ok, h=home(source=Source.CITY)).stages[0]
        self.assertEqual([c.id for c in made.checks if c.status in ("stop", "warn", "unknown")], [])
        stops = {
            c.id: c.status
            for c in (
                line(membrane(), w=water(hardness=240, tds=380, chlorine_free=0.5)).stages[0].checks
            )
        }
        self.assertEqual(
            (
                stops["membrane.chlorine_free"],
                stops["membrane.feed"],
                stops["membrane.temperature"],
            ),
            ("stop", "unknown", "unknown"),
        )
        self.assertEqual(
            next(
                c.status
                for c in line(membrane(), h=home(source=Source.LAKE)).stages[0].checks
                if c.id == "membrane.feed"
            ),
            "stop",
        )

    def test_efficiency_wins_over_what_it_does_here(self):
        r = line(membrane(efficiency=0.4))
        self.assertAlmostEqual(r.drains[0].per_gallon, 1.5)
        open_ = line(membrane(shut_off=False))
        self.assertGreater(open_.drains[0].gal_year, 40 * r.drains[0].gal_year)


class Acid(unittest.TestCase):
    def test_worked_figures(self):
        self.assertEqual(f"{acid.pk1(12):.3f}", "6.445")
        self.assertEqual(round(acid.co2_mg_l(6.2, 30, 12)), 46)
        f = NeutraliserFigures(style="upflow", volume_ft3=1.5)
        r = Range.exact
        a = acid.rise(f, r(6.2), r(30), r(12), r(25), r(90))
        self.assertEqual(
            (round(a.added.best), f"{a.added.best / 17.118:.1f}", a.governs), (81, "4.7", "target")
        )
        b = acid.rise(f, r(6.0), r(100), r(12), r(60), r(180))
        self.assertEqual(
            (round(b.added.best), f"{b.ph.best:.2f}", b.governs), (277, "6.87", "saturation")
        )

    def test_rule_of_thumb(self):
        f = NeutraliserFigures(style="upflow", volume_ft3=1.5)
        r = acid.rise(f, Range.exact(6.2), None, Range.exact(12), None, None)
        self.assertEqual((round(r.added.best / 17.118061), r.governs), (6, "rule of thumb"))

    def test_nothing_at_target(self):
        self.assertEqual(acid.to_target(7.5, 50, 12), 0)

    @given(st.floats(5.6, 7.3), st.floats(10, 300), st.floats(4, 25))
    def test_carbon_is_conserved(self, ph, alk, t):
        x = acid.to_target(ph, alk, t)
        self.assertAlmostEqual(acid.ph_after(ph, alk, t, x), 7.4, 6)

    @given(st.floats(5.6, 7.3), st.floats(5.6, 7.3), st.floats(10, 300), st.floats(4, 25))
    def test_more_acid_water_takes_more(self, a, b, alk, t):
        low, high = sorted((a, b))
        self.assertGreaterEqual(acid.to_target(low, alk, t) + 1e-9, acid.to_target(high, alk, t))


class CarbonAndUv(unittest.TestCase):
    def test_contact_time(self):
        self.assertEqual((f"{ebct_min(1.5, 8):.1f}", f"{ebct_min(1.5, 3):.1f}"), ("1.4", "3.7"))

    def test_uv_table(self):
        f = UvFigures(
            device_class="A",
            monitored=True,
            table=((75, 6), (85, 9), (95, 12)),
            uvt_min=75,
            dose=40,
            lamp_length_in=30,
            flat=True,
            watts=40,
        )
        self.assertAlmostEqual(flow_at(f, 88), 9.9)
        self.assertIsNone(flow_at(f, 74))
        self.assertEqual(flow_at(f, 99), 12)


class Lines(unittest.TestCase):
    def test_two_softeners_are_refused(self):
        with self.assertRaises(RuleError) as e:
            line(softener(1.5), softener(2.0))
        self.assertEqual(e.exception.code, "line.two_of_a_kind")

    def test_unknown_item(self):
        with self.assertRaises(RuleError) as e:
            walk(
                Option(id="a", name="A", stages=(StageChoice(item="nope"),)),
                {},
                water(tds=3),
                None,
                home(),
                settings(),
            )
        self.assertEqual(e.exception.code, "line.unknown_item")

    def test_a_move_wants_a_reason(self):
        m, s = membrane(), softener(1.5)
        cat = {i.code: i for i in (m, s)}
        with self.assertRaises(RuleError):
            walk(
                Option(
                    id="a",
                    name="A",
                    stages=(StageChoice(item=s.code, position=1), StageChoice(item=m.code)),
                ),
                cat,
                water(hardness=200),
                None,
                home(),
                settings(),
            )

    def test_copper_comes_from_the_plumbing(self):
        r = line(softener(1.5), w=water(hardness=200, copper=1.6))
        self.assertEqual(r.house.best("copper"), 1.6)

    @given(st.floats(0, 600), st.floats(0, 5), st.floats(0, 900), st.floats(5, 9))
    def test_a_stage_never_creates_what_it_removes(self, hard, iron, tds_, ph):
        w = water(
            hardness=Range.of(hard * 0.9, hard, hard * 1.1),
            iron=Range.of(0, iron, iron * 1.2),
            tds=Range.of(tds_ * 0.9, tds_, tds_ * 1.1),
            ph=ph,
            temperature=12,
            chlorine_free=0,
        )
        for item in (softener(2.0), membrane()):
            made = line(item, w=w)
            for s in made.stages:
                for name in ("hardness", "iron"):
                    a, b = made.source.range(name), s.outlet.range(name)
                    self.assertLessEqual(b.best, a.best + 1e-9)
                    self.assertLessEqual(b.high, a.high + 1e-9)

    def test_price_is_decimal(self):
        self.assertIsInstance(line(softener(1.5)).purchases[0].price, Decimal)
        self.assertTrue(math.isfinite(line(softener(1.5)).demand.peak_gpm))
