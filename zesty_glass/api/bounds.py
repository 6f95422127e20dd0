"""Requests are bounded, answers carry the usual guards."""

from __future__ import annotations

from starlette.types import ASGIApp, Message, Receive, Scope, Send

from .problems import problem

LARGEST_BODY = 6_000_000
_POLICY = "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; font-src 'self'; connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'; object-src 'none'"
_HEADERS = [
    (b"content-security-policy", _POLICY.encode()),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
    (b"x-frame-options", b"DENY"),
    (b"permissions-policy", b"camera=(), microphone=(), geolocation=()"),
]


class Bounds:
    """Refuses bodies over ``LARGEST_BODY`` [bytes], said or sent, and adds security headers."""

    def __init__(self, app: ASGIApp) -> None:
        self.app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        """One request."""
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return

        async def guarded(message: Message) -> None:
            if message["type"] == "http.response.start":
                message["headers"] = [*message.get("headers", []), *_HEADERS]
            await send(message)

        length = dict(scope["headers"]).get(b"content-length", b"0")
        if not length.isdigit() or int(length) > LARGEST_BODY:
            refused = problem(
                413,
                "too_large",
                "This is too large.",
                "body",
                f"At most {LARGEST_BODY // 1_000_000} MB are taken at once. Is it the right file?",
            )
            await refused(scope, receive, guarded)
            return
        chunks: list[Message] = []
        size = 0
        if scope["method"] in ("POST", "PUT", "PATCH"):
            more = True
            while more:
                message = await receive()
                size += len(message.get("body", b""))
                if size > LARGEST_BODY:
                    refused = problem(
                        413, "too_large", "This is too large.", "body", "Is it the right file?"
                    )
                    await refused(scope, receive, guarded)
                    return
                chunks.append(message)
                more = message["type"] == "http.request" and message.get("more_body", False)
        waiting = iter(chunks)

        async def replay() -> Message:
            return next(waiting, None) or await receive()

        await self.app(scope, replay, guarded)
