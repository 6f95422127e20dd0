"""An acid neutralizer worked by hand: magnesia, rule of thumb, media by the year, backwash."""

import unittest
from decimal import Decimal

from tests.core.treating.test_stages import line
from tests.making import home, water
from zesty_glass.core.costing.falling import interval_months
from zesty_glass.core.ranges import Range
from zesty_glass.core.treating.items import Item
from zesty_glass.core.treating.stages import neutraliser as acid
from zesty_glass.core.treating.stages.calcite import NeutraliserFigures, medium_per_added

GPG = 17.118061


def bed(**figures):
    base = {"style": "upflow", "volume_ft3": 1.5}
    return NeutraliserFigures(**{**base, **figures})


def item(**figures):
    return Item(
        code="n",
        name="A bed",
        maker="A maker",
        scope="house",
        price=Decimal(900),
        figures=bed(**figures),
    )


def stage(w=None, h=None, **figures):
    values = w or {"ph": 6.2, "alkalinity": 30, "temperature": 12, "calcium": 25, "tds": 90}
    return line(item(**figures), w=water(**values), h=h).stages[0]


def rise(ph, alkalinity=30.0, f=None, calcium=25.0, tds=90.0):
    def exact(v):
        return None if v is None else v if isinstance(v, Range) else Range.exact(v)

    return acid.rise(
        f or bed(), exact(ph), exact(alkalinity), Range.exact(12.0), exact(calcium), exact(tds)
    )


class Chemistry(unittest.TestCase):
    def test_magnesia_takes_twice_the_acid(self):
        # pH 6.2, alkalinity 30, 12 °C: A0 = 5.995e-4, C0 = A0·10^(6.445 − 6.2) = 1.0536e-3,
        # q = 10^(7.4 − 6.445) = 9.018. Calcite: (q·C0 − A0)/(2 + q) = 8.902e-3/11.018 = 8.080e-4
        # mol/L, 80.9 mg/L. Magnesia: 8.902e-3/(2 + 18.036) = 4.443e-4, 44.5. Half and half 62.7
        calcite = acid.to_target(6.2, 30, 12)
        self.assertAlmostEqual(calcite, 80.9, 0)
        half = acid.to_target(6.2, 30, 12, magnesia_share=0.5)
        self.assertAlmostEqual(half, 62.7, 0)

    def test_a_lower_target_takes_less(self):
        # q = 10^(7.0 − 6.445) = 3.589: (3.589 × 1.0536e-3 − 5.995e-4)/5.589 = 5.693e-4: 57 mg/L
        self.assertAlmostEqual(acid.to_target(6.2, 30, 12, 7.0), 57.0, 0)

    def test_saturation_is_for_calcite_alone(self):
        # at pH 6.0, alkalinity 100, calcium 60, TDS 180 saturation governs for calcite; with
        # magnesia, or without calcium or TDS, the target does, and is an upper bound where unknown
        self.assertEqual(rise(6.0, 100.0, calcium=60.0, tds=180.0).governs, "saturation")
        mixed = rise(6.0, 100.0, bed(magnesia_share=0.3), calcium=60.0, tds=180.0)
        self.assertEqual((mixed.governs, mixed.upper_bound), ("target", False))
        for calcium, tds in ((None, 180.0), (60.0, None)):
            got = rise(6.0, 100.0, calcium=calcium, tds=tds)
            self.assertEqual((got.governs, got.upper_bound), ("target", True))

    def test_at_the_target_nothing_dissolves(self):
        self.assertEqual(rise(7.6).added.best, 0.0)
        self.assertAlmostEqual(rise(7.6).ph.best, 7.6)

    def test_the_corners_are_the_ends(self):
        got = rise(Range.of(6.1, 6.2, 6.3), Range.of(28.0, 30.0, 32.0))
        most = acid.to_target(6.1, 32, 12)
        least = acid.to_target(6.3, 28, 12)
        self.assertAlmostEqual(got.added.high, most, 0)
        self.assertAlmostEqual(got.added.low, least, 0)

    def test_rule_of_thumb(self):
        # 4 gpg from pH 6.5 on, 6 from 6.0 on, 8 below, two either way
        for ph, gpg in ((6.6, 4), (6.5, 4), (6.4, 6), (6.0, 6), (5.9, 8)):
            got = rise(ph, None)
            self.assertEqual(got.governs, "rule of thumb")
            self.assertAlmostEqual(got.added.best / GPG, gpg)
            self.assertAlmostEqual(got.added.low / GPG, gpg - 2)
            self.assertAlmostEqual(got.added.high / GPG, gpg + 2)
        # little alkalinity: the equation is not to be trusted; acid alone is no reason
        self.assertEqual(rise(6.2, 9.9).governs, "rule of thumb")
        self.assertNotEqual(rise(6.2, 10.0).governs, "rule of thumb")
        self.assertNotEqual(rise(5.49, 30.0).governs, "rule of thumb")
        self.assertNotEqual(rise(5.5, 30.0).governs, "rule of thumb")
        self.assertEqual(rise(7.5, None).added.best, 0.0)


class VeryAcid(unittest.TestCase):
    def test_the_equation_holds_below_five_and_a_half(self):
        # pH 5.49, alkalinity 30, calcium 25, TDS 90, 12 °C: saturation at 309 mg/L, 18 gpg; a full
        # geochemical model (PHREEQC) says 18.7, the rule of thumb 8
        got = rise(5.49, 30.0)
        self.assertEqual(got.governs, "saturation")
        self.assertAlmostEqual(got.added.best / GPG, 18.06, 1)

    def test_soda_ash_is_not_held_by_calcite(self):
        # (q C0 − A0)/(2 + q) with C0 = 5.995e-4 × 10^0.955 = 5.405e-3: 4.37e-3 mol/L, 437 mg/L
        got = rise(5.49, 30.0, bed(style="feed"))
        self.assertEqual((got.governs, got.upper_bound), ("target", False))
        self.assertAlmostEqual(got.added.best, 437.7, 0)

    def test_soda_ash_adds_no_hardness_and_weighs_its_own(self):
        # 105.988 / 100.087 mg of soda ash for each mg/L as CaCO3
        r = stage(style="feed", h=home(socket=True))
        self.assertEqual(r.outlet.best("calcium"), 25)
        self.assertEqual([c.label for c in r.chores], ["Mix soda ash"])
        self.assertEqual([d.label for d in r.dues], ["Soda ash, mixed into its tank"])
        self.assertAlmostEqual(medium_per_added(bed(style="feed"), 12.0), 1.059, 3)

    def test_magnesia_weighs_less_than_what_it_adds(self):
        # alone it gives 100.087 / 40.304 = 2.48 mg a mg; half and half at q = 9.018: of x = 1 and
        # y = 11.018/20.036 = 0.550 it is (0.5 + 0.275 × 0.4027)/(0.5 + 0.275) = 0.788
        self.assertAlmostEqual(medium_per_added(bed(magnesia_share=0.5), 12.0), 0.788, 3)

    def test_from_five_to_six_a_bed_comes_first(self):
        feed = next(c for c in stage(style="feed").checks if c.id == "neutraliser.range")
        self.assertEqual(feed.status, "warn")
        self.assertIn("bed of calcite", feed.sentence)
        acid_water = {"ph": 4.8, "alkalinity": 15, "temperature": 12}
        below = stage(acid_water, style="feed")
        self.assertEqual(next(c for c in below.checks if c.id == "neutraliser.range").status, "met")

    def test_it_never_lowers_the_ph(self):
        for ph in (5.2, 6.4, 7.1, 7.35, 7.9):
            for alkalinity in (None, 5.0, 80.0):
                for f in (bed(), bed(style="feed"), bed(magnesia_share=0.4)):
                    got = rise(Range.of(ph - 0.2, ph, ph + 0.2), alkalinity, f)
                    self.assertGreaterEqual(got.ph.best, ph)
                    self.assertGreaterEqual(got.ph.low, ph - 0.2)

    def test_an_alkalinity_without_an_upper_end_adds_no_known_most(self):
        self.assertIsNone(rise(6.2, Range.of(120.0, 120.0, None)).added.high)


class Media(unittest.TestCase):
    def test_pounds_a_year(self):
        # 80.9 mg/L × 240 gal × 365.25 days × 3.785 L = 26.85 kg = 59.2 lb
        r = stage()
        media = next(f for f in r.figures if f.id == "media")
        self.assertAlmostEqual(media.number, 59.2, 0)

    def test_topped_up_when_a_third_is_gone(self):
        # 1.5 ft³ × 90 lb = 135 lb, a third is 45 lb: 45 / 59.2 years = 9.1 months;
        # 45 lb is nine tenths of a 50-lb bag at 38: 34.20
        due = stage().dues[0]
        self.assertAlmostEqual(interval_months(due), 9.1, 1)
        self.assertAlmostEqual(float(due.price), 34.2, 1)
        sooner = stage(refill_months=6.0)
        self.assertEqual(interval_months(sooner.dues[0]), 6.0)
        later = stage(refill_months=24.0)
        self.assertAlmostEqual(interval_months(later.dues[0]), 9.1, 1)
        chore = stage(refill_months=6.0).chores[0]
        self.assertAlmostEqual(chore.times_year, 2.0)
        self.assertEqual((chore.minutes, chore.own), (45, False))

    def test_water_that_dissolves_nothing(self):
        values = {"ph": 7.6, "alkalinity": 100, "temperature": 12, "calcium": 60, "tds": 180}
        self.assertEqual(stage(values).dues[0].months, 120.0)


class Backwash(unittest.TestCase):
    FIGURES = {"style": "backwashing", "backwash_gpm": 8.0, "backwash_min": 14.0}

    def test_an_upflow_bed_has_none(self):
        self.assertEqual(stage().drains, ())

    def test_gallons_a_cycle_and_a_year(self):
        # 8 gpm × 14 min = 112 gal a week: 52.18 weeks = 5,844
        d = stage(**self.FIGURES).drains[0]
        self.assertEqual(d.largest_gal, 112)
        self.assertAlmostEqual(d.gal_year, 112 * 365.25 / 7, 3)

    def test_twice_as_often_with_iron(self):
        base = {"ph": 6.2, "alkalinity": 30, "temperature": 12, "calcium": 25, "tds": 90}
        for iron, days in ((0.3, 3.5), (0.29, 7.0)):
            d = stage({**base, "iron": iron}, **self.FIGURES).drains[0]
            self.assertAlmostEqual(d.times_year, 365.25 / days, 3)

    def test_a_season(self):
        # its clock runs all year: 52.18 times; switched off and logged, on 70 days alone
        r = stage(h=home(occupied_days=70), **self.FIGURES)
        self.assertAlmostEqual(r.drains[0].times_year, 365.25 / 7)
        self.assertIn("clock.empty_house", [c.id for c in r.checks])
        values = {"ph": 6.2, "alkalinity": 30, "temperature": 12, "calcium": 25, "tds": 90}
        off = {"clock_off_logged": 1.0}
        season = home(occupied_days=70)
        r = line(item(**self.FIGURES), w=water(**values), h=season, overrides=off).stages[0]
        self.assertAlmostEqual(r.drains[0].times_year, 10)

    def test_a_flow_or_time_that_nobody_states(self):
        for left_out in ("backwash_gpm", "backwash_min"):
            r = stage(**{**self.FIGURES, left_out: None})
            self.assertEqual(r.drains, ())
            self.assertEqual(
                [c.status for c in r.checks if c.id == "well.backwash"], ["unknown"], left_out
            )


if __name__ == "__main__":
    unittest.main()


class ForWhichWater(unittest.TestCase):
    """Chapter 4: calcite from pH 6 to 7, up to half magnesia from 5 to 6, soda ash below 5."""

    def said(self, ph, **figures):
        checks = stage({"ph": ph, "alkalinity": 30, "temperature": 12}, **figures).checks
        return {c.id: (c.status, c.sentence) for c in checks}

    def test_magnesia_is_for_water_down_to_pH_5_and_no_milder_than_6(self):
        half = {"magnesia_share": 0.5}
        self.assertEqual(self.said(6.0, **half)["neutraliser.range"][0], "met")
        status, text = self.said(6.1, **half)["neutraliser.range"]
        self.assertEqual(status, "warn")
        self.assertIn("Plain calcite is enough", text)
        self.assertIn("neutraliser.overshoot", self.said(5.5, **half))

    def test_plain_calcite_is_never_told_to_be_plainer(self):
        self.assertEqual(self.said(6.95)["neutraliser.range"][0], "met")
        self.assertNotIn("neutraliser.overshoot", self.said(6.2))

    def test_below_its_range_it_stops_only_where_that_is_sure(self):
        self.assertEqual(self.said(5.8)["neutraliser.range"][0], "stop")
        self.assertEqual(self.said(Range.of(5.9, 6.1, 6.3))["neutraliser.range"][0], "warn")
        self.assertEqual(self.said(7.0)["neutraliser.range"][0], "warn")

    def test_a_wide_ph_asks_for_a_meter(self):
        self.assertIn("neutraliser.ph_meter", self.said(Range.of(6.0, 6.3, 6.7)))
        self.assertNotIn("neutraliser.ph_meter", self.said(Range.of(6.0, 6.3, 6.5)))

    def test_a_temperature_that_nobody_took_is_ground_water_s(self):
        # 12 °C, 10 to 15: what ground water has in a temperate valley
        known = {"ph": 6.2, "alkalinity": 30, "temperature": Range.of(10.0, 12.0, 15.0)}
        missing = {k: v for k, v in known.items() if k != "temperature"}
        a, b = (stage(w).figures[0] for w in (known, missing))
        self.assertEqual((a.number, a.worst), (b.number, b.worst))

    def test_water_without_calcium_comes_to_the_target(self):
        # a saturation index needs some calcium; none of it, and the target pH decides
        self.assertEqual(rise(6.2, calcium=0.0).governs, "target")
        self.assertEqual(rise(6.2, tds=0.0).governs, "target")

    def test_by_rule_of_thumb_water_at_the_target_gains_nothing(self):
        at, below = (rise(ph, alkalinity=None, f=bed(target_ph=7.0)) for ph in (7.0, 6.9))
        self.assertEqual((at.added, at.governs), (Range.exact(0.0), "target"))
        self.assertEqual(below.governs, "rule of thumb")

    def test_a_rule_of_thumb_says_so(self):
        def note(w):
            return next(f for f in stage(w).figures if f.id == "hardness_added").working.note

        known = {"ph": 6.2, "alkalinity": 30, "temperature": 12, "calcium": 25, "tds": 90}
        self.assertEqual(note(known), "")
        self.assertIn("rule of thumb", note({"ph": 6.2, "temperature": 12}))

    def test_ph_at_the_edge_of_its_range_is_within_it(self):
        self.assertEqual(self.said(Range.of(6.0, 6.2, 6.4))["neutraliser.range"][0], "met")

    def test_the_year_s_media_is_marked_in_its_working(self):
        found = next(f for f in stage().figures if f.id == "media")
        marked = [r.label for r in found.working.rows if r.total]
        self.assertEqual(marked, ["media a year"])
