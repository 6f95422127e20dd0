"""Who may do what: one table over every route. A route that is not in it is refused to everybody,
and a test fails.

What a role may do says nothing yet of whose: a consultant sees their own customers, a fitter the
homes whose proposal was accepted, a manager all of the firm's, nobody another firm's. That stands
in the queries (``work/visiting.py``).
"""

from __future__ import annotations

from typing import Literal

Role = Literal["consultant", "manager", "installer"]

EVERYBODY: frozenset[str] = frozenset({"consultant", "manager", "installer"})
SELLING: frozenset[str] = frozenset({"consultant", "manager"})
MANAGER: frozenset[str] = frozenset({"manager"})

_V, _P, _J = "/api/visits/{id}", "/api/proposals/{id}", "/api/jobs/{id}"

#: method and path -> who may
ROUTES: dict[tuple[str, str], frozenset[str]] = {
    ("GET", "/api/session"): EVERYBODY,
    ("DELETE", "/api/session"): EVERYBODY,
    ("POST", "/api/session/prove"): EVERYBODY,
    ("GET", "/api/session/all"): EVERYBODY,
    ("DELETE", "/api/session/all/{id}"): EVERYBODY,
    ("POST", "/api/session/password"): EVERYBODY,
    ("POST", "/api/session/second-factor"): EVERYBODY,
    ("PUT", "/api/session/second-factor"): EVERYBODY,
    ("POST", "/api/session/second-factor/off"): EVERYBODY,
    ("GET", "/api/session/passkeys"): EVERYBODY,
    ("POST", "/api/session/passkeys"): EVERYBODY,
    ("POST", "/api/session/passkeys/options"): EVERYBODY,
    ("DELETE", "/api/session/passkeys/{id}"): EVERYBODY,
    ("GET", "/api/people"): MANAGER,
    ("POST", "/api/people/invitations"): MANAGER,
    ("DELETE", "/api/people/invitations/{id}"): MANAGER,
    ("PUT", "/api/people/{id}"): MANAGER,
    ("POST", "/api/people/{id}/take-out"): MANAGER,
    ("POST", "/api/people/{id}/let-in"): MANAGER,
    ("POST", "/api/people/{id}/new-password"): MANAGER,
    ("GET", "/api/tokens"): MANAGER,
    ("POST", "/api/tokens"): MANAGER,
    ("DELETE", "/api/tokens/{id}"): MANAGER,
    ("GET", "/api/audit"): MANAGER,
    ("GET", "/api/audit/table.csv"): MANAGER,
    ("GET", "/api/instruments"): EVERYBODY,
    ("PUT", "/api/instruments/{key}"): MANAGER,
    ("GET", "/api/reference"): EVERYBODY,
    ("GET", "/api/catalogue"): EVERYBODY,
    ("GET", "/api/catalogue/file"): SELLING,
    ("GET", "/api/catalogue/off-sale"): EVERYBODY,
    ("GET", "/api/catalogue/examples"): EVERYBODY,
    ("POST", "/api/catalogue/examples/take-off"): MANAGER,
    ("PUT", "/api/catalogue/{code}/sale"): MANAGER,
    ("POST", "/api/catalogue/preview"): SELLING,
    ("POST", "/api/catalogue/import"): MANAGER,
    ("GET", "/api/firm"): EVERYBODY,
    ("PUT", "/api/firm"): MANAGER,
    ("POST", "/api/firm/limits/{limit}"): MANAGER,
    ("GET", "/api/laboratory/kinds"): EVERYBODY,
    ("GET", "/api/laboratory/posting"): EVERYBODY,
    ("POST", "/api/laboratory/preview"): EVERYBODY,
    ("GET", "/api/demonstrations"): EVERYBODY,
    ("GET", "/api/outbox"): SELLING,
    ("GET", "/api/visits"): EVERYBODY,
    ("POST", "/api/visits"): SELLING,
    ("GET", "/api/visits/homes"): EVERYBODY,
    ("POST", "/api/visits/import"): SELLING,
    ("GET", _V): EVERYBODY,
    ("PATCH", _V): SELLING,
    ("POST", f"{_V}/again"): SELLING,
    ("PUT", f"{_V}/home"): SELLING,
    ("PUT", f"{_V}/plan"): SELLING,
    ("PUT", f"{_V}/close"): SELLING,
    ("PUT", f"{_V}/terms"): SELLING,
    ("PUT", f"{_V}/samples/{{sample_id}}"): EVERYBODY,
    ("PUT", f"{_V}/samples/{{sample_id}}/readings/{{reading_id}}"): EVERYBODY,
    ("PUT", f"{_V}/samples/{{sample_id}}/readings/{{reading_id}}/with/{{key}}"): EVERYBODY,
    ("POST", f"{_V}/readings/{{reading_id}}/strike"): EVERYBODY,
    ("POST", f"{_V}/unreadable/{{part}}/{{part_id}}/strike"): SELLING,
    ("PUT", f"{_V}/options/{{option_id}}"): SELLING,
    ("DELETE", f"{_V}/options/{{option_id}}"): SELLING,
    ("GET", f"{_V}/options/{{option_id}}/what-if"): SELLING,
    ("GET", f"{_V}/options/{{option_id}}/steps"): EVERYBODY,
    ("GET", f"{_V}/comparison"): EVERYBODY,
    ("GET", f"{_V}/renting"): EVERYBODY,
    ("GET", f"{_V}/card"): EVERYBODY,
    ("GET", f"{_V}/appliances/{{kind}}"): EVERYBODY,
    ("GET", f"{_V}/pair"): EVERYBODY,
    ("GET", f"{_V}/file"): SELLING,
    ("GET", f"{_V}/readings.csv"): EVERYBODY,
    ("GET", f"{_V}/suggest"): SELLING,
    ("GET", f"{_V}/suggest/stream"): SELLING,
    ("PUT", f"{_V}/lab-samples/{{lab_id}}"): EVERYBODY,
    ("POST", f"{_V}/samples/{{sample_id}}/lab-results"): EVERYBODY,
    ("PUT", f"{_V}/demonstrations/{{demo_id}}"): SELLING,
    ("POST", f"{_V}/tastings"): SELLING,
    ("POST", f"{_V}/care"): SELLING,
    ("GET", f"{_V}/standins/meter/{{sample_id}}"): EVERYBODY,
    ("GET", f"{_V}/standins/colorimeter/{{sample_id}}/{{analyte}}"): EVERYBODY,
    ("GET", f"{_V}/standins/laboratory/{{lab_id}}"): EVERYBODY,
    ("GET", f"{_V}/draft"): SELLING,
    ("POST", f"{_V}/proposals"): SELLING,
    ("GET", f"{_V}/personal-data"): SELLING,
    ("POST", f"{_V}/erase"): MANAGER,
    ("GET", _P): EVERYBODY,
    ("GET", f"{_P}/pdf"): EVERYBODY,
    ("GET", f"{_P}/costs.csv"): SELLING,
    ("GET", f"{_P}/calendar.ics"): EVERYBODY,
    ("POST", f"{_P}/{{to}}"): SELLING,
    ("PUT", f"{_P}/until"): SELLING,
    ("PUT", f"{_P}/correction"): SELLING,
    ("GET", f"{_P}/links"): SELLING,
    ("POST", f"{_P}/links"): SELLING,
    ("DELETE", "/api/links/{id}"): SELLING,
    ("POST", f"{_P}/mail"): SELLING,
    ("POST", f"{_P}/job"): SELLING,
    ("GET", "/api/jobs"): EVERYBODY,
    ("GET", "/api/due"): EVERYBODY,
    ("GET", "/api/waiting"): EVERYBODY,
    ("GET", "/api/homes"): EVERYBODY,
    ("GET", "/api/homes/table.csv"): EVERYBODY,
    ("POST", "/api/homes/preview"): SELLING,
    ("POST", "/api/homes/import"): MANAGER,
    ("GET", "/api/homes/{id}/years"): EVERYBODY,
    ("PUT", "/api/homes/{id}/notes/{note_id}"): EVERYBODY,
    ("POST", "/api/homes/{id}/notes/{note_id}/strike"): EVERYBODY,
    ("POST", "/api/homes/{id}/notes/{note_id}/close"): EVERYBODY,
    ("PUT", "/api/homes/{id}/owner"): SELLING,
    ("POST", "/api/homes/{id}/former/erase"): MANAGER,
    ("PUT", "/api/homes/{id}/people"): SELLING,
    ("POST", "/api/homes/{id}/merge"): SELLING,
    ("POST", "/api/homes/{id}/unmerge"): SELLING,
    ("GET", "/api/homes/elsewhere"): SELLING,
    ("POST", "/api/homes/{id}/ask"): SELLING,
    ("POST", "/api/homes/{id}/give"): SELLING,
    ("POST", "/api/homes/contact"): SELLING,
    ("GET", "/api/instruments/drift"): EVERYBODY,
    ("PUT", "/api/instruments/{key}/checks/{check_id}"): EVERYBODY,
    ("GET", "/api/track"): SELLING,
    ("GET", "/api/monday"): MANAGER,
    ("GET", "/api/monday/{what}.csv"): MANAGER,
    ("POST", "/api/outbox/{id}/answered"): SELLING,
    ("PUT", f"{_P}/payments/{{payment_id}}"): SELLING,
    ("POST", f"{_P}/payments/{{payment_id}}/strike"): SELLING,
    ("GET", "/api/feeds"): EVERYBODY,
    ("POST", "/api/feeds"): EVERYBODY,
    ("DELETE", "/api/feeds/{id}"): EVERYBODY,
    ("GET", "/api/track/jobs"): SELLING,
    ("GET", "/api/track/parts"): SELLING,
    ("GET", "/api/track/proposals"): SELLING,
    ("GET", "/api/track/waters"): SELLING,
    ("GET", "/api/track/more"): SELLING,
    ("GET", f"{_V}/pictures"): EVERYBODY,
    ("PUT", f"{_V}/pictures/{{file_id}}"): EVERYBODY,
    ("GET", f"{_V}/pictures/{{file_id}}"): EVERYBODY,
    ("DELETE", f"{_V}/pictures/{{file_id}}"): EVERYBODY,
    ("GET", "/api/certificates"): EVERYBODY,
    ("PUT", "/api/certificates/{file_id}"): MANAGER,
    ("GET", "/api/certificates/{file_id}"): EVERYBODY,
    ("DELETE", "/api/certificates/{file_id}"): MANAGER,
    ("GET", _J): EVERYBODY,
    ("GET", "/api/fitters"): EVERYBODY,
    ("PUT", f"{_J}/plan"): EVERYBODY,
    ("POST", f"{_J}/end"): SELLING,
    ("POST", f"{_J}/reopen"): SELLING,
    ("PUT", f"{_J}/plumbing"): EVERYBODY,
    ("PUT", f"{_J}/fitted"): EVERYBODY,
    ("POST", f"{_J}/ticks"): EVERYBODY,
    ("PUT", f"{_J}/proofs/{{reading_id}}"): EVERYBODY,
    ("POST", f"{_J}/proofs/{{reading_id}}/strike"): EVERYBODY,
    ("PUT", f"{_J}/changes/{{change_id}}"): EVERYBODY,
    ("DELETE", f"{_J}/changes/{{change_id}}"): EVERYBODY,
    ("PUT", f"{_J}/moves/{{move_id}}"): EVERYBODY,
    ("DELETE", f"{_J}/moves/{{move_id}}"): EVERYBODY,
    ("PUT", f"{_J}/gauges/{{gauge_id}}"): EVERYBODY,
    ("DELETE", f"{_J}/gauges/{{gauge_id}}"): EVERYBODY,
    ("PUT", f"{_J}/follow-ups/{{follow_id}}"): EVERYBODY,
}

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

#: prices, limits and people: the password must have been given within the hour
PROVED: frozenset[tuple[str, str]] = frozenset(
    {
        ("PUT", "/api/firm"),
        ("POST", "/api/firm/limits/{limit}"),
        ("PUT", "/api/instruments/{key}"),
        ("POST", "/api/catalogue/import"),
        ("PUT", "/api/catalogue/{code}/sale"),
        ("POST", "/api/catalogue/examples/take-off"),
        ("POST", "/api/visits/{id}/erase"),
        ("POST", "/api/homes/{id}/former/erase"),
        ("POST", "/api/homes/import"),
        ("POST", "/api/people/invitations"),
        ("PUT", "/api/people/{id}"),
        ("POST", "/api/people/{id}/take-out"),
        ("POST", "/api/people/{id}/let-in"),
        ("POST", "/api/people/{id}/new-password"),
        ("POST", "/api/tokens"),
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
_READ = frozenset((m, p) for m, p in ROUTES if m == "GET" and not p.startswith(_NOT_FOR_SCRIPTS))
_PERSONAL = frozenset((m, p) for m, p in _READ if p.startswith(_OF_CUSTOMERS))
#: what a token for scripts opens, by its scope, within what its maker may; none presents or signs
SCOPES: dict[str, frozenset[tuple[str, str]]] = {
    "read": _READ - _PERSONAL,
    "personal": _PERSONAL,
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


def scopes_for(method: str, path: str) -> list[tuple[str, ...]]:
    """Each way for a token to open a route: the scopes that it has all of."""
    beside = BESIDE.get((method, path))
    ways = (scope for scope, opens in SCOPES.items() if (method, path) in opens)
    return [(scope,) if beside is None else (scope, beside) for scope in ways]


def script_may(scopes: tuple[str, ...], method: str, path: str) -> bool:
    """Whether a token of these scopes opens a route."""
    return any(set(way) <= set(scopes) for way in scopes_for(method, path))


def may(role: str, method: str, path: str) -> bool:
    """Whether a role may use a route; nobody may use one that is not in the table."""
    return role in ROUTES.get((method, path), frozenset())
