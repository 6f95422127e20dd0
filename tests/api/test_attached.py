"""Pictures and certificates: kept once, seen by who sees what they belong to, taken away."""

from uuid import uuid4

from tests.api.client import HOME_1, HOME_2, ApiCase
from tests.documents.test_photographs import opened, photo
from zesty_glass.demo.load import FITTER_EMAIL

PDF = b"%PDF-1.7\na certificate\n%%EOF\n"


class Pictures(ApiCase):
    def reading_of(self, visit):
        view = self.get(f"/api/visits/{visit}")["visit"]
        return next(r["id"] for s in view["samples"] for r in s["readings"])

    def put(self, visit, raw, status=200, id=None, client=None, **about):
        about = {"about": "reading", "of": self.reading_of(visit), **about}
        id = id or str(uuid4())
        r = (client or self.client).put(
            f"/api/visits/{visit}/pictures/{id}", params=about, content=raw
        )
        self.assertEqual(r.status_code, status, r.text)
        return id, r.json()

    def test_kept_small_listed_and_handed_out(self):
        id, line = self.put(HOME_1, photo(3000, 1500))
        self.assertEqual(
            (line["width"], line["height"], line["by"]), (1600, 800, "Perrin Oakhalse")
        )
        self.assertIn(id, [p["id"] for p in self.get(f"/api/visits/{HOME_1}/pictures")])
        r = self.client.get(f"/api/visits/{HOME_1}/pictures/{id}")
        self.assertEqual(r.headers["content-type"], "image/jpeg")
        self.assertEqual(opened(r.content).size, (1600, 800))
        self.assertEqual(len(r.content), line["size"])

    def test_twice_is_once_and_another_under_its_id_is_refused(self):
        raw = photo(50, 50)
        id, first = self.put(HOME_1, raw)
        self.assertEqual(self.put(HOME_1, raw, id=id)[1], first)
        _, said = self.put(HOME_1, photo(51, 50), 422, id=id)
        self.assertEqual(said["code"], "request.other")

    def test_of_what_is_there_only(self):
        for about in (
            {"of": str(uuid4())},
            {"of": "no uuid"},
            {"of": self.reading_of(HOME_2)},
            {"about": "step", "of": "pipe/0"},  # no job was made of this visit
        ):
            _, said = self.put(HOME_1, photo(), 422, **about)
            self.assertEqual(said["code"], "picture.place")

    def test_of_a_step_of_the_job(self):
        job = next(j for j in self.manager().get("/api/jobs").json())
        view = self.manager().get(f"/api/jobs/{job['id']}").json()
        sheet = view["job"]["sheets"][0]
        last = len(sheet["steps"]) - 1
        manager = self.manager()
        id, _ = self.put(
            view["visit"], photo(), client=manager, about="step", of=f"{sheet['key']}/{last}"
        )
        listed = manager.get(f"/api/visits/{view['visit']}/pictures").json()
        self.assertIn(id, [p["id"] for p in listed])
        _, said = self.put(
            view["visit"],
            photo(),
            422,
            client=manager,
            about="step",
            of=f"{sheet['key']}/{last + 1}",
        )
        self.assertEqual(said["code"], "picture.place")

    def test_nothing_is_kept_of_what_is_no_picture_or_too_large(self):
        before = self.get(f"/api/visits/{HOME_1}/pictures")
        self.put(HOME_1, b"<svg onload=alert(1)>", 422)
        self.put(HOME_1, b"x" * 50_000_000, 413)
        self.assertEqual(self.get(f"/api/visits/{HOME_1}/pictures"), before)

    def test_taken_away_for_good_and_twice_is_once(self):
        id, _ = self.put(HOME_1, photo(33, 33))
        path = f"/api/visits/{HOME_1}/pictures/{id}"
        for _ in range(2):
            self.send("DELETE", path, status=204)
        self.assertEqual(self.client.get(path).status_code, 404)
        trail = self.manager().get("/api/audit").json()
        self.assertIn("reading file taken away", str(trail))

    def test_who_does_not_see_the_visit_sees_no_picture(self):
        id, _ = self.put(HOME_1, photo(34, 34))
        fitter = self.signed_in(FITTER_EMAIL)  # nothing of this home is accepted
        other = f"/api/visits/{HOME_2}/pictures/{id}"
        for client, path in (
            (fitter, f"/api/visits/{HOME_1}/pictures/{id}"),
            (self.client, other),
            (self.client, f"/api/certificates/{id}"),
        ):
            self.assertEqual(client.get(path).status_code, 404)
        self.send("DELETE", other, status=204)
        self.assertEqual(self.client.get(f"/api/visits/{HOME_1}/pictures/{id}").status_code, 200)

    def test_given_out_with_the_person_and_erased_with_them(self):
        visit = self.new_visit()
        sample = self.new_sample(visit)
        self.keep(
            visit, sample, self.reading("tds-1", {"method": "meter", "displays": ["98", "99"]})
        )
        _, line = self.put(visit, photo(35, 35))
        given = self.get(f"/api/visits/{visit}/personal-data")["pictures"]
        self.assertEqual([len(p["base64"]) * 3 // 4 // 10 for p in given], [line["size"] // 10])
        self.assertEqual(self.manager().post(f"/api/visits/{visit}/erase").status_code, 204)
        manager = self.manager()
        self.assertEqual(manager.get(f"/api/visits/{visit}/pictures").json(), [])

    def test_no_more_than_a_visit_may_have(self):
        from unittest.mock import patch

        with patch("zesty_glass.work.files.MOST_OF_VISIT", 0):
            _, said = self.put(HOME_2, photo(), 422)
        self.assertEqual(said["code"], "files.many")


class Certificates(ApiCase):
    def setUp(self):
        super().setUp()
        self.boss = self.manager()
        self.item, self.number = next(
            (i["code"], e["evidence"]["certificate"])
            for i in self.get("/api/catalogue")
            for e in i["effects"]
            if e["evidence"]["certificate"]
        )

    def put(self, raw, status=200, id=None, client=None, **of):
        of = {"item": self.item, "certificate": self.number, **of}
        id = id or str(uuid4())
        r = (client or self.boss).put(f"/api/certificates/{id}", params=of, content=raw)
        self.assertEqual(r.status_code, status, r.text)
        return id, r.json()

    def test_attached_listed_and_handed_out_as_it_was(self):
        id, line = self.put(PDF)
        self.assertEqual((line["item"], line["certificate"]), (self.item, self.number))
        self.assertIn(line, self.get("/api/certificates"))
        r = self.client.get(f"/api/certificates/{id}")
        self.assertEqual((r.content, r.headers["content-type"]), (PDF, "application/pdf"))
        self.assertTrue(r.headers["content-disposition"].startswith("attachment"))

    def test_for_a_certificate_that_the_item_claims_only(self):
        _, said = self.put(PDF, 422, certificate="something else")
        self.assertEqual(said["code"], "certificate.claimed")
        self.put(PDF, 404, item="no such item")

    def test_managers_only(self):
        self.put(PDF, 403, client=self.client)
        id, _ = self.put(PDF + b"\n")
        self.send("DELETE", f"/api/certificates/{id}", status=403)
        self.assertEqual(self.boss.delete(f"/api/certificates/{id}").status_code, 204)
        self.assertEqual(self.client.get(f"/api/certificates/{id}").status_code, 404)

    def test_twice_is_once(self):
        raw = PDF + b"\n\n"
        id, first = self.put(raw)
        self.assertEqual(self.put(raw, id=id)[1], first)
        self.assertEqual(self.put(PDF + b"x\n%%EOF", 422, id=id)[1]["code"], "request.other")
