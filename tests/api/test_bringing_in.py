"""A file makes a visit of whoever brings it in, and speaks for nobody else."""

import json
from uuid import uuid4

from tests.api.client import HOME_1, HOME_2, ApiCase
from zesty_glass.records.models import ItemRow, VisitRow


class BringIn(ApiCase):
    def file_of(self, visit):
        return json.loads(self.client.get(f"/api/visits/{visit}/file").content)

    def other(self, document):
        """The same under other ids, as it would come from another installation."""
        text = json.dumps(document)
        ids = [document["id"], *(x["id"] for x in document["samples"] + document["options"])]
        ids += [x["id"] for x in document["lab_samples"] + document["demonstrations"]]
        ids += [x["id"] for x in document["proposals"]]
        ids += [r["id"] for s in document["samples"] for r in s["readings"]]
        for id in ids:
            text = text.replace(f'"{id}"', f'"{uuid4()}"')
        return json.loads(text)

    def bring(self, document, status=201, client=None, rules="firm"):
        path = f"/api/visits/import?rules={rules}"
        r = (client or self.client).post(path, content=json.dumps(document))
        self.assertEqual(r.status_code, status, r.text[:500])
        return r.json()

    def view(self, id):
        return self.get(f"/api/visits/{id}")

    def test_an_accepted_proposal_comes_as_history_and_not_as_signed(self):
        document = self.other(self.file_of(HOME_2))
        self.assertEqual(document["proposals"][0]["state"], "accepted")
        id = self.bring(document)["id"]
        (p,) = self.view(id)["visit"]["proposals"]
        self.assertEqual((p["state"], p["signature"]), ("brought_in", None))
        self.assertIn("The file says: accepted by Hesper Dunnoway", p["said"])
        shown = self.get(f"/api/proposals/{p['id']}")
        self.assertEqual((shown["state"], shown["seal"]), ("brought_in", "none"))
        for to in ("presented", "accepted", "declined"):
            body = {"version": shown["version"], "name": "Somebody", "path": "M1,1 L2,2 L3,3"}
            r = self.send("POST", f"/api/proposals/{p['id']}/{to}", body, 422)
            self.assertEqual(r["code"], "proposal.state")
        link = self.send("POST", f"/api/proposals/{p['id']}/links", {"id": str(uuid4())}, 422)
        self.assertEqual(link["code"], "link.draft")

    def test_no_item_of_a_file_goes_on_sale(self):
        document = self.other(self.file_of(HOME_1))
        code = document["catalogue"][0]["code"]
        document["catalogue"][0] |= {"price": "1", "name": "Nearly for nothing"}
        new = {**document["catalogue"][1], "code": "NEW-1"}
        document["catalogue"].append(new)
        with self.app.state.sessions() as db:
            before = {r.code: r.data for r in db.query(ItemRow)}
        id = self.bring(document)["id"]
        with self.app.state.sessions() as db:
            self.assertEqual({r.code: r.data for r in db.query(ItemRow)}, before)
        kept = {i["code"]: i for i in self.view(id)["visit"]["catalogue"]}
        self.assertEqual(kept[code]["name"], "Nearly for nothing")
        self.assertEqual(self.view(HOME_1)["visit"]["catalogue"][0]["name"], before[code]["name"])

    def test_the_firms_rules_hold_and_the_differences_are_told(self):
        document = self.other(self.file_of(HOME_1))
        document["settings"]["iron_factor"] = 9.0
        limit = document["rules"]["limits"][0]
        limit["value"] = limit["value"] * 100 + 1
        v = self.view(self.bring(document)["id"])["visit"]
        self.assertEqual(v["settings"]["iron_factor"], 4.0)
        self.assertNotEqual(v["rules"]["limits"][0]["value"], limit["value"])
        told = " ".join(v["brought"]["differences"])
        self.assertIn("iron factor: 9.0 in the file, 4.0 here", told)
        self.assertIn(f"limit {limit['id']}", told)
        self.assertFalse(v["brought"]["taken"])

    def test_only_a_manager_lets_a_files_rules_hold(self):
        document = self.other(self.file_of(HOME_1))
        document["settings"]["iron_factor"] = 9.0
        self.bring(document, 403, rules="file")
        boss = self.manager()
        id = self.bring(document, client=boss, rules="file")["id"]
        v = boss.get(f"/api/visits/{id}").json()["visit"]
        self.assertEqual((v["settings"]["iron_factor"], v["brought"]["taken"]), (9.0, True))

    def test_who_made_it_stays_as_the_file_says_and_is_marked_so(self):
        document = self.other(self.file_of(HOME_1)) | {"consultant": "Somebody Famous"}
        v = self.view(self.bring(document)["id"])["visit"]
        me = self.get("/api/session")["name"]
        self.assertEqual((v["consultant"], v["brought"]["by"]), ("Somebody Famous", me))
        self.assertEqual(v["brought"]["consultant"], "Somebody Famous")

    def test_ids_that_are_in_use_elsewhere_make_a_visit_of_its_own(self):
        document = self.file_of(HOME_1) | {"id": str(uuid4())}
        id = self.bring(document)["id"]
        self.assertNotIn(id, (HOME_1, document["id"]))
        self.assertEqual(self.bring(document)["id"], id)
        samples = {s["id"] for s in self.view(id)["visit"]["samples"]}
        self.assertFalse(samples & {s["id"] for s in document["samples"]})
        self.assertEqual(
            [len(s["readings"]) for s in self.view(id)["visit"]["samples"]],
            [len(s["readings"]) for s in document["samples"]],
        )

    def test_what_cannot_be_worked_out_is_refused_and_nothing_is_stored(self):
        def reading(d):
            return d["samples"][0]["readings"][0]

        def change(**fields):
            return lambda d: d.update(fields)

        bad = {
            "horizon of a lifetime": change(horizon=100_000),
            "no list at all": change(assumptions_off=None),
            "a long note": change(note="x" * 5_000_000),
            "a price beyond money": lambda d: d["catalogue"][0].update(price="1e400"),
            "a dear one": lambda d: d["catalogue"][0].update(price=999_999_999_999),
            "displays without end": (
                lambda d: reading(d)["observation"].update(displays=[1] * 200_000)
            ),
            "a number beyond numbers": (
                lambda d: reading(d)["observation"].update(displays=[1e308, 1e308])
            ),
            "drops below nothing": (
                lambda d: reading(d).update(observation={"method": "drops", "drops": -5})
            ),
            "an interval of minutes": (
                lambda d: d["catalogue"][0]["consumables"].append(
                    {"code": "x", "name": "x", "kind": "filter", "price": "1", "months": 1e-6}
                )
            ),
            "no currency": lambda d: d["settings"].update(currency="<img src=x>"),
            "an id that is none": lambda d: d["samples"][0].update(id="../../etc"),
            "a snapshot that was changed": lambda d: d["proposals"][0].update(snapshot="{}"),
        }
        with self.app.state.sessions() as db:
            before = db.query(VisitRow).count()
        for name, spoil in bad.items():
            with self.subTest(name):
                document = self.other(self.file_of(HOME_1))
                spoil(document)
                r = self.client.post("/api/visits/import", content=json.dumps(document))
                self.assertIn(r.status_code, (413, 422), r.text[:200])
                self.assertTrue(r.json()["title"] and r.json()["remedy"])
        with self.app.state.sessions() as db:
            self.assertEqual(db.query(VisitRow).count(), before)
