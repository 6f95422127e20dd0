"""Old notes come in by CSV: looked at first, all or nothing, the same file twice is one; and the
homes go out again.
"""

import csv
import io
import unittest

from tests.api.client import HOME_1, ApiCase
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL

GOOD = (
    "customer,house,place,source,people,date,hardness [gpg],tds [mg/L],iron [mg/L],pH\n"
    "Wendeline Rook,Mill house,Marl End,town main,3,2023-05-31,18,430,< 0.05,7.5\n"
    "Wendeline Rook,Mill house,Marl End,town main,3,2024-06-02,19,441,,\n"
    "Barnabet Toll,The old forge,Cinderlow,drilled well,2,,,,,\n"
)


class OldNotes(ApiCase):
    def setUp(self):
        super().setUp()
        self.client = self.manager()

    def post(self, what, text, status=200):
        data = text if isinstance(text, bytes) else text.encode()
        r = self.client.post(
            f"/api/homes/{what}", content=data, headers={"Content-Type": "text/csv"}
        )
        self.assertEqual(r.status_code, status, r.text[:400])
        return r.json()

    def homes(self, find):
        return self.get(f"/api/homes?find={find}")["homes"]

    def test_looked_at_first_nothing_is_stored(self):
        seen = self.post("preview", GOOD.replace("Wendeline", "Looked"))
        self.assertTrue(seen["good"])
        self.assertEqual([r["readings"] for r in seen["rows"]], [4, 2, 0])
        self.assertEqual(self.homes("looked"), [])

    def test_brought_in_twice_it_is_one_home_with_two_visits(self):
        self.post("import", GOOD)
        self.post("import", GOOD)
        (home,) = self.homes("wendeline")
        self.assertEqual((home["visits"], home["last_at"][:10]), (2, "2024-06-02"))
        self.assertEqual(len(self.homes("forge")), 1)
        view = self.get(f"/api/visits/{home['last']}")
        values = view["assessment"]["samples"][0]["water"]["values"]
        self.assertAlmostEqual(values["hardness"]["range"]["best"], 19 * 17.1181, 1)
        # a tenth of 19, and half of its last digit, each way
        self.assertAlmostEqual(values["hardness"]["range"]["low"], (19 - 2.4) * 17.1181, 1)
        self.assertEqual(view["visit"]["samples"][0]["readings"][0]["by"], "old notes")

    def test_a_result_under_its_limit_stays_one(self):
        self.post("import", GOOD)
        years = self.get(f"/api/homes/{self.homes('rook')[0]['id']}/years")
        iron = next(s for s in years["series"] if s["analyte"] == "iron")
        self.assertEqual(iron["points"][0]["range"]["high"], 0.05)

    def test_one_bad_row_stores_nothing_and_says_which(self):
        for column, bad in (
            ("date", "31.05.2023"),
            ("date", "2999-01-01"),
            ("hardness [gpg]", "hard"),
            ("source", "moon"),
            ("people", "many"),
            ("pH", "77"),
        ):
            rows = list(csv.DictReader(io.StringIO(GOOD.replace("Rook", f"Bad{len(bad)}"))))
            rows[0][column] = bad
            out = io.StringIO()
            w = csv.DictWriter(out, rows[0].keys())
            w.writeheader()
            w.writerows(rows)
            seen = self.post("preview", out.getvalue())
            self.assertFalse(seen["good"], column)
            self.assertTrue(seen["rows"][0]["error"] and seen["rows"][0]["remedy"], column)
            p = self.post("import", out.getvalue(), 422)
            self.assertIn("Row 2", p["title"])
            self.assertEqual(self.homes(f"bad{len(bad)}"), [])

    def test_units_are_named_and_fit(self):
        p = self.post("preview", "customer,date,hardness\nA B,2024-01-01,3\n", 422)
        self.assertEqual((p["code"], p["where"]), ("notes.unit", "column hardness"))
        p = self.post("preview", "customer,date,iron [gpm]\nA B,2024-01-01,3\n", 422)
        self.assertEqual(p["code"], "notes.unit")
        p = self.post("preview", "customer,color of the door\nA B,red\n", 422)
        self.assertEqual(p["code"], "notes.column")
        self.assertEqual(self.post("preview", "name\nA\n", 422)["code"], "notes.customer")

    def test_what_is_no_table(self):
        self.post("preview", b"\xff\xfe\x00", 422)
        self.post("import", "customer\n", 422)

    def test_a_consultant_looks_and_does_not_store(self):
        c = self.signed_in(EMAIL)
        kind = {"Content-Type": "text/csv"}
        r = c.post("/api/homes/preview", content=GOOD, headers=kind)
        self.assertEqual(r.status_code, 200)
        r = c.post("/api/homes/import", content=GOOD, headers=kind)
        self.assertEqual(r.status_code, 403)

    def rows(self, path, client=None):
        data = (client or self.client).get(path).content
        return list(csv.DictReader(io.StringIO(data.decode("utf-8-sig"))))

    def test_every_table_says_that_it_is_utf_8_and_has_rows_under_its_heads(self):
        manager = self.manager()
        for path in (
            "/api/homes/table.csv",
            "/api/audit/table.csv",
            "/api/catalogue/file?form=csv",
            f"/api/visits/{HOME_1}/readings.csv",
            f"/api/proposals/{uid('home-1-proposal')}/costs.csv",
            "/api/monday/sold.csv",
        ):
            with self.subTest(path):
                data = manager.get(path).content
                self.assertTrue(data.startswith(b"\xef\xbb\xbf"), data[:80])
                self.assertEqual(data.count(b"\n"), data.count(b"\r\n"))
                self.rows(path, manager)

    def test_homes_go_out_as_a_table_of_what_one_sees(self):
        rows = self.rows("/api/homes/table.csv?find=ottoline")
        self.assertEqual(
            [(r["customer"], r["source"]) for r in rows], [("Ottoline Marrash", "city")]
        )
        every = self.rows("/api/homes/table.csv")
        self.assertEqual(len(every), self.get("/api/homes")["total"])


if __name__ == "__main__":
    unittest.main()
