"""Equipment in place: judged by its age, its use, its setting and what was measured behind it;
kept, serviced or set right in a line. Figures are worked by hand from the trade's rules.
"""

import unittest
from dataclasses import replace
from datetime import date, timedelta
from decimal import Decimal

from hypothesis import given
from hypothesis import strategies as st

from tests.making import (
    NOON,
    from_lab,
    hardness,
    home,
    sample,
    settings,
    shown,
    softener,
    tds,
    water,
)
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.costing.falling import months_due
from zesty_glass.core.costing.money import lifetime_total
from zesty_glass.core.errors import RuleError
from zesty_glass.core.evidence import Level
from zesty_glass.core.in_place import KINDS, InPlace
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.water import design_water, water_of
from zesty_glass.core.treating.existing_equipment import (
    KeptInPlace,
    code_of,
    days_that_fit,
    kept_items,
    water_behind_kept,
)
from zesty_glass.core.treating.in_place import Judged, cost_year, judge_all, said_first
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice
from zesty_glass.core.worked import today_of

GPG = 17.1181
DAY = NOON.date()
FRIDGE = InPlace(
    id="f",
    kind="fridge",
    changed_on=DAY - timedelta(days=274),  # 9.0 months
    months=6,
    gallons=300,
    part_price=Decimal(44),
)
SOFT = InPlace(id="s", kind="softener", resin_ft3=1.5, dose_lb_ft3=8.0)


def behind(device: str, *readings, **more):
    about = {"id": "b", "name": "Behind", "raw": False, "treated": True, "device": device}
    return sample(*[replace(r, id=f"b-{r.id}") for r in readings], **{**about, **more})


def judged(device: InPlace, raw, *glasses, **about) -> Judged:
    place = home(in_place=(device,), **about)
    samples = (raw, *glasses)
    waters = {s.id: water_of(s) for s in samples}
    return judge_all(place, settings(), samples, waters, design_water(samples), DAY, Rules())[0]


HARD = sample(hardness(14), tds(410, 412, 411))


class Ages(unittest.TestCase):
    def test_nine_of_six_months_is_three_over(self):
        j = judged(FRIDGE, HARD, behind("f", tds(409, 412)))
        self.assertEqual(
            j.facts[0], "Its cartridge has been in for 9 months. It is rated for 6 months."
        )
        self.assertEqual(j.verdict, "service")

    def test_gallons_are_counted_from_the_last_change(self):
        # 4 people x 0.7 gal x 365.25 days / 12 x 9.0 months = 767 of 300 gal: 2.6 times
        j = judged(FRIDGE, HARD)
        self.assertEqual(j.facts[1], "Its 300 gal are used up, about 2.6 times over.")
        self.assertEqual(j.left_gal, 0.0)

    def test_what_is_left_in_a_cartridge(self):
        # 61 days of 2 gal/day: 122 of 300 gal, 178 left
        fresh = replace(FRIDGE, changed_on=DAY - timedelta(days=61), gal_day=2.0)
        j = judged(fresh, HARD)
        self.assertAlmostEqual(j.left_gal, 300 - 2 * 365.25 / 12 * 61 / 30.4375, 6)
        self.assertIn("About 178 gal left of 300 gal.", j.facts)

    def test_nobody_knows_when_it_was_changed(self):
        j = judged(replace(FRIDGE, changed_on=None), HARD)
        self.assertEqual(j.verdict, "service")
        self.assertIn("is not known: it counts as due", j.facts[0])

    def test_a_change_before_the_fitting_is_refused(self):
        with self.assertRaises(RuleError) as e:
            replace(FRIDGE, fitted_on=DAY)
        self.assertEqual(e.exception.code, "in_place.dates")

    def test_a_number_that_cannot_be_is_refused_by_its_name(self):
        with self.assertRaises(RuleError) as e:
            replace(SOFT, resin_ft3=500)
        self.assertEqual(e.exception.code, "in_place.resin_ft3")

    def test_two_of_one_id_are_refused(self):
        with self.assertRaises(RuleError):
            home(in_place=(SOFT, SOFT))


class Filters(unittest.TestCase):
    new = replace(FRIDGE, changed_on=DAY - timedelta(days=10))

    def test_one_that_changes_something_is_kept(self):
        raw = sample(tds(410, 411, 412), shown("chlorine_total", 1.6, 0.1))
        j = judged(self.new, raw, behind("f", shown("chlorine_total", 0.1, 0.05)))
        self.assertEqual(j.verdict, "keep")
        self.assertEqual([p.analyte for p in j.pairs], ["chlorine_total"])

    def test_one_within_its_life_that_changes_nothing_can_go(self):
        j = judged(self.new, HARD, behind("f", tds(409, 412)))
        self.assertEqual(j.verdict, "replace")

    def test_without_a_glass_it_is_not_judged(self):
        self.assertEqual(judged(self.new, HARD).verdict, "not_judged")

    def test_a_glass_that_was_not_flushed_does_not_count(self):
        j = judged(self.new, HARD, behind("f", tds(20, 20), just_changed=True))
        self.assertEqual((j.verdict, j.sample), ("not_judged", None))
        self.assertTrue(any("before it was flushed" in f for f in j.facts))

    def test_the_reading_at_which_its_maker_wants_it_changed(self):
        jug = InPlace(id="f", kind="jug", fitted_on=DAY, months=2, change_at_tds=6)
        self.assertEqual(judged(jug, HARD, behind("f", tds(9, 9))).verdict, "service")

    def test_a_membrane_that_holds_back_too_little(self):
        m = InPlace(id="f", kind="membrane", fitted_on=DAY)
        self.assertEqual(judged(m, HARD, behind("f", tds(140, 141))).verdict, "service")
        self.assertEqual(judged(m, HARD, behind("f", tds(30, 31))).verdict, "keep")

    def test_a_lamp_is_never_judged_by_a_glass(self):
        lamp = InPlace(id="f", kind="uv", changed_on=DAY - timedelta(days=200))
        self.assertEqual(judged(lamp, HARD, behind("f", tds(410, 411))).verdict, "not_judged")
        old = replace(lamp, changed_on=DAY - timedelta(days=400))
        self.assertEqual(judged(old, HARD).verdict, "service")

    def test_acid_behind_a_neutraliser(self):
        raw, bed = sample(shown("ph", 6.2)), InPlace(id="f", kind="neutraliser")
        self.assertEqual(judged(bed, raw, behind("f", shown("ph", 6.6))).verdict, "service")
        self.assertEqual(judged(bed, raw, behind("f", shown("ph", 7.3))).verdict, "keep")

    def test_iron_behind_an_iron_filter(self):
        raw, tank = sample(shown("iron", 2.0)), InPlace(id="f", kind="iron_filter")
        self.assertEqual(judged(tank, raw, behind("f", shown("iron", 0.9))).verdict, "service")
        self.assertEqual(judged(tank, raw, behind("f", shown("iron", 0.05))).verdict, "keep")


class HealthBehind(unittest.TestCase):
    """What is of health is known behind equipment by a certified laboratory alone."""

    tap = InPlace(id="f", kind="membrane", fitted_on=DAY)
    raw = sample(tds(410, 411, 412), from_lab("nitrate_n", 14.0, basis="N"))
    lamp = InPlace(id="f", kind="uv", changed_on=DAY - timedelta(days=100))
    wild = sample(tds(410, 411), from_lab("coliform", qualifier="present"))

    def test_a_tds_reading_says_nothing_of_nitrate(self):
        j = judged(self.tap, self.raw, behind("f", tds(30, 31)))
        self.assertEqual(j.verdict, "not_judged")
        self.assertIn("What it does to nitrate", j.advice)
        self.assertIn("Until then, do not count on it", j.advice)

    def test_over_the_limit_behind_it(self):
        glass = behind("f", tds(30, 31), from_lab("nitrate_n", 11.5, basis="N"))
        j = judged(self.tap, self.raw, glass)
        self.assertEqual(j.verdict, "service")
        self.assertIn("11.5 mg/L behind it: do not drink it", j.advice)

    def test_within_the_limit_behind_it(self):
        glass = behind("f", tds(30, 31), from_lab("nitrate_n", 1.5, basis="N"))
        self.assertEqual(judged(self.tap, self.raw, glass).verdict, "keep")

    def test_bacteria_behind_a_lamp(self):
        j = judged(self.lamp, self.wild, behind("f", from_lab("coliform", qualifier="present")))
        self.assertEqual(j.verdict, "service")
        self.assertIn("do not drink it", j.advice)

    def test_a_lamp_within_its_year_with_none_behind_it(self):
        j = judged(self.lamp, self.wild, behind("f", from_lab("coliform", qualifier="absent")))
        self.assertEqual(j.verdict, "keep")

    def test_an_old_lamp_is_changed_whatever_a_laboratory_found(self):
        old = replace(self.lamp, changed_on=DAY - timedelta(days=400))
        glass = behind("f", from_lab("coliform", qualifier="absent"))
        self.assertEqual(judged(old, self.wild, glass).verdict, "service")


class Astride(unittest.TestCase):
    """A range that holds its limit asks for a finer test, not for a verdict."""

    bed = InPlace(id="f", kind="neutraliser")
    tank = InPlace(id="f", kind="iron_filter")

    def test_ph_astride_seven(self):
        glass = behind("f", shown("ph", 7.1, 0.2))
        j = judged(self.bed, sample(shown("ph", 6.2)), glass)
        self.assertEqual(j.verdict, "not_judged")
        self.assertIn("too close to 7", j.advice)

    def test_too_much_of_a_medium(self):
        j = judged(self.bed, sample(shown("ph", 6.2)), behind("f", shown("ph", 9.4, 0.1)))
        self.assertEqual(j.verdict, "set_right")
        self.assertIn("more than 8.5", j.advice)

    def test_iron_astride_its_stain(self):
        j = judged(self.tank, sample(shown("iron", 2.0)), behind("f", shown("iron", 0.28, 0.05)))
        self.assertEqual(j.verdict, "not_judged")
        self.assertIn("too close to 0.3", j.advice)

    def test_manganese_that_comes_through(self):
        raw = sample(shown("iron", 2.0), shown("manganese", 0.3))
        glass = behind("f", shown("iron", 0.02), shown("manganese", 0.25, 0.02))
        j = judged(self.tank, raw, glass)
        self.assertEqual(j.verdict, "service")
        self.assertIn("Manganese 0.25", j.advice)


class Softeners(unittest.TestCase):
    """14 gpg x 240 gal = 3,360 grains a day; 1.5 ft³ at 8 lb holds 36,000: 10.7 days."""

    def test_days_that_it_holds(self):
        held, fit = days_that_fit(SOFT, water(hardness=14 * GPG), home(), settings())
        self.assertAlmostEqual(held, 36000 / 3360, 3)
        self.assertEqual(fit, 10)

    def test_iron_shortens_to_four_days(self):
        drawn = water(hardness=14 * GPG, iron=0.6)
        held, fit = days_that_fit(SOFT, drawn, home(), settings())
        self.assertAlmostEqual(held, 36000 / 3936, 3)  # 16.4 gpg
        self.assertEqual(fit, 4)

    def test_soft_behind_it_and_well_set(self):
        right = replace(SOFT, setting_gpg=14)
        self.assertEqual(judged(right, HARD, behind("s", hardness(0))).verdict, "keep")

    def test_hard_behind_it_though_well_set_wants_service_before_a_new_one(self):
        j = judged(replace(SOFT, setting_gpg=14), HARD, behind("s", hardness(9)))
        self.assertEqual(j.verdict, "service")
        self.assertIn("Only then think of a new one", j.advice)

    def test_set_too_low(self):
        j = judged(replace(SOFT, setting_gpg=8), HARD, behind("s", hardness(5)))
        self.assertEqual(j.verdict, "set_right")
        self.assertIn("hardness 14 gpg", j.advice)

    def test_set_too_high_wastes_salt(self):
        j = judged(replace(SOFT, setting_gpg=20), HARD, behind("s", hardness(0)))
        self.assertEqual(j.verdict, "set_right")
        self.assertIn("about 43% more often", j.advice)  # 20/14

    def test_a_clock_that_waits_too_long(self):
        j = judged(replace(SOFT, clock_days=14), HARD, behind("s", hardness(5)))
        self.assertEqual(j.verdict, "set_right")
        self.assertIn("every 10 days", j.advice)
        # 1 - 36,000 / (3,360 x 14) = 23 %
        self.assertTrue(any("hard water comes for 23%" in f for f in j.facts), j.facts)

    def test_too_small_however_it_is_set(self):
        j = judged(replace(SOFT, resin_ft3=0.5), HARD, people=6, bill_gal_day=900.0)
        self.assertEqual(j.verdict, "replace")

    def test_one_drop_is_astride(self):
        self.assertEqual(judged(SOFT, HARD, behind("s", hardness(2))).verdict, "service")
        self.assertEqual(judged(SOFT, HARD, behind("s", hardness(1))).verdict, "keep")
        self.assertEqual(judged(SOFT, HARD).verdict, "not_judged")

    def test_too_much_iron_for_its_resin_is_said(self):
        raw = sample(hardness(14), shown("iron", 3.4))
        self.assertTrue(any("more than its resin takes" in f for f in judged(SOFT, raw).facts))


class Costs(unittest.TestCase):
    def test_rent_and_parts_in_a_year(self):
        rented = InPlace(id="d", kind="dispenser", rent_month=Decimal("39"))
        self.assertEqual(cost_year(rented, 1000), Decimal(468))
        # 44 every 6 months, or every 300 gal at 1,000 gal a year: 3.33 times
        self.assertAlmostEqual(float(cost_year(FRIDGE, 1000)), 44 * 1000 / 300, 2)
        self.assertIsNone(cost_year(InPlace(id="d", kind="fridge"), 1000))

    def test_an_overdue_part_falls_due_at_once_and_then_by_its_interval(self):
        self.assertEqual(months_due(6.0, 1, used=9.0), [0.0, 6.0])
        self.assertEqual(months_due(6.0, 1, used=4.0), [2.0, 8.0])

    @given(st.floats(0.5, 60), st.floats(0, 200))
    def test_a_used_part_never_falls_due_later_than_a_fresh_one(self, interval, used):
        fresh, worn = months_due(interval, 5), months_due(interval, 5, used)
        self.assertGreaterEqual(len(worn), len(fresh))
        for a, b in zip(worn, fresh, strict=False):
            self.assertLessEqual(a, b + 1e-9)


class Lines(unittest.TestCase):
    def line(self, option: Option, raw, *glasses, device=FRIDGE, catalogue=(), **about):
        place = home(in_place=(device,), **about)
        samples = (raw, *glasses)
        waters = {s.id: water_of(s) for s in samples}
        drawn = design_water(samples)
        items = {i.code: i for i in catalogue}
        items |= kept_items(place, samples, waters, drawn, settings(), DAY)
        return walk(option, items, drawn, None, place, settings())

    def test_today_is_what_was_measured_behind_it(self):
        raw = sample(tds(410, 411, 412), shown("chlorine_total", 1.6, 0.1))
        option = today_of(home(in_place=(FRIDGE,)))
        line = self.line(option, raw, behind("f", shown("chlorine_total", 0.2, 0.05)))
        q = line.tap.get("chlorine_total")
        self.assertEqual((q.range.best, q.evidence), (0.2, Level.MEASURED_HERE))
        self.assertEqual(line.house.get("chlorine_total").range.best, 1.6)

    def test_what_was_not_measured_has_no_claim_and_is_carried_through(self):
        raw = sample(tds(410, 411, 412), shown("chlorine_total", 1.6, 0.1))
        line = self.line(today_of(home(in_place=(FRIDGE,))), raw)
        q = line.tap.get("chlorine_total")
        self.assertEqual((q.range.best, q.evidence), (1.6, Level.NO_CLAIM))
        self.assertEqual(line.stages[0].status, "unknown")

    def test_no_difference_shown_leaves_the_raw_value(self):
        line = self.line(today_of(home(in_place=(FRIDGE,))), HARD, behind("f", tds(408, 409)))
        self.assertEqual(line.tap.get("tds").range, line.source.get("tds").range)

    def test_today_buys_nothing_and_pays_for_what_falls_due(self):
        # 6 months or 300 gal at 1,022.7 gal a year (3.52 months), 9 months old: at once, then
        # every 3.52 months: months 0, 3.52, 7.04, 10.56
        line = self.line(today_of(home(in_place=(FRIDGE,))), HARD)
        self.assertEqual(sum(p.price + p.installation for p in line.purchases), 0)
        zero = Decimal(0)
        total = lifetime_total(line.purchases, line.stages[0].dues, (), 1, zero, zero)
        self.assertEqual(total, 4 * Decimal(44))

    def test_a_service_is_paid_once_and_starts_afresh(self):
        option = Option(id="o", name="", keeps=(KeptInPlace(device="f", how="service"),))
        line = self.line(option, HARD)
        self.assertEqual(sum(p.price + p.installation for p in line.purchases), 44)
        self.assertEqual(line.stages[0].dues[0].used_months, 0.0)

    def test_set_right_a_softener_softens_again(self):
        late = replace(SOFT, clock_days=14)
        option = Option(id="o", name="", keeps=(KeptInPlace(device="s", how="set_right"),))
        line = self.line(option, HARD, behind("s", hardness(5)), device=late)
        self.assertLess(line.house.get("hardness").range.best, GPG)
        kept = replace(option, keeps=(KeptInPlace(device="s"),))
        line = self.line(kept, HARD, behind("s", hardness(5)), device=late)
        self.assertAlmostEqual(line.house.get("hardness").range.best, 5 * GPG, 2)

    def test_a_kept_softener_and_a_new_one_are_two_of_a_kind(self):
        option = Option(
            id="o",
            name="",
            keeps=(KeptInPlace(device="s"),),
            stages=(StageChoice(item="soft-1.5"),),
        )
        with self.assertRaises(RuleError) as e:
            self.line(option, HARD, device=SOFT, catalogue=(softener(),))
        self.assertEqual(e.exception.code, "line.two_of_a_kind")

    def test_a_kept_neutraliser_stands_ahead_of_an_iron_filter_that_wants_its_ph(self):
        air = next(i for i in example_items() if i.kind == "iron_filter")
        self.assertGreater(air.figures.wants_ph, 6.0)
        there = InPlace(id="n", kind="neutraliser", fitted_on=date(2020, 5, 1))
        raw = sample(shown("ph", 6.0, 0.1), shown("iron", 1.0, 0.05))
        option = Option(
            id="o",
            name="",
            keeps=(KeptInPlace(device="n"),),
            stages=(StageChoice(item=air.code),),
        )
        about = {"device": there, "catalogue": (air,)}
        line = self.line(option, raw, behind("n", shown("ph", 7.4, 0.1)), **about)
        self.assertEqual([s.kind for s in line.stages], ["in_place", "iron_filter"])
        calm = sample(shown("ph", 7.8, 0.1), shown("iron", 1.0, 0.05))
        line = self.line(option, calm, behind("n", shown("ph", 8.0, 0.1)), **about)
        self.assertEqual([s.kind for s in line.stages], ["iron_filter", "in_place"])

    def test_what_is_gone_from_the_home_is_said_and_stops_nothing(self):
        option = Option(id="o", name="", keeps=(KeptInPlace(device="gone"),))
        line = self.line(option, HARD)
        self.assertEqual([c.id for c in line.checks][:1], ["line.kept_gone"])

    def test_codes_tell_the_ways_apart(self):
        self.assertEqual(code_of("a:b", "set_right"), "in-place:a:b:set_right")


class Proposed(unittest.TestCase):
    def test_what_is_bought_meets_the_water_behind_what_is_kept(self):
        glass = behind("s", hardness(0), shown("iron", 0.0, 0.02))
        raw = sample(hardness(14), shown("iron", 0.4, 0.05), tds(410, 411, 412))
        waters = {s.id: water_of(s) for s in (raw, glass)}
        drawn = water_behind_kept(waters["raw"], (SOFT,), (raw, glass), waters)
        self.assertLess(drawn.range("hardness").best, GPG)
        self.assertEqual(drawn.range("tds"), waters["raw"].range("tds"))

    def test_what_is_to_do_is_said_first(self):
        j = judged(FRIDGE, HARD)
        self.assertEqual(said_first((j,)), (f"{j.name}: {j.advice}",))
        kept = judged(replace(SOFT, setting_gpg=14), HARD, behind("s", hardness(0)))
        self.assertEqual(said_first((kept,)), ())

    def test_the_glass_that_would_judge_it_comes_before_buying(self):
        unseen = judged(SOFT, HARD)
        self.assertEqual(
            said_first((unseen,)), ("Softener: Draw a glass behind it and test the hardness.",)
        )
        nothing_to_see = judged(InPlace(id="o", kind="other"), HARD)
        self.assertEqual(said_first((nothing_to_see,)), ())

    def test_every_kind_can_be_judged_and_walked(self):
        for kind in KINDS:
            device = InPlace(id="f", kind=kind, changed_on=date(2020, 1, 1), months=12)
            j = judged(device, HARD, behind("f", tds(300, 301)))
            self.assertTrue(j.advice, kind)
            Lines().line(today_of(home(in_place=(device,))), HARD, device=device)


if __name__ == "__main__":
    unittest.main()
