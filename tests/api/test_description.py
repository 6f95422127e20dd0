"""The description of the interface: every parameter and body said, with examples that fit."""

import re
import unittest

from jsonschema import Draft202012Validator

from tests.api.client import ApiCase
from zesty_glass.api.app import create_app
from zesty_glass.api.described import field_words, fields_of

OPEN_API = create_app("postgresql://nobody@127.0.0.1:1/none", "x" * 32).openapi()


def operations():
    for path, methods in OPEN_API["paths"].items():
        for method, operation in methods.items():
            yield f"{method.upper()} {path}", operation


def fits(schema, value):
    """What is wrong with a value, by a schema of the description."""
    whole = {**schema, "components": OPEN_API["components"]}
    return [e.message for e in Draft202012Validator(whole).iter_errors(value)]


class Description(unittest.TestCase):
    def test_every_operation_has_an_id_of_its_own_and_words(self):
        ids = [o["operationId"] for _, o in operations()]
        self.assertEqual(len(ids), len(set(ids)))
        self.assertEqual([n for n, o in operations() if not o.get("description")], [])

    def test_every_parameter_is_said_and_its_example_fits(self):
        for name, operation in operations():
            for p in operation.get("parameters", ()):
                with self.subTest(name, parameter=p["name"]):
                    self.assertTrue(p.get("description"))
                    if "example" in p:
                        one = p["example"]
                        many = p["schema"].get("type") == "array"
                        self.assertEqual(fits(p["schema"], [one] if many else one), [])

    def test_every_body_has_an_example_that_fits(self):
        for name, operation in operations():
            content = operation.get("requestBody", {}).get("content", {})
            body = content.get("application/json", {})
            if body.get("schema", {}).get("format") == "binary" or not body:
                continue
            with self.subTest(name):
                self.assertEqual(fits(body["schema"], body["example"]), [])

    def test_who_may_ask_is_said(self):
        schemes = OPEN_API["components"]["securitySchemes"]
        used = {s for _, o in operations() for way in o.get("security", ()) for s in way}
        self.assertEqual(used, set(schemes))

    def test_every_route_says_its_refusals(self):
        for name, operation in operations():
            with self.subTest(name):
                self.assertLessEqual({"422", "429", "503"}, set(operation["responses"]))

    def test_and_no_others(self):
        told = dict(operations())
        opened = told["POST /api/session"]["responses"]
        self.assertNotIn("403", opened)
        reading = set(told["GET /api/firm"]["responses"])
        self.assertFalse(reading & {"400", "404", "405", "409", "413"}, reading)
        self.assertLessEqual(
            {"400", "401", "403", "404", "409", "413"},
            set(told["PUT /api/visits/{id}/options/{option_id}"]["responses"]),
        )

    def test_operations_are_called_by_names(self):
        told = dict(operations())
        self.assertEqual(told["GET /api/catalogue/off-sale"]["operationId"], "catalogue_off_sale")

    def test_what_a_token_may_is_said(self):
        told = dict(operations())
        present = told["POST /api/proposals/{id}/{to}"]["security"]
        self.assertEqual(present, [{"session": [], "forgery": []}])
        suggest = told["GET /api/visits/{id}/suggest"]["security"]
        self.assertIn({"script": ["proposals"]}, suggest)

    def test_a_record_says_what_its_fields_are(self):
        fault = OPEN_API["components"]["schemas"]["Consumable"]["properties"]
        self.assertIn("[months]", fault["months"]["description"])
        words = "A part.\n\nArgs:\n    months, days: of the\n        calendar; own: theirs."
        said = {"months": "of the calendar", "days": "of the calendar", "own": "theirs"}
        self.assertEqual(fields_of(words), said)
        self.assertEqual(fields_of("Nothing of fields."), {})

    def test_every_field_is_said(self):
        fields = {
            f"{record}.{name}": field
            for record, schema in OPEN_API["components"]["schemas"].items()
            for name, field in schema.get("properties", {}).items()
        }
        self.assertGreater(len(fields), 1_500)
        self.assertEqual([n for n, f in fields.items() if not f.get("description")], [])
        self.assertIn("[psi]", fields["Home.static_psi"]["description"])
        self.assertIn("drawn", fields["Sample.drawn_at"]["description"])

    def test_nothing_is_said_of_fields_that_are_not_there(self):
        schemas = OPEN_API["components"]["schemas"]
        for record, words in field_words().items():
            here = [schemas[record]] if record != "*" else schemas.values()
            names = {n for schema in here for n in schema.get("properties", {})}
            self.assertLessEqual(set(words), names, record)


class Page(ApiCase):
    def test_every_operation_and_record_stands_on_the_page_and_every_link_leads_somewhere(self):
        r = self.client.get("/api/description")
        self.assertEqual(r.status_code, 200)
        places = re.findall(r'id="([^"]+)"', r.text)
        self.assertEqual(len(places), len(set(places)))
        wanted = {o["operationId"] for _, o in operations()} | set(
            OPEN_API["components"]["schemas"]
        )
        self.assertLessEqual(wanted, set(places))
        self.assertLessEqual(set(re.findall(r'href="#([^"]+)"', r.text)), set(places))

    def test_nothing_runs_on_it_and_its_style_has_this_answers_nonce(self):
        first, second = (self.client.get("/api/description") for _ in range(2))
        nonce = re.search(r'<style nonce="([^"]+)"', first.text)[1]
        self.assertIn(f"'nonce-{nonce}'", first.headers["content-security-policy"])
        self.assertNotIn(nonce, second.text)
        self.assertNotIn("<script", first.text)


if __name__ == "__main__":
    unittest.main()
