"""People of a firm: invited, joined, changed, taken out; passwords, a second factor, tokens for
scripts, and the audit that a manager reads.
"""

import csv
import io
from importlib import import_module
from unittest import mock
from uuid import UUID, uuid4

import pyotp
from sqlalchemy import text

from tests.api.client import HOME_1, ApiCase
from tests.application import Client
from zesty_glass.api import may
from zesty_glass.api.app import every_route
from zesty_glass.api.context import policies
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL, FITTER_EMAIL, MANAGER_EMAIL, PASSWORD
from zesty_glass.records.models import InvitationRow, SignIn, TokenRow, User, VisitRow
from zesty_glass.work import people, second_factor, signing_in, tokens
from zesty_glass.work.person import Person, now

NEW = "three plain words"


class PeopleCase(ApiCase):
    def setUp(self):
        super().setUp()
        self.client = self.manager()

    def invited(self, role="consultant", email="", status=201):
        email = email or f"{uuid4()}@larkspout.example"
        body = {"id": str(uuid4()), "email": email, "name": "Marl Ansterby", "role": role}
        return email, self.send("POST", "/api/people/invitations", body, status)

    def joined(self, role="consultant"):
        email, made = self.invited(role)
        r = self.stranger().post("/api/join", json={"code": made["code"], "password": NEW})
        self.assertEqual(r.status_code, 204, r.text)
        return email

    def stranger(self):
        return Client(self.app, raise_server_exceptions=False)

    def of(self, email):
        return next(p for p in self.get("/api/people")["people"] if p["email"] == email)


class Joining(PeopleCase):
    def test_who_is_invited_chooses_a_password_and_signs_in(self):
        email, made = self.invited()
        self.assertRegex(made["code"], r"^([A-Z2-9]{5}-){3}[A-Z2-9]{5}$")
        s = self.stranger()
        seen = s.post("/api/join/look", json={"code": made["code"].lower().replace("-", " ")})
        self.assertEqual((seen.json()["firm"], seen.json()["email"]), ("Larkspout", email))
        body = {"code": made["code"], "password": NEW}
        self.assertEqual(s.post("/api/join", json=body).status_code, 204)
        self.assertEqual(
            self.signed_in(email, NEW).get("/api/session").json()["role"], "consultant"
        )
        self.assertEqual(s.post("/api/join", json=body).status_code, 404)  # a code works once

    def test_a_code_that_is_wrong_revoked_or_over_looks_alike(self):
        _, made = self.invited()
        s = self.stranger()
        wrong = s.post("/api/join/look", json={"code": "AAAAA-AAAAA-AAAAA-AAAAA"})
        self.send("DELETE", f"/api/people/invitations/{made['id']}", None, 204)
        revoked = s.post("/api/join/look", json={"code": made["code"]})
        _, late = self.invited()
        with self.app.state.sessions.begin() as db:
            db.get(InvitationRow, UUID(late["id"])).expires_at = now()
        over = s.post("/api/join/look", json={"code": late["code"]})
        for r in (wrong, revoked, over):
            self.assertEqual((r.status_code, r.json()["title"]), (404, wrong.json()["title"]))

    def test_only_the_hash_of_a_code_is_kept(self):
        _, made = self.invited()
        with self.app.state.sessions() as db:
            kept = db.get(InvitationRow, UUID(made["id"])).token_hash
        self.assertNotIn(made["code"].replace("-", ""), kept)
        self.assertEqual(len(kept), 64)

    def test_an_invitation_sent_twice_is_one(self):
        body = {"id": str(uuid4()), "email": "twice@b.example", "name": "Twice", "role": "manager"}
        first = self.send("POST", "/api/people/invitations", body, 201)
        again = self.send("POST", "/api/people/invitations", body, 201)
        self.assertEqual((again["id"], again["code"]), (first["id"], ""))

    def test_an_address_that_signs_in_already_is_refused(self):
        _, p = self.invited(email=EMAIL, status=422)
        self.assertEqual(p["code"], "person.known")
        _, p = self.invited(email="no address", status=422)
        self.assertEqual(p["code"], "person.email")

    def test_a_short_password_keeps_the_code_good(self):
        email, made = self.invited()
        s = self.stranger()
        r = s.post("/api/join", json={"code": made["code"], "password": "short"})
        self.assertEqual((r.status_code, r.json()["code"]), (422, "password.short"))
        r = s.post("/api/join", json={"code": made["code"], "password": NEW})
        self.assertEqual(r.status_code, 204)
        self.signed_in(email, NEW)

    def test_without_mail_a_forgotten_password_is_the_managers(self):
        s = Client(self.app, raise_server_exceptions=False)
        r = s.post("/api/session/forgotten", json={"email": EMAIL})
        self.assertEqual((r.status_code, r.json()["code"]), (422, "session.no_mail"))

    def test_guessing_codes_is_slowed_down(self):
        s = Client(self.app, raise_server_exceptions=False, client=("203.0.113.9", 1))
        codes = [
            s.post("/api/join/look", json={"code": f"GUESS-{n}"}).status_code for n in range(26)
        ]
        self.assertEqual((codes[0], codes[-1]), (404, 429))


class Changing(PeopleCase):
    def test_a_role_changes_with_the_next_request_of_an_open_session(self):
        email = self.joined()
        theirs = self.signed_in(email, NEW)
        self.assertEqual(theirs.get("/api/people").status_code, 403)
        p = self.of(email)
        body = {"version": p["version"], "name": p["name"], "role": "manager"}
        self.send("PUT", f"/api/people/{p['id']}", body)
        self.assertEqual(theirs.get("/api/people").status_code, 200)

    def test_an_old_version_is_refused_with_what_changed(self):
        p = self.of(self.joined())
        body = {"version": p["version"], "name": "Another Name", "role": p["role"]}
        self.send("PUT", f"/api/people/{p['id']}", body)
        c = self.send("PUT", f"/api/people/{p['id']}", {**body, "name": "Third"}, 409)
        self.assertEqual(c["changed"], ["name"])

    def test_the_only_manager_stays_one(self):
        with self.app.state.sessions.begin() as db:
            firm = UUID(uid("firm"))
            for u in db.query(User).filter_by(firm_id=firm, role="manager"):
                u.active = u.email == MANAGER_EMAIL
                u.version += 1
        p = self.of(MANAGER_EMAIL)
        body = {"version": p["version"], "name": p["name"], "role": "consultant"}
        refused = self.send("PUT", f"/api/people/{p['id']}", body, 422)
        self.assertEqual(refused["code"], "person.last_manager")

    def test_who_is_taken_out_is_out_at_once_and_their_visits_go_to_another(self):
        email, heir = self.joined(), self.of(EMAIL)
        theirs = self.signed_in(email, NEW)
        visit = str(uuid4())
        body = {"id": visit, "customer": {"name": "Ilse"}, "home": {"name": "Mill"}}
        self.assertEqual(theirs.post("/api/visits", json=body).status_code, 201)
        p = self.of(email)
        path = f"/api/people/{p['id']}/take-out"
        refused = self.send("POST", path, {"version": p["version"]}, 422)
        self.assertEqual(refused["code"], "person.visits")
        self.send("POST", path, {"version": p["version"], "to": heir["id"]})
        self.assertEqual(theirs.get("/api/visits").status_code, 401)
        with self.app.state.sessions() as db:
            self.assertEqual(str(db.get(VisitRow, UUID(visit)).consultant_id), heir["id"])
            self.assertEqual(db.query(SignIn).filter_by(user_id=UUID(p["id"])).count(), 0)
        s = self.stranger()
        r = s.post("/api/session", json={"email": email, "password": NEW})
        self.assertEqual(r.status_code, 401)
        self.send("POST", f"/api/people/{p['id']}/let-in", {"version": self.of(email)["version"]})
        self.signed_in(email, NEW)

    def test_codes_that_somebody_gave_out_end_with_them(self):
        email = self.joined("manager")
        theirs = self.signed_in(email, NEW)
        body = {
            "id": str(uuid4()),
            "email": f"{uuid4()}@l.example",
            "name": "Nell",
            "role": "manager",
        }
        r = theirs.post("/api/people/invitations", json=body)
        self.assertEqual(r.status_code, 201, r.text)
        look = {"code": r.json()["code"]}
        self.assertEqual(self.stranger().post("/api/join/look", json=look).status_code, 200)
        p = self.of(email)
        self.send("POST", f"/api/people/{p['id']}/take-out", {"version": p["version"]})
        self.assertEqual(self.stranger().post("/api/join/look", json=look).status_code, 404)

    def code_for(self, id):
        """A code for a new password, and how it stands when it is looked at."""
        made = self.send("POST", f"/api/people/{id}/new-password", {"id": str(uuid4())}, 201)
        look = {"code": made["code"]}
        return lambda: self.stranger().post("/api/join/look", json=look).status_code

    def test_open_codes_end_with_every_change_of_a_password_or_a_role(self):
        email = self.joined()
        id = self.of(email)["id"]
        first, second = self.code_for(id), self.code_for(id)
        self.assertEqual((first(), second()), (200, 200))
        theirs = self.signed_in(email, NEW)
        body = {"old": NEW, "new": "quite other words"}
        self.assertEqual(theirs.post("/api/session/password", json=body).status_code, 204)
        self.assertEqual((first(), second()), (404, 404))

        third, made = self.code_for(id), self.code_for(id)
        role = {"version": self.of(email)["version"], "name": "Nell", "role": "manager"}
        self.send("PUT", f"/api/people/{id}", role)
        self.assertEqual((third(), made()), (404, 404))

        out = self.code_for(id)
        self.send("POST", f"/api/people/{id}/take-out", {"version": self.of(email)["version"]})
        self.send("POST", f"/api/people/{id}/let-in", {"version": self.of(email)["version"]})
        self.assertEqual(out(), 404)

    def test_a_chosen_password_ends_the_other_codes(self):
        email = self.joined()
        id = self.of(email)["id"]
        other = self.code_for(id)
        made = self.send("POST", f"/api/people/{id}/new-password", {"id": str(uuid4())}, 201)
        same = {"code": made["code"], "password": NEW}
        said = self.stranger().post("/api/join", json=same)
        self.assertEqual((said.status_code, said.json()["code"]), (422, "password.same"))
        chosen = {**same, "password": "quite other words"}
        self.assertEqual(self.stranger().post("/api/join", json=chosen).status_code, 204)
        self.assertEqual(other(), 404)

    def test_codes_of_somebody_called_alike_stay(self):
        one, other = self.joined("manager"), self.joined("manager")  # both are called alike
        body = {"id": str(uuid4()), "email": f"{uuid4()}@l.example", "name": "Xa"}
        theirs = self.signed_in(one, NEW)
        r = theirs.post("/api/people/invitations", json={**body, "role": "manager"})
        look = {"code": r.json()["code"]}
        p = self.of(other)
        self.send("POST", f"/api/people/{p['id']}/take-out", {"version": p["version"]})
        self.assertEqual(self.stranger().post("/api/join/look", json=look).status_code, 200)

    def test_a_fitters_jobs_wait_for_another(self):
        job = next(j for j in self.get("/api/jobs") if j["fitter"] and j["state"] == "planned")
        p, heir = self.of(FITTER_EMAIL), self.of(EMAIL)
        body = {"version": p["version"], "to": heir["id"]}
        self.send("POST", f"/api/people/{p['id']}/take-out", body)
        now = self.get(f"/api/jobs/{job['id']}")["job"]
        self.assertEqual((now["fitter"], now["fitter_id"]), (heir["name"], heir["id"]))
        version = self.of(FITTER_EMAIL)["version"]
        self.send("POST", f"/api/people/{p['id']}/let-in", {"version": version})

    def test_a_fitter_takes_no_visits_on(self):
        p, fitter = self.of(EMAIL), self.of(FITTER_EMAIL)
        body = {"version": p["version"], "to": fitter["id"]}
        refused = self.send("POST", f"/api/people/{p['id']}/take-out", body, 422)
        self.assertEqual(refused["code"], "person.visits")

    def test_oneself_is_not_taken_out(self):
        self.joined("manager")
        p = self.of(MANAGER_EMAIL)
        refused = self.send(
            "POST", f"/api/people/{p['id']}/take-out", {"version": p["version"]}, 422
        )
        self.assertEqual(refused["code"], "person.self")

    def test_another_firms_people_do_not_exist(self):
        with self.app.state.sessions.begin() as db:
            from zesty_glass.records.models import Firm

            other = Firm(id=uuid4(), name="Others", settings={}, rules={}, version=1)
            db.add(other)
            db.flush()
            user = signing_in.add_user(
                db, other.id, f"{uuid4()}@o.example", "Other", "manager", PASSWORD
            )
            db.flush()
            id = user.id
        body = {"version": 1, "name": "Mine now", "role": "manager"}
        self.send("PUT", f"/api/people/{id}", body, 404)
        self.assertNotIn(str(id), [p["id"] for p in self.get("/api/people")["people"]])


class Passwords(PeopleCase):
    def test_a_new_password_by_a_managers_code_ends_all_sessions(self):
        email = self.joined()
        theirs = self.signed_in(email, NEW)
        id = self.of(email)["id"]
        made = self.send("POST", f"/api/people/{id}/new-password", {"id": str(uuid4())}, 201)
        r = self.stranger().post(
            "/api/join", json={"code": made["code"], "password": "quite other words"}
        )
        self.assertEqual(r.status_code, 204)
        self.assertEqual(theirs.get("/api/session").status_code, 401)
        self.signed_in(email, "quite other words")

    def test_ones_own_new_password_keeps_this_session_and_ends_the_others(self):
        email = self.joined()
        here, there = self.signed_in(email, NEW), self.signed_in(email, NEW)
        wrong = here.post("/api/session/password", json={"old": "wrong words", "new": "x" * 12})
        self.assertEqual((wrong.status_code, wrong.json()["code"]), (422, "session.wrong"))
        body = {"old": NEW, "new": "quite other words"}
        self.assertEqual(here.post("/api/session/password", json=body).status_code, 204)
        self.assertEqual(here.get("/api/session").status_code, 200)
        self.assertEqual(there.get("/api/session").status_code, 401)
        self.signed_in(email, "quite other words")


class SecondFactor(PeopleCase):
    def on(self):
        email = self.joined()
        theirs = self.signed_in(email, NEW)
        begun = theirs.post("/api/session/second-factor").json()
        self.assertIn("<svg", begun["picture"])
        code = pyotp.TOTP(begun["secret"]).now()
        codes = theirs.put("/api/session/second-factor", json={"code": code}).json()["codes"]
        return email, begun["secret"], code, codes, theirs

    def sign_in(self, email, code=""):
        body = {"email": email, "password": NEW, "code": code}
        return self.stranger().post("/api/session", json=body)

    def test_the_password_alone_does_not_open(self):
        email, secret, used, _, _ = self.on()
        r = self.sign_in(email)
        self.assertEqual((r.status_code, r.json()["code"]), (401, "session.code"))
        self.assertEqual(self.sign_in(email, "000000").status_code, 401)
        self.assertEqual(self.sign_in(email, used).status_code, 401)  # digits open once
        later = pyotp.TOTP(secret).at(int(now().timestamp()) + 30)
        self.assertEqual(self.sign_in(email, later).status_code, 200)

    def test_a_wrong_password_says_nothing_of_the_second_factor(self):
        email, *_ = self.on()
        body = {"email": email, "password": "wrong words", "code": ""}
        self.assertEqual(
            self.stranger().post("/api/session", json=body).json()["code"], "session.wrong"
        )

    def test_a_code_on_paper_opens_once(self):
        email, _, _, codes, _ = self.on()
        self.assertEqual(len(set(codes)), second_factor.RECOVERY_CODES)
        self.assertEqual(self.sign_in(email, codes[0].upper()).status_code, 200)
        self.assertEqual(self.sign_in(email, codes[0]).status_code, 401)

    def test_it_is_taken_off_with_the_password_only(self):
        email, _, _, _, theirs = self.on()
        off = "/api/session/second-factor/off"
        self.assertEqual(theirs.post(off, json={"password": "wrong words"}).status_code, 422)
        self.assertEqual(theirs.post(off, json={"password": NEW}).status_code, 204)
        self.assertEqual(self.sign_in(email).status_code, 200)

    def test_nothing_is_in_force_before_its_first_code(self):
        email = self.joined()
        theirs = self.signed_in(email, NEW)
        theirs.post("/api/session/second-factor")
        bad = theirs.put("/api/session/second-factor", json={"code": "123"})
        self.assertEqual(bad.json()["code"], "factor.code")
        self.assertEqual(self.sign_in(email).status_code, 200)


class Scripts(PeopleCase):
    def token(self, *scopes, days=30):
        body = {"id": str(uuid4()), "name": "night export", "scopes": scopes, "days": days}
        made = self.send("POST", "/api/tokens", body, 201)
        s = self.stranger()
        s.headers["Authorization"] = f"Bearer {made['token']}"
        return made, s

    def test_a_reading_token_reads_and_does_nothing_else(self):
        _, s = self.token("read")
        self.assertEqual(s.get("/api/instruments").status_code, 200)
        self.assertEqual(s.get(f"/api/visits/{HOME_1}").status_code, 403)
        _, s = self.token("personal")
        self.assertEqual(s.get(f"/api/visits/{HOME_1}").status_code, 200)
        self.assertEqual(s.patch(f"/api/visits/{HOME_1}", json={"version": 1}).status_code, 403)
        for path in ("/api/people", "/api/tokens", "/api/audit", "/api/session"):
            self.assertEqual(s.get(path).status_code, 403, path)

    def test_every_scope_opens_what_its_table_says(self):
        for scope, opens in may.SCOPES.items():
            for method, path in policies(every_route()):
                beside = may.BESIDE.get((method, path), scope)
                opened = (method, path) in opens
                self.assertEqual(may.script_may((scope, beside), method, path), opened)
        for path, scope in (
            ("/api/instruments", "read"),
            ("/api/visits/{id}", "personal"),
            ("/api/track/jobs", "personal"),
            ("/api/people", ""),
            ("/api/audit", ""),
        ):
            for asked in ("read", "personal"):
                self.assertEqual(may.script_may((asked,), "GET", path), asked == scope, path)
        self.assertFalse(may.script_may((), "GET", "/api/visits"))

    def test_a_token_acts_for_its_maker_and_is_named_in_the_audit(self):
        _, s = self.token("readings")
        sample = str(uuid4())
        body = {"id": sample, "name": "By a script", "drawn_at": "2026-11-20T10:00:00Z"}
        r = s.put(f"/api/visits/{HOME_1}/samples/{sample}", json=body)
        self.assertEqual(r.status_code, 200, r.text)
        lines = self.get(f"/api/audit?target={sample}")["lines"]
        self.assertEqual(lines[0]["who"], "night export (a script)")

    def test_a_script_starts_a_visit_and_makes_a_proposal_and_never_presents_it(self):
        _, s = self.token("proposals", "readings")
        visit, sample, reading = (str(uuid4()) for _ in range(3))
        start = {"id": visit, "customer": {"name": "Kay"}, "home": {"name": "A house"}}
        self.assertEqual(s.post("/api/visits", json=start).status_code, 201)
        at = f"/api/visits/{visit}"
        glass = {"id": sample, "name": "Kitchen", "drawn_at": "2026-11-20T10:00:00Z", "raw": True}
        self.assertEqual(s.put(f"{at}/samples/{sample}", json=glass).status_code, 200)
        made = {
            "id": reading,
            "observation": {"method": "drops", "drops": 22},
            "made_at": "2026-11-20T10:05:00Z",
        }
        path = f"{at}/samples/{sample}/readings/{reading}/with"
        for _ in range(2):
            r = s.put(f"{path}/hard-1", json=made)
            self.assertEqual(r.status_code, 200, r.text)
        self.assertEqual(r.json()["reading"]["instrument"]["id"], "hard-1")
        wrong = s.put(f"{path}/no-such", json=made)
        self.assertEqual(wrong.json()["code"], "reading.kit")

        found = [s.get(f"{at}/suggest").json()["lines"][-1]["option"] for _ in range(2)]
        self.assertEqual(found[0], found[1])
        line = found[0]
        put = s.put(f"{at}/options/{line['id']}", json=line)
        self.assertEqual(put.status_code, 200, put.text)
        proposal = str(uuid4())
        body = {"id": proposal, "recommended": line["id"]}
        self.assertEqual(s.post(f"{at}/proposals", json=body).status_code, 403)
        self.assertEqual(s.get(at).status_code, 403)  # nor does it read the customer
        _, s = self.token("proposals", "personal")
        self.assertEqual(s.post(f"{at}/proposals", json=body).status_code, 201)
        for state in ("presented", "accepted"):
            r = s.post(f"/api/proposals/{proposal}/{state}", json={"version": 1})
            self.assertEqual(r.status_code, 403)

    def test_tokens_of_before_go_on_reading_what_they_read(self):
        made, _ = self.token("read")
        up = import_module("zesty_glass.records.migrations.versions.0023_scopes").upgrade
        with self.app.state.engine.begin() as c:
            with mock.patch("alembic.op.execute", lambda sql: c.execute(text(sql))):
                up()
            kept = c.scalar(text("select scopes from tokens where id = :id"), {"id": made["id"]})
        self.assertEqual(kept, ["read", "personal"])

    def test_a_revoked_or_ended_token_is_worthless(self):
        made, s = self.token("read")
        self.send("DELETE", f"/api/tokens/{made['id']}", None, 204)
        self.assertEqual(s.get("/api/firm").status_code, 401)
        made, s = self.token("read")
        with self.app.state.sessions.begin() as db:
            db.get(TokenRow, UUID(made["id"])).expires_at = now()
        self.assertEqual(s.get("/api/firm").status_code, 401)

    def test_too_many_requests_in_a_minute_wait(self):
        made, _ = self.token("read")
        with self.app.state.sessions.begin() as db:
            for _ in range(tokens.MOST_A_MINUTE):
                tokens.whose(db, made["token"], "198.51.100.4")
            with self.assertRaises(signing_in.TooMany):
                tokens.whose(db, made["token"], "198.51.100.4")

    def test_a_consultant_makes_no_tokens(self):
        c = self.signed_in(EMAIL)
        body = {"id": str(uuid4()), "name": "x y", "scopes": ["read"]}
        self.assertEqual(c.post("/api/tokens", json=body).status_code, 403)

    def test_what_cannot_be_is_refused(self):
        body = {"id": str(uuid4()), "name": "x y", "scopes": ["everything"]}
        self.send("POST", "/api/tokens", body, 422)
        self.send("POST", "/api/tokens", {**body, "scopes": ["read"], "days": 1000}, 422)
        self.send("POST", "/api/tokens", {**body, "scopes": ["read"], "name": " "}, 422)


class TheTrail(PeopleCase):
    def test_pages_filters_and_the_table(self):
        email = self.joined()
        lines = self.get("/api/audit?action=invited")["lines"]
        self.assertTrue(lines)
        self.assertEqual({x["action"] for x in lines}, {"invited"})
        self.assertEqual(self.get("/api/audit?who=nobody%20at%20all")["lines"], [])
        page = self.get("/api/audit")
        if page["next"] is not None:
            after = self.get(f"/api/audit?before={page['next']}")["lines"]
            self.assertLess(after[0]["id"], page["lines"][-1]["id"])
        text = self.client.get("/api/audit/table.csv?action=joined").text
        rows = list(csv.DictReader(io.StringIO(text)))
        self.assertEqual(rows[0]["action"], "joined")
        self.assertNotIn(email, text)

    def test_a_formula_in_the_trail_stays_text(self):
        who = Person(id=uuid4(), firm_id=UUID(uid("firm")), name="=1+1", role="manager")
        with self.app.state.sessions.begin() as db:
            people.versioning.note(db, who, uuid4(), "tried", 1, [])
        text = self.client.get("/api/audit/table.csv?action=tried").text
        self.assertIn("'=1+1", text)
