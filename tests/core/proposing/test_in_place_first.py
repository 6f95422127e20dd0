"""What stands there already comes before anything that is bought."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime, timedelta

from tests.core.treating.test_in_place import DAY, SOFT, behind
from tests.making import NOON, from_lab, hardness, home, sample, shown, tds
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.assess import assess
from zesty_glass.core.home import Customer, Source
from zesty_glass.core.in_place import InPlace
from zesty_glass.core.proposing.priorities import TASTE_THERE
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.visit import Visit
from zesty_glass.demo.homes import home_1, home_3
from zesty_glass.work.catalogue import Question

ITEMS = {i.code: i for i in example_items()}
AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
POOL = Complaint(id="c", sign="bleach_smell", words="It smells of the pool")
RAW = sample(
    hardness(14),
    tds(410, 411, 412),
    shown("chlorine_free", 1.2, 0.05),
    shown("chlorine_total", 1.3, 0.05),
    shown("iron", 0.02),
    shown("ph", 7.6),
)


def visit(device, *glasses) -> Visit:
    place = home(source=Source.CITY, pump_gpm=None, in_place=(device,))
    return Visit(
        id="v",
        firm="A firm",
        consultant="A person",
        started_at=NOON,
        customer=Customer(name="Somebody"),
        home=place,
        complaints=(POOL,),
        samples=(RAW, *glasses),
    )


def asked(v: Visit):
    return Question(visit=v, items=ITEMS).suggest()


class TastedThere(unittest.TestCase):
    """A taste at a tap where what stands there takes out what is tasted."""

    TASTE = Complaint(id="c", sign="taste", words="It tastes of the pool")
    THERE = InPlace(id="m", kind="membrane", fitted_on=DAY - timedelta(days=60), months=36)

    def of(self, kind="membrane", behind_it=0.05, *more):
        device = replace(self.THERE, kind=kind)
        glass = behind(
            "m",
            tds(20, 21),
            shown("chlorine_free", behind_it, 0.02),
            shown("chlorine_total", behind_it, 0.02),
            shown("hardness", 5.0, 1.0),
        )
        return asked(replace(visit(device, glass), complaints=(self.TASTE, *more)))

    def test_it_is_kept_and_drunk_from(self):
        s = self.of()
        self.assertEqual((s.lines[0].option.name, s.lines[0].ahead), ("Do nothing", TASTE_THERE))
        self.assertTrue(any(t.startswith("The filter at the drinking tap") for t in s.first))
        self.assertEqual([k.how for k in s.lines[0].option.keeps], ["keep"])

    def test_chloramine_is_no_more_than_the_total_chlorine_behind_it(self):
        glass = behind("m", tds(20, 21), shown("chlorine_total", 0.05, 0.02))
        chloramine = sample(
            tds(410, 411), shown("chlorine_free", 0.1, 0.05), shown("chlorine_total", 2.0, 0.05)
        )
        v = replace(visit(self.THERE), samples=(chloramine, glass), complaints=(self.TASTE,))
        s = asked(v)
        self.assertEqual((s.wanted, s.lines[0].ahead), (("chlorine_combined",), TASTE_THERE))

    def test_health_keeps_its_order(self):
        v = visit(self.THERE, behind("m", tds(20, 21), shown("chlorine_free", 0.05, 0.02)))
        found = replace(RAW, readings=(*RAW.readings, from_lab("arsenic", 0.05, certified=True)))
        s = asked(replace(v, samples=(found, *v.samples[1:]), complaints=(self.TASTE,)))
        self.assertIn("arsenic", s.wanted)
        self.assertNotEqual(s.lines[0].ahead, TASTE_THERE)

    def test_not_where_it_lets_it_through_or_more_is_complained_of(self):
        crust = Complaint(id="w", sign="white_crust", words="White crust")
        for s in (self.of("membrane", 0.9), self.of("membrane", 0.05, crust), self.of("jug")):
            self.assertNotEqual(s.lines[0].ahead, TASTE_THERE)


class Kept(unittest.TestCase):
    good = visit(replace(SOFT, setting_gpg=14), behind("s", hardness(0)))

    def test_a_softener_that_softens_is_kept_and_none_is_proposed(self):
        s = asked(self.good)
        self.assertNotIn("hardness", s.wanted)
        first = s.lines[0]
        self.assertEqual([(k.device, k.how) for k in first.option.keeps], [("s", "keep")])
        self.assertNotIn("Softener", first.option.name)
        self.assertIn("Carbon", first.option.name)

    def test_without_a_glass_behind_it_it_counts_for_nothing_yet(self):
        s = asked(visit(replace(SOFT, setting_gpg=14)))
        self.assertIn("hardness", s.wanted)
        self.assertEqual(s.in_place[0].verdict, "not_judged")

    def test_what_is_set_wrong_is_set_right_before_anything_is_bought(self):
        s = asked(visit(replace(SOFT, clock_days=14), behind("s", hardness(5))))
        self.assertTrue(s.first[0].startswith("Softener: Set it to every 10 days"), s.first)
        ways = [x for x in s.lines if not x.option.stages and x.option.keeps]
        self.assertEqual([k.how for k in ways[0].option.keeps], ["set_right"])
        self.assertGreater(ways[0].answers["hardness"], 0.9)


class BesideHealth(unittest.TestCase):
    """Nitrate over its limit, crust, and a softener that stands there set too low."""

    CRUST = Complaint(id="w", sign="white_crust", words="White crust")

    def of(self, behind_it):
        drawn = sample(
            hardness(18),
            tds(480, 481),
            shown("iron", 0.02),
            shown("ph", 7.5),
            from_lab("nitrate_n", 13.0, basis="N"),
            from_lab("coliform", qualifier="absent"),
        )
        device = replace(SOFT, setting_gpg=14)
        place = home(source=Source.WELL_DRILLED, in_place=(device,))
        v = replace(visit(device), home=place, complaints=(self.CRUST,))
        return asked(replace(v, samples=(drawn, behind("s", hardness(behind_it)))))

    def test_it_is_set_right_beside_the_membrane_and_no_second_one_is_sold(self):
        first = self.of(9).lines[0]
        self.assertEqual([(k.device, k.how) for k in first.option.keeps], [("s", "set_right")])
        self.assertEqual(first.option.name, "Softener, set right + RO system at the drinking tap")
        self.assertEqual([ITEMS[x.item].scope for x in first.option.stages], ["tap"])
        self.assertEqual(first.leaves, ())


class ServiceFirst(unittest.TestCase):
    """What stands there and fails is serviced and tested again before anything new."""

    STREAKS = Complaint(id="o", sign="orange_streaks", words="Orange in the basin")
    FILTER = InPlace(id="f", kind="iron_filter", changed_on=DAY - timedelta(days=900))

    def of(self, *complaints, raw=(), behind_it=0.8):
        drawn = sample(
            hardness(8),
            tds(250, 251),
            shown("iron", 1.2, 0.1),
            shown("ph", 7.4, 0.05),
            from_lab("coliform", qualifier="absent"),
            *raw,
        )
        place = home(source=Source.WELL_DRILLED, in_place=(self.FILTER,))
        glass = behind("f", shown("iron", behind_it, 0.05))
        v = replace(visit(self.FILTER), home=place, complaints=complaints, samples=(drawn, glass))
        return asked(v)

    def test_an_iron_filter_that_lets_iron_through(self):
        s = self.of(self.STREAKS)
        self.assertEqual(s.lines[0].option.name, "Iron filter, serviced")
        self.assertIn("before anything new", s.lines[0].ahead)
        self.assertIn("Iron filter", [x.option.name for x in s.lines[1:]])

    def test_one_that_works_is_kept_and_not_serviced(self):
        s = self.of(self.STREAKS, behind_it=0.05)
        self.assertNotIn("Iron filter, serviced", [x.option.name for x in s.lines])

    def test_not_where_something_else_is_complained_of_too(self):
        crust = Complaint(id="w", sign="white_crust", words="White crust")
        s = self.of(self.STREAKS, crust)
        self.assertNotEqual(s.lines[0].option.name, "Iron filter, serviced")

    def test_health_does_not_wait_for_it(self):
        s = self.of(self.STREAKS, raw=(from_lab("arsenic", 0.05, certified=True),))
        self.assertNotEqual(s.lines[0].option.name, "Iron filter, serviced")

    def test_health_that_it_works_on_waits_for_its_service(self):
        s = self.of(self.STREAKS, raw=(from_lab("manganese", 0.3, certified=True),))
        self.assertEqual(s.lines[0].option.name, "Iron filter, serviced")

    def test_what_the_cups_say_is_no_other_complaint(self):
        bungalow = home_3(AT)
        device = InPlace(id="f", kind="iron_filter", fitted_on=DAY - timedelta(days=900))
        glass = behind("f", shown("iron", 1.2, 0.05))
        raw = next(x for x in bungalow.samples if x.raw)
        v = replace(
            bungalow,
            home=replace(bungalow.home, in_place=(device,)),
            samples=(raw, glass),
            complaints=self.STREAKS if isinstance(self.STREAKS, tuple) else (self.STREAKS,),
            options=(),
            recommended=None,
            proposals=(),
            demonstrations=(),
        )
        self.assertEqual(asked(v).lines[0].option.name, "Iron filter, serviced")

    def test_a_part_whose_life_nobody_knows_is_changed_before_it_is_given_up(self):
        jug = InPlace(id="f", kind="fridge", changed_on=DAY - timedelta(days=600))
        same = behind("f", shown("chlorine_free", 1.2, 0.05))
        told = asked(visit(jug, same)).in_place[0]
        self.assertEqual(told.verdict, "service")
        self.assertIn("nobody knows how long", told.advice)
        rated = replace(jug, months=24)
        self.assertEqual(asked(visit(rated, same)).in_place[0].verdict, "replace")


class KeptForHealth(unittest.TestCase):
    """What a certified laboratory found behind equipment decides whether anything is bought."""

    def of(self, device: InPlace, raw, glass):
        place = home(in_place=(device,))
        clean = () if raw.analyte == "coliform" else (from_lab("coliform", qualifier="absent"),)
        ahead = sample(
            hardness(5), tds(180, 181), shown("iron", 0.02), shown("ph", 7.5), raw, *clean
        )
        v = replace(visit(device), home=place, complaints=(), samples=(ahead, glass))
        return asked(v)

    membrane = InPlace(id="f", kind="membrane", fitted_on=DAY - timedelta(days=300))
    lamp = InPlace(id="f", kind="uv", changed_on=DAY - timedelta(days=100))
    nitrate = from_lab("nitrate_n", 14, basis="N")
    bacteria = from_lab("coliform", qualifier="present")

    def test_a_membrane_that_takes_the_nitrate_out_is_enough(self):
        found = from_lab("nitrate_n", 1.2, basis="N")
        s = self.of(self.membrane, self.nitrate, behind("f", tds(12, 13), found))
        self.assertNotIn("nitrate_n", s.wanted)
        self.assertEqual(s.lines[0].option.stages, ())
        self.assertEqual([k.how for k in s.lines[0].option.keeps], ["keep"])

    def test_one_that_nobody_tested_for_nitrate_is_tested_before_another_is_bought(self):
        s = self.of(self.membrane, self.nitrate, behind("f", tds(12, 13)))
        self.assertIn("nitrate_n", s.wanted)
        self.assertTrue(any("What it does to nitrate" in t for t in s.first), s.first)

    def test_one_that_lets_it_through_is_not_drunk_from(self):
        found = from_lab("nitrate_n", 11.2, basis="N")
        s = self.of(self.membrane, self.nitrate, behind("f", tds(12, 13), found))
        self.assertIn("nitrate_n", s.wanted)
        self.assertTrue(any("behind it: do not drink it" in t for t in s.first), s.first)

    def test_a_lamp_behind_which_nothing_was_found_is_kept(self):
        s = self.of(self.lamp, self.bacteria, behind("f", from_lab("coliform", qualifier="absent")))
        self.assertNotIn("coliform", s.wanted)
        self.assertEqual(s.lines[0].option.name, "Do nothing")

    def test_a_lamp_behind_which_bacteria_were_found_is_not_relied_on(self):
        s = self.of(self.lamp, self.bacteria, behind("f", self.bacteria))
        self.assertIn("coliform", s.lines[0].leaves)
        self.assertIn("rolling boil", s.first[0])  # the emergency first
        self.assertTrue(s.first[1].startswith("UV lamp: Coliform bacteria present"), s.first)


class DemoHomes(unittest.TestCase):
    def test_the_old_refrigerator_filter_shows_no_difference_and_is_past_its_life(self):
        j = assess(home_1(AT)).in_place[0]
        self.assertEqual((j.verdict, j.pairs[0].sentence), ("service", "no difference shown"))

    def test_the_clock_softener_is_set_and_cleaned_first(self):
        j = assess(home_3(AT)).in_place[0]
        self.assertEqual(j.verdict, "set_right")
        self.assertIn("every 2 days", j.advice)  # 24,000 grains at 360 gal of 24.8 gpg: 2.7 days

    def test_today_costs_only_what_it_still_costs(self):
        today = assess(home_1(AT)).options[0]
        self.assertEqual(today.cost.purchase, 0)
        self.assertTrue(any("Refrigerator filter" in x.label for x in today.cost.lines))


if __name__ == "__main__":
    unittest.main()
