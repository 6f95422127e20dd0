"""Demonstrations over the wire: kept once, worked out, a tasting's codes drawn here and its ranks
locked.
"""

from datetime import UTC, datetime
from uuid import uuid4

from tests.api.client import HOME_1, HOME_2, HOME_6, ApiCase

AT = "2026-11-20T10:40:00Z"


class DemoCase(ApiCase):
    """Ways of keeping and reading demonstrations."""

    def samples(self, visit):
        return {s["name"]: s["id"] for s in self.get(f"/api/visits/{visit}")["visit"]["samples"]}

    def put(self, visit, body, status=200, id=None, version=None, **more):
        id = id or str(uuid4())
        headers = {} if version is None else {"If_Match_Version": version}
        return id, self.send(
            "PUT",
            f"/api/visits/{visit}/demonstrations/{id}",
            {"id": id, "made_at": AT, "body": body, **more},
            status,
            **headers,
        )

    def shown(self, visit, id):
        return next(
            s
            for s in self.get(f"/api/visits/{visit}")["assessment"]["demonstrations"]
            if s["id"] == id
        )


class Keeping(DemoCase):
    def test_kept_and_worked_out(self):
        raw = self.samples(HOME_1)["Kitchen cold"]
        id, saved = self.put(HOME_1, {"kind": "kettle", "sample": raw, "litres_day": 3})
        self.assertEqual(saved["version"], 1)
        self.assertIn("grams of scale a year", self.shown(HOME_1, id)["sentences"][0])

    def test_sent_twice_is_once_and_changes_ask_for_a_version(self):
        raw = self.samples(HOME_1)["Kitchen cold"]
        body = {"kind": "kettle", "sample": raw, "litres_day": 3}
        id, _ = self.put(HOME_1, body)
        self.assertEqual(self.put(HOME_1, body, id=id)[1]["version"], 1)
        self.assertEqual(
            self.put(HOME_1, {**body, "litres_day": 5}, id=id, version=1)[1]["version"], 2
        )
        self.assertEqual(
            self.put(HOME_1, {**body, "litres_day": 6}, 409, id=id, version=1)[1]["changed"],
            ["body.litres_day"],
        )

    def test_what_cannot_be_is_refused_and_not_stored(self):
        before = len(self.get(f"/api/visits/{HOME_1}")["visit"]["demonstrations"])
        for body, code in (
            ({"kind": "kettle", "sample": str(uuid4())}, "demonstration.refused"),
            ({"kind": "kettle", "sample": "x", "litres_day": -1}, "kettle.litres"),
            ({"kind": "magic"}, "input.union_tag_invalid"),
            ({"kind": "lather", "vials": []}, "lather.vials"),
            ({"kind": "through", "option": "gone"}, "demonstration.refused"),
        ):
            self.assertEqual(self.put(HOME_1, body, 422)[1]["code"], code)
        self.assertEqual(
            self.put(
                HOME_1, {"kind": "kettle", "sample": "x"}, 422, made_at="2044-01-01T00:00:00Z"
            )[1]["code"],
            "demonstration.future",
        )
        self.assertEqual(len(self.get(f"/api/visits/{HOME_1}")["visit"]["demonstrations"]), before)

    def test_struck_with_a_reason_by_another_it_stays_whose_it_was(self):
        raw = self.samples(HOME_1)["Kitchen cold"]
        body = {"kind": "kettle", "sample": raw, "litres_day": 4}
        id, _ = self.put(HOME_1, body)
        self.client = self.manager()
        told = self.put(HOME_1, body, 422, id=id, version=1, struck_at=AT)[1]
        self.assertEqual(told["code"], "struck.because")
        self.put(HOME_1, body, id=id, version=1, struck_at=AT, struck_because="shown wrong")
        made = self.get(f"/api/visits/{HOME_1}")["visit"]["demonstrations"]
        self.assertIn((id, "Perrin Oakhalse"), [(d["id"], d["by"]) for d in made])
        # one that comes struck already is held against its visit all the same
        ghost = {"kind": "kettle", "sample": str(uuid4())}
        struck = {"struck_at": AT, "struck_because": "shown wrong"}
        self.assertEqual(self.put(HOME_1, ghost, 422, **struck)[1]["code"], "demonstration.refused")

    def test_another_visits_demonstration_is_not_here(self):
        raw = self.samples(HOME_1)["Kitchen cold"]
        id, _ = self.put(HOME_1, {"kind": "kettle", "sample": raw})
        self.put(
            HOME_2, {"kind": "kettle", "sample": self.samples(HOME_2)["Kitchen cold"]}, 404, id=id
        )

    def test_words(self):
        words = self.get("/api/demonstrations")
        self.assertEqual(len(words["offered"]), 10)
        self.assertEqual(len(words["not_offered"]), 3)


class Tasting(DemoCase):
    def draw(self, visit, names, status=201, sanitised=(), tasters=("Ada", "Bo")):
        ids = self.samples(visit)
        id = str(uuid4())
        body = {
            "id": id,
            "samples": [ids[n] for n in names],
            "tasters": list(tasters),
            "sanitised": [ids[n] for n in sanitised],
        }
        return id, self.send("POST", f"/api/visits/{visit}/tastings", body, status)

    def kept(self, visit, id):
        return next(
            d for d in self.get(f"/api/visits/{visit}")["visit"]["demonstrations"] if d["id"] == id
        )

    def change(self, visit, made, version, status=200):
        return self.send(
            "PUT",
            f"/api/visits/{visit}/demonstrations/{made['id']}",
            made,
            status,
            If_Match_Version=version,
        )

    def test_from_the_letters_to_the_key(self):
        id, _ = self.draw(HOME_6, ("Kitchen cold", "Their bottled"))
        d = self.kept(HOME_6, id)
        codes = [w["code"] for w in d["body"]["waters"]]
        early = {**d, "body": {**d["body"], "shown_at": datetime.now(UTC).isoformat()}}
        self.assertEqual(self.change(HOME_6, early, 1, 422)["code"], "tasting.early")
        d["body"]["tasters"][0]["ranks"] = {codes[0]: 1, codes[1]: 2}
        self.change(HOME_6, d, 1)
        d["body"]["tasters"][0]["ranks"] = {codes[0]: 2, codes[1]: 1}
        self.assertEqual(self.change(HOME_6, d, 2, 422)["code"], "tasting.locked")
        d["body"]["tasters"][0]["ranks"] = {codes[0]: 1, codes[1]: 2}
        d["body"]["tasters"][1]["ranks"] = {codes[0]: 1, codes[1]: 2}
        self.change(HOME_6, d, 2)
        self.assertEqual(self.shown(HOME_6, id)["result"]["key"], {})
        d["body"]["shown_at"] = datetime.now(UTC).isoformat()
        self.change(HOME_6, d, 3)
        out = self.shown(HOME_6, id)["result"]
        self.assertEqual(
            (out["agreement"]["w"], sorted(out["key"].values())),
            (1, ["Kitchen cold", "Their bottled"]),
        )
        struck = {"struck_at": datetime.now(UTC).isoformat(), "struck_because": "they saw it"}
        self.change(HOME_6, d | struck, 4)
        self.assertEqual(self.kept(HOME_6, id)["struck_because"], "they saw it")
        with self.assertRaises(StopIteration):
            self.shown(HOME_6, id)
        self.change(HOME_6, d, 5)
        self.assertEqual(self.shown(HOME_6, id)["result"], out)
        d["body"]["shown_at"] = None
        self.assertEqual(self.change(HOME_6, d, 6, 422)["code"], "tasting.over")
        self.assertEqual(self.change(HOME_6, d | struck, 6, 422)["code"], "tasting.over")

    def test_codes_cannot_be_brought_along_or_changed(self):
        id, _ = self.draw(HOME_6, ("Kitchen cold", "Their bottled"))
        d = self.kept(HOME_6, id)
        d["body"]["waters"][0]["sample"], d["body"]["waters"][1]["sample"] = (
            d["body"]["waters"][1]["sample"],
            d["body"]["waters"][0]["sample"],
        )
        self.assertEqual(self.change(HOME_6, d, 1, 422)["code"], "tasting.changed")
        d["id"] = str(uuid4())
        self.assertEqual(self.change(HOME_6, d, 0, 422)["code"], "tasting.draw")

    def test_water_that_may_not_be_drunk_is_refused(self):
        self.assertIn(
            "not flushed",
            self.draw(HOME_6, ("Kitchen cold", "Pitcher, new"), 422, ("Pitcher, new",))[1]["title"],
        )
        self.assertIn(
            "private supply",
            self.draw(HOME_2, ("Kitchen cold", "Flushed, for copper"), 422)[1]["title"],
        )

    def test_too_few_and_too_many(self):
        self.draw(HOME_6, ("Kitchen cold",), 422)
        self.draw(
            HOME_6, ("Kitchen cold", "Their bottled"), 422, tasters=[f"t{i}" for i in range(7)]
        )
        self.assertEqual(
            self.draw(HOME_6, ("Kitchen cold", "Their bottled"), 422, tasters=("Ada", "ada"))[1][
                "code"
            ],
            "tasting.tasters",
        )
