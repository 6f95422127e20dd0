"""SIGKILL at many moments: whatever the server said it had stored is there afterward."""

import http.client
import json
import signal
import subprocess
import sys
import unittest
import urllib.request
from datetime import date
from http.cookiejar import CookieJar
from pathlib import Path
from uuid import uuid4

from tests.cli.started import Started
from tests.database import fresh
from zesty_glass.cli.cluster import free_port
from zesty_glass.demo.kits import demo_instruments
from zesty_glass.demo.load import EMAIL, PASSWORD
from zesty_glass.documents.codec import plain

ROOT = Path(__file__).resolve().parents[2]


class Killed(Started):
    def call(self, method, path, body=None):
        data = None if body is None else json.dumps(body, default=str).encode()
        request = urllib.request.Request(
            self.base + path,
            data=data,
            method=method,
            headers={"Content-Type": "application/json", "X-Zesty-Token": self.token},
        )
        with self.opener.open(request, timeout=5) as r:
            return json.loads(r.read() or b"null")

    def test_no_reading_shown_as_saved_is_lost(self):
        self.database, self.port, self.token = fresh(), free_port(), ""
        self.base = f"http://127.0.0.1:{self.port}"
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))
        self.start()
        self.token = self.call("POST", "/api/session", {"email": EMAIL, "password": PASSWORD})[
            "token"
        ]
        visit, sample = str(uuid4()), str(uuid4())
        self.call(
            "POST",
            "/api/visits",
            {"id": visit, "customer": {"name": "Kay"}, "home": {"name": "A house"}},
        )
        self.call(
            "PUT",
            f"/api/visits/{visit}/samples/{sample}",
            {"id": sample, "name": "Raw", "raw": True, "drawn_at": "2026-11-20T10:00:00Z"},
        )
        kit = plain(next(k for k in demo_instruments(date(2026, 11, 20)) if k.id == "hard-1"))
        saved, sent = set(), 0
        for round_ in range(3):
            stop_after = 1 + 3 * round_ % 7
            killer = None
            try:
                for n in range(40):
                    id = str(uuid4())
                    if n == stop_after:
                        killer = subprocess.Popen(
                            [
                                sys.executable,
                                "-c",
                                f"import os; os.kill({self.process.pid}, {int(signal.SIGKILL)})",
                            ]
                        )
                    sent += 1
                    self.call(
                        "PUT",
                        f"/api/visits/{visit}/samples/{sample}/readings/{id}",
                        {
                            "id": id,
                            "analyte": "hardness",
                            "instrument": kit,
                            "observation": {"method": "drops", "drops": n},
                            "made_at": "2026-11-20T10:00:00Z",
                        },
                    )
                    saved.add(id)
            except (OSError, http.client.HTTPException, ValueError):
                # the answer was cut off: whether it was stored is not known, so it does not count
                pass
            self.assertIsNotNone(killer)
            killer.wait()
            self.process.wait()
            self.start()
            kept = {
                r["id"]
                for r in self.call("GET", f"/api/visits/{visit}")["visit"]["samples"][0]["readings"]
            }
            self.assertLessEqual(saved, kept)
        self.assertGreater(len(saved), 6)
        self.assertGreater(sent, len(saved))


if __name__ == "__main__":
    unittest.main()
