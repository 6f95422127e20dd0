"""The catalog as files: without loss both ways, errors by row, all or nothing."""

import json
import unittest

from hypothesis import given
from hypothesis import strategies as st

from tools.large import large_catalogue
from zesty_glass.catalogue import files
from zesty_glass.catalogue.examples import example_items
from zesty_glass.core.errors import RuleError
from zesty_glass.core.treating.stages import KIND_NAMES

ITEMS = example_items()
BY_CODE = {i.code: i for i in ITEMS}


def rows(data, known=BY_CODE):
    return {r.code: r for r in files.read(data, known)[0].rows}


def changed_json(code, change):
    data = json.loads(files.write_json([BY_CODE[code]]))
    change(data[0])
    return json.dumps(data).encode()


class BothWays(unittest.TestCase):
    def test_json_and_csv_lose_nothing(self):
        for write in (files.write_json, files.write_csv):
            data = write(ITEMS)
            preview, back = files.read(data, {})
            self.assertTrue(preview.good)
            self.assertEqual(set(back), set(ITEMS))
            self.assertEqual(write(back), data)

    def test_order_does_not_change_the_bytes(self):
        self.assertEqual(files.write_csv(reversed(ITEMS)), files.write_csv(ITEMS))

    @given(st.sets(st.sampled_from(range(500)), min_size=1, max_size=20))
    def test_any_part_of_a_large_catalogue(self, chosen):
        large = large_catalogue()
        part = [large[i] for i in chosen if large[i].kind != "system"]
        if part:
            self.assertEqual(set(files.read(files.write_csv(part), {})[1]), set(part))

    def test_semicolons_from_another_spreadsheet(self):
        data = (
            b"code;name;maker;kind;scope;price;figures\nX1;A screen;A"
            b" maker;sediment;house;40;micron=50\n"
        )
        self.assertEqual(files.read(data, {})[1][0].figures.micron, 50)

    def test_it_covers_every_stage(self):
        self.assertEqual({i.kind for i in ITEMS}, set(KIND_NAMES))


class Preview(unittest.TestCase):
    def test_new_changed_and_same(self):
        data = json.loads(files.write_json([BY_CODE["SO-20"], BY_CODE["PT-1"]]))
        data[0]["price"], data[0]["code"] = "99", "NEW-1"
        data[1]["price"] = "2000"
        out = rows(json.dumps([*data, json.loads(files.write_json([BY_CODE["CT-1"]]))[0]]).encode())
        self.assertEqual(
            {c: r.change for c, r in out.items()},
            {"NEW-1": "new", data[1]["code"]: "changed", "CT-1": "same"},
        )
        self.assertEqual(out[data[1]["code"]].fields, ("price",))

    def test_errors_say_where_and_what_to_do(self):
        cases = [
            ("SO-20", lambda d: d["figures"].pop("resin_ft3"), "figures.resin_ft3"),
            ("SO-20", lambda d: d["figures"].update(resin_ft3=0), "items[SO-20]"),
            ("RO-75M", lambda d: d["figures"].update(rejection=1.2), "items[RO-75M]"),
            ("SO-20", lambda d: d.update(price="-5"), "price"),
            ("SO-20", lambda d: d["figures"].update(kind="magic"), "figures"),
            ("DT-1", lambda d: d["figures"].update(parts=["DT-1"]), "items[DT-1]"),
            ("DT-1", lambda d: d["figures"].update(parts=["GONE"]), "figures.parts"),
            (
                "CB-T",
                lambda d: d["consumables"][0].update(months=0, capacity_gal=None),
                "consumables",
            ),
            ("PT-1", lambda d: d.update(coulour="red"), "coulour"),
            ("PT-1", lambda d: d.update(name=" "), "code"),
        ]
        for code, change, where in cases:
            with self.subTest(where):
                data = changed_json(code, change)
                preview, items = files.read(data, BY_CODE)
                (row,) = preview.rows
                self.assertEqual((preview.good, items, row.change), (False, (), "error"))
                self.assertIn(where, row.where)
                self.assertTrue(row.error and row.remedy)

    def test_systems_that_hold_each_other(self):
        a, b = json.loads(files.write_json([BY_CODE["DT-1"], BY_CODE["DT-2"]]))
        a["figures"]["parts"], b["figures"]["parts"] = ["DT-2"], ["DT-1"]
        out = rows(json.dumps([a, b]).encode())
        self.assertEqual({r.change for r in out.values()}, {"error"})
        self.assertIn("holds it again", out["DT-1"].error)

    def test_the_same_code_twice(self):
        one = json.loads(files.write_json([BY_CODE["PT-1"]]))[0]
        preview, _ = files.read(json.dumps([one, one]).encode(), {})
        self.assertEqual([r.change for r in preview.rows], ["new", "error"])

    def test_csv_rows_are_counted_as_a_spreadsheet_counts_them(self):
        head = b"code,name,maker,kind,scope,price,drain,figures,effects\n"
        bad = [
            (b"A,A,M,wine,house,1,,,\n", "kind"),
            (b"A,A,M,sediment,house,1,maybe,micron=5,\n", "drain"),
            (b"A,A,M,sediment,house,1,,five,\n", "figures"),
            (b"A,A,M,sediment,house,1,,micron=5,[{\n", "effects"),
            (b"A,A,M,sediment,garage,1,,micron=5,\n", "scope"),
            (b"A,A,M,sediment,house,cheap,,micron=5,\n", "price"),
        ]
        for line, where in bad:
            with self.subTest(where):
                preview, _ = files.read(head + b"B,B,M,sediment,house,1,,micron=5,\n" + line, {})
                self.assertEqual([r.row for r in preview.rows], [2, 3])
                self.assertEqual((preview.rows[0].change, preview.rows[1].change), ("new", "error"))
                self.assertIn(where, preview.rows[1].where)

    def test_files_that_are_no_catalogue(self):
        for data, code in (
            (b"", "catalogue.column"),
            (b"code,name\n", "catalogue.column"),
            (b"code,name,maker,kind,scope,price,colour\n", "catalogue.column"),
            (b"code,name,maker,kind,scope,price\n", "catalogue.empty"),
            (b"[1, 2", "catalogue.not_json"),
            (b"{}", "catalogue.list"),
            (b"\xff\xfe", "catalogue.encoding"),
            (b"x" * 5_000_001, "catalogue.too_large"),
            (b"[]", "catalogue.empty"),
        ):
            with self.subTest(code), self.assertRaises(RuleError) as e:
                files.read(data, {})
            self.assertEqual(e.exception.code, code)

    def test_a_list_of_numbers_is_no_list_of_items(self):
        self.assertFalse(files.read(b"[1]", {})[0].good)
