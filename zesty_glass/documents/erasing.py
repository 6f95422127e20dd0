"""Takes a person out of what is kept: every field that is declared as ``Words`` loses what it says,
and what it said is found again wherever a sentence repeats it.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import fields, is_dataclass, replace
from functools import cache
from types import UnionType
from typing import Annotated, Any, get_args, get_origin, get_type_hints

from ..core.record import ERASED, Personal

#: a shorter word is in too many sentences to be looked for [letters]
SHORTEST = 4


def mark_of(kind: Any) -> Personal | None:
    """What a type says of a person, if it does."""
    if get_origin(kind) is not Annotated:
        return None
    return next((m for m in get_args(kind) if isinstance(m, Personal)), None)


@cache
def personal(kind: Any) -> bool:
    """Whether values of a type may hold what goes with a person."""
    return _holds(kind, frozenset())


def _holds(kind: Any, seen: frozenset[Any]) -> bool:
    if mark_of(kind) is not None:
        return True
    if isinstance(kind, type) and is_dataclass(kind):
        within = seen | {kind}
        return kind not in seen and any(_holds(k, within) for k in kinds_of(kind).values())
    return any(_holds(k, seen) for k in get_args(kind) if not isinstance(k, str))


def holds_person(record: Any, field: str) -> bool:
    """Whether a record's field may hold what goes with a person; an unknown field may."""
    kind: Any = kinds_of(record).get(field)
    return kind is None or personal(kind)


@cache
def kinds_of(record: Any) -> dict[str, Any]:
    """The declared type of every field of a record."""
    hints = get_type_hints(record, include_extras=True)
    return {f.name: hints[f.name] for f in fields(record)}


def words_of(value: Any, kind: Any = None) -> Iterator[str]:
    """Everything that a value says in fields that go with a person."""
    kind = type(value) if kind is None else kind
    if mark_of(kind) is not None:
        yield from (value,) if isinstance(value, str) else ()
        return
    if is_dataclass(value) and not isinstance(value, type):
        for name, of in kinds_of(type(value)).items():
            if personal(of):
                yield from words_of(getattr(value, name), of)
    elif isinstance(value, (tuple, list)):
        for x in value:
            yield from words_of(x, inner_of(kind, x))
    elif isinstance(value, dict):
        for key, x in value.items():
            yield from words_of(key, get_args(_bare(kind))[0])
            yield from words_of(x, get_args(_bare(kind))[1])


def _bare(kind: Any) -> Any:
    """A container's type out of a choice of types."""
    if get_origin(kind) in (UnionType,) or str(get_origin(kind)) == "typing.Union":
        return next((k for k in get_args(kind) if get_args(k)), kind)
    return kind


def inner_of(kind: Any, value: Any) -> Any:
    """The declared type of what a list holds, or the value's own for a record."""
    if is_dataclass(value):
        return type(value)
    of = [k for k in get_args(_bare(kind)) if k is not Ellipsis]
    return of[0] if of else type(value)


def without_person(value: Any, kind: Any = None, n: int = 1) -> Any:
    """The same value with nothing said in fields that go with a person; what was empty stays so.

    Args:
        n: the how-manieth of its list it is.
    """
    kind = type(value) if kind is None else kind
    mark = mark_of(kind)
    if mark is not None:
        erased = mark.instead.format(n=n)
        return (value and erased) if isinstance(value, str) else type(value)()
    if is_dataclass(value) and not isinstance(value, type):
        bare = {
            name: without_person(getattr(value, name), of, n)
            for name, of in kinds_of(type(value)).items()
            if personal(of)
        }
        return replace(value, **bare) if bare else value
    if isinstance(value, tuple):
        return tuple(without_person(x, inner_of(kind, x), n) for n, x in enumerate(value, 1))
    if isinstance(value, dict):
        keys, values = get_args(_bare(kind))
        return {without_person(k, keys): without_person(x, values) for k, x in value.items()}
    return value


def scrubbed(data: Any, words: Iterable[str]) -> Any:
    """Plain data with every occurrence of some words taken out of its texts."""
    known = {w.strip() for w in words} - {ERASED}
    long = sorted((w for w in known if len(w) >= SHORTEST), key=len, reverse=True)
    if not long:
        return data
    return _scrub(data, re.compile(rf"(?<!\w)(?:{'|'.join(map(re.escape, long))})(?!\w)"))


def _is_code(text: str) -> bool:
    """Whether a text is a code of ours, and no sentence and no name."""
    return " " not in text and (text.islower() or text.isupper())


def _scrub(data: Any, words: re.Pattern[str]) -> Any:
    if isinstance(data, str):
        return data if _is_code(data) else words.sub(ERASED, data)
    if isinstance(data, list):
        return [_scrub(x, words) for x in data]
    if isinstance(data, dict):
        return {k: _scrub(x, words) for k, x in data.items()}
    return data
