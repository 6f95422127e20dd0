"""Guessing is slowed down, in parallel too, and nobody is locked out by it; sessions end."""

from concurrent.futures import ThreadPoolExecutor
from datetime import timedelta

from tests.api.client import HOME_1, ApiCase
from tests.application import Client
from zesty_glass.demo.load import EMAIL, PASSWORD
from zesty_glass.records import signing
from zesty_glass.records.models import SignIn, Throttle
from zesty_glass.work import signing_in
from zesty_glass.work.person import now


class Guessing(ApiCase):
    def guess(self, email, password="wrong wrong wrong", address="203.0.113.5", **headers):
        c = Client(self.app, raise_server_exceptions=False, client=(address, 4000))
        return c.post(
            "/api/session", json={"email": email, "password": password}, headers=headers
        ).status_code

    def test_sixty_tries_at_once_are_no_more_than_are_allowed(self):
        with ThreadPoolExecutor(20) as pool:
            got = list(pool.map(lambda _: self.guess("a@x.example"), range(60)))
        through = got.count(401)
        self.assertLessEqual(through, signing_in.MOST_FAILURES + 2)  # one more after each wait
        self.assertEqual(through + got.count(429), 60)

    def test_a_stranger_who_guesses_locks_nobody_out(self):
        for _ in range(signing_in.MOST_FAILURES + 3):
            self.guess(EMAIL, address="203.0.113.6")
        self.assertEqual(self.guess(EMAIL, address="203.0.113.6"), 429)
        self.assertEqual(self.guess(EMAIL, PASSWORD, address="203.0.113.7"), 200)

    def test_a_header_that_one_sends_oneself_is_nobodys_address(self):
        for n in range(signing_in.MOST_FAILURES + 3):
            self.guess("b@x.example", address="203.0.113.8", **{"X-Forwarded-For": f"192.0.2.{n}"})
        self.assertEqual(
            self.guess("b@x.example", address="203.0.113.8", **{"X-Forwarded-For": "192.0.2.99"}),
            429,
        )

    def test_old_tries_and_ended_sessions_are_removed(self):
        with self.app.state.sessions.begin() as db:
            db.add(Throttle(key="old", count=9, since=now(), last=now() - timedelta(days=3)))
            user = signing.user_by_email(db, EMAIL)
            token, _ = signing_in.sign_in(db, EMAIL, PASSWORD, "192.0.2.1")
            db.flush()
            for s in signing.sign_ins(db, user.id):
                if s.token_hash == signing_in.token_hash(token):
                    s.expires_at = now() - timedelta(minutes=1)
        self.assertEqual(self.guess(EMAIL, PASSWORD, address="203.0.113.9"), 200)
        with self.app.state.sessions.begin() as db:
            self.assertIsNone(db.get(Throttle, "old"))
            self.assertIsNone(db.get(SignIn, signing_in.token_hash(token)))


class Sessions(ApiCase):
    def test_they_are_listed_and_can_be_ended(self):
        other = self.signed_in(EMAIL)
        listed = self.get("/api/session/all")
        self.assertEqual(sum(s["this"] for s in listed), 1)
        theirs = next(s for s in other.get("/api/session/all").json() if s["this"])
        self.send("DELETE", f"/api/session/all/{theirs['id']}", None, 204)
        self.assertEqual(other.get(f"/api/visits/{HOME_1}").status_code, 401)
        self.assertEqual(self.client.get(f"/api/visits/{HOME_1}").status_code, 200)

    def test_an_idle_one_ends_by_itself(self):
        other = self.signed_in(EMAIL)
        me = next(s for s in other.get("/api/session/all").json() if s["this"])
        with self.app.state.sessions.begin() as db:
            for s in db.query(SignIn).all():
                if str(s.id) == me["id"]:
                    s.seen_at = now() - signing_in.IDLE - timedelta(minutes=1)
        self.assertEqual(other.get("/api/session").status_code, 401)


class Answers(ApiCase):
    def test_personal_answers_are_not_stored_and_say_nothing_of_the_server(self):
        for path in ("/api/session", f"/api/visits/{HOME_1}", "/api/visits", "/api/nothing"):
            r = self.client.get(path)
            self.assertEqual(r.headers["cache-control"], "no-store", path)
            self.assertNotIn("server", r.headers)
            self.assertEqual(r.headers["cross-origin-opener-policy"], "same-origin")
            self.assertNotIn("unsafe-inline", r.headers["content-security-policy"])

    def test_requests_that_no_program_sends_are_refused_in_one_form(self):
        for method, path, kind in (
            ("GET", "/api/visits/%00", {}),
            ("GET", "/api/visits/homes?find=%00", {}),
            ("GET", "/api/visits/homes?find=" + "x" * 5000, {}),
            ("GET", "/api/visits/not-an-id", {}),
            ("GET", "/api/visits?day=0001-01-01T00:00:00Z", {}),
            ("GET", "/api/visits?day=9999-12-31T23:59:59Z", {}),
            ("POST", "/api/visits", {"content": b"[" * 100_000}),
            ("POST", "/api/visits/import", {"content": b"[" * 100_000}),
            ("POST", "/api/catalogue/preview", {"content": b"[" * 100_000}),
            (
                "POST",
                "/api/catalogue/preview",
                {"content": b'code,name,maker,kind,scope,price\r"' + b"x" * 200_000 + b'"'},
            ),
            ("POST", "/api/laboratory/preview", {"content": b"analyte,result\riron,1\rph,7\r"}),
            ("POST", "/api/laboratory/preview", {"content": b'analyte,result\niron,"1\r\n2"'}),
            ("PATCH", f"/api/visits/{HOME_1}", {"content": b'{"version": 1, "note": "\\ud800"}'}),
            ("PATCH", f"/api/visits/{HOME_1}", {"content": b'{"version": 1, "note": "a\\u0000b"}'}),
            ("PATCH", f"/api/visits/{HOME_1}", {"content": b'{"version": 1e99}'}),
            ("PATCH", f"/api/visits/{HOME_1}", {"content": b'{"version": NaN}'}),
        ):
            with self.subTest(f"{method} {path[:40]} {str(kind)[:50]}"):
                headers = {"content-type": "application/json"}
                r = self.client.request(method, path, headers=headers, **kind)
                self.assertIn(r.status_code, (200, 400, 404, 414, 422), r.text[:200])
                if r.status_code != 200:
                    self.assertEqual(r.headers["content-type"], "application/problem+json")

    def test_a_token_that_is_no_text_is_refused(self):
        r = self.client.patch(
            f"/api/visits/{HOME_1}",
            json={"version": 1},
            headers={b"x-zesty-token": "ünïcode".encode("latin-1")},
        )
        self.assertEqual(r.status_code, 403)


class Busy(ApiCase):
    def test_more_work_than_may_wait_is_turned_away_with_a_reason(self):
        from unittest import mock

        from zesty_glass.demo.homes import uid
        from zesty_glass.work import apart, printing
        from zesty_glass.work.held import Held

        for error, code in ((apart.Busy, "busy"), (apart.TooMuch, "too_much")):
            # whatever was printed before in this process is not at hand
            with (
                mock.patch.object(apart.Apart, "run", side_effect=error),
                mock.patch.object(printing, "_made", Held(1)),
            ):
                for path in (
                    f"/api/proposals/{uid('home-1-proposal')}/pdf",
                    f"/api/visits/{HOME_1}/suggest",
                ):
                    r = self.client.get(path)
                    self.assertEqual((r.status_code, r.json()["code"]), (503, code))
                    self.assertTrue(r.headers["retry-after"] and r.json()["remedy"])
                text = self.client.get(f"/api/visits/{HOME_1}/suggest/stream").text
                self.assertIn("event: failed", text)
