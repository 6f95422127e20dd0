"""The firm's homes, one over the years, and its own record, over the wire."""

from datetime import date, timedelta
from uuid import uuid4

from tests.api.client import ApiCase
from zesty_glass.demo.load import FITTER_EMAIL
from zesty_glass.records import homes as records


class Homes(ApiCase):
    def names(self, query):
        return [h["customer"] for h in self.get(f"/api/homes?{query}")["homes"]]

    def test_found_by_parts_of_name_house_and_place(self):
        self.assertEqual(self.names("find=kettle"), ["Orrin Kettleby"])
        self.assertEqual(self.names("find=CHALK+steps"), ["Orrin Kettleby"])
        self.assertEqual(self.names("find=marl+pike"), ["Tolland Wray-Pike"])
        self.assertEqual(self.names("find=%25"), self.names(""))
        self.assertEqual(self.names("find=nobody"), [])

    def test_filters_combine_and_count(self):
        page = self.get("/api/homes?place=Cinderlow")
        self.assertEqual(page["total"], len(page["homes"]))
        self.assertTrue(all(h["place"] == "Cinderlow" for h in page["homes"]))
        self.assertLess(len(self.names("place=Cinderlow&find=brackenreed")), page["total"])
        springs = self.get("/api/homes?source=spring")["homes"]
        self.assertEqual({h["source"] for h in springs}, {"spring"})

    def test_homes_with_a_kind_of_stage_that_was_fitted(self):
        softened = self.get("/api/homes?fitted=softener")["homes"]
        self.assertIn("Orrin Kettleby", {h["customer"] for h in softened})
        self.assertLess(len(softened), self.get("/api/homes")["total"])
        self.assertEqual(self.names("fitted=arsenic"), [])
        # a job that is planned is not fitted yet
        self.assertNotIn("Hesper Dunnoway", self.names("fitted=neutraliser"))
        self.assertEqual(self.get("/api/homes?fitted=no_such", 422)["code"], "homes.fitted")

    def test_homes_by_what_was_found_and_by_what_stands_there(self):
        arsenic = self.names("found=arsenic")
        self.assertEqual(arsenic, ["Corvane Stillbrook", "Lys Marrowby"])
        self.assertEqual(self.names("found=arsenic&source=city"), [])
        self.assertIn("Ottoline Marrash", self.names("there=fridge"))
        self.assertNotIn("Corvane Stillbrook", self.names("there=fridge"))
        self.assertIn("Ottoline Marrash", self.names("there=fridge&found=hardness"))
        self.assertEqual(self.names("there=fridge&found=arsenic"), [])
        self.assertEqual(self.get("/api/homes?found=gold", 422)["code"], "homes.found")
        self.assertEqual(self.get("/api/homes?there=well", 422)["code"], "homes.there")

    def step(self, visit, name):
        version = self.get(f"/api/visits/{visit}")["versions"]["visit"]
        self.send("PATCH", f"/api/visits/{visit}", {"version": version, "step": name})

    def test_what_is_found_follows_the_latest_readings_whichever_visit_is_opened(self):
        id = self.new_visit()
        self.assertNotIn("Tamsin Roakwell", self.names("found=hardness"))
        told = self.reading("hard-1", {"method": "drops", "drops": 24})
        self.keep(id, self.new_sample(id), told)
        self.step(id, "meaning")
        self.assertIn("Tamsin Roakwell", self.names("found=hardness"))
        later = self.send("POST", f"/api/visits/{id}/again", {"id": str(uuid4())}, 201)["id"]
        self.step(later, "meaning")
        self.assertIn("Tamsin Roakwell", self.names("found=hardness"))
        soft = self.reading("hard-1", {"method": "drops", "drops": 0})
        self.keep(later, self.new_sample(later), soft)
        self.step(later, "show")
        self.assertNotIn("Tamsin Roakwell", self.names("found=hardness"))
        self.step(id, "show")
        self.assertNotIn("Tamsin Roakwell", self.names("found=hardness"))
        struck = {"because": "another house"}
        self.send("POST", f"/api/visits/{later}/readings/{soft['id']}/strike", struck)
        self.assertIn("Tamsin Roakwell", self.names("found=hardness"))

    def test_homes_where_something_falls_due(self):
        now = self.get("/api/homes?due=0")["homes"]
        self.assertTrue(now)
        for h in now:
            self.assertLessEqual(h["due_on"], date.today().isoformat())
        later = self.get("/api/homes?due=3650")
        self.assertGreater(later["total"], len(now))
        self.get("/api/homes?due=-1", 422)

    def test_filters_hold_in_the_table_too(self):
        text = self.client.get("/api/homes/table.csv?fitted=softener&due=0").text
        found = self.names("fitted=softener&due=0")
        self.assertTrue(found)
        self.assertEqual(len(text.strip().splitlines()) - 1, len(found))

    def test_pages_follow_each_other(self):
        was, records.PAGE = records.PAGE, 4
        self.addCleanup(setattr, records, "PAGE", was)
        seen, more = [], ""
        for _ in range(9):
            page = self.get(f"/api/homes?after={more}")
            seen += [h["id"] for h in page["homes"]]
            more = page["more"]
            if not more:
                break
        self.assertEqual(len(seen), len(set(seen)))
        self.assertEqual(len(seen), page["total"])

    def test_a_page_that_nobody_was_told_of(self):
        self.assertEqual(self.get("/api/homes?after=x", 422)["code"], "homes.after")

    def test_a_fitter_finds_homes_with_a_job_only(self):
        fitter = self.signed_in(FITTER_EMAIL)
        mine = {h["customer"] for h in fitter.get("/api/homes").json()["homes"]}
        self.assertIn("Orrin Kettleby", mine)
        self.assertNotIn("Aldith Crane-Pomfrey", mine)

    def test_what_falls_due_next_stands_with_the_home(self):
        home = self.get("/api/homes?find=brackenreed")["homes"][0]
        self.assertEqual(home["state"], "overdue")


class Years(ApiCase):
    def test_readings_of_the_visits_and_of_the_job(self):
        id = self.get("/api/homes?find=kettleby")["homes"][0]["id"]
        home = self.get(f"/api/homes/{id}/years")
        tds = next(s for s in home["series"] if s["analyte"] == "tds")
        self.assertEqual([p["where"] for p in tds["points"]], ["raw", "tap", "tap", "tap"])
        at = [p["at"] for p in tds["points"]]
        self.assertEqual(at, sorted(at))
        self.assertTrue(home["events"][0]["what"].startswith("Fitted"))
        self.assertEqual(len(home["jobs"]), 1)

    def test_another_firms_home_is_not_there(self):
        self.get(f"/api/homes/{uuid4()}/years", 404)


class Track(ApiCase):
    def test_short_and_as_promised_are_counted_by_home(self):
        kept = self.get("/api/track")["kept"]
        softener = next(k for k in kept if k["analyte"] == "hardness")
        self.assertEqual(
            (softener["kind"], softener["homes"], softener["few"]), ("softener", 2, True)
        )
        self.assertEqual((softener["as_promised"], softener["short"]), (1, 1))
        query = "&".join(f"{k}={softener[k]}" for k in ("kind", "item", "analyte"))
        behind = self.get(f"/api/track/jobs?{query}")["lines"]
        self.assertEqual(len(behind), 2)
        self.assertTrue(all(x["customer"] and x["place"] for x in behind))

    def test_by_maker_the_same_homes_are_counted(self):
        track = self.get("/api/track")
        by_item = [k for k in track["kept"] if k["kind"] == "membrane"]
        (line,) = (k for k in track["by_maker"] if k["kind"] == "membrane")
        self.assertEqual(line["homes"], sum(k["homes"] for k in by_item))
        self.assertEqual(line["items"], sorted(k["item"] for k in by_item))
        query = "&".join(
            [f"kind=membrane&analyte={line['analyte']}", *(f"item={i}" for i in line["items"])]
        )
        self.assertEqual(len(self.get(f"/api/track/jobs?{query}")["lines"]), line["homes"])

    def test_parts_are_counted_from_change_to_change(self):
        lasted = self.get("/api/track/more")["lasted"]
        self.assertTrue(lasted)
        for part in lasted:
            self.assertGreater(part["lasted"], 0, part)
            self.assertGreaterEqual(part["changes"], part["homes"])
            self.assertEqual(part["few"], part["homes"] < 5)
            query = f"label={part['label']}&kind={part['kind']}"
            behind = self.get(f"/api/track/parts?{query}")["lines"]
            self.assertEqual(len(behind), part["homes"], part["label"])

    def test_a_change_is_counted_from_the_one_before(self):
        def of(label):
            found = {p["label"]: p for p in self.get("/api/track/more")["lasted"]}
            return found.get(label, {"changes": 0})["changes"]

        until = (date.today() + timedelta(days=700)).isoformat()
        line = self.get(f"/api/due?until={until}")["lines"][0]
        had = of(line["label"])
        body = {"part": line["key"], "on": date.today().isoformat()}
        self.send("PUT", f"/api/jobs/{line['job']}/changes/{uuid4()}", body)
        self.assertEqual(of(line["label"]), had + 1)

    def test_proposals_by_what_became_of_them(self):
        (now, *earlier) = self.get("/api/track/more")["outcomes"]
        self.assertIn("quarter", now["quarter"])
        self.assertGreaterEqual(now["accepted"], 2)
        self.assertGreaterEqual(now["presented"], 1)
        for state in ("presented", "accepted", "declined", "expired"):
            query = f"year={now['year']}&quarter={now['of_year']}&state={state}"
            behind = self.get(f"/api/track/proposals?{query}")["lines"]
            self.assertEqual(len(behind), now[state], state)
        self.get("/api/track/proposals?year=2026&quarter=5&state=accepted", 422)
        every = [o["quarter"] for o in (now, *earlier)]
        self.assertEqual(every, sorted(every, reverse=True))

    def test_pairs_are_raw_waters(self):
        pairs = self.get("/api/track")["pairs"]
        self.assertGreaterEqual(len(pairs), 5)
        self.assertTrue(all(p["tds"] > 0 for p in pairs))
        behind = self.get("/api/track/waters")["lines"]
        self.assertGreaterEqual(len(behind), 5)
        self.assertEqual({p["visit"] for p in pairs}, {""})  # a firm's figures name no visit
