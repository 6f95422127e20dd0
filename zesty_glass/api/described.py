"""The description of the interface (OpenAPI), made true: what every route takes,
gives and refuses.
"""

from __future__ import annotations

from typing import Any

from fastapi import FastAPI

from ..core.bounds import NO_NUL
from .may import OPEN, ROUTES
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
_SIGNED: list[dict[str, list[str]]] = [{"session": [], "forgery": []}]
_READING: list[dict[str, list[str]]] = [{"session": []}]


def _operations(schema: dict[str, Any]) -> Any:
    for path, methods in schema["paths"].items():
        for method, operation in methods.items():
            yield path, method.upper(), operation


def _finish(schema: dict[str, Any]) -> dict[str, Any]:
    parts = schema.setdefault("components", {})
    parts["securitySchemes"] = {
        "session": {"type": "apiKey", "in": "cookie", "name": "zesty_session"},
        "forgery": {"type": "apiKey", "in": "header", "name": "X-Zesty-Token"},
    }
    parts["schemas"]["Problem"] = Problem.model_json_schema()
    parts["schemas"].pop("HTTPValidationError", None)
    parts["schemas"].pop("ValidationError", None)
    for path, method, operation in _operations(schema):
        if path in _FILES and method in ("POST", "PUT"):
            body = {"type": "string", "format": "binary"}
            operation["requestBody"] = {
                "required": True,
                "content": {kind: {"schema": body} for kind in _FILES[path]},
            }
        if (method, path) not in OPEN and (method, path) in ROUTES:
            operation["security"] = _READING if method == "GET" else _SIGNED
        for p in operation.get("parameters", ()):
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
