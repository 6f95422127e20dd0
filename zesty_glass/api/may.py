"""Who may do what. The policy of a route is named in its handler's signature (``Signed``,
``Selling``, ``Managing``, ``ManagingAgain``); what is open to whoever asks, and what tokens for
scripts open, stands here. A route with no policy that is not open fails a test.

What a role may do says nothing yet of whose: a consultant sees their own customers, a fitter the
homes whose proposal was accepted, a manager all of the firm's, nobody another firm's. That stands
in the queries (``work/visiting.py``).
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Role = Literal["consultant", "manager", "installer"]

EVERYBODY: frozenset[str] = frozenset({"consultant", "manager", "installer"})
SELLING: frozenset[str] = frozenset({"consultant", "manager"})
MANAGER: frozenset[str] = frozenset({"manager"})


@dataclass(frozen=True, slots=True)
class Policy:
    """Who may use a route: these roles; ``again``: prices, limits and people, for which the
    password must have been given within the hour.
    """

    roles: frozenset[str]
    again: bool = False


#: open to whoever asks: signing in, and what a customer's link shows
OPEN: frozenset[tuple[str, str]] = frozenset(
    {
        ("POST", "/api/session"),
        ("POST", "/api/session/forgotten"),
        ("POST", "/api/session/passkey"),
        ("POST", "/api/session/passkey/options"),
        ("POST", "/api/join/look"),
        ("POST", "/api/join"),
        ("GET", "/api/health"),
        ("GET", "/api/openapi.json"),
        ("GET", "/api/offered/{token}"),
        ("POST", "/api/offered/{token}/accept"),
        ("POST", "/api/offered/{token}/ask"),
        ("GET", "/api/offered/{token}/pdf"),
        ("GET", "/api/feed/{token}"),
    }
)

#: what no token for scripts opens: people of the firm, sessions, tokens
_NOT_FOR_SCRIPTS = ("/api/session", "/api/people", "/api/tokens", "/api/audit", "/api/feeds")
#: what tells of customers and their homes
_OF_CUSTOMERS = (
    "/api/visits",
    "/api/homes",
    "/api/proposals",
    "/api/jobs",
    "/api/due",
    "/api/waiting",
    "/api/fitters",
    "/api/outbox",
    "/api/track/",
    "/api/monday",
)
_V = "/api/visits/{id}"
#: what a token for scripts may write, by its scope, within what its maker may, and what it reads
#: for that; none presents or signs
SCOPES: dict[str, frozenset[tuple[str, str]]] = {
    "readings": frozenset(
        {
            ("PUT", f"{_V}/samples/{{sample_id}}"),
            ("PUT", f"{_V}/samples/{{sample_id}}/readings/{{reading_id}}"),
            ("PUT", f"{_V}/samples/{{sample_id}}/readings/{{reading_id}}/with/{{key}}"),
            ("GET", "/api/instruments"),
            ("POST", f"{_V}/samples/{{sample_id}}/lab-results"),
            ("PUT", f"{_V}/lab-samples/{{lab_id}}"),
        }
    ),
    "proposals": frozenset(
        {
            ("POST", "/api/visits"),
            ("PUT", f"{_V}/home"),
            ("PUT", f"{_V}/samples/{{sample_id}}"),
            ("PUT", f"{_V}/options/{{option_id}}"),
            ("DELETE", f"{_V}/options/{{option_id}}"),
            ("GET", f"{_V}/options/{{option_id}}/what-if"),
            ("GET", f"{_V}/suggest"),
            ("GET", f"{_V}/suggest/stream"),
            ("GET", f"{_V}/comparison"),
            ("POST", f"{_V}/proposals"),
        }
    ),
    "catalogue": frozenset(
        {
            ("GET", "/api/catalogue"),
            ("GET", "/api/catalogue/file"),
            ("POST", "/api/catalogue/preview"),
            ("POST", "/api/catalogue/import"),
        }
    ),
}


#: routes whose answer tells of the customer: the scope that they want beside their own
BESIDE: dict[tuple[str, str], str] = {("POST", f"{_V}/proposals"): "personal"}


def _reading(method: str, path: str) -> str:
    """The scope that reads a route; none for what no token opens."""
    if method != "GET" or path.startswith(_NOT_FOR_SCRIPTS) or (method, path) in OPEN:
        return ""
    return "personal" if path.startswith(_OF_CUSTOMERS) else "read"


def scopes_for(method: str, path: str) -> list[tuple[str, ...]]:
    """Each way for a token to open a route: the scopes that it has all of."""
    beside = BESIDE.get((method, path))
    ways = [scope for scope in (_reading(method, path),) if scope]
    ways += [scope for scope, opens in SCOPES.items() if (method, path) in opens]
    return [(scope,) if beside is None else (scope, beside) for scope in ways]


def script_may(scopes: tuple[str, ...], method: str, path: str) -> bool:
    """Whether a token of these scopes opens a route."""
    return any(set(way) <= set(scopes) for way in scopes_for(method, path))
