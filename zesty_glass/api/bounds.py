"""Requests are bounded, answers carry the usual guards."""

from __future__ import annotations

import asyncio
import re
from collections.abc import Iterable

from fastapi.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from .problems import problem

LARGEST_FILE = 6_000_000  # [bytes]
LARGEST_BODY = 1_000_000  # [bytes] of what is no file: a signature has 60 kB, a line a few
BODY_WITHIN = 30.0  # [s] a whole body that is no file
FILE_WITHIN = 180.0  # [s] a whole file: 6 MB at 300 kbit/s, as in a kitchen behind thick walls
#: pieces that a body may come in: a network packet holds a thousand bytes and more
MOST_PIECES = LARGEST_FILE // 1_000 + 100
#: React sets styles through the object model, which this policy does not touch; a style in markup
#: is refused
POLICY = (
    "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; "
    "font-src 'self'; connect-src 'self'; manifest-src 'self'; frame-ancestors 'none'; "
    "base-uri 'none'; form-action 'self'; object-src 'none'"
)
_HEADERS = [
    (b"content-security-policy", POLICY.encode()),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
    (b"x-frame-options", b"DENY"),
    (b"cross-origin-opener-policy", b"same-origin"),
    (b"cross-origin-resource-policy", b"same-origin"),
    (b"permissions-policy", b"camera=(), microphone=(), geolocation=()"),
]
_HTTPS = (b"strict-transport-security", b"max-age=31536000; includeSubDomains")
_NO_STORE = (b"cache-control", b"no-store")
LONGEST_PATH = 2_000  # [bytes], query included


def _too_large(most: int) -> JSONResponse:
    said = f"At most {most // 1_000_000} MB are taken at once. Is it the right file?"
    return problem(413, "too_large", "This is too large.", "body", said)


def _refusal(scope: Scope, most: int) -> JSONResponse | None:
    """What is refused before anything is read: an address that is too long or no text, a body that
    is too large [bytes].
    """
    if len(scope["raw_path"]) + len(scope["query_string"]) > LONGEST_PATH:
        return problem(414, "address.long", "This address is too long.", "", "Use a shorter one.")
    length = dict(scope["headers"]).get(b"content-length", b"0")
    if not length.isdigit() or len(length) > 12 or int(length) > most:
        return _too_large(most)
    if "\0" in scope["path"] or b"%00" in scope["query_string"]:
        return problem(
            400, "request.unreadable", "The request could not be read.", "", "Send it again."
        )
    return None


async def _whole(
    receive: Receive, most: int, within: float
) -> tuple[list[Message], JSONResponse | None]:
    """A body as it was sent, or why it is not taken: too large [bytes], too slow [s], in crumbs."""
    pieces: list[Message] = []
    size, more = 0, True
    try:
        async with asyncio.timeout(within):
            while more:
                message = await receive()
                size += len(message.get("body", b""))
                if size > most:
                    return [], _too_large(most)
                pieces.append(message)
                if len(pieces) > MOST_PIECES:
                    return [], _slow("It came in too many small pieces.")
                more = message["type"] == "http.request" and message.get("more_body", False)
    except TimeoutError:
        return [], _slow("It took too long to come in.")
    return pieces, None


def _slow(why: str) -> JSONResponse:
    return problem(408, "request.slow", why, "body", "Send it again, over a better network.")


class Bounds:
    """Refuses bodies that are too large, too slow or in crumbs, and adds security headers.

    Args:
        files: addresses that take a file, filled while the routes are put together; every other
            body is at most ``LARGEST_BODY``.
    """

    def __init__(
        self, app: ASGIApp, secure: bool = False, files: Iterable[re.Pattern[str]] = ()
    ) -> None:
        self.app, self._files = app, files
        self._headers = [*_HEADERS, _HTTPS] if secure else _HEADERS

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def guarded(message: Message) -> None:
            if message["type"] == "http.response.start":
                sent = message.get("headers", [])
                personal = scope["path"].startswith("/api/") and all(
                    k.lower() != b"cache-control" for k, _ in sent
                )
                own = {k.lower() for k, _ in sent}
                added = [h for h in self._headers if h[0] not in own]
                message["headers"] = [*sent, *added, *([_NO_STORE] if personal else ())]
            await send(message)

        a_file = any(path.match(scope["path"]) for path in self._files)
        most = LARGEST_FILE if a_file else LARGEST_BODY
        early = _refusal(scope, most)
        if early is not None:
            await early(scope, receive, guarded)
            return
        pieces: list[Message] = []
        if scope["method"] in ("POST", "PUT", "PATCH"):
            within = FILE_WITHIN if a_file else BODY_WITHIN
            pieces, refused = await _whole(receive, most, within)
            if refused is not None:
                await refused(scope, receive, guarded)
                return
        waiting = iter(pieces)

        async def replay() -> Message:
            return next(waiting, None) or await receive()

        await self.app(scope, replay, guarded)


class Heads:
    """Answers HEAD as it would GET, without the body (RFC 9110, 9.3.2)."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] != "http" or scope["method"] != "HEAD":
            await self.app(scope, receive, send)
            return

        async def bare(message: Message) -> None:
            if message["type"] == "http.response.body":
                message = {**message, "body": b""}
            await send(message)

        scope["method"] = "GET"
        await self.app(scope, receive, bare)
