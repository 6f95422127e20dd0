"""Bodies of requests: how large, how slow and in how many pieces they may be."""

import asyncio
import re
import unittest
from unittest import mock

from tests.api.client import HOME_1, ApiCase
from zesty_glass.api import bounds


class Sizes(ApiCase):
    def test_what_is_no_file_is_smaller(self):
        long = b" " * bounds.LARGEST_BODY + b"{}"
        r = self.client.post("/api/visits", content=long)
        self.assertEqual((r.status_code, r.json()["code"]), (413, "too_large"))
        r = self.client.post("/api/homes/preview", content=long)
        self.assertNotEqual(r.status_code, 413, r.text[:300])

    def test_a_file_has_its_own_end(self):
        r = self.client.post("/api/homes/preview", content=b" " * (bounds.LARGEST_FILE + 1))
        self.assertEqual(r.status_code, 413)

    def test_a_number_of_thousands_of_digits_is_refused_in_words(self):
        digits = "9" * 5_000
        for text in (f'{{"format": {digits}}}', f'{{"visit": {{"horizon": {digits}.5}}}}'):
            r = self.client.post("/api/visits/import", content=text)
            self.assertEqual(r.status_code, 422, r.text[:300])
        for text in (f'[{{"price": {digits}}}]', "[" * 100_000):
            r = self.manager().post("/api/catalogue/preview", content=text)
            self.assertEqual(r.status_code, 422, r.text[:300])
        body = f'{{"version": {digits}, "note": ""}}'
        head = {"content-type": "application/json"}
        r = self.client.patch(f"/api/visits/{HOME_1}", content=body, headers=head)
        self.assertEqual(r.json()["code"], "request.unreadable")


class Unknown(ApiCase):
    def refused(self, method, path, **sent):
        r = self.client.request(method, path, **sent)
        self.assertEqual(r.status_code, 422, r.text)
        return r.json()

    def test_a_question_that_is_misspelt_names_the_one_that_was_meant(self):
        told = self.refused("GET", "/api/homes?fnid=ottoline")
        self.assertEqual((told["code"], told["where"]), ("query.unknown", "fnid"))
        self.assertEqual(told["remedy"], "Did you mean “find”?")
        told = self.refused("GET", "/api/firm?most=3")
        self.assertEqual(told["remedy"], "Leave it out.")
        self.assertEqual(self.client.get("/today?from=elsewhere").status_code, 200)

    def test_a_field_of_a_body_too(self):
        told = self.refused("PATCH", f"/api/visits/{HOME_1}", json={"version": 1, "horzion": 10})
        self.assertEqual((told["where"], told["remedy"]), ("horzion", "Did you mean “horizon”?"))


class Slow(unittest.TestCase):
    """The guard alone, with a sender of our own."""

    def answered(self, receive, files=()):
        sent = []

        async def inner(scope, receive, send):
            raise AssertionError("it was let through")

        async def send(message):
            sent.append(message)

        scope = {
            "type": "http",
            "method": "POST",
            "path": "/api/visits",
            "raw_path": b"/api/visits",
            "query_string": b"",
            "headers": [],
        }
        asyncio.run(bounds.Bounds(inner, files=files)(scope, receive, send))
        return sent[0]["status"]

    def test_crumbs_are_refused(self):
        async def receive():
            return {"type": "http.request", "body": b"x", "more_body": True}

        self.assertEqual(self.answered(receive), 408)

    def test_half_a_body_is_not_waited_for_for_ever(self):
        async def receive():
            await asyncio.Event().wait()

        with mock.patch.object(bounds, "BODY_WITHIN", 0.05):
            self.assertEqual(self.answered(receive), 408)
        with mock.patch.object(bounds, "FILE_WITHIN", 0.05):
            self.assertEqual(self.answered(receive, files=[re.compile("/api/visits")]), 408)
        self.assertLess(bounds.BODY_WITHIN, bounds.FILE_WITHIN)
