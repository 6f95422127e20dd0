"""What is crossed out stays on record with its reason, and counts no more."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from tests.core.test_assumptions import SOAP
from zesty_glass.core.assess import assess
from zesty_glass.core.demonstrating.demonstrations import Demonstration, Kettle
from zesty_glass.core.errors import RuleError
from zesty_glass.core.testing.laboratory import LabSample

AT = datetime(2026, 11, 20, 9, tzinfo=UTC)
RAW = SOAP.samples[0].id


def kettle(**more):
    return Demonstration(id="k", made_at=AT, body=Kettle(sample=RAW, litres_day=2), **more)


class Struck(unittest.TestCase):
    def test_a_time_and_a_reason_or_neither(self):
        for wrong, code in (
            ({"struck_at": AT}, "struck.because"),
            ({"struck_at": AT, "struck_because": "  x "}, "struck.because"),
            ({"struck_because": "it leaked"}, "struck.at"),
            ({"struck_at": AT.replace(tzinfo=None), "struck_because": "it leaked"}, "struck.at"),
        ):
            with self.subTest(wrong), self.assertRaises(RuleError) as e:
                kettle(**wrong)
            self.assertEqual(e.exception.code, code)
        self.assertEqual(kettle(struck_at=AT, struck_because="was").struck_because, "was")

    def test_a_demonstration_shows_nothing_any_more(self):
        standing = replace(SOAP, demonstrations=(kettle(),))
        gone = replace(SOAP, demonstrations=(kettle(struck_at=AT, struck_because="another glass"),))
        self.assertEqual([d.id for d in assess(standing).demonstrations], ["k"])
        self.assertEqual(assess(gone).demonstrations, ())
        self.assertEqual(len(gone.demonstrations), 1)

    def test_a_bottle_does_not_count_as_drawn(self):
        def bottle(**more):
            return LabSample(id="b", kind="metals", sample=RAW, drawn_at=AT, **more)

        broken = bottle(struck_at=AT, struck_because="broken")
        visit = replace(SOAP, lab_samples=(bottle(), replace(broken, id="c")))
        self.assertEqual([b.id for b in visit.bottles], ["b"])
