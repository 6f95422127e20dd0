"""Whatever is accepted as a reading can be worked out with the rest of the visit: a slip of the
finger never shuts a visit.
"""

import unittest
from dataclasses import replace
from datetime import UTC, date, datetime

from hypothesis import HealthCheck, assume, given, settings
from hypothesis import strategies as st

from zesty_glass.core.assess import assess
from zesty_glass.core.errors import RuleError
from zesty_glass.core.presenting.comparison import compare
from zesty_glass.core.testing.observations import (
    BucketRuns,
    CupsSeen,
    DropCount,
    LaboratoryResult,
    MeterDisplays,
    OneDisplay,
    PadMatch,
)
from zesty_glass.core.testing.reading import Reading, work_out
from zesty_glass.demo.homes import demo_visits
from zesty_glass.demo.kits import demo_instruments, laboratory

AT = datetime(2026, 11, 20, 9, 0, tzinfo=UTC)
VISITS = demo_visits(AT)
KITS = demo_instruments(date(2026, 11, 20))
wild = st.one_of(st.floats(0, 20), st.floats(0, 1e7), st.integers(0, 10**6).map(float))


def seen(kind):
    """Anything that could be sent for a kind of instrument."""
    return {
        "meter": st.builds(
            MeterDisplays,
            displays=st.lists(wild, min_size=1, max_size=4).map(tuple),
            multiplier=st.sampled_from([1, 10]),
            temperature_c=st.none() | st.floats(-5, 90),
            zero=st.none() | wild,
        ),
        "drops": st.builds(
            DropCount, drops=st.integers(0, 900), dilution=st.sampled_from([1, 2, 10])
        ),
        "strip": st.builds(PadMatch, pad=st.integers(0, 12), between=st.booleans()),
        "comparator": st.builds(PadMatch, pad=st.integers(0, 12), between=st.booleans()),
        "display": st.builds(OneDisplay, value=wild, dilution=st.sampled_from([1, 2, 10])),
        "bucket": st.builds(
            BucketRuns,
            volume_gal=st.floats(0.001, 60),
            seconds=st.lists(st.floats(0.001, 900), min_size=1, max_size=4).map(tuple),
            full_bore=st.booleans(),
        ),
        "laboratory": st.builds(
            LaboratoryResult,
            qualifier=st.sampled_from(["=", "<", "absent", "present"]),
            value=st.none() | wild,
            basis=st.sampled_from([None, "N", "NO3", "collection"]),
            certified=st.booleans(),
        ),
    }[str(kind)]


@st.composite
def readings(draw):
    kits = [
        k
        for k in KITS
        if str(k.kind) in ("meter", "drops", "strip", "comparator", "display", "bucket")
    ]
    kit = draw(
        st.sampled_from(
            [
                *kits,
                *(
                    laboratory(a)
                    for a in (
                        "lead",
                        "arsenic",
                        "nitrate_n",
                        "uvt",
                        "coliform",
                        "hardness",
                        "sulfate",
                        "radon",
                        "copper",
                    )
                ),
            ]
        )
    )
    return Reading(
        id="wild", analyte=kit.analyte, instrument=kit, observation=draw(seen(kit.kind)), made_at=AT
    )


class AnyReading(unittest.TestCase):
    @given(st.sampled_from(VISITS), readings(), st.booleans())
    @settings(
        max_examples=150,
        suppress_health_check=[HealthCheck.filter_too_much, HealthCheck.too_slow],
        deadline=None,
    )
    def test_the_visit_can_be_opened_and_compared(self, visit, wild_one, alone):
        try:
            value = work_out(wild_one)
        except RuleError as e:
            self.assertTrue(e.what and e.remedy)
            assume(False)
        raw = visit.samples[0]
        kept = () if alone else tuple(r for r in raw.readings if r.analyte != wild_one.analyte)
        changed = replace(
            visit, samples=(replace(raw, readings=(*kept, wild_one)), *visit.samples[1:])
        )
        self.assertIsNotNone(assess(changed).raw)
        self.assertEqual(len(compare(changed, (10,)).options), len(visit.options) + 1)
        if value.range is not None and value.range.high is not None:
            self.assertTrue(value.range.low <= value.range.best <= value.range.high)

    @given(
        st.sampled_from(VISITS),
        st.builds(
            CupsSeen,
            drawn=st.sampled_from(
                ["clear", "faint", "coloured", "clears_top_down", "milky_clears_bottom_up"]
            ),
            stood=st.sampled_from(
                [None, "clear", "coloured", "darkens", "brown_black", "same", "settles"]
            ),
            stood_minutes=st.none() | st.floats(0, 2000),
            reducer=st.sampled_from([None, "wholly", "partly", "no_change"]),
        ),
    )
    @settings(max_examples=60, deadline=None)
    def test_whatever_the_cups_show(self, visit, cups):
        raw = visit.samples[0]
        kit = next(k for k in KITS if k.analyte == "colour")
        changed = replace(
            visit,
            samples=(
                replace(
                    raw,
                    readings=(
                        *(r for r in raw.readings if r.analyte != "colour"),
                        Reading(
                            id="cups",
                            analyte="colour",
                            instrument=kit,
                            observation=cups,
                            made_at=AT,
                        ),
                    ),
                ),
                *visit.samples[1:],
            ),
        )
        self.assertIsNotNone(assess(changed).meaning.colour)


class Impossible(unittest.TestCase):
    def test_what_cannot_be_in_water_is_refused_with_what_can(self):
        for analyte, value, says in (
            ("ph", 74.0, "0 to 14"),
            ("temperature", 530.0, "-5 to 110"),
            ("uvt", 930.0, "0 to 100"),
            ("iron", 3e6, "0 to 1e+06"),
        ):
            with self.assertRaises(RuleError) as e:
                work_out(
                    Reading(
                        id="x",
                        analyte=analyte,
                        instrument=laboratory(analyte),
                        observation=LaboratoryResult(value=value),
                        made_at=AT,
                    )
                )
            self.assertEqual(e.exception.code, "reading.impossible", analyte)
            self.assertIn(says, e.exception.remedy)

    def test_a_display_s_own_check_comes_first(self):
        kit = next(k for k in KITS if k.analyte == "ph" and str(k.kind) == "display")
        with self.assertRaises(RuleError) as e:
            work_out(
                Reading(
                    id="x",
                    analyte="ph",
                    instrument=kit,
                    observation=OneDisplay(value=74.0),
                    made_at=AT,
                )
            )
        self.assertEqual(e.exception.code, "display.ph")
