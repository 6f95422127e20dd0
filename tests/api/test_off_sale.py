"""Items off sale: proposed no more, and what has them stays as it is."""

from tests.api.client import HOME_1, HOME_6, ApiCase


class OffSale(ApiCase):
    def sale(self, code, on, status=200, who=None):
        r = (who or self.manager()).put(f"/api/catalogue/{code}/sale", json={"on": on})
        self.assertEqual(r.status_code, status, r.text[:300])
        return r.json()

    def codes(self):
        return {i["code"] for i in self.get("/api/catalogue")}

    def test_it_says_what_has_it_and_a_visit_keeps_it(self):
        before = self.get(f"/api/visits/{HOME_1}")["assessment"]["options"]
        told = self.sale("SO-20", False)
        try:
            self.assertGreaterEqual(told["lines"], 1)
            self.assertGreaterEqual(told["jobs"], 1)
            self.assertNotIn("SO-20", self.codes())
            self.assertIn("SO-20", {i["code"] for i in self.get("/api/catalogue/off-sale")})
            self.assertEqual(self.get(f"/api/visits/{HOME_1}")["assessment"]["options"], before)
            found = self.get(f"/api/visits/{HOME_1}/suggest")["lines"]
            used = {c["item"] for x in found for c in x["option"]["stages"]}
            self.assertTrue(used)
            self.assertNotIn("SO-20", used)
        finally:
            self.sale("SO-20", True)
        self.assertIn("SO-20", self.codes())
        self.assertEqual(self.get("/api/catalogue/off-sale"), [])

    def test_a_part_of_a_system_on_sale_stays(self):
        self.assertEqual(self.sale("RO-75M", False, 422)["code"], "item.part")

    def test_parts_that_a_system_leaves_behind_are_not_sold_for_nothing(self):
        systems = [
            i["code"] for i in self.get("/api/catalogue") if i["figures"]["kind"] == "system"
        ]
        parts = {
            p
            for i in self.get("/api/catalogue")
            if i["figures"]["kind"] == "system"
            for p in i["figures"]["parts"]
        }
        try:
            for code in systems:
                self.sale(code, False)
            for home in (HOME_1, HOME_6):
                found = self.get(f"/api/visits/{home}/suggest")["lines"]
                used = {c["item"] for x in found for c in x["option"]["stages"]}
                self.assertTrue(used)
                self.assertEqual(used & parts, set())
        finally:
            for code in systems:
                self.sale(code, True)

    def test_managers_alone_and_of_their_own_firm(self):
        self.sale("SO-20", False, 403, self.client)
        self.sale("SO-20", False, 404, self.other_firm())
        self.sale("NO-SUCH", False, 404)
