"""What faces the customer in their language: the link, the paper, the visit, and what they sign."""

import unittest

import pypdfium2

from tests.api.test_accepting import AcceptCase
from zesty_glass.demo.homes import uid

HOME_1, HOME_5 = uid("home-1-visit"), uid("home-5-visit")


class InSpanish(AcceptCase):
    def offered(self, token, language="es"):
        r = self.stranger().get(f"/api/offered/{token}", params={"language": language})
        self.assertEqual(r.status_code, 200, r.text[:300])
        return r.json()

    def test_a_link_is_read_and_signed_in_it(self):
        _, token = self.token()
        english, spanish = self.offered(token, "en"), self.offered(token)
        self.assertEqual(english["digest"], spanish["digest"])
        self.assertEqual(english["offer"]["options"][0]["id"], spanish["offer"]["options"][0]["id"])
        read = [k["sentence"] for k in spanish["offer"]["before_signing"]]
        self.assertTrue(read)
        self.assertNotEqual(read, [k["sentence"] for k in english["offer"]["before_signing"]])
        # what was ticked is what was read: in another language it was not
        self.assertEqual(self.accept(token, 422, read=read).json()["code"], "signature.unread")
        self.accept(token, read=read, language="es")
        self.assertEqual(self.state()["signature"]["read"], read)

    def test_its_paper_is(self):
        _, token = self.token()
        for path in (f"/api/offered/{token}/pdf", f"/api/proposals/{self.made}/pdf"):
            r = self.client.get(path, params={"language": "es"})
            self.assertEqual(r.status_code, 200, r.text[:300])
            paper = pypdfium2.PdfDocument(r.content)
            self.addCleanup(paper.close)
            self.assertIn("Usted nos habló de", paper[0].get_textpage().get_text_range())

    def test_a_proposal_is_shown_and_signed_in_it_on_the_screen(self):
        path = f"/api/proposals/{self.made}"
        spanish = self.get(f"{path}?language=es")
        self.assertIn("como máximo", str(spanish["offer"]))
        body = {
            "version": spanish["version"],
            "name": "Orla Fenbrook",
            "typed": True,
            "read": [k["sentence"] for k in spanish["offer"]["before_signing"]],
        }
        self.send("POST", f"{path}/accepted", body, 422)
        self.send("POST", f"{path}/accepted", {**body, "language": "es"})

    def test_what_faces_them_is_and_what_was_typed_stays(self):
        english = self.get(f"/api/visits/{HOME_5}")
        spanish = self.get(f"/api/visits/{HOME_5}?language=es")
        self.assertEqual(english["visit"], spanish["visit"])
        found = spanish["assessment"]["meaning"]
        self.assertIn("valor guía (OMS)", str(found["findings"]))
        self.assertIn("Use agua embotellada", str(found["tonight"]))
        about = self.get("/api/demonstrations?language=es")["offered"]
        self.assertIn("Lado a lado", [a["name"] for a in about])

    def test_one_that_there_is_not(self):
        _, token = self.token()
        for path in (f"/api/offered/{token}", f"/api/visits/{HOME_1}", "/api/demonstrations"):
            self.assertEqual(self.client.get(path, params={"language": "xx"}).status_code, 422)

    def test_the_tag_of_a_visit_is_that_of_its_language(self):
        one = self.client.get(f"/api/visits/{HOME_1}")
        other = self.client.get(
            f"/api/visits/{HOME_1}?language=es", headers={"If-None-Match": one.headers["etag"]}
        )
        self.assertEqual(other.status_code, 200)


if __name__ == "__main__":
    unittest.main()
