"""Say a record in another language: the fields that are prose, and no other."""

from __future__ import annotations

import dataclasses
from collections.abc import Iterator, Mapping
from typing import Any, TypeVar

from ..core.treating.existing_equipment import HOW_WORDS
from .catalogue import ORIGINAL, Language
from .spoken import Spoken

_T = TypeVar("_T")

#: fields of what a customer reads that are prose
_OF_AN_OFFER = """
    sentence why label next test note shown span source summary gains costs unknown left cautions
    complaints cancel_text cooling_off local_rules reasons evidence target_words tonight health
    first warranty parts flags answer honest
"""
_OF_ITS_CARE = "said tried title tools text caution"
_OF_WHAT_IS_SHOWN = """
    sentences refused lacks beside hardness breakthrough shows does_not_show steps simulates needs
"""
SAID = frozenset(f"{_OF_AN_OFFER} {_OF_ITS_CARE} {_OF_WHAT_IS_SHOWN}".split())
#: fields that are prose in some records and codes in others: (record, field)
SAID_IN = frozenset(
    {
        ("ReadingLine", "analyte"),
        ("Unknown", "name"),
        ("Row", "name"),
        ("Row", "unit"),
        ("Offer", "source"),
        ("OfferedOption", "name"),
        ("About", "name"),
        ("NotOffered", "name"),
        ("CardLine", "name"),
    }
)
#: fields of rows of texts, and how many codes each row begins with: the status of a check, the
#: analyte of what is held against each other; what something is called is said like its value
_CODES_FIRST = {"checks": 1, "rows": 1, "figures": 0, "settings": 0}
#: how equipment of a home is named after what becomes of it: in the code's words, not in a firm's
_KEPT = tuple(f", {words}" for words in HOW_WORDS.values())
#: fields that hold names: of people, places, makers, a firm's own goods and lines
NAMES = frozenset({"name", "firm", "consultant", "home", "place", "method", "sample", "stage"})


def in_language(record: _T, language: Language, beside: Any = None) -> _T:
    """A record as it is said in a language; itself in the original one.

    Args:
        beside: a record whose names it may hold besides its own, said as they are written.
    """
    if language == ORIGINAL:
        return record
    names = names_of(beside) | names_of(record)
    out: _T = _said(record, Spoken(language, names), saying=False)
    return out


def names_of(record: Any) -> frozenset[str]:
    """The names in a record: said as they are written, in whatever language."""
    return frozenset(_names(record))


def _names(value: Any, field: str = "") -> Iterator[str]:
    if isinstance(value, str):
        if field in NAMES:
            yield value.rsplit(", ", 1)[0] if value.endswith(_KEPT) else value
    elif dataclasses.is_dataclass(value):
        for f in dataclasses.fields(value):
            if (type(value).__name__, f.name) not in SAID_IN:
                yield from _names(getattr(value, f.name), f.name)
    elif isinstance(value, Mapping):
        for v in value.values():
            yield from _names(v)
    elif isinstance(value, tuple | list):
        for v in value:
            yield from _names(v, field)


def _said(value: Any, by: Spoken, saying: bool) -> Any:
    if isinstance(value, str):
        return by.say(value) if saying and type(value) is str else value
    if dataclasses.is_dataclass(value) and not isinstance(value, type):
        new = {f.name: _field(value, f.name, by) for f in dataclasses.fields(value) if f.init}
        changed = {k: v for k, v in new.items() if v is not getattr(value, k)}
        return dataclasses.replace(value, **changed) if changed else value
    if isinstance(value, Mapping):
        return {k: _said(v, by, saying) for k, v in value.items()}
    if isinstance(value, tuple):
        out = tuple(_said(v, by, saying) for v in value)
        return value if all(a is b for a, b in zip(value, out, strict=True)) else out
    return [_said(v, by, saying) for v in value] if isinstance(value, list) else value


def _field(record: Any, name: str, by: Spoken) -> Any:
    value = getattr(record, name)
    first = _CODES_FIRST.get(name)
    if first is not None and _are_rows(value):
        return tuple((*row[:first], *map(by.say, row[first:])) for row in value)
    if name in ("name", "stage") and isinstance(value, str) and value.endswith(_KEPT):
        return ", ".join(map(by.say, value.rsplit(", ", 1)))
    return _said(value, by, name in SAID or (type(record).__name__, name) in SAID_IN)


def _are_rows(value: Any) -> bool:
    return isinstance(value, tuple) and all(
        isinstance(row, tuple) and all(isinstance(cell, str) for cell in row) for row in value
    )
