"""The interface's description as a page that is read: every operation, record, field and error,
from the description itself (OpenAPI 3.1), with no script and nothing from elsewhere.
"""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from pathlib import Path
from typing import Any

from jinja2 import Environment, FileSystemLoader, Template

_HERE = Path(__file__).parent
_REF = "#/components/schemas/"
Schema = dict[str, Any]


@cache
def _template() -> Template:
    env = Environment(loader=FileSystemLoader(_HERE / "templates"), autoescape=True)
    env.filters["kind"] = kind
    return env.get_template("reference.html")


def kind(schema: Schema) -> list[tuple[str, str]]:
    """A type in words, piece by piece: what is said, and the record it leads to or nothing.

    >>> kind({"type": "array", "items": {"$ref": "#/components/schemas/Reading"}})
    [('list of ', ''), ('Reading', 'Reading')]
    >>> kind({"anyOf": [{"type": "number"}, {"type": "null"}]})
    [('number', ''), (' or ', ''), ('null', '')]
    """
    if "$ref" in schema:
        name = schema["$ref"].removeprefix(_REF)
        return [(name, name)]
    for word in ("anyOf", "oneOf", "allOf"):
        if word in schema:
            return _joined([kind(s) for s in schema[word]], " or ")
    if "enum" in schema or "const" in schema:
        values = schema.get("enum", [schema.get("const")])
        return [(", ".join(f"“{v}”" for v in values), "")]
    if schema.get("type") == "array":
        items = schema.get("items") or {}
        return [("list of ", ""), *kind(items)]
    if isinstance(schema.get("additionalProperties"), dict):
        return [("by name: ", ""), *kind(schema["additionalProperties"])]
    said = schema.get("format") or schema.get("type") or "anything"
    return [(str(said), "")]


def _joined(parts: list[list[tuple[str, str]]], between: str) -> list[tuple[str, str]]:
    out: list[tuple[str, str]] = []
    for part in parts:
        out += [(between, "")] * bool(out) + part
    return out


def _content(of: Schema) -> Iterator[tuple[str, Schema]]:
    for media, said in (of.get("content") or {}).items():
        yield media, said.get("schema") or {}


def _operation(method: str, path: str, said: Schema) -> Schema:
    good = [(s, r) for s, r in said["responses"].items() if s.startswith("2")]
    return {
        "method": method.upper(),
        "path": path,
        "name": said["operationId"],
        "words": said.get("description", ""),
        "scopes": [" and ".join(w["script"]) for w in said.get("security", ()) if "script" in w],
        "opened": not said.get("security"),
        "parameters": said.get("parameters", ()),
        "takes": list(_content(said.get("requestBody") or {})),
        "answers": [(s, list(_content(r))) for s, r in good],
        "errors": [(s, r["description"]) for s, r in said["responses"].items() if s >= "400"],
    }


def reference(description: Schema) -> str:
    """The page.

    Args:
        description: the interface as it describes itself (OpenAPI 3.1).
    """
    areas: dict[str, list[Schema]] = {}
    for path, methods in description["paths"].items():
        for method, said in methods.items():
            area = (said.get("tags") or ["server"])[0]
            areas.setdefault(area, []).append(_operation(method, path, said))
    return _template().render(
        version=description["info"]["version"],
        areas=sorted(areas.items()),
        records=sorted(description["components"]["schemas"].items()),
    )
