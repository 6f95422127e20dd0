"""Core value objects to and from JSON, through one Pydantic adapter a type."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from typing import Any

from pydantic import TypeAdapter, ValidationError

from ..core.errors import RuleError
from .meant import did_you_mean, fields_at

#: names that there may be at a place
Known = Callable[[Sequence[int | str]], Iterable[str]]
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
        raise told(e, where, kind) from e


def load_json(kind: Any, text: bytes | str, where: str = "") -> Any:
    """A value from JSON text; RuleError says where it does not fit."""
    try:
        return adapter(kind).validate_json(text)
    except ValidationError as e:
        raise told(e, where, kind) from e


def path(parts: Sequence[int | str]) -> str:
    """A place in a document, e.g. ``samples[0].readings[2].observation.drops``."""
    out = ""
    for p in parts:
        name = f".{p}" if out else str(p)
        out += f"[{p}]" if isinstance(p, int) else name
    return out


#: fields whose kind validation names in the place of an error
_TAGGED = ("observation", "figures", "body")
_SAY = {
    "missing": "This is missing.",
    "extra_forbidden": "This field is not known.",
    "unexpected_keyword_argument": "This field is not known.",
    "int_parsing": "A whole number is wanted here.",
    "int_from_float": "A whole number is wanted here.",
    "float_parsing": "A number is wanted here.",
    "decimal_parsing": "An amount is wanted here.",
    "datetime_from_date_parsing": "A date and time are wanted here.",
    "finite_number": "A finite number is wanted here.",
    "string_type": "Text is wanted here.",
    "bool_parsing": "Yes or no is wanted here.",
    "float_type": "A number is wanted here.",
    "int_type": "A whole number is wanted here.",
    "union_tag_invalid": "This kind is not known.",
    "union_tag_not_found": "It does not say of what kind it is.",
    **dict.fromkeys(
        (
            "dataclass_type",
            "model_attributes_type",
            "model_type",
            "dict_type",
            "dataclass_exact_type",
        ),
        "Fields with names are wanted here.",
    ),
    **dict.fromkeys(("tuple_type", "list_type"), "A list is wanted here."),
    "literal_error": "This is none of the answers that are known here.",
    "enum": "This is none of the answers that are known here.",
    "timezone_aware": "A time needs its zone, as in 2026-11-20T10:00:00Z.",
    "string_pattern_mismatch": "This text holds a character that cannot be kept.",
    "string_unicode": "This text holds a character that cannot be kept.",
    "decimal_max_digits": "This amount has too many digits.",
}
#: what a bound that was passed says; the bound itself is filled in
_SAY_BOUND = {
    "greater_than_equal": "This is too low: {ge} is the least.",
    "less_than_equal": "This is too high: {le} is the most.",
    "greater_than": "This is too low: it must be above {gt}.",
    "less_than": "This is too high: it must be below {lt}.",
    "string_too_long": "This text is too long: {max_length} characters are the most.",
    "string_too_short": "This text is too short: {min_length} characters are the least.",
    "too_long": "This list is too long: {max_length} entries are the most.",
    "too_short": "This list is too short: {min_length} entries are the least.",
}


def _place(loc: Sequence[int | str]) -> str:
    """A place in the words of the document: without the parts that only validation knows."""
    out: list[int | str] = []
    skip = False
    for p in loc:
        if (
            skip
            or p in ("body", "query", "path")
            or (isinstance(p, str) and (p[:1].isupper() or p.startswith("function-")))
        ):
            skip = False
            continue
        out.append(p)
        skip = p in _TAGGED
    return path(out)


MOST_TOLD = 50  # things wrong with one input that are told one by one


_UNKNOWN = ("extra_forbidden", "unexpected_keyword_argument")


def _told(error: Any, known: Known) -> RuleError:
    """One thing wrong, said plainly."""
    cause = error.get("ctx", {}).get("error")
    place = _place(error["loc"])
    if isinstance(cause, RuleError):
        return RuleError(cause.code, cause.what, cause.where or place, cause.remedy)
    kind = error["type"]
    bound = _SAY_BOUND.get(kind, "").format_map(error.get("ctx") or {})
    return RuleError(
        f"input.{kind}",
        bound or _SAY.get(kind, error["msg"] + "."),
        place,
        did_you_mean(str(error["loc"][-1]), known(error["loc"][:-1]))
        if kind in _UNKNOWN
        else "Check that field.",
    )


def told_all(errors: Sequence[Any], where: str = "", known: Known = lambda _: ()) -> RuleError:
    """All that is wrong, each said plainly once: the first, and the others with it.

    Args:
        where: what the input is a part of. known: the names of fields that there may be at a
            place.
    """
    found: dict[tuple[str, str], RuleError] = {}
    for error in errors[:MOST_TOLD]:
        one = _told(error, known)
        place = ".".join(p for p in (where, one.where) if p)
        found.setdefault((one.code, place), RuleError(one.code, one.what, place, one.remedy))
    first, *others = found.values()
    return RuleError(first.code, first.what, first.where, first.remedy, tuple(others))


def told(error: ValidationError, where: str = "", kind: Any = None) -> RuleError:
    """All that is wrong with what was validated as a type."""
    errors = error.errors(include_url=False)
    return told_all(errors, where, lambda place: fields_at(kind, place))
