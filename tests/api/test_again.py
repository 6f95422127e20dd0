"""A second visit to a home: found again, judged anew, held against the readings of the first."""

from uuid import uuid4

from tests.api.client import HOME_1, HOME_3, ApiCase


class Again(ApiCase):
    def again(self, visit, status=201, id=None):
        id = id or str(uuid4())
        self.send("POST", f"/api/visits/{visit}/again", {"id": id}, status)
        return id

    def test_same_home_new_visit(self):
        id = self.again(HOME_1)
        new, old = self.get(f"/api/visits/{id}"), self.get(f"/api/visits/{HOME_1}")
        self.assertEqual(new["visit"]["home"], old["visit"]["home"])
        self.assertEqual(
            (new["visit"]["samples"], new["visit"]["complaints"], new["visit"]["proposals"]),
            ([], [], []),
        )
        self.assertIn(HOME_1, [o["id"] for o in new["others"]])
        self.assertIn(id, [o["id"] for o in old["others"]])

    def test_twice_is_once(self):
        id = self.again(HOME_3)
        self.again(HOME_3, id=id)
        self.assertEqual(len(self.get(f"/api/visits/{HOME_3}")["others"]), 1)

    def test_a_home_changed_at_one_visit_is_changed_at_the_other(self):
        first = self.new_visit()
        second = self.again(first)
        v = self.get(f"/api/visits/{second}")
        self.send(
            "PUT",
            f"/api/visits/{second}/home",
            {
                "version": v["versions"]["home"],
                "customer": v["visit"]["customer"],
                "home": {**v["visit"]["home"], "people": 6},
            },
        )
        self.assertEqual(self.get(f"/api/visits/{first}")["visit"]["home"]["people"], 6)

    def test_far_from_the_earlier_reading(self):
        first = self.new_visit()
        self.keep(
            first, self.new_sample(first), self.reading("hard-1", {"method": "drops", "drops": 19})
        )
        second = self.again(first)
        glass = self.new_sample(second)
        self.keep(second, glass, self.reading("hard-1", {"method": "drops", "drops": 6}))
        hits = [
            c
            for c in self.get(f"/api/visits/{second}")["assessment"]["crosschecks"]
            if c["id"] == "far_from_before"
        ]
        self.assertEqual([h["sample"] for h in hits], [glass])
        self.assertIn("Hardness", hits[0]["sentence"])
        self.assertNotIn(
            "far_from_before",
            [c["id"] for c in self.get(f"/api/visits/{first}")["assessment"]["crosschecks"]],
        )

    def test_a_home_is_found_by_a_part_of_its_name(self):
        name = self.get(f"/api/visits/{HOME_3}")["visit"]["customer"]["name"]
        found = self.get(f"/api/visits/homes?find={name[1:4].upper()}")
        self.assertIn(name, [h["customer"] for h in found])
        self.assertEqual(self.get("/api/visits/homes?find=zzzz"), [])

    def test_wildcards_are_no_wildcards(self):
        self.assertEqual(self.get("/api/visits/homes?find=%25zz%25"), [])

    def test_a_visit_that_is_not_there(self):
        self.again(str(uuid4()), 404)


class Noticing(ApiCase):
    def test_what_was_noticed_stands_beside_the_complaints(self):
        visit = self.new_visit()
        glass = self.new_sample(visit)
        self.keep(
            visit,
            glass,
            self.reading("senses", {"method": "noticed", "signs": ["slime", "white_crust"]}),
        )
        self.assertEqual(
            [c["sign"] for c in self.get(f"/api/visits/{visit}")["assessment"]["noticed"]],
            ["slime"],
        )

    def test_an_unknown_sign_is_refused_and_nothing_stored(self):
        visit = self.new_visit()
        glass = self.new_sample(visit)
        problem = self.keep(
            visit, glass, self.reading("senses", {"method": "noticed", "signs": ["ghosts"]}), 422
        )
        self.assertEqual(problem["code"], "noticed.sign")
        self.assertEqual(self.get(f"/api/visits/{visit}")["visit"]["samples"][0]["readings"], [])
