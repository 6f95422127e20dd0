"""Links, mail and files of a proposal: what a stranger may see, and what nobody may."""

import csv
import io
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

from icalendar import Calendar
from sqlalchemy import update

from tests.api.client import HOME_1, HOME_2, MOVE, ApiCase
from tests.application import Client
from zesty_glass.demo.homes import uid
from zesty_glass.records.models import LinkRow
from zesty_glass.standins.mail import SimulatedMail
from zesty_glass.work import sharing
from zesty_glass.work.jobs import job_id

PROPOSAL, NOTHING = uid("home-1-proposal"), uid("home-7-proposal")


class ShareCase(ApiCase):
    def stranger(self):
        return Client(self.app, raise_server_exceptions=False)

    def link(self, days=30, proposal=PROPOSAL, status=201):
        return self.send(
            "POST", f"/api/proposals/{proposal}/links", {"id": str(uuid4()), "days": days}, status
        )

    def token(self, **more):
        made = self.link(**more)
        return made["link"]["id"], made["path"].removeprefix("/p/")

    def person(self):
        from zesty_glass.work.person import Person

        me = self.get("/api/session")
        return Person(
            id=UUID(me["id"]), firm_id=UUID(uid("firm")), name=me["name"], role=me["role"]
        )


class Links(ShareCase):
    def test_a_stranger_with_a_link_sees_the_proposal_and_no_more(self):
        _, token = self.token()
        s = self.stranger()
        r = s.get(f"/api/offered/{token}")
        self.assertEqual(r.status_code, 200)
        offer = r.json()["offer"]
        self.assertEqual(
            offer,
            {**self.get(f"/api/proposals/{PROPOSAL}")["offer"], "customer": offer["customer"]},
        )
        self.assertEqual((offer["customer"]["phone"], offer["customer"]["email"]), ("", ""))
        self.assertEqual(
            set(r.json()),
            {
                "state",
                "presented_at",
                "decided_at",
                "offer",
                "seal",
                "care",
                "kept",
                "digest",
                "signed_by",
                "until",
                "two_sign",
                "replaced",
                "news",
                "moved",
            },
        )
        self.assertEqual(
            (r.headers["cache-control"], r.headers["referrer-policy"]), ("no-store", "no-referrer")
        )
        self.assertIn("noindex", r.headers["x-robots-tag"])
        self.assertNotIn(HOME_1, r.text)
        self.assertTrue(s.get(f"/api/offered/{token}/pdf").content.startswith(b"%PDF"))
        self.assertEqual(s.get(f"/api/proposals/{PROPOSAL}").status_code, 401)

    def test_tokens_are_long_random_and_not_kept(self):
        (_, a), (_, b) = self.token(), self.token()
        self.assertNotEqual(a, b)
        self.assertGreaterEqual(len(a), 43)
        with self.app.state.sessions.begin() as db:
            kept = [x.token_hash for x in db.query(LinkRow).all()]
        self.assertFalse(any(a in k or b in k for k in kept))
        self.assertNotIn(a, str(self.get(f"/api/proposals/{PROPOSAL}/links")))

    def test_revoked_is_worthless_at_once(self):
        id, token = self.token()
        self.assertEqual(self.stranger().get(f"/api/offered/{token}").status_code, 200)
        self.send("DELETE", f"/api/links/{id}", None, 204)
        self.send("DELETE", f"/api/links/{id}", None, 204)
        r = self.stranger().get(f"/api/offered/{token}")
        self.assertEqual(
            (r.status_code, self.stranger().get("/api/offered/" + "x" * 43).json()["title"]),
            (404, r.json()["title"]),
        )
        self.assertIn(
            "revoked", [x["standing"] for x in self.get(f"/api/proposals/{PROPOSAL}/links")]
        )

    def test_expired_looks_the_same(self):
        id, token = self.token(days=1)
        with self.app.state.sessions.begin() as db:
            db.execute(
                update(LinkRow)
                .where(LinkRow.id == UUID(id))
                .values(expires_at=datetime.now(UTC) - timedelta(seconds=1))
            )
        self.assertEqual(self.stranger().get(f"/api/offered/{token}").status_code, 404)
        self.assertEqual(self.stranger().get(f"/api/offered/{token}/pdf").status_code, 404)

    def test_openings_are_counted(self):
        id, token = self.token()
        for _ in range(3):
            self.stranger().get(f"/api/offered/{token}")
        mine = next(x for x in self.get(f"/api/proposals/{PROPOSAL}/links") if x["id"] == id)
        self.assertEqual((mine["opened"], mine["standing"]), (3, "open"))

    def test_days_and_drafts(self):
        for days in (0, -1, 91, 100000):
            self.assertEqual(self.link(days, status=422)["where"], "days")
        draft = self.send(
            "POST",
            f"/api/visits/{HOME_2}/proposals",
            {"id": str(uuid4()), "recommended": uid("home-2-option-a")},
            201,
        )
        self.assertEqual(self.link(proposal=draft["id"], status=422)["code"], "link.draft")

    def test_the_same_link_is_not_made_twice(self):
        body = {"id": str(uuid4()), "days": 7}
        self.send("POST", f"/api/proposals/{PROPOSAL}/links", body, 201)
        self.assertEqual(
            self.send("POST", f"/api/proposals/{PROPOSAL}/links", body, 422)["code"], "link.twice"
        )


class Braked(ShareCase):
    def test_guessing_is_slowed_down(self):
        s = self.stranger()
        codes = [
            s.get(f"/api/offered/{'g' * 40}{i}").status_code for i in range(sharing.MOST_WRONG + 2)
        ]
        self.assertEqual(set(codes[: sharing.MOST_WRONG]), {404})
        self.assertEqual(codes[-1], 429)

    def test_so_is_opening_one_without_end(self):
        most, sharing.MOST_OPENED = sharing.MOST_OPENED, 2
        self.addCleanup(setattr, sharing, "MOST_OPENED", most)
        with self.app.state.sessions.begin() as db:
            _, token = sharing.make_link(db, self.person(), UUID(PROPOSAL), uuid4(), 3)
            for _ in range(2):
                sharing.open_link(db, token, "elsewhere")
            with self.assertRaises(sharing.TooMany):
                sharing.open_link(db, token, "elsewhere")


class Mail(ShareCase):
    def mail(self, to, status=201, id=None, text="As promised."):
        return self.send(
            "POST",
            f"/api/proposals/{PROPOSAL}/mail",
            {"id": id or str(uuid4()), "to": to, "text": text},
            status,
        )

    def test_it_lies_in_the_outbox_with_a_link_that_opens(self):
        m = self.mail("ottoline@marrash.example")
        self.assertTrue(m["simulated"])
        kept = next(x for x in self.get("/api/outbox") if x["id"] == m["id"])
        self.assertIn("https://water.example/p/(the link, sent and not kept)", kept["text"])
        self.assertIn("As promised.", kept["text"])

    def test_the_link_that_is_sent_opens_and_is_kept_nowhere(self):
        sender = SimulatedMail()
        with self.app.state.sessions.begin() as db:
            m = sharing.mail(
                db, self.person(), UUID(PROPOSAL), uuid4(), "a@b.example", "", 5, "", sender
            )
            kept = m.text
        token = next(x for x in sender.sent[0].text.split() if "/p/" in x).split("/p/")[1]
        self.assertEqual(self.stranger().get(f"/api/offered/{token}").status_code, 200)
        self.assertNotIn(token, kept)

    def test_twice_is_once(self):
        id = str(uuid4())
        self.assertEqual(self.mail("a@b.example", id=id), self.mail("a@b.example", id=id))
        self.assertEqual(sum(x["id"] == id for x in self.get("/api/outbox")), 1)

    def test_bad_addresses(self):
        for to in (
            "",
            "nobody",
            "a@b",
            "a@b.example, c@d.example",
            "a b@c.example",
            "x\n@y.example",
        ):
            self.assertIn(self.mail(to, 422)["code"], ("mail.address",))


class Files(ShareCase):
    def rows(self, path):
        r = self.client.get(path)
        self.assertEqual(r.status_code, 200, r.text[:200])
        self.assertIn("text/csv", r.headers["content-type"])
        return list(csv.DictReader(io.StringIO(r.content.decode("utf-8-sig"))))

    def test_costs_add_up_to_the_totals(self):
        rows = self.rows(f"/api/proposals/{PROPOSAL}/costs.csv")
        for o in self.get(f"/api/proposals/{PROPOSAL}")["offer"]["options"]:
            for c in o["costs"]:
                mine = [
                    float(r["total"])
                    for r in rows
                    if r["name"] == o["name"] and int(r["years"]) == c["years"]
                ]
                self.assertAlmostEqual(sum(mine), float(c["total"]), places=2)

    def test_readings_with_their_ranges(self):
        rows = self.rows(f"/api/visits/{HOME_1}/readings.csv")
        tds = next(r for r in rows if r["analyte"] == "tds" and r["sample"] == "Kitchen cold")
        self.assertLess(float(tds["low"]), float(tds["best"]))
        self.assertLess(float(tds["best"]), float(tds["high"]))
        self.assertEqual(tds["struck"], "no")

    def test_a_formula_is_defused(self):
        visit = self.new_visit()
        self.new_sample(visit, name='=HYPERLINK("x")')
        self.keep(
            visit,
            self.get(f"/api/visits/{visit}")["visit"]["samples"][0]["id"],
            self.reading("hard-1", {"method": "drops", "drops": 3}),
        )
        self.assertEqual(
            self.rows(f"/api/visits/{visit}/readings.csv")[0]["sample"], '\'=HYPERLINK("x")'
        )

    def test_replacements_as_a_calendar(self):
        r = self.client.get(f"/api/proposals/{PROPOSAL}/calendar.ics?start=2027-01-04&years=5")
        self.assertEqual(r.status_code, 200)
        calendar = Calendar.from_ical(r.content)
        events = calendar.walk("VEVENT")
        offer = self.get(f"/api/proposals/{PROPOSAL}")["offer"]
        chosen = next(o for o in offer["options"] if o["id"] == offer["recommended"])
        lines = [
            x
            for x in next(c for c in chosen["costs"] if c["years"] == 5)["lines"]
            if x["interval_months"] is not None
        ]
        filled = [e for e in events if "bags of salt" in str(e["description"])]
        self.assertTrue(filled)
        self.assertEqual(len(events) - len(filled), sum(x["times"] for x in lines))
        self.assertTrue(all(e.decoded("dtstart") > datetime(2027, 1, 4).date() for e in events))
        self.assertEqual(len({str(e["uid"]) for e in events}), len(events))

    def test_nothing_to_replace_is_said(self):
        self.assertEqual(
            self.send("GET", f"/api/proposals/{NOTHING}/calendar.ics", None, 422)["code"],
            "calendar.empty",
        )


class Asking(ShareCase):
    """What a customer writes by their link."""

    def ask(self, token, status=204, **more):
        body = {
            "id": str(uuid4()),
            "about": "visit",
            "text": "May somebody come on Friday?",
            **more,
        }
        r = self.stranger().post(f"/api/offered/{token}/ask", json=body)
        self.assertEqual(r.status_code, status, r.text[:200])
        return body, r

    def test_it_comes_to_who_made_the_visit(self):
        _, token = self.token()
        body, _ = self.ask(token)
        kept = next(m for m in self.get("/api/outbox") if m["id"] == body["id"])
        self.assertIn("asks for a visit", kept["subject"])
        self.assertIn("on Friday", kept["text"])
        self.assertEqual(kept["to"], "perrin@larkspout.example")

    def test_sent_twice_it_is_one_and_too_many_wait(self):
        _, token = self.token()
        body, _ = self.ask(token)
        self.ask(token, id=body["id"])
        self.assertEqual(sum(m["id"] == body["id"] for m in self.get("/api/outbox")), 1)
        for _ in range(4):
            self.ask(token)
        self.ask(token, 429)

    def test_a_wrong_link_or_nothing_written(self):
        _, token = self.token()
        self.ask("x" * 43, 404)
        _, r = self.ask(token, 422, text=" a ")
        self.assertEqual(r.json()["code"], "ask.text")

    def test_a_revoked_link_asks_nothing(self):
        link, token = self.token()
        self.send("DELETE", f"/api/links/{link}", None, 204)
        self.ask(token, 404)


class EveryRoute(ShareCase):
    """Every route of the application, as a stranger, as another firm, and with a
    customer's link.
    """

    OPEN = (
        "/api/session",
        "/api/health",
        "/api/openapi.json",
        "/api/offered/{token}",
        "/api/offered/{token}/accept",
        "/api/offered/{token}/ask",
        "/api/offered/{token}/pdf",
        "/api/feed/{token}",
        "/api/join",
        "/api/join/look",
        "/api/session/forgotten",
        "/api/session/passkey",
        "/api/session/passkey/options",
        "/{path:path}",
    )

    def paths(self):
        spec = self.app.openapi()["paths"]
        ours = {
            "id": HOME_1,
            "sample_id": self.get(f"/api/visits/{HOME_1}")["visit"]["samples"][0]["id"],
            "option_id": uid("home-1-option-a"),
            "kind": "dishwasher",
            "reading_id": self.get(f"/api/visits/{HOME_1}")["visit"]["samples"][0]["readings"][0][
                "id"
            ],
            "lab_id": str(uuid4()),
            "demo_id": uid("home-1-lather"),
            "key": "tds-1",
            "limit": "iron.stains",
            "analyte": "iron",
            "to": "presented",
            "part": "reading",
            "part_id": str(uuid4()),
            "change_id": str(uuid4()),
            "follow_id": str(uuid4()),
            "file_id": str(uuid4()),
            "note_id": str(uuid4()),
            "gauge_id": str(uuid4()),
            "move_id": str(uuid4()),
            "check_id": str(uuid4()),
            "payment_id": str(uuid4()),
            "what": "sold",
            "code": "SO-20",
            "device": "refrigerator",
        }
        own = {
            "/api/proposals/{id}": PROPOSAL,
            "/api/jobs/{id}": str(job_id(UUID(uid("home-2-proposal")))),
            "/api/homes/{id}": self.get("/api/homes?find=ottoline")["homes"][0]["id"],
        }
        for path, methods in spec.items():
            for method in methods:
                if path in self.OPEN:
                    continue
                start = "/".join(path.split("/")[:4])
                values = {**ours, "id": own.get(start, ours["id"])}
                yield method.upper(), path.format(**values), path

    def test_a_stranger_gets_nothing(self):
        s = self.stranger()
        for method, path, _ in self.paths():
            r = s.request(method, path, json={})
            self.assertEqual(r.status_code, 401, (method, path, r.text[:100]))

    def test_a_customers_link_opens_nothing_else(self):
        _, token = self.token()
        s = self.stranger()
        s.get(f"/api/offered/{token}")
        s.cookies.set("zesty_session", token)
        for method, path, _ in self.paths():
            self.assertEqual(
                s.request(
                    method,
                    path,
                    json={},
                    headers={"X-Zesty-Token": token, "Authorization": f"Bearer {token}"},
                ).status_code,
                401,
                (method, path),
            )

    def test_another_firm_finds_nothing(self):
        other = self.other_firm()
        ids = (HOME_1, PROPOSAL, "Ottoline", "Flintlock")
        for method, path, template in self.paths():
            if "{id}" not in template or template.startswith("/api/session"):
                r = other.request(method, path, json={})
                if method == "GET":
                    self.assertFalse(any(x in r.text for x in ids), path)
                continue
            body = self.fit(template, path)
            r = other.request(method, path, json=body)
            self.assertIn(r.status_code, (404, 422), (method, path, r.status_code, r.text[:200]))
            self.assertFalse(any(x in r.text for x in ids[2:]), (method, path))

    def fit(self, template, path):
        """A body that is good enough to pass validation, so that the firm is what refuses."""
        now = "2026-11-20T10:00:00Z"
        last = path.rstrip("/").split("/")[-1]
        return {
            "/api/visits/{id}": {"version": 1, "note": "x"},
            "/api/visits/{id}/plan": {"version": 1, "started_at": now},
            "/api/visits/{id}/again": {"id": str(uuid4())},
            "/api/visits/{id}/samples/{sample_id}": {"id": last, "name": "x", "drawn_at": now},
            "/api/visits/{id}/options/{option_id}": {"id": last, "name": "x"},
            "/api/visits/{id}/demonstrations/{demo_id}": {
                "id": last,
                "made_at": now,
                "body": {"kind": "kettle", "sample": "x"},
            },
            "/api/visits/{id}/readings/{reading_id}/strike": {"because": ""},
            "/api/proposals/{id}/{to}": {"version": 1},
            "/api/proposals/{id}/links": {"id": str(uuid4()), "days": 3},
            "/api/proposals/{id}/mail": {"id": str(uuid4()), "to": "a@b.example"},
            "/api/visits/{id}/proposals": {"id": str(uuid4()), "recommended": "today"},
            "/api/visits/{id}/home": {
                "version": 1,
                "customer": {"name": "x"},
                "home": {"name": "x"},
            },
            "/api/jobs/{id}/plan": {"version": 1},
            "/api/jobs/{id}/plumbing": {"version": 1, "plumbing": {}},
            "/api/jobs/{id}/fitted": {"version": 1, "on": None},
            "/api/jobs/{id}/ticks": {"sheet": "pipe", "step": 0},
            "/api/jobs/{id}/changes/{change_id}": {"part": "x", "on": "2026-11-01"},
            "/api/jobs/{id}/moves/{move_id}": MOVE,
            "/api/jobs/{id}/gauges/{gauge_id}": {"part": "x", "on": "2026-11-01", "value": 3},
            "/api/homes/{id}/notes/{note_id}": {"on": "2026-11-01", "text": "x"},
            "/api/jobs/{id}/follow-ups/{follow_id}": {
                "analyte": "ph",
                "what": "x",
                "on": "2026-11-30",
            },
            "/api/visits/{id}/care": {"device": "none"},
            "/api/visits/{id}/tastings": {
                "id": str(uuid4()),
                "samples": [str(uuid4()), str(uuid4())],
                "tasters": ["a"],
            },
        }.get(template, {})
