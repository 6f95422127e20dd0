"""Nothing is said too surely: no limit is not judged, a coarse method is open, a value astride asks
for a finer test.
"""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from hypothesis import given
from hypothesis import strategies as st

from tests.making import home, lab, reading, water
from zesty_glass.core.analytes import ANALYTES, Kind
from zesty_glass.core.assess import assess
from zesty_glass.core.costing.waste import waste
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Care, Source
from zesty_glass.core.limits import Limit
from zesty_glass.core.own_limits import FirmRules, changes_of, in_force
from zesty_glass.core.proposing.reasons import needs_nothing, still_to_test
from zesty_glass.core.proposing.rows import target_of
from zesty_glass.core.proposing.suggest import things_found
from zesty_glass.core.ranges import Range, Verdict
from zesty_glass.core.rules import LIMITS, Rules, Settings
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.testing.finding import Weight
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.observations import BucketRuns, CupsSeen, LaboratoryResult, OneDisplay
from zesty_glass.core.testing.reading import work_out
from zesty_glass.core.testing.value import Value
from zesty_glass.core.treating.stages import membrane_flow as ro
from zesty_glass.core.treating.stages import neutraliser as acid
from zesty_glass.core.treating.stages.calcite import NeutraliserFigures
from zesty_glass.core.treating.stages.common import tannin_binds_iron
from zesty_glass.core.treating.stages.membrane_flow import MembraneFigures
from zesty_glass.core.treating.stream import source_stream
from zesty_glass.demo.homes import demo_visits, uid

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
RULES = Rules()
TOWN = {"tds": 58, "hardness": 34, "iron": 0.02, "ph": 7.3, "chlorine_free": 0.2}


def with_lab(base, analyte, certified=True, **result):
    value = work_out(
        reading(analyte, lab(analyte), LaboratoryResult(certified=certified, **result))
    )
    return replace(base, values={**base.values, analyte: value})


def found(w, rules=RULES, h=None, complaints=()):
    return meaning(w, h or home(source=Source.CITY), tuple(complaints), rules)


def one(w, analyte, rules=RULES, **more):
    return next(f for f in found(w, rules, **more).findings if f.analyte == analyte)


class Limits(unittest.TestCase):
    def test_no_limit_is_not_judged(self):
        for change in (
            lambda x: None,
            lambda x: replace(x, governs=False),
        ):
            limits = tuple(
                y
                for x in LIMITS
                for y in ([x] if x.analyte != "arsenic" else [change(x)])
                if y is not None
            )
            f = one(
                with_lab(water(**TOWN), "arsenic", value=0.5, unit="mg/L"),
                "arsenic",
                replace(RULES, limits=limits),
            )
            self.assertIs(f.weight, Weight.NOT_JUDGED)
            self.assertIn("not judged, no limit is set for it", f.sentence)

    @given(st.sampled_from(sorted({x.analyte for x in LIMITS})), st.floats(0.001, 1000))
    def test_without_limits_nothing_of_health_is_in_order(self, analyte, value):
        bare = replace(RULES, limits=())
        base = water(**TOWN)
        v = Value(
            analyte=analyte,
            unit="mg/L",
            range=Range.exact(value),
            laboratory=True,
            certified=True,
        )
        m = found(replace(base, values={**base.values, analyte: v}), bare)
        for f in m.findings:
            if f.kind == "health":
                self.assertIsNot(f.weight, Weight.FINE)

    def test_a_method_too_coarse_for_the_limit_is_open(self):
        f = one(
            with_lab(water(**TOWN), "arsenic", qualifier="<", value=0.05, unit="mg/L"), "arsenic"
        )
        self.assertEqual((f.id, f.weight), ("arsenic.too_coarse", Weight.NOTICE))
        self.assertIn("finer method", f.next)
        fine = one(
            with_lab(water(**TOWN), "arsenic", qualifier="<", value=0.001, unit="mg/L"), "arsenic"
        )
        self.assertIs(fine.weight, Weight.FINE)

    def test_lead_not_detected_is_no_detection_and_any_detection_is(self):
        fine = with_lab(water(**TOWN), "lead", qualifier="<", value=1, unit="µg/L")
        self.assertIs(one(fine, "lead").weight, Weight.FINE)
        self.assertNotIn("under 0 ", one(fine, "lead").sentence)
        coarse = with_lab(water(**TOWN), "lead", qualifier="<", value=20, unit="µg/L")
        self.assertEqual(one(coarse, "lead").id, "lead.too_coarse")
        some = with_lab(water(**TOWN), "lead", value=2, unit="µg/L")
        self.assertIs(one(some, "lead").weight, Weight.HEALTH)
        self.assertIn("2 µg/L", one(some, "lead").sentence)

    def test_small_numbers_stay_numbers(self):
        w = with_lab(water(**TOWN), "pfoa", value=8, unit="ng/L")
        f = one(w, "pfoa")
        self.assertIn("8 ng/L, against 4 ng/L", f.sentence)
        under = with_lab(water(**TOWN), "pfoa", qualifier="<", value=4, unit="ng/L")
        self.assertIn("under 4 ng/L", one(under, "pfoa").sentence)

    def test_certified_or_not_known(self):
        for certified in (False, None):
            bad = with_lab(water(**TOWN), "nitrate_n", certified, value=14, unit="mg/L", basis="N")
            f = one(bad, "nitrate_n")
            self.assertEqual((f.id, f.weight), ("nitrate_n.to_confirm", Weight.HEALTH))
            good = with_lab(water(**TOWN), "nitrate_n", certified, value=1, unit="mg/L", basis="N")
            self.assertIs(one(good, "nitrate_n").weight, Weight.NOT_JUDGED)

    def test_one_target_for_one_thing(self):
        w = with_lab(water(**TOWN), "fluoride", value=2.6, unit="mg/L")
        self.assertEqual(one(w, "fluoride").limit, target_of("fluoride", RULES)[0])
        higher = replace(
            RULES,
            limits=tuple(
                replace(x, value=7.2) if x.id == "ph.corrosive" else x for x in RULES.limits
            ),
        )
        self.assertEqual(target_of("ph", higher)[0], 7.2)

    def test_limits_reach_every_firm(self):
        changed = replace(LIMITS[0], value=400)
        own = Limit(
            id="own.1",
            analyte="iron",
            value=0.2,
            about="stains",
            name="x",
            place="y",
            source="z",
            year=2026,
        )
        kept = changes_of(Rules(limits=(changed, *LIMITS[1:], own)))
        self.assertEqual(kept.limits, (changed, own))
        old = FirmRules(limits=(changed, *LIMITS[1:5]), published=1)  # kept before the others came
        now = in_force(old)
        self.assertEqual({x.id for x in now.limits}, {x.id for x in LIMITS})
        self.assertEqual(now.limits[0].value, 400)
        self.assertEqual(in_force(kept).limits, (changed, *LIMITS[1:], own))


class NothingNeeded(unittest.TestCase):
    def test_only_when_all_that_is_asked_for_was_tested(self):
        self.assertTrue(needs_nothing(found(water(**TOWN))))
        part = {k: v for k, v in TOWN.items() if k in ("tds", "ph")}
        m = found(water(**part))
        self.assertFalse(needs_nothing(m))
        self.assertEqual(
            still_to_test(m),
            "Nothing found in 2 of 5 tests; still to test: hardness by drops, iron kit, "
            "free chlorine within a minute.",
        )

    def test_an_own_well_asks_for_more(self):
        m = found(water(**TOWN), h=home(source=Source.WELL_DRILLED))
        self.assertIn("laboratory: coliform", still_to_test(m))

    def test_a_complaint_asks_for_its_tests(self):
        c = Complaint(id="c", sign="black_stains", words="Black")
        m = found(water(**TOWN), complaints=(c,))
        self.assertFalse(needs_nothing(m))
        self.assertEqual(m.unexplained[0].next, "manganese kit or laboratory")

    def test_what_was_done_is_not_asked_for_again(self):
        c = Complaint(id="c", sign="black_stains", words="Black")
        m = found(water(**TOWN, manganese=0.01), complaints=(c,))
        self.assertIn("its usual tests were done", m.unexplained[0].next)

    def test_no_offer_of_nothing_before(self):
        from zesty_glass.core.presenting.offer import make_offer

        visit = next(v for v in demo_visits(AT) if v.id == uid("home-7-visit"))
        few = replace(
            visit, samples=tuple(replace(s, readings=s.readings[:1]) for s in visit.samples)
        )
        told = {
            "number": "x",
            "revision": 1,
            "created_at": AT,
            "valid_until": AT.date(),
            "recommended": "today",
            "reasons": "",
        }
        self.assertTrue(make_offer(visit, **told).nothing_needed)
        quiet = replace(few, complaints=())
        with self.assertRaisesRegex(RuleError, "Nothing found in 1 of"):
            make_offer(quiet, **told)


class Astride(unittest.TestCase):
    @given(st.floats(0.02, 0.5))
    def test_a_value_astride_never_brings_equipment(self, half):
        base = water(**{**TOWN, "ph": 7.3})
        ph = Value(analyte="ph", unit="pH", range=Range.of(7.0 - half, 7.0, 7.0 + half))
        m = found(replace(base, values={**base.values, "ph": ph}))
        f = next(f for f in m.findings if f.analyte == "ph")
        self.assertFalse(f.sure)
        self.assertIn("measure it finer", f.next)
        self.assertNotIn("ph", things_found(m))

    def test_surely_low_does(self):
        base = water(**{**TOWN, "ph": 6.2})
        self.assertIn("ph", things_found(found(base)))

    def test_low_ph_is_likely_the_cause_before_copper_was_measured(self):
        c = Complaint(id="c", sign="blue_green", words="Blue stains")
        m = found(water(**{**TOWN, "ph": 6.1}), complaints=(c,))
        f = next(f for f in m.findings if f.analyte == "ph")
        self.assertEqual(f.explains, ("c",))
        self.assertIn("a first-draw sample would confirm it", f.sentence)
        self.assertEqual(m.unexplained, ())

    def test_the_cups_answer_a_colour_before_any_kit(self):
        c = Complaint(id="c", sign="tea_colour", words="Brown")
        cups = CupsSeen(drawn="coloured", stood="same", stood_minutes=30, reducer="no_change")
        m = found(replace(water(**TOWN), cups=cups), complaints=(c,))
        self.assertEqual(m.unexplained, ())
        self.assertIn("cups.tannin", [f.id for f in m.findings])


class Readings(unittest.TestCase):
    def test_a_bucket_errs(self):
        from zesty_glass.core.testing.instruments import Instrument, InstrumentKind

        kit = Instrument(id="b", name="b", kind=InstrumentKind.BUCKET, analyte="flow")
        seen = BucketRuns(volume_gal=5, seconds=(20, 20), full_bore=True)
        v = work_out(reading("flow", kit, seen))
        # 60 × 5 / 20 = 15; 60 × 4.85 / 20.3 = 14.33; 60 × 5.15 / 19.7 = 15.69
        self.assertEqual(
            (round(v.range.low, 2), v.range.best, round(v.range.high, 2), v.words),
            (14.33, 15, 15.69, "full bore"),
        )

    def test_radon_hours_are_bounded(self):
        def at(hours):
            seen = LaboratoryResult(
                value=2150, unit="pCi/L", basis="counting", hours_to_count=hours
            )
            return work_out(reading("radon", lab("radon"), seen))

        self.assertEqual(round(at(62).range.best), 3434)
        self.assertEqual([f.id for f in at(97).flags], ["radon.late"])
        with self.assertRaises(RuleError):
            at(721)

    def test_what_is_no_amount_is_not_diluted(self):
        from tests.making import number_kit

        for analyte in ("ph", "temperature"):
            with self.assertRaises(RuleError):
                work_out(reading(analyte, number_kit(analyte), OneDisplay(value=7, dilution=2)))


class Stages(unittest.TestCase):
    def test_soda_ash_adds_sodium_and_no_hardness(self):
        from zesty_glass.core.treating.stream import Quantity, Stream

        f = NeutraliserFigures(style="feed", volume_ft3=1.0)
        r = Range.exact
        rise = acid.rise(f, r(6.2), r(30), r(12), r(25), r(90))
        stream = Stream(
            quantities={
                n: Quantity(range=r(v), state="measured")
                for n, v in (("hardness", 34.0), ("sodium", 10.0), ("alkalinity", 30.0))
            }
        )
        out = acid._raised(stream, rise, True)
        self.assertNotIn("hardness", out)
        self.assertAlmostEqual(out["sodium"].range.best, 10 + rise.added.best * 22.99 / 50.044, 6)
        self.assertIn("hardness", acid._raised(stream, rise, False))

    def test_permeate_pump_times_the_ratio_here(self):
        plain = MembraneFigures(
            rated_gpd=75,
            rated_ratio=3,
            rejection=0.94,
            tank_gal=3,
            precharge_psi=7,
            shutoff_share=0.66,
        )
        pump = replace(plain, permeate_pump=0.4)
        here = ro.at_home(plain, 52, 380, 12)
        self.assertEqual(here, ro.at_home(pump, 52, 380, 12))
        self.assertAlmostEqual(ro.waste_ratio(pump, here, 2), 0.4 * ro.waste_ratio(plain, here, 2))
        # 41.5 gal a day with no back pressure: 3 gal take 104 min, and no pump makes it sooner
        freely = 3 / ro.permeate_gpd(plain, 52, 380, 12) * 1440
        self.assertAlmostEqual(freely, 104.1, 1)
        self.assertAlmostEqual(ro.fill_minutes(pump, 52, 380, 12), freely)
        little = replace(plain, permeate_pump=0.9)
        slow = ro.fill_minutes(plain, 52, 380, 12)
        self.assertAlmostEqual(ro.fill_minutes(little, 52, 380, 12), 0.9 * slow)
        with self.assertRaises(RuleError):
            replace(plain, permeate_pump=1.5)

    def test_a_tank_as_full_as_its_shut_off_never_fills(self):
        f = MembraneFigures(
            rated_gpd=75,
            rated_ratio=3,
            rejection=0.94,
            tank_gal=3,
            precharge_psi=34.4,
            shutoff_share=0.66,
        )
        self.assertEqual(ro.at_home(f, 52, 380, 12).gpd, 0)
        self.assertIsNone(ro.fill_minutes(f, 52, 380, 12))

    def test_no_net_pressure_drains_for_nothing(self):
        f = MembraneFigures(rated_gpd=75, rated_ratio=3, rejection=0.94)
        here = ro.at_home(f, 12, 2000, 12)
        self.assertEqual(here.gpd, 0)
        # 75 × 3 × √(12/60) = 100.6 gal a day
        self.assertAlmostEqual(ro.for_nothing(f, here), 100.62, 1)

    def test_tannin_astride_what_binds_iron(self):
        for seen, binds in (
            (Range.of(0.3, 0.4, 0.6), Verdict.UNCERTAIN),
            (Range.of(0.0, 0.1, 0.49), Verdict.NOT_MET),
            (Range.of(0.5, 0.6, 0.7), Verdict.MET),
            (None, Verdict.UNKNOWN),
        ):
            known = {} if seen is None else {"tannin": seen}
            stream = source_stream(water(iron=1.0, **known), None, None)
            self.assertIs(tannin_binds_iron(stream), binds)


class Prices(unittest.TestCase):
    def test_an_unknown_price_of_water_is_not_priced_and_not_nothing(self):
        town = home(source=Source.CITY, water_price=None, sewer_price=None)
        self.assertIsNone(town.drain_price)
        self.assertEqual(home(source=Source.WELL_DRILLED).drain_price, 0)
        visit = next(v for v in demo_visits(AT) if v.id == uid("home-1-visit"))
        bare = replace(visit, home=replace(visit.home, water_price=None))
        for o in assess(bare).options:
            if o.line is not None and o.line.drains:
                self.assertFalse(waste(o.line).priced)

    def test_what_people_live_there_is_asked_for(self):
        h = home(source=Source.WELL_DRILLED, care=Care(consent=True, infant=True))
        self.assertIn("manganese", [u.analyte for u in found(water(**TOWN), h=h).missing])

    def test_the_valves_setting_uses_the_firms_factor(self):
        w = water(**{**TOWN, "hardness": 171.18, "iron": 1.0})
        five = meaning(w, home(), (), RULES, iron_factor=Settings(iron_factor=5).iron_factor)
        self.assertIn(("A softener valve’s hardness setting", "15 gpg"), five.sets)


class TonightCard(unittest.TestCase):
    def test_no_health_finding_goes_without_what_to_do_tonight(self):
        for analyte in sorted({x.analyte for x in LIMITS if x.about in ("health", "infants")}):
            if ANALYTES[analyte].kind is not Kind.HEALTH:
                continue
            v = Value(
                analyte=analyte,
                unit="",
                range=Range.exact(1e5),
                laboratory=True,
                certified=True,
            )
            base = water(**TOWN)
            m = found(replace(base, values={**base.values, analyte: v}))
            with self.subTest(analyte):
                self.assertTrue(m.tonight)

    def test_what_is_boiled_and_what_never(self):
        w = with_lab(water(**TOWN), "coliform", qualifier="present")
        both = with_lab(w, "nitrate_n", value=14, unit="mg/L", basis="N")
        self.assertEqual(
            [t.split(". ")[0] for t in found(both).tonight][:2],
            [
                "Microbes were found",
                "Use bottled water because of nitrate, metals or fluoride",
            ],
        )
