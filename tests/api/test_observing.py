"""What an operator sees: alive, ready, counters, one line a request without names, and how files of
the page are kept.
"""

import asyncio
import json
import logging
import re
from unittest import mock

from tests.api.client import HOME_1, ApiCase
from tests.application import Client
from tests.database import SECRET
from zesty_glass.api import observing
from zesty_glass.api.app import create_app


class Observing(ApiCase):
    def lines(self, path, status):
        with self.assertLogs("zesty.request", "INFO") as seen:
            r = self.client.get(path)
        self.assertEqual(r.status_code, status)
        return r, seen.records[-1]

    def test_every_answer_carries_the_id_of_its_line(self):
        r, line = self.lines("/api/visits/nothing", 422)
        self.assertRegex(r.headers["x-request-id"], "^[0-9a-f]{16}$")
        self.assertEqual(line.told["request"], r.headers["x-request-id"])
        self.assertEqual(r.json()["request"], r.headers["x-request-id"])

    def test_a_line_says_route_status_time_and_firm_and_no_name_or_address(self):
        _, line = self.lines(f"/api/visits/homes?find=ottoline {HOME_1}", 200)
        self.assertEqual(line.told["route"], "/api/visits/homes")
        self.assertEqual((line.told["method"], line.told["status"]), ("GET", 200))
        self.assertTrue(line.told["firm"])
        for form in (observing.JsonLines(), observing.TextLines()):
            text = form.format(line)
            self.assertNotIn("ottoline", text.lower())
            self.assertNotIn(HOME_1, text)
        self.assertEqual(json.loads(observing.JsonLines().format(line))["status"], 200)

    def test_an_exception_is_written_with_the_line_that_it_belongs_to(self):
        record = logging.LogRecord("zesty", logging.ERROR, "f", 1, "m", (), None)
        self.assertIn("zesty", observing.TextLines().format(record))

    def test_alive_ready_and_counters(self):
        self.assertEqual(self.get("/healthz")["ok"], True)
        self.assertEqual(self.get("/readyz"), {"ok": True, "why": ""})
        self.client.get(f"/api/visits/{HOME_1}")
        text = self.client.get("/metrics").text
        wanted = r'zesty_requests_total{method="GET",route="/api/visits/{id}",status="200"} \d'
        self.assertRegex(text, wanted)
        self.assertNotIn(HOME_1, text)

    def test_it_is_counted_before_its_last_part_is_sent_and_once(self):
        counters, seen = observing.Counters(), []

        async def app(scope, receive, send):
            await send({"type": "http.response.start", "status": 204})
            await send({"type": "http.response.body", "body": b"", "more_body": True})
            await send({"type": "http.response.body", "body": b""})

        async def send(message):
            way = counters.registry.get_sample_value("zesty_requests_under_way")
            seen.append(way)

        scope = {"type": "http", "method": "GET", "path": "/healthz"}
        asyncio.run(observing.Observed(app, counters)(scope, None, send))
        self.assertEqual(seen, [1, 1, 0])
        labels = {"method": "GET", "route": "none", "status": "204"}
        many = counters.registry.get_sample_value("zesty_requests_total", labels)
        self.assertEqual(many, 1)

    def test_a_disk_that_is_nearly_full_is_said(self):
        nearly = mock.Mock(free=199_999_999)
        with mock.patch.object(observing.shutil, "disk_usage", return_value=nearly):
            r = self.client.get("/readyz")
        self.assertEqual(r.status_code, 503)
        self.assertIn("nearly full: 199 MB are left", r.json()["why"])

    def test_not_ready_without_its_database(self):
        app = create_app("postgresql://nobody@127.0.0.1:1/none", SECRET)
        self.addCleanup(app.state.engine.dispose)
        c = Client(app, raise_server_exceptions=False)
        r = c.get("/readyz")
        self.assertEqual((r.status_code, r.json()["ok"]), (503, False))
        self.assertEqual(c.get("/healthz").status_code, 200)

    def test_unknown_addresses(self):
        for path in ("/api/nothing/here", "/api/", "/api"):
            r = self.client.get(path)
            self.assertEqual(r.status_code, 404, path)
            self.assertEqual(r.json()["code"], "not_found", path)

    def test_head_answers_as_get_does_without_the_body(self):
        for path in ("/", "/healthz", f"/api/visits/{HOME_1}"):
            r = self.client.head(path)
            self.assertEqual((r.status_code, r.content), (200, b""), path)

    def test_files_with_a_digest_in_their_name_are_kept(self):
        page = self.client.get("/").text
        script = re.search(r"/assets/[^\"]+\.js", page)[0]
        self.assertIn("immutable", self.client.get(script).headers["cache-control"])
        self.assertEqual(self.client.get("/").headers["cache-control"], "no-cache")
