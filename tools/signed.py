"""The demo's consultant signed in to a server under measurement, and how they ask it."""

from __future__ import annotations

import http.client
import json
from dataclasses import dataclass

from zesty_glass.demo.people import EMAIL, PASSWORD


@dataclass
class Signed:
    """A session, and how its requests are made."""

    port: int
    cookie: str = ""
    token: str = ""

    def ask(
        self,
        c: http.client.HTTPConnection,
        method: str,
        path: str,
        body: bytes | None = None,
        plain: bool = False,
    ) -> tuple[int, bytes]:
        """One request on a kept connection; compressed unless ``plain``."""
        headers = {"Cookie": self.cookie, "X-Zesty-Token": self.token}
        if not plain:
            headers["Accept-Encoding"] = "gzip"
        if body is not None:
            headers["Content-Type"] = "application/json"
        c.request(method, path, body, headers)
        r = c.getresponse()
        return r.status, r.read()

    def connect(self) -> http.client.HTTPConnection:
        """A connection of its own."""
        return http.client.HTTPConnection("127.0.0.1", self.port, timeout=30)


def sign_in(port: int) -> Signed:
    """The consultant of the demo, on a server of this machine."""
    c = http.client.HTTPConnection("127.0.0.1", port, timeout=30)
    c.request(
        "POST",
        "/api/session",
        json.dumps({"email": EMAIL, "password": PASSWORD}),
        {"Content-Type": "application/json"},
    )
    r = c.getresponse()
    me = json.loads(r.read())
    return Signed(port, (r.getheader("Set-Cookie") or "").split(";")[0], me["token"])
