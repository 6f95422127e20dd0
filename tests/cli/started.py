"""A server in a process of its own, as an operator starts it."""

import http.client
import os
import subprocess
import sys
import time
import unittest
import urllib.request

from tests.database import SECRET
from zesty_glass.cli.machine import ROOT


class Started(unittest.TestCase):
    def end(self):
        """End it with its workers, which one that is killed leaves behind."""
        self.process.terminate()
        try:
            self.process.wait(30)
        except subprocess.TimeoutExpired:
            self.process.kill()

    def start(self, **more):
        """Start it at ``self.port`` on ``self.database``, and wait until it answers."""
        env = os.environ | {
            "ZESTY_DATABASE": self.database,
            "ZESTY_SECRET": SECRET,
            "ZESTY_PORT": str(self.port),
            "ZESTY_INSECURE_COOKIE": "true",
            **more,
        }
        self.process = subprocess.Popen(
            [sys.executable, "-m", "zesty_glass.cli.serve"],
            cwd=ROOT,
            env=env,
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        self.addCleanup(self.end)
        end = time.monotonic() + 90  # a busy machine takes its time; no question is left behind
        while time.monotonic() < end:
            try:
                with urllib.request.urlopen(f"{self.base}/api/health", timeout=60) as r:
                    if r.status == 200:
                        return
            except (OSError, http.client.HTTPException):
                if self.process.poll() is not None:
                    break
        self.fail("the server did not start")
