"""Every route against every role, read and write: what the table says is what happens, and no route
is without a line.
"""

import re
from dataclasses import replace
from uuid import UUID, uuid4

from tests.api.client import HOME_1, HOME_2, HOME_7, MOVE, ApiCase
from tests.application import Client
from tests.documents.test_photographs import photo
from zesty_glass.api import may
from zesty_glass.api.app import every_route
from zesty_glass.api.context import policies
from zesty_glass.core.own_limits import FirmRules
from zesty_glass.core.rules import LIMITS
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL, FITTER_EMAIL, MANAGER_EMAIL, PASSWORD
from zesty_glass.documents.codec import plain
from zesty_glass.records import signing
from zesty_glass.records.models import Firm
from zesty_glass.work import signing_in

#: a home whose proposal is accepted, one that has none, and their proposals
ACCEPTED, OTHER = HOME_2, HOME_1
NOW = "2026-11-20T10:00:00Z"


def routes(app):
    for path, methods in app.openapi()["paths"].items():
        for method in methods:
            yield method.upper(), path


#: method and path -> the policy that its handler names
POLICIES = policies(every_route())


class Table(ApiCase):
    def test_every_route_has_a_policy_or_is_open_and_none_is_both(self):
        found = set(routes(self.app))
        opened = set(may.OPEN) - {("GET", "/api/health"), ("GET", "/api/openapi.json")}
        self.assertEqual(found, set(POLICIES) | opened)
        self.assertEqual(set(POLICIES) & opened, set())

    def test_what_changes_prices_limits_and_people_wants_the_password_again(self):
        for route in (
            ("PUT", "/api/firm"),
            ("POST", "/api/firm/limits/{limit}"),
            ("POST", "/api/catalogue/import"),
            ("PUT", "/api/people/{id}"),
            ("POST", "/api/tokens"),
            ("POST", "/api/visits/{id}/erase"),
        ):
            self.assertEqual(POLICIES[route], may.Policy(may.MANAGER, again=True), route)


class Matrix(ApiCase):
    """One request a route and role, with what passes validation, so that the role is what is
    refused.
    """

    @classmethod
    def setUpClass(cls):
        super().setUpClass()
        with cls.app.state.sessions.begin() as db:
            firm = signing.user_by_email(db, EMAIL).firm_id
            signing_in.add_user(
                db, firm, "colleague@larkspout.example", "Colleague", "consultant", PASSWORD
            )
        cls.clients = {
            "consultant": cls.client_of(EMAIL),
            "colleague": cls.client_of("colleague@larkspout.example"),
            "manager": cls.client_of(MANAGER_EMAIL),
            "installer": cls.client_of(FITTER_EMAIL),
            "stranger": Client(cls.app, raise_server_exceptions=False),
        }
        jobs = cls.clients["manager"].get("/api/jobs").json()
        cls.job = next(j["id"] for j in jobs if j["customer"] == "Hesper Dunnoway")
        homes = cls.clients["manager"].get("/api/homes?find=dunnoway").json()["homes"]
        cls.home = homes[0]["id"]

    @classmethod
    def client_of(cls, email):
        c = Client(cls.app, raise_server_exceptions=False)
        c.headers["X-Zesty-Token"] = c.post(
            "/api/session", json={"email": email, "password": PASSWORD}
        ).json()["token"]
        return c

    def test_roles(self):
        for method, template in routes(self.app):
            if (method, template) in may.OPEN or template == "/api/session":
                continue
            for who in ("consultant", "manager", "installer", "stranger"):
                with self.subTest(f"{method} {template} as {who}"):
                    status, text = self.ask(who, method, template, ACCEPTED)
                    if who == "stranger":
                        self.assertEqual(status, 401)
                    elif who in POLICIES[method, template].roles:
                        self.assertNotIn(status, (401, 403), text)
                        self.assertLess(status, 500, text)
                    else:
                        self.assertEqual(status, 403, text)

    def test_a_colleague_gets_nothing_of_a_consultants_by_a_known_id(self):
        for method, template in routes(self.app):
            if "{id}" not in template or template.startswith(("/api/session", "/api/links")):
                continue
            with self.subTest(f"{method} {template}"):
                status, text = self.ask("colleague", method, template, OTHER)
                wrong_role = "consultant" not in POLICIES[method, template].roles
                if template == "/api/homes/{id}/ask":  # this is what a colleague may do
                    self.assertEqual((status, text), (204, ""))
                    continue
                self.assertEqual(status, 403 if wrong_role else 404, text)
                self.assertNotIn("Ottoline", text)

    def test_a_script_without_the_scope_for_it_is_told_no_customer(self):
        scopes = ["read", *may.SCOPES]
        body = {"id": str(uuid4()), "name": "night run", "scopes": scopes}
        made = self.clients["manager"].post("/api/tokens", json=body).json()
        script = Client(self.app, raise_server_exceptions=False)
        script.headers["Authorization"] = f"Bearer {made['token']}"
        self.clients["script"] = script
        self.addCleanup(self.clients.pop, "script")
        opened = [r for r in routes(self.app) if may.script_may(tuple(scopes), *r)]
        self.assertGreater(len(opened), 20)
        for method, template in opened:
            with self.subTest(f"{method} {template}"):
                status, text = self.ask("script", method, template, OTHER)
                self.assertNotEqual(status, 401)
                self.assertNotRegex(text, "Ottoline|Dunnoway")

    def test_a_day_s_list_names_no_colleague_s_visits(self):
        def listed(who):
            return {v["id"] for v in self.clients[who].get("/api/visits").json()}

        self.assertIn(HOME_1, listed("consultant"))
        self.assertEqual(listed("colleague") & listed("consultant"), set())
        self.assertLessEqual(listed("consultant") | listed("colleague"), listed("manager"))

    def test_repeats_with_a_known_id_show_a_colleague_nothing(self):
        colleague = self.clients["colleague"]
        body = {
            "id": HOME_1,
            "customer": {"name": "X"},
            "home": {"name": "x"},
        }
        self.assertEqual(colleague.post("/api/visits", json=body).status_code, 404)
        own = {**body, "id": str(uuid4())}
        self.assertEqual(colleague.post("/api/visits", json=own).status_code, 201)
        again = {"id": uid("home-1-proposal"), "recommended": "today"}
        r = colleague.post(f"/api/visits/{own['id']}/proposals", json=again)
        self.assertEqual(r.status_code, 404)
        mail = {"id": str(uuid4()), "to": "a@b.example", "text": "secret words"}
        path = f"/api/proposals/{uid('home-1-proposal')}/mail"
        self.assertEqual(self.clients["consultant"].post(path, json=mail).status_code, 201)
        r = colleague.post(path, json=mail)
        self.assertEqual(r.status_code, 404)
        self.assertNotIn("secret words", colleague.get("/api/outbox").text)

    def test_a_fitter_sees_homes_whose_proposal_was_accepted_and_no_others(self):
        fitter = self.clients["installer"]
        self.assertEqual(fitter.get(f"/api/visits/{ACCEPTED}").status_code, 200)
        for other in (HOME_1, HOME_7):
            self.assertEqual(fitter.get(f"/api/visits/{other}").status_code, 404)
        seen = {v["id"] for v in fitter.get("/api/visits").json()}
        self.assertEqual(seen, {ACCEPTED})

    def ask(self, who, method, template, home):
        values = self.values(home)
        path = template
        if "/proposals/{id}" in path:
            path = path.replace(
                "{id}", uid("home-2-proposal" if home == ACCEPTED else "home-1-proposal")
            )
        for start, id in (("/api/jobs/{id}", self.job), ("/api/homes/{id}", self.home)):
            if template.startswith(start):
                path = path.replace("{id}", id)
        path = re.sub(r"{(\w+)}", lambda m: values[m[1]], path)
        path += {
            "/api/visits/{id}/pair": f"?first={uuid4()}&second={uuid4()}",
            "/api/visits/{id}/draft": "?recommended=today",
            "/api/track/jobs": "?kind=softener&item=x&analyte=hardness",
            "/api/track/parts": "?label=x&kind=filter",
            "/api/track/proposals": "?year=2026&quarter=3&state=accepted",
        }.get(template, "")
        path += {
            ("PUT", "/api/visits/{id}/pictures/{file_id}"): "?about=reading&of=x",
            ("PUT", "/api/certificates/{file_id}"): "?item=x&certificate=x",
        }.get((method, template), "")
        body = self.body(template, values)
        kind = {"content": body} if isinstance(body, bytes) else {"json": body}
        kind = {} if method == "GET" else kind
        ended = {"Last-Event-ID": "600"}  # a stream that has come to its end
        r = self.clients[who].request(method, path, headers=ended, **kind)
        return r.status_code, r.text[:300]

    def values(self, home):
        n = "home-2" if home == ACCEPTED else "home-1"
        sample = self.manager_view(home)["visit"]["samples"][0]["id"]
        return {
            "id": home,
            "sample_id": sample,
            "reading_id": str(uuid4()),
            "option_id": uid(f"{n}-option-a"),
            "kind": "dishwasher",
            "lab_id": str(uuid4()),
            "demo_id": str(uuid4()),
            "part": "reading",
            "part_id": str(uuid4()),
            "analyte": "iron",
            "key": "tds-1",
            "limit": "iron.stains",
            "to": "declined",
            "change_id": str(uuid4()),
            "follow_id": str(uuid4()),
            "file_id": str(uuid4()),
            "note_id": str(uuid4()),
            "gauge_id": str(uuid4()),
            "move_id": str(uuid4()),
            "payment_id": str(uuid4()),
            "what": "sold",
            "code": "SO-20",
            "check_id": str(uuid4()),
            "device": "refrigerator",
        }

    def manager_view(self, home):
        seen = type(self).__dict__.get("views", {})
        if home not in seen:
            seen = {**seen, home: self.clients["manager"].get(f"/api/visits/{home}").json()}
            type(self).views = seen
        return seen[home]

    def known(self):
        cls = type(self)
        if "firm_and_kit" not in cls.__dict__:
            cls.firm_and_kit = self.get("/api/firm"), self.instrument("tds-1")
        return cls.firm_and_kit

    def body(self, template, v):
        firm, kit = self.known()
        last = {
            "/api/visits/{id}/samples/{sample_id}": {
                "id": v["sample_id"],
                "name": "x",
                "drawn_at": NOW,
            },
            "/api/visits/{id}/samples/{sample_id}/readings/{reading_id}/with/{key}": {
                "id": v["reading_id"],
                "observation": {"method": "meter", "displays": [1, 2]},
                "made_at": NOW,
            },
            "/api/visits/{id}/samples/{sample_id}/readings/{reading_id}": {
                "id": v["reading_id"],
                "analyte": "tds",
                "instrument": kit,
                "observation": {"method": "meter", "displays": [1, 2]},
                "made_at": NOW,
            },
            "/api/visits/{id}/options/{option_id}": {"id": v["option_id"], "name": "x"},
            "/api/visits/{id}/lab-samples/{lab_id}": {
                "id": v["lab_id"],
                "kind": "metals",
                "sample": v["sample_id"],
                "drawn_at": NOW,
            },
            "/api/visits/{id}/demonstrations/{demo_id}": {
                "id": v["demo_id"],
                "made_at": NOW,
                "body": {"kind": "kettle", "sample": v["sample_id"], "litres_day": 2},
            },
            "/api/visits": {"id": str(uuid4()), "customer": {"name": "x"}, "home": {"name": "x"}},
            "/api/visits/{id}": {"version": 1, "note": "x"},
            "/api/visits/{id}/plan": {"version": 1, "started_at": NOW},
            "/api/visits/{id}/again": {"id": str(uuid4())},
            "/api/visits/{id}/home": {
                "version": 1,
                "customer": {"name": "x"},
                "home": {"name": "x"},
            },
            "/api/visits/{id}/care": {"device": "none"},
            "/api/visits/{id}/tastings": {
                "id": str(uuid4()),
                "samples": [str(uuid4()), str(uuid4())],
                "tasters": ["a"],
            },
            "/api/visits/{id}/proposals": {"id": str(uuid4()), "recommended": "today"},
            "/api/proposals/{id}/{to}": {"version": 1},
            "/api/proposals/{id}/until": {"version": 0, "until": "2099-01-01"},
            "/api/proposals/{id}/correction": {"version": 0, "said": "x"},
            "/api/proposals/{id}/payments/{payment_id}": {
                "on": NOW[:10],
                "amount": "1",
                "label": "x",
            },
            "/api/proposals/{id}/payments/{payment_id}/strike": {"because": "x"},
            "/api/jobs/{id}/end": {"version": 0, "because": "x"},
            "/api/jobs/{id}/reopen": {"version": 0, "because": "x"},
            "/api/visits/{id}/close": {"version": 0},
            "/api/visits/{id}/terms": {"version": 0},
            "/api/catalogue/{code}/sale": {"on": True},
            "/api/homes/{id}/notes/{note_id}/close": {"outcome": ""},
            "/api/homes/{id}/owner": {"version": 0, "customer": {"name": "x"}, "since": NOW[:10]},
            "/api/homes/{id}/people": {"version": 0, "people": [{"name": "x"}]},
            "/api/homes/{id}/merge": {"version": 0, "with_home": str(uuid4())},
            "/api/homes/{id}/give": {"to": str(uuid4()), "give": True},
            "/api/proposals/{id}/links": {"id": str(uuid4())},
            "/api/proposals/{id}/mail": {"id": str(uuid4()), "to": "a@b.example"},
            "/api/session/password": {"old": "not this one", "new": "some other words"},
            "/api/session/second-factor": {"code": "000000"},
            "/api/session/second-factor/off": {"password": "not this one"},
            "/api/people/invitations": {
                "id": str(uuid4()),
                "email": f"{uuid4()}@b.example",
                "name": "Somebody",
                "role": "consultant",
            },
            "/api/people/{id}": {"version": 1, "name": "Somebody", "role": "manager"},
            "/api/people/{id}/take-out": {"version": 1},
            "/api/people/{id}/let-in": {"version": 1},
            "/api/people/{id}/new-password": {"id": str(uuid4())},
            "/api/tokens": {"id": str(uuid4()), "name": "a script", "scopes": ["read"]},
            "/api/jobs/{id}/plan": {"version": 0},
            "/api/jobs/{id}/plumbing": {"version": 0, "plumbing": {}},
            "/api/jobs/{id}/fitted": {"version": 0, "on": None},
            "/api/jobs/{id}/ticks": {"sheet": "pipe", "step": 0},
            "/api/jobs/{id}/proofs/{reading_id}": {
                "where": "house",
                "phase": "flushed",
                "reading": {
                    "id": v["reading_id"],
                    "analyte": "tds",
                    "instrument": kit,
                    "observation": {"method": "meter", "displays": [1, 2]},
                    "made_at": NOW,
                },
            },
            "/api/jobs/{id}/changes/{change_id}": {"part": "x", "on": "2026-11-01"},
            "/api/jobs/{id}/moves/{move_id}": MOVE,
            "/api/jobs/{id}/gauges/{gauge_id}": {"part": "x", "on": "2026-11-01", "value": 3},
            "/api/jobs/{id}/follow-ups/{follow_id}": {
                "analyte": "ph",
                "what": "x",
                "on": "2026-11-30",
            },
            "/api/feeds": {"id": str(uuid4())},
            "/api/firm": {k: firm[k] for k in ("version", "settings", "rules")},
            "/api/firm/limits/{limit}": {"version": firm["version"], "take": True},
            "/api/instruments/{key}": kit,
            "/api/instruments/{key}/checks/{check_id}": {
                "on": "2026-11-01",
                "standard": 342,
                "shown": 345,
            },
            "/api/homes/{id}/notes/{note_id}": {"on": "2026-11-01", "text": "x"},
            "/api/homes/contact": b"BEGIN:VCARD\nFN:Somebody\nEND:VCARD",
            "/api/session/prove": {"password": PASSWORD},
            "/api/visits/{id}/pictures/{file_id}": photo(),
            "/api/certificates/{file_id}": photo(),
            "/api/visits/import": b"{}",
            "/api/catalogue/preview": b"[]",
            "/api/catalogue/import": b"[]",
            "/api/homes/preview": b"customer\nSomebody",
            "/api/homes/import": b"customer\nSomebody",
            "/api/laboratory/preview": b"analyte,result\niron,1",
            "/api/visits/{id}/samples/{sample_id}/lab-results": b"analyte,result,unit\niron,1,mg/L",
        }
        return last.get(template, {})


class Proved(ApiCase):
    def test_limits_ask_for_the_password_an_hour_after_it_was_given(self):
        manager = self.manager()
        firm = manager.get("/api/firm").json()
        body = {k: firm[k] for k in ("version", "settings", "rules")}
        self.assertEqual(manager.put("/api/firm", json=body).status_code, 200)
        with self.app.state.sessions.begin() as db:
            user = signing.user_by_email(db, MANAGER_EMAIL)
            for s in signing.sign_ins(db, user.id):
                s.proved_at -= 2 * signing_in.PROVED_FOR
        r = manager.put("/api/firm", json=body)
        self.assertEqual((r.status_code, r.json()["code"]), (403, "session.prove"))
        wrong = manager.post("/api/session/prove", json={"password": "not this one"})
        self.assertEqual(wrong.status_code, 422)
        right = manager.post("/api/session/prove", json={"password": PASSWORD})
        self.assertEqual(right.status_code, 204)
        self.assertEqual(manager.put("/api/firm", json=body).status_code, 200)


class PublishedLimits(ApiCase):
    def test_saving_the_rules_is_having_read_what_is_new(self):
        with self.app.state.sessions.begin() as db:
            row = db.query(Firm).filter(Firm.id == UUID(uid("firm"))).one()
            row.rules = {**row.rules, "published": 0, "limits": []}
        manager = self.manager()
        firm = manager.get("/api/firm").json()
        self.assertTrue(firm["news"])
        body = {k: firm[k] for k in ("version", "settings", "rules")}
        self.assertEqual(manager.put("/api/firm", json=body).status_code, 200)
        self.assertFalse(manager.get("/api/firm").json()["news"])

    def test_a_published_limit_under_an_own_one_is_taken_or_the_own_is_kept(self):
        iron = next(x for x in LIMITS if x.id == "iron.stains")
        ours, before = replace(iron, value=0.1), replace(iron, value=0.4, year=1979)
        kept = plain(FirmRules(limits=(ours,), seen=(before,)))
        with self.app.state.sessions.begin() as db:
            db.query(Firm).filter(Firm.id == UUID(uid("firm"))).one().rules = kept
        manager, path = self.manager(), "/api/firm/limits/iron.stains"
        firm = manager.get("/api/firm").json()
        [q] = firm["questions"]
        self.assertEqual([q[k]["value"] for k in ("was", "now", "own")], [0.4, 0.3, 0.1])
        keep = {"version": firm["version"], "take": False}
        for _ in range(2):  # the same again is harmless
            self.assertEqual(manager.post(path, json=keep).status_code, 200)
        firm = manager.get("/api/firm").json()
        self.assertEqual(firm["questions"], [])
        self.assertEqual(manager.post(path, json=keep | {"take": True}).status_code, 409)
        take = {"version": firm["version"], "take": True}
        self.assertEqual(manager.post(path, json=take).status_code, 200)
        rules = manager.get("/api/firm").json()["rules"]
        self.assertIn(plain(iron), rules["limits"])
