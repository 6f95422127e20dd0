"""Signing in, forged requests, strangers and other firms."""

import unittest
from uuid import uuid4

from tests.api.client import HOME_1, ApiCase
from tests.application import Client
from zesty_glass.core.rules import Rules, Settings
from zesty_glass.demo.load import EMAIL
from zesty_glass.documents.codec import plain
from zesty_glass.records.models import Firm, User
from zesty_glass.work import passwords, signing_in


class SignIn(ApiCase):
    def test_who_am_i_and_out(self):
        self.assertEqual(self.get("/api/session")["firm"], "Larkspout")
        self.assertEqual(self.client.delete("/api/session").status_code, 204)
        self.get("/api/session", 401)

    def test_wrong_password_says_nothing_about_who_exists(self):
        stranger = Client(self.app)
        a = stranger.post("/api/session", json={"email": EMAIL, "password": "not this one"})
        b = stranger.post(
            "/api/session", json={"email": "nobody@nowhere.example", "password": "not this one"}
        )
        said = [{**r.json(), "request": ""} for r in (a, b)]
        self.assertEqual((a.status_code, said[0]), (b.status_code, said[1]))
        self.assertEqual(a.status_code, 401)

    def test_cookie_is_not_for_scripts_or_other_sites(self):
        r = Client(self.app).post(
            "/api/session", json={"email": EMAIL, "password": "chalk and cheese"}
        )
        cookie = r.headers["set-cookie"].lower()
        self.assertIn("httponly", cookie)
        self.assertIn("samesite=strict", cookie)

    def test_unsafe_requests_need_their_token(self):
        del self.client.headers["X-Zesty-Token"]
        self.send("PATCH", f"/api/visits/{HOME_1}", {"version": 1, "step": "test"}, 403)

    def test_passwords_are_hashed_with_argon2(self):
        with self.app.state.sessions() as db:
            self.assertTrue(all(u.password_hash.startswith("$argon2id$") for u in db.query(User)))
        # the least that RFC 9106 (2021) recommends: 64 MiB, three passes
        self.assertGreaterEqual(passwords.COST.memory_cost, 64 * 1024)
        self.assertGreaterEqual(passwords.COST.time_cost, 3)

    def test_guessing_is_slowed_down(self):
        stranger = Client(self.app)
        codes = [
            stranger.post(
                "/api/session",
                json={"email": "guessed@larkspout.example", "password": f"guess {i}"},
            ).status_code
            for i in range(10)
        ]
        self.assertEqual(codes[-1], 429)


#: what is for people who are not signed in
OPEN = ("/api/offered/", "/api/feed/", "/api/join", "/api/session/passkey/")


class Strangers(ApiCase):
    def paths(self):
        return [
            (
                m,
                p.replace("{id}", HOME_1)
                .replace("{sample_id}", str(uuid4()))
                .replace("{reading_id}", str(uuid4()))
                .replace("{option_id}", str(uuid4()))
                .replace("{to}", "presented"),
            )
            for p, ops in self.app.openapi()["paths"].items()
            for m in ops
            if p != "/api/session" and not p.startswith(OPEN)
        ]

    def test_every_route_is_closed_to_strangers(self):
        stranger = Client(self.app, raise_server_exceptions=False)
        for method, path in self.paths():
            with self.subTest(f"{method} {path}"):
                r = stranger.request(method, path, json={})
                self.assertIn(r.status_code, (401, 422))
                if r.status_code == 422:
                    self.assertNotIn("Larkspout", r.text)

    def test_another_firm_sees_nothing(self):
        firm = uuid4()
        with self.app.state.sessions.begin() as db:
            db.add(
                Firm(
                    id=firm,
                    name="Another",
                    settings=plain(Settings()),
                    rules=plain(Rules()),
                    version=1,
                )
            )
            db.flush()
            signing_in.add_user(
                db, firm, "other@another.example", "Other", "manager", "another firm entirely"
            )
        other = self.signed_in("other@another.example", "another firm entirely")
        self.assertEqual(other.get("/api/visits").json(), [])
        for path in (
            f"/api/visits/{HOME_1}",
            f"/api/visits/{HOME_1}/file",
            f"/api/visits/{HOME_1}/comparison",
            f"/api/visits/{HOME_1}/draft?recommended=today",
        ):
            self.assertEqual(other.get(path).status_code, 404, path)


if __name__ == "__main__":
    unittest.main()
