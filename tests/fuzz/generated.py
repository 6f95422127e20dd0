"""Requests generated from the description of the interface, each answer held against what the
description says.
"""

from __future__ import annotations

from collections import Counter

import hypothesis
import requests
import schemathesis
from hypothesis import HealthCheck, Phase, given, settings
from schemathesis.checks import not_a_server_error
from schemathesis.config import SchemathesisConfig
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    negative_data_rejection,
    response_schema_conformance,
    status_code_conformance,
    unsupported_method,
)

from tests.application import Client
from tests.database import SECRET, fresh
from zesty_glass.api.app import create_app
from zesty_glass.demo.homes import uid
from zesty_glass.demo.load import EMAIL, MANAGER_EMAIL, PASSWORD

CHECKS = (
    not_a_server_error,
    status_code_conformance,
    content_type_conformance,
    response_schema_conformance,
    negative_data_rejection,
    unsupported_method,
)
#: streams that go on for minutes, and what ends the session that asks
SKIPPED = ("/standins/meter/", "/suggest/stream", "/suggest")
VISIT, PROPOSAL = uid("home-2-visit"), uid("home-1-proposal")


def _clients(app) -> dict[str, Client]:
    out = {"stranger": Client(app, raise_server_exceptions=False)}
    for name, email in (("consultant", EMAIL), ("manager", MANAGER_EMAIL)):
        c = Client(app, raise_server_exceptions=False)
        r = c.post("/api/session", json={"email": email, "password": PASSWORD})
        c.headers["X-Zesty-Token"] = r.json()["token"]
        out[name] = c
    return out


def _as(case, client: Client) -> None:
    """Have a request come from whoever is signed in with a client, or from nobody."""
    for held, names in (("cookies", ("zesty_session",)), ("headers", ("X-Zesty-Token",))):
        values = dict(getattr(case, held) or {})
        for name in names:
            values.pop(name, None)
            given = client.cookies.get(name) if held == "cookies" else client.headers.get(name)
            if given:
                values[name] = given
        setattr(case, held, values)


def _known(case, n: int) -> None:
    """Half of the addresses name things that are there, so that more than the way in is tried."""
    if n % 2 and case.path_parameters:
        for name in case.path_parameters:
            known = {
                "id": PROPOSAL if "/proposals/{id}" in case.operation.path else VISIT,
                "option_id": uid("home-2-option-a"),
            }.get(name)
            if known:
                case.path_parameters[name] = known


def run(many: int, seed: int) -> tuple[int, Counter, list[str]]:
    """How many requests were sent, how often each status came, and what differs from the
    description.
    """
    app = create_app(fresh(), SECRET, secure_cookie=False)
    clients = _clients(app)
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", app, config=SchemathesisConfig())
    found: list[str] = []
    seen: Counter = Counter()
    operations = [r.ok() for r in schema.get_all_operations() if not r.ok().path.endswith(SKIPPED)]
    operations = [o for o in operations if not any(s in o.path for s in SKIPPED[:1])]
    each = -(-many // len(operations))  # rounded up
    for operation in operations:
        few = max(2, each // 10) if operation.path.endswith("/pdf") else each
        _one(operation, clients, few, seed, seen, found)
    sent = sum(seen.values())
    app.state.engine.dispose()
    return sent, seen, found


def _checks(response, n: int) -> list:
    """All checks; the shape of a long answer, which takes seconds to hold against its schema, each
    eighth time.
    """
    if len(response.content) > 30_000 and n % 8:
        return [c for c in CHECKS if c is not response_schema_conformance]
    return list(CHECKS)


def _one(operation, clients, each, seed, seen, found) -> None:
    """Requests of one operation, by turns as consultant, manager and stranger."""
    n = [0]

    @hypothesis.seed(seed)
    @settings(
        max_examples=each,
        deadline=None,
        database=None,
        phases=[Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(case=operation.as_strategy())
    def one(case):
        n[0] += 1
        _known(case, n[0])
        who = ("consultant", "manager", "stranger", "consultant")[n[0] % 4]
        if operation.path == "/api/session" and operation.method.upper() == "DELETE":
            who = "stranger"
        _as(case, clients[who])
        try:
            response = case.call()
        except requests.exceptions.InvalidHeader:
            return  # no client can send this
        except Exception as e:  # the server's own: the answer would have been 500
            found.append(f"{operation.method.upper()} {operation.path} as {who}: {e!r}"[:600])
            return
        seen[response.status_code] += 1
        if response.status_code == 429:
            return
        try:
            case.validate_response(response, checks=_checks(response, n[0]))
        except schemathesis.errors.SchemathesisError as e:
            raise e
        except BaseExceptionGroup as e:
            text = "; ".join(str(x).split("\n\n")[0] for x in e.exceptions)
            found.append(f"{operation.method.upper()} {operation.path} as {who}: {text[:600]}")
        except AssertionError as e:
            found.append(f"{operation.method.upper()} {operation.path} as {who}: {str(e)[:600]}")

    one()
