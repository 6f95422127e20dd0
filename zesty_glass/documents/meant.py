"""What somebody may have meant who wrote a name that is not known."""

from __future__ import annotations

import types
from collections.abc import Iterable, Sequence
from dataclasses import is_dataclass
from difflib import get_close_matches
from typing import Annotated, Any, Union, get_args, get_origin, get_type_hints

from pydantic import BaseModel

ALIKE = 0.72  # share of letters that two names must have in common to be taken for each other
MOST_NAMED = 12  # names that are listed where none is alike


def did_you_mean(name: str, known: Iterable[str]) -> str:
    """What to do about an unknown name.

    >>> did_you_mean("custommer", ["customer", "home"])
    'Did you mean “customer”?'
    >>> did_you_mean("zzz", ["customer", "home"])
    'Known here: customer, home.'
    """
    names = sorted(set(known))
    near = get_close_matches(name, names, 1, ALIKE)
    if near:
        return f"Did you mean “{near[0]}”?"
    if 0 < len(names) <= MOST_NAMED:
        return f"Known here: {', '.join(names)}."
    return "Take it out, or look it up in the description."


def _kinds(hint: Any) -> list[Any]:
    """The types that a hint lets in."""
    origin = get_origin(hint)
    if origin is Annotated:
        return _kinds(get_args(hint)[0])
    if origin in (Union, types.UnionType):
        return [k for x in get_args(hint) for k in _kinds(x)]
    return [hint]


def _fields(kind: Any) -> dict[str, Any]:
    """The fields of a record or of a request's body, with the types that they let in."""
    if is_dataclass(kind):
        return get_type_hints(kind, include_extras=True)
    if isinstance(kind, type) and issubclass(kind, BaseModel):
        return {name: f.annotation for name, f in kind.model_fields.items()}
    return {}


def _within(kind: Any, part: int | str) -> list[Any]:
    """The types of a part of a value; the type itself where validation alone names the part."""
    fields = _fields(kind)
    if fields:
        return _kinds(fields[str(part)]) if part in fields else [kind]
    inner = [k for x in get_args(kind) if x is not Ellipsis for k in _kinds(x)]
    return inner if isinstance(part, int) or get_origin(kind) is dict else [kind]


def fields_at(kind: Any, place: Sequence[int | str]) -> set[str]:
    """Names of the fields that a value of a type may have at a place."""
    found = _kinds(kind)
    for part in place:
        found = [k for x in found for k in _within(x, part)]
    return {name for k in found for name in _fields(k)}
