"""The visit file: one JSON document, versioned, read and written without loss."""

from __future__ import annotations

import json
from collections.abc import Callable
from typing import Any

from ..core.errors import RuleError
from ..core.visit import FORMAT, VERSION, Visit
from .codec import adapter, load, to_json
from .incoming import json_of, text_of

LARGEST_BYTES = 5_000_000

#: version -> how a document of that version becomes one of the next
UPGRADES: dict[int, Callable[[dict[str, Any]], dict[str, Any]]] = {}


def write(visit: Visit) -> bytes:
    """The visit as a file: two spaces, fields in their fixed order, a newline at the end."""
    return to_json(visit, Visit, indent=2) + b"\n"


def read(data: bytes) -> Visit:
    """A visit from a file.

    Raises:
        RuleError: too large, not text, not JSON (with line and column), cut off, another format, a
            newer version, or a field that does not fit (with its place).
    """
    text = text_of(data, LARGEST_BYTES, "file", "not_text", "Export it again.")
    try:
        document = json_of(text, parse_constant=_no_constant)
    except json.JSONDecodeError as e:
        body = text.strip()
        cut = not body or (
            body[0] in "{[" and (body[-1] not in "}]" or e.pos >= len(text.rstrip()) - 1)
        )
        what = "The file is cut off." if cut else "The file is not JSON."
        raise RuleError(
            "file.cut_off" if cut else "file.not_json",
            what,
            f"line {e.lineno}, column {e.colno}",
            "Download it again.",
        ) from e
    except RuleError:
        raise
    except ValueError as e:
        raise RuleError(
            "file.not_json", f"The file cannot be read: {e}.", "file", "Is it the right file?"
        ) from e
    if not isinstance(document, dict) or document.get("format") != FORMAT:
        raise RuleError(
            "file.format",
            "This is JSON, but not a visit file.",
            "format",
            f'It must say "format": "{FORMAT}".',
        )
    version = document.get("version")
    if isinstance(version, bool) or not isinstance(version, int) or version < 1:
        raise RuleError(
            "file.version",
            "The file does not say which version it is.",
            "version",
            f"This program writes version {VERSION}.",
        )
    if version > VERSION:
        raise RuleError(
            "file.newer",
            f"The file is of version {version}; this program reads up to {VERSION}.",
            "version",
            "Update Zesty Glass.",
        )
    while version < VERSION:
        document = UPGRADES[version](document)
        version = document["version"]
    _say_what_softens(document)
    visit: Visit = load(Visit, document)
    return visit


def _say_what_softens(document: dict[str, Any]) -> None:
    """Files of before 2026-12 knew a glass behind a softener by the name of that choice alone."""
    samples = document.get("samples")
    for sample in samples if isinstance(samples, list) else ():
        if isinstance(sample, dict) and sample.get("after") == "softener":
            sample.setdefault("softened", True)


def _no_constant(name: str) -> float:
    raise RuleError(
        "file.not_finite",
        f"The file holds {name}, which is no number.",
        "file",
        "Write null where a value is not known.",
    )


def schema() -> dict[str, Any]:
    """JSON Schema of the visit file."""
    made = adapter(Visit).json_schema(mode="validation")
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "Zesty Glass visit file",
        **made,
    }
