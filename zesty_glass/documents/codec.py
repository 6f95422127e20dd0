"""Core value objects to and from JSON, through one Pydantic adapter a type."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from pydantic import TypeAdapter, ValidationError

from ..core.errors import RuleError

_adapters: dict[Any, TypeAdapter[Any]] = {}


def adapter(kind: Any) -> TypeAdapter[Any]:
    """The adapter of a type, built once."""
    if kind not in _adapters:
        _adapters[kind] = TypeAdapter(kind)
    return _adapters[kind]


def plain(value: Any, kind: Any = None) -> Any:
    """A value as plain JSON-ready Python; ``kind`` when it is not the value's own type."""
    return adapter(kind or type(value)).dump_python(value, mode="json")


def to_json(value: Any, kind: Any = None, indent: int | None = None) -> bytes:
    """A value as JSON."""
    return adapter(kind or type(value)).dump_json(value, indent=indent)


def load(kind: Any, data: Any, where: str = "") -> Any:
    """A value from plain Python; RuleError says where it does not fit."""
    try:
        return adapter(kind).validate_python(data)
    except ValidationError as e:
        raise told(e, where) from e


def load_json(kind: Any, text: bytes | str, where: str = "") -> Any:
    """A value from JSON text; RuleError says where it does not fit."""
    try:
        return adapter(kind).validate_json(text)
    except ValidationError as e:
        raise told(e, where) from e


def path(parts: Sequence[int | str]) -> str:
    """A place in a document, e.g. ``samples[0].readings[2].observation.drops``."""
    out = ""
    for p in parts:
        out += f"[{p}]" if isinstance(p, int) else f".{p}" if out else str(p)
    return out


_SAY = {
    "missing": "This is missing.", "extra_forbidden": "This field is not known.", "int_parsing": "A whole number is wanted here.", "int_from_float": "A whole number is wanted here.", "float_parsing": "A number is wanted here.",
    "decimal_parsing": "An amount is wanted here.", "datetime_from_date_parsing": "A date and time are wanted here.", "finite_number": "A finite number is wanted here.", "string_type": "Text is wanted here.", "bool_parsing": "Yes or no is wanted here.",
    "float_type": "A number is wanted here.", "int_type": "A whole number is wanted here.", "union_tag_invalid": "This kind is not known.",
}


def told(error: ValidationError, where: str = "") -> RuleError:
    """The first thing wrong, said plainly; how many more there are is added."""
    errors = error.errors(include_url=False)
    first = errors[0]
    cause = first.get("ctx", {}).get("error")
    if isinstance(cause, RuleError):
        return RuleError(cause.code, cause.what, (where and f"{where}.{cause.where}".rstrip(".")) or cause.where, cause.remedy)
    place = path([p for p in first["loc"] if not (isinstance(p, str) and (p[:1].isupper() or p.startswith("function-")))])
    what = _SAY.get(first["type"], first["msg"] + ".")
    more = f" {len(errors) - 1} more like it." if len(errors) > 1 else ""
    full = ".".join(p for p in (where, place) if p)
    return RuleError(f"input.{first['type']}", f"{what}{more}", full, "Check that field.")
