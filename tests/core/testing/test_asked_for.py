"""Which tests a source, its people and its complaints ask for, and what explains a complaint."""

import unittest

from tests.making import home, water
from zesty_glass.core.home import Care, Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.complaints import Complaint
from zesty_glass.core.testing.finding import Weight
from zesty_glass.core.testing.findings import asked_for, meaning
from zesty_glass.core.testing.value import Value
from zesty_glass.core.testing.water import Water

TASTE = (Complaint(id="t", sign="taste", words="it tastes"),)
HOT_EGGS = (Complaint(id="h", sign="egg_smell_hot", words="the shower stinks"),)


def well(**care):
    return home(care=Care(**care))


def town(line="copper", **care):
    return home(source=Source.CITY, pump_gpm=None, service_line=line, care=Care(**care))


def findings(w, complaints, about=None):
    return {f.id: f for f in meaning(w, about or home(), complaints, Rules()).findings}


class Asked(unittest.TestCase):
    def test_an_infant_on_a_well_asks_for_manganese_and_only_there(self):
        self.assertIn("manganese", asked_for(well(infant=True), ()))
        self.assertNotIn("manganese", asked_for(well(), ()))
        self.assertNotIn("manganese", asked_for(town(infant=True), ()))

    def test_a_line_that_may_be_of_lead_asks_for_lead_where_somebody_is_at_risk(self):
        for line, asked in (
            ("", True),
            ("lead", True),
            ("Galvanized steel", True),
            ("unknown", True),
            ("copper", False),
            ("PEX", False),
        ):
            for care in ({"infant": True}, {"pregnancy": True}):
                with self.subTest(line=line, **care):
                    self.assertEqual("lead" in asked_for(town(line, **care), ()), asked)
            self.assertNotIn("lead", asked_for(town(line), ()))


class LowPhAndCopper(unittest.TestCase):
    """Acid water explains a blue-green stain until copper was looked for and not found."""

    STAIN = (Complaint(id="b", sign="blue_green", words="blue in the bath"),)

    def ph_explains(self, ph=6.0, **values):
        found = findings(water(ph=ph, **values), self.STAIN)
        return [f for f in found.values() if f.analyte == "ph" and f.explains]

    def test_before_copper_was_measured_it_is_likely_and_says_what_confirms_it(self):
        (f,) = self.ph_explains()
        self.assertIn("first-draw sample would confirm", f.sentence)

    def test_with_copper_from_0_3_on_it_explains_and_needs_no_more(self):
        (f,) = self.ph_explains(copper=0.3)
        self.assertNotIn("would confirm", f.sentence)
        self.assertEqual(self.ph_explains(copper=0.29), [])

    def test_a_ph_that_is_fine_explains_nothing(self):
        self.assertEqual(self.ph_explains(ph=7.6), [])


class Unknown(unittest.TestCase):
    def names(self, about):
        return {u.analyte for u in meaning(water(tds=300.0), about, (), Rules()).unknown}

    def test_a_town_answers_for_bacteria_and_nitrate(self):
        self.assertLessEqual({"coliform", "nitrate_n"}, self.names(home()))
        self.assertFalse({"coliform", "nitrate_n"} & self.names(town()))
        self.assertIn("hardness", self.names(town()))


class InTheirOrder(unittest.TestCase):
    def test_health_first_then_what_explains_a_complaint(self):
        crust = (Complaint(id="c", sign="white_crust", words="crust"),)
        w = water(iron=2.0, hardness=300.0, arsenic=0.05, tds=300.0)
        order = [f.analyte for f in meaning(w, home(), crust, Rules()).findings]
        self.assertEqual(order[:3], ["arsenic", "hardness", "iron"])


class UnderADetectionLimit(unittest.TestCase):
    """What was not detected is held against the strictest number that anybody gives."""

    def arsenic(self, below):
        value = Value(
            analyte="arsenic",
            unit="mg/L",
            range=Range.of(0.0, below / 2, below),
            below=below,
            laboratory=True,
            certified=True,
        )
        w = Water(sample="raw", values={"arsenic": value})
        return meaning(w, home(), (), Rules()).findings[0]

    def test_a_method_fine_enough_is_met_and_a_coarse_one_is_not(self):
        strictest = min(x.value for x in Rules().limits if x.analyte == "arsenic" and x.value > 0)
        self.assertEqual(self.arsenic(strictest).weight, Weight.FINE)
        self.assertNotEqual(self.arsenic(strictest * 1.1).weight, Weight.FINE)


class Taste(unittest.TestCase):
    def test_from_900_mg_per_l_it_is_tasted_by_itself(self):
        for low, tasted in ((899.9, False), (900.0, True)):
            w = water(tds=Range.of(low, 1000.0, 1100.0))
            with self.subTest(low=low):
                self.assertEqual("tds.taste" in findings(w, TASTE), tasted)

    def test_a_taste_alone_is_not_laid_on_a_little(self):
        self.assertNotIn("tds.taste", findings(water(tds=520.0), TASTE))

    def test_so_much_without_a_complaint_is_not_called_a_taste(self):
        self.assertNotIn("tds.taste", findings(water(tds=1000.0), ()))


class Eggs(unittest.TestCase):
    def test_the_heater_is_the_cause_while_the_cold_has_none(self):
        for cold, heater in (
            (Range.of(0.0, 0.05, 0.1), True),
            (Range.of(0.01, 0.2, 0.3), False),
        ):
            with self.subTest(cold=cold):
                w = water(tds=100.0, hydrogen_sulfide=cold)
                self.assertEqual("heater.anode" in findings(w, HOT_EGGS), heater)
        self.assertIn("heater.anode", findings(water(tds=100.0), HOT_EGGS))
        self.assertNotIn("heater.anode", findings(water(tds=100.0), ()))


if __name__ == "__main__":
    unittest.main()
