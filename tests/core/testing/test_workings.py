"""What a slip shows when a reading is opened: rows that add up to its range, by hand."""

import unittest
from dataclasses import replace

from tests.making import drop_kit, from_lab, hardness, number_kit, reading, tds, tds_meter
from zesty_glass.core.testing.instruments import Instrument, InstrumentKind
from zesty_glass.core.testing.observations import (
    BucketRuns,
    CupsSeen,
    DropCount,
    MeterDisplays,
    Noticed,
    OneDisplay,
    PadMatch,
)
from zesty_glass.core.testing.reading import Reading, work_out
from zesty_glass.core.testing.workings import working_of
from zesty_glass.core.working import Working

STRIP = Instrument(
    id="s", name="S", kind=InstrumentKind.STRIP, analyte="iron", steps=(0.0, 0.3, 1.0)
)
EYES = Instrument(id="e", name="Eyes", kind=InstrumentKind.SENSES, analyte="noticed")


def of(r: Reading) -> Working:
    return working_of(r, work_out(r))


def rows(w: Working) -> dict[str, str]:
    return {r.label: f"{r.value} {r.unit}".strip() for r in w.rows}


class Meter(unittest.TestCase):
    def test_its_rows_add_up(self):
        # 409 less 2 % (8.2) less half a step (0.5): 400.3; 415 and 8.3 and 0.5: 423.8
        w = of(tds(412, 415, 409))
        said = rows(w)
        self.assertEqual(said["lowest display"], "409 mg/L")
        self.assertEqual(said["less 2 % of it"], "8.2 mg/L")
        self.assertEqual(said["less half a step"], "0.5 mg/L")
        self.assertEqual(said["so at least"], "400.3 mg/L")
        self.assertEqual(said["highest display"], "415 mg/L")
        self.assertEqual(said["so at most"], "423.8 mg/L")
        self.assertEqual([r.label for r in w.rows if r.total], ["so at least", "so at most"])

    def test_a_tenfold_mark_counts_for_display_error_and_step(self):
        # 112 x10: 1,120; 2 % of it 22.4; half a step of 10: 5
        said = rows(of(tds(112, 112, multiplier=10)))
        self.assertEqual(said["lowest display"], "1,120 mg/L")
        self.assertEqual(said["less 2 % of it"], "22.4 mg/L")
        self.assertEqual(said["less half a step"], "5 mg/L")
        self.assertEqual(said["so at least"], "1,092.6 mg/L")
        self.assertEqual(said["so at most"], "1,147.4 mg/L")

    def test_shares_and_steps_have_one_digit_behind_the_point(self):
        # 2 % of 417 is 8.34
        said = rows(of(tds(417)))
        self.assertEqual((said["less 2 % of it"], said["and 2 % of it"]), ("8.3 mg/L", "8.3 mg/L"))

    def test_never_under_nothing(self):
        self.assertEqual(rows(of(tds(2, 3, of="full_scale")))["so at least"], "0 mg/L")

    def test_full_scale_is_named_and_what_was_not_stated_too(self):
        stated = of(tds(412, 415, of="full_scale"))
        self.assertIn("less 2 % of full scale", rows(stated))
        self.assertNotIn("not stated", stated.source)
        assumed = of(tds(412, 415, of=None))
        self.assertIn("accuracy not stated, so of full scale", assumed.source)
        self.assertIn("less 2 % of full scale", rows(assumed))

    def test_no_accuracy_is_none(self):
        kit = tds_meter("reading", accuracy_share=None)
        w = of(reading("tds", kit, MeterDisplays(displays=(100, 100))))
        self.assertEqual(rows(w)["less 0 % of it"], "0 mg/L")


class Drops(unittest.TestCase):
    def test_the_last_drop_and_the_one_before(self):
        said = rows(of(hardness(14)))
        self.assertEqual(said["drops counted"], "14")
        self.assertEqual(said["one drop"], "1 gpg")
        self.assertEqual(said["the last drop changed it: at most"], "14 gpg")
        self.assertEqual(said["one drop fewer did not: at least"], "13 gpg")
        self.assertEqual(said["in mg/L as CaCO3"], "222.5 to 239.7 mg/L")
        self.assertNotIn("diluted, one part in", said)

    def test_none_counted_is_at_most_one(self):
        said = rows(of(hardness(0)))
        self.assertEqual(said["the last drop changed it: at most"], "1 gpg")
        self.assertEqual(said["one drop fewer did not: at least"], "0 gpg")

    def test_a_dilution_multiplies_both(self):
        said = rows(of(hardness(5, 4)))
        self.assertEqual(said["diluted, one part in"], "4")
        self.assertEqual(said["the last drop changed it: at most"], "20 gpg")
        self.assertEqual(said["one drop fewer did not: at least"], "16 gpg")

    def test_a_kit_in_mg_needs_no_other_unit(self):
        kit = drop_kit("alkalinity", "mg/L as CaCO3", 20.0)
        said = rows(of(reading("alkalinity", kit, DropCount(drops=3))))
        self.assertEqual(said["the last drop changed it: at most"], "60 mg/L")
        self.assertNotIn("in mg/L as CaCO3", said)


class Others(unittest.TestCase):
    def test_at_a_pad_and_between_two(self):
        at = of(reading("iron", STRIP, PadMatch(pad=1)))
        self.assertEqual(rows(at), {"at": "0.3 mg/L"})
        between = of(reading("iron", STRIP, PadMatch(pad=1, between=True)))
        self.assertEqual(rows(between), {"between": "0.3 and 1 mg/L"})

    def test_a_display_with_its_accuracy_step_and_limit(self):
        kit = number_kit("iron", 0.02, 0.01, 0.05)
        said = rows(of(reading("iron", kit, OneDisplay(value=0.62))))
        self.assertEqual(
            said,
            {
                "display": "0.62 mg/L",
                "accuracy": "± 0.02 mg/L",
                "step": "0.01 mg/L",
                "cannot read under": "0.05 mg/L",
            },
        )
        plain = rows(of(reading("iron", number_kit("iron"), OneDisplay(value=0.62))))
        self.assertNotIn("cannot read under", plain)

    def test_every_run_of_a_bucket(self):
        kit = Instrument(id="b", name="B", kind=InstrumentKind.BUCKET, analyte="flow")
        seen = BucketRuns(volume_gal=5, seconds=(30.0, 25.0))
        said = rows(of(reading("flow", kit, seen)))
        self.assertEqual(said, {"run 1": "10 gpm", "run 2": "12 gpm"})

    def test_what_a_laboratory_reported_as_it_stands_there(self):
        plain = rows(of(from_lab("lead", 3.0, unit="µg/L")))
        self.assertEqual(plain, {"reported": "3 µg/L"})
        under = rows(of(from_lab("lead", 1.0, "<", unit="µg/L")))
        self.assertEqual(under, {"reported": "< 1 µg/L"})
        absent = rows(of(from_lab("coliform", qualifier="absent")))
        self.assertEqual(absent, {"reported": "absent"})

    def test_eyes_and_the_three_cups(self):
        nose = rows(of(reading("noticed", EYES, Noticed(signs=("haze",)))))
        self.assertEqual(list(nose), ["noticed"])
        eyes = replace(EYES, analyte="colour")
        cups = rows(of(reading("colour", eyes, CupsSeen(drawn="clears_top_down"))))
        self.assertEqual(
            cups,
            {"as drawn": "clears top down", "after standing": "not yet", "powder": "not used"},
        )

    def test_the_title_asks_for_what_is_shown(self):
        self.assertEqual(of(tds(412, 415, 409)).title, "Why 412 mg/L?")


if __name__ == "__main__":
    unittest.main()


class Digits(unittest.TestCase):
    """As many as the instrument shows, and one more."""

    def test_of_a_meter_one(self):
        # 2.26 % of 55.56 is 1.256; half a step of 2.54 is 1.27
        kit = tds_meter("reading", accuracy_share=0.0226, resolution=2.54)
        said = rows(of(reading("tds", kit, MeterDisplays(displays=(55.56, 55.56)))))
        self.assertEqual(said["highest display"], "55.6 mg/L")
        self.assertEqual(said["and 2.3 % of it"], "1.3 mg/L")
        self.assertEqual(said["and half a step"], "1.3 mg/L")
        self.assertEqual(said["less half a step"], "1.3 mg/L")

    def test_of_drops_two(self):
        w = of(reading("hardness", drop_kit(value=0.127), DropCount(drops=4)))
        self.assertEqual(rows(w)["one drop fewer did not: at least"], "0.38 gpg")
        self.assertEqual(rows(w)["the last drop changed it: at most"], "0.51 gpg")
        marked = [r.label for r in w.rows if r.total]
        self.assertEqual(marked, ["the last drop changed it: at most"])

    def test_of_pads_two_and_of_a_report_four(self):
        strip = replace(STRIP, steps=(0.0, 0.127, 1.0))
        between = of(reading("iron", strip, PadMatch(pad=0, between=True)))
        self.assertEqual(rows(between), {"between": "0 and 0.13 mg/L"})
        told = rows(of(from_lab("iron", 0.01234)))
        self.assertEqual(told["reported"].split()[0], "0.0123")
