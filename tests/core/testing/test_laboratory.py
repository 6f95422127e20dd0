"""Laboratory samples: holding times, chain, panels; and results from CSV, by row."""

import unittest
from datetime import UTC, datetime, timedelta

from hypothesis import given
from hypothesis import strategies as st

from tests.making import home
from zesty_glass.core.errors import RuleError
from zesty_glass.core.home import Care, Source
from zesty_glass.core.testing.laboratory import KIND_BY_ID, KINDS, LabSample, panel, status
from zesty_glass.documents import lab_csv

DRAWN = datetime(2026, 11, 20, 8, 0, tzinfo=UTC)


def bottle(kind="bacteria", **more):
    return LabSample(**{"id": "b", "kind": kind, "sample": "raw", "drawn_at": DRAWN, **more})


class Chain(unittest.TestCase):
    def test_holding_times(self):
        self.assertEqual(
            {
                k: KIND_BY_ID[k].holding_h
                for k in ("bacteria", "nitrate", "fluoride", "radon", "uvt", "voc")
            },
            {"bacteria": 30, "nitrate": 48, "fluoride": 672, "radon": 96, "uvt": 48, "voc": 336},
        )

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


class Csv(unittest.TestCase):
    def rows(self, text):
        return lab_csv.read(text.encode())

    def test_every_way_of_writing_a_result(self):
        p = self.rows(
            'analyte,result,unit,basis,detection_limit,hours_to_count\nLead,< 0.5,µg/L,,,\narsenic,ND,ppb,,1,\nColiform bacteria,absent,,,,\nnitrate,13.3,mg/L,NO3,,\nhardness,14,gpg,,,\nradon,2150,pCi/L,counting,,62\nchloride,"1,250",mg/L,,,\n'
        )
        self.assertTrue(p.good, [r.error for r in p.rows])
        v = {r.analyte: r.value for r in p.rows}
        self.assertAlmostEqual(v["lead"].below, 0.0005)
        self.assertAlmostEqual(v["arsenic"].below, 0.001)
        self.assertEqual(v["coliform"].words, "absent")
        self.assertAlmostEqual(v["nitrate_n"].range.best, 3.0, 1)
        self.assertAlmostEqual(v["hardness"].range.best, 239.65, 1)
        self.assertEqual(round(v["radon"].range.best), 3434)
        self.assertEqual(v["chloride"].range.best, 1250)

    def test_errors_by_row(self):
        p = self.rows(
            "analyte;result;unit\nnitrate;3;mg/L\nkryptonite;1;mg/L\nlead;much;mg/L\niron;ND;mg/L\niron;0,3;gpg\niron;0,3;mg/L\n"
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
