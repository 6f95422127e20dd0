"""Eyes and nose: what was noticed stands beside the complaints, never in the customer's words."""

import unittest
from dataclasses import replace
from datetime import timedelta

from hypothesis import given
from hypothesis import strategies as st

from tests.making import NOON, home, reading, sample, shown, tds
from zesty_glass.core.errors import RuleError
from zesty_glass.core.rules import Rules
from zesty_glass.core.testing.complaints import SIGNS, Complaint
from zesty_glass.core.testing.crosschecks import crosschecks
from zesty_glass.core.testing.findings import meaning
from zesty_glass.core.testing.instruments import Instrument, InstrumentKind
from zesty_glass.core.testing.noticing import LOOKED_AT, noticed
from zesty_glass.core.testing.observations import Noticed
from zesty_glass.core.testing.reading import work_out
from zesty_glass.core.testing.water import water_of

NOSE = Instrument(id="senses", name="Eyes and nose", kind=InstrumentKind.SENSES, analyte="noticed")


def seen(*signs, **more):
    return reading("noticed", NOSE, Noticed(signs=signs), **more)


def glass(name, *readings, **more):
    return sample(*readings, **{"id": name, "name": name, "raw": False, **more})


def signs(*samples, complaints=()):
    return [c.sign for c in noticed(samples, complaints)]


class Smell(unittest.TestCase):
    def test_eggs_at_a_cold_tap_are_in_the_water(self):
        self.assertEqual(
            signs(glass("cold", seen("egg_smell")), glass("hot", seen("egg_smell"), draw="hot")),
            ["egg_smell"],
        )

    def test_eggs_at_the_hot_tap_alone_are_the_heaters(self):
        self.assertEqual(
            signs(glass("cold", seen()), glass("hot", seen("egg_smell"), draw="hot")),
            ["egg_smell_hot"],
        )

    def test_eggs_at_the_hot_tap_with_no_cold_one_smelled_ask_for_it(self):
        self.assertEqual(signs(glass("hot", seen("egg_smell"), draw="hot")), ["egg_smell_unsure"])
        self.assertIn("hot and cold", SIGNS["egg_smell_unsure"].next)

    def test_a_bottle_is_no_cold_tap(self):
        self.assertEqual(
            signs(
                glass("bottle", seen(), kind="bottled"), glass("hot", seen("egg_smell"), draw="hot")
            ),
            ["egg_smell_unsure"],
        )

    def test_a_complaint_of_eggs_is_not_said_twice(self):
        said = (Complaint(id="c", sign="egg_smell_hot", words="the shower stinks"),)
        self.assertEqual(signs(glass("cold", seen("egg_smell")), complaints=said), [])

    def test_hot_only_points_at_the_heater(self):
        samples = (
            glass("cold", seen(), shown("iron", 0.1), raw=True),
            glass("hot", seen("egg_smell"), draw="hot"),
        )
        m = meaning(water_of(samples[0]), home(), noticed(samples), Rules())
        self.assertIn("heater.anode", [f.id for f in m.findings])


class Kept(unittest.TestCase):
    def test_the_last_look_counts(self):
        self.assertEqual(signs(glass("a", seen("slime", id="1"), seen(id="2"))), [])

    def test_a_struck_look_does_not(self):
        struck = replace(seen("slime", id="1"), struck_at=NOON)
        self.assertEqual(signs(glass("a", struck)), [])

    def test_words_name_the_glass(self):
        self.assertEqual(
            noticed((glass("Bath", seen("blue_green")),))[0].words,
            "Blue-green stains, noticed at “Bath”",
        )

    def test_slime_asks_the_laboratory(self):
        samples = (glass("a", seen("slime"), tds(100, 101), raw=True),)
        m = meaning(water_of(samples[0]), home(), noticed(samples), Rules())
        self.assertEqual([u.next for u in m.unexplained], ["laboratory: iron bacteria"])

    def test_nothing_noticed_is_an_answer(self):
        self.assertEqual(work_out(seen()).words, "nothing noticed")

    def test_an_unknown_sign_is_refused(self):
        with self.assertRaises(RuleError) as e:
            work_out(seen("ghosts"))
        self.assertEqual(
            (e.exception.code, e.exception.where), ("noticed.sign", "observation.signs")
        )

    def test_it_is_no_property_of_the_water(self):
        self.assertEqual(water_of(glass("a", seen("slime"))).values, {})

    @given(
        st.lists(st.sampled_from(LOOKED_AT), unique=True),
        st.lists(st.sampled_from(LOOKED_AT), unique=True),
    )
    def test_each_sign_once_and_only_what_was_seen(self, a, b):
        out = signs(glass("a", seen(*a)), glass("b", seen(*b)))
        self.assertEqual(sorted(out), sorted(set(a) | set(b)))


class FarFromBefore(unittest.TestCase):
    def checks(self, before, *now):
        s = sample(*now, drawn_at=NOON + timedelta(days=200))
        old = water_of(sample(*before)).values
        return [c for c in crosschecks((s,), home(), old) if c.id == "far_from_before"]

    def test_far_readings_are_named(self):
        (hit,) = self.checks((tds(200, 201), shown("iron", 0.2)), tds(500, 502), shown("iron", 0.2))
        self.assertIn("(Total dissolved solids (TDS))", hit.sentence)

    def test_near_readings_are_not(self):
        self.assertEqual(self.checks((tds(400, 401),), tds(500, 502)), [])

    def test_overlapping_ranges_are_not(self):
        self.assertEqual(self.checks((shown("iron", 0.01),), shown("iron", 0.03)), [])

    def test_ph_is_judged_by_its_own_scale(self):
        self.assertEqual(self.checks((shown("ph", 7.6),), shown("ph", 6.8)), [])
        self.assertEqual(len(self.checks((shown("ph", 7.9),), shown("ph", 6.2))), 1)

    def test_temperature_changes_with_the_day(self):
        self.assertEqual(self.checks((shown("temperature", 6),), shown("temperature", 18)), [])
