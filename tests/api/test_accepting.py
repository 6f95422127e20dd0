"""A proposal that is accepted by its link, by who was not there."""

import unittest
from uuid import UUID, uuid4

from tests.api.client import HOME_1
from tests.api.test_sharing import ShareCase
from zesty_glass.demo.homes import uid
from zesty_glass.work.jobs import job_id

STROKES = "M10,80 L40,60 L90,120 L140,60"


class AcceptCase(ShareCase):
    """A proposal of the first home, presented; ``made`` is its id."""

    def setUp(self):
        super().setUp()
        made = self.send(
            "POST",
            f"/api/visits/{HOME_1}/proposals",
            {"id": str(uuid4()), "recommended": uid("home-1-option-b")},
            201,
        )
        self.made = made["id"]
        self.send("POST", f"/api/proposals/{self.made}/presented", {"version": made["version"]})

    def token(self, **more):
        return super().token(proposal=self.made, **more)

    def told(self) -> list[dict]:
        return [
            m
            for m in self.get("/api/outbox")
            if m["proposal"] == self.made and "accepted proposal" in m["subject"]
        ]

    def shown(self, token: str) -> dict:
        return self.stranger().get(f"/api/offered/{token}").json()

    def signed(self, token: str, **more) -> dict:
        seen = self.shown(token)
        read = [k["sentence"] for k in seen["offer"]["before_signing"]]
        base = {"digest": seen["digest"], "name": "Orla Fenbrook", "path": STROKES, "read": read}
        return {**base, **more}

    def accept(self, token: str, status: int = 204, **more):
        body = self.signed(token, **more)
        r = self.stranger().post(f"/api/offered/{token}/accept", json=body)
        self.assertEqual(r.status_code, status, r.text[:300])
        return r

    def state(self) -> dict:
        return self.get(f"/api/proposals/{self.made}")


class Accepting(AcceptCase):
    """The one who was not there decides by the link, with the rules of signing on the screen."""

    def test_it_is_accepted_signed_and_becomes_a_job(self):
        _, token = self.token()
        self.accept(token)
        kept = self.state()
        self.assertEqual(kept["state"], "accepted")
        self.assertEqual(kept["signature"]["name"], "Orla Fenbrook")
        self.assertEqual(kept["signature"]["digest"], kept["digest"])
        job = self.get(f"/api/jobs/{job_id(UUID(self.made))}")
        self.assertEqual(job["job"]["proposal"], self.made)
        self.assertEqual(self.shown(token)["signed_by"], "Orla Fenbrook")
        self.assertEqual([m["to"] for m in self.told()], ["perrin@larkspout.example"])

    def test_sent_twice_it_is_once(self):
        _, token = self.token()
        body = self.signed(token)
        for _ in range(2):
            r = self.stranger().post(f"/api/offered/{token}/accept", json=body)
            self.assertEqual(r.status_code, 204)
        self.assertEqual(len(self.told()), 1)

    def test_another_name_after_that_changes_nothing(self):
        _, token = self.token()
        body = self.signed(token)
        self.accept(token)
        r = self.stranger().post(
            f"/api/offered/{token}/accept", json={**body, "name": "Somebody Else"}
        )
        self.assertEqual(r.status_code, 409)
        self.assertEqual(self.state()["signature"]["name"], "Orla Fenbrook")

    def test_what_was_not_shown_is_not_signed(self):
        _, token = self.token()
        self.accept(token, 409, digest="0" * 64)
        self.assertEqual(self.state()["state"], "presented")

    def test_everything_is_ticked_and_signed_or_nothing_happens(self):
        _, token = self.token()
        for more in ({"read": []}, {"name": " "}, {"path": ""}, {"path": "M1,1 <script>xxxx"}):
            self.accept(token, 422, **more)
        self.assertEqual(self.state()["state"], "presented")

    def test_the_name_may_be_typed_in_place_of_a_drawing(self):
        _, token = self.token()
        self.accept(token, path="", typed=True)
        kept = self.state()["signature"]
        self.assertEqual((kept["typed"], kept["path"]), (True, ""))
        pdf = self.stranger().get(f"/api/offered/{token}/pdf")
        self.assertTrue(pdf.content.startswith(b"%PDF"))

    def test_a_drawing_beside_a_typed_name_is_not_kept(self):
        _, token = self.token()
        self.accept(token, typed=True)
        self.assertEqual(self.state()["signature"]["path"], "")

    def test_a_link_that_does_not_count_accepts_nothing(self):
        id, token = self.token()
        body = self.signed(token)
        self.send("DELETE", f"/api/links/{id}", None, 204)
        r = self.stranger().post(f"/api/offered/{token}/accept", json=body)
        self.assertEqual(r.status_code, 404)
        self.assertEqual(self.state()["state"], "presented")

    def test_too_many_tries_by_one_link_wait(self):
        _, token = self.token()
        body = self.signed(token, read=[])
        url = f"/api/offered/{token}/accept"
        got = [self.stranger().post(url, json=body).status_code for _ in range(12)]
        self.assertEqual(got[:10], [422] * 10)
        self.assertIn(429, got[10:])

    def test_what_was_declined_meanwhile_is_not_accepted(self):
        _, token = self.token()
        body = self.signed(token)
        self.send(
            "POST", f"/api/proposals/{self.made}/declined", {"version": self.state()["version"]}
        )
        r = self.stranger().post(f"/api/offered/{token}/accept", json=body)
        self.assertEqual(r.status_code, 409)

    def test_the_trail_says_who(self):
        _, token = self.token()
        self.accept(token)
        trail = self.manager().get("/api/audit").text
        self.assertIn("the customer, by link", trail)


if __name__ == "__main__":
    unittest.main()
