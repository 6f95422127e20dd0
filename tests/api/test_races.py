"""Two writers on one version in the same moment, through two processes: one is kept, the other is
told, nothing is lost.
"""

import copy
import multiprocessing
from uuid import uuid4

from tests.api.client import ApiCase
from tests.application import Client
from tests.database import SECRET
from zesty_glass.api.app import create_app
from zesty_glass.demo.load import MANAGER_EMAIL, PASSWORD
from zesty_glass.records.models import Audit

ROUNDS = 8


def writer(url, cookies, token, mine, ready, told):
    """A process with an application of its own: writes when both are ready, and tells what it was
    answered.
    """
    app = create_app(url, SECRET, secure_cookie=False)
    client = Client(app, raise_server_exceptions=False, cookies=cookies)
    client.headers["X-Zesty-Token"] = token
    client.get("/api/session")
    for method, path, body, version in iter(mine.get, None):
        headers = {} if version is None else {"If-Match-Version": str(version)}
        ready.wait(timeout=60)
        r = client.request(method, path, json=body, headers=headers)
        told.put((r.status_code, r.text[:300]))
    app.state.engine.dispose()


class Races(ApiCase):
    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        c = Client(cls.app)
        token = c.post("/api/session", json={"email": MANAGER_EMAIL, "password": PASSWORD}).json()[
            "token"
        ]
        spawn = multiprocessing.get_context("spawn")
        cls.ready = ready = spawn.Barrier(2)  # held: the writers look for it by name
        cls.lines = [(spawn.Queue(), spawn.Queue()) for _ in range(2)]
        url = cls.app.state.engine.url.render_as_string(hide_password=False)
        cls.writers = [
            spawn.Process(
                target=writer, args=(url, dict(c.cookies), token, mine, ready, told), daemon=True
            )
            for mine, told in cls.lines
        ]
        for w in cls.writers:
            w.start()

        def end():
            for mine, _ in cls.lines:
                mine.put(None)
            for w in cls.writers:
                w.join(20)
                w.kill()

        cls.addClassCleanup(end)

    def setUp(self):
        self.client = self.manager()

    def both(self, *asked):
        for (mine, _), request in zip(self.lines, asked, strict=True):
            mine.put(request)
        return [told.get(timeout=60) for _, told in self.lines]

    def race(self, look, write):
        """``look`` gives what is kept and its version; ``write`` the requests of the two writers on
        top of it.
        """
        for n in range(ROUNDS):
            kept, version = look()
            asked, marks = zip(
                *(write(copy.deepcopy(kept), version, f"{n}-{w}") for w in "ab"), strict=True
            )
            answers = self.both(*asked)
            statuses = sorted(s for s, _ in answers)
            self.assertIn(statuses, ([200, 409], [201, 409]), answers)
            won = next(m for (s, _), m in zip(answers, marks, strict=True) if s < 300)
            after, now = look()
            self.assertEqual(now, version + 1)
            self.assertIn(won, str(after))

    def view(self, visit):
        return self.get(f"/api/visits/{visit}")

    def test_visit(self):
        visit = self.new_visit()

        def look():
            v = self.view(visit)
            return v["visit"]["note"], v["versions"]["visit"]

        def write(_, version, mark):
            body = {"version": version, "note": mark}
            return ("PATCH", f"/api/visits/{visit}", body, None), mark

        self.race(look, write)

    def test_home(self):
        visit = self.new_visit()

        def look():
            v = self.view(visit)
            return {k: v["visit"][k] for k in ("customer", "home")}, v["versions"]["home"]

        def write(kept, version, mark):
            kept["home"]["note"] = mark
            return ("PUT", f"/api/visits/{visit}/home", {**kept, "version": version}, None), mark

        self.race(look, write)

    def test_sample(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)

        def look():
            v = self.view(visit)
            return v["visit"]["samples"][0], v["versions"][sample]

        def write(kept, version, mark):
            path = f"/api/visits/{visit}/samples/{sample}"
            return ("PUT", path, {**kept, "readings": [], "name": mark}, version), mark

        self.race(look, write)

    def test_line(self):
        visit, line = self.new_visit(), str(uuid4())
        path = f"/api/visits/{visit}/options/{line}"
        self.send("PUT", path, {"id": line, "name": "x"})

        def look():
            v = self.view(visit)
            return v["visit"]["options"][0], v["versions"][line]

        def write(kept, version, mark):
            return ("PUT", path, {**kept, "name": mark}, version), mark

        self.race(look, write)

    def test_firm(self):
        def look():
            firm = self.get("/api/firm")
            return firm, firm["version"]

        def write(firm, version, mark):
            firm["settings"]["local_rules"] = mark
            body = {k: firm[k] for k in ("version", "settings", "rules")}
            return ("PUT", "/api/firm", body, None), mark

        self.race(look, write)

    def test_kit(self):
        def look():
            kit = self.instrument("tds-1")
            return kit, self.get("/api/firm")["kits"]["tds-1"]

        def write(kit, version, mark):
            return ("PUT", "/api/instruments/tds-1", {**kit, "note": mark}, version), mark

        self.race(look, write)

    def test_bottle(self):
        visit = self.new_visit()
        sample, id = self.new_sample(visit), str(uuid4())
        path = f"/api/visits/{visit}/lab-samples/{id}"
        drawn = {"id": id, "kind": "metals", "sample": sample, "drawn_at": "2026-11-20T10:00:00Z"}
        self.send("PUT", path, drawn)

        def look():
            v = self.view(visit)
            return v["visit"]["lab_samples"][0], v["versions"][id]

        def write(kept, version, mark):
            return ("PUT", path, {**kept, "note": mark}, version), mark

        self.race(look, write)

    def test_demonstration(self):
        visit = self.new_visit()
        sample, id = self.new_sample(visit), str(uuid4())
        reading = self.reading("hard-1", {"method": "drops", "drops": 9})
        self.keep(visit, sample, reading)
        path = f"/api/visits/{visit}/demonstrations/{id}"
        made = {
            "id": id,
            "made_at": "2026-11-20T10:00:00Z",
            "body": {"kind": "kettle", "sample": sample, "litres_day": 2},
        }
        self.send("PUT", path, made)

        def look():
            v = self.view(visit)
            return v["visit"]["demonstrations"][0], v["versions"][id]

        def write(kept, version, mark):
            litres = 1 + version + (0.25 if mark.endswith("a") else 0.5)
            kept["body"]["litres_day"] = litres
            return ("PUT", path, kept, version), f"'litres_day': {litres}"

        self.race(look, write)

    def test_a_proposal_is_decided_once(self):
        for n in range(ROUNDS):
            visit = self.new_visit()
            self.new_sample(visit)
            made = self.send(
                "POST",
                f"/api/visits/{visit}/proposals",
                {"id": str(uuid4()), "recommended": "today", "reasons": "x"},
                201,
            )
            path = f"/api/proposals/{made['id']}"
            shown = self.send("POST", f"{path}/presented", {"version": made["version"]})
            body = {"version": shown["version"], "name": "Ottoline", "path": "M1,1 L2,2 L3,3"}
            first, second = ("accepted", "declined") if n % 2 else ("accepted", "accepted")
            answers = self.both(
                ("POST", f"{path}/{first}", body, None), ("POST", f"{path}/{second}", body, None)
            )
            self.assertEqual(sorted(s for s, _ in answers), [200, 409], answers)

    def test_a_line_is_not_taken_away_from_under_a_change(self):
        visit = self.new_visit()
        for _ in range(ROUNDS):
            line = str(uuid4())
            path = f"/api/visits/{visit}/options/{line}"
            self.send("PUT", path, {"id": line, "name": "x"})
            answers = self.both(
                ("PUT", path, {"id": line, "name": "changed"}, 1), ("DELETE", path, None, 1)
            )
            statuses = [s for s, _ in answers]
            self.assertIn(statuses, ([200, 409], [200, 204]), answers)
            left = [o["name"] for o in self.view(visit)["visit"]["options"]]
            self.assertEqual(left, ["changed"])
            self.send("DELETE", path, None, 204)

    def test_the_same_reading_sent_twice_at_once_is_one(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        for n in range(1, ROUNDS + 1):
            r = self.reading("tds-1", {"method": "meter", "displays": [400 + n]})
            path = f"/api/visits/{visit}/samples/{sample}/readings/{r['id']}"
            answers = self.both(*(("PUT", path, r, None),) * 2)
            self.assertEqual([s for s, _ in answers], [200, 200], answers)
            kept = self.view(visit)["visit"]["samples"][0]["readings"]
            self.assertEqual(len(kept), n)
            self.assertEqual(kept[-1]["id"], r["id"])

    def test_repeats_of_a_meter_are_all_kept(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        for _ in range(ROUNDS):
            r = self.reading("tds-1", {"method": "meter", "displays": [400]})
            path = f"/api/visits/{visit}/samples/{sample}/readings/{r['id']}"
            self.send("PUT", path, r)
            a, b = (
                {**r, "observation": {"method": "meter", "displays": [400, n]}} for n in (401, 402)
            )
            answers = self.both(("PUT", path, a, None), ("PUT", path, b, None))
            self.assertEqual(sorted(s for s, _ in answers), [200, 422], answers)
            refused = next(t for s, t in answers if s == 422)
            self.assertIn("reading.other", refused)

    def test_the_same_visit_started_twice_at_once_is_one(self):
        for _ in range(ROUNDS):
            id = str(uuid4())
            body = {"id": id, "customer": {"name": "Tamsin"}, "home": {"name": "A house"}}
            answers = self.both(*(("POST", "/api/visits", body, None),) * 2)
            self.assertIn(sorted(s for s, _ in answers), ([201, 201], [201, 409]), answers)
            self.assertEqual(self.send("POST", "/api/visits", body, 201)["id"], id)

    def test_items(self):
        for n in range(ROUNDS):
            item = self.get("/api/catalogue")[0]
            files = [[{**item, "warranty": f"mark {n}-{w}."}] for w in "ab"]
            on = self.send("POST", "/api/catalogue/preview", files[0])["revision"]
            path = f"/api/catalogue/import?on={on}"
            answers = self.both(*(("POST", path, f, None) for f in files))
            self.assertEqual(sorted(s for s, _ in answers), [201, 409], answers)
            with self.app.state.sessions.begin() as db:
                trail = [
                    a.after
                    for a in db.query(Audit).filter(Audit.action == "changed").all()
                    if f"mark {n}-" in a.after
                ]
            self.assertEqual(len(trail), 1)
            self.assertIn(self.get("/api/catalogue")[0]["warranty"], trail[0])
