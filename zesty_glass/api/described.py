"""The description of the interface (OpenAPI), made true: what every route takes,
gives and refuses.
"""

from __future__ import annotations

import json
import re
from functools import cache
from pathlib import Path
from typing import Any

from fastapi import FastAPI
from fastapi.routing import APIRoute

from ..core.bounds import NO_NUL
from .may import OPEN, scopes_for
from .parameters import SAID
from .problems import Problem

#: bodies that are files: path -> media types
_FILES = {
    "/api/visits/import": ("application/json",),
    "/api/catalogue/preview": ("application/json", "text/csv"),
    "/api/catalogue/import": ("application/json", "text/csv"),
    "/api/homes/preview": ("text/csv",),
    "/api/homes/import": ("text/csv",),
    "/api/homes/contact": ("text/vcard",),
    "/api/laboratory/preview": ("text/csv",),
    "/api/visits/{id}/samples/{sample_id}/lab-results": ("text/csv",),
    "/api/visits/{id}/pictures/{file_id}": ("image/jpeg", "image/png", "image/webp"),
    "/api/certificates/{file_id}": ("application/pdf", "image/jpeg"),
}
#: who may ask: somebody signed in, or a script with its token
_SIGNED: dict[str, list[str]] = {"session": [], "forgery": []}
_READING: dict[str, list[str]] = {"session": []}


def named(route: APIRoute) -> str:
    """What an operation is called, in the description and in clients that are made from it."""
    area = str(route.tags[0]) if route.tags else "server"
    return f"{area}_{route.name}".replace(" ", "_").replace("-", "_")


def _who(method: str, path: str) -> list[dict[str, list[str]]]:
    """Who may ask: somebody signed in, or a script whose token has one of these scopes."""
    signed = _READING if method == "GET" else _SIGNED
    return [signed, *({"script": list(way)} for way in scopes_for(method, path))]


def _own_errors(operation: dict[str, Any], method: str, path: str) -> None:
    """Leave an operation the errors that it can answer with."""
    opened = (method, path) in OPEN
    places = {p["in"] for p in operation.get("parameters", ())}
    takes = "requestBody" in operation
    never = {
        "400": not takes,
        "401": opened and not path.startswith("/api/session"),  # signing in may fail
        "403": opened,
        "404": "path" not in places and not takes,
        "405": True,
        "409": method == "GET",
        "413": not takes,
        "414": True,
    }
    for status, not_here in never.items():
        if not_here:
            operation["responses"].pop(status, None)


def _operations(schema: dict[str, Any]) -> Any:
    for path, methods in schema["paths"].items():
        for method, operation in methods.items():
            yield path, method.upper(), operation


@cache
def _data(name: str) -> dict[str, Any]:
    found: dict[str, Any] = json.loads(Path(__file__).with_name(name).read_text())
    return found


def _examples() -> dict[str, Any]:
    """A body for each route that takes one, as its tests send it."""
    return _data("examples.json")


def field_words() -> dict[str, dict[str, str]]:
    """What fields are, by record and name; under ``*`` what a name means wherever its record says
    nothing else.
    """
    return _data("fields.json")


def _say(parameter: dict[str, Any]) -> None:
    """What a parameter is, with an example, where its route does not say so itself."""
    words, example = SAID.get(parameter["name"], ("", None))
    if words:
        parameter.setdefault("description", words)
    if example is not None and not parameter["schema"].keys() & {"enum", "const"}:
        parameter.setdefault("example", example)


_ARGS = re.compile(r"^Args:\n(.*)\Z", re.MULTILINE | re.DOTALL)
_FIELD = re.compile(r"(?:^|(?<=[.;] ))([a-z_]+(?:, [a-z_]+)*): ")


def fields_of(words: str) -> dict[str, str]:
    """What a record's docstring says of each of its fields.

    >>> fields_of("A part.\\n\\nArgs:\\n    months: calendar [months]; own: by the household.")
    {'months': 'calendar [months]', 'own': 'by the household'}
    """
    found = _ARGS.search(words)
    if found is None:
        return {}
    text = " ".join(found[1].split())
    starts = list(_FIELD.finditer(text))
    out: dict[str, str] = {}
    for start, after in zip(starts, [*starts[1:], None], strict=True):
        said = text[start.end() : after.start() if after else None].strip().rstrip(".;")
        out |= dict.fromkeys(start[1].split(", "), said)
    return out


def _say_fields(record: str, schema: dict[str, Any]) -> None:
    """What each field is: as its record says it, else as it is said of this record's, else of
    fields of this name.
    """
    words = field_words()
    said = words["*"] | words.get(record, {}) | fields_of(schema.get("description", ""))
    for name, field in schema.get("properties", {}).items():
        if name in said:
            field.setdefault("description", said[name])


#: where the page behind this one is
_NEXT = {
    "Link": {
        "description": 'The address of the next page, rel="next" (RFC 8288); not on the last.',
        "schema": {"type": "string"},
    }
}


def _is_list(operation: dict[str, Any]) -> bool:
    content = operation["responses"].get("200", {}).get("content", {})
    paged = any(p["name"] == "most" for p in operation.get("parameters", ()))
    return paged and content["application/json"]["schema"].get("type") == "array"


def _finish(schema: dict[str, Any]) -> dict[str, Any]:
    parts = schema.setdefault("components", {})
    parts["securitySchemes"] = {
        "session": {"type": "apiKey", "in": "cookie", "name": "zesty_session"},
        "forgery": {"type": "apiKey", "in": "header", "name": "X-Zesty-Token"},
        "script": {"type": "http", "scheme": "bearer"},
    }
    problem = Problem.model_json_schema(ref_template="#/components/schemas/{model}")
    parts["schemas"] |= problem.pop("$defs", {}) | {"Problem": problem}
    parts["schemas"].pop("HTTPValidationError", None)
    parts["schemas"].pop("ValidationError", None)
    for record, part in parts["schemas"].items():
        _say_fields(record, part)
    for path, method, operation in _operations(schema):
        if path in _FILES and method in ("POST", "PUT"):
            body = {"type": "string", "format": "binary"}
            operation["requestBody"] = {
                "required": True,
                "content": {kind: {"schema": body} for kind in _FILES[path]},
            }
        example = _examples().get(f"{method} {path}")
        if example is not None:
            operation["requestBody"]["content"]["application/json"]["example"] = example
        if (method, path) not in OPEN:
            operation["security"] = _who(method, path)
        _own_errors(operation, method, path)
        if _is_list(operation):
            operation["responses"]["200"]["headers"] = _NEXT
        for p in operation.get("parameters", ()):
            _say(p)
            if p["schema"].get("type") == "string" and "format" not in p["schema"]:
                p["schema"].setdefault("maxLength", 200)
                p["schema"].setdefault("pattern", NO_NUL)
    return schema


def described(app: FastAPI) -> None:
    """Have the application give its finished description."""
    made = app.openapi

    def openapi() -> dict[str, Any]:
        if app.openapi_schema is None:
            app.openapi_schema = _finish(made())
        return app.openapi_schema

    app.openapi = openapi  # type: ignore[method-assign]
