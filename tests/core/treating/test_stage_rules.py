"""Each technology on waters made for it: what stops, what warns, what stays unknown, and what it
leaves in the water.
"""

import unittest
from dataclasses import replace

from hypothesis import given
from hypothesis import strategies as st

from tests.making import home, settings, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.errors import RuleError
from zesty_glass.core.evidence import Level
from zesty_glass.core.home import Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.testing.value import Value
from zesty_glass.core.treating.line import site_of, walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.treating.stages.common import StageInput
from zesty_glass.core.treating.stream import source_stream
from zesty_glass.core.treating.walking import run_stage

ITEMS = {i.code: i for i in example_items()}
CITY = {"source": Source.CITY, "pump_gpm": None}


def stage(code, w, particulate_iron=None, ahead=(), overrides=None, **about):
    """One item on a water, and its checks by id (the gravest of each)."""
    h, s = home(**about), settings()
    site = site_of(h, s, w)
    source = replace(source_stream(w, None, site.running_psi), particulate_iron=particulate_iron)
    report, outlet = run_stage(
        StageInput(
            item=ITEMS[code],
            stream=source,
            site=site,
            overrides=overrides or {},
            ahead=tuple(ITEMS[a] for a in ahead),
        ),
        source,
        {},
    )
    order = ("met", "say", "warn", "unknown", "stop")
    checks = {}
    for c in report.checks:
        if c.id not in checks or order.index(c.status) > order.index(checks[c.id]):
            checks[c.id] = c.status
    return report, outlet, checks


class Carbon(unittest.TestCase):
    def test_chloramine_wants_longer_than_free_chlorine(self):
        w = water(chlorine_free=0.2, chlorine_combined=1.2, chlorine_total=1.4, radon=100.0)
        report, outlet, _ = stage("CC-15", w, **CITY)
        weak = outlet.quantities["chlorine_combined"]
        self.assertEqual(weak.note, "contact time short at peak")
        self.assertIn("warn", {c.status for c in report.checks if c.id == "carbon.ebct"})
        _, longer, checks = stage("CC-45", w, **CITY)
        self.assertEqual(checks["carbon.ebct"], "met")
        self.assertLess(longer.quantities["chlorine_combined"].range.high, weak.range.high)

    def test_standard_carbon_makes_no_claim_for_chloramine(self):
        _, outlet, _ = stage("CB-15", water(chlorine_free=0.2, chlorine_combined=1.2), **CITY)
        q = outlet.quantities["chlorine_combined"]
        self.assertEqual((q.evidence, q.range.best), (Level.NO_CLAIM, 1.2))

    def test_total_is_what_is_left_of_both(self):
        _, outlet, _ = stage(
            "CC-45", water(chlorine_free=0.2, chlorine_combined=1.2, chlorine_total=1.4), **CITY
        )
        q = outlet.quantities
        self.assertAlmostEqual(
            q["chlorine_total"].range.best,
            q["chlorine_free"].range.best + q["chlorine_combined"].range.best,
        )

    def test_radon_stops_it_and_unknown_radon_is_asked_on_a_well(self):
        self.assertEqual(stage("CB-15", water(radon=9000.0))[2]["carbon.radon"], "stop")
        self.assertEqual(stage("CB-15", water(radon=200.0))[2]["carbon.radon"], "met")
        self.assertEqual(stage("CB-15", water())[2]["carbon.radon_unknown"], "unknown")
        self.assertNotIn("carbon.radon_unknown", stage("CB-15", water(), **CITY)[2])

    def test_behind_it_there_is_no_disinfectant(self):
        self.assertEqual(
            stage("CB-15", water(chlorine_free=0.5), **CITY)[2]["carbon.disinfectant"], "say"
        )


class IronFilter(unittest.TestCase):
    GOOD = {"iron": 3.0, "manganese": 0.02, "ph": 7.2, "tannin": 0.05, "hydrogen_sulfide": 0.0}

    def test_a_fitting_water_is_met_and_no_rust_is_left(self):
        _, outlet, checks = stage("FE-A10", water(**self.GOOD), particulate_iron=True)
        self.assertEqual((checks["iron.ph"], checks.get("well.backwash", "met")), ("met", "met"))
        self.assertIs(outlet.particulate_iron, False)
        self.assertLess(outlet.quantities["iron"].range.best, 0.3)

    def test_acid_water_stops_it_and_it_promises_nothing(self):
        _, outlet, checks = stage("FE-A10", water(**{**self.GOOD, "ph": 5.5}))
        self.assertEqual(checks["iron.ph"], "stop")
        self.assertEqual(outlet.quantities["iron"].range.best, 3.0)

    def test_ph_that_may_be_too_low_warns(self):
        limit = ITEMS["FE-A10"].figures.ph_min_iron
        self.assertEqual(
            stage(
                "FE-A10",
                water(**{**self.GOOD, "ph": Range.of(limit - 0.2, limit + 0.1, limit + 0.3)}),
            )[2]["iron.ph"],
            "warn",
        )

    def test_tannin_defeats_it_and_untested_tannin_is_unknown(self):
        self.assertEqual(
            stage("FE-A10", water(**{**self.GOOD, "tannin": 1.0}))[2]["iron.tannin"], "stop"
        )
        self.assertEqual(
            stage("FE-A10", water(**{k: v for k, v in self.GOOD.items() if k != "tannin"}))[2][
                "iron.tannin"
            ],
            "unknown",
        )

    def test_a_weak_pump_stops_its_backwash(self):
        self.assertEqual(
            stage("FE-D10", water(**self.GOOD), pump_gpm=3.0)[2]["well.backwash"], "stop"
        )

    @given(st.floats(0.1, 8), st.floats(0.1, 8))
    def test_more_iron_in_is_never_less_iron_out(self, a, b):
        low, high = sorted((a, b))
        left = [
            stage("FE-A10", water(**{**self.GOOD, "iron": x}))[1].quantities["iron"].range.best
            for x in (low, high)
        ]
        self.assertLessEqual(left[0], left[1] + 1e-9)


class Tannin(unittest.TestCase):
    FULL = {
        "tannin": 1.5,
        "iron": 0.1,
        "hardness": 40.0,
        "nitrate_n": 0.5,
        "sulfate": 10.0,
        "alkalinity": 60.0,
        "ph": 6.8,
    }

    def test_it_trades_and_says_so(self):
        _, outlet, checks = stage("TN-10", water(**self.FULL))
        self.assertEqual(checks["tannin.exchange"], "say")
        self.assertLess(outlet.quantities["tannin"].range.best, 0.5)
        for name in ("ph", "alkalinity", "nitrate_n", "sulfate"):
            self.assertIsNone(outlet.quantities[name].range, name)
        self.assertEqual((outlet.coloured, outlet.uvt_measured_here), (False, False))

    def test_nitrate_above_half_its_limit_stops(self):
        self.assertEqual(
            stage("TN-10", water(**{**self.FULL, "nitrate_n": 6.0}))[2]["tannin.nitrate"], "stop"
        )

    def test_what_was_not_tested_is_named(self):
        report, _, checks = stage("TN-10", water(tannin=1.5))
        self.assertEqual(checks["tannin.needs_tests"], "unknown")
        sentence = next(c.sentence for c in report.checks if c.id == "tannin.needs_tests")
        for word in ("nitrate", "sulfate", "alkalinity"):
            self.assertIn(word, sentence)

    def test_the_mixed_bed_softens_too_and_warns_of_itself(self):
        _, outlet, checks = stage("TM-20", water(**{**self.FULL, "hardness": 200.0}))
        self.assertEqual(checks["tannin.mixed"], "warn")
        self.assertLess(outlet.quantities["hardness"].range.high, 40)

    def test_brine_forbidden(self):
        self.assertEqual(
            stage("TN-10", water(**self.FULL), brine_forbidden=True)[2]["brine.forbidden"], "stop"
        )


class Cartridges(unittest.TestCase):
    def test_alumina_stops_above_its_ph(self):
        _, outlet, checks = stage("FL-A", water(fluoride=3.0, ph=7.8))
        self.assertEqual((checks["cartridge.fluoride"], checks["cartridge.ph"]), ("stop", "stop"))
        self.assertEqual(
            (outlet.quantities["fluoride"].range.best, outlet.quantities["fluoride"].evidence),
            (3.0, Level.NO_CLAIM),
        )

    def test_inside_its_window_the_certified_claim_holds(self):
        _, outlet, checks = stage("FL-A", water(fluoride=3.0, ph=6.5))
        self.assertEqual(checks["cartridge.ph"], "met")
        self.assertAlmostEqual(outlet.quantities["fluoride"].range.best, 0.3)
        self.assertTrue(outlet.quantities["fluoride"].established)

    def test_without_ph_nothing_is_claimed(self):
        _, outlet, checks = stage("FL-A", water(fluoride=3.0))
        self.assertEqual(checks["cartridge.ph"], "unknown")
        self.assertEqual(outlet.quantities["fluoride"].evidence, Level.NO_CLAIM)

    def test_a_maker_s_word_never_establishes_a_health_claim(self):
        self.assertFalse(
            stage("FL-B", water(fluoride=3.0, ph=6.5))[1].quantities["fluoride"].established
        )


class Ultraviolet(unittest.TestCase):
    CLEAR = {
        "iron": 0.05,
        "manganese": 0.01,
        "hardness": 60.0,
        "tannin": 0.02,
        "turbidity": 0.3,
        "hydrogen_sulfide": 0.0,
        "uvt": 92.0,
    }

    def present(self, **more):
        w = water(**{**self.CLEAR, **more})
        return replace(
            w,
            values={
                **w.values,
                "coliform": Value(
                    analyte="coliform",
                    unit="",
                    range=None,
                    words="present",
                    laboratory=True,
                    certified=True,
                ),
            },
        )

    def test_a_fitting_class_a_unit_inactivates_and_removes_nothing(self):
        _, outlet, checks = stage("UV-12H", self.present(), ahead=("SD-20A", "SD-50"))
        self.assertEqual(checks["uv.class"], "met")
        self.assertEqual(outlet.quantities["iron"].range.best, 0.05)

    def test_class_b_will_not_do_on_water_that_is_known_unsafe(self):
        self.assertEqual(stage("UV-08B", self.present())[2]["uv.class"], "stop")

    def test_no_prefilter_stops(self):
        self.assertEqual(stage("UV-12H", self.present())[2]["uv.prefilter"], "stop")

    def limited(self, gpm):
        """Behind a bucket of 14 gpm at full bore: 17.5 gpm of design flow without a limiter."""
        about = {"flow_gpm": 14.0, "flow_full_bore": True}
        return stage(
            "UV-12H",
            self.present(),
            ahead=("SD-20A", "SD-50"),
            overrides={} if gpm is None else {"limiter_gpm": gpm},
            **about,
        )[2]

    def test_only_a_fixed_limiter_lets_a_smaller_lamp_do(self):
        self.assertEqual(self.limited(None)["uv.flow"], "stop")
        self.assertEqual(self.limited(8.0)["uv.flow"], "met")

    def test_what_a_limiter_takes_from_the_house_is_said(self):
        self.assertEqual(self.limited(4.0)["uv.limited"], "warn")
        self.assertNotIn("uv.limited", self.limited(None))
        self.assertNotIn("uv.limited", self.limited(60.0))

    def test_a_limiter_that_is_none_is_refused(self):
        for wrong in (-5.0, 0.0, 1e9, "abc"):
            with self.subTest(wrong), self.assertRaises(RuleError) as e:
                self.limited(wrong)
            self.assertEqual(e.exception.where, "overrides.limiter_gpm")

    def test_tinted_water_is_refused(self):
        self.assertEqual(
            stage("UV-12H", water(**{**self.CLEAR, "tannin": 1.0, "uvt": 60.0}))[2]["uv.uvt_low"],
            "stop",
        )

    def test_a_kit_too_coarse_for_it_leaves_it_unknown(self):
        w = water(**self.CLEAR)
        coarse = replace(
            w,
            values={
                **w.values,
                "tannin": Value(
                    analyte="tannin", unit="mg/L", range=Range.of(0, 0.1, 0.3), below=0.3
                ),
            },
        )
        self.assertEqual(stage("UV-12H", coarse)[2]["uv.tannin"], "unknown")

    def test_what_may_shade_the_lamp_stops_it_already(self):
        # makers' water conditions (NSF/ANSI 55): a lamp on water that may be past one protects
        # nobody
        for analyte, most in (
            ("iron", 0.3),
            ("manganese", 0.05),
            ("hardness", 119.83),
            ("tannin", 0.1),
            ("turbidity", 1.0),
            ("hydrogen_sulfide", 0.05),
        ):
            for low, high, status in ((0.9, 1.1, "stop"), (0.7, 0.9, "met")):
                with self.subTest(f"{analyte} {status}"):
                    around = Range.of(low * most, (low + high) / 2 * most, high * most)
                    checks = stage("UV-12H", water(**{**self.CLEAR, analyte: around}))[2]
                    self.assertEqual(checks[f"uv.{analyte}"], status)

    def test_it_is_a_unit_that_disinfects_and_a_filter_is_none(self):
        self.assertTrue(ITEMS["UV-12H"].figures.disinfects)
        self.assertFalse(ITEMS["SD-20A"].figures.disinfects)

    def test_transmittance_not_measured_is_unknown(self):
        w = {k: v for k, v in self.CLEAR.items() if k != "uvt"}
        self.assertEqual(stage("UV-12H", water(**w))[2]["uv.uvt_unknown"], "unknown")


class Small(unittest.TestCase):
    def test_a_fine_sediment_filter_holds_rust_back(self):
        self.assertIs(
            stage("SD-20A", water(turbidity=2.0), particulate_iron=True)[1].particulate_iron,
            ITEMS["SD-20A"].figures.micron > 5,
        )
        self.assertIs(
            stage("SD-50", water(turbidity=2.0), particulate_iron=True)[1].particulate_iron, True
        )

    def test_conditioners_leave_the_minerals(self):
        for code in ("SF-12", "PH-W", "PH-A", "PH-S"):
            _, outlet, checks = stage(
                code, water(hardness=300.0, chlorine_free=0.0, iron=0.0, manganese=0.0)
            )
            self.assertEqual(outlet.quantities["hardness"].range.best, 300.0, code)
            self.assertEqual(checks["conditioner.minerals"], "say", code)
        self.assertEqual(stage("PH-W", water(hardness=300.0))[2]["physical.disputed"], "warn")

    def test_a_distiller_boils_no_cheaper_than_boiling(self):
        report, outlet, _ = stage("DS-1", water(tds=400.0, nitrate_n=8.0))
        self.assertGreaterEqual(ITEMS["DS-1"].figures.kwh_gal, 2.7)
        self.assertLess(outlet.quantities["tds"].range.best, 20)
        self.assertIsNone(outlet.quantities["ph"].range)
        self.assertTrue(any(r.kind == "power" for r in report.running))

    def test_specialist_stages_send_to_the_specialist(self):
        for code in ("AE-1", "NO-1", "AS-H", "CL-1"):
            self.assertEqual(
                stage(code, water(radon=5000.0, nitrate_n=12.0, arsenic=0.02, ph=7.0))[2][
                    "specialist"
                ],
                "warn",
                code,
            )

    def test_a_regulator_lowers_and_a_booster_sets_the_pressure(self):
        high = stage("PR-1", water(), running_psi=90.0)[1].psi
        self.assertLessEqual(high.high, ITEMS["PR-1"].figures.sets_psi)
        self.assertEqual(
            stage("BP-1", water(), running_psi=30.0)[1].psi.best, ITEMS["BP-1"].figures.sets_psi
        )

    def test_a_pitcher_changes_only_what_it_claims(self):
        _, outlet, _ = stage("PT-1", water(chlorine_free=1.0, hardness=300.0, iron=0.5), **CITY)
        self.assertLess(outlet.quantities["chlorine_free"].range.best, 0.2)
        self.assertEqual(outlet.quantities["hardness"].range.best, 300.0)
        self.assertEqual(outlet.quantities["iron"].range.best, 0.5)


class WholeLines(unittest.TestCase):
    def walk(self, *codes, w, **about):
        return walk(
            Option(id="o", name="o", stages=tuple(StageChoice(item=c) for c in codes)),
            ITEMS,
            w,
            None,
            home(**about),
            settings(),
        )

    def test_a_neutraliser_s_hardness_reaches_the_softener(self):
        w = water(
            ph=6.3,
            alkalinity=40.0,
            calcium=30.0,
            hardness=60.0,
            tds=120.0,
            temperature=11.0,
            iron=0.1,
            manganese=0.01,
            chlorine_free=0.0,
        )
        alone, behind = self.walk("SO-20", w=w), self.walk("AC-U15", "SO-20", w=w)
        load = [
            next(f.number for f in line.stages[-1].figures if f.id == "interval")
            for line in (alone, behind)
        ]
        self.assertLessEqual(load[1], load[0])
        self.assertGreater(behind.stages[0].outlet.quantities["hardness"].range.best, 60.0)

    def test_regeneration_hours_do_not_collide(self):
        w = water(
            ph=7.2,
            iron=2.0,
            manganese=0.01,
            tannin=0.02,
            hydrogen_sulfide=0.0,
            hardness=200.0,
            chlorine_free=0.0,
            tds=300.0,
        )
        hours = next(c for c in self.walk("FE-A10", "SO-20", w=w).checks if c.id == "line.hours")
        self.assertIn("at 1", hours.sentence)
        self.assertIn("at 2", hours.sentence)

    def test_lead_from_the_plumbing_comes_back_behind_house_stages(self):
        w = water(
            lead=0.02,
            hardness=100.0,
            chlorine_free=0.5,
            tds=200.0,
            temperature=12.0,
            ph=7.4,
            iron=0.0,
            manganese=0.0,
        )
        self.assertEqual(self.walk("CB-15", w=w, **CITY).house.quantities["lead"].range.best, 0.02)
        self.assertLess(self.walk("CT-1", w=w, **CITY).tap.quantities["lead"].range.best, 0.005)

    @given(
        st.floats(30, 90),
        st.lists(st.sampled_from(["SD-20B", "CB-15", "SO-15", "FE-A10"]), unique=True, min_size=1),
    )
    def test_every_stage_takes_pressure_and_none_gives_it(self, psi, codes):
        line = self.walk(*codes, w=water(hardness=100.0, iron=1.0, ph=7.2), running_psi=psi)
        lows = [psi, *(s.outlet.psi.low for s in line.stages)]
        self.assertEqual(lows, sorted(lows, reverse=True))
