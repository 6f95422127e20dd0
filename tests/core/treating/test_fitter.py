"""Who fits a stage: what it costs, what it asks of the household, and where it is not theirs."""

import unittest
from decimal import Decimal

from tests.making import home, membrane, settings, softener, water
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.treating.fitter import fitting_check, own_minutes
from zesty_glass.core.treating.line import walk
from zesty_glass.core.treating.option import Option, StageChoice

ITEMS = {i.code: i for i in example_items()}


class Fitting(unittest.TestCase):
    def line(self, item, fitter):
        option = Option(id="o", name="", stages=(StageChoice(item=item.code, fitter=fitter),))
        drawn = water(hardness=200, iron=0.02, tds=300, ph=7.6, temperature=12)
        return walk(option, {item.code: item}, drawn, None, home(), settings())

    def test_the_firm_installs_at_its_price(self):
        line = self.line(membrane(), "firm")
        self.assertEqual(line.purchases[0].installation, Decimal(220))
        self.assertFalse([c for c in line.checks if c.id.startswith("fit.")])

    def test_the_household_pays_no_installing_and_is_told_what_it_takes(self):
        line = self.line(membrane(), "self")
        self.assertEqual(line.purchases[0].installation, 0)
        said = next(c for c in line.checks if c.id == "fit.self")
        self.assertEqual(said.status, "warn")
        self.assertIn("about 90 min", said.sentence)
        self.assertIn("about 240 min", fitting_check(softener(), "self").sentence)

    def test_a_licensed_persons_price_is_not_ours_to_say(self):
        line = self.line(membrane(), "licensed")
        self.assertEqual(line.purchases[0].installation, 0)
        self.assertIn("says what that costs", next(c.sentence for c in line.checks))

    def test_a_lamp_and_what_needs_a_specialist_stop(self):
        for code in (i.code for i in ITEMS.values() if i.kind in ("uv", "aeration", "chlorinator")):
            self.assertEqual(fitting_check(ITEMS[code], "self").status, "stop", code)

    def test_a_pitcher_is_set_up_in_minutes(self):
        pitcher = next(i for i in ITEMS.values() if i.kind == "pitcher" and not i.plumbed)
        self.assertEqual(own_minutes(pitcher), 15)
        self.assertEqual(fitting_check(pitcher, "self").status, "say")


if __name__ == "__main__":
    unittest.main()
