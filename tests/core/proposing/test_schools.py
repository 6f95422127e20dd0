"""Where the trade is of two minds: which questions a home raises, and which way holds there."""

import unittest

from tests.making import home, settings, water
from zesty_glass.core.home import Source
from zesty_glass.core.proposing.schools import SCHOOLS, Facts, schools
from zesty_glass.core.treating.line import site_of
from zesty_glass.core.treating.stages import does


def asked(values, wanted=(), kinds=(), **about):
    h, w = home(**about), water(**values)
    facts = Facts(
        water=w,
        home=h,
        site=site_of(h, settings(), w),
        wanted=frozenset(wanted),
        does=frozenset(d for k in kinds for d in does(k)),
    )
    return {s.id: [way.holds for way in s.ways] for s in schools(facts)}


class Questions(unittest.TestCase):
    def test_clear_soft_water_raises_none(self):
        self.assertEqual(asked({"tds": 300.0, "hardness": 50.0, "ph": 7.5}), {})

    def test_each_has_two_ways_with_condition_and_reason(self):
        self.assertEqual(len({s.id for s in SCHOOLS}), len(SCHOOLS))
        for s in SCHOOLS:
            self.assertEqual(len(s.ways), 2, s.id)
            self.assertTrue(s.question.endswith("?") and s.source and s.year > 1990)
            for way in s.ways:
                self.assertTrue(way.name and way.where and way.why)

    def test_a_lamp_goes_ahead_of_a_membrane_on_a_lake(self):
        lake = asked({"tds": 100.0}, kinds=("membrane",), source=Source.LAKE)
        self.assertEqual(lake["uv_membrane"], [True, False])
        both = ("membrane", "uv")
        self.assertEqual(asked({}, kinds=both, source=Source.CITY)["uv_membrane"], [False, True])
        self.assertEqual(asked({}, kinds=both)["uv_membrane"], [False, None])  # a well, no test
        self.assertNotIn("uv_membrane", asked({}, kinds=("membrane",)))

    def test_a_neutraliser_flows_upwards_only_in_clean_water(self):
        def bed(pump=10.0, low_yield=None, **values):
            acid = {"ph": 6.2, **values}
            return asked(acid, kinds=("neutraliser",), pump_gpm=pump, low_yield=low_yield)[
                "neutraliser_flow"
            ]

        self.assertEqual(bed(iron=0.1, turbidity=0.5), [True, False])
        self.assertEqual(bed(iron=1.0, turbidity=0.5), [False, True])
        self.assertEqual(bed(iron=1.0, pump=7.9), [False, False])
        self.assertEqual(bed(iron=1.0, low_yield=True), [False, False])
        self.assertEqual(bed(iron=0.1), [None, None])  # nobody looked at the haze
        self.assertNotIn("neutraliser_flow", asked({"ph": 7.0}, kinds=("neutraliser",)))

    def test_little_iron_goes_with_the_hardness_or_alone(self):
        def iron(value, wanted=("iron", "hardness"), **more):
            values = {"iron": value, "hardness": 250.0, **more}
            return asked(values, wanted=wanted).get("little_iron")

        self.assertEqual(iron(1.2, iron_ferrous=1.2), [True, False])
        self.assertEqual(iron(1.2), [None, None])  # nobody looked whether it is dissolved
        self.assertEqual(iron(1.2, ("iron",)), [False, True])  # not softened anyway
        self.assertIsNone(iron(0.3))
        self.assertIsNone(iron(2.1))

    def test_a_conditioner_without_salt_is_disputed_and_said_so(self):
        def ways(brine=None, **values):
            hard = {"hardness": 250.0, "iron": 0.05, **values}
            about = {"wanted": ("hardness",), "kinds": ("softener",), "brine_forbidden": brine}
            return asked(hard, **about)["salt_free"]

        self.assertEqual(ways(), [None, None])
        self.assertEqual(ways(False), [True, None])
        self.assertEqual(ways(True), [False, True])
        self.assertEqual(ways(False, iron=1.0), [True, False])
        self.assertNotIn("salt_free", asked({"hardness": 250.0}, kinds=("softener",)))
        told = next(s for s in SCHOOLS if s.id == "salt_free")
        self.assertIn("disputed", told.ways[1].why)

    def test_tannin_in_hard_water_has_a_tank_of_its_own(self):
        def bed(hardness, wanted=("tannin", "hardness")):
            values = {"tannin": 1.5} if hardness is None else {"tannin": 1.5, "hardness": hardness}
            return asked(values, wanted=wanted, kinds=("mixed_bed",))["tannin_bed"]

        self.assertEqual(bed(250.0), [True, False])
        self.assertEqual(bed(80.0), [False, True])
        self.assertEqual(bed(20.0, ("tannin",)), [True, False])  # nothing there to soften
        self.assertEqual(bed(None), [None, None])

    def test_fluoride_is_a_question_of_the_tap(self):
        self.assertEqual(asked({}, wanted=("fluoride",))["house_or_tap"], [True, None])
        self.assertNotIn("house_or_tap", asked({}, wanted=("nitrate_n",)))

    def test_the_meter_s_own_chart_holds_nowhere(self):
        self.assertEqual(asked({"tds": 601.0})["tds_chart"], [False, True])
        self.assertNotIn("tds_chart", asked({"tds": 600.0}))


if __name__ == "__main__":
    unittest.main()
