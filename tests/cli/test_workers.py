"""Several processes of one server: one view of what they counted."""

import http.client
import os
import re
import signal
import subprocess

from tests.cli.started import Started
from tests.database import fresh
from zesty_glass.cli.cluster import free_port

MANY = 40


class Workers(Started):
    def read(self, path):
        """An answer over a connection of its own: any process may give it."""
        c = http.client.HTTPConnection("127.0.0.1", self.port, timeout=30)
        try:
            c.request("GET", path)
            return c.getresponse().read().decode()
        finally:
            c.close()

    def counted(self):
        line = r'zesty_requests_total\{method="GET",route="/healthz",status="200"\} ([\d.]+)'
        return float(re.search(line, self.read("/metrics"))[1])

    def under_way(self):
        return float(re.search(r"zesty_requests_under_way ([\d.]+)", self.read("/metrics"))[1])

    def processes(self):
        said = subprocess.run(
            ["pgrep", "-P", str(self.process.pid), "-f", "spawn_main"],
            capture_output=True,
            text=True,
        )
        return [int(p) for p in said.stdout.split()]

    def test_whichever_answers_tells_what_all_counted(self):
        self.database, self.port = fresh(), free_port()
        self.base = f"http://127.0.0.1:{self.port}"
        self.start(ZESTY_WORKERS="2")
        for _ in range(MANY):
            self.read("/healthz")
        self.assertEqual({self.counted() for _ in range(10)}, {MANY})
        self.assertEqual(self.under_way(), 1)  # the one that asks
        os.kill(self.processes()[0], signal.SIGKILL)
        self.assertEqual(self.counted(), MANY)
        self.assertEqual(self.under_way(), 1)
        self.process.terminate()
        self.assertEqual(self.process.wait(60), 0)
