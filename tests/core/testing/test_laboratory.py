"""Laboratory samples: holding times, chain, panels; and results from CSV, by row."""

import unittest
from datetime import UTC, datetime, timedelta

from hypothesis import given
from hypothesis import strategies as st

from tests.making import home, water
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Care, Source
from zesty_glass.core.testing.bottles import panel
from zesty_glass.core.testing.laboratory import (
    KINDS,
    Corrected,
    LabSample,
    Skipped,
    status,
    unexplained_times,
)
from zesty_glass.core.testing.value import Value
from zesty_glass.documents import lab_csv

DRAWN = datetime(2026, 11, 20, 8, 0, tzinfo=UTC)


def bottle(kind="bacteria", **more):
    return LabSample(**{"id": "b", "kind": kind, "sample": "raw", "drawn_at": DRAWN, **more})


class PutRight(unittest.TestCase):
    def test_a_step_left_out_needs_its_reason(self):
        for because in ("", "  ", "no"):
            with self.assertRaises(RuleError) as e:
                bottle(skipped=(Skipped(step="Flush the cold tap.", because=because),))
            self.assertEqual(e.exception.code, "lab.because")
        bottle(skipped=(Skipped(step="Flush the cold tap.", because="dry"),))  # three letters say

    def test_a_step_left_out_is_told(self):
        kept = bottle(skipped=(Skipped(step="Flush the cold tap.", because="low well"),))
        words = status(kept, DRAWN).sentence
        self.assertIn("Left out in drawing: Flush the cold tap (low well).", words)

    def test_a_time_that_stood_changes_only_with_a_reason(self):
        kept = bottle()
        later = DRAWN + timedelta(hours=1)
        self.assertEqual(unexplained_times(kept, bottle(drawn_at=later)), ("drawn_at",))
        told = (Corrected(field="drawn_at", was=DRAWN, because="watch was wrong"),)
        right = bottle(drawn_at=later, corrected=told)
        self.assertEqual(unexplained_times(kept, right), ())
        # the reason stays, and one reason is not good for two changes
        self.assertEqual(unexplained_times(right, bottle(drawn_at=later)), ("corrected",))
        again = bottle(drawn_at=later + timedelta(hours=1), corrected=told)
        self.assertEqual(unexplained_times(right, again), ("drawn_at",))

    def test_the_next_time_of_the_chain_needs_no_reason(self):
        handed = bottle(handed_at=DRAWN + timedelta(hours=2))
        self.assertEqual(unexplained_times(bottle(), handed), ())


class Chain(unittest.TestCase):
    def test_holding_times(self):
        self.assertEqual(
            {k.id: k.holding_h for k in KINDS},
            {
                "bacteria": 30,
                "nitrate": 48,
                "uvt": 48,
                "radon": 96,  # 4 days
                "radium": 120,  # acidified within 5 days
                "lead_copper": 336,  # 14 days
                "copper_flushed": 336,
                "metals": 336,
                "voc": 336,
                "pfas": 336,
                "fluoride": 672,  # 28 days
                "anions": 672,
                "minerals": 336,
            },
        )

    def test_to_the_hour_it_is_in_time(self):
        on_time = status(bottle(), DRAWN + timedelta(hours=30))
        self.assertFalse(on_time.overdue)
        self.assertTrue(status(bottle(), DRAWN + timedelta(hours=30, minutes=1)).overdue)

    def test_under_three_days_are_said_in_hours(self):
        def said(hours):
            return status(bottle("metals"), DRAWN + timedelta(hours=336 - hours)).sentence

        self.assertEqual(said(71.9), "72 h left to reach the laboratory.")
        self.assertEqual(said(72), "3 days left to reach the laboratory.")
        self.assertEqual(said(96), "4 days left to reach the laboratory.")

    def test_countdown_and_overdue(self):
        self.assertEqual(status(bottle(), DRAWN + timedelta(hours=20)).hours_left, 10)
        late = status(bottle(), DRAWN + timedelta(hours=31))
        self.assertTrue(late.overdue)
        self.assertIn("draw a new one", late.sentence)

    def test_the_clock_stops_at_the_laboratory(self):
        b = bottle(received_at=DRAWN + timedelta(hours=5))
        self.assertEqual(status(b, DRAWN + timedelta(days=90)).hours_left, 25)

    def test_bad_chains_are_refused(self):
        for make, code in (
            (lambda: bottle("nothing"), "lab.kind"),
            (lambda: bottle(received_at=DRAWN - timedelta(hours=1)), "lab.chain"),
            (lambda: bottle(drawn_at=datetime(2026, 1, 1)), "lab.zone"),
        ):
            with self.assertRaises(RuleError) as e:
                make()
            self.assertEqual(e.exception.code, code)

    @given(st.floats(0, 2000), st.sampled_from([k.id for k in KINDS]))
    def test_time_only_runs_down(self, hours, kind):
        a, b = (
            status(bottle(kind), DRAWN + timedelta(hours=h)).hours_left for h in (hours, hours + 1)
        )
        self.assertAlmostEqual(a - b, 1, 6)

    def test_every_kind_has_steps_and_a_source(self):
        for k in KINDS:
            self.assertTrue(k.steps and k.source and k.year)

    def test_panels(self):
        well = {
            s.kind
            for s in panel(home(source=Source.WELL_DRILLED, care=Care(consent=True, infant=True)))
        }
        self.assertLessEqual({"bacteria", "nitrate", "metals", "radon", "lead_copper"}, well)
        self.assertEqual(panel(home(source=Source.CITY)), ())
        self.assertIn("uvt", {s.kind for s in panel(home(source=Source.LAKE))})
        self.assertNotIn("bacteria", {s.kind for s in panel(home(), frozenset({"bacteria"}))})


class FollowingReadings(unittest.TestCase):
    """A bottle that a reading calls for is named with its reason; what is known is not drawn."""

    def asked(self, has=frozenset(), words="", **values):
        drawn = water(**values)
        if words:
            drawn.values["coliform"] = Value(
                analyte="coliform", unit="", range=None, words=words, laboratory=True
            )
        return [s.kind for s in panel(home(source=Source.CITY), frozenset(has), drawn)]

    def test_each_reading_has_its_bottle(self):
        for values, kind in (
            ({"ph": 6.5}, "lead_copper"),
            ({"iron": 0.5}, "metals"),
            ({"tannin": 1.0}, "anions"),
            ({"tds": 900.0}, "minerals"),
        ):
            with self.subTest(kind):
                self.assertEqual(self.asked(**values), [kind])
                self.assertEqual(self.asked(has={kind}, **values), [])

    def test_at_its_limit_or_where_it_is_known_nothing_is_asked(self):
        for values in (
            {"ph": 7.0},
            {"iron": 0.3},
            {"tannin": 0.5},
            {"tds": 600.0},
            {"ph": 6.5, "copper": 0.1},
            {"iron": 0.5, "manganese": 0.02},
            {"tannin": 1.0, "sulfate": 20.0},
            {"tds": 900.0, "sodium": 30.0},
        ):
            with self.subTest(values):
                self.assertEqual(self.asked(**values), [])

    def test_bacteria_ask_for_the_transmittance(self):
        self.assertEqual(self.asked(words="present"), ["uvt"])
        self.assertEqual(self.asked(words="present", uvt=90.0), [])
        self.assertEqual(self.asked(words="absent"), [])

    def test_what_a_reading_asks_for_is_not_named_twice(self):
        place = home(source=Source.WELL_DRILLED, pipe_material="copper")
        kinds = [s.kind for s in panel(place, frozenset(), water(ph=6.2, iron=1.0))]
        self.assertEqual(kinds[:2], ["lead_copper", "metals"])
        self.assertEqual(len(kinds), len(set(kinds)))


class Csv(unittest.TestCase):
    def rows(self, text):
        return lab_csv.read(text.encode())

    def one(self, analyte, result, unit="", basis="", sign=",", **more):
        head = sign.join(("analyte", "result", "unit", "basis", *more))
        cells = (f'"{x}"' for x in (analyte, result, unit, basis, *more.values()))
        (row,) = self.rows(f"{head}\n{sign.join(cells)}\n").rows
        return row

    def test_commas(self):
        for result, sign, best in (
            ("0,012", ",", 0.012),
            ("0,012", ";", 0.012),
            ("1,234", ";", 1.234),
            ("12,5", ",", 12.5),
            ("1,234.5", ",", 1234.5),
            ("1,234,567", ",", 1234567),
            ("1 250", ",", 1250),
        ):
            with self.subTest(f"{result} {sign}"):
                row = self.one("chloride", result, "mg/L", sign=sign)
                self.assertEqual((row.error, row.value.range.best), ("", best))
        row = self.one("chloride", "1,234", "mg/L")
        self.assertEqual((row.result, row.where), (None, "result"))
        self.assertIn("1234 or 1.234", row.error)

    def test_units_as_laboratories_write_them(self):
        for analyte, result, unit, basis, best in (
            ("lead", "5", "ug/l", "", 0.005),
            ("lead", "5", "\u03bcg/L", "", 0.005),
            ("lead", "5", "\u00b5g/L", "", 0.005),
            ("iron", "0.4", "mg/l", "", 0.4),
            ("ph", "7.4", "SU", "", 7.4),
            ("hardness", "2", "mmol/L", "", 200.17),
            ("alkalinity", "3.2", "mmol/L", "", 160.14),
            ("alkalinity", "195", "mg/L HCO3", "", 159.93),
            ("alkalinity", "160", "mg/L", "as CaCO\u2083", 160),
            ("calcium", "76", "mg/L", "Ca", 189.8),
            ("magnesium", "12", "mg/L", "Mg", 49.4),
            ("nitrate", "44.27", "mg/L as NO3", "", 10.0),
        ):
            with self.subTest(f"{analyte} {unit} {basis}"):
                row = self.one(analyte, result, unit, basis)
                self.assertEqual(row.error, "")
                self.assertAlmostEqual(row.value.range.best, best, delta=0.003 * best)

    def test_a_basis_is_not_guessed(self):
        for analyte in ("calcium", "magnesium", "alkalinity", "nitrate", "nitrite"):
            with self.subTest(analyte):
                self.assertEqual(self.one(analyte, "9", "mg/L").where, "basis")

    def test_words_for_nothing_found(self):
        self.assertEqual(self.one("e. coli", "ND").value.words, "absent")
        self.assertEqual(self.one("coliform", "<1").value.words, "absent")
        row = self.one("arsenic", "BDL", "ppb", detection_limit="1")
        self.assertAlmostEqual(row.value.below, 0.001)
        over = self.one("turbidity", ">200.5", "NTU").value
        self.assertEqual((over.range.low, over.range.high), (200.5, None))
        self.assertIn("detection limit", self.one("arsenic", "0", "ppb").error)

    def test_certified_only_where_it_says_so(self):
        for cell, known in (("yes", True), ("no", False), ("", False)):
            self.assertEqual(self.one("lead", "5", "ppb", certified=cell).value.certified, known)
        self.assertIsNone(self.one("lead", "5", "ppb").result.certified)

    def test_a_row_can_be_left_out(self):
        text = "analyte,result,unit\niron,1,mg/L\nunobtainium,2,mg/L\n"
        self.assertFalse(self.rows(text).good)
        left = lab_csv.read(text.encode(), frozenset({3}))
        self.assertEqual((left.good, [r.row for r in left.rows]), (True, [2]))

    def test_every_way_of_writing_a_result(self):
        p = self.rows(
            "analyte,result,unit,basis,detection_limit,hours_to_count\n"
            "Lead,< 0.5,µg/L,,,\n"
            "arsenic,ND,ppb,,1,\n"
            "Coliform bacteria,absent,,,,\n"
            "nitrate,13.3,mg/L,NO3,,\n"
            "hardness,14,gpg,,,\n"
            "radon,2150,pCi/L,counting,,62\n"
            'chloride,"1,250.5",mg/L,,,\n'
        )
        self.assertTrue(p.good, [r.error for r in p.rows])
        v = {r.analyte: r.value for r in p.rows}
        self.assertAlmostEqual(v["lead"].below, 0.0005)
        self.assertAlmostEqual(v["arsenic"].below, 0.001)
        self.assertEqual(v["coliform"].words, "absent")
        self.assertAlmostEqual(v["nitrate_n"].range.best, 3.0, 1)
        self.assertAlmostEqual(v["hardness"].range.best, 239.65, 1)
        self.assertEqual(round(v["radon"].range.best), 3434)
        self.assertEqual(v["chloride"].range.best, 1250.5)

    def test_errors_by_row(self):
        p = self.rows(
            "analyte;result;unit\nnitrate;3;mg/L\nkryptonite;1;mg/L\nlead;much;mg/L\n"
            "iron;ND;mg/L\niron;0,3;gpg\niron;0,3;mg/L\n"
        )
        self.assertFalse(p.good)
        self.assertEqual([bool(r.error) for r in p.rows], [True, True, True, True, True, False])
        self.assertEqual([r.row for r in p.rows], [2, 3, 4, 5, 6, 7])
        self.assertTrue(all(r.remedy for r in p.rows if r.error))

    def test_files_that_cannot_be_read(self):
        cases = {
            "csv.too_large": b"a" * 10_000_000,
            "csv.encoding": "analyte,result\nlead,1 µg".encode("latin-1"),
            "csv.column": b"what,result\nx,1\n",
            "csv.empty": b"analyte,result\n",
            "csv.rows": b"analyte,result\n" + b"iron,1\n" * 600,
        }
        for code, data in cases.items():
            with self.subTest(code), self.assertRaises(RuleError) as e:
                lab_csv.read(data)
            self.assertEqual(e.exception.code, code)
