"""What is said first: what to drink tonight, and what matters because of who lives there."""

import unittest

from tests.making import home, water
from zesty_glass.core.home import Care, Source
from zesty_glass.core.ranges import Range
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.tonight import BLOOM, CARES, INFANT, OTHER, TONIGHT, tonight
from zesty_glass.core.testing.value import Value
from zesty_glass.core.testing.water import Water

QUIET = {"coliform": 0.0, "nitrate_n": 1.0, "lead": 0.001, "manganese": 0.01}


def card(*over: str, care: Care | None = None, values=None, **about) -> tuple[str, ...]:
    place = home(care=care, **about) if care else home(**about)
    drawn = values if isinstance(values, Water) else water(**(QUIET if values is None else values))
    return tonight(frozenset(over), place, drawn, Rules())


def absent(**more) -> Water:
    """A water whose bacteria a laboratory did not find."""
    none = Value(analyte="coliform", unit="", range=None, words="absent")
    return Water(sample="raw", values={**water(**more).values, "coliform": none})


def of(id: str) -> str:
    return next(c.sentence for c in CARES if c.id == id)


class Over(unittest.TestCase):
    def test_microbes_are_boiled_and_metals_never(self):
        self.assertIn("rolling boil for 1 minute", card("coliform")[0])
        for name in ("nitrate_n", "nitrite_n", "arsenic", "uranium", "barium", "fluoride"):
            self.assertIn("Never boil it", card(name)[0], name)

    def test_boiling_is_not_named_alone_where_both_were_found(self):
        both = card("e_coli", "arsenic")
        self.assertEqual(len(both), 2)
        self.assertTrue(any("Never boil" in t for t in both))

    def test_nobody_is_told_to_boil_what_boiling_leaves(self):
        for name in ("nitrate_n", "arsenic", "lead", "pfoa"):
            said = card("e_coli", name)
            self.assertIn("bottled water only", said[0], name)
            self.assertFalse([t for t in said if "Bring drinking water to" in t], name)
        self.assertIn("Bring drinking water to", card("e_coli", "radon")[0])

    def test_weak_immunity_beside_nitrate_is_not_told_to_boil(self):
        weak, unknown = Care(consent=True, weak_immunity=True), {"nitrate_n": 12.0}
        self.assertIn("bottled water only", card("nitrate_n", care=weak, values=unknown)[-1])
        self.assertIn("boil it for 1 minute", card(care=weak, values=unknown)[-1])

    def test_lead_is_flushed_pfas_not_boiled_radon_aired(self):
        self.assertIn("flushed until it runs colder", card("lead")[0])
        self.assertIn("bottled water for an infant and in pregnancy", card("lead")[0])
        self.assertIn("Boiling does not take PFOA and PFOS out", card("pfos")[0])
        self.assertIn("Air the rooms", card("radon")[0])

    def test_no_health_finding_goes_without(self):
        self.assertEqual(card("some_other_thing"), (OTHER,))
        self.assertEqual(card(), ())

    def test_what_has_its_own_sentence_does_not_get_the_other_one_too(self):
        self.assertNotIn(OTHER, card("lead"))
        self.assertIn(OTHER, card("lead", "some_other_thing"))

    def test_every_sentence_has_its_source(self):
        for t in (*TONIGHT, *CARES):
            self.assertTrue(t.source and 2000 < t.year <= 2026, t.id)

    def test_a_lake_may_bloom(self):
        self.assertIn(BLOOM, card(source=Source.LAKE))
        self.assertNotIn(BLOOM, card())


class Infants(unittest.TestCase):
    infant = Care(consent=True, infant=True)

    def test_bottled_water_until_nitrate_is_known(self):
        self.assertIn(INFANT, card(care=self.infant, values={"iron": 0.1}))
        self.assertNotIn(INFANT, card(care=self.infant))

    def test_bottled_water_while_anything_is_over(self):
        self.assertIn(INFANT, card("lead", care=self.infant))

    def test_not_on_a_town_main(self):
        town = {"source": Source.CITY, "pump_gpm": None}
        self.assertNotIn(INFANT, card(care=self.infant, values={"iron": 0.1}, **town))

    def test_manganese_at_or_perhaps_over_the_guideline(self):
        told = of("infant_manganese")
        for mn, said in (
            (0.08, True),
            (0.09, True),
            (Range.of(0.05, 0.07, 0.09), True),
            (Range.of(0.05, 0.06, 0.07), False),
            (Range.of(0.2, 0.2, None), True),
            (0.02, False),
        ):
            found = card(care=self.infant, values={**QUIET, "manganese": mn})
            self.assertEqual(told in found, said, mn)
        self.assertNotIn(told, card(values={**QUIET, "manganese": 0.3}))
        untested = {k: v for k, v in QUIET.items() if k != "manganese"}
        self.assertNotIn(told, card(care=self.infant, values=untested))

    def test_an_infant_and_sulfate_from_the_advisory_on(self):
        told = of("infant_sulfate")
        for so4, said in ((500, True), (600, True), (Range.of(400, 450, 520), True), (499, False)):
            found = card(care=self.infant, values={**QUIET, "sulfate": so4})
            self.assertEqual(told in found, said, so4)
        self.assertNotIn(told, card(values={**QUIET, "sulfate": 600}))


class Others(unittest.TestCase):
    def test_dialysis_on_any_water(self):
        care = Care(consent=True, dialysis=True)
        self.assertEqual(card(care=care), (of("dialysis"),))
        self.assertEqual(card(care=care, source=Source.CITY, pump_gpm=None), (of("dialysis"),))

    def test_weak_immunity_on_a_well_until_bacteria_are_known_absent(self):
        care, told = Care(consent=True, weak_immunity=True), of("weak_immunity")
        self.assertIn(told, card(care=care, values={"iron": 0.1}))
        self.assertIn(told, card(care=care, values={"coliform": 4.0}))
        self.assertNotIn(told, card(care=care, values=absent(iron=0.1)))
        self.assertNotIn(told, card(care=care, values={"coliform": 0.0}))

    def test_weak_immunity_on_a_town_main_is_for_their_physician(self):
        care = Care(consent=True, weak_immunity=True)
        town = {"source": Source.CITY, "pump_gpm": None}
        self.assertEqual(card(care=care, **town), (of("weak_immunity_town"),))

    def test_a_pregnancy_until_nitrate_and_lead_are_known(self):
        care, told = Care(consent=True, pregnancy=True), of("pregnancy")
        self.assertIn(told, card(care=care, values={"iron": 0.1}))
        self.assertIn(told, card(care=care, values={"nitrate_n": 0.0}))  # lead is open
        self.assertIn(told, card(care=care, values={"nitrate_n": 3.0, "lead": 0.0}))
        self.assertNotIn(told, card(care=care, values={"nitrate_n": 0.0, "lead": 0.0}))
        town = {"source": Source.CITY, "pump_gpm": None}
        self.assertNotIn(told, card(care=care, values={"iron": 0.1}, **town))

    def test_under_a_detection_limit_is_known(self):
        care, told = Care(consent=True, pregnancy=True), of("pregnancy")
        below = {
            n: Value(analyte=n, unit="", range=Range.of(0, x / 2, x), below=x)
            for n, x in (("nitrate_n", 0.5), ("lead", 0.001))
        }
        self.assertNotIn(told, card(care=care, values=Water(sample="raw", values=below)))

    def test_nobody_told_nothing_is_said(self):
        self.assertEqual(card(values={"iron": 0.1}), ())


if __name__ == "__main__":
    unittest.main()
